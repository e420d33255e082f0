import { DAY_MS } from '../quantity';
import { normalQuantile } from '../numeric';
import { courseAt, type Course } from './membraneTrend';

/** A forecast is looked for no farther than this. */
const FARTHEST_DAYS = 3653;
const STEP_DAYS = 1;

/** Days from an instant until a course falls to a limit, as a band; a later edge beyond ten years is null, and so is the whole where even the first is. */
export interface Crossing {
  readonly p10: number;
  readonly p50: number | null;
  readonly p90: number | null;
}

/**
 * When a course reaches a limit from above: at each quantile the day on which that share of the belief lies below.
 *
 * @param lnLimit limit against the reference, in ln
 */
export function crossing(
  course: Pick<Course, 'samples' | 'ahead' | 'perYear' | 'hiddenSd'>,
  lnLimit: number,
  nowMs: number,
): Crossing | null {
  const dayAt = (share: number): number | null => {
    const z = normalQuantile(share);
    const reached = (day: number): boolean => {
      const { value, sd } = courseAt(course, nowMs + day * DAY_MS);
      return (lnLimit - value) / sd >= z;
    };
    if (reached(0)) return 0;
    // A band that widens with time makes the share grow: what is reached stays reached.
    let [low, high] = [0, 1];
    while (!reached(high)) {
      [low, high] = [high, 2 * high];
      if (low > FARTHEST_DAYS) return null;
    }
    while (high - low > STEP_DAYS) {
      const middle = (low + high) / 2;
      if (reached(middle)) high = middle;
      else low = middle;
    }
    return high <= FARTHEST_DAYS ? high : null;
  };
  const p10 = dayAt(0.1);
  return p10 === null ? null : { p10, p50: dayAt(0.5), p90: dayAt(0.9) };
}
