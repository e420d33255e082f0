import { dominates, inStep } from './front';

/** Which of several trains to take, and why: the cheapest within a band, then the sturdier one (science of options, 5). */

/** What is weighed of an admissible option; less is better but for the margin. */
export interface Weighed {
  readonly id: string;
  /** Cost a year, everything in. */
  readonly annualCost: number;
  /** Limits it comes near: told, not pruned. */
  readonly advisories: number;
  readonly visitsPerYear: number;
  /** What it makes on the coldest day at the end of its membrane, against the mean need. */
  readonly winterMargin: number;
}
/** What told the recommended one from the cheapest. */
export type Criterion = 'cost' | 'advisories' | 'visits' | 'margin' | 'order';
export interface Recommendation {
  readonly id: string;
  readonly cheapest: string;
  /** What it costs more than the cheapest, a year; the next one's, where it is the cheapest itself. */
  readonly moreAYear: number;
  readonly by: Criterion;
  /** All that cost about as much. */
  readonly tied: readonly string[];
}

/** Share by which the cheapest may be passed over for a sturdier one. */
export const TIE_BAND = 0.05;
/** More margin than this is none. */
export const MOST_MARGIN = 3;
const VISIT_STEP = 0.1;
const MARGIN_STEP = 0.01;

const marginOf = ({ winterMargin }: Weighed): number => inStep(Math.min(MOST_MARGIN, winterMargin), MARGIN_STEP);

/** Criteria in their order; the first that differs decides. */
const CRITERIA: readonly (readonly [Criterion, (option: Weighed) => number])[] = [
  ['advisories', ({ advisories }) => advisories],
  ['visits', ({ visitsPerYear }) => inStep(visitsPerYear, VISIT_STEP)],
  ['margin', (option) => -marginOf(option)],
  ['cost', ({ annualCost }) => annualCost],
];
const byId = (a: Weighed, b: Weighed): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
const decides = (a: Weighed, b: Weighed): Criterion => CRITERIA.find(([, of]) => of(a) !== of(b))?.[0] ?? 'order';
const better = (a: Weighed, b: Weighed): number => CRITERIA.reduce((sum, [, of]) => sum || of(a) - of(b), 0) || byId(a, b);

/** The one to take; null where there is none. The order in which options come does not matter. */
export function recommend(options: readonly Weighed[], tieBand = TIE_BAND): Recommendation | null {
  const byCost = [...options].sort((a, b) => a.annualCost - b.annualCost || byId(a, b));
  const cheapest = byCost[0];
  if (!cheapest) return null;
  const tied = byCost.filter(({ annualCost }) => annualCost <= cheapest.annualCost + tieBand * Math.abs(cheapest.annualCost));
  const best = [...tied].sort(better)[0]!;
  const next = byCost.find(({ id }) => id !== best.id);
  return {
    id: best.id,
    cheapest: cheapest.id,
    moreAYear: best.id === cheapest.id ? (next ? next.annualCost - best.annualCost : 0) : best.annualCost - cheapest.annualCost,
    by: best.id === cheapest.id ? 'cost' : decides(best, cheapest),
    tied: tied.map(({ id }) => id),
  };
}

/** Why another one is not the one to take. */
export type WhyNot =
  | { readonly kind: 'dominated'; readonly by: string; readonly differences: readonly number[] }
  | { readonly kind: 'dearer'; readonly aYear: number }
  | { readonly kind: 'second'; readonly by: Criterion }
  | { readonly kind: 'recommended' };

/**
 * Why not this one, of those that are admissible.
 *
 * @param vectors objectives of each option in whole steps, in the options' order: less is better
 */
export function whyNot(
  options: readonly Weighed[],
  vectors: readonly (readonly number[])[],
  id: string,
  tieBand = TIE_BAND,
): WhyNot | null {
  const found = recommend(options, tieBand);
  const place = options.findIndex((one) => one.id === id);
  if (!found || place < 0) return null;
  if (found.id === id) return { kind: 'recommended' };
  const own = vectors[place]!;
  const over = vectors.findIndex((other) => dominates(other, own));
  if (over >= 0) return { kind: 'dominated', by: options[over]!.id, differences: own.map((value, k) => value - vectors[over]![k]!) };
  const best = options.find((one) => one.id === found.id)!;
  if (!found.tied.includes(id)) return { kind: 'dearer', aYear: options[place]!.annualCost - best.annualCost };
  return { kind: 'second', by: decides(best, options[place]!) };
}
