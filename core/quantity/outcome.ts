/**
 * How core functions answer: with a value, or with an error a person can act on.
 * Both are plain data, so they travel unchanged through workers, files and tests.
 */

/** What was wrong with one input: the field's name, what it held, and what would be accepted. */
export interface InputError {
  readonly field: string;
  readonly value: string | number | null;
  readonly accepted: string;
  /** One sentence for the screen. */
  readonly message: string;
}

export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: InputError };

/** Wraps a result. */
export function ok<T>(value: T): Outcome<T> {
  return { ok: true, value };
}

/**
 * Builds a failed outcome. A number that JSON cannot carry (NaN, infinity) is stored as text,
 * so that no NaN leaves the core even inside an error.
 */
export function fail(
  field: string,
  value: string | number | null,
  accepted: string,
  message: string,
): { readonly ok: false; readonly error: InputError } {
  const plain = typeof value === 'number' && !Number.isFinite(value) ? String(value) : value;
  return { ok: false, error: { field, value: plain, accepted, message } };
}

/**
 * Checks that a number is finite and within [low, high].
 *
 * @param field name of the field as the caller knows it, with its unit, e.g. `feedPressureBar`
 * @param label how a person would name it, e.g. `Line pressure`
 * @returns the error, or null when the number is fine
 */
export function outOfRange(field: string, label: string, value: number, low: number, high: number, unit = ''): InputError | null {
  if (Number.isFinite(value) && value >= low && value <= high) return null;
  const suffix = unit === '' ? '' : ` ${unit}`;
  const accepted = `${low} to ${high}${suffix}`;
  const got = Number.isFinite(value) ? `${value}${suffix}` : 'not a number';
  return fail(field, value, accepted, `${label} is ${got}; accepted is ${accepted}.`).error;
}

/** The first error of a list of checks, or null. Lets a function validate all its inputs in one expression. */
export function firstError(...checks: readonly (InputError | null)[]): InputError | null {
  return checks.find((check) => check !== null) ?? null;
}
