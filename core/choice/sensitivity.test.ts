import { describe, expect, it } from 'vitest';
import { runToEnd } from '../numeric';
import { windowCleaner, windowCleanerSpaces } from '../testing/scenarios';
import { candidates, judgePlan, nearness, type Judging } from '.';
import { turns } from './sensitivity';

/** Turns of the answer on scenario B at 300 L a week: the break-evens of O48, found by the walk over all inputs at once. */

const at = (factor: number): Judging => windowCleaner(300 * factor);
const spaces = windowCleanerSpaces();
const plans = [...candidates(spaces)].map(({ space, choice }) => space.planOf(choice));
const kept = plans.flatMap((plan) => {
  const judged = judgePlan(plan, at(1));
  return judged.admissible ? [{ plan, figures: judged.figures }] : [];
});
const found = runToEnd(turns(kept, plans, at(1), { litres: at, strength: () => at(1) }, 'membraneAndResin', 0.05));
const of = (input: string) => found.find((one) => one.input === input)!;
const near = (value: number, expected: number): void =>
  expect(Math.abs(value / expected - 1), `${value} for ${expected}`).toBeLessThan(0.02);

describe('what would change the answer', () => {
  it('below 167 L a week resin alone wins', () => {
    near(300 * of('litres').below!.at, 167.1);
    expect(of('litres').below!.wins).toBe('resin');
  });
  it('kept for less than 2.13 years resin alone wins', () => {
    near(6 * of('horizon').below!.at, 2.13);
    expect(of('horizon').above).toBeNull();
  });
  it('cheaper resin turns it, dearer does not; the price of power hardly could', () => {
    expect(of('resinPrice').below!.wins).toBe('resin');
    expect(of('resinPrice').above).toBeNull();
    expect(of('energyPrice').below).toBeNull();
  });
  it('are told nearest first', () => {
    const order = found.map(nearness);
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });
});
