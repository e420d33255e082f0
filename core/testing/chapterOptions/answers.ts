import { agedBy, yearsUntilSpent, type FoulingFactors, type YearlyAgeing } from '../../membrane';
import { chebyshevTable } from '../../numeric';
import { membraneKey, type PlannedMembrane } from './plan';

/** What the membrane part of a train does, asked as seldom as the judgement needs (science of options, 2.3 and 3). */

/** One point at which it runs. */
export interface MembraneAnswer {
  readonly productLPerH: number;
  readonly feedLPerH: number;
  /** Least that leaves any element, L/h. */
  readonly concentrateLPerH: number;
  /** Strength of what it makes, as a meter at factor 0.5 shows it. */
  readonly ppm: number;
  /** What a litre of it uses up of a resin's sides, meq/L. */
  readonly cationMeqL: number;
  readonly anionMeqL: number;
  /** Of the anion load, what a degasser would take out: carbon dioxide. */
  readonly gasMeqL: number;
  readonly alkalinityMgL: number;
}
export interface MembraneAt {
  readonly temperatureC: number;
  readonly factors: FoulingFactors;
  /** Strength of the tap against its mean. */
  readonly strength: number;
}
/** Solves a membrane part at a point; null where it makes nothing. */
export type Physics = (membrane: PlannedMembrane, at: MembraneAt) => MembraneAnswer | null;

/** What a year takes of a membrane, and when it is changed at the latest. */
export interface Ageing extends YearlyAgeing {
  readonly mostYears: number;
}
export const lifeYears = (ageing: Ageing): number => Math.min(ageing.mostYears, yearsUntilSpent(ageing));

/** Temperature of the feed over the year. */
export interface TemperatureYear {
  readonly mean: number;
  readonly amplitude: number;
}
/** What stands of a membrane part over a year with it: hours and mean loads of a litre at half its life. */
export interface YearOfAnswers {
  /** Mean of hours a litre takes. */
  readonly hoursPerL: number;
  readonly feedPerL: number;
  readonly ppm: number;
  readonly cationMeqL: number;
  readonly anionMeqL: number;
  readonly gasMeqL: number;
}

/** Twelve phases are exact to rounding for a smooth year. */
const PHASES = 12;
/** Nodes of temperature: more where the range crosses the kink of the water factor. */
const NODES = 3;
const NODES_ACROSS_KINK = 5;
const KINK_C = 25;

/** Means over a year: smooth figures laid down at a few temperatures by their logarithms, and read at twelve phases. */
export function yearOf(
  physics: Physics,
  membrane: PlannedMembrane,
  year: TemperatureYear,
  ageing: Ageing,
  strength = 1,
): YearOfAnswers | null {
  const factors = agedBy(ageing, lifeYears(ageing) / 2);
  const [low, high] = [year.mean - year.amplitude, year.mean + year.amplitude];
  const count = year.amplitude === 0 ? 1 : low < KINK_C && high > KINK_C ? NODES_ACROSS_KINK : NODES;
  const found: MembraneAnswer[] = [];
  const temperatures = Array.from({ length: count }, (_, k) =>
    count === 1 ? year.mean : year.mean - year.amplitude * Math.cos((k * Math.PI) / (count - 1)),
  );
  for (const temperatureC of temperatures) {
    const answer = physics(membrane, { temperatureC, factors, strength });
    if (!answer) return null;
    found.push(answer);
  }
  const mean = { hoursPerL: 0, feedPerL: 0, ppm: 0, cationMeqL: 0, anionMeqL: 0, gasMeqL: 0 };
  const figures: Readonly<Record<keyof YearOfAnswers, (answer: MembraneAnswer) => number>> = {
    hoursPerL: ({ productLPerH }) => 1 / productLPerH,
    feedPerL: ({ feedLPerH, productLPerH }) => feedLPerH / productLPerH,
    ppm: ({ ppm }) => ppm,
    cationMeqL: ({ cationMeqL }) => cationMeqL,
    anionMeqL: ({ anionMeqL }) => anionMeqL,
    gasMeqL: ({ gasMeqL }) => gasMeqL,
  };
  for (const key of Object.keys(figures) as (keyof YearOfAnswers)[]) {
    // A figure that may be none is no logarithm.
    const values = found.map(figures[key]);
    const byLog = values.every((value) => value > 0);
    const laid = byLog ? values.map(Math.log) : values;
    const table = count === 1 ? () => laid[0]! : chebyshevTable(low, high, count, (x) => laid[nearestPlace(temperatures, x)]!);
    for (let k = 0; k < PHASES; k++) {
      const value = table(year.mean + year.amplitude * Math.cos((2 * Math.PI * k) / PHASES));
      mean[key] += (byLog ? Math.exp(value) : value) / PHASES;
    }
  }
  return mean;
}
const nearestPlace = (values: readonly number[], x: number): number =>
  values.reduce((best, value, i) => (Math.abs(value - x) < Math.abs(values[best]! - x) ? i : best), 0);

/** What of a membrane part is asked for, each solved when it is first wanted. */
export interface Answers {
  coldOld(): MembraneAnswer | null;
  coldNew(): MembraneAnswer | null;
  warmNew(): MembraneAnswer | null;
  warmOld(): MembraneAnswer | null;
  year(): YearOfAnswers | null;
}
/** Answers of every membrane part asked for so far. */
export type Asked = (membrane: PlannedMembrane) => Answers;

/** Worked out when it is first asked for. */
export function once<T>(of: () => T): () => T {
  let found: { readonly value: T } | null = null;
  return () => (found ??= { value: of() }).value;
}

/**
 * Answers of each membrane part, made once: options that differ behind the membrane share them.
 *
 * @param known kept between searches on the same water; filled as it goes
 */
export function remembered(make: Asked, known = new Map<string, Answers>()): Asked {
  // Rules ask of the same part several times over: its key is written once.
  const byPart = new WeakMap<PlannedMembrane, Answers>();
  return (membrane) => {
    const own = byPart.get(membrane);
    if (own) return own;
    const key = membraneKey(membrane);
    const answers = known.get(key) ?? make(membrane);
    known.set(key, answers);
    byPart.set(membrane, answers);
    return answers;
  };
}

/** Asks of membrane parts over a year, new and old. */
export function askingOf(physics: Physics, year: TemperatureYear, ageing: Ageing, strength = 1, known?: Map<string, Answers>): Asked {
  const [cold, warm] = [year.mean - year.amplitude, year.mean + year.amplitude];
  const old = agedBy(ageing, lifeYears(ageing));
  const fresh = agedBy(ageing, 0);
  return remembered((membrane) => {
    const at = (temperatureC: number, factors: FoulingFactors): (() => MembraneAnswer | null) =>
      once(() => physics(membrane, { temperatureC, factors, strength }));
    return {
      coldOld: at(cold, old),
      coldNew: at(cold, fresh),
      warmNew: at(warm, fresh),
      warmOld: at(warm, old),
      year: once(() => yearOf(physics, membrane, year, ageing, strength)),
    };
  }, known);
}
