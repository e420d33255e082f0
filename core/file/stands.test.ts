import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { asItStands, isBeingDescribed, stoodBefore, undatedStages, withStands } from '.';

const planned = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const standing = withStands(planned, { how: 'already', since: '2024-03-01' });

describe('a system that stands already', () => {
  it('is described until somebody says that it stands so', () => {
    expect(stoodBefore(planned)).toBe(false);
    expect(isBeingDescribed(standing)).toBe(true);
    const fixed = asItStands(standing, '2026-05-01T10:00:00Z');
    expect(isBeingDescribed(fixed)).toBe(false);
    expect(fixed.build.commissioned).toEqual({ at: '2026-05-01T10:00:00Z', train: standing.train, readingId: null });
  });
  it('said anew, it is described anew; a hand-over that happened stays', () => {
    const fixed = asItStands(standing, '2026-05-01T10:00:00Z');
    expect(withStands(fixed, { how: 'secondHand', since: null }).build.commissioned).toBeNull();
    expect(withStands(fixed, { how: 'already', since: '2023-01-01' }).build.commissioned).toEqual(fixed.build.commissioned);
    const work = {
      id: 'w',
      kind: 'upgrade',
      stageId: null,
      startedAt: '2026-05-02T10:00:00Z',
      endedAt: '2026-05-02T12:00:00Z',
      done: [],
      cautions: [],
      measured: [],
      deviations: [],
    } as const;
    const worked = { ...fixed, build: { ...fixed.build, works: [{ ...work, done: [], cautions: [], measured: [], deviations: [] }] } };
    expect(withStands(worked, { how: 'already', since: null }).build.commissioned).toEqual(fixed.build.commissioned);
  });
  it('asks for every day nobody gave', () => {
    expect(undatedStages(standing).map(({ kind }) => kind)).toEqual(['sediment', 'carbon', 'membrane', 'resin']);
    const dated = {
      ...standing,
      train: { ...standing.train, stages: standing.train.stages.map((s) => (s.kind === 'carbon' ? { ...s, fittedOn: '2026-01-05' } : s)) },
    };
    expect(undatedStages(dated).map(({ kind }) => kind)).toEqual(['sediment', 'membrane', 'resin']);
  });
});
