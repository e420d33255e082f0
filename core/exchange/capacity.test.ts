import { describe, expect, it } from 'vitest';
import { bandOf, BED_SD, carriedBeyondEq, endAt, forecastCartridge, spentBy, updateCapacity, type CapacityBelief } from './capacity';

/** Check values of the chapter on logs, section 13: computed by an independent program. */
const PRIOR: CapacityBelief = { lnMean: Math.log(0.7), sd: 0.25 };
/** Random part that makes the observed sd 0.14142 with the scatter of cartridges. */
const LOAD_SD = 0.1;
const theta = ({ lnMean, sd }: CapacityBelief): readonly [number, number] => [Math.exp(lnMean), sd];
const expectBelief = (found: CapacityBelief, [middle, sd]: readonly [number, number], within: number): void => {
  expect(Math.abs(theta(found)[0] - middle)).toBeLessThan(within);
  expect(Math.abs(found.sd - sd)).toBeLessThan(within);
};

describe('what a cartridge teaches', () => {
  it('L17: an end that was seen', () => {
    expectBelief(updateCapacity(PRIOR, { kind: 'breakthrough', loadEq: 0.6, loadSd: LOAD_SD }), [0.62285, 0.12309], 1e-4);
  });
  it('L18: an end between two readings, narrow and wide', () => {
    expectBelief(updateCapacity(PRIOR, { kind: 'between', fromEq: 0.55, toEq: 0.62, loadSd: LOAD_SD }), [0.61139, 0.12582], 5e-4);
    expectBelief(updateCapacity(PRIOR, { kind: 'between', fromEq: 0.45, toEq: 0.75, loadSd: LOAD_SD }), [0.62811, 0.16057], 5e-4);
  });
  it('L19: removed while still clean', () => {
    expectBelief(updateCapacity(PRIOR, { kind: 'removedBefore', loadEq: 0.6, loadSd: LOAD_SD }), [0.77884, 0.19658], 1e-4);
  });
  it('L20: called spent, and nobody read it: little is learned', () => {
    const seen = { kind: 'unread', loadEq: 0.6, loadSd: LOAD_SD, saidSpent: 0.9, saidClean: 0.15 } as const;
    expect(spentBy(PRIOR, { ...seen, saidSpent: 1, saidClean: 1 })).toBeCloseTo(0.29574, 4);
    expect(spentBy(PRIOR, seen)).toBeCloseTo(0.71588, 4);
    expectBelief(updateCapacity(PRIOR, { ...seen, saidClean: 0 }), [0.5429, 0.16609], 5e-4);
    expectBelief(updateCapacity(PRIOR, seen), [0.60152, 0.2392], 5e-4);
  });
  it('an answer that tells nothing leaves the belief as it was', () => {
    const after = updateCapacity(PRIOR, { kind: 'unread', loadEq: 0.6, loadSd: LOAD_SD, saidSpent: 0.5, saidClean: 0.5 });
    expectBelief(after, [0.7, 0.25], 2e-3);
  });
  it('an interval the belief does not reach teaches its nearer edge', () => {
    const after = updateCapacity({ lnMean: 0, sd: 0.05 }, { kind: 'between', fromEq: 5, toEq: 8, loadSd: 0.01 }, 0.01);
    expect(after.lnMean).toBeGreaterThan(1);
    expect(after.sd).toBeLessThan(0.05);
  });
});

describe('a cartridge in service', () => {
  const belief = { lnMean: Math.log(0.65), sd: 0.12 };
  it('L22: its end and what is left, clean at 0.40 eq', () => {
    const end = bandOf(endAt(belief, 0.4, Math.hypot(BED_SD, 0.1)));
    [0.51462, 0.65067, 0.82479].forEach((expected, i) => expect(Math.abs([end.p10, end.p50, end.p90][i]! - expected)).toBeLessThan(1e-4));
    const { remaining, daysLeft } = forecastCartridge(belief, 0.4, 0.1, 0.006);
    [0.22273, 0.38525, 0.51503].forEach((expected, i) =>
      expect(Math.abs([remaining.p10, remaining.p50, remaining.p90][i]! - expected)).toBeLessThan(1e-4),
    );
    // L29, without the doubt of the rate.
    [19.1, 41.78, 70.8].forEach((expected, i) =>
      expect(Math.abs([daysLeft!.p10, daysLeft!.p50, daysLeft!.p90][i]! - expected)).toBeLessThan(0.01),
    );
  });
  it('ends beyond what it has taken up, however far that lies above the belief', () => {
    for (const at of [0.7, 1, 2, 20]) {
      const end = endAt(belief, at, 0.1);
      const list = [0.1, 0.5, 0.9].map(end);
      expect(list.every((eq, i) => eq >= (list[i - 1] ?? at))).toBe(true);
      expect(list[2]).toBeLessThan(2 * at);
    }
  });
  it('L26: what a row keeps when its lead is removed', () => {
    expect(Math.abs(carriedBeyondEq(0.7, { lnMean: Math.log(0.6), sd: 0.13 }) - 0.10047)).toBeLessThan(1e-4);
    expect(carriedBeyondEq(0, belief)).toBe(0);
  });
});
