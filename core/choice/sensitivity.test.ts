import { describe, expect, it } from 'vitest';
import { runToEnd } from '../numeric';
import { BAR_PER_PSI, DAYS_PER_YEAR } from '../quantity';
import { saltPhysics, tapLoads } from '../testing/scenarios';
import { askingOf, candidates, judgePlan, nearness, spacesOf, USUAL_PRICES, type Judging } from '.';
import { turns } from './sensitivity';

/** Turns of the answer on scenario B at 300 L a week: the break-evens of O48, found by the walk over all inputs at once. */

const ageing = { water: 0.07, salt: 0.1, mostYears: 4 };
const asked = askingOf(saltPhysics({ ppm: 140, meqL: 2.789, linePressureBar: 50 * BAR_PER_PSI - 0.3 }), { mean: 11, amplitude: 5 }, ageing);
const at = (factor: number): Judging => ({
  water: {
    ppm: 140,
    ...tapLoads(2.789),
    chlorineMgL: 0,
    chloramineMgL: 0,
    limeIndex: -0.4,
    chlorideMgL: 20,
    hardnessMgL: 100,
    alkalinityMgL: 80,
  },
  need: {
    litresPerYear: ((300 * factor) / 7) * DAYS_PER_YEAR,
    litresPerDay: (300 * factor) / 5,
    largestDrawL: (300 * factor) / 5,
    hoursPerDay: 10,
  },
  goal: { ppm: 1, wantsResin: false, broughtTo: null },
  site: {
    wallMm: null,
    capital: null,
    power: true,
    drain: true,
    leastWaste: null,
    visitsPerYear: null,
    leastBar: null,
    linePressureBar: 50 * BAR_PER_PSI,
  },
  prices: USUAL_PRICES,
  ageing,
  horizonYears: 6,
  rate: 0,
  rules: ['tank', 'production', 'scaling', 'crossflow', 'quality', 'resinLife'],
  crossFlowOn: 'new',
  mostChanges: 60,
  asked,
});
const spaces = spacesOf(
  'window',
  { carbonMgL: 0, bypass: 0 },
  {
    element: ['2540-LE', '4040-LE', '4040-XLE'],
    number: [1, 2],
    pump: ['line', 'cart'],
    recovery: [0.4, 0.5, 0.6],
    recycle: [true],
    scale: ['nothing'],
    resin: ['none', '1.2', '7', '11'],
    tankL: [250, 400, 650],
    vesselL: ['7', '11', '25', '2x11', '2x25'],
    prefilter: [false],
    reservoirL: [0],
  },
).filter(({ id }) => id !== 'small');
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
