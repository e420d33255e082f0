import { newDialShare, strengthOf } from '../advice';
import { allStages, type System } from '../file';
import { demandLPerDay, GOAL_ROWS, largestDrawL, productDemand, type StrengthLimit } from '../goal';
import { priceList, type PriceList } from '../ledger';
import { feedSeasons, type FeedSeasons } from '../life';
import { DAYS_PER_YEAR, fail, ok, type Outcome } from '../quantity';
import { newStage } from '../stage';
import { seasonSpan, solveTrain, tapWater } from '../train';
import { SEA_USCM, settleWater, strengthened, type CompletedWater, type Water } from '../water';
import type { Job } from './axes';
import { noRows, type Heads, type Rows } from './heads';
import { middlingBehind, spacesOf, type Kept, type Space } from './spaces';

/** What a system's options are held against: its job's spaces, its own water, goal, need, site and prices. */

/** What is drawn, and when it can be made. */
export interface Need {
  readonly litresPerYear: number;
  /** To be made on a day that something is drawn on. */
  readonly litresPerDay: number;
  readonly largestDrawL: number;
  /** Hours of a day it may run. */
  readonly hoursPerDay: number;
  /** Litres of tap that are put to the product where it is used. */
  readonly tapLPerYear: number;
}
export interface Bench {
  readonly system: System;
  readonly job: Job;
  readonly spaces: readonly Space[];
  /** By its space, what a middling tail takes of the product at a temperature: heads are solved against it. */
  readonly behindBarPerLPerH: ReadonlyMap<string, (temperatureC: number) => number>;
  /** The tap at its mean strength, and what of it is known. */
  readonly feed: Water;
  readonly tap: CompletedWater;
  readonly seasons: FeedSeasons;
  readonly need: Need;
  readonly prices: PriceList;
  /** What the goal allows the product's meter. */
  readonly strength: StrengthLimit | null;
  /** Changes of resin or cartridge a year that the job puts up with. */
  readonly mostChanges: number;
  /** What a year of a train is booked by, told apart: need and prices. */
  readonly booked: string;
  /** Heads solved so far on this water, and what was laid down. */
  readonly heads: Heads;
  readonly rows: Rows;
}

/** The job whose options serve a goal. */
export function jobOf({ goal, train }: Pick<System, 'goal' | 'train'>, ec25UScm: number): Job {
  if (goal.id === 'watermaker' || ec25UScm >= SEA_USCM) return 'watermaker';
  switch (GOAL_ROWS[goal.id].family) {
    case 'cleaning':
      return 'window';
    case 'laboratory':
      return 'laboratory';
    case 'beverage':
      return allStages(train).some(({ kind }) => kind === 'membrane') ? 'counter' : 'espresso';
    case 'drinking':
      return 'breeder';
    case 'own':
    case 'aquarium':
      return goal.id === 'softWaterBreeding' || goal.id === 'freshwaterCommunity' ? 'breeder' : 'marine';
  }
}

/** Changes of resin or cartridge a year a job puts up with (our choice). */
const MOST_CHANGES: Readonly<Record<Job, number>> = {
  marine: 26,
  breeder: 26,
  window: 60,
  resinAlone: 60,
  espresso: 12,
  counter: 12,
  laboratory: 26,
  watermaker: 26,
};

export const keptOf = ({ kept }: System['choice']): Kept => Object.fromEntries(kept.map(({ axis, values }) => [axis, values]));

/** What is wrong with what was entered for the comparison; null where nothing is. */
function settingsIssue({ choice, prices }: Pick<System, 'choice' | 'prices'>): Outcome<never> | null {
  if (!(choice.horizonYears >= 0.25 && choice.horizonYears <= 30))
    return fail('horizonYears', choice.horizonYears, '0.25 to 30', `Years to count is ${choice.horizonYears}; accepted is 0.25 to 30.`);
  if (!(choice.rate >= 0 && choice.rate <= 0.3))
    return fail('discountRate', choice.rate, '0 to 0.3', `The interest a year is ${choice.rate}; accepted is 0 to 0.3.`);
  const amounts: (readonly [string, number])[] = [
    ...Object.entries(prices).flatMap(([name, value]) => (typeof value === 'number' ? [[`prices.${name}`, value] as const] : [])),
    ...choice.prices.map(({ part, each }) => [`prices.${part}`, each] as const),
    ['visitCost', choice.visitCost],
  ];
  const bad = amounts.find(([, value]) => !(value >= 0 && Number.isFinite(value)));
  return bad ? fail(bad[0], bad[1], '0 or more', `The price ${bad[0]} is ${bad[1]}; accepted is 0 or more.`) : null;
}

/**
 * Lays the bench for a system's options.
 *
 * @param heads found so far on the same water and season, by whoever keeps them
 */
export function benchOf(system: System, heads: Heads = new Map()): Outcome<Bench> {
  const tap = tapWater(system.source, system.instruments);
  if (!tap.ok) return tap;
  const state = settleWater(tap.value.water);
  if (!state.ok) return state;
  const wrong = settingsIssue(system);
  if (wrong) return wrong;
  const demand = productDemand(system.goal);
  const perDay = demandLPerDay(demand);
  if (!(perDay > 0))
    return fail('demand', perDay, 'above 0', 'Nothing is drawn: enter what is needed a day in Goal before trains are compared.');
  const job = jobOf(system, state.value.ec25UScm);
  const seasons = feedSeasons(seasonSpan(system.source, system.instruments), state.value.ec25UScm);
  const days = demand.dayL.filter((one) => one > 0).length;
  const { choice } = system;
  const today = solveTrain(system.train, system.source, tap.value.water);
  const need: Need = {
    litresPerYear: perDay * DAYS_PER_YEAR,
    // A week's work is made on the days something is drawn on, where there are such days.
    litresPerDay: days > 0 && demand.batches.length === 0 ? (7 * perDay) / days : perDay,
    largestDrawL: largestDrawL(demand),
    hoursPerDay: choice.hoursPerDay,
    tapLPerYear: (demandLPerDay(system.goal.demand) - perDay) * DAYS_PER_YEAR,
  };
  const spaces = spacesOf(
    job,
    {
      bypass: job === 'espresso' || job === 'counter' ? bypassOf(system, tap.value) : 0,
      loops: system.train.loop !== null,
    },
    keptOf(choice),
  );
  return ok({
    system,
    job,
    feed: tap.value.water,
    tap: tap.value,
    seasons,
    heads,
    rows: noRows(),
    spaces,
    behindBarPerLPerH: new Map(spaces.map((space) => [space.id, middlingBehind(space)])),
    need,
    booked: bookedBy(need, system),
    prices: priceList(system),
    strength: today.ok ? strengthOf(system, today.value) : null,
    mostChanges: MOST_CHANGES[job],
  });
}

/** What a year of a train is booked by, as a key. */
const bookedBy = (need: Need, { prices, choice }: System): string =>
  JSON.stringify([need, prices, choice.prices, choice.visitCost, choice.wasteUsedShare]);

/** The bench where so many times as much is drawn; heads of the same water are known. */
export function drawingMore(bench: Bench, times: number): Bench {
  const { litresPerYear, litresPerDay, largestDrawL, hoursPerDay, tapLPerYear } = bench.need;
  const need: Need = {
    litresPerYear: times * litresPerYear,
    litresPerDay: times * litresPerDay,
    largestDrawL: times * largestDrawL,
    hoursPerDay,
    tapLPerYear: times * tapLPerYear,
  };
  return { ...bench, need, booked: bookedBy(need, bench.system) };
}
/** The bench on a tap so many times as strong: its heads are solved anew. */
export const onStronger = (bench: Bench, times: number): Bench => ({ ...bench, feed: strengthened(bench.feed, times), heads: new Map() });

/** Share led past a new cartridge on this tap, so that the goal stands. */
const bypassOf = (system: System, tap: CompletedWater): number =>
  newDialShare(system, [newStage('decarboniser', 'decarboniser')], 'decarboniser', tap)?.share ?? 0;

/** The spaces of a system whole, for naming and narrowing what is tried; none where its water cannot be told. */
export function spacesOfSystem(system: System): readonly Space[] {
  const laid = benchOf({ ...system, choice: { ...system.choice, kept: [] } });
  return laid.ok ? laid.value.spaces : [];
}
