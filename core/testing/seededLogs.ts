import { DAY_MS, DAYS_PER_YEAR } from '../quantity';
import { NOTHING_SAID, type Reading, type System } from '../file';
import { crossing, membraneTrend, OUTPUT_LIMITS, supplySteps, toldSteps, trackResin, unitAsRead, type MembraneTrend } from '../log';
import { simulatedLog, type LifeStory, type TrueState } from '../log/simulated';
import { FOUR_IN_FIVE_SD, seeded, type Seeded } from '../numeric';
import { systemFromTemplate } from '../template';
import { solveTrain, tapWater } from '../train';
import { value } from './close';
import { partChanged } from './written';

/** Logs whose truth is known, lived through with the solver, and what the log room makes of them. */

const KINDS = ['marineHousehold', 'marinePair', 'breeder', 'vanTank', 'skid', 'watermaker'] as const;

export interface SeededLog {
  readonly kind: (typeof KINDS)[number];
  readonly system: System;
  readonly readings: readonly Reading[];
  /** Instant up to which it is known. */
  readonly now: string;
  readonly years: number;
  readonly truth: {
    /** ln of the membrane's factors now against those at the first reading. */
    readonly water: number;
    readonly salt: number;
    readonly waterPerYear: number;
    /** Jump nobody wrote down, and its day; null where there is none. */
    readonly jump: { readonly day: number; readonly water: number; readonly salt: number } | null;
    readonly last: TrueState;
  };
}

/** Figures left out or spoilt as people do: a fifth is not read, one in fifty slips a digit, weeks are missed. */
function spoilt(readings: readonly Reading[], chance: Seeded): Reading[] {
  const gapFrom = chance.next() < 0.3 ? chance.between(0.2, 0.7) : 2;
  const maybe = (v: number | null): number | null => (chance.next() < 0.2 ? null : v);
  const slipped = (v: number): number => (chance.next() < 0.01 ? v * chance.one([10, 0.1]) : v);
  return readings.flatMap((reading, i) => {
    const along = i / readings.length;
    if (along > gapFrom && along < gapFrom + 0.1) return [];
    return [
      {
        ...reading,
        values: reading.values.filter(() => chance.next() > 0.1).map((one) => ({ ...one, shown: slipped(one.shown) })),
        pressureBar: maybe(reading.pressureBar),
        temperatureC: maybe(reading.temperatureC),
        productLPerH: reading.productLPerH === null ? null : slipped(reading.productLPerH),
        wasteLPerH: maybe(reading.wasteLPerH),
      },
    ];
  });
}

/** One log of a seed: a kind of system, a year or so, ageing, filters that clog and are changed, sometimes a jump nobody wrote down. */
export function seededLog(seed: number): SeededLog {
  const chance = seeded(seed);
  const kind = KINDS[seed % KINDS.length]!;
  const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: kind, at: '2025-01-01T00:00:00Z' });
  const days = chance.between(150, 500);
  const from = new Date(Date.parse('2025-01-10T08:00:00Z') + chance.between(0, 365) * DAY_MS).toISOString();
  const jump =
    chance.next() < 0.25
      ? { day: days * chance.between(0.4, 0.7), water: chance.one([-0.25, 0.15, 0]), salt: chance.one([0.5, 0.35]) }
      : null;
  // Its own chance: the logs of other seeds stay what they were.
  const drifting = seeded(seed + 90_000);
  const filterChanges = [100, 220, 340, 460].filter((day) => day < days);
  const story: LifeStory = {
    from,
    days,
    everyDays: chance.one([3, 7, 7, 14]),
    waterPerYear: -chance.between(0, 0.25),
    saltPerYear: chance.between(0, 0.35),
    jumps: jump ? [jump] : [],
    filterChanges,
    filterDays: chance.between(110, 300),
    // In a third of them the one meter that reads every probe drifts, up to a tenth a year.
    drift: seed % 3 === 0 ? Object.fromEntries(base.instruments.map(({ id }) => [id, drifting.between(-0.1, 0.1)])) : {},
    seed,
  };
  const log = value(simulatedLog(base, story));
  const filter = base.train.stages.find((stage) => 'loading' in stage)!;
  const at = (day: number): string => new Date(Date.parse(from) + day * DAY_MS).toISOString();
  const services = filterChanges.map((day, i) => partChanged(`f${i}`, filter, at(day)));
  const last = log.truth.at(-1)!;
  return {
    kind,
    system: { ...base, services },
    readings: spoilt(log.readings, chance),
    now: last.at,
    years: days / DAYS_PER_YEAR,
    truth: { water: Math.log(last.state.water), salt: Math.log(last.state.salt), waterPerYear: story.waterPerYear, jump, last: last.state },
  };
}

/** What the log room makes of a seeded log. */
export function trendOf({ system, readings, now }: Pick<SeededLog, 'system' | 'readings' | 'now'>): MembraneTrend {
  const feed = value(tapWater(system.source, system.instruments)).water;
  const unit = unitAsRead(system, readings, value(solveTrain(system.train, system.source, feed)));
  const trend = unit && membraneTrend(system, readings, value(unit), now);
  if (!trend) throw new Error('This log tells nothing of its membrane.');
  return trend;
}

/** How many seeded logs are told truly. */
export interface TruthTally {
  readonly logs: number;
  readonly waterInside: number;
  readonly waterOf: number;
  readonly saltInside: number;
  readonly saltOf: number;
  /** Steps told where there was none, and the years they were told in. */
  readonly falseAlarms: number;
  readonly years: number;
  /** Jumps that were set, and found within five weeks. */
  readonly jumps: number;
  readonly jumpsFound: number;
  /** Dates on which the output truly reaches its limit, and those within the forecast's 80 %. */
  readonly dates: number;
  readonly datesInside: number;
  /** Mean standard deviation told of the output, ln. */
  readonly meanSd: number;
}

const FOUND_DAYS = 35;

export function tally(seeds: readonly number[]): TruthTally {
  const all = {
    logs: 0,
    waterInside: 0,
    waterOf: 0,
    saltInside: 0,
    saltOf: 0,
    falseAlarms: 0,
    years: 0,
    jumps: 0,
    jumpsFound: 0,
    dates: 0,
    datesInside: 0,
    sd: 0,
  };
  for (const seed of seeds) {
    const log = seededLog(seed);
    const trend = trendOf(log);
    const { water, salt } = trend;
    all.logs += 1;
    all.years += log.years;
    const inside = (told: { value: number; sd: number }, truth: number): number =>
      Math.abs(told.value - truth) <= FOUR_IN_FIVE_SD * told.sd ? 1 : 0;
    if (water) {
      all.waterOf += 1;
      all.waterInside += inside(water.now, log.truth.water);
      all.sd += water.now.sd;
    }
    if (salt) {
      all.saltOf += 1;
      all.saltInside += inside(salt.now, log.truth.salt);
    }
    const { jump } = log.truth;
    const jumpMs = jump ? Date.parse(log.readings[0]!.at) + jump.day * DAY_MS : null;
    const steps = toldSteps(trend);
    const near = steps.filter(({ since }) => jumpMs !== null && Math.abs(Date.parse(since) - jumpMs) < FOUND_DAYS * DAY_MS);
    all.falseAlarms += steps.length - near.length;
    if (jump) {
      all.jumps += 1;
      if (near.length > 0) all.jumpsFound += 1;
    }
    // A date is forecast where the output will reach its limit and has not yet.
    const left = Math.log(OUTPUT_LIMITS.clean) - log.truth.water;
    const found =
      water && left < 0 && log.truth.waterPerYear < -0.04 ? crossing(water, Math.log(OUTPUT_LIMITS.clean), Date.parse(log.now)) : null;
    if (water && left < 0 && log.truth.waterPerYear < -0.04) {
      const day = (left / log.truth.waterPerYear) * DAYS_PER_YEAR;
      all.dates += 1;
      if (found && day >= found.p10 && day <= (found.p90 ?? Infinity)) all.datesInside += 1;
    }
  }
  const { sd, ...rest } = all;
  return { ...rest, meanSd: sd / Math.max(1, all.waterOf) };
}

/** How many forecasts of a resin's end hold, over cartridges whose end is known. */
export interface ResinTally {
  readonly cartridges: number;
  readonly inside: number;
}

/** Doubts a forecast admits to (exchange chapter, 6): the site's capacity, one bed about it, and the load that is counted. */
const SITE_SD = 0.25;
const BED_SD = 0.1;
const COUNT_SD = 0.1;

/**
 * Cartridges of a household, each with a capacity and a count as far off as the chapter says they are, used by a weekly
 * pattern with days that differ: forecast somewhere in their life, and followed to their end.
 */
export function resinTally(seeds: readonly number[]): ResinTally {
  const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2025-01-01T00:00:00Z' });
  const solved = value(solveTrain(base.train, base.source, value(tapWater(base.source, base.instruments)).water));
  const from = '2025-02-03T00:00:00Z';
  const fitted: System = {
    ...base,
    train: {
      ...base.train,
      stages: base.train.stages.map((stage) => (stage.kind === 'resin' ? { ...stage, fittedOn: from.slice(0, 10) } : stage)),
    },
  };
  const result = { cartridges: 0, inside: 0 };
  for (const seed of seeds) {
    const chance = seeded(seed);
    const off = (sd: number): number => Math.exp(sd * chance.normal());
    const perWeekday = [1, 1, 1, 1, 1, chance.between(1, 3), chance.between(0, 2)];
    const scale = chance.between(8, 25);
    const used = (day: number): number => scale * perWeekday[day % 7]! * off(0.3);
    const readings: Reading[] = [];
    let litres = 0;
    const read = (day: number): Reading => ({
      ...seededReading(fitted, new Date(Date.parse(from) + day * DAY_MS).toISOString(), chance),
      id: `r${day}`,
      meterL: litres,
    });
    const until = Math.round(chance.between(30, 160));
    for (let day = 0; day <= until; day++) {
      if (day % 7 === 0) readings.push(read(day));
      litres += used(day);
    }
    const now = new Date(Date.parse(from) + until * DAY_MS).toISOString();
    const tracking = trackResin(fitted, readings, solved, now);
    if (!tracking?.daysLeft) continue;
    const load = tracking.limiting === 'anion' ? tracking.anionEq : tracking.cationEq;
    const perLitre = load / Math.max(1, tracking.litres);
    // Its true end in the equivalents that are counted.
    const endEq = (tracking.capacityEq * off(SITE_SD) * off(BED_SD)) / off(COUNT_SD);
    if (endEq <= load) continue;
    let [left, day] = [endEq - load, 0];
    while (left > 0 && day < 5000) {
      left -= used(until + day) * perLitre;
      day += 1;
    }
    result.cartridges += 1;
    if (day >= tracking.daysLeft.p10 && day <= tracking.daysLeft.p90) result.inside += 1;
  }
  return result;
}

/** A plain reading of a household: steady but for its meter's scatter. */
function seededReading(system: System, at: string, chance: Seeded): Reading {
  return {
    id: '',
    systemId: system.id,
    at,
    values: system.train.probes.map(({ id, instrumentId }, i) => ({
      probeId: id,
      instrumentId,
      shown: Math.round([310, 6, 0][i]! * Math.exp(0.02 * chance.normal())),
    })),
    pressureBar: 4,
    temperatureC: 15,
    productLPerH: null,
    wasteLPerH: null,
    meterL: null,
    ...NOTHING_SAID,
  };
}

/** Troubles that are set into lives, and how many are told for what they are. */
export interface TroubleTally {
  readonly scaled: number;
  readonly scaledTold: number;
  readonly still: number;
  readonly stillCalledScaled: number;
  readonly oxidised: number;
  readonly oxidisedTold: number;
  readonly tapSteps: number;
  readonly tapStepsDated: number;
  readonly towns: number;
  readonly townsCalledSteps: number;
}
const TROUBLES = ['scale', 'none', 'oxidation', 'meter', 'supply', 'towns'] as const;
/** A trouble of the tap is dated within so many days: two readings. */
const DATED_DAYS = 14;

/** Lives of a household of a year, each with one trouble in its midst or none, its filters changed twice. */
export function troubleTally(seeds: readonly number[]): TroubleTally {
  const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2025-01-01T00:00:00Z' });
  const from = '2025-02-03T08:00:00Z';
  const result = {
    scaled: 0,
    scaledTold: 0,
    still: 0,
    stillCalledScaled: 0,
    oxidised: 0,
    oxidisedTold: 0,
    tapSteps: 0,
    tapStepsDated: 0,
    towns: 0,
    townsCalledSteps: 0,
  };
  for (const seed of seeds) {
    const chance = seeded(seed);
    const trouble = TROUBLES[seed % TROUBLES.length]!;
    const day = Math.round(chance.between(130, 230));
    const changed = [chance.between(90, 120), chance.between(220, 250)].map(Math.round);
    const story: LifeStory = {
      from,
      days: 364,
      everyDays: 7,
      waterPerYear: -chance.between(0.02, 0.15),
      saltPerYear: chance.between(0, 0.2),
      jumps: trouble === 'oxidation' ? [{ day, water: chance.between(0.05, 0.1), salt: chance.between(0.5, 0.9) }] : [],
      filterChanges: changed,
      filterDays: chance.between(150, 300),
      drift: {},
      seed,
      ...(trouble === 'scale' ? { restrictorPerYear: Math.log(chance.between(0.78, 0.86)) } : {}),
      ...(trouble === 'meter' ? { newMeter: { day, times: chance.one([1.28, 1.4, 0.78, 0.71]) } } : {}),
      ...(trouble === 'supply' ? { supplies: [{ day, times: chance.one([1.3, 1.5, 0.75, 0.66]) }] } : {}),
      ...(trouble === 'towns' ? { towns: { times: chance.between(1.7, 2.2), share: 0.4 } } : {}),
    };
    const { readings } = value(simulatedLog(base, story));
    const filter = base.train.stages.find((stage) => 'loading' in stage)!;
    const services = changed.map((at, i) =>
      partChanged(`f${i}`, filter, new Date(Date.parse(from) + (at - 1) * DAY_MS).toISOString(), { why: 'notSaid' }),
    );
    const system = { ...base, services };
    const now = readings.at(-1)!.at;
    const trend = trendOf({ system, readings, now });
    const steps = supplySteps(system, readings);
    const near = (at: string): boolean => Math.abs(Date.parse(at) - Date.parse(from) - day * DAY_MS) <= DATED_DAYS * DAY_MS;
    if (trouble === 'scale') {
      result.scaled += 1;
      if ((trend.restrictor?.scaling ?? 0) > 0.8) result.scaledTold += 1;
    }
    if (trouble === 'none') {
      result.still += 1;
      if ((trend.restrictor?.scaling ?? 0) > 0.8) result.stillCalledScaled += 1;
    }
    if (trouble === 'oxidation') {
      result.oxidised += 1;
      if (toldSteps(trend).some(({ since }) => near(since))) result.oxidisedTold += 1;
    }
    if (trouble === 'meter' || trouble === 'supply') {
      result.tapSteps += 1;
      if (steps.some(({ since }) => near(since))) result.tapStepsDated += 1;
    }
    if (trouble === 'towns') {
      result.towns += 1;
      if (steps.length > 0) result.townsCalledSteps += 1;
    }
  }
  return result;
}
