import type { Limit } from '@yes-clear/core/goal';
import { scaleLinear, scaleSymlog } from 'd3-scale';

/** Places along the scale of one limit, 0 to 1: its band, and where a water stands on it. */
export interface LimitScale {
  readonly from: number;
  readonly to: number;
  readonly place: (value: number) => number;
  /** Whether the scale is in proportion or by decades. */
  readonly kind: 'linear' | 'log';
}

/**
 * A scale on which a limit's band and the values of today's waters are all to be seen: in proportion where they lie
 * within a decade of each other, by decades where the tap is a hundred times the goal.
 */
export function limitScale(limit: Limit, values: readonly number[]): LimitScale {
  const { low, high, quantity } = limit;
  if (quantity === 'pH') return placed(scaleLinear([4, 10], [0, 1]).clamp(true), low ?? 4, high ?? 10, 'linear');
  const marks = [low, high, ...values].filter((value): value is number => value !== null && value > 0);
  const most = Math.max(...marks, 1e-6) * 1.12;
  const bound = Math.max(...[low, high].filter((value): value is number => value !== null), 0);
  const proportion = bound > 0 && most / bound < 12;
  if (proportion) return placed(scaleLinear([0, most], [0, 1]).clamp(true), low ?? 0, high ?? most, 'linear');
  // Symmetric log keeps zero on the paper: a product without any of it stands at the left end, the band begins there.
  const smallest = Math.min(...[low, high].filter((value): value is number => value !== null && value > 0), most);
  return placed(
    scaleSymlog([0, most], [0, 1])
      .constant(smallest / 10)
      .clamp(true),
    low ?? 0,
    high ?? most,
    'log',
  );
}

function placed(scale: (value: number) => number, low: number, high: number, kind: LimitScale['kind']): LimitScale {
  return { from: scale(low), to: scale(high), place: (value) => scale(Math.max(0, value)), kind };
}
