/** The cumulative sum of what was off: tells when a series stays away from what it led to expect (Page 1954, recalled; science of logs, 7.1). */

/** A series that left its way: the point at which it was seen, and the one from which it had been leaving. */
export interface Alarm {
  readonly seenAt: number;
  readonly since: number;
  readonly direction: 'up' | 'down';
}

/** Reference value of the sum and the height of an alarm, in standard deviations; no single figure adds more than the last. */
export const CUSUM = { slack: 0.5, height: 5, most: 3.2 } as const;

/** The sums upward and downward so far, and the points from which each has been above nothing. */
export interface Sums {
  readonly up: number;
  readonly down: number;
  readonly upSince: number;
  readonly downSince: number;
}
export const NO_SUMS: Sums = { up: 0, down: 0, upSince: -1, downSince: -1 };

/** The sums after one more standardised value. */
export const summed = ({ up, down, upSince, downSince }: Sums, z: number, at: number, slack: number = CUSUM.slack): Sums => ({
  up: Math.max(0, up + z - slack),
  down: Math.max(0, down - z - slack),
  upSince: up === 0 ? at : upSince,
  downSince: down === 0 ? at : downSince,
});

/** The alarm that sums raise at a point, if any. */
export function alarmOf({ up, down, upSince, downSince }: Sums, seenAt: number, height: number = CUSUM.height): Alarm | null {
  if (up > height) return { seenAt, since: upSince, direction: 'up' };
  return down > height ? { seenAt, since: downSince, direction: 'down' } : null;
}

/** The split of a series at which what came after differs most from what was expected: the first point after a step (7.2). */
export function bestSplit(z: readonly (number | null)[], since: number, until: number): number {
  let [best, most] = [since, -Infinity];
  for (let k = since; k <= until; k++) {
    const after = z.slice(k, until + 1).filter((value): value is number => value !== null);
    if (after.length === 0) continue;
    const mean = after.reduce((sum, value) => sum + value, 0) / after.length;
    const gain = mean * mean * after.length;
    if (gain > most) [best, most] = [k, gain];
  }
  return best;
}
