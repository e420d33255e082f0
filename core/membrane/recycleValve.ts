import { findRoot } from '../numeric';
import { ok, type Outcome } from '../quantity';
import { flowThroughValveLPerH } from './valve';

/** What a unit does with a given recycle, as far as its recycle valve feels it. */
export interface RecycledPoint {
  readonly concentratePressureBar: number;
  /** Before the pump, where the recycle joins. */
  readonly inletBar: number;
}

/** Relative accuracy of the recycle. */
const SETTLED = 1e-10;

/**
 * The recycle at which a valve between waste and pump inlet passes just what is led back. The more is led back, the
 * less pressure is left to drive it, so there is one such flow, between none and the most the valve can pass.
 *
 * @param solve the unit with so much led back, L/h
 */
export function recycleThroughValve<Solved extends RecycledPoint>(
  kvM3PerH: number,
  solve: (recycleLPerH: number) => Outcome<Solved>,
  mostLPerH: number,
): Outcome<Solved> {
  const seen = new Map<number, Outcome<Solved>>();
  const at = (recycle: number): Outcome<Solved> => {
    const point = seen.get(recycle) ?? solve(recycle);
    seen.set(recycle, point);
    return point;
  };
  const spare = (recycle: number): number => {
    const point = at(recycle);
    // Too much pressure wants more led back; anything else that fails was too much of it.
    if (!point.ok) return point.error.field === 'pump.reliefBar' ? mostLPerH : -mostLPerH;
    const { concentratePressureBar, inletBar } = point.value;
    return flowThroughValveLPerH(kvM3PerH, Math.max(0, concentratePressureBar - inletBar)) - recycle;
  };
  const root = findRoot(spare, 0, mostLPerH, SETTLED * mostLPerH);
  // Nothing drives it, or the unit cannot run at all: then it says so without any recycle.
  return at(root ? root.x : 0);
}

/** Makes a point out of a solved unit and the pressure before its pump. */
export const recycledPoint = <T extends { readonly concentratePressureBar: number }>(
  solved: Outcome<T>,
  inletBar: (point: T) => number,
): Outcome<T & RecycledPoint> => (solved.ok ? ok({ ...solved.value, inletBar: inletBar(solved.value) }) : solved);
