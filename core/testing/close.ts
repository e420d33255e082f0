import { expect } from 'vitest';
import type { InputError, Outcome } from '../quantity';

/** Unwraps an outcome, or fails with its message. */
export function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}

/** The error of an outcome that must have failed. */
export function failure(outcome: Outcome<unknown>): InputError {
  if (outcome.ok) throw new Error('This was expected to fail.');
  return outcome.error;
}

/** Asserts a number within a share of the expected one. */
export function expectWithin(actual: number, expected: number, share: number, what = ''): void {
  const allowed = Math.abs(expected) * share;
  expect(Math.abs(actual - expected), `${what} ${actual} against ${expected} ± ${allowed}`).toBeLessThanOrEqual(allowed);
}

/** Asserts a number within an absolute distance. */
export function expectNear(actual: number, expected: number, distance: number, what = ''): void {
  expect(Math.abs(actual - expected), `${what} ${actual} against ${expected} ± ${distance}`).toBeLessThanOrEqual(distance);
}
