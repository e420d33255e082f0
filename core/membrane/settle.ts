import { ok, type Outcome } from '../quantity';
import { noPoint, solvePoint, unknownOf, type Bench, type Point, type Start } from './point';
import type { FeedSpecies } from './species';

/** Rounds in which the strength of a recycle settles; four are usual. */
const RECYCLE_ROUNDS = 40;
/** How fast what a valve leads back may follow what was led back the round before; at 1 it would never settle. */
const STEEPEST_SLOPE = 0.95;
/** A mixture grows by no more than this factor in a round. */
const LARGEST_STEP = 2;

/** A unit with everything settled. */
export interface Settled {
  readonly point: Point;
  readonly mixed: readonly number[];
  readonly recycle: number;
}

/** Where settling begins, and how far it goes. */
export interface Settling {
  readonly mixed: readonly number[];
  readonly recycle: number;
  readonly start: Start | null;
  /** Relative, on the unknown of the point. */
  readonly tolerance: number;
  /** Relative, on mixture and recycle. */
  readonly settled: number;
  /** The most that can flow, where it is known beforehand. */
  readonly most: number;
}

/**
 * Solves point and mixture in turn until neither moves; once where nothing is led back. What a recycle valve passes
 * is part of the point's own balance.
 *
 * The mixture follows from the strength of the concentrate against it, `C_mix = q0·C_raw/(qm − qr·ρ)`.
 */
export function settle(bench: Omit<Bench, 'mixed' | 'recycle'>, feed: FeedSpecies, from: Settling): Outcome<Settled> {
  const { recycleKv } = bench.unit;
  let { mixed, recycle, start } = from;
  let relax: Relaxation = { share: 1, residual: null };
  let before: { readonly recycle: number; readonly passed: number } | null = null;
  for (let round = 0; round < RECYCLE_ROUNDS; round++) {
    const here = { ...bench, recycle, mixed };
    const solved = solvePoint(here, unknownOf(here, from.most), start, from.tolerance);
    if (!solved.ok) return solved;
    const point = solved.value;
    if (recycle === 0 && !recycleKv) return ok({ point, mixed, recycle });
    start = point.at;
    const next = nextMixture(feed, point, mixed);
    const residual = next.map((c, i) => (c - mixed[i]!) / Math.max(feed.mmolL[i]!, 1e-12));
    const moved = residual.reduce((most, r) => Math.max(most, Math.abs(r)), 0);
    const shift = point.recycle - recycle;
    if (moved < from.settled && Math.abs(shift) <= from.settled * Math.max(1, recycle)) return ok({ point, mixed, recycle: point.recycle });
    relax = relaxed(relax, residual);
    mixed = mixed.map((c, i) => c + relax.share * (next[i]! - c));
    if (!recycleKv) continue;
    const slope = before && before.recycle !== recycle ? (point.recycle - before.passed) / (recycle - before.recycle) : 0;
    before = { recycle, passed: point.recycle };
    recycle = Math.max(0, recycle + shift / (1 - Math.min(STEEPEST_SLOPE, Math.max(-1, slope))));
  }
  return noPoint('recycleLPerH', recycle, 'The recycle does not settle: it is larger than the concentrate can feed.');
}

/** How much of the next step is taken, and the step before. */
interface Relaxation {
  readonly share: number;
  readonly residual: readonly number[] | null;
}
const LEAST_SHARE = 0.2;

/**
 * Where steps go to and fro, for a saltier mixture makes less and is thinned again, less of each is taken: the share
 * that would have ended the last one, by Aitken's rule for vectors.
 */
function relaxed({ share, residual: before }: Relaxation, residual: readonly number[]): Relaxation {
  if (!before) return { share: 1, residual };
  const change = residual.map((r, i) => r - before[i]!);
  const size = change.reduce((sum, c) => sum + c * c, 0);
  const along = before.reduce((sum, r, i) => sum + r * change[i]!, 0);
  const next = size > 0 ? -share * (along / size) : share;
  return { share: Math.min(1, Math.max(LEAST_SHARE, next)), residual };
}

/** The mixture that the recycle of a point makes with the raw feed, mmol/L. */
function nextMixture(feed: FeedSpecies, { run, membraneFeed, recycle }: Point, mixed: readonly number[]): number[] {
  return feed.mmolL.map((c, i) => {
    const ratio = mixed[i]! > 0 ? run.concentrateMmolL[i]! / mixed[i]! : 1;
    const left = membraneFeed - recycle * ratio;
    const most = LARGEST_STEP * Math.max(c, mixed[i]!);
    // More comes round than can leave: the mixture has to grow until the membrane makes less.
    return left > 0 ? Math.min(most, ((membraneFeed - recycle) * c) / left) : most;
  });
}
