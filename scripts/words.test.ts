/** Words, keys and colours this product gave up for its own: none of them comes back, in code, defaults, demonstration or documents. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { TEMPLATE_IDS, writeDocument } from '../core/file';
import { ELEMENT_CLASSES, elementText } from '../core/membrane';
import { GALLON_UNITS, METRIC_UNITS } from '../core/quantity';
import { newStage, STAGE_KINDS } from '../core/stage';
import { systemFromTemplate } from '../core/template';

const GONE: readonly (readonly [what: string, pattern: RegExp])[] = [
  ['an element by the digits of its size', /\b(?:1812|2540|4040|2012-200)\b/],
  ['an element by a suffix', /-(?:LE|BW|XLE|SW|NF)\b/],
  ['a meter scale by a number', /['"]442['"]/],
  ['a layout by a strength of the tap', /(?:weak|strong) water, (?:below|above) about/i],
  ['makers as schools', /(?:strict|tolerant) makers/i],
  ['an association as a source', /coffee association|\(recalled, ±10\)/i],
  ['the two colours of one resin', /#cf9a55|#2d5f8e/i],
  ['a chart of litres for other waters', /capacityChart|Litres for other waters/],
];
/** What reads older files and links has to know their words; a check names what it holds gone. */
const KNOWS_OLD = /^core\/file\/(?:versions|fixtures)\/|linkDictionary|\.test\.ts$|^core\/testing\/|package-lock|^docs\/screenshots\//;
const FILES = execFileSync('git', ['ls-files', 'app', 'core', 'demo', 'docs', 'e2e', 'scripts', 'server', 'README.md'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((name) => /\.(?:ts|vue|css|json|md|mjs|html)$/.test(name) && !KNOWS_OLD.test(name));

describe('what was given up stays away', () => {
  it.each(GONE)('%s', (_, pattern) => {
    const found = FILES.filter((name) => pattern.test(readFileSync(new URL(`../${name}`, import.meta.url), 'utf8')));
    expect(found).toEqual([]);
  });
  it('holds the whole product', () => expect(FILES.length).toBeGreaterThan(600));
  it.each(TEMPLATE_IDS)('%s writes no such key', (template) => {
    const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
    const text = writeDocument([{ system, readings: [] }], '2026-01-01T00:00:00Z');
    for (const [what, pattern] of GONE) expect(pattern.test(text), what).toBe(false);
    // Nothing is said for a person: neither the colours of their tubing nor what a box prints.
    expect(system.build.colours).toEqual({ feed: null, product: null, waste: null });
  });
  it('a cartridge says nothing of its box until it is typed', () => {
    for (const kind of STAGE_KINDS) {
      const stage = newStage(kind, 's');
      if (stage.kind === 'decarboniser')
        expect(stage).toMatchObject({ box: { litres: null, hardnessMgL: null, bypass: null }, capacityEq: null, settings: [] });
    }
  });
  it('elements are told by size and use, in the units that were chosen', () => {
    const told = (units: typeof METRIC_UNITS): string[] => ELEMENT_CLASSES.map((id) => elementText(id, units).replaceAll('\u202f', ' '));
    expect(told(GALLON_UNITS)).toContain('1.8 × 12 in, 75 gal/day');
    expect(told(GALLON_UNITS)).toContain('4 × 40 in, lowest pressure');
    expect(told(METRIC_UNITS)).toContain('4.6 × 30 cm, 12 L/h');
    expect(new Set(told(METRIC_UNITS)).size).toBe(ELEMENT_CLASSES.length);
  });
});
