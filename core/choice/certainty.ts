import type { System } from '../file';
import type { PriceList } from '../ledger';
import { ok, DAYS_PER_YEAR, type Outcome } from '../quantity';
import {
  beats,
  sampleInputs,
  spreadOf,
  strengthDoubt,
  surelyWord,
  USUAL_DOUBTS,
  USUAL_SAMPLING,
  type Doubts,
  type Sampling,
  type Spread,
  type UncertainInput,
} from '../year';
import type { Figures } from './option';

/** How sure a comparison is: the same doubts for every option (science of options, 9). */

/** What is not known of a system's options. */
export const doubtsOf = ({ source }: Pick<System, 'source'>): Doubts => ({ ...USUAL_DOUBTS, strength: strengthDoubt(source) });
const ORDER = ['use', 'strength', 'co2', 'resinCapacity', 'prices', 'prices', 'ageing'] as const;

export interface Compared {
  /** What each costs a year, in the options' order. */
  readonly spreads: readonly Spread[];
  /** Share of draws in which the first costs less than each. */
  readonly firstBeats: readonly number[];
  readonly word: readonly ReturnType<typeof surelyWord>[];
}

/** What a year of an option costs as it may truly be: more or less drawn, another tap, other prices. */
function costUnder({ lines, parts, resin, visitsPerYear }: Figures, { visit }: Pick<PriceList, 'visit'>, factors: Float64Array): number {
  const [use, strength, co2, capacity, prices, service, ageing] = Array.from(factors) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  // What no meter shows of a resin's load does not follow the strength.
  const unseen =
    resin && resin.throughput.limiting === 'anion' && resin.load.anionMeqL > 0 ? resin.load.weakAcidMeqL / resin.load.anionMeqL : 0;
  const load = ((1 - unseen) * strength + unseen * co2) / capacity;
  let visits = parts.length > 0 ? 0 : visitsPerYear;
  let bought = 0;
  for (const { life, line, each } of parts) {
    const faster = use * (line === 'resin' ? load : line === 'cartridges' || line === 'salt' ? strength : 1);
    const byLitres = life.everyL !== null && life.litresPerDay > 0 ? life.everyL / (life.litresPerDay * faster) : Infinity;
    const byDays = (life.everyDays ?? Infinity) / (line === 'membrane' ? ageing : line === 'salt' ? faster : 1);
    const days = Math.min(byLitres, byDays);
    if (!Number.isFinite(days)) continue;
    if (life.brings) visits = Math.max(visits, DAYS_PER_YEAR / days);
    bought += (DAYS_PER_YEAR / days) * each * prices;
  }
  // A set that is bought whole has its parts as one amount.
  if (parts.length === 0) bought = (lines.prefilters ?? 0) * prices;
  const runs = ((lines.water ?? 0) + (lines.sewer ?? 0) + (lines.energy ?? 0)) * use * service;
  return (lines.capital ?? 0) + bought + runs + visits * visit;
}

/** Compares options under the same doubts; the first against each. */
export function compareUnderDoubt(
  options: readonly Figures[],
  prices: Pick<PriceList, 'visit'>,
  doubts: Doubts,
  sampling: Sampling = USUAL_SAMPLING,
): Outcome<Compared> {
  const inputs: UncertainInput[] = ORDER.map((name) => ({ value: 1, sd: doubts[name], shape: 'lognormal' }));
  const draws = sampleInputs(inputs, sampling);
  if (!draws.ok) return draws;
  const costs = options.map(() => new Float64Array(draws.value.length));
  draws.value.forEach((factors, i) => options.forEach((one, k) => (costs[k]![i] = costUnder(one, prices, factors))));
  const firstBeats = costs.map((cost) => beats(costs[0]!, cost));
  return ok({ spreads: costs.map((cost) => spreadOf(cost, sampling.replicates)), firstBeats, word: firstBeats.map(surelyWord) });
}
