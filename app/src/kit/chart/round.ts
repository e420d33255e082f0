import { scaleLinear } from 'd3-scale';

/** The least a scale ends at, so that nothing is divided by nothing. */
const LEAST = 1e-6;

/** A round figure at or above a value, for the end of a scale. */
export const roundTop = (value: number): number =>
  scaleLinear()
    .domain([0, Math.max(value, LEAST)])
    .nice(6)
    .domain()[1]!;

/** Round ends about a span, with some room within them. */
export function roundRange(low: number, high: number): { readonly min: number; readonly max: number } {
  const room = Math.max(0.04 * (high - low), 0.01 * Math.abs(high), LEAST);
  const [min, max] = scaleLinear()
    .domain([Math.max(Math.min(0, low), low - room), high + room])
    .nice(5)
    .domain() as [number, number];
  return { min, max };
}

/** About so many round marks from nothing to an end. */
export const roundMarks = (until: number, count: number): number[] =>
  scaleLinear()
    .domain([0, Math.max(until, LEAST)])
    .ticks(count);

/** About so many round marks between two ends. */
export const marksBetween = (from: number, until: number, count: number): number[] => scaleLinear().domain([from, until]).ticks(count);

/** Positions along an axis, moved on where two would stand closer than `apart`; in the order given, kept in their own order. */
export function spread(positions: readonly number[], apart: number): number[] {
  const order = positions.map((at, i) => ({ at, i })).sort((a, b) => a.at - b.at);
  const moved = [...positions];
  order.forEach(({ i }, rank) => {
    const before = order[rank - 1];
    if (before) moved[i] = Math.max(moved[i]!, moved[before.i]! + apart);
  });
  return moved;
}

/** Index of the point nearest to a place along the axis; points stand in order. */
export function nearestIndex(points: readonly { readonly x: number }[], at: number): number {
  let [left, right] = [0, points.length];
  while (left < right) {
    const middle = (left + right) >> 1;
    if (points[middle]!.x < at) left = middle + 1;
    else right = middle;
  }
  if (right === 0) return 0;
  if (right >= points.length) return points.length - 1;
  return at - points[right - 1]!.x <= points[right]!.x - at ? right - 1 : right;
}
