import type { LowestWater } from './consistency';
import { sequentialLeastSquares, type LinearRow } from './leastSquares';
import { MOVABLE, toMeq, type Movable } from './movable';

/** Which of all waters with the entered values is the likeliest, and the way to one where a search does not find it by itself. */

/**
 * Share of its kind's salts that no supply goes below (our judgement): sodium, chloride and the rest are never quite
 * nothing, and where no hardness was measured the calcium is what names the kind.
 */
const LEAST_SHARE = 0.15;
const LEAST_CALCIUM = 0.7;
/** Steps in which the way from the likeliest water to the reading is halved. */
const HALVINGS = 12;

/** How far calcium against magnesium may stray from what the kind of supply has, where neither was measured, either way (our judgement). */
const MOST_STRAY = 1.5;
/** The condition that brings calcium and magnesium back where they strayed too far; null where they did not. */
function asItsKind(e: readonly number[], reference: readonly number[], free: readonly boolean[]): LinearRow | null {
  const [ca, mg] = [MOVABLE.indexOf('Ca'), MOVABLE.indexOf('Mg')];
  if (!free[ca] || !free[mg]) return null;
  const usual = reference[mg]! / reference[ca]!;
  const [most, least] = [usual * MOST_STRAY, usual / MOST_STRAY];
  const held = e[mg]! > most * e[ca]! * (1 + 1e-9) ? most : e[mg]! < least * e[ca]! * (1 - 1e-9) ? least : null;
  return held === null ? null : { coefficients: MOVABLE.map((_, i) => (i === ca ? held : i === mg ? -1 : 0)), right: 0 };
}

/**
 * The likeliest water that keeps what names its kind: as near to the reading as that allows.
 *
 * @returns null where, even without the reading, no such water has the entered values
 */
export function nearest(
  start: readonly number[],
  reference: readonly number[],
  free: readonly boolean[],
  rows: readonly LinearRow[],
  bound: { readonly target: number; readonly of: (e: readonly number[]) => number } | null,
  hardnessKnown: boolean,
): number[] | null {
  const least = (key: Movable): number => (key === 'alkalinity' ? 0 : key === 'Ca' && !hardnessKnown ? LEAST_CALCIUM : LEAST_SHARE);
  const floor = MOVABLE.map((key, i) => (free[i] ? least(key) * reference[i]! : 0));
  const at = (target: number | null): number[] | null => {
    const conducting = target === null || !bound ? null : { target, of: bound.of };
    const found = sequentialLeastSquares(start, reference, free, rows, conducting, floor);
    const row = found && asItsKind(found, reference, free);
    return row ? sequentialLeastSquares(start, reference, free, [...rows, row], conducting, floor) : found;
  };
  const exact = at(bound?.target ?? null);
  if (exact || !bound) return exact;
  let best = at(null);
  if (!best) return null;
  let [near, far] = [bound.of(best), bound.target];
  for (let halving = 0; halving < HALVINGS; halving++) {
    const middle = (near + far) / 2;
    const found = at(middle);
    if (found) [best, near] = [found, middle];
    else far = middle;
  }
  return best;
}

/** Steps in which the conductivity is raised from the lowest there can be to the one measured. */
const CLIMB = 6;
/** How far it may be raised beyond: traces that the kind of supply is taken to hold need a little more. Within a meter's error. */
const RAISED = [1, 1.003, 1.01, 1.03];

/** The same from the water that conducts least: it exists whenever the test was passed, and the way up is smooth. */
export function fromLowest(
  lowest: LowestWater,
  reference: readonly number[],
  free: readonly boolean[],
  rows: readonly LinearRow[],
  { target, of }: { readonly target: number; readonly of: (e: readonly number[]) => number },
): number[] | null {
  const start = MOVABLE.map((key) => toMeq(key, key === 'alkalinity' ? lowest.alkalinityMgL : lowest.mgL[key]));
  for (const raised of RAISED) {
    const rise = target * raised - lowest.ec25UScm;
    let at = start;
    let e: number[] | null = null;
    for (let step = 1; step <= CLIMB; step++) {
      e = sequentialLeastSquares(at, reference, free, rows, { target: lowest.ec25UScm + (rise * step) / CLIMB, of });
      if (e) at = e;
    }
    if (e) return e;
  }
  return null;
}
