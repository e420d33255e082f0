import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { partChanged, plainReading } from '../testing/written';
import { asText } from './changes';
import { mergeRecords } from './merge';
import { readDocument, writeDocument } from './document';
import type { SystemRecord } from './record';
import { withRemovals } from './removed';
import type { Reading, Removal, Service, System } from './schema';

/** Copies of one system joined again and again by two keepers (science of logs, 11 and check value L46). */
const base = systemFromTemplate({ id: 's', name: 'n', site: 'x', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const service = (id: string, stageId: string, at: string, over: Partial<Service> = {}): Service =>
  partChanged(id, { id: stageId, name: stageId }, at, over);
const fitted = (system: System, stageId: string, day: string): System => ({
  ...system,
  train: {
    ...system.train,
    stages: system.train.stages.map((stage) => (stage.id === stageId && 'fittedOn' in stage ? { ...stage, fittedOn: day } : stage)),
  },
});
const fittedOn = ({ train }: System, id: string): string | null => {
  const stage = train.stages.find((one) => one.id === id);
  return stage && 'fittedOn' in stage ? stage.fittedOn : null;
};
const resin = base.train.stages.find(({ kind }) => kind === 'resin')!.id;
const filter = base.train.stages.find(({ kind }) => kind === 'sediment')!.id;
const record = (system: System, readings: Reading[] = []): SystemRecord => ({ system, readings });
const at = (system: System, updatedAt: string): System => ({ ...system, updatedAt });

describe('two keepers of one system', () => {
  it('one changed the resin, the other later the filter: both stand since their own day', () => {
    const one = at(
      { ...fitted(base, resin, '2026-11-02'), services: [service('w1', resin, '2026-11-02T10:00:00Z')] },
      '2026-11-02T10:00:00Z',
    );
    const other = at({ ...fitted(base, filter, '2026-11-09'), services: [service('w2', filter, '2026-11-09T10:00:00Z')] }, '2026-11-09T10:00:00Z'); // prettier-ignore
    for (const [here, there] of [
      [one, other],
      [other, one],
    ] as const) {
      const { system } = mergeRecords(record(here), record(there)).record;
      expect([fittedOn(system, resin), fittedOn(system, filter)]).toEqual(['2026-11-02', '2026-11-09']);
      expect(system.services.map(({ id }) => id)).toEqual(['w1', 'w2']);
    }
  });
  it('the same change written down by both within a day is one, with what either said', () => {
    const one = at({ ...fitted(base, resin, '2026-11-02'), services: [service('w1', resin, '2026-11-02T18:00:00Z', { why: 'notSaid', note: 'pink' })] }, '2026-11-02T18:00:00Z'); // prettier-ignore
    const other = at({ ...fitted(base, resin, '2026-11-03'), services: [service('w2', resin, '2026-11-03T07:00:00Z', { why: 'spent', passedL: 900 })] }, '2026-11-03T07:00:00Z'); // prettier-ignore
    const { system } = mergeRecords(record(one), record(other)).record;
    expect(system.services).toEqual([service('w1', resin, '2026-11-02T18:00:00Z', { why: 'spent', note: 'pink', passedL: 900 })]);
    expect(fittedOn(system, resin)).toBe('2026-11-02');
    // And the copy that wrote it a day later does not bring it back.
    expect(mergeRecords(record(other), record(system)).record.system.services.map(({ id }) => id)).toEqual(['w1']);
  });
  it('three days apart it is two, unless a person says that it is one', () => {
    const one = at({ ...base, services: [service('w1', resin, '2026-11-02T18:00:00Z')] }, '2026-11-02T18:00:00Z');
    const other = at({ ...base, services: [service('w2', resin, '2026-11-05T07:00:00Z')] }, '2026-11-05T07:00:00Z');
    const ids = (isOneWork?: () => boolean): string[] =>
      mergeRecords(record(one), record(other), isOneWork && { isOneWork }).record.system.services.map(({ id }) => id);
    expect([ids(), ids(() => true)]).toEqual([['w1', 'w2'], ['w1']]);
  });
  it('a reading that differs on both sides makes one twin, however often copies are exchanged', () => {
    let [one, other] = [record(base, [plainReading('a', { note: 'mine' })]), record(base, [plainReading('a', { note: 'theirs' })])];
    for (let i = 0; i < 4; i++) {
      one = mergeRecords(one, other).record;
      other = mergeRecords(other, one).record;
    }
    expect(one.readings.map(({ note }) => note)).toEqual(['mine', 'theirs']);
    expect(one.readings.map(({ id }) => id)).toEqual(other.readings.map(({ id }) => id));
  });
  it('what one removed stays removed, and what came back since comes back', () => {
    const word = (day: string, gone: boolean): Removal => ({ of: 'readings', id: 'a', at: `2026-11-${day}T08:00:00Z`, gone });
    const removed = record({ ...base, removed: [word('02', true)] });
    const kept = record(base, [plainReading('a')]);
    expect(mergeRecords(removed, kept).record.readings).toEqual([]);
    expect(mergeRecords(kept, removed).record.readings).toEqual([]);
    const back = record({ ...base, removed: [word('03', false)] }, [plainReading('a')]);
    expect(mergeRecords(removed, back).record.readings.map(({ id }) => id)).toEqual(['a']);
    const without = withRemovals({ ...base, services: [service('w1', resin, '2026-11-02T08:00:00Z')] }, base, '2026-11-04T08:00:00Z', true);
    expect(without.removed).toEqual([{ of: 'services', id: 'w1', at: '2026-11-04T08:00:00Z', gone: true }]);
  });
  it('struck out beats kept; of a visit written down twice one counts where a person said so', () => {
    const struck = plainReading('a', { counts: false });
    expect(mergeRecords(record(base, [struck]), record(base, [plainReading('a')])).record.readings).toEqual([struck]);
    expect(mergeRecords(record(base, [plainReading('a')]), record(base, [struck])).record.readings).toEqual([struck]);
    const twice = mergeRecords(record(base, [plainReading('a')]), record(base, [plainReading('b')]), { once: new Set(['b']) }).record
      .readings;
    expect(twice.map(({ id, counts }) => [id, counts])).toEqual([['a', true], ['b', false]]); // prettier-ignore
  });
});

describe('joining copies', () => {
  const ids = ['a', 'b', 'c', 'd'] as const;
  const some = fc.uniqueArray(
    fc.record({
      id: fc.constantFrom(...ids),
      note: fc.constantFrom('', 'x', 'y'),
      counts: fc.boolean(),
      photos: fc.subarray(['p', 'q']),
      editedAt: fc.constantFrom(null, '2026-11-01T08:00:00Z', '2026-11-02T08:00:00Z'),
    }),
    { selector: ({ id }) => id },
  );
  const words = fc.uniqueArray(fc.record({ id: fc.constantFrom(...ids), day: fc.constantFrom('01', '02'), gone: fc.boolean() }), {
    selector: ({ id }) => id,
    maxLength: 2,
  });
  const work = fc.uniqueArray(fc.record({ id: fc.constantFrom('w1', 'w2', 'w3'), day: fc.integer({ min: 1, max: 28 }) }), {
    selector: ({ id }) => id,
  });
  // Of one id a piece of work is written down once, so both copies know the same of it.
  const copy = fc.record({ readings: some, words, hour: fc.integer({ min: 0, max: 3 }), name: fc.constantFrom('n', 'o'), work });
  type Copy = typeof copy extends fc.Arbitrary<infer T> ? T : never;
  const two = (n: number): string => String(n).padStart(2, '0');
  const made = ({ readings, words: removed, hour, name, work: works }: Copy): SystemRecord => ({
    system: works.reduce(
      (system, { id, day }): System => ({
        ...fitted(system, resin, [fittedOn(system, resin) ?? '', `2026-10-${two(day)}`].sort().at(-1)!),
        services: [...system.services, service(`${id}-${day}`, resin, `2026-10-${two(day)}T10:00:00Z`)],
      }),
      {
        ...base,
        name,
        updatedAt: `2026-11-01T0${hour}:00:00Z`,
        removed: removed.map(({ id, day, gone }): Removal => ({ of: 'readings', id, at: `2026-11-${day}T08:00:00Z`, gone })),
      },
    ),
    readings: readings.map((one) => plainReading(one.id, one)),
  });
  const said = ({ system, readings }: SystemRecord): string =>
    asText({
      name: system.name,
      at: system.updatedAt,
      removed: system.removed,
      services: system.services,
      fitted: fittedOn(system, resin),
      readings,
    });
  it('tells the same whoever asks, and however often (L46)', () => {
    fc.assert(
      fc.property(copy, copy, (one, other) => {
        const [a, b] = [made(one), made(other)];
        const ab = mergeRecords(a, b).record;
        expect(said(mergeRecords(b, a).record)).toBe(said(ab));
        expect(said(mergeRecords(ab, b).record)).toBe(said(ab));
        expect(said(mergeRecords(a, ab).record)).toBe(said(ab));
      }),
      { numRuns: 2000 },
    );
  }, 60_000);
  it('can be written to a file and read again', () => {
    fc.assert(
      fc.property(copy, copy, (one, other) => {
        expect(readDocument(writeDocument([mergeRecords(made(one), made(other)).record], '2026-11-23T11:00:00Z')).ok).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
});
