import { describe, expect, it } from 'vitest';
import type { Goal } from '../file';
import { expectWithin, value } from '../testing/close';
import { balanced, settleWater, solutesMgL, waterFromPH, type Water } from '../water';
import { checkGoal, demandLPerDay, ecOfShownPpm, goalLimits, type LimitCheck } from './index';

const goal = (change: Partial<Goal>): Goal => ({ id: 'marineMakeUp', crewLimitPpm: null, demandL: 20, demandPer: 'day', ...change });
const check = (g: Goal, water: Water): LimitCheck[] => checkGoal(goalLimits(g, 0.5), water, value(settleWater(water)));
const missed = (g: Goal, water: Water): string[] =>
  check(g, water)
    .filter((c) => !c.met)
    .map((c) => `${c.limit.quantity} ${c.side}`);
const pure = balanced(solutesMgL({}), 0, 25);

describe('limits', () => {
  // Common practice, section 13 of the water chapter.
  it('marine make-up: 2 µS/cm and what no meter sees', () => {
    const limits = goalLimits(goal({}), 0.5);
    expect(limits.map((limit) => [limit.quantity, limit.high])).toEqual([
      ['ec25UScm', 2],
      ['silicaMgL', 0.1],
      ['ammoniaMgL', 0.02],
      ['nitrateMgL', 0.2],
      ['phosphateMgL', 0.02],
      ['chlorineMgL', 0.02],
    ]);
    expect(limits.filter((limit) => limit.meterSees).map((limit) => limit.quantity)).toEqual(['ec25UScm']);
    expect(limits.every((limit) => limit.origin === 'common practice')).toBe(true);
  });
  it('window cleaning: 0 on a whole-ppm meter is below 1 µS/cm, and a crew sets its own', () => {
    expect(ecOfShownPpm(0, 0.5)).toBe(1);
    const [limit] = goalLimits(goal({ id: 'windowCleaning', crewLimitPpm: 5 }), 0.5);
    expect([limit!.high, limit!.origin]).toEqual([11, 'this crew']);
    expect(goalLimits(goal({ id: 'windowCleaning' }), 0.5)[0]!.high).toBe(1);
  });
  it('soft-water breeding: 4 °dH and 2 °dKH', () => {
    const limits = goalLimits(goal({ id: 'softWaterBreeding' }), 0.5);
    expectWithin(limits.find((limit) => limit.quantity === 'hardnessMgL')!.high!, 71.4, 1e-3);
    expectWithin(limits.find((limit) => limit.quantity === 'alkalinityMgL')!.high!, 35.7, 1e-3);
  });
});

describe('a water against a goal', () => {
  it('pure water meets marine make-up and window cleaning', () => {
    expect(missed(goal({}), pure)).toEqual([]);
    expect(missed(goal({ id: 'windowCleaning', crewLimitPpm: 0 }), pure)).toEqual([]);
  });
  it('pure water is too empty for breeding', () =>
    expect(missed(goal({ id: 'softWaterBreeding' }), pure)).toEqual(['ec25UScm low', 'pH high']));
  it('a soft buffered water is right for breeding', () => {
    const soft = value(waterFromPH({ Ca: 6, Mg: 1, Na: 4, Cl: 10 }, 10, 6.4, 25));
    expect(missed(goal({ id: 'softWaterBreeding' }), soft)).toEqual([]);
  });
  it('silica is seen though no meter shows it', () =>
    expect(missed(goal({}), balanced(solutesMgL({ SiO2: 0.5 }), 0, 25))).toEqual(['silicaMgL high']));
  it('chlorine and chloramine count together', () => {
    const water = balanced(solutesMgL({ chlorine: 0.015, chloramine: 0.015 }), 0, 25);
    expect(check(goal({}), water).find((c) => c.limit.quantity === 'chlorineMgL')).toMatchObject({ value: 0.03, met: false, side: 'high' });
  });
});

describe('demand', () => {
  it('a week is seven days', () => {
    expect(demandLPerDay(goal({ demandL: 1400, demandPer: 'week' }))).toBe(200);
    expect(demandLPerDay(goal({ demandL: 61 }))).toBe(61);
  });
});
