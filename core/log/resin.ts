import { DAY_MS } from '../quantity';
import {
  bedCapacityEq,
  beforeBed,
  firstThrough,
  forecastCartridge,
  ionicLoad,
  loadSd,
  priorCapacity,
  updateCapacity,
  usedAtGoal,
  type Band,
  type CapacityBelief,
  type CartridgeForecast,
} from '../exchange';
import { stoodBefore, type Cartridge, type Reading, type System } from '../file';
import { type StageOf, stageBed } from '../stage';
import { hourlyNeedL, productDemand, productLPerDay } from '../goal';
import type { SolvedTrain } from '../train';
import { strengthOf } from '../advice';
import { changedInTurn } from '../life';
import { inOrder, probeEc25, probeRoles } from './series';
import { daysByWeek } from './dates';
import { countedUp, litresSince, meterFilled } from './volume';

/** Window over which the present rate is read, and the least it needs (our defaults). */
const RATE_DAYS = 28;
const RATE_LEAST_DAYS = 7;
const RATE_LEAST_READINGS = 3;

/** What the first resin had taken up at one reading. */
export interface ResinPoint {
  readonly at: string;
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
  /** Share of the capacity left, of the side that has less. */
  readonly remaining: Band;
}

/** The first resin of a train as the log sees it. */
export interface ResinTracking {
  readonly stageId: string;
  readonly name: string;
  readonly fittedAt: string;
  readonly points: readonly ResinPoint[];
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
  readonly limiting: 'cation' | 'anion';
  /** The ion that side will most likely let through first, in a word; null for a water that brings it nothing. */
  readonly firstIon: string | null;
  readonly capacityEq: number;
  /** Cartridges before this one that speak for its capacity, and how sure it is. */
  readonly learnedFrom: number;
  readonly capacitySd: number;
  readonly remaining: Band;
  readonly daysLeft: Band | null;
  readonly ratePerDayEq: number;
  /** Whether litres came from the meter, from the design use, or from both. */
  readonly volumeFrom: 'meter' | 'design' | 'both';
  readonly rateFrom: 'log' | 'design';
  /** Longest time between two readings, days. */
  readonly longestGapDays: number;
}

interface Slopes {
  /** Equivalents of cations per litre and µS/cm of the water before the resin. */
  readonly meqPerUScm: number;
  /** Carbon dioxide and silica a litre brings whatever the meter shows, meq. */
  readonly unseenMeqL: number;
  readonly modelledEc25: number;
}

/** How the modelled water before the resin turns conductivity into load. */
function loadSlopes(solved: SolvedTrain): Slopes | null {
  const resin = solved.resins[0];
  if (!resin) return null;
  const load = ionicLoad(resin.feed);
  const at = solved.stations.findIndex((station) => station.after === resin.stageId);
  const before = solved.stations[at - 1];
  if (!before || before.state.ec25UScm <= 0) return null;
  return {
    meqPerUScm: load.cationMeqL / before.state.ec25UScm,
    unseenMeqL: load.weakAcidMeqL,
    modelledEc25: before.state.ec25UScm,
  };
}

/**
 * Follows the first resin cartridge through the log: equivalents taken up between readings, capacity as a
 * belief, what is left and when it ends.
 *
 * Carbon dioxide comes from the modelled feed, not from the meter, which cannot see it.
 *
 * @param solved the train as it stands now
 * @param now instant to which use since the last reading is carried on
 * @returns null without a resin, or when neither a date nor a reading says since when it stands
 */
export function trackResin(system: System, readings: readonly Reading[], solved: SolvedTrain, now: string): ResinTracking | null {
  const stage = system.train.stages.find((candidate): candidate is StageOf<'resin'> => candidate.kind === 'resin');
  const state = solved.resins[0];
  const slopes = loadSlopes(solved);
  if (!stage || !state || state.stageId !== stage.id || !slopes) return null;
  const all = meterFilled(countedUp(inOrder(readings), system.train.meter));
  // Of a bed that was there before, nobody knows since when, a reading says nothing of what it has taken already.
  const first = stoodBefore(system) ? null : (all[0]?.at ?? null);
  const fittedAt = stage.fittedOn === null ? first : `${stage.fittedOn}T00:00:00Z`;
  if (fittedAt === null) return null;
  const since = all.filter((reading) => Date.parse(reading.at) >= Date.parse(fittedAt));

  const beforeResin = probeRoles(system).beforeResin;
  const ecOf = (reading: Reading): number | null => (beforeResin ? probeEc25(reading, beforeResin.id, system.instruments) : null);
  const design = productLPerDay(system.goal);
  const capacity = bedCapacityEq(stageBed(stage));
  const meets = beforeBed(state.feed, slopes.modelledEc25, ionicLoad(state.feed));
  const goalUScm = strengthOf(system, solved)?.highUScm ?? null;
  // With another like it behind, a bed is wholly used before it is changed; alone it goes when the product passes the goal.
  const usedWhenChanged = (side: 'cation' | 'anion'): number =>
    changedInTurn(system.train.stages) ? 1 : usedAtGoal(side, state.utilisation[side].transferUnits, meets, goalUScm);
  /** Null for a side this resin does not take. */
  const believed = (side: 'cation' | 'anion'): CapacityBelief | null =>
    capacity[`${side}Eq`] > 0
      ? learned(
          priorCapacity(capacity[`${side}Eq`] * Math.max(0.01, usedWhenChanged(side))),
          system.cartridges.filter((old) => old.side === side && old.resinClass === stage.resinClass),
          stage.volumeL,
        )
      : null;
  const cationBelief = believed('cation');
  const anionBelief = believed('anion');

  const points: ResinPoint[] = [];
  let previous: Reading | null = all.findLast((reading) => Date.parse(reading.at) < Date.parse(fittedAt)) ?? null;
  let from = Date.parse(fittedAt);
  let totals: Totals = { litres: 0, cationEq: stage.carriedEq.cation, anionEq: stage.carriedEq.anion };
  let metered = 0;
  let designed = 0;
  let longestGapDays = 0;
  for (const reading of since) {
    const days = (Date.parse(reading.at) - from) / DAY_MS;
    const volume = litresSince(from, previous, reading, design);
    if (volume.litres > 0) {
      if (volume.metered) metered += 1;
      else designed += 1;
    }
    const here = ecOf(reading);
    const there = previous ? ecOf(previous) : here;
    const ec25 = here === null ? slopes.modelledEc25 : (here + (there ?? here)) / 2;
    totals = addLoad(totals, volume.litres, ec25, slopes);
    points.push({ at: reading.at, ...totals, remaining: leftOf(totals, cationBelief, anionBelief, points.length + 1) });
    longestGapDays = Math.max(longestGapDays, days);
    previous = reading;
    from = Date.parse(reading.at);
  }

  const newest = since.at(-1) ?? all.at(-1);
  const rate = presentRate(points, all, design, slopes, (newest && ecOf(newest)) ?? slopes.modelledEc25);
  // Use goes on after the last reading: carried to now at the present rate.
  const idleDays = Math.max(0, (Date.parse(now) - from) / DAY_MS);
  const cationEq = totals.cationEq + idleDays * rate.cationPerDay;
  const anionEq = totals.anionEq + idleDays * rate.anionPerDay;
  const sd = loadSd(points.length);
  const forecastOf = (belief: CapacityBelief | null, eq: number, perDay: number): CartridgeForecast | null =>
    belief && forecastCartridge(belief, eq, sd, perDay);
  const cation = forecastOf(cationBelief, cationEq, rate.cationPerDay);
  const anion = forecastOf(anionBelief, anionEq, rate.anionPerDay);
  const limiting = anion && (!cation || anion.remaining.p50 <= cation.remaining.p50) ? 'anion' : 'cation';
  const chosen = (limiting === 'anion' ? anion : cation)!;
  const need = hourlyNeedL(productDemand(system.goal));
  const belief = (limiting === 'anion' ? anionBelief : cationBelief)!;
  return {
    stageId: stage.id,
    name: stage.name,
    fittedAt,
    points,
    litres: totals.litres + idleDays * rate.litresPerDay,
    cationEq,
    anionEq,
    limiting,
    firstIon: firstThrough(state.feed, limiting),
    capacityEq: Math.exp(belief.lnMean),
    learnedFrom: system.cartridges.filter((old) => old.side === limiting && old.resinClass === stage.resinClass).length,
    capacitySd: belief.sd,
    remaining: chosen.remaining,
    daysLeft: chosen.daysLeft && {
      p10: daysByWeek(chosen.daysLeft.p10, need, now),
      p50: daysByWeek(chosen.daysLeft.p50, need, now),
      p90: daysByWeek(chosen.daysLeft.p90, need, now),
    },
    ratePerDayEq: limiting === 'anion' ? rate.anionPerDay : rate.cationPerDay,
    volumeFrom: metered > 0 && designed > 0 ? 'both' : metered > 0 ? 'meter' : 'design',
    rateFrom: rate.from,
    longestGapDays,
  };
}

/** What cartridges of the same kind at this site have told of its capacity, each taken at this one's volume. */
function learned(prior: CapacityBelief, before: readonly Cartridge[], volumeL: number): CapacityBelief {
  return before.reduce(
    (belief, old) =>
      updateCapacity(belief, { kind: old.ended, loadEq: (old.loadEq * volumeL) / old.volumeL, loadSd: loadSd(old.intervals) }),
    prior,
  );
}

interface Totals {
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
}

/** Adds an interval's load: the seen part by conductivity, the unseen part by volume alone. */
function addLoad(totals: Totals, litres: number, ec25: number, slopes: Slopes): Totals {
  const seenEq = (litres * slopes.meqPerUScm * ec25) / 1000;
  return {
    litres: totals.litres + litres,
    cationEq: totals.cationEq + seenEq,
    anionEq: totals.anionEq + seenEq + (litres * slopes.unseenMeqL) / 1000,
  };
}

/** What is left of the side that has less, as a band. */
function leftOf(totals: Totals, cation: CapacityBelief | null, anion: CapacityBelief | null, intervals: number): Band {
  const left = (belief: CapacityBelief | null, eq: number): Band =>
    belief ? forecastCartridge(belief, eq, loadSd(intervals), 0).remaining : { p10: 1, p50: 1, p90: 1 };
  const [a, b] = [left(cation, totals.cationEq), left(anion, totals.anionEq)];
  return a.p50 <= b.p50 ? a : b;
}

interface Rate {
  readonly litresPerDay: number;
  readonly cationPerDay: number;
  readonly anionPerDay: number;
  readonly from: 'log' | 'design';
}

/**
 * Use a day over the last four weeks of the log: by what this cartridge took up, or by the product's meter where it has
 * not stood so long; the design use where neither tells.
 */
function presentRate(points: readonly ResinPoint[], all: readonly Reading[], designLPerDay: number, slopes: Slopes, ec25: number): Rate {
  const last = points[points.length - 1];
  const recent = last ? points.filter((point) => Date.parse(point.at) >= Date.parse(last.at) - RATE_DAYS * DAY_MS) : [];
  const first = recent[0];
  const days = first && last ? (Date.parse(last.at) - Date.parse(first.at)) / DAY_MS : 0;
  if (first && last && recent.length >= RATE_LEAST_READINGS && days >= RATE_LEAST_DAYS)
    return {
      litresPerDay: (last.litres - first.litres) / days,
      cationPerDay: (last.cationEq - first.cationEq) / days,
      anionPerDay: (last.anionEq - first.anionEq) / days,
      from: 'log',
    };
  const metered = meteredPerDay(all);
  const perDay = addLoad({ litres: 0, cationEq: 0, anionEq: 0 }, metered ?? designLPerDay, ec25, slopes);
  return {
    litresPerDay: perDay.litres,
    cationPerDay: perDay.cationEq,
    anionPerDay: perDay.anionEq,
    from: metered === null ? 'design' : 'log',
  };
}

/** Litres a day by the product's meter over the last four weeks, or the last two readings where they lie farther apart. */
function meteredPerDay(all: readonly Reading[]): number | null {
  const metered = all.filter(({ meterL }) => meterL !== null);
  const last = metered.at(-1);
  if (!last) return null;
  const since = Date.parse(last.at) - RATE_DAYS * DAY_MS;
  const first = metered.find(({ at }) => Date.parse(at) >= since && at !== last.at) ?? metered.at(-2);
  const days = first ? (Date.parse(last.at) - Date.parse(first.at)) / DAY_MS : 0;
  const litres = first ? last.meterL! - first.meterL! : -1;
  return days >= RATE_LEAST_DAYS && litres >= 0 ? litres / days : null;
}
