import { describe, expect, it } from 'vitest';
import { feedBrineMgL } from '../membrane';
import { yearCase, YEAR_CASE_DAYS } from '../testing/yearCase';
import { passDay, type CountedPart } from './counters';
import { chebyshevTable } from '../numeric';
import { seasonAt, yearMean } from '../life';
import { COST_LINES } from '../ledger';
import { creepMeq, limitThroughput, PLAIN_POLICY, simulateYears, type YearPlant, type YearRun } from './simulate';

/** Check values O17 to O28 and O56 of the science of options: by hand, or computed independently there. */

const within = (value: number, expected: number, relative: number): void =>
  expect(Math.abs(value / expected - 1)).toBeLessThanOrEqual(relative);
function run(plant: YearPlant, days = YEAR_CASE_DAYS, policy = PLAIN_POLICY): YearRun {
  const found = simulateYears(plant, days, policy);
  if (!found.ok) throw new Error(found.error.message);
  return found.value;
}
const changesOf = ({ events }: YearRun, part: string): number[] => events.filter(({ parts }) => parts.includes(part)).map(({ day }) => day);
/** Even use, weather and strength, without a tank. */
const even = (litres: number): YearPlant =>
  yearCase({
    response: () => ({ productionLPerH: 8, passage: 0.03, feedPerL: 5, kWhPerM3: 0, servedPpm: null, resin: null }),
    temperature: { mean: 25, amplitude: 0, highDay: 0 },
    strength: { mean: 1, amplitude: 0, highDay: 0 },
    demand: () => new Array<number>(24).fill(litres / 24),
    tank: null,
    creep: null,
  });

describe('counters', () => {
  const part: CountedPart = { id: 'resin', limits: [{ unit: 'meq', limit: 480 }] };
  const through = (counted: CountedPart, days: number, meqOn: (day: number) => number): number[] => {
    const fills = [[0]];
    return Array.from({ length: days }, (_, day) =>
      passDay([counted], fills, { days: 1, feedL: 0, productL: 0, meq: meqOn(day) }, day),
    ).flatMap((events) => events.map(({ day }) => day));
  };
  it('480 meq at ten a day (O17)', () => expect(through(part, 200, () => 10)).toEqual([48, 96, 144, 192]));
  it('500 meq, stronger in the first half of each year (O18)', () => {
    const days = through({ id: 'r', limits: [{ unit: 'meq', limit: 500 }] }, 730, (day) => (day % 365 <= 181 ? 12 : 7.2));
    const expected = [41.667, 83.333, 125, 166.667, 225.889, 295.333, 364.778, 406.533, 448.2, 489.867, 531.533, 590.667, 660.111, 729.556];
    expect(days).toHaveLength(expected.length);
    days.forEach((day, i) => expect(Math.abs(day - expected[i]!)).toBeLessThan(0.01));
  });
});

describe('a year without weather (O19)', () => {
  const year = run(even(40), 365);
  it('load and limit', () => {
    within(year.loadMeq / (40 * 365), 0.267003, 1e-4);
    within(limitThroughput(1, 180 * 0.03, 30), 0.97712, 1e-5);
  });
  it('changes, litres and money', () => {
    const resin = changesOf(year, 'resin');
    expect(resin).toHaveLength(6);
    resin.forEach((day, i) => expect(Math.abs(day - 59.2852 * (i + 1))).toBeLessThan(0.01));
    expect(changesOf(year, 'sediment').map(Math.round)).toEqual([180, 360]);
    expect(changesOf(year, 'carbon').map(Math.round)).toEqual([200]);
    within(year.feedL, 73_000, 1e-6);
    expect(year.totalCost).toBeCloseTo(422, 2);
    expect(year.total.visits).toBe(90);
  });
});

describe('the year case', () => {
  const three = run(yearCase());
  it('litres, hours and load (O21), and by steps of a minute (O22)', () => {
    const sum = (series: Float64Array): number => series.reduce((all, one) => all + one, 0);
    within(sum(three.madeL), 47_122, 0.002);
    within(sum(three.deliveredL), 47_150.5, 0.002);
    within(sum(three.unmetL), 429.5, 0.02);
    within(three.runHours, 11_255.8, 0.002);
    within(three.loadMeq, 14_223.6, 0.002);
    within(sum(three.madeL), 47_115.8, 0.003);
    within(sum(three.unmetL), 435.6, 0.03);
    within(three.loadMeq, 14_216.1, 0.003);
  });
  it('starts, changes and money (O23)', () => {
    expect(Math.abs(three.starts - 684)).toBeLessThanOrEqual(3);
    expect(three.events).toHaveLength(34);
    const near = (days: number[], expected: readonly number[]): void =>
      expected.forEach((day, i) => expect(Math.abs(days[i]! - day)).toBeLessThan(0.5));
    const resin = changesOf(three, 'resin');
    expect([resin.length, changesOf(three, 'sediment').length, changesOf(three, 'carbon').length]).toEqual([22, 6, 5]);
    near(resin, [56.7, 111.9, 167.6, 228.9]);
    near(changesOf(three, 'carbon'), [185, 373.2, 555.2, 743.3, 926.6]);
    near(changesOf(three, 'membrane'), [1019.1]);
    within(three.totalCost, 1482.6, 0.005);
  });
  it('what falls due within a month goes together (O24)', () => {
    const bundled = run(yearCase(), YEAR_CASE_DAYS, { ...PLAIN_POLICY, bundleDays: 30 });
    expect(Math.abs(bundled.visits - 23)).toBeLessThanOrEqual(1);
    within(bundled.totalCost, 1393.8, 0.005);
  });
  it('a third change twenty days late (O25)', () => {
    const late = run(yearCase(), YEAR_CASE_DAYS, { ...PLAIN_POLICY, missed: { part: 'resin', which: 3, daysLate: 20 } });
    expect(Math.abs(late.offSpecDays - 20)).toBeLessThanOrEqual(1);
    within(late.offSpecL, 878, 0.02);
    within(late.worstPpm, 4.73, 0.02);
    const penalised = run(yearCase({ prices: { ...yearCase().prices, penaltyPerDay: 2, penaltyPerEvent: 50 } }), YEAR_CASE_DAYS, {
      ...PLAIN_POLICY,
      missed: { part: 'resin', which: 3, daysLate: 20 },
    });
    expect(penalised.total.penalties).toBe(50 + 2 * penalised.offSpecDays);
  });
  it('a larger tank (O26)', () => {
    const large = run(yearCase({ tank: { volumeL: 200, onFraction: 0.7, offFraction: 0.95, startFraction: 0.95 } }));
    expect(large.unmetL.reduce((all, one) => all + one, 0)).toBeCloseTo(0, 6);
    expect(Math.abs(large.starts - 442)).toBeLessThanOrEqual(3);
    within(
      large.madeL.reduce((all, one) => all + one, 0),
      47_577.6,
      0.002,
    );
  });
  it('one start after five hours (O27)', () => {
    within(creepMeq(yearCase().creep!, feedBrineMgL(180, 0.2), 180 * 0.03, 5), 0.11146, 1e-3);
  });
  it('keeps every litre, milliequivalent and coin', () => {
    for (const plant of [yearCase(), even(40), yearCase({ resin: null })]) {
      const found = run(plant, 700, { bundleDays: 10, missed: null });
      const sum = (series: Float64Array): number => series.reduce((all, one) => all + one, 0);
      if (plant.tank) expect(Math.abs(found.startLevelL + sum(found.madeL) - sum(found.deliveredL) - found.endLevelL)).toBeLessThan(1e-6);
      expect(Math.abs(found.feedL - sum(found.madeL) - found.wasteL)).toBeLessThan(1e-6);
      if (plant.resin) expect(Math.abs(found.loadMeq - found.takenOutMeq - found.inBedMeq)).toBeLessThan(1e-6);
      const monthly = found.monthly.reduce((all, month) => all + COST_LINES.reduce((one, line) => one + month[line], 0), 0);
      expect(monthly).toBeCloseTo(found.totalCost, 6);
      for (const series of [found.qualityPpm, found.unmetL, found.couldMakeL])
        for (const value of series) expect(Number.isFinite(value)).toBe(true);
    }
  });
  it('says what cannot be (O56)', () => {
    expect(simulateYears(yearCase(), 0)).toMatchObject({ ok: false, error: { field: 'days', value: 0 } });
    expect(simulateYears(yearCase({ tank: { volumeL: 100, onFraction: 0.9, offFraction: 0.9, startFraction: 0.9 } }), 10)).toMatchObject({
      ok: false,
      error: { field: 'onFraction' },
    });
    expect(simulateYears(yearCase({ prices: { ...yearCase().prices, visit: -1 } }), 10)).toMatchObject({
      ok: false,
      error: { field: 'prices.visit', value: -1 },
    });
    expect(
      simulateYears(yearCase({ parts: [{ id: 'carbon', line: 'carbon', cost: 14, limits: [{ unit: 'days', limit: 0 }] }] }), 10),
    ).toMatchObject({ ok: false, error: { field: 'partIntervalMonths' } });
    expect(
      simulateYears(yearCase({ response: (...at) => ({ ...yearCase({}).response(...at), productionLPerH: Number.NaN }) }), 10),
    ).toMatchObject({
      ok: false,
      error: { field: 'productionLPerH' },
    });
    // An idle plant is one all the same.
    expect(simulateYears(yearCase({ demand: () => new Array<number>(24).fill(0) }), 10).ok).toBe(true);
  });
});

describe('the season', () => {
  it('its mean by twelve phases (O28)', () =>
    within(
      yearMean({ mean: 12, amplitude: 6 }, (t) => Math.exp(0.03 * t)),
      1.444963,
      1e-5,
    ));
  it('is highest on its day', () => {
    expect(seasonAt({ mean: 12, amplitude: 6, highDay: 205 }, 205)).toBe(18);
    expect(seasonAt({ mean: 12, amplitude: 6, highDay: 205 }, 205 + 365.25 / 2)).toBeCloseTo(6, 9);
  });
  it('a table of five nodes of a smooth response errs by millionths', () => {
    const of = (t: number): number => Math.log(8 * Math.exp(3020 * (1 / 298.15 - 1 / (t + 273.15))));
    const table = chebyshevTable(6, 18, 5, of);
    for (let t = 6; t <= 18; t += 0.37) expect(Math.abs(table(t) - of(t))).toBeLessThan(2e-6);
    expect(chebyshevTable(12, 12, 3, of)(12)).toBe(of(12));
  });
});
