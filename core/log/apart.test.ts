import { describe, expect, it } from 'vitest';
import type { System } from '../file';
import { DAY_MS } from '../quantity';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { partChanged } from '../testing/written';
import { solveTrain, tapWater } from '../train';
import { membraneTrend, unitAsRead, type MembraneTrend } from './membraneTrend';
import { simulatedLog, type LifeStory } from './simulated';
import { supplySteps } from './supplySteps';

/** Membrane, filters, restrictor, meter and supply told apart in lives whose truth is known (science of logs, 4 and 7; L50, L51). */
const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2025-01-01T00:00:00Z' });
const FROM = '2025-02-03T08:00:00Z';
const at = (day: number): string => new Date(Date.parse(FROM) + day * DAY_MS).toISOString();
const life = (over: Partial<LifeStory>): LifeStory => ({
  from: FROM,
  days: 364,
  everyDays: 7,
  waterPerYear: 0,
  saltPerYear: 0,
  jumps: [],
  filterChanges: [119, 238],
  filterDays: 200,
  drift: {},
  seed: 5,
  ...over,
});
function lived(story: LifeStory): { readonly system: System; readonly log: ReturnType<typeof logOf> } {
  const filter = base.train.stages.find(({ kind }) => kind === 'sediment')!;
  const services = story.filterChanges.map((day, i) => partChanged(`f${i}`, filter, at(day - 1)));
  return { system: { ...base, services }, log: logOf(story) };
}
const logOf = (story: LifeStory) => value(simulatedLog(base, story));
function trendOf(story: LifeStory, upTo = Infinity): MembraneTrend {
  const { system, log } = lived(story);
  const readings = log.readings.slice(0, upTo);
  const solved = value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water));
  return membraneTrend(system, readings, value(unitAsRead(system, readings, solved)!), readings.at(-1)!.at)!;
}
const Z = 1.2816;

describe('told apart', () => {
  it('L50: a restrictor that takes on scale is not booked to the membrane', () => {
    const story = life({ restrictorPerYear: Math.log(0.85) });
    const end = trendOf(story);
    expect(end.restrictor!.scaling).toBeGreaterThan(0.8);
    expect(end.restrictor!.value).toBeLessThan(-0.06);
    // After every filter change, and at the end, what is told of the output holds the truth.
    for (const weeks of [20, 36, 53]) {
      const { value: told, sd } = trendOf(story, weeks).water!.now;
      expect(Math.abs(told)).toBeLessThan(2 * Z * sd);
    }
  });
  it('one that stays as it was is not called scaled', () => {
    expect(trendOf(life({})).restrictor!.scaling).toBeLessThan(0.5);
  });
  it('L51: another meter, and another supply, are a step of the tap dated within two readings', () => {
    for (const story of [life({ newMeter: { day: 175, times: 1.28 } }), life({ supplies: [{ day: 175, times: 1.35 }] })]) {
      const { system, log } = lived(story);
      const step = supplySteps(system, log.readings)[0]!;
      expect(Math.abs(Date.parse(step.since) - Date.parse(at(175)))).toBeLessThanOrEqual(14 * DAY_MS);
      expect(Math.exp(step.by)).toBeGreaterThan(1.15);
    }
    const shown = lived(life({ newMeter: { day: 175, times: 1.28 } }));
    expect(supplySteps(shown.system, shown.log.readings)[0]!.family).not.toBe('supply');
  });
  it('two towns on one tap are no step', () => {
    const { system, log } = lived(life({ towns: { times: 1.9, share: 0.4 } }));
    expect(supplySteps(system, log.readings)).toEqual([]);
  });
});
