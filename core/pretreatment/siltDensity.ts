import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/** Silt density by a test of so many minutes. */
export interface SiltDensity {
  /** %/min over the test's own time; only of 15 minutes is it compared with a limit. */
  readonly index: number;
  readonly minutes: number;
  /** Past the limit of 5 in 15 minutes: shown by a shorter test that a longer one could not even be read. */
  readonly pastLimit: boolean;
}

/** Longest test, min, and the index membranes are laid out for by it. */
const FULL_MINUTES = 15;
const LIMIT = 5;

/**
 * Silt density index from two filling times of 500 mL through 0.45 µm at 2.07 bar: ASTM D4189 (form recalled).
 *
 * @returns %/min; an error naming `minutes` when the filter plugged too far for that test time, or `finalSeconds`
 *   when the second filling was faster than the first
 */
export function siltDensityIndex(initialSeconds: number, finalSeconds: number, minutes: number): Outcome<SiltDensity> {
  const invalid = firstError(
    outOfRange('initialSeconds', 'First filling', initialSeconds, 1, 3600, 's'),
    outOfRange('minutes', 'Test time', minutes, 1, 60, 'min'),
  );
  if (invalid) return { ok: false, error: invalid };
  if (!(finalSeconds >= initialSeconds))
    return fail(
      'finalSeconds',
      finalSeconds,
      `at least ${initialSeconds} s`,
      `The last filling took ${finalSeconds} s, less than the first (${initialSeconds} s): a filter does not clear itself.`,
    );
  const plugged = 100 * (1 - initialSeconds / finalSeconds);
  if (plugged > 75)
    return fail(
      'minutes',
      minutes,
      minutes > 10 ? 'a test of 10 or 5 min' : 'a test of 5 min',
      `The filter plugged by ${Math.round(plugged)} %, too far for ${minutes} min: ${minutes > 10 ? 'test for 10 or 5 min' : 'test for 5 min'}.`,
    );
  const index = plugged / minutes;
  return ok({ index, minutes, pastLimit: minutes < FULL_MINUTES || index > LIMIT });
}
