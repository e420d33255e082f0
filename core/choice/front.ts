/** What is best where several things count: the front of options none of which is beaten in everything. Less is better in each. */

/** A value in whole steps: a tolerance within a comparison itself would make it go round in circles. */
export const inStep = (value: number, step: number): number => Math.floor(value / step + 0.5);
export const inSteps = (values: readonly number[], steps: readonly number[]): number[] =>
  values.map((value, i) => inStep(value, steps[i]!));

/** Whether one is no worse in anything and better in something. */
export function dominates(a: readonly number[], b: readonly number[]): boolean {
  let better = false;
  for (let i = 0; i < a.length; i++) {
    if (a[i]! > b[i]!) return false;
    if (a[i]! < b[i]!) better = true;
  }
  return better;
}

const lexicographic = (a: readonly number[], b: readonly number[]): number => {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
};

/** Places of what nothing beats, in their order; equal ones are all of it. */
export function paretoFront(points: readonly (readonly number[])[]): number[] {
  const order = points.map((_, i) => i).sort((a, b) => lexicographic(points[a]!, points[b]!) || a - b);
  const kept: number[] = [];
  for (const i of order) if (!kept.some((k) => dominates(points[k]!, points[i]!))) kept.push(i);
  return kept.sort((a, b) => a - b);
}

/**
 * The same front where each point is dear to work out and cheap to bound: one whose best case is beaten is never asked.
 *
 * @param bounds the best each could be, in every objective
 * @param solve what it truly is; null where it does not count
 * @returns places in their order, and how many were asked
 */
export function boundedFront(
  bounds: readonly (readonly number[])[],
  solve: (place: number) => readonly number[] | null,
): { readonly front: number[]; readonly asked: number } {
  const order = bounds.map((_, i) => i).sort((a, b) => lexicographic(bounds[a]!, bounds[b]!) || a - b);
  let kept: { readonly place: number; readonly point: readonly number[] }[] = [];
  let asked = 0;
  for (const place of order) {
    if (kept.some(({ point }) => dominates(point, bounds[place]!))) continue;
    asked += 1;
    const own = solve(place);
    if (!own || kept.some(({ point }) => dominates(point, own))) continue;
    kept = kept.filter(({ point }) => !dominates(own, point));
    kept.push({ place, point: own });
  }
  return { front: kept.map(({ place }) => place).sort((a, b) => a - b), asked };
}

/** Rank of each: 1 on the front, 2 on the front of what is left without it, and so on (Deb et al. 2002, recalled). */
export function paretoRanks(points: readonly (readonly number[])[]): number[] {
  const ranks = points.map(() => 0);
  let left = points.map((_, i) => i);
  for (let rank = 1; left.length > 0; rank++) {
    const front = new Set(paretoFront(left.map((i) => points[i]!)).map((k) => left[k]!));
    for (const i of front) ranks[i] = rank;
    left = left.filter((i) => !front.has(i));
  }
  return ranks;
}

/** Where giving up a little of one gains most of the other. */
export interface Knee {
  /** Place of the point. */
  readonly point: number;
  /** Two things: how far below the line between the ends. More: how near to the ideal corner. */
  readonly distance: number;
}

/** Each thing from 0, its best on the front, to 1; one that is the same all along is 0. */
function scaled(points: readonly (readonly number[])[]): number[][] {
  const ranges = points[0]!.map((_, k) => {
    const values = points.map((point) => point[k]!);
    return [Math.min(...values), Math.max(...values)] as const;
  });
  return points.map((point) =>
    point.map((value, k) => (ranges[k]![1] > ranges[k]![0] ? (value - ranges[k]![0]) / (ranges[k]![1] - ranges[k]![0]) : 0)),
  );
}

/** The knee of a front in two things; null where the trade is even. */
export function kneeOfTwo(front: readonly (readonly number[])[]): Knee | null {
  if (front.length === 0) return null;
  const distances = scaled(front).map(([u, v]) => (1 - u! - v!) / Math.SQRT2);
  const distance = Math.max(...distances);
  return distance > 1e-12 ? { point: distances.indexOf(distance), distance } : null;
}

/** The point of a front nearest to the ideal corner, by the root mean square of its scaled values; null of none. */
export function nearestToIdeal(front: readonly (readonly number[])[]): Knee | null {
  if (front.length === 0) return null;
  const distances = scaled(front).map((point) => Math.sqrt(point.reduce((sum, value) => sum + value * value, 0) / point.length));
  const distance = Math.min(...distances);
  return { point: distances.indexOf(distance), distance };
}
