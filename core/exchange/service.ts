import { linearSlope } from '../numeric';
import { cellRow, passBatch, type CellRow } from './cells';
import { ok, type Outcome } from '../quantity';

/** A lane in a badly packed bed: a share of the flow through a share of the resin. */
export interface Lane {
  readonly flowShare: number;
  readonly resinShare: number;
}

/** What such a bed does, in used shares of its stoichiometric capacity. */
export interface LaneLife {
  readonly laneSpentAt: number;
  readonly mainSpentAt: number;
  /** Outlet over feed between the two. */
  readonly plateau: number;
}

export const laneLife = ({ flowShare: g, resinShare: s }: Lane): LaneLife => ({
  laneSpentAt: s / g,
  mainSpentAt: (1 - s) / (1 - g),
  plateau: g,
});

/** A row whose lead bed is thrown away: the others move up, a fresh one of the same kind stands last. */
export function movedUp(row: CellRow): Outcome<CellRow> {
  const perBed = row.ends[0]! + 1;
  const beds = row.ends.length;
  const capacityEq = row.capacity.slice(0, perBed).reduce((sum, eq) => sum + eq, 0);
  const fresh = cellRow(
    Array.from(row.alpha),
    Array.from({ length: beds }, () => ({ capacityEq, cells: perBed, transferUnits: null })),
  );
  if (!fresh.ok) return fresh;
  const next = fresh.value;
  next.reach.set(row.reach);
  next.held.set(row.held.subarray(perBed * row.ions));
  next.total.set(row.total.subarray(perBed));
  return ok(next);
}

/**
 * Share of its capacity each cartridge gives when it is one of so many in a row, in steady use: the lead is thrown away
 * whenever the last one's outlet passes the limit, the others move up.
 *
 * @param transferUnits of each cartridge
 * @param breakthroughFraction outlet over feed that ends a turn
 */
export function cyclicShare(beds: number, transferUnits: number, breakthroughFraction: number, cells = 100): Outcome<number> {
  const made = cellRow(
    [1],
    Array.from({ length: beds }, () => ({ capacityEq: 1, cells, transferUnits })),
  );
  if (!made.ok) return made;
  let row = made.value;
  // A twentieth of a cell at a time: the turn ends between two batches.
  const dose = 0.05 / cells;
  const batch = new Float64Array(1);
  let turn = 0;
  for (let k = 0; k < 3 * beds + 2; k++) {
    turn = 0;
    do {
      batch[0] = dose;
      passBatch(row, batch);
      turn += dose;
    } while (batch[0] < breakthroughFraction * dose && turn < 2 * beds);
    const next = movedUp(row);
    if (!next.ok) return next;
    row = next.value;
  }
  return ok(turn);
}

/** One reading of a resin on its way: used share of its capacity, and what goes in and comes out, µS/cm. */
export interface RisePoint {
  readonly used: number;
  readonly inUScm: number;
  readonly outUScm: number;
}

export interface Rise {
  readonly verdict: 'exhaustion' | 'early' | 'channeling' | 'acidOrMeter' | 'meter' | 'undetermined';
  /** Slope of the logarithm of out over in against the used share. */
  readonly slope: number | null;
  /** Used share at the first of them. */
  readonly from: number | null;
}

/** Slope from which a rise is a front and not a lane; the film law gives 10–80. */
const FRONT_SLOPE = 8;

/**
 * What a rising outlet means: a late steep front is exhaustion, an early one a load under-counted, an early flat one a
 * lane, more out than in acid or the meter.
 *
 * @param stepUScm smallest step the meter shows; readings below two of them say nothing
 */
export function judgeRise(points: readonly RisePoint[], stepUScm: number): Rise {
  const last = points.at(-1);
  const told = points.filter((point) => point.outUScm >= 2 * stepUScm && point.inUScm > 0);
  if (jumped(points)) return { verdict: 'meter', slope: null, from: null };
  if (last && last.outUScm > 1.1 * last.inUScm && last.outUScm >= 2 * stepUScm)
    return { verdict: 'acidOrMeter', slope: null, from: last.used };
  if (told.length < 4) return { verdict: 'undetermined', slope: null, from: told[0]?.used ?? null };
  const slope = linearSlope(
    told.map((point) => point.used),
    told.map((point) => Math.log(point.outUScm / point.inUScm)),
  );
  const from = told[0]!.used;
  if (slope >= FRONT_SLOPE) return { verdict: from >= 0.6 ? 'exhaustion' : 'early', slope, from };
  return { verdict: from < 0.5 ? 'channeling' : 'undetermined', slope, from };
}

/** One reading that leaps fivefold within a hundredth of the life and comes back. */
const jumped = (points: readonly RisePoint[]): boolean =>
  points.some((point, i) => {
    const [before, after] = [points[i - 1], points[i + 1]];
    return (
      before !== undefined &&
      after !== undefined &&
      after.used - before.used < 0.02 &&
      before.outUScm > 0 &&
      point.outUScm >= 5 * before.outUScm &&
      after.outUScm < 2 * before.outUScm
    );
  });
