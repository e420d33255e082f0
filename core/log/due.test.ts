import { describe, expect, it } from 'vitest';
import type { System } from '../file';
import { newStage, type Stage } from '../stage';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { dueOf } from './due';
import { serviced } from './services';
import { standing } from './standing';

const NOW = '2026-09-01T12:00:00Z';
const base = systemFromTemplate({ id: 's', name: 'Try', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
function due(stage: Stage, changes: Partial<System['source']['samples'][number]> = {}): Record<string, string> {
  const samples = base.source.samples.map((sample) => ({ ...sample, ...changes }));
  const system = { ...base, source: { ...base.source, samples }, train: { ...base.train, stages: [stage, ...base.train.stages] } };
  const today = value(standing(system, [], value(tapWater(system.source, system.instruments)).water, NOW));
  return Object.fromEntries(
    dueOf(system, today, NOW)
      .filter(({ instrumentId }) => instrumentId === null)
      .map(({ says, at }) => [says, at.slice(0, 10)]),
  );
}
const fitted = <S extends Stage>(stage: S): S => ({ ...stage, name: 'This', fittedOn: '2026-06-01' });

describe('what is due', () => {
  it('by the calendar, from the day of fitting: filters half a year, calcite a year, a lamp 375 days', () => {
    expect(due(fitted(newStage('sediment', 'x')))).toEqual({ 'Try: change this': '2026-12-01' });
    expect(due(fitted(newStage('inhibitor', 'x')))).toEqual({ 'Try: change this': '2026-12-01' });
    expect(due(fitted(newStage('calcite', 'x')))).toEqual({ 'Try: change this': '2027-06-01' });
    expect(due(fitted(newStage('uv', 'x')))).toEqual({ 'Try: change this': '2027-06-11' });
  });
  it('carbon by what it has to take, where that is sooner', () => {
    expect(due(fitted(newStage('carbon', 'x')))).toEqual({ 'Try: change this': '2026-12-01' });
    const strong = due(fitted({ ...newStage('carbon', 'x'), ratedL: 500 }), { chlorineMgL: 3 });
    expect(strong['Try: change this']! < '2026-12-01').toBe(true);
    expect(strong['Try: change this']! >= '2026-09-01').toBe(true);
  });
  it('what comes round again is due at its next turn, not at its first', () => {
    expect(due(fitted(newStage('softener', 'x')))).toEqual({
      'Try: salt of this': '2026-10-01',
      'Try: yearly check of this': '2027-06-01',
    });
  });
  it('a cartridge with a dial by its litres, or after a year', () => {
    const small = due(fitted({ ...newStage('decarboniser', 'x'), capacityEq: 2 }));
    const large = due(fitted({ ...newStage('decarboniser', 'x'), capacityEq: 200, volumeL: 80 }));
    expect(small['Try: change this']! < large['Try: change this']!).toBe(true);
    expect(large).toEqual({ 'Try: change this': '2027-05-31' });
  });
  it('put away, only its preservative falls due, counted from the day it was, and from its last renewal', () => {
    const work: System['build']['works'][number] = { id: 'w', kind: 'putAway', stageId: null, startedAt: NOW, endedAt: '2026-08-20T10:00:00Z', done: [], measured: [], deviations: [], cautions: [] }; // prettier-ignore
    const stages = [fitted(newStage('sediment', 'x')), ...base.train.stages];
    const away: System = { ...base, train: { ...base.train, stages }, build: { ...base.build, works: [work] } };
    const told = (system: System) =>
      dueOf(system, value(standing(system, [], value(tapWater(system.source, system.instruments)).water, NOW)), NOW);
    expect(told(away).map(({ what, at }) => [what, at.slice(0, 10)])).toEqual([['renew the preservative, or bring it back', '2027-02-16']]);
    expect(told(away)[0]!.because).toBe('put away on 20 August 2026; it keeps 180 days');
    const membrane = away.train.stages.find(({ kind }) => kind === 'membrane')!;
    const renewed = serviced(away, { id: 's', at: '2027-01-10T10:00:00Z', stageId: membrane.id, instrumentId: null, work: 'refilled', why: 'due', note: '' }, {}); // prettier-ignore
    expect(told(renewed).map(({ at }) => at.slice(0, 10))).toEqual(['2027-07-09']);
  });
  it('what has no day of fitting is not due, nor what is never changed', () => {
    expect(due(newStage('sediment', 'x'))).toEqual({});
    expect(due(fitted(newStage('pump', 'x')))).toEqual({});
  });
  it('what is brought is ordered as many days before as that takes, where somebody said so', () => {
    const order = (orderDays: number | null): (string | null)[] => {
      const stages = [fitted(newStage('sediment', 'x')), fitted({ ...newStage('softener', 'y') }), ...base.train.stages];
      const system: System = { ...base, orderDays, train: { ...base.train, stages } };
      const today = value(standing(system, [], value(tapWater(system.source, system.instruments)).water, NOW));
      return ['x-changed', 'y-cleaned'].map(
        (id) =>
          dueOf(system, today, NOW)
            .find((one) => one.id === id)
            ?.orderBy?.slice(0, 10) ?? null,
      );
    };
    expect(order(10)).toEqual(['2026-11-21', null]);
    expect(order(null)).toEqual([null, null]);
  });
  it("a task of one's own from its last time, late until it is done; one at every use has no date", () => {
    const tasks: System['tasks'] = [
      { id: 'flush', says: 'Flush by the timer', stageId: 'membrane', everyDays: 7, since: '2026-08-01' },
      { id: 'use', says: 'Flush before use', stageId: null, everyDays: null, since: '2026-08-01' },
    ];
    const of = (system: System) =>
      dueOf(system, value(standing(system, [], value(tapWater(system.source, system.instruments)).water, NOW)), NOW).filter(
        ({ work }) => work === 'task',
      );
    const mine = { ...base, tasks };
    expect(of(mine)).toMatchObject([{ says: 'Try: flush by the timer', at: expect.stringContaining('2026-08-08'), everyDays: 7 }]);
    expect(of(mine)[0]!.because).toContain('at membrane, every 7 days');
    const done = {
      id: 'd',
      at: '2026-08-30T10:00:00Z',
      stageId: 'membrane',
      instrumentId: null,
      taskId: 'flush',
      work: 'task',
      why: 'due',
      note: '',
    } as const;
    const after = serviced(mine, done, {});
    expect(after.services.at(-1)).toMatchObject({ name: 'Flush by the timer', taskId: 'flush', work: 'task' });
    expect(after.train).toEqual(mine.train);
    expect(of(after)[0]!.at.slice(0, 10)).toBe('2026-09-06');
  });
});
