import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { plainReading } from '../testing/written';
import { compareRecords, copyOf, mergeRecords, newerOf, alike, withPlainId } from './merge';
import { readDocument, writeDocument } from './document';
import type { SystemRecord } from './record';
import type { Reading } from './schema';

const base: SystemRecord = {
  system: systemFromTemplate({ id: 's', name: 'n', site: 'x', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' }),
  readings: [plainReading('a'), plainReading('b')],
};
const edited = (record: SystemRecord, at: string, over: Partial<SystemRecord['system']>): SystemRecord => ({
  ...record,
  system: { ...record.system, updatedAt: at, ...over },
});
let count = 0;
const newId = (): string => `new-${(count += 1)}`;

describe('a system here and in a file', () => {
  it('says what only one of them has, and which was edited last', () => {
    const here = edited({ ...base, readings: [plainReading('a'), plainReading('b'), plainReading('c')] }, '2026-03-01T00:00:00Z', {
      name: 'Mine',
    });
    const there = { ...base, readings: [plainReading('a', { note: 'x' }), plainReading('d')] };
    const compared = compareRecords(here, there);
    expect(compared.readingsHere.map(({ id }) => id)).toEqual(['b', 'c']);
    expect(compared.readingsThere.map(({ id }) => id)).toEqual(['d']);
    expect(compared.readingsDiffer.map(([one]) => one.id)).toEqual(['a']);
    expect([compared.parts, compared.newer]).toEqual([['name'], 'here']);
    expect(alike(compareRecords(base, { ...base, readings: [...base.readings].reverse() }))).toBe(true);
    expect(alike(compareRecords(base, { ...base, readings: [plainReading('a')] }))).toBe(false);
    expect(alike(compared)).toBe(false);
  });
  it('merged holds the readings of both, twins that differ twice, and names what of the older one does not stand', () => {
    const here = edited({ ...base, readings: [plainReading('a'), plainReading('b')] }, '2026-03-01T00:00:00Z', { name: 'Mine' });
    const there = { ...base, readings: [plainReading('a', { note: 'other' }), plainReading('d')] };
    const { record, from, left } = mergeRecords(here, there);
    expect(record.readings.map(({ note }) => note).sort()).toEqual(['', '', '', 'other']);
    expect([record.system.name, from, left]).toEqual(['Mine', 'here', ['name']]);
  });
  it('of two that say different things the one changed last stands, and a person’s word before that', () => {
    const mine = plainReading('a', { note: 'mine', editedAt: '2026-02-03T08:00:00Z' });
    const theirs = plainReading('a', { note: 'theirs', editedAt: '2026-02-03T10:00:00+01:00' });
    const untouched = plainReading('a', { note: 'as taken' });
    expect([newerOf([mine, theirs]), newerOf([theirs, mine]), newerOf([untouched, mine]), newerOf([mine, untouched])]).toEqual([
      'there',
      'here',
      'there',
      'here',
    ]);
    expect(newerOf([untouched, { ...untouched, note: 'as taken too' }])).toBe('both');
    const notes = (side?: 'here' | 'there' | 'both'): string[] =>
      mergeRecords({ ...base, readings: [mine] }, { ...base, readings: [theirs] }, side && { which: () => side }).record.readings.map(
        ({ note }) => note,
      );
    expect([notes(), notes('here'), notes('there'), notes('both')]).toEqual([['theirs'], ['mine'], ['theirs'], ['mine', 'theirs']]);
    expect(alike(compareRecords({ ...base, readings: [mine] }, { ...base, readings: [{ ...mine, editedAt: null }] }))).toBe(true);
  });
  it('a copy shares no id with what it came from', () => {
    const copy = copyOf(base, newId);
    const own = new Set([copy.system.id, ...copy.readings.map(({ id }) => id)]);
    for (const id of ['s', 'a', 'b']) expect(own.has(id)).toBe(false);
    expect(copy.readings.every(({ systemId }) => systemId === copy.system.id)).toBe(true);
    expect(readDocument(writeDocument([copy], '2026-11-23T11:00:00Z')).ok).toBe(true);
  });
  it('an id that cannot stand in an address is made anew, its readings with it', () => {
    expect(withPlainId(base, newId)).toBe(base);
    const odd = { system: { ...base.system, id: 'a/b' }, readings: [plainReading('a', { systemId: 'a/b' })] };
    const mended = withPlainId(odd, newId);
    expect(mended.system.id).toMatch(/^new-/);
    expect(mended.readings[0]!.systemId).toBe(mended.system.id);
  });
});

describe('merging of backups', () => {
  const someReadings = fc.uniqueArray(
    fc
      .record({ id: fc.constantFrom('a', 'b', 'c', 'd', 'e'), note: fc.constantFrom('', 'x', 'y') })
      .map(({ id, note }) => plainReading(id, { note })),
    { selector: ({ id }) => id, maxLength: 5 },
  );
  const meters = fc.uniqueArray(fc.constantFrom('m1', 'm2', 'm3'), { maxLength: 3 });
  const side = fc.record({
    readings: someReadings,
    name: fc.constantFrom('n', 'o'),
    pressure: fc.constantFrom(3, 4),
    meters,
    hour: fc.integer({ min: 0, max: 9 }),
  });
  type Side = typeof side extends fc.Arbitrary<infer T> ? T : never;
  const record = ({ readings, name, pressure, meters: extra, hour }: Side): SystemRecord => ({
    system: {
      ...base.system,
      name,
      updatedAt: `2026-03-01T0${hour}:00:00Z`,
      source: { ...base.system.source, linePressureBar: pressure },
      instruments: [...base.system.instruments, ...extra.map((id) => ({ ...base.system.instruments[0]!, id }))],
    },
    readings,
  });
  it('loses nothing that either side had without having named it', () => {
    fc.assert(
      fc.property(side, side, (a, b) => {
        const [here, there] = [record(a), record(b)];
        const { record: merged, left } = mergeRecords(here, there);
        const said = (one: Reading): string => JSON.stringify({ ...one, id: '', systemId: '' });
        const held = merged.readings.map(said);
        for (const one of [...here.readings, ...there.readings]) expect(held).toContain(said(one));
        for (const { system } of [here, there]) {
          if (merged.system.name !== system.name) expect(left).toContain('name');
          if (merged.system.source.linePressureBar !== system.source.linePressureBar) expect(left).toContain('source');
          for (const meter of system.instruments) expect(merged.system.instruments.map(({ id }) => id)).toContain(meter.id);
        }
        expect(new Set(merged.readings.map(({ id }) => id)).size).toBe(merged.readings.length);
        expect(readDocument(writeDocument([merged], '2026-11-23T11:00:00Z')).ok).toBe(true);
      }),
      { numRuns: 1000 },
    );
  });
  it('of the same file twice changes nothing the second time', () => {
    fc.assert(
      fc.property(side, side, (a, b) => {
        const once = mergeRecords(record(a), record(b)).record;
        const compared = compareRecords(once, mergeRecords(once, record(a)).record);
        expect(compared.readingsHere).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});
