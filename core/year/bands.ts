import { DAYS_PER_YEAR, ok, type Outcome } from '../quantity';
import { sooner } from './ahead';
import { simulateYears, type YearPlant, type YearPolicy, type YearRun } from './simulate';
import {
  quantileOf,
  sampleInputs,
  spreadOf,
  USUAL_DOUBTS,
  type Doubts,
  type Sampling,
  type Spread,
  type UncertainInput,
} from './uncertain';

/** How sure a year is: run again and again with what is not known of it, every run of the same draws (science of options, 9). */

/** Doubts as shares, and degrees. */
export interface YearDoubts extends Doubts {
  readonly temperatureC: number;
}
export const USUAL_YEAR_DOUBTS: YearDoubts = { ...USUAL_DOUBTS, temperatureC: 1 };
/** Two hundred runs: enough for a band, few enough to be waited for. */
export const YEAR_SAMPLING: Sampling = { seed: 1, points: 64, replicates: 4 };

/** When the changes of a part fall, in eight of ten runs; a change fewer than half of the runs see is none. */
export interface DateBand {
  readonly part: string;
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}
export interface YearBands {
  readonly runs: number;
  readonly cost: Spread;
  readonly visits: Spread;
  readonly unmetL: Spread;
  readonly worstPpm: Spread;
  readonly dates: readonly DateBand[];
}

/** The plant as it may truly be. */
function drawn(plant: YearPlant, factors: ArrayLike<number>): YearPlant {
  const [use, capacity, strength, co2, prices, ageing, warmer] = Array.from(factors) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const ageToday = plant.membraneAgedDays / DAYS_PER_YEAR;
  return {
    ...plant,
    // What today's membrane has behind it is known; only its years to come pass faster or slower.
    response: (temperatureC, age, s, isFirst) =>
      plant.response(temperatureC + warmer, isFirst ? ageToday + (age - ageToday) * ageing : age * ageing, s, isFirst),
    strength: { ...plant.strength, mean: plant.strength.mean * strength, amplitude: plant.strength.amplitude * strength },
    gasMeqL: plant.gasMeqL * co2,
    demand: (day) => plant.demand(day).map((litres) => litres * use),
    // By the day: the hours of a tank add nothing to a band.
    tank: null,
    resin: plant.resin && {
      ...sooner(plant.resin, (use * strength) / capacity),
      capacityMeq: plant.resin.capacityMeq * capacity,
      cost: plant.resin.cost * prices,
      ...(plant.resin.leadMeq === undefined ? {} : { leadMeq: plant.resin.leadMeq * capacity }),
    },
    parts: plant.parts.map((part) => ({
      ...sooner(part, part.id === plant.membranePartId ? ageing : part.limits.some(({ unit }) => unit !== 'days') ? use : 1),
      cost: part.cost * prices,
    })),
    prices: {
      ...plant.prices,
      waterPerM3: plant.prices.waterPerM3 * prices,
      sewerPerM3: plant.prices.sewerPerM3 * prices,
      energyPerKWh: plant.prices.energyPerKWh * prices,
    },
  };
}

/** Days each part is at its end, in their order: its own, whatever visit it is changed on. */
function datesOf({ events }: YearRun): Map<string, number[]> {
  const dates = new Map<string, number[]>();
  for (const { parts, due } of events) parts.forEach((part, i) => dates.set(part, [...(dates.get(part) ?? []), due[i]!]));
  return dates;
}

/** Runs the years again and again, yielding the share done. */
export function* yearBands(
  plant: YearPlant,
  days: number,
  policy: YearPolicy,
  doubts: YearDoubts = USUAL_YEAR_DOUBTS,
  sampling: Sampling = YEAR_SAMPLING,
): Generator<number, Outcome<YearBands>> {
  const share = (sd: number): UncertainInput => ({ value: 1, sd, shape: 'lognormal' });
  const inputs: UncertainInput[] = [
    share(doubts.use),
    share(doubts.resinCapacity),
    share(doubts.strength),
    share(doubts.co2),
    share(doubts.prices),
    share(doubts.ageing),
    { value: 0, sd: doubts.temperatureC, shape: 'normal' },
  ];
  const draws = sampleInputs(inputs, sampling);
  if (!draws.ok) return draws;
  const count = draws.value.length;
  const of = {
    cost: new Float64Array(count),
    visits: new Float64Array(count),
    unmetL: new Float64Array(count),
    worstPpm: new Float64Array(count),
  };
  const dates = new Map<string, number[][]>();
  for (let i = 0; i < count; i++) {
    const run = simulateYears(drawn(plant, draws.value[i]!), days, policy);
    if (!run.ok) return run;
    of.cost[i] = run.value.totalCost;
    of.visits[i] = run.value.visits;
    // A day on which more is drawn than could be made in it.
    of.unmetL[i] = run.value.madeL.reduce((sum, made, day) => sum + Math.max(0, made - run.value.couldMakeL[day]!), 0);
    of.worstPpm[i] = run.value.worstPpm;
    for (const [part, at] of datesOf(run.value)) {
      const known = dates.get(part) ?? [];
      at.forEach((day, k) => (known[k] ??= []).push(day));
      dates.set(part, known);
    }
    if (i % 8 === 0) yield i / count;
  }
  const bands: DateBand[] = [];
  for (const [part, changes] of dates)
    for (const seen of changes) {
      // A change some runs do not see within the years lies beyond their end: it counts as the last day.
      const all = Float64Array.from([...seen, ...new Array<number>(count - seen.length).fill(days)]).sort();
      const p50 = quantileOf(all, 0.5);
      if (p50 >= days) continue;
      bands.push({ part, p10: quantileOf(all, 0.1), p50, p90: quantileOf(all, 0.9) });
    }
  const spread = (values: Float64Array): Spread => spreadOf(values, sampling.replicates);
  return ok({
    runs: count,
    cost: spread(of.cost),
    visits: spread(of.visits),
    unmetL: spread(of.unmetL),
    worstPpm: spread(of.worstPpm),
    dates: bands,
  });
}
