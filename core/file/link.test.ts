import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { deflateSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { OPEN_CHOICE } from './defaults';
import { readDocument, systemIssue } from './document';
import { linked, withLinked } from './design';
import { fileFromLink, linkText } from './link';
import { DICTIONARY_A, DICTIONARY_B } from './linkDictionary';
import { TEMPLATE_IDS, type System } from './schema';

const AT = '2026-11-28T08:00:00Z';
const DEMO = fileURLToPath(new URL('../../demo/', import.meta.url));
const demo: System[] = readdirSync(DEMO)
  .filter((name) => name.endsWith('.yesclear.json'))
  .map((name) => {
    const read = readDocument(readFileSync(DEMO + name, 'utf8'));
    if (!read.ok) throw new Error(read.error.message);
    return read.records[0]!.system;
  });
const back = (link: string): System => {
  const text = fileFromLink(link);
  if (!text.ok) throw new Error(text.error.message);
  const read = readDocument(text.value);
  if (!read.ok) throw new Error(`${read.error.message} ${JSON.stringify(read.error.issues)}`);
  return read.records[0]!.system;
};

describe('a link that carries a system', () => {
  it.each(TEMPLATE_IDS)('%s: comes back as it went, in a few hundred characters', (template) => {
    const system = systemFromTemplate({ id: 'abc', name: 'Räuchereи, 日本', site: 'Bench', template, at: AT });
    const link = linkText(system, AT);
    expect(back(link)).toEqual(linked(system));
    expect(link).toMatch(/^b[\w-]+$/);
    expect(link.length).toBeLessThan(1000);
  });
  it.each(demo.map((system) => [system.name, system] as const))(
    '%s of the demo comes back, without its log and work, and fits a QR code',
    (_name, system) => {
      const link = linkText(system, AT);
      const got = back(link);
      expect(got).toEqual(linked(system));
      expect(systemIssue(got)).toBeNull();
      expect(got.train).toEqual(system.train);
      expect([got.build.works, got.cartridges]).toEqual([[], []]);
      // 2,953 bytes are the most a QR code holds (ISO/IEC 18004, version 40-L); the address before it takes some.
      expect(link.length).toBeLessThan(2800);
    },
  );
  it('cut short or changed it says so, and is never another system', () => {
    const link = linkText(demo[0]!, AT);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: link.length - 1 }), (length) => {
        expect(fileFromLink(link.slice(0, length)).ok).toBe(false);
      }),
      { numRuns: 60, seed: 3 },
    );
    for (const text of ['', 'b', 'z123', 'a', 'a!!!!', `a${'A'.repeat(50)}`]) expect(fileFromLink(text).ok).toBe(false);
    const outcome = fileFromLink('hello');
    expect(outcome.ok ? '' : outcome.error.message).toContain('does not carry a system');
  });
  it('taken into the system here it brings its design, and leaves what was done and read', () => {
    const [here] = demo.filter(({ cartridges, build }) => build.works.length > 0 && cartridges !== null);
    const there = linked({ ...here!, name: 'Renamed', train: { ...here!.train, wasteTarget: 5 } });
    const taken = withLinked(here!, there);
    expect([taken.name, taken.train.wasteTarget]).toEqual(['Renamed', 5]);
    expect(taken.build.works).toEqual(here!.build.works);
    expect(taken.comparison).toEqual(here!.comparison);
    expect(new Set(taken.source.samples.map(({ id }) => id))).toEqual(new Set(here!.source.samples.map(({ id }) => id)));
    expect(systemIssue(taken)).toBeNull();
  });
  it('printed before there was anything to compare, it still opens', () => {
    // Of a system without what later versions renamed.
    const plain = demo.find(({ template }) => template === 'skid')!;
    const { choice: _, ...system } = linked(plain);
    const json = JSON.stringify({ v: 7, t: AT, s: system });
    const packed = deflateSync(strToU8(json), { level: 9, dictionary: strToU8(DICTIONARY_A) });
    const link = `a${Buffer.from(packed).toString('base64url')}`;
    expect(back(link)).toEqual({ ...linked(plain), choice: OPEN_CHOICE });
  });
  it('the dictionaries of printed links never change', () => {
    const hash = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 16);
    expect(hash(DICTIONARY_A)).toBe('4b1e6aeebf876fa3');
    expect(hash(DICTIONARY_B)).toBe('457fffca77b5d8d9');
  });
});
