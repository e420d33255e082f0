import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { applyChanges, changesBetween, joined, same, takenBack } from './changes';
import { TEMPLATE_IDS, type System } from './schema';

const system = (template: (typeof TEMPLATE_IDS)[number] = 'marinePair'): System =>
  systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const ids = (s: System): string[] => s.train.stages.map(({ id }) => id);
const withoutStage = (s: System, id: string): System => ({
  ...s,
  train: { ...s.train, stages: s.train.stages.filter((stage) => stage.id !== id) },
});
const renamed = (s: System, id: string, name: string): System => ({
  ...s,
  train: { ...s.train, stages: s.train.stages.map((stage) => (stage.id === id ? { ...stage, name } : stage)) },
});
const warmer = (s: System, temperatureC: number): System => ({
  ...s,
  source: { ...s.source, samples: s.source.samples.map((sample) => ({ ...sample, temperatureC })) },
});
const acid = (s: System, pH: number): System => ({
  ...s,
  source: { ...s.source, samples: s.source.samples.map((sample) => ({ ...sample, kit: { ...sample.kit, pH } })) },
});
/** Plain data as files hold it, with lists that have ids and lists that have none. */
const plain = fc.letrec<{ data: unknown }>((tie) => ({
  data: fc.oneof(
    { maxDepth: 4 },
    fc.oneof(fc.integer(), fc.string({ maxLength: 4 }), fc.boolean(), fc.constant(null)),
    fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd'), tie('data'), { maxKeys: 4 }),
    fc.array(tie('data'), { maxLength: 4 }),
    fc
      .uniqueArray(fc.constantFrom('p', 'q', 'r', 's', 't'), { maxLength: 5 })
      .chain((list) => fc.tuple(...list.map((id) => tie('data').map((value) => ({ id, value }))))),
  ),
})).data;

describe('what an edit changed', () => {
  it('leads from one state to the other, and back', () => {
    fc.assert(
      fc.property(plain, plain, (before, after) => {
        const changes = changesBetween(before, after);
        const there = applyChanges(before, changes, 'leave');
        expect(same(there.state, after)).toBe(true);
        expect(there.missed).toEqual([]);
        expect(same(applyChanges(there.state, takenBack(changes), 'leave').state, before)).toBe(true);
      }),
      { numRuns: 3000 },
    );
  });
  it('survives being written as text, as the journal and the database write it', () => {
    fc.assert(
      fc.property(plain, plain, (before, after) => {
        const changes = JSON.parse(JSON.stringify(changesBetween({ it: before }, { it: after }))) as ReturnType<typeof changesBetween>;
        expect(same(applyChanges({ it: before }, changes, 'overwrite').state, { it: after })).toBe(true);
      }),
      { numRuns: 1000 },
    );
  });
  it('is just the place that was touched', () => {
    const s = system();
    const id = s.source.samples[0]!.id;
    expect(changesBetween(s, warmer(s, 17))).toEqual([
      { at: ['source', 'samples', { id }, 'temperatureC'], before: s.source.samples[0]!.temperatureC, after: 17 },
    ]);
  });
  it('taken back in one tab leaves what another typed into the same sample', () => {
    const s = system();
    const mine = changesBetween(s, warmer(s, 17));
    const both = acid(warmer(s, 17), 6.5);
    const { state, missed } = applyChanges(both, takenBack(mine), 'leave');
    expect(missed).toEqual([]);
    expect(state).toEqual(acid(s, 6.5));
  });
  it('a place that another hand has changed since is left, and told', () => {
    const s = system();
    const mine = changesBetween(s, warmer(s, 17));
    const theirs = warmer(s, 21);
    const { state, missed } = applyChanges(theirs, takenBack(mine), 'leave');
    expect(state).toEqual(theirs);
    expect(missed).toHaveLength(1);
    expect(applyChanges(theirs, takenBack(mine), 'overwrite').state).toEqual(s);
  });
  it('a removed stage comes back to its place, and another tab’s edit of the membrane stays', () => {
    const s = system();
    const removed = withoutStage(s, 'carbon');
    const changes = changesBetween(s, removed);
    const both = renamed(removed, 'membrane', 'Theirs');
    const back = applyChanges(both, takenBack(changes), 'leave');
    expect(back.missed).toEqual([]);
    expect(back.state).toEqual(renamed(s, 'membrane', 'Theirs'));
  });
  it('stages moved are put in order again, around one that came in meanwhile', () => {
    const s = system();
    const turned = { ...s, train: { ...s.train, stages: [...s.train.stages].reverse() } };
    const added = { ...turned, train: { ...turned.train, stages: [...turned.train.stages, { ...turned.train.stages[0]!, id: 'new' }] } };
    const back = applyChanges(added, takenBack(changesBetween(s, turned)), 'leave').state;
    expect(ids(back).filter((id) => id !== 'new')).toEqual(ids(s));
    expect(ids(back)).toContain('new');
  });
  it('typing one figure key by key is one place set once', () => {
    const s = system();
    const steps = [s, warmer(s, 1), warmer(s, 17), warmer(s, 17.5)];
    const one = steps
      .slice(1)
      .reduce((sum, next, i) => joined(sum, changesBetween(steps[i], next)), [] as ReturnType<typeof changesBetween>);
    expect(one).toHaveLength(1);
    expect(applyChanges(warmer(s, 17.5), takenBack(one), 'leave').state).toEqual(s);
  });
});
