import type { Demand, Goal } from './schema';
import { findRoot } from '../numeric';

export const HOURS_PER_WEEK = 168;

/** What is taken at once: so many barrels of so much. */
export const batchL = ({ count, litres }: Demand['batches'][number]): number => count * litres;

/** A need a day, L, in what it is spoken of by: litres an hour, a day or a week, or cups. */
export const spokenNeed = ({ per, hoursPerDay, cupL }: Demand, litresPerDay: number): number =>
  per === 'week' ? 7 * litresPerDay : per === 'hour' ? litresPerDay / hoursPerDay : per === 'cups' ? litresPerDay / cupL : litresPerDay;
/** Litres a day behind a need as it is spoken of. */
export const needLPerDay = ({ per, hoursPerDay, cupL }: Demand, spoken: number): number =>
  per === 'week' ? spoken / 7 : per === 'hour' ? spoken * hoursPerDay : per === 'cups' ? spoken * cupL : spoken;

/** Litres an hour while all that may run at once does; null where nobody listed any. */
export const drawnAtOnceLPerH = ({ draws }: Demand): number | null =>
  draws.length > 0 ? draws.reduce((sum, { lPerH }) => sum + lPerH, 0) : null;

/** Litres drawn evenly within each hour of a week, Monday 00:00 first. */
export function hourlyDrawL(demand: Demand): number[] {
  const sum = demand.hourShare.reduce((total, share) => total + share, 0);
  // A pattern of nothing but zeros says nothing: the day is spread evenly.
  const drawn: number[] = [];
  for (const litres of demand.dayL)
    for (let hour = 0; hour < 24; hour++) drawn.push(litres * (sum > 0 ? demand.hourShare[hour]! / sum : 1 / 24));
  return drawn;
}

/** Litres taken in each hour of a week, batches spread over their hour. */
export function hourlyNeedL(demand: Demand): number[] {
  const batches = batchesByHour(demand);
  return hourlyDrawL(demand).map((litres, hour) => litres + batches[hour]!);
}

/** Litres needed in a week, batches included. */
export function demandLPerWeek(demand: Demand): number {
  return demand.dayL.reduce((sum, litres) => sum + litres, 0) + demand.batches.reduce((sum, batch) => sum + batchL(batch), 0);
}

/** Litres needed a day on average: the least a unit must make. */
export const demandLPerDay = (demand: Demand): number => demandLPerWeek(demand) / 7;

/** The most that is taken at once: the largest batch, or the largest hour. */
export function largestDrawL(demand: Demand): number {
  return Math.max(0, ...demand.batches.map(batchL), ...hourlyDrawL(demand));
}

/**
 * A demand whose week comes to a total: what is taken at once stays as it is, what is drawn through the days takes the
 * rest in its own shape, evenly where it has none. Only a total below the batches makes them smaller.
 */
export function scaledDemand(demand: Demand, litresPerWeek: number): Demand {
  const batches = demand.batches.reduce((sum, batch) => sum + batchL(batch), 0);
  const drawn = demand.dayL.reduce((sum, litres) => sum + litres, 0);
  const rest = Math.max(0, litresPerWeek - batches);
  return {
    ...demand,
    dayL: demand.dayL.map((litres) => (drawn > 0 ? (litres * rest) / drawn : rest / 7)),
    batches:
      litresPerWeek < batches ? demand.batches.map((one) => ({ ...one, litres: (one.litres * litresPerWeek) / batches })) : demand.batches,
  };
}

/** What of the need the train has to make: tap that is blended back is not made. */
export function productDemand({ demand, prepare }: Pick<Goal, 'demand' | 'prepare'>): Demand {
  if (prepare.how !== 'blend') return demand;
  const made = 1 - prepare.tapShare;
  return {
    ...demand,
    dayL: demand.dayL.map((litres) => made * litres),
    batches: demand.batches.map((batch) => ({ ...batch, litres: made * batch.litres })),
  };
}

/** Litres of product a day on average. */
export const productLPerDay = (goal: Pick<Goal, 'demand' | 'prepare'>): number => demandLPerDay(productDemand(goal));

/** Batches at the start of each hour of the week, litres. */
function batchesByHour(demand: Demand): number[] {
  const at = new Array<number>(HOURS_PER_WEEK).fill(0);
  for (const batch of demand.batches) at[batch.weekday * 24 + batch.hour]! += batchL(batch);
  return at;
}

/** One week of what is missing from a full tank, from a given start; flows are even within an hour, batches sudden. */
function* missingThrough(demand: Demand, productionLPerH: number, start: number): Generator<{ hour: number; missingL: number }> {
  const draws = hourlyDrawL(demand);
  const batches = batchesByHour(demand);
  let missingL = start;
  for (let hour = 0; hour < HOURS_PER_WEEK; hour++) {
    if (batches[hour]! > 0) {
      missingL += batches[hour]!;
      yield { hour, missingL };
    }
    // The float stops production when full: nothing is ever missing below zero.
    missingL = Math.max(0, missingL + draws[hour]! - productionLPerH);
    yield { hour: hour + 1, missingL };
  }
}

/**
 * Smallest tank that never runs dry at a production that stops when the tank is full, L.
 *
 * Exact for the profile: what is missing changes linearly within an hour, so its peak stands at an hour's end or
 * behind a batch. A second week repeats the first once the mean draw is covered, so two weeks are enough.
 *
 * @returns null when less is made in a week than is drawn: no tank helps
 */
export function smallestTankL(demand: Demand, productionLPerDay: number): number | null {
  if (productionLPerDay * 7 < demandLPerWeek(demand) * (1 - 1e-12)) return null;
  let missing = 0;
  let most = 0;
  for (let week = 0; week < 2; week++) {
    for (const { missingL } of missingThrough(demand, productionLPerDay / 24, missing)) {
      most = Math.max(most, missingL);
      missing = missingL;
    }
  }
  return most;
}

/** Smallest production with which a tank never runs dry, L/day; null when the largest batch alone exceeds the tank. */
export function productionForTankLPerDay(demand: Demand, tankL: number): number | null {
  const mean = demandLPerDay(demand);
  const over = (perDay: number): number => (smallestTankL(demand, perDay) ?? Infinity) - tankL;
  if (over(mean) <= 0) return mean;
  const most = 24 * Math.max(...hourlyDrawL(demand), mean / 24);
  const ceiling = Math.max(most, ...batchesByHour(demand).map((litres) => litres * 24)) + 1;
  if (over(ceiling) > 0) return null;
  return findRoot((perDay) => over(perDay), mean, ceiling, 1e-6)?.x ?? null;
}

/** Level of a tank over a week that repeats, L; with the litres asked for and not there. */
export interface TankWeek {
  readonly points: readonly { readonly hour: number; readonly levelL: number }[];
  readonly lowestL: number;
  readonly shortL: number;
}

/** Follows a tank through the steady week: full when it can be, empty when more is drawn than it holds. */
export function tankWeek(demand: Demand, productionLPerDay: number, tankL: number): TankWeek {
  const draws = hourlyDrawL(demand);
  const batches = batchesByHour(demand);
  const perHour = productionLPerDay / 24;
  let levelL = tankL;
  let result: TankWeek = { points: [], lowestL: tankL, shortL: 0 };
  // The first week finds the level from which the week repeats; a tank that only empties needs a few.
  for (let week = 0; week < 6; week++) {
    const points: { hour: number; levelL: number }[] = [{ hour: 0, levelL }];
    let shortL = 0;
    const take = (litres: number): void => {
      shortL += Math.max(0, litres - levelL);
      levelL = Math.max(0, levelL - litres);
    };
    for (let hour = 0; hour < HOURS_PER_WEEK; hour++) {
      if (batches[hour]! > 0) {
        take(batches[hour]!);
        points.push({ hour, levelL });
      }
      const change = perHour - draws[hour]!;
      if (change < 0) take(-change);
      else levelL = Math.min(tankL, levelL + change);
      points.push({ hour: hour + 1, levelL });
    }
    result = { points, lowestL: Math.min(...points.map((point) => point.levelL)), shortL };
    if (Math.abs(levelL - points[0]!.levelL) < 1e-9) break;
  }
  return result;
}

/** Hours to fill a volume; null when nothing is made. */
export const fillTimeH = (volumeL: number, productionLPerDay: number): number | null =>
  productionLPerDay > 0 ? (24 * volumeL) / productionLPerDay : null;

/** An even demand of so many litres a day, and no batches. */
export const evenDemand = (litresPerDay: number, per: Demand['per']): Demand => ({
  per,
  dayL: new Array<number>(7).fill(litresPerDay),
  hourShare: new Array<number>(24).fill(1),
  ...USUALLY_COUNTED,
  batches: [],
  draws: [],
  season: null,
});
/** Hours a day and litres a cup where nobody has said (common practice: a working day, a cup of 150 mL). */
const USUALLY_COUNTED = { hoursPerDay: 8, cupL: 0.15 } as const;
