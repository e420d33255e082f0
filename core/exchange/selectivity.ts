import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { ANION_ROWS, CATION_ROWS, type AnionId, type CationId } from './ions';

/** One counter-ion in a water. */
export interface CounterIon {
  readonly valence: 1 | 2;
  /** Selectivity coefficient against any common reference. */
  readonly selectivity: number;
  /** Equivalent fraction in the water. */
  readonly fraction: number;
}

/** What a water at equilibrium with a resin says of each of its ions. */
export interface Separation {
  /** Separation factors against the monovalent reference ion. */
  readonly alpha: readonly number[];
  /** Equivalent fractions on the resin. */
  readonly resinFractions: readonly number[];
}

/**
 * Separation factors by mass action, many ions in one step: monovalent ones keep their selectivity, divalent ones gain
 * by dilution (q/C). Closed form, in the variant that does not cancel when little is divalent.
 *
 * @param reference selectivity of the ion the factors are against (sodium)
 * @param totalEqPerL all counter-ions of the water, eq/L
 * @param resinEqPerL capacity of the resin itself, eq/L
 * @returns an error for a water without any counter-ion
 */
export function separationFactors(
  ions: readonly CounterIon[],
  reference: number,
  totalEqPerL: number,
  resinEqPerL: number,
): Outcome<Separation> {
  const invalid = firstError(
    outOfRange('totalEqPerL', 'Ions of the water', totalEqPerL, 1e-9, 10, 'eq/L'),
    outOfRange('resinEqPerL', 'Capacity of the resin', resinEqPerL, 0.01, 10, 'eq/L'),
  );
  if (invalid) return { ok: false, error: invalid };
  const relative = ions.map((ion) => ion.selectivity / reference);
  const dilution = resinEqPerL / totalEqPerL;
  const sum = (valence: 1 | 2): number =>
    ions.reduce((total, ion, i) => total + (ion.valence === valence ? relative[i]! * ion.fraction : 0), 0);
  const b = sum(1);
  const a = sum(2) * dilution;
  if (!(a + b > 0)) return fail('water', 0, 'a water with ions in it', 'There is nothing in this water for the resin to take up.');
  // Reference on the resin over reference in the water; defined even when the water holds none of it.
  const r = 2 / (b + Math.sqrt(b * b + 4 * a));
  const alpha = ions.map((ion, i) => (ion.valence === 1 ? relative[i]! : relative[i]! * dilution * r));
  return ok({ alpha, resinFractions: ions.map((ion, i) => alpha[i]! * ion.fraction * r) });
}

/** Sharper fronts than this cannot be told apart (§4 of the exchange chapter). */
const LARGEST_ALPHA = 50;

/**
 * Factors of a water's cations against sodium, divalent ones scaled down together where the largest passes 50.
 *
 * @param fractions equivalent fractions among the cations
 */
export function cationAlphas(
  ids: readonly CationId[],
  fractions: readonly number[],
  totalEqPerL: number,
  resinEqPerL: number,
): Outcome<readonly number[]> {
  const ions = ids.map((id, i): CounterIon => ({ ...CATION_ROWS[id], selectivity: CATION_ROWS[id].preference, fraction: fractions[i]! }));
  const separation = separationFactors(ions, CATION_ROWS.Na.preference, totalEqPerL, resinEqPerL);
  if (!separation.ok) return separation;
  const largest = Math.max(...separation.value.alpha);
  const scale = largest > LARGEST_ALPHA ? LARGEST_ALPHA / largest : 1;
  return ok(separation.value.alpha.map((alpha, i) => (ions[i]!.valence === 2 ? alpha * scale : alpha)));
}

/** Factors of anions against chloride: tabulated, for DI strengths. */
export const anionAlphas = (ids: readonly AnionId[]): readonly number[] => ids.map((id) => ANION_ROWS[id].preference);
