import { runToEnd } from '../numeric';
import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/**
 * One side of a row of beds as cells in series. Water passes in batches; each cell solves its batch implicitly, so any
 * batch is stable, positive and conserves exactly. Hold-up of the voids is neglected.
 */

/** A bed of the row. */
export interface CellBed {
  /** Capacity of this side as packed, eq. */
  readonly capacityEq: number;
  readonly cells: number;
  /** Transfer units of the whole bed; null for pure equilibrium. */
  readonly transferUnits: number | null;
}

/** A row of beds with water on its way; changed in place by `passBatch`. */
export interface CellRow {
  readonly ions: number;
  readonly cells: number;
  readonly alpha: Float64Array;
  /** Equivalents on each cell, ion by ion. */
  readonly held: Float64Array;
  readonly capacity: Float64Array;
  /** Share of a batch that reaches the beads of a cell. */
  readonly reach: Float64Array;
  /** Equivalents on each cell in all. */
  readonly total: Float64Array;
  /** Composition each full cell last gave off, and its root, to know a cell that changes no more. */
  readonly liquid: Float64Array;
  readonly root: Float64Array;
  /** Index of the last cell of each bed. */
  readonly ends: readonly number[];
}

const MOST_CELLS = 400;
/** A cell whose water differs from what it last gave off by less than this lets it pass unchanged. */
const SETTLED = 1e-10;
/** Share of a batch below which the rest is left where it stands. */
const TRACE = 1e-13;

/**
 * A row of beds, fresh or with ions on it.
 *
 * @param initial fractions on the resin at the start; null for H or OH form
 */
export function cellRow(alpha: readonly number[], beds: readonly CellBed[], initial: readonly number[] | null = null): Outcome<CellRow> {
  for (const bed of beds) {
    const invalid = firstError(
      outOfRange('capacityEq', 'Capacity of the bed', bed.capacityEq, 1e-6, 10_000, 'eq'),
      outOfRange('cells', 'Cells', bed.cells, 1, MOST_CELLS),
    );
    if (invalid) return { ok: false, error: invalid };
  }
  const n = alpha.length;
  const cells = beds.reduce((sum, bed) => sum + bed.cells, 0);
  const row: CellRow = {
    ions: n,
    cells,
    alpha: Float64Array.from(alpha),
    held: new Float64Array(cells * n),
    capacity: new Float64Array(cells),
    reach: new Float64Array(cells),
    total: new Float64Array(cells),
    liquid: new Float64Array(cells * n).fill(-1),
    root: new Float64Array(cells),
    ends: beds.map((_, b) => beds.slice(0, b + 1).reduce((sum, bed) => sum + bed.cells, 0) - 1),
  };
  let at = 0;
  for (const bed of beds) {
    for (let c = 0; c < bed.cells; c++, at++) {
      row.capacity[at] = bed.capacityEq / bed.cells;
      row.reach[at] = bed.transferUnits === null ? 1 : 1 - Math.exp(-bed.transferUnits / bed.cells);
      if (!initial) continue;
      row.total[at] = row.capacity[at]!;
      for (let i = 0; i < n; i++) row.held[at * n + i] = initial[i]! * row.capacity[at]!;
    }
  }
  return ok(row);
}

/** A batch that never settles in a cell: the equations rule it out, a spoiled number does not. */
const MOST_ROUNDS = 60;

/**
 * Lets a batch through the row.
 *
 * @param batch equivalents of each ion, in; what leaves the row, out
 * @returns false when a cell did not converge
 */
export function passBatch(row: CellRow, batch: Float64Array): boolean {
  const { ions: n, alpha, held, capacity, reach, total, liquid, root } = row;
  let most = 0;
  for (let i = 0; i < n; i++) most = Math.max(most, alpha[i]!);
  let entering = 0;
  for (let i = 0; i < n; i++) entering += batch[i]!;
  const trace = TRACE * entering;
  for (let c = 0; c < row.cells; c++) {
    const at = c * n;
    const w = reach[c]!;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += batch[i]!;
    const room = capacity[c]! - total[c]!;
    if (sum <= trace && room > sum) {
      // Nothing to speak of is left: it stays here, and the rest of the row sees clean water.
      for (let i = 0; i < n; i++) {
        held[at + i]! += batch[i]!;
        batch[i] = 0;
      }
      total[c]! += sum;
    } else if (w * sum <= room) {
      for (let i = 0; i < n; i++) {
        const taken = w * batch[i]!;
        held[at + i]! += taken;
        batch[i]! -= taken;
      }
      total[c]! += w * sum;
    } else if (!unchanged(batch, liquid, at, n, sum)) {
      const out = w * sum - room;
      // Left of the root of a convex falling function Newton climbs to it; from the right its first step lands left of
      // it: the last root is as good a start as any, and mostly a step away.
      let r = root[c]! > 0 ? root[c]! : capacity[c]! / most;
      let rounds = 0;
      for (; rounds < MOST_ROUNDS; rounds++) {
        let f = -1;
        let slope = 0;
        for (let i = 0; i < n; i++) {
          const inverse = 1 / (out + r * alpha[i]!);
          const term = (held[at + i]! + w * batch[i]!) * inverse;
          f += term;
          slope += term * alpha[i]! * inverse;
        }
        const step = f / slope;
        r = r + step > 0 ? r + step : (0.1 * capacity[c]!) / most;
        // It converges by squares: what is left after such a step is rounding.
        if (Math.abs(step) < 1e-8 * r) break;
      }
      if (rounds === MOST_ROUNDS || !(r > 0)) return false;
      root[c] = r;
      let fractions = 0;
      for (let i = 0; i < n; i++) fractions += liquid[at + i] = (held[at + i]! + w * batch[i]!) / (out + r * alpha[i]!);
      let passed = 0;
      for (let i = 0; i < n; i++) {
        const share = (liquid[at + i]! /= fractions);
        const t = held[at + i]! + w * batch[i]!;
        const gives = Math.min(t, out * share);
        held[at + i] = t - gives;
        batch[i] = (1 - w) * batch[i]! + gives;
        passed += gives;
      }
      total[c]! += w * sum - passed;
    }
  }
  return true;
}

/** Whether water meets a full cell that it is already at rest with. */
function unchanged(batch: Float64Array, liquid: Float64Array, at: number, n: number, sum: number): boolean {
  for (let i = 0; i < n; i++) if (Math.abs(batch[i]! - liquid[at + i]! * sum) > SETTLED * sum) return false;
  return true;
}

/** What a run of one side gave, batch by batch. */
export interface CellRun {
  /** Litres passed at the middle of each batch. */
  readonly litres: Float64Array;
  /** Outlet of the row, meq/L, batch by batch, ion by ion. */
  readonly outMeqL: Float64Array;
  readonly row: CellRow;
  /** What went in less what is held and what came out, as a share of the capacity. */
  readonly balanceError: number;
}

/** How far a run goes, in what batches, and who looks on. */
export interface CellRunOptions {
  /** Litres to pass. */
  readonly litres: number;
  /** Share of a cell's capacity a batch brings. */
  readonly batchShare?: number;
  /** Called with the litres passed after every batch. */
  readonly onBatch?: (litres: number, row: CellRow) => void;
}

/** Batches a run may have: beyond it the horizon was meant for another water. */
const MOST_BATCHES = 200_000;

/** Litres of one batch: a share of what the smallest cell holds. */
function batchLitres(row: CellRow, totalMeqL: number, batchShare = 0.25): number {
  const smallest = row.capacity.reduce((least, capacity) => Math.min(least, capacity), Infinity);
  return (1000 * batchShare * smallest) / totalMeqL;
}

/**
 * Runs a constant feed through a row of cells, a step at a time: each step is one batch, so that a caller can show
 * progress and stop.
 *
 * @param feedMeqL the feed, ion by ion
 * @yields litres passed so far
 */
export function* cellSteps(row: CellRow, feedMeqL: readonly number[], options: CellRunOptions): Generator<number, Outcome<CellRun>> {
  const n = row.ions;
  const totalMeqL = feedMeqL.reduce((sum, meqL) => sum + meqL, 0);
  const share = options.batchShare ?? 0.25;
  const invalid = firstError(
    outOfRange('batchShare', 'Batch', share, 0.05, 0.5),
    outOfRange('feedMeqL', 'Ions of the feed', totalMeqL, 1e-6, 1000, 'meq/L'),
    outOfRange('litres', 'Litres to pass', options.litres, 0, 1e9, 'L'),
  );
  if (invalid) return { ok: false, error: invalid };
  const dV = batchLitres(row, totalMeqL, share);
  const batches = Math.ceil(options.litres / dV);
  if (batches > MOST_BATCHES)
    return fail('litres', options.litres, `at most ${Math.round(MOST_BATCHES * dV)} L`, 'The horizon is too long for this bed and water.');
  const started = heldOf(row);
  const litres = new Float64Array(batches);
  const outMeqL = new Float64Array(batches * n);
  const batch = new Float64Array(n);
  const fed = feedMeqL.map((meqL) => (meqL * dV) / 1000);
  for (let b = 0; b < batches; b++) {
    batch.set(fed);
    if (!passBatch(row, batch)) return fail('alpha', null, 'a bed whose cells settle', 'The exchange in this bed did not converge.');
    litres[b] = (b + 0.5) * dV;
    for (let i = 0; i < n; i++) outMeqL[b * n + i] = (1000 * batch[i]!) / dV;
    options.onBatch?.((b + 1) * dV, row);
    yield (b + 1) * dV;
  }
  return ok({ litres, outMeqL, row, balanceError: balanceError(row, started, fed, batches, outMeqL, dV) });
}

/** Runs it to its end. */
export const runCells = (row: CellRow, feedMeqL: readonly number[], options: CellRunOptions): Outcome<CellRun> =>
  runToEnd(cellSteps(row, feedMeqL, options));

/** Equivalents of each ion held by the row. */
function heldOf(row: CellRow): number[] {
  const sums = new Array<number>(row.ions).fill(0);
  row.held.forEach((eq, k) => (sums[k % row.ions]! += eq));
  return sums;
}

/** The worst ion's balance, as a share of the capacity. */
function balanceError(
  row: CellRow,
  started: readonly number[],
  fed: readonly number[],
  batches: number,
  outMeqL: Float64Array,
  dV: number,
): number {
  const capacity = row.capacity.reduce((sum, eq) => sum + eq, 0);
  const held = heldOf(row);
  return Math.max(
    ...fed.map((eq, i) => {
      let out = 0;
      for (let b = 0; b < batches; b++) out += (outMeqL[b * row.ions + i]! * dV) / 1000;
      return Math.abs(eq * batches + started[i]! - held[i]! - out) / capacity;
    }),
  );
}
