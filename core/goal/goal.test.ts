import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { METRIC_UNITS, type UnitPreference } from '../quantity';
import { GOAL_IDS, type Demand, type Goal, type LimitQuantity, type Preparation } from './schema';
import { expectNear, expectWithin, value } from '../testing/close';
import {
  balanced,
  characterWater,
  completeWater,
  type Solute,
  hardnessOf,
  salinityOf,
  settleWater,
  solutesMgL,
  waterFromPH,
  type Water,
} from '../water';
import { checkLimits, untested, type LimitCheck } from './check';
import {
  demandLPerDay,
  demandLPerWeek,
  drawnAtOnceLPerH,
  needLPerDay,
  spokenNeed,
  evenDemand,
  fillTimeH,
  hourlyDrawL,
  largestDrawL,
  productionForTankLPerDay,
  scaledDemand,
  smallestTankL,
  tankWeek,
} from './demand';
import { ecOfShownPpm, goalLimits, GOAL_ROWS, schoolOf, type Limit } from './goals';
import { assumedText } from './limitText';
import { prepareWater } from './prepare';

const goal = (change: Partial<Goal>): Goal => ({
  id: 'marineMakeUp',
  school: null,
  crewLimitPpm: null,
  ownLimits: [],
  prepare: { how: 'none' },
  demand: evenDemand(20, 'day'),
  ...change,
});
const check = (g: Goal, water: Water): LimitCheck[] => checkLimits(goalLimits(g, 0.5), water, value(settleWater(water)));
const missed = (g: Goal, water: Water): string[] =>
  check(g, water)
    .filter((c) => c.verdict !== 'met')
    .map((c) => `${c.limit.quantity} ${c.side}`);
const pure = balanced(solutesMgL({}), 0, 25);
const limitsOf = (id: Goal['id'], school: string | null = null): Record<string, [number | null, number | null]> =>
  Object.fromEntries(goalLimits(goal({ id, school }), 0.5).map((limit: Limit) => [limit.quantity, [limit.low, limit.high]]));

// Section 13 of the water chapter; the published ones are recalled.
describe('the library', () => {
  it('marine make-up (common practice): 2 µS/cm and what no meter sees', () => {
    expect(limitsOf('marineMakeUp')).toEqual({
      ec25UScm: [null, 2],
      silicaMgL: [null, 0.1],
      ammoniaMgL: [null, 0.02],
      nitrateMgL: [null, 0.2],
      phosphateMgL: [null, 0.02],
      chlorineMgL: [null, 0.02],
    });
    const limits = goalLimits(goal({}), 0.5);
    expect(limits.filter((limit) => limit.meterSees).map((limit) => limit.quantity)).toEqual(['ec25UScm']);
  });
  it('reef (common practice)', () => {
    const limits = limitsOf('reefTank');
    expect(limits).toMatchObject({ salinity: [34, 36], calciumMgL: [400, 450], magnesiumMgL: [1250, 1400] });
    expectWithin(limits['alkalinityMgL']![0]!, 7 * 17.848, 1e-4);
    expectWithin(limits['alkalinityMgL']![1]!, 11 * 17.848, 1e-4);
  });
  it('soft-water breeding (common practice): 4 °dH and 2 °dKH', () => {
    const limits = limitsOf('softWaterBreeding');
    expectWithin(limits['hardnessMgL']![1]!, 71.4, 1e-3);
    expectWithin(limits['alkalinityMgL']![1]!, 35.7, 1e-3);
    // The pH of the tank is set in the tank: no water put in can be held to it.
    expect([limits['ec25UScm'], limits['pH']]).toEqual([[20, 150], undefined]);
    expect(schoolOf({ id: 'softWaterBreeding', school: null }).unseen[0]).toContain('pH 5 to 6.8');
  });
  it('window cleaning: 0 on a whole-ppm meter is below 1 µS/cm, and a crew sets its own', () => {
    expect(ecOfShownPpm(0, 0.5)).toBe(1);
    const [limit] = goalLimits(goal({ id: 'windowCleaning', crewLimitPpm: 5 }), 0.5);
    expect([limit!.high, limit!.origin]).toEqual([11, 'this crew']);
    expect(goalLimits(goal({ id: 'windowCleaning' }), 0.5)[0]!.high).toBe(1);
    expect(GOAL_ROWS.windowCleaning.ppmSchools.map((school) => school.ppm)).toEqual([0, 10, 50]);
  });
  // ASTM D1193 (recalled). Resistivity in MΩ·cm, sodium, chloride and silica in µg/L.
  it.each([
    ['astm-I', 18, 1, 1, 3],
    ['astm-II', 1, 5, 5, 3],
    ['astm-III', 4, 10, 10, 500],
    ['astm-IV', 0.2, 50, 50, null],
  ])('%s', (school, megohm, sodium, chloride, silica) => {
    const limits = limitsOf('laboratory', school);
    expectWithin(1 / limits['ec25UScm']![1]!, megohm, 0.01);
    expectWithin(limits['sodiumMgL']![1]! * 1000, sodium, 1e-9);
    expectWithin(limits['chlorideMgL']![1]! * 1000, chloride, 1e-9);
    expect(limits['silicaMgL']?.[1] ?? null).toBe(silica === null ? null : silica / 1000);
  });
  // ISO 3696 (recalled).
  it.each([
    ['iso-1', 0.1, 0.01, undefined],
    ['iso-2', 1, 0.02, 1],
    ['iso-3', 5, undefined, 2],
  ])('%s', (school, ec, silica, residue) => {
    const limits = limitsOf('laboratory', school);
    expect([limits['ec25UScm']?.[1], limits['silicaMgL']?.[1], limits['residueMgL']?.[1]]).toEqual([ec, silica, residue]);
  });
  // Coffee associations and makers of steam ovens (recalled; common practice).
  it('beverages', () => {
    expect(limitsOf('brewWater', 'american')).toMatchObject({ tdsMgL: [75, 250], calciumHardnessMgL: [17, 85], pH: [6.5, 7.5] });
    expect(limitsOf('brewWater', 'european')).toMatchObject({ hardnessMgL: [50, 175], alkalinityMgL: [40, 75], pH: [6.5, 8] });
    expect(limitsOf('espresso')).toMatchObject({
      hardnessMgL: [50, 170],
      alkalinityMgL: [40, 80],
      chlorideMgL: [null, 50],
      boilerScaleMgL: [null, 10],
    });
    expect(limitsOf('steamOven', 'strict')).toMatchObject({
      hardnessMgL: [null, 50],
      chlorideMgL: [null, 25],
      pH: [7, 8.5],
      ec25UScm: [30, null],
    });
    expect(limitsOf('steamOven', 'tolerant')).toMatchObject({ hardnessMgL: [null, 125], chlorideMgL: [null, 80] });
    expect(limitsOf('ice')).toMatchObject({ tdsMgL: [10, 150], hardnessMgL: [null, 100], ec25UScm: [10, null] });
  });
  it('leads with its own: what others ask is a place to start from, and an oven has its own sheet', () => {
    for (const { schools } of Object.values(GOAL_ROWS)) expect(schools[0].kind).toBe('own');
    expect(limitsOf('steamOven')).toEqual({});
    for (const { schools } of Object.values(GOAL_ROWS))
      for (const { kind, limits } of schools)
        if (kind === 'copy') expect(limits.some(({ origin }) => origin === 'from memory; check your copy')).toBe(true);
  });
  // WHO guidelines (recalled).
  it('drinking', () => {
    expect(limitsOf('drinking', 'who')).toMatchObject({
      nitrateMgL: [null, 50],
      fluorideMgL: [null, 1.5],
      boronMgL: [null, 2.4],
      sodiumMgL: [null, 200],
    });
    expect(limitsOf('drinking', 'remineralised')).toMatchObject({ calciumMgL: [20, null], alkalinityMgL: [40, null] });
    expect(['excellent', 'good', 'last'].map((school) => limitsOf('watermaker', school)['tdsMgL']![1])).toEqual([300, 600, 1000]);
  });
  it('every limit of every school names its origin and its reason, and its ends are in order', () => {
    for (const id of GOAL_IDS)
      for (const school of GOAL_ROWS[id].schools)
        for (const limit of school.limits) {
          expect(limit.origin.length * limit.because.length, `${id} ${limit.quantity}`).toBeGreaterThan(0);
          expect(limit.low === null || limit.high === null || limit.low < limit.high, `${id} ${limit.quantity}`).toBe(true);
        }
  });
  it('an unknown school falls back to the first', () => expect(schoolOf(goal({ id: 'laboratory', school: 'gone' })).id).toBe('general'));
  it('limits of this job stand in place of the school’s, and beside them', () => {
    const own = goal({
      id: 'ice',
      ownLimits: [
        { quantity: 'hardnessMgL', low: null, high: 60 },
        { quantity: 'silicaMgL', low: null, high: 10 },
      ],
    });
    const limits = goalLimits(own, 0.5);
    expect(limits.find((l) => l.quantity === 'hardnessMgL')).toMatchObject({ high: 60, origin: 'this crew' });
    expect(limits.at(-1)).toMatchObject({ quantity: 'silicaMgL', high: 10, origin: 'this crew', meterSees: false });
    expect(goalLimits(goal({ id: 'custom' }), 0.5)).toEqual([]);
  });
});

describe('a water against a goal', () => {
  it('pure water meets marine make-up and window cleaning', () => {
    expect(missed(goal({}), pure)).toEqual([]);
    expect(missed(goal({ id: 'windowCleaning', crewLimitPpm: 0 }), pure)).toEqual([]);
  });
  it('pure water is too empty for breeding', () => expect(missed(goal({ id: 'softWaterBreeding' }), pure)).toEqual(['ec25UScm low']));
  it('a soft buffered water is right for breeding', () => {
    const soft = value(waterFromPH({ Ca: 6, Mg: 1, Na: 4, Cl: 10 }, 10, 6.4, 25));
    expect(missed(goal({ id: 'softWaterBreeding' }), soft)).toEqual([]);
  });
  it('silica is seen though no meter shows it', () =>
    expect(missed(goal({}), balanced(solutesMgL({ SiO2: 0.5 }), 0, 25))).toEqual(['silicaMgL high']));
  it('chlorine and chloramine count together', () => {
    const water = balanced(solutesMgL({ chlorine: 0.015, chloramine: 0.015 }), 0, 25);
    expect(check(goal({}), water).find((c) => c.limit.quantity === 'chlorineMgL')).toMatchObject({
      value: 0.03,
      verdict: 'missed',
      side: 'high',
    });
  });
  it('each limit tells its margin in its own unit, negative when crossed', () => {
    const chalk = value(characterWater('chalk', 1));
    const checks = Object.fromEntries(check(goal({ id: 'espresso' }), chalk).map((c) => [c.limit.quantity, c.margin]));
    expectNear(checks['hardnessMgL']!, 170 - hardnessOf(chalk.mgL), 1e-9);
    expectNear(checks['chlorideMgL']!, 50 - 22, 1e-9);
    // Row 73 of the water chapter: 147.5 mg/L falls at 125 °C.
    expectNear(checks['boilerScaleMgL']!, 10 - 147.5, 2);
    expectNear(checks['pH']!, 0.6, 1e-6);
  });
  it('water without calcium drops no lime', () =>
    expect(check(goal({ id: 'espresso' }), pure).find((c) => c.limit.quantity === 'boilerScaleMgL')!.value).toBe(0));
  it('every quantity of every goal has a figure', () => {
    const water = value(characterWater('brackish', 1));
    for (const id of GOAL_IDS)
      for (const { id: school } of GOAL_ROWS[id].schools)
        for (const c of check(goal({ id, school }), water))
          expect(Number.isFinite(c.value + c.margin), `${id} ${c.limit.quantity}`).toBe(true);
  });
});

describe('preparation', () => {
  const tap = value(characterWater('municipal', 1));
  const prepare = (preparation: Preparation): ReturnType<typeof prepareWater> => prepareWater(preparation, pure, tap);
  it('salt mix makes a reef water of make-up water', () => {
    const { water, recipe } = value(prepare({ how: 'salt', salinity: 35 }));
    expectNear(salinityOf(water), 35, 0.4);
    expect(recipe).toMatchObject({ how: 'salt' });
    // 36.3 g/L and a tenth for the water in the mix (common practice).
    expectWithin(recipe.how === 'salt' ? recipe.saltGPerL : 0, 36.3 * 1.1, 0.005);
    expect(missed(goal({ id: 'reefTank' }), water)).toEqual([]);
  });
  it('minerals put back make breeding water of pure water', () => {
    const { water } = value(prepare({ how: 'minerals', hardnessMgL: 30, calciumShare: 0.75, alkalinityMgL: 10, bicarbonate: 'K' }));
    expectWithin(hardnessOf(water.mgL), 30, 1e-6);
    expect(missed(goal({ id: 'softWaterBreeding' }), water)).toEqual([]);
  });
  it('blending leaves the share of the tap', () => {
    const { water } = value(prepare({ how: 'blend', tapShare: 0.2 }));
    expectWithin(water.mgL.Ca, 0.2 * tap.mgL.Ca, 0.001);
  });
  it('nothing leaves the product as it is, and too little is asked for is said', () => {
    expect(value(prepare({ how: 'none' })).water).toBe(pure);
    const outcome = prepareWater({ how: 'minerals', hardnessMgL: 10, calciumShare: 1, alkalinityMgL: 0, bicarbonate: 'Na' }, tap, tap);
    expect(outcome.ok ? '' : outcome.error.message).toContain('already has more hardness');
  });
});

describe('demand', () => {
  const daily = (changes: Partial<Demand>): Demand => ({ ...evenDemand(24, 'day'), ...changes });
  /** All of a day's water in its first hour. */
  const morning = daily({ hourShare: [1, ...new Array<number>(23).fill(0)] });
  const friday = daily({
    dayL: new Array<number>(7).fill(0),
    batches: [{ id: 'b', name: 'Drum', weekday: 4, hour: 18, count: 1, litres: 200 }],
  });

  it('adds up', () => {
    expect(demandLPerWeek(daily({}))).toBe(168);
    expect(demandLPerDay(friday)).toBeCloseTo(200 / 7, 12);
    expect(largestDrawL(friday)).toBe(200);
    expect(largestDrawL(morning)).toBe(24);
    expect(hourlyDrawL(daily({ hourShare: new Array<number>(24).fill(0) }))[5]).toBe(1);
    expect(demandLPerWeek(scaledDemand(friday, 350))).toBeCloseTo(350, 9);
    expect(scaledDemand(daily({ dayL: new Array<number>(7).fill(0) }), 70).dayL).toEqual(new Array(7).fill(10));
  });
  it('even draw needs no tank; a morning’s draw needs all but an hour’s output', () => {
    expect(smallestTankL(daily({}), 24)).toBeCloseTo(0, 9);
    expect(smallestTankL(morning, 24)).toBeCloseTo(23, 9);
    expect(smallestTankL(morning, 48)).toBeCloseTo(22, 9);
    expect(smallestTankL(friday, 200)).toBe(200);
    expect(smallestTankL(morning, 20)).toBeNull();
  });
  it.each([
    [6, 54],
    [11.8, 48.2],
    [5, 60],
  ])('M56: 40 L at 7 h, 20 at 12, 60 at 18, made at %s L/h', (perHour, litres) => {
    const hours = new Array<number>(24).fill(0);
    [hours[7], hours[12], hours[18]] = [40, 20, 60];
    const three = daily({ dayL: new Array<number>(7).fill(120), hourShare: hours });
    expectWithin(smallestTankL(three, 24 * perHour)!, litres, 1e-3);
    expect(smallestTankL(three, 24 * 4)).toBeNull();
  });
  it('M57: 30 gal at 100 gal/day take 7.2 h, about a third of a day (common practice)', () => expectNear(fillTimeH(30, 100)!, 7.2, 1e-12));
  it('two batches a day apart: what the unit made between them counts', () => {
    const pair = daily({
      dayL: new Array<number>(7).fill(0),
      batches: [
        { id: 'a', name: '', weekday: 0, hour: 8, count: 1, litres: 100 },
        { id: 'b', name: '', weekday: 1, hour: 8, count: 2, litres: 50 },
      ],
    });
    expect(smallestTankL(pair, 48)).toBeCloseTo(100 - 48 + 100, 9);
  });
  it('the least production for a tank is the one whose smallest tank it is', () => {
    const perDay = productionForTankLPerDay(morning, 20)!;
    expect(smallestTankL(morning, perDay)!).toBeCloseTo(20, 4);
    expect(productionForTankLPerDay(friday, 150)).toBeNull();
    expect(productionForTankLPerDay(daily({}), 500)).toBe(24);
  });
  it('a week’s level repeats and never runs dry in the smallest tank', () => {
    const week = tankWeek(morning, 30, smallestTankL(morning, 30)!);
    expectNear(week.lowestL, 0, 1e-9);
    expect(week.shortL).toBe(0);
    expect(week.points[0]!.levelL).toBeCloseTo(week.points.at(-1)!.levelL, 9);
    expect(tankWeek(friday, 50, 150)).toMatchObject({ lowestL: 0, shortL: 50 });
  });
  it('is spoken of by the hour and by cups, in the same litres', () => {
    // 30 L an hour through a working day of 8 hours; 120 cups of 150 mL.
    const hourly = daily({ per: 'hour', hoursPerDay: 8 });
    expect(needLPerDay(hourly, 30)).toBe(240);
    expect(spokenNeed(hourly, 240)).toBe(30);
    const cups = daily({ per: 'cups', cupL: 0.15 });
    expect(needLPerDay(cups, 120)).toBeCloseTo(18, 9);
    for (const per of ['day', 'week', 'hour', 'cups'] as const) {
      const demand = daily({ per });
      expect(spokenNeed(demand, needLPerDay(demand, 37))).toBeCloseTo(37, 9);
    }
  });
  it('what may run at once is drawn together', () => {
    expect(drawnAtOnceLPerH(daily({}))).toBeNull();
    const draws = [
      { id: 'a', name: 'Pole', lPerH: 120 },
      { id: 'b', name: 'Tank', lPerH: 300 },
    ];
    expect(drawnAtOnceLPerH(daily({ draws }))).toBe(420);
  });
  it('time to fill', () => {
    expect(fillTimeH(200, 100)).toBe(48);
    expect(fillTimeH(200, 0)).toBeNull();
  });

  const anyDemand: fc.Arbitrary<Demand> = fc.record({
    per: fc.constant('day' as const),
    hoursPerDay: fc.constant(8),
    cupL: fc.constant(0.15),
    draws: fc.constant([]),
    season: fc.constant(null),
    dayL: fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { minLength: 7, maxLength: 7 }),
    hourShare: fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 24, maxLength: 24 }),
    batches: fc.array(
      fc.record({
        id: fc.uuid(),
        name: fc.constant(''),
        weekday: fc.integer({ min: 0, max: 6 }),
        hour: fc.integer({ min: 0, max: 23 }),
        count: fc.integer({ min: 1, max: 3 }),
        litres: fc.double({ min: 0, max: 300, noNaN: true }),
      }),
      { maxLength: 4 },
    ),
  });
  it('the smallest tank is exact: a litre less runs dry, as a simulation minute by minute shows', () => {
    /** Litres short over two steady weeks, by explicit minutes. */
    function shortByMinutes(demand: Demand, perDay: number, tankL: number): number {
      const draws = hourlyDrawL(demand);
      let level = tankL;
      let short = 0;
      for (let minute = 0; minute < 4 * 168 * 60; minute++) {
        const hour = Math.floor(minute / 60) % 168;
        if (minute % 60 === 0)
          for (const batch of demand.batches) if (batch.weekday * 24 + batch.hour === hour) level -= batch.count * batch.litres;
        level = Math.min(tankL, level + perDay / 1440 - draws[hour]! / 60);
        if (level < -1e-6) {
          short -= level;
          level = 0;
        }
      }
      return short;
    }
    fc.assert(
      fc.property(anyDemand, fc.double({ min: 1.02, max: 3, noNaN: true }), (demand, spare) => {
        const perDay = demandLPerDay(demand) * spare;
        const tank = smallestTankL(demand, perDay)!;
        if (tank < 3) return;
        expect(shortByMinutes(demand, perDay, tank + 1e-3)).toBeLessThan(1e-2);
        expect(shortByMinutes(demand, perDay, tank - 1)).toBeGreaterThan(0.3);
      }),
      { numRuns: 20 },
    );
  });
  it('more production never needs a larger tank', () => {
    fc.assert(
      fc.property(anyDemand, fc.double({ min: 1, max: 2, noNaN: true }), (demand, spare) => {
        const base = demandLPerDay(demand);
        expect(smallestTankL(demand, base * spare * 1.2)!).toBeLessThanOrEqual(smallestTankL(demand, base * spare)! + 1e-9);
      }),
      { numRuns: 60 },
    );
  });
});

describe('a figure that was assumed', () => {
  it.each<[LimitQuantity, number, number, UnitPreference, string]>([
    ['chlorideMgL', 67.4, 28.3, METRIC_UNITS, '67 ± 28 mg/L'],
    ['chlorideMgL', 416, 35.2, METRIC_UNITS, '420 ± 35 mg/L'],
    ['hardnessMgL', 419.5, 34.2, { ...METRIC_UNITS, hardness: 'gpg' }, '25 ± 2 gpg'],
    ['silicaMgL', 1.34, 0.41, METRIC_UNITS, '1.3 ± 0.4 mg/L'],
    ['silicaMgL', 0.0134, 0.0041, METRIC_UNITS, '13 ± 4 µg/L'],
    ['pH', 6.42, 0.3, METRIC_UNITS, '6.4 ± 0.3'],
  ])('%s %s ± %s', (quantity, value, doubt, units, text) =>
    expect(assumedText(quantity, value, doubt, units).replaceAll('\u202f', ' ')).toBe(text),
  );
});

describe('a week with a batch', () => {
  const week: Demand = { ...evenDemand(20, 'week'), batches: [{ id: 'b', name: 'drum', weekday: 4, hour: 18, count: 1, litres: 200 }] };
  it('keeps the batch when the total is typed anew', () => {
    const more = scaledDemand(week, 410);
    expect(more.batches).toEqual(week.batches);
    expectWithin(more.dayL[0]!, 30, 1e-12);
    expect(demandLPerWeek(more)).toBeCloseTo(410, 9);
  });
  it('only a total below it makes it smaller', () => {
    const less = scaledDemand(week, 100);
    expect([less.dayL[0], less.batches[0]!.litres]).toEqual([0, 100]);
  });
});

describe('what nobody tested', () => {
  const tap = value(completeWater({ character: 'municipal', temperatureC: 15, ec25UScm: 480 }));
  const at = (mgL: Partial<Record<Solute, number>>): LimitCheck =>
    checkLimits(
      [
        {
          quantity: 'phosphateMgL',
          label: 'Phosphate',
          low: null,
          high: 0.02,
          because: '',
          origin: '',
          meterSees: false,
          judged: 'asUsed',
        },
      ],
      { ...tap.water, mgL: { ...tap.water.mgL, ...mgL } },
      value(settleWater(tap.water)),
      tap,
    )[0]!;
  it('is not a finding of none, whatever floor a resin has', () => {
    expect(untested(at({}))).toBe(true);
    expect(untested(at({ PO4: 0.001 }))).toBe(true);
    expect(assumedText('phosphateMgL', 0.001, 0, METRIC_UNITS)).not.toMatch(/NaN|Infinity/);
  });
  it('behind a resin that leaves none of what the tap was taken to hold, it is 0, not untested', () => {
    const [nitrate] = checkLimits(
      [{ quantity: 'nitrateMgL', label: 'Nitrate', low: null, high: 1, because: '', origin: '', meterSees: false, judged: 'asUsed' }],
      { ...tap.water, mgL: { ...tap.water.mgL, NO3: 0 } },
      value(settleWater(tap.water)),
      tap,
    );
    expect(nitrate).toMatchObject({ verdict: 'met', value: 0, assumed: { plusMinus: 0 } });
    expect(nitrate!.assumed!.atTap).toBeGreaterThan(1);
    expect(untested(nitrate!)).toBe(false);
    expect(assumedText('nitrateMgL', 0, 0, METRIC_UNITS)).toBe('0\u202fmg/L');
  });
});
