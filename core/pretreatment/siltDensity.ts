import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/**
 * Silt density index from two filling times of 500 mL through 0.45 µm at 2.07 bar: ASTM D4189 (form recalled).
 *
 * @returns %/min; an error naming `minutes` when the filter plugged too far for that test time, or `finalSeconds`
 *   when the second filling was faster than the first
 */
export function siltDensityIndex(initialSeconds: number, finalSeconds: number, minutes: number): Outcome<number> {
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
      'a shorter test time',
      `The filter plugged by ${Math.round(plugged)} %, too far for ${minutes} min: use a shorter test time.`,
    );
  return ok(plugged / minutes);
}
