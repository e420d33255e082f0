import { describe, expect, it } from 'vitest';
import { BED_SD, updateCapacity, type CapacityBelief } from '../exchange';
import type { Instrument, System } from '../file';
import { FOUR_IN_FIVE_SD, normalCumulative, normalQuantile, seeded, seenBy, type Belief } from '../numeric';
import { DAY_MS } from '../quantity';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { plainReading } from '../testing/written';
import { solveTrain, tapWater, type MembraneOperation, type SolvedTrain } from '../train';
import { carbonicUScm } from '../water';
import { alarmOf, NO_SUMS, summed } from './cusum';
import { chanceOf, type Expected } from './expected';
import { stands } from './latch';
import { litresCounted } from './litres';
import { loadCounted, saltShare } from './loads';
import { filteredUnit, type UnitPoint } from './membraneFilter';
import { shareWithDoubt } from './membraneFindings';
import { rowHistory } from './rowHistory';
import { probeRoles } from './series';
import type { UnitMap } from './unitMap';
import { READ_SD, seenOf, showsAt, type UnitAsRead } from './unitReading';

/** Check values of the science of logs, 13, that no test of one room holds: what a reading is worth, and what follows from it. */
const near = (found: number, expected: number, within = 1e-4): void =>
  expect(Math.abs(found - expected), `${found} against ${expected}`).toBeLessThanOrEqual(within);

const AT = '2026-02-01T08:00:00Z';
const system = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: AT });
/** A pen in whole ppm at half a ppm a µS/cm. */
const PPM_PEN: Instrument = { ...system.instruments[0]!, scale: { kind: 'factor', factor: 0.5 }, resolution: 1 };

/** The booster pair of L4: product 3.4 (P − 0.35), waste 24 P^0.555. */
const PAIR = { drop: 0.0015, head: 4.6, open: 260 };
const pairMap: UnitMap = {
  shows: ({ membraneBar, lnWater, temperatureC, lnTap }) => [
    Math.log(3.4 * (membraneBar - 0.35)) + lnWater + 3020 * (1 / 283.15 - 1 / (temperatureC + 273.15)),
    Math.log(24 * membraneBar ** 0.555),
    -3 + lnTap - lnWater,
  ],
  hasRestrictor: true,
  held: false,
  strengthPower: 1,
  range: { lowC: 1, highC: 44, lowBar: 0.2, highBar: 30 },
};
const pair = (bypassBar: number): UnitAsRead => ({
  map: pairMap,
  tapUScm: 500,
  membraneBar: 5.5,
  operation: {
    feed: { temperatureC: 10 },
    stage: { recycleLPerH: 0, bypassShare: 0 },
    conditions: {
      prefilterBarPerLPerH: PAIR.drop,
      pump: { kind: 'booster', riseBar: PAIR.head, openFlowLPerH: PAIR.open, bypassBar },
    },
  } as unknown as MembraneOperation,
});
const AS_NEW = { lnWater: 0, lnSalt: 0, lnRestrictor: 0, lnFilter: 0 };
const atLine = (bar: number, bypassBar = 20) =>
  showsAt(pair(bypassBar), AS_NEW, { temperatureC: 10, lnBar: Math.log(bar), lnTap: 0 }, 'line');

describe('what a figure is worth', () => {
  it('L1, L8: a whole-ppm pen hides a twelfth of its step squared of a weak permeate, nothing of a tap', () => {
    const meters = system.instruments.map((one) => ({ ...PPM_PEN, id: one.id }));
    const of = (behind: number) => {
      const shown = [260, behind, 0];
      const values = system.train.probes.map(({ id, instrumentId }, i) => ({ probeId: id, instrumentId, shown: shown[i]! }));
      const own: System = { ...system, instruments: meters };
      const unit = { ...pair(20), operation: { ...pair(20).operation, stage: { bypassShare: 0 } } } as unknown as UnitAsRead;
      return seenOf(own, plainReading('r', { values, productLPerH: 8, wasteLPerH: 24 }), unit, probeRoles(own))!;
    };
    // A pen’s scale is not quite in proportion at its lowest digit.
    near(Math.hypot(READ_SD.meter, of(6).roundedBy), 0.0521, 3e-4);
    near(Math.hypot(READ_SD.meter, of(260).roundedBy), 0.02003);
    near(Math.hypot(READ_SD.meter, of(1).roundedBy), 0.28937, 0.002);
    near(of(6).lnPassage!.sd, 0.05582, 3e-4);
  });
  it('L2: a meter in whole steps shows 0 of a truth below half a step', () => {
    // In ln the spread is relative; about half a step it is the chapter's ± 0.1.
    const shows0 = (truth: number): number => {
      const expected: Expected = {
        components: [{ middle: Math.log(truth), sd: 0.1 / truth, weight: 1 }],
        step: 1,
        low: 0,
        high: 1,
        count: 5,
        planned: false,
      };
      return chanceOf(expected, 0);
    };
    near(shows0(0.3), 0.97725, 0.04);
    near(shows0(0.6), 0.15866, 0.03);
    expect(shows0(2)).toBeLessThan(1e-3);
  });
  it('L3: a jug of 250 ± 5 mL over 60 ± 1 s, itself good to a hundredth: what the log takes a jug for', () => {
    near(Math.hypot(5 / 250, 1 / 60, 0.01), 0.02789);
    expect(Math.abs(READ_SD.jug - 0.02789)).toBeLessThan(0.001);
  });
  it('L4: gauge before a booster: flow, pressure and both flows', () => {
    const shows = atLine(2.4);
    const [product, waste] = [Math.exp(shows.lnProduct), Math.exp(shows.lnWaste)];
    near((product + waste) / 79.145, 1, 5e-4);
    near(shows.membraneBar / 5.481, 1, 5e-4);
    near(product / 17.446, 1, 5e-4);
    near(waste / 61.699, 1, 5e-4);
  });
  it('L5: what that gauge tells of the pressure at the membrane, and nothing where the bypass is open', () => {
    const slope = (bypass: number): number => (atLine(2.5, bypass).membraneBar - atLine(2.4, bypass).membraneBar) / 0.1;
    near(slope(20), 0.844, 0.002);
    near(slope(5), 0, 0.002);
  });
  it('L6, L7: flow ± 3 %, pressure ± 2 %, half a degree at 10 °C: the membrane to ± 4.2 %', () => {
    near(3020 / 283.15 ** 2, 0.03767);
    near(4000 / 283.15 ** 2, 0.04989);
    // N 1.12 is what the product of this map goes with pressure by, at the pressure where P/(P − 0.35) is that.
    const bar = (0.35 * 1.12) / 0.12;
    const point: UnitPoint = {
      ms: 0,
      at: AT,
      readingId: 'r',
      seen: {
        hour: { temperatureC: { value: 10, sd: 0.5 }, lnBar: { value: Math.log(bar), sd: 0.02 }, lnTap: { value: 0, sd: 0 } },
        knownAt: 'membrane',
        lnProduct: { value: Math.log(3.4 * (bar - 0.35)), sd: 0.03 },
        lnWaste: null,
        lnPassage: null,
        lnFilters: null,
        lnMembrane: null,
        roundedBy: 0,
      },
    };
    const unit = { ...pair(20), operation: { ...pair(20).operation, conditions: { prefilterBarPerLPerH: 0, pump: null } } } as UnitAsRead;
    // The slopes are taken over 2 % of pressure and half a degree.
    near(filteredUnit(unit, [point], [], true).points[0]!.lnWater!.sd, 0.04191, 2e-4);
  });
  it('L9, L10: carbonic acid in a permeate, and a tenth more salt told through it', () => {
    for (const [bicarbonate, expected] of [[0.025, 1.574], [0.05, 0.874], [0, 4.241]] as const) near(carbonicUScm(bicarbonate, 0.26), expected, 0.002); // prettier-ignore
    const shown = (saltUScm: number): number => saltUScm + carbonicUScm(0.42 * 0.0092 * saltUScm, 0.26);
    near(shown(6), 7.665, 0.002);
    near(shown(6.6), 8.15, 0.002);
    near(saltShare({ bicarbonateMeqL: 0.42 * 0.0092 * 6 }, 0.26, shown(6))(shown(6.6)), 1.1, 0.003);
  });
  it('L13: a filter change seen by product and waste at once', () => {
    const jug = 0.03 * Math.SQRT2;
    const wide: Belief = { mean: [0], covariance: [[100]] };
    const { belief } = seenBy(
      wide,
      [
        { row: [1.12], residual: Math.log(1.12) },
        { row: [0.555], residual: Math.log(1.06) },
      ],
      [[jug * jug, 0], [0, jug * jug]], // prettier-ignore
    );
    near(belief.mean[0]!, 0.1019);
    near(Math.sqrt(belief.covariance[0]![0]!), 0.0339);
    near(1 - Math.exp(-belief.mean[0]!), 0.0969);
  });
});

describe('what resin takes up', () => {
  it('L16: 500 L of a permeate with carbon dioxide and silica', () => {
    const solved = value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water));
    const bed = solved.resins[0]!;
    // 24 µS/cm at 0.0090 meq/L each as sodium chloride, 0.20 mmol/L of carbon dioxide, 0.008 of silica.
    const meqL = 24 * 0.009;
    const mgL = Object.fromEntries(Object.keys(bed.feed.mgL).map((solute) => [solute, 0])) as unknown as typeof bed.feed.mgL;
    const feed = { ...bed.feed, alkalinityMgL: 0, carbonMmolL: 0.2, mgL: { ...mgL, Na: meqL * 22.99, Cl: meqL * 35.453, SiO2: 0.008 * 60.084 } }; // prettier-ignore
    const told: SolvedTrain = { ...solved, resins: [{ ...bed, feed }] };
    const readings = [0, 1000].map((meterL, i) => plainReading(`r${i}`, { at: new Date(Date.parse(AT) + i * 40 * DAY_MS).toISOString(), meterL, confirmed: ['meterL'] })); // prettier-ignore
    const loads = loadCounted(system, readings, told, litresCounted(system, readings))!;
    const [from, to] = [loads.at(Date.parse(AT)), loads.at(Date.parse(AT) + 40 * DAY_MS)];
    near(to.litres - from.litres, 1000, 1e-9);
    near((to.anionEq - from.anionEq) / 2, 0.212, 1e-4);
  });
  it('L21: a change of ± 2 days widens what a cartridge teaches', () => {
    near(Math.hypot(0.14142, (0.012 * 2) / 0.6), 0.14697);
    const prior: CapacityBelief = { lnMean: Math.log(0.5), sd: 0.25 };
    const perDay = 0.012;
    const taught = (doubtDays: number) =>
      rowHistory({
        fromMs: 0,
        used: [0],
        events: [{ ms: 50 * DAY_MS, doubtDays, how: 'renew', bed: 0, why: 'notSaid', serviceId: 'w' }],
        outlet: [{ ms: 49 * DAY_MS, readingId: 'r', ec25UScm: 0.1, past: 0 }],
        looks: [],
        signs: [],
        load: { at: (ms) => (perDay * ms) / DAY_MS, sdOf: () => 0.1 },
        prior,
        nowMs: 60 * DAY_MS,
        broughtBy: () => 0,
      }).belief;
    const expected = updateCapacity(prior, { kind: 'removedBefore', loadEq: 0.6, loadSd: Math.sqrt(0.14697 ** 2 - BED_SD ** 2) });
    near(taught(2).lnMean, expected.lnMean);
    near(taught(2).sd, expected.sd);
    expect(Math.abs(taught(0.05).lnMean - expected.lnMean)).toBeGreaterThan(5e-4);
  });
  it('L44: three beds 0.20 below in ln tell a site apart from its class', () => {
    // u ~ N(0, 0.13²), each bed ± 0.14 with its load (section 12).
    const bed = { kind: 'breakthrough', loadEq: Math.exp(-0.2), loadSd: Math.sqrt(0.14 ** 2 - BED_SD ** 2) } as const;
    const { lnMean, sd } = [bed, bed, bed].reduce<CapacityBelief>((belief, one) => updateCapacity(belief, one), { lnMean: 0, sd: 0.13 });
    near(lnMean / -0.2, 0.7212);
    near(lnMean, -0.1442);
    near(sd, 0.0686);
  });
});

describe('steps, seasons and alarms', () => {
  it('L35: what is left of correlation between readings ruins the run length of a sum', () => {
    // A series that goes on: the sum begins anew after each alarm, the readings do not.
    const runLength = (correlation: number): number => {
      const chance = seeded(23);
      const length = 500_000;
      let [sums, z, alarms] = [NO_SUMS, chance.normal(), 0];
      for (let i = 0; i < length; i++) {
        sums = summed(sums, z, i, 0.5);
        if (alarmOf({ ...sums, down: 0 }, i, 5)) [sums, alarms] = [NO_SUMS, alarms + 1];
        z = correlation * z + Math.sqrt(1 - correlation * correlation) * chance.normal();
      }
      return length / alarms;
    };
    near(runLength(0.3) / 192, 1, 0.05);
    near(runLength(0.5) / 99, 1, 0.05);
  });
  it('L38: a trend of the tap is not told from its season before a year is full', () => {
    const slopeSd = (years: number): number => {
      let belief: Belief = {
        mean: [0, 0, 0, 0],
        covariance: [0.3, 0.1, 0.1, 0.1].map((sd, i) => [0, 1, 2, 3].map((j) => (i === j ? sd * sd : 0))),
      };
      for (let day = 0; day <= 365 * years; day += 10) {
        const t = day / 365;
        const row = [1, Math.cos(2 * Math.PI * t), Math.sin(2 * Math.PI * t), t];
        belief = seenBy(belief, [{ row, residual: 0 }], [[0.04 ** 2]]).belief;
      }
      return Math.sqrt(belief.covariance[3]![3]!);
    };
    for (const [years, sd] of [[0.25, 0.0986], [0.5, 0.0956], [1, 0.0328], [1.5, 0.0124], [2, 0.0086]] as const) near(slopeSd(years) / sd, 1, 0.02); // prettier-ignore
  });
  it('L41: an alarm that goes on when two readings are sure and off when it is more likely unfounded cries a tenth as often', () => {
    // One standard deviation inside the limit, 40 readings a year, estimates that keep 0.8 of their error (section 9, simulated).
    const alarmsAYear = (told: (chances: readonly number[]) => readonly boolean[]): number => {
      const chance = seeded(31);
      const years = 3000;
      let error = chance.normal();
      const chances = Array.from({ length: 40 * years }, () => {
        error = 0.8 * error + 0.6 * chance.normal();
        return error;
      }).map((z) => normalCumulative(z - 1));
      return told(chances).filter((on, i, all) => on && !all[i - 1]).length / years;
    };
    const bare = alarmsAYear((chances) => chances.map((one) => one > 0.5));
    const latched = alarmsAYear((chances) => {
      const seen: boolean[] = [];
      // What stands is told by the readings since it was last off.
      let from = 0;
      chances.forEach((one, i) => {
        seen[i] = stands(chances.slice(from, i + 1));
        if (!seen[i] && one < 0.5) from = i;
      });
      return seen;
    });
    near(bare / 2.42, 1, 0.1);
    expect(latched).toBeLessThan(0.23);
    expect(latched).toBeGreaterThan(0.04);
  });
  it('goes on by two sure readings or one very sure one, and off below a half', () => {
    expect(stands([0.2, 0.93])).toBe(false);
    expect(stands([0.93, 0.95])).toBe(true);
    expect(stands([0.985])).toBe(true);
    expect(stands([0.95, 0.95, 0.6])).toBe(true);
    expect(stands([0.95, 0.95, 0.4, 0.6])).toBe(false);
  });
  it('L52: a band of four in five is ± 1.2816 of the same standard deviation, of nineteen in twenty ± 1.96', () => {
    near(FOUR_IN_FIVE_SD, normalQuantile(0.9));
    near(normalQuantile(0.975), 1.95996);
    // 100 · 0.10 · 1.2816 is what a course is told with, and that is said to be four in five wherever it stands.
    expect(shareWithDoubt({ value: 0, sd: 0.1 })).toBe('100 ± 13\u202f%');
  });
});
