import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bestCalendar, bundleByRules, bundleVisits, planByRule, thresholdRule, windowRule, type VisitedPart } from './bundle';
import { ageCost, failureRunCost, replacementAge } from './replacement';
import { stepTank, tankIssue, type TankState } from './tank';

/** Check values O11 to O16, O20 and O56 of the science of options: computed independently there. */

const PARTS: readonly VisitedPart[] = (
  [
    [6, 8],
    [9, 22],
    [24, 60],
    [5, 30],
    [12, 45],
    [8, 15],
  ] as const
).map(([interval, cost]) => ({ interval, cost }));

describe('what to do on one visit', () => {
  it('is exact for six parts over three years (O11, O12)', () => {
    const plan = bundleVisits(PARTS, 70, 36);
    expect([plan.cost, plan.visits.length, plan.exact]).toEqual([1092, 7, true]);
    expect(bundleVisits(PARTS, 10, 36)).toMatchObject({ cost: 636, exact: true });
    expect(bundleVisits(PARTS, 10, 36).visits).toHaveLength(11);
    expect(bundleVisits(PARTS, 200, 36)).toMatchObject({ cost: 2002, exact: true });
    expect(bundleVisits(PARTS, 200, 36).visits).toHaveLength(7);
  });
  it('by rule: nothing early, a threshold, a window, a fixed calendar (O13)', () => {
    const none = planByRule(PARTS, 70, 36, () => false);
    expect([none.cost, none.visits.length]).toEqual([1646, 16]);
    expect(planByRule(PARTS, 70, 36, thresholdRule(0.3, 70)).cost).toBe(1165);
    expect(planByRule(PARTS, 70, 36, windowRule(3)).cost).toBe(1092);
    const fixed = bestCalendar(PARTS, 70);
    expect([fixed.every, fixed.multiples]).toEqual([5, [1, 1, 4, 1, 2, 1]]);
    expect(fixed.costPerStep).toBeCloseTo(36.5, 1);
  });
  it('four parts over a year and a half (O14)', () => {
    const plan = bundleVisits(PARTS.slice(0, 4), 70, 18);
    expect([plan.cost, plan.visits.map(({ at }) => at)]).toEqual([346, [5, 9, 14]]);
  });
  it('never leaves a part overdue, and is never dearer than a rule', () => {
    const part = fc.record({ interval: fc.integer({ min: 2, max: 15 }), cost: fc.integer({ min: 1, max: 60 }) });
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 1, max: 24 }),
        (parts, visit, horizon) => {
          const plan = bundleVisits(parts, visit, horizon);
          expect(plan.exact).toBe(true);
          expect(plan.cost).toBeLessThanOrEqual(bundleByRules(parts, visit, horizon).cost);
          parts.forEach(({ interval }, i) => {
            let last = 0;
            for (const { at, parts: changed } of plan.visits)
              if (changed.includes(i)) {
                expect(at - last).toBeLessThanOrEqual(interval);
                last = at;
              }
            expect(horizon - last).toBeLessThanOrEqual(interval);
          });
        },
      ),
      { numRuns: 150 },
    );
  });
  it('comes never where nothing is changed', () => expect(bundleVisits([], 70, 36)).toEqual({ visits: [], cost: 0, exact: true }));
});

describe('early or late', () => {
  const part = (sd: number, failureCost: number) => ({ medianDays: 100, sd, plannedCost: 30, failureCost });
  it.each([
    [0.25, 150, 60.74, 0.55196],
    [0.25, 30, 78.37, 0.45479],
    [0.1, 150, 78.39, 0.39705],
  ])('sd %s, failure %s: after %s days (O15)', (sd, cost, days, rate) => {
    const found = replacementAge(part(sd, cost));
    expect(Math.abs(found.days! / days - 1)).toBeLessThan(0.002);
    expect(Math.abs(found.costPerDay / rate - 1)).toBeLessThan(1e-4);
  });
  it('at the median, run to failure, and where only that pays (O16)', () => {
    expect(ageCost(part(0.25, 150), 100)).toBeCloseTo(1.14876, 4);
    expect(failureRunCost(part(0.25, 150))).toBeCloseTo(1.74462, 4);
    const found = replacementAge(part(0.5, 30));
    expect(found.days).toBeNull();
    expect(found.costPerDay).toBeCloseTo(0.5295, 4);
    expect(replacementAge(part(0.25, 150)).failsFirst).toBeCloseTo(0.023, 3);
  });
});

describe('a tank', () => {
  const tank = { volumeL: 100, onFraction: 0.6, offFraction: 0.9 };
  const full: TankState = { levelL: 90, running: false, restedH: 0 };
  it('runs when it must, and says what was missing (O20)', () => {
    const found = stepTank(tank, full, 10, 6, 24);
    if (!found.ok) throw new Error(found.error.message);
    const { madeL, deliveredL, unmetL, ranH, rests, state } = found.value;
    expect(madeL).toBeCloseTo(126, 9);
    expect(deliveredL).toBeCloseTo(216, 9);
    expect(unmetL).toBeCloseTo(24, 9);
    expect(ranH).toBeCloseTo(21, 9);
    expect(state.levelL).toBeCloseTo(0, 9);
    expect(rests).toEqual([3]);
  });
  it('neither makes nor loses a drop, whatever is drawn', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 40, noNaN: true }), { maxLength: 48 }),
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        (draws, production) => {
          let state: TankState = full;
          let sum = full.levelL;
          for (const draw of draws) {
            const step = stepTank(tank, state, draw, production, 1);
            if (!step.ok) throw new Error(step.error.message);
            sum += step.value.madeL - step.value.deliveredL;
            expect(step.value.unmetL).toBeGreaterThanOrEqual(-1e-9);
            expect(step.value.ranH).toBeLessThanOrEqual(1 + 1e-9);
            state = step.value.state;
            expect(state.levelL).toBeGreaterThanOrEqual(0);
            expect(state.levelL).toBeLessThanOrEqual(90 + 1e-6);
          }
          expect(Math.abs(sum - state.levelL)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 150 },
    );
  });
  it('a band that is none is named (O56)', () => {
    expect(tankIssue({ ...tank, onFraction: 0.9 })).toMatchObject({ ok: false, error: { field: 'onFraction', value: 0.9 } });
    expect(tankIssue(tank)).toBeNull();
  });
});
