import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';

/**
 * Exact theory of columns with constant separation factors (Helfferich & Klein 1970, the h-transformation with
 * h = α/μ; Rhee, Aris & Amundson). Times are Λ = bed volumes × feed strength ÷ capacity.
 */

/** A sharp front: ahead of it the plateau before, behind it this one. */
export interface Front {
  readonly lambda: number;
  /** Index of the ion that begins here, in the order given. */
  readonly ion: number;
  /** Equivalent fractions behind the front, in the order given. */
  readonly behind: readonly number[];
}

/** A wave of an ordinary column; a shock has one time, a spreading wave two. */
export interface Wave {
  readonly kind: 'shock' | 'spreading' | 'none';
  readonly fromLambda: number;
  readonly toLambda: number;
  readonly behind: readonly number[];
}

/** Factors nearer than this are one ion to a column. */
const SAME_ALPHA = 1e-3;

function checked(alpha: readonly number[], fractions: readonly number[]): Outcome<void> {
  if (alpha.some((a) => !(a > 0 && Number.isFinite(a))))
    return fail('alpha', alpha.find((a) => !(a > 0)) ?? null, 'above 0', 'Separation factors must be above 0.');
  const sum = fractions.reduce((total, x) => total + x, 0);
  if (fractions.some((x) => x < 0) || Math.abs(sum - 1) > 1e-6)
    return fail(
      'fractions',
      sum,
      'fractions of 0 or more that sum to 1',
      `The fractions sum to ${sum}; they must be 0 or more and sum to 1.`,
    );
  return ok(undefined);
}

/** The roots of Σ α x/(α − μ), one between each two of the factors, which are ascending and of ions present. */
function rootsBetween(alpha: readonly number[], x: readonly number[]): number[] {
  const f = (mu: number): number => alpha.reduce((sum, a, i) => sum + (a * x[i]!) / (a - mu), 0);
  return alpha.slice(1).map((next, k) => {
    const root = findRoot(f, alpha[k]! * (1 + 1e-12), next * (1 - 1e-12), 1e-14 * next);
    return root ? root.x : Number.NaN;
  });
}

/** Fractions a set of roots stands for, over factors ascending. */
function fractionsOf(alpha: readonly number[], roots: readonly number[]): number[] {
  const scale = alpha.reduce((p, a) => p * a, 1) / roots.reduce((p, mu) => p * mu, 1);
  return alpha.map((a, i) => {
    const above = roots.reduce((p, mu) => p * (mu - a), 1);
    const below = alpha.reduce((p, other, j) => (j === i ? p : p * (other - a)), 1);
    return Math.max(0, (scale * above) / (a * below));
  });
}

/**
 * Fronts of a mixed bed: fresh resin in H or OH form that turns into water as it exchanges. The weakest ion comes
 * first, each behind its front at more than its feed concentration.
 *
 * @param alpha separation factors in any order
 * @param x equivalent fractions of the feed, summing to 1
 */
export function frontChain(alpha: readonly number[], x: readonly number[]): Outcome<readonly Front[]> {
  const valid = checked(alpha, x);
  if (!valid.ok) return valid;
  const order = x
    .map((_, i) => i)
    .filter((i) => x[i]! > 0)
    .sort((i, j) => alpha[i]! - alpha[j]!);
  // Ions that cannot be told apart go as one group.
  const groups: number[][] = [];
  for (const i of order) {
    const last = groups.at(-1);
    if (last && alpha[i]! / alpha[last[0]!]! < 1 + SAME_ALPHA) last.push(i);
    else groups.push([i]);
  }
  const a = groups.map((group) => alpha[group[0]!]!);
  const share = groups.map((group) => group.reduce((sum, i) => sum + x[i]!, 0));
  const mu = rootsBetween(a, share);
  let lambda = 1;
  const fronts = groups.map((group, k): Front => {
    if (k > 0) lambda *= mu[k - 1]! / a[k - 1]!;
    const plateau = fractionsOf(a.slice(0, k + 1), mu.slice(0, k));
    const behind = x.map(() => 0);
    plateau.forEach((fraction, g) => groups[g]!.forEach((i) => (behind[i] = (fraction * x[i]!) / share[g]!)));
    return { lambda, ion: group[0]!, behind };
  });
  return ok(fronts);
}

/** Roots of a composition over all factors: an absent ion puts one on its own factor. */
function allRoots(alpha: readonly number[], x: readonly number[]): number[] {
  const present = alpha.map((_, i) => i).filter((i) => x[i]! > 0);
  const between = rootsBetween(
    present.map((i) => alpha[i]!),
    present.map((i) => x[i]!),
  );
  return [...between, ...alpha.filter((_, i) => !(x[i]! > 0))].sort((p, q) => p - q);
}

/**
 * Waves of an ordinary column whose resin starts with ions on it: a softener, or one resin alone. First out first.
 *
 * @param alpha separation factors, strictly ascending
 * @param feed fractions of the feed, summing to 1
 * @param initial fractions on the fresh column's water, summing to 1
 */
export function coherentWaves(alpha: readonly number[], feed: readonly number[], initial: readonly number[]): Outcome<readonly Wave[]> {
  for (const fractions of [feed, initial]) {
    const valid = checked(alpha, fractions);
    if (!valid.ok) return valid;
  }
  if (alpha.some((a, i) => i > 0 && a <= alpha[i - 1]!))
    return fail('alpha', null, 'strictly ascending', 'Separation factors must be given in ascending order, no two alike.');
  const [behind, ahead] = [allRoots(alpha, feed), allRoots(alpha, initial)];
  const product = alpha.reduce((p, a) => p * a, 1);
  return ok(
    behind.map((after, k): Wave => {
      const before = ahead[k]!;
      const others = behind.reduce((p, _, j) => (j === k ? p : p * (j < k ? behind[j]! : ahead[j]!)), 1) / product;
      const plateau = fractionsOf(alpha, [...behind.slice(0, k + 1), ...ahead.slice(k + 1)]);
      const near = Math.abs(after - before) <= 1e-9 * before;
      if (near || after < before) {
        const at = after * before * others;
        return { kind: near ? 'none' : 'shock', fromLambda: at, toLambda: at, behind: plateau };
      }
      return { kind: 'spreading', fromLambda: before * before * others, toLambda: after * after * others, behind: plateau };
    }),
  );
}
