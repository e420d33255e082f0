import { combined, inLightOf, moved, normalDensity, seenBy, type Belief, type Estimate } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR } from '../quantity';
import { alarmOf, bestSplit, CUSUM, NO_SUMS, summed, type Alarm, type Sums } from './cusum';
import { showsAt, type Shows, type UnitAsRead, type UnitFactors, type UnitSeen } from './unitReading';

/**
 * The state of a membrane unit through its log: membrane, restrictor and filters told apart by how each moves (science of
 * logs, 4). An extended Kalman filter over the readings, robust against single figures, with a jump let in where a series
 * left what it led to expect; a smoother backwards draws the course. Times are in years.
 */

/** Places in the state: factors as ln with their slopes a year, errors of the temperature laws in K, and what new was. */
export const AT = {
  water: 0,
  waterSlope: 1,
  salt: 2,
  saltSlope: 3,
  restrictor: 4,
  restrictorSlope: 5,
  filter: 6,
  filterSlope: 7,
  waterLaw: 8,
  saltLaw: 9,
  water0: 10,
  salt0: 11,
  restrictor0: 12,
} as const;
const SIZE = 13;
const SLOPES: readonly (readonly [level: number, slope: number])[] = [
  [AT.water, AT.waterSlope],
  [AT.salt, AT.saltSlope],
  [AT.restrictor, AT.restrictorSlope],
  [AT.filter, AT.filterSlope],
];

/** What a membrane loses a year by common design practice, in ln (membrane chapter, 8). */
export const AGEING = { water: -0.1, salt: 0.15 } as const;
/** Start and movement a square root of a year (4.2; product assumptions but for the ageing of the membrane chapter). */
const START = {
  water: 0.3,
  salt: 0.5,
  restrictor: 0.2,
  waterSlope: { value: AGEING.water, sd: 0.06 },
  saltSlope: { value: AGEING.salt, sd: 0.1 },
  filterSlope: { value: 1.5, sd: 2.5 },
  cleanFilter: 0.1,
  waterLawK: 150,
  saltLawK: 600,
} as const;
/** Two ways of a restrictor side by side: still, or taking on scale; weights by what is seen (4.2). */
const WAYS = [
  { weight: 0.7, slope: 0, sd: 0.02 },
  { weight: 0.3, slope: -0.12, sd: 0.08 },
] as const;
const MOVES: Readonly<Record<number, number>> = {
  [AT.water]: 0.01,
  [AT.waterSlope]: 0.03,
  [AT.salt]: 0.02,
  [AT.saltSlope]: 0.05,
  [AT.restrictor]: 0.04,
  [AT.restrictorSlope]: 0.07,
  [AT.filter]: 0.5,
  [AT.filterSlope]: 3,
};
/** Chance that a figure is good, and how far a bad one lies off in ln (4.3). */
const GOOD = 0.97;
const BAD_SD = 0.5;
/** What may have jumped then, in ln. */
const JUMP = { passage: { water: 0.1, salt: 0.6, filter: 0 }, product: { water: 0.15, salt: 0.15, filter: 2 } } as const;
const KELVIN = 273.15;

/** Work on the unit at an instant, ms. */
export interface UnitWork {
  readonly ms: number;
  readonly what: 'filters' | 'restrictor' | 'valve' | 'cleaned' | 'meter';
}

/** A reading of the unit with its instant. */
export interface UnitPoint {
  readonly ms: number;
  readonly at: string;
  readonly readingId: string;
  readonly seen: UnitSeen;
}

/** A jump that was let in: which series told of it, the reading it begins with and the one at which it was seen. */
export interface Jump {
  readonly of: 'passage' | 'product';
  readonly first: number;
  readonly seenAt: number;
  readonly direction: 'up' | 'down';
}

/** The state at each reading: before and after its own figures, and in the light of all. */
export interface FilteredPoint {
  readonly before: Belief;
  readonly after: Belief;
  readonly smoothed: Belief;
  /** Readings of the product and of passage alone, as factors against the state's others. */
  readonly lnWater: Estimate | null;
  readonly lnSalt: Estimate | null;
  readonly shows: Shows;
  readonly factors: UnitFactors;
  /** How far each figure was off in standard deviations, in the order product, waste, passage; null where not read. */
  readonly z: readonly (number | null)[];
}

export interface Filtered {
  readonly points: readonly FilteredPoint[];
  readonly jumps: readonly Jump[];
  /** Chance that the restrictor takes on scale rather than being still. */
  readonly scaling: number;
}

const identity = (): number[][] => Array.from({ length: SIZE }, (_, i) => Array.from({ length: SIZE }, (__, j) => (i === j ? 1 : 0)));

/** How the state goes on over some years. */
export function stepOf(years: number): number[][] {
  const step = identity();
  for (const [level, slope] of SLOPES) step[level]![slope] = years;
  return step;
}
export const noiseOf = (years: number): number[] => Array.from({ length: SIZE }, (_, i) => (MOVES[i] ?? 0) ** 2 * Math.max(0, years));

/** The belief before the first reading: what new was is not known, and the state is that. */
function startBelief(way: (typeof WAYS)[number], cleanFilters: boolean): Belief {
  const sd = new Array<number>(SIZE).fill(1e-6);
  const mean = new Array<number>(SIZE).fill(0);
  sd[AT.waterLaw] = START.waterLawK;
  sd[AT.saltLaw] = START.saltLawK;
  [mean[AT.waterSlope], sd[AT.waterSlope]] = [START.waterSlope.value, START.waterSlope.sd];
  [mean[AT.saltSlope], sd[AT.saltSlope]] = [START.saltSlope.value, START.saltSlope.sd];
  [mean[AT.restrictorSlope], sd[AT.restrictorSlope]] = [way.slope, way.sd];
  [mean[AT.filterSlope], sd[AT.filterSlope]] = [START.filterSlope.value, START.filterSlope.sd];
  [mean[AT.filter], sd[AT.filter]] = cleanFilters ? [0, START.cleanFilter] : [0.5, 0.5];
  const covariance = sd.map((value, i) => sd.map((_, j) => (i === j ? value * value : 0)));
  for (const [now, then, spread] of [
    [AT.water, AT.water0, START.water],
    [AT.salt, AT.salt0, START.salt],
    [AT.restrictor, AT.restrictor0, START.restrictor],
  ] as const)
    for (const i of [now, then]) for (const j of [now, then]) covariance[i]![j] = spread * spread;
  return { mean, covariance };
}

/** A belief with one quantity loosened by a standard deviation. */
const loosened = (belief: Belief, at: number, sd: number): Belief => ({
  mean: belief.mean,
  covariance: belief.covariance.map((row, i) => row.map((value, j) => (i === at && j === at ? value + sd * sd : value))),
});
/** A belief with one quantity set anew, free of all others. */
const setAnew = (belief: Belief, at: number, mean: number, sd: number): Belief => ({
  mean: belief.mean.map((value, i) => (i === at ? mean : value)),
  covariance: belief.covariance.map((row, i) => row.map((value, j) => (i === at && j === at ? sd * sd : i === at || j === at ? 0 : value))),
});
/** A belief in which one quantity is another again, give or take. */
const asBefore = (belief: Belief, at: number, like: number, sd: number): Belief => ({
  mean: belief.mean.map((value, i) => (i === at ? belief.mean[like]! : value)),
  covariance: belief.covariance.map((row, i) =>
    row.map((_, j) => {
      const [a, b] = [i === at ? like : i, j === at ? like : j];
      return belief.covariance[a]![b]! + (i === at && j === at ? sd * sd : 0);
    }),
  ),
});

/** What work did to the state, at its own instant. */
function worked(belief: Belief, what: UnitWork['what']): Belief {
  switch (what) {
    case 'filters':
      return setAnew(setAnew(belief, AT.filter, 0, START.cleanFilter), AT.filterSlope, START.filterSlope.value, START.filterSlope.sd);
    case 'restrictor':
      return asBefore(belief, AT.restrictor, AT.restrictor0, 0.06);
    case 'valve':
      return loosened(belief, AT.restrictor, 0.5);
    case 'cleaned':
      return loosened(loosened(belief, AT.water, 0.1), AT.salt, 0.1);
    case 'meter':
      return loosened(belief, AT.salt, 0.05);
  }
}

/** What an error of a temperature law, K, comes to in ln at a temperature: the laws turn about the planned one. */
const turnedAt = (temperatureC: number, plannedC: number): number => 1 / (plannedC + KELVIN) - 1 / (temperatureC + KELVIN);

/** The unit's factors of a state, at a temperature. */
function factorsOf(mean: readonly number[], temperatureC: number, plannedC: number): UnitFactors {
  const turned = turnedAt(temperatureC, plannedC);
  return {
    lnWater: Math.max(-1.2, Math.min(0.6, mean[AT.water]! + mean[AT.waterLaw]! * turned)),
    lnSalt: mean[AT.salt]! + mean[AT.saltLaw]! * turned,
    lnRestrictor: mean[AT.restrictor]!,
    lnFilter: Math.max(-0.5, Math.min(4, mean[AT.filter]!)),
  };
}

const WIDTH = { factor: 0.02, temperature: 0.5, bar: 0.02, tap: 0.02 } as const;
type Observed = 'lnProduct' | 'lnWaste' | 'lnPassage' | 'lnFilters' | 'lnMembrane';
const OBSERVED: readonly Observed[] = ['lnProduct', 'lnWaste', 'lnPassage', 'lnFilters', 'lnMembrane'];
const shown = (shows: Shows, of: Observed): number =>
  of === 'lnFilters' ? Math.log(shows.filtersBar) : of === 'lnMembrane' ? Math.log(shows.membraneBar) : shows[of];

/** A move of the filters or of a factor from which the slopes are no longer those of the start, ln. */
const FAR = { filter: 0.25, factor: 0.12 } as const;
const MOST_ROUNDS = 6;
const movedFar = (before: readonly number[], after: readonly number[]): boolean =>
  Math.abs(after[AT.filter]! - before[AT.filter]!) > FAR.filter ||
  [AT.water, AT.salt, AT.restrictor].some((at) => Math.abs(after[at]! - before[at]!) > FAR.factor);

/** A reading against a state. */
interface Expectation {
  /** The state it was worked out about. */
  readonly about: readonly number[];
  readonly base: Shows;
  readonly factors: UnitFactors;
  /** Figures that were read, their rows of the state, and the errors they share in one hour. */
  readonly present: readonly Observed[];
  readonly rows: readonly (readonly number[])[];
  readonly errors: readonly (readonly number[])[];
  /** How each figure goes with the membrane's two factors. */
  readonly water: readonly number[];
  readonly salt: readonly number[];
}

function expectation(unit: UnitAsRead, { seen }: UnitPoint, mean: readonly number[], plannedC: number): Expectation {
  const hour = { temperatureC: seen.hour.temperatureC.value, lnBar: seen.hour.lnBar.value, lnTap: seen.hour.lnTap.value };
  const factors = factorsOf(mean, hour.temperatureC, plannedC);
  const at = (change: Partial<UnitFactors>, other: Partial<typeof hour> = {}): Shows =>
    showsAt(unit, { ...factors, ...change }, { ...hour, ...other }, seen.knownAt);
  const base = at({});
  const present = OBSERVED.filter((of) => seen[of] !== null);
  const slope = (there: Shows, width: number): number[] => present.map((of) => (shown(there, of) - shown(base, of)) / width);
  const byFactor = (key: keyof UnitFactors): number[] => slope(at({ [key]: factors[key] + WIDTH.factor }), WIDTH.factor);
  const [water, salt, restrictor] = [byFactor('lnWater'), byFactor('lnSalt'), byFactor('lnRestrictor')];
  const filter = seen.knownAt === 'line' ? byFactor('lnFilter') : present.map(() => 0);
  const turned = turnedAt(hour.temperatureC, plannedC);
  const rows = present.map((_, k) => {
    const row = new Array<number>(SIZE).fill(0);
    row[AT.water] = water[k]!;
    row[AT.salt] = salt[k]!;
    row[AT.restrictor] = restrictor[k]!;
    row[AT.filter] = filter[k]!;
    row[AT.waterLaw] = water[k]! * turned;
    row[AT.saltLaw] = salt[k]! * turned;
    return row;
  });
  const shared = [
    { by: slope(at({}, { temperatureC: hour.temperatureC + WIDTH.temperature }), WIDTH.temperature), sd: seen.hour.temperatureC.sd },
    { by: slope(at({}, { lnBar: hour.lnBar + WIDTH.bar }), WIDTH.bar), sd: seen.hour.lnBar.sd },
    { by: slope(at({}, { lnTap: hour.lnTap + WIDTH.tap }), WIDTH.tap), sd: seen.hour.lnTap.sd },
  ];
  const errors = present.map((of, i) =>
    present.map((_, j) => shared.reduce((sum, { by, sd }) => sum + by[i]! * by[j]! * sd * sd, i === j ? seen[of]!.sd ** 2 : 0)),
  );
  return { about: mean, base, factors, present, rows, errors, water, salt };
}

/** One way of the restrictor, filtered. */
interface Lane {
  readonly belief: Belief;
  readonly lnEvidence: number;
}

/** Filters a unit's readings, oldest first, and smooths them backwards. */
export function filteredUnit(unit: UnitAsRead, points: readonly UnitPoint[], works: readonly UnitWork[], cleanFilters: boolean): Filtered {
  const plannedC = unit.operation.feed.temperatureC;
  const jumps: Jump[] = [];
  const weights = (lanes: readonly Lane[]): number[] => {
    const ln = lanes.map(({ lnEvidence }, k) => lnEvidence + Math.log(WAYS[k]!.weight));
    const most = Math.max(...ln);
    const raw = ln.map((value) => Math.exp(value - most));
    const total = raw.reduce((sum, value) => sum + value, 0);
    return raw.map((value) => value / total);
  };
  const mixed = (lanes: readonly Lane[]): Belief => mixture(lanes, weights(lanes));
  interface Kept {
    readonly lanes: readonly Lane[];
    readonly point: Omit<FilteredPoint, 'smoothed'>;
    readonly sums: Both;
  }
  const kept: Kept[] = [];
  let lanes: Lane[] = WAYS.map((way) => ({ belief: startBelief(way, cleanFilters), lnEvidence: 0 }));
  let i = 0;
  while (i < points.length) {
    const point = points[i]!;
    const before = kept[i - 1];
    const fromMs = points[i - 1]?.ms ?? point.ms;
    lanes = (before?.lanes ?? lanes).map((lane) => ({ ...lane, belief: onward(lane.belief, fromMs, point.ms, works) }));
    for (const jump of jumps)
      if (jump.first === i)
        lanes = lanes.map((lane) => ({
          ...lane,
          // Dirt in the supply comes in bursts: filters may have jumped as well as the membrane.
          belief: loosened(
            loosened(loosened(lane.belief, AT.water, JUMP[jump.of].water), AT.salt, JUMP[jump.of].salt),
            AT.filter,
            JUMP[jump.of].filter,
          ),
        }));
    const start = lanes;
    const mixedBefore = mixed(start);
    let about: readonly number[] = mixedBefore.mean;
    let expected = expectation(unit, point, about, plannedC);
    let taken = start.map((lane) => taking(point, lane, expected));
    let after = mixed(taken.map(({ lane }) => lane));
    const expectedFirst = taken[0]!.z;
    // Where a state moved far, it is looked at again from half way, until it stays.
    for (let round = 0; round < MOST_ROUNDS && movedFar(about, after.mean); round++) {
      about = about.map((value, k) => (value + after.mean[k]!) / 2);
      expected = expectation(unit, point, about, plannedC);
      taken = start.map((lane) => taking(point, lane, expected));
      after = mixed(taken.map(({ lane }) => lane));
    }
    lanes = taken.map(({ lane }) => lane);
    const z = OBSERVED.slice(0, 3).map((of) => {
      const at = expected.present.indexOf(of);
      return at < 0 ? null : expectedFirst[at]!;
    });
    const sums = bothSummed(before?.sums ?? NOTHING, z, i);
    kept[i] = {
      lanes,
      sums,
      point: {
        before: mixedBefore,
        after,
        ...alone(point, expected),
        shows: expected.base,
        z,
        factors: factorsOf(after.mean, point.seen.hour.temperatureC.value, plannedC),
      },
    };
    const alarm = alarmIn(sums, i, jumps);
    if (alarm) {
      const first = bestSplit(
        kept.slice(0, i + 1).map((one) => one.point.z[alarm.of === 'product' ? 0 : 2]!),
        alarm.since,
        i,
      );
      jumps.push({ of: alarm.of, first, seenAt: i, direction: alarm.direction });
      kept.length = first;
      i = first;
      if (kept[i - 1]) kept[i - 1] = { ...kept[i - 1]!, sums: NOTHING };
      continue;
    }
    i += 1;
  }
  return {
    points: smoothed(
      kept.map((one) => one.point),
      points,
      works,
    ),
    jumps,
    scaling: weights(lanes)[1]!,
  };
}

/** A belief carried from one instant to another, with the work between. */
function onward(belief: Belief, fromMs: number, toMs: number, works: readonly UnitWork[]): Belief {
  let at = fromMs;
  let now = belief;
  for (const work of works) {
    if (work.ms <= fromMs || work.ms > toMs) continue;
    now = worked(elapsed(now, at, work.ms), work.what);
    at = work.ms;
  }
  return elapsed(now, at, toMs);
}
function elapsed(belief: Belief, fromMs: number, toMs: number): Belief {
  const years = (toMs - fromMs) / DAY_MS / DAYS_PER_YEAR;
  return years > 0 ? moved(belief, stepOf(years), noiseOf(years)) : belief;
}

/** Beliefs of several ways as one normal of the same mean and covariance. */
function mixture(lanes: readonly Lane[], weights: readonly number[]): Belief {
  const mean = lanes[0]!.belief.mean.map((_, i) => lanes.reduce((sum, { belief }, k) => sum + weights[k]! * belief.mean[i]!, 0));
  const covariance = mean.map((_, i) =>
    mean.map((__, j) =>
      lanes.reduce(
        (sum, { belief }, k) =>
          sum + weights[k]! * (belief.covariance[i]![j]! + (belief.mean[i]! - mean[i]!) * (belief.mean[j]! - mean[j]!)),
        0,
      ),
    ),
  );
  return { mean, covariance };
}

/** Takes a reading into one way: figures far off count by the chance that they are good. */
function taking(
  point: UnitPoint,
  { belief, lnEvidence }: Lane,
  { about, base, present, rows, errors }: Expectation,
): { readonly lane: Lane; readonly z: readonly number[] } {
  const seen = present.map((of, k) => {
    const row = rows[k]!;
    const beside = row.reduce((sum, slope, i) => sum + slope * (belief.mean[i]! - about[i]!), 0);
    return { row, residual: point.seen[of]!.value - shown(base, of) - beside };
  });
  const first = seenBy(belief, seen, errors);
  const widened = errors.map((row, i) =>
    row.map((value, j) => {
      if (i !== j) return value;
      const z = first.z[i]!;
      const sd = Math.abs(seen[i]!.residual / (z === 0 ? 1 : z)) || Math.sqrt(value);
      const good = (GOOD * normalDensity(z)) / sd;
      const bad = ((1 - GOOD) * normalDensity(seen[i]!.residual / BAD_SD)) / BAD_SD;
      const chance = good / (good + bad);
      return value + (chance > 0.999 ? 0 : Math.min(4, (sd * sd * (1 - chance)) / Math.max(1e-3, chance)));
    }),
  );
  const { belief: after, lnEvidence: more } = seenBy(belief, seen, widened);
  return { lane: { belief: after, lnEvidence: lnEvidence + more }, z: first.z };
}

/** What a reading alone says of the membrane, with what is believed of the rest. */
function alone(
  { seen }: UnitPoint,
  { present, water, salt, errors, base, factors }: Expectation,
): Pick<FilteredPoint, 'lnWater' | 'lnSalt'> {
  const read = (of: Observed, slopes: readonly number[], expected: number): Estimate | null => {
    const k = present.indexOf(of);
    if (k < 0 || Math.abs(slopes[k]!) < LEAST_SLOPE) return null;
    return { value: expected + (seen[of]!.value - shown(base, of)) / slopes[k]!, sd: Math.sqrt(errors[k]![k]!) / Math.abs(slopes[k]!) };
  };
  return { lnWater: read('lnProduct', water, factors.lnWater), lnSalt: read('lnPassage', salt, factors.lnSalt) };
}
/** A figure that hardly goes with a factor tells nothing of it. */
const LEAST_SLOPE = 0.05;

/** Cumulative sums of the two series a membrane is told by. */
interface Both {
  readonly product: Sums;
  readonly passage: Sums;
}
const NOTHING: Both = { product: NO_SUMS, passage: NO_SUMS };
/** Readings a unit is learned from before it is watched. */
const LEARNED_FROM = 3;

function bothSummed(before: Both, z: readonly (number | null)[], at: number): Both {
  const one = (sums: Sums, value: number | null): Sums =>
    value === null || at < LEARNED_FROM ? sums : summed(sums, Math.max(-CUSUM.most, Math.min(CUSUM.most, value)), at);
  return { product: one(before.product, z[0]!), passage: one(before.passage, z[2]!) };
}

/** The series that left its way at a reading; where it was loosened already, another jump would tell nothing new. */
function alarmIn(sums: Both, at: number, jumps: readonly Jump[]): (Alarm & { readonly of: Jump['of'] }) | null {
  for (const of of ['passage', 'product'] as const) {
    const found = alarmOf(sums[of], at);
    if (found && !jumps.some((jump) => jump.of === of && jump.seenAt === at)) return { of, ...found };
  }
  return null;
}

/** The filtered points in the light of all that came later. */
function smoothed(
  kept: readonly Omit<FilteredPoint, 'smoothed'>[],
  points: readonly UnitPoint[],
  works: readonly UnitWork[],
): FilteredPoint[] {
  const out: FilteredPoint[] = new Array<FilteredPoint>(kept.length);
  for (let i = kept.length - 1; i >= 0; i--) {
    const here = kept[i]!;
    const next = out[i + 1];
    const [fromMs, toMs] = [points[i]!.ms, points[i + 1]?.ms ?? points[i]!.ms];
    const step = stepOf((toMs - fromMs) / DAY_MS / DAYS_PER_YEAR);
    // Work between two readings cuts what was set anew there off from what came later.
    for (const { what } of works.filter(({ ms }) => ms > fromMs && ms <= toMs))
      for (const at of what === 'filters' ? [AT.filter, AT.filterSlope] : what === 'restrictor' ? [AT.restrictor] : [])
        step[at] = step[at]!.map((_, j) => (what === 'restrictor' && j === AT.restrictor0 ? 1 : 0));
    out[i] = { ...here, smoothed: next ? inLightOf(here.after, step, kept[i + 1]!.before, next.smoothed) : here.after };
  }
  return out;
}

/** A level against what new was, in a belief. */
export const against = (belief: Belief, now: number, new0: number): Estimate => combined(belief, new Map([[now, 1], [new0, -1]])); // prettier-ignore
