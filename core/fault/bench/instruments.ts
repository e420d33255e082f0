import type { Seeded } from '../../numeric';
import { ok, type Outcome } from '../../quantity';
import type { Hypothesis } from '../hypothesis';
import { ownSd, READING_KINDS, scaled, unscaled, type KindId } from '../kinds';
import { BAD_SHARE } from '../likelihood';
import { changedBy, together } from '../nodes';
import { plainTruth, type Rig, type RigChange, type Truth } from '../rig';
import { SHARED, SOLVED_SHARED, type SharedError, type SharedSd } from '../shared';

/** Errors that several readings share, each in standard deviations. */
export type SharedErrors = Readonly<Record<SharedError, number>>;

export const drawnErrors = (chance: Seeded): SharedErrors =>
  Object.fromEntries(SHARED.map((error) => [error, chance.normal()])) as Record<SharedError, number>;

/** Which cause it is, by the weights of the catalogue: its place. */
export function drawnCause(hypotheses: readonly Hypothesis[], chance: Seeded): number {
  let left = chance.next() * hypotheses.reduce((sum, { weight }) => sum + weight, 0);
  const found = hypotheses.findIndex(({ weight }) => (left -= weight) < 0);
  return found < 0 ? hypotheses.length - 1 : found;
}

/** What is wrong with a rig, and how far it has gone. */
export type Wrong = Pick<Hypothesis, 'change' | 'reads'> & { readonly severity: number };

/**
 * What instruments without error would show of a rig with all that is wrong with it, on a day of its own; solved in full.
 *
 * @param handled what else is done to it
 */
export function truthWith(
  rig: Rig,
  wrong: readonly Wrong[],
  errors: SharedErrors,
  shared: SharedSd,
  handled: (change: RigChange) => RigChange = (change) => change,
): Outcome<Truth> {
  const changed = wrong.reduce<RigChange>((sum, { change, severity }) => together(sum, change?.(severity, rig) ?? {}), {});
  const day = SOLVED_SHARED.reduce<RigChange>((sum, error) => together(sum, changedBy(error, errors[error] * shared[error])), changed);
  const solved = rig.solve(handled(day));
  if (!solved.ok) return solved;
  const plain = plainTruth(rig, solved.value);
  return ok(wrong.reduce<Truth>((truth, { reads, severity }) => ({ ...truth, ...reads?.(severity, truth) }), plain));
}

/**
 * What an instrument shows: the truth with the scale's own error, that of hand and instrument, and now and then a reading
 * that is bad.
 */
export function readWithErrors(kind: KindId, truth: Truth, errors: SharedErrors, shared: SharedSd, chance: Seeded): number {
  const { instrument, placeSd, badSpread } = READING_KINDS[kind];
  const seen = instrument ? truth[kind] * Math.exp(errors[instrument] * shared[instrument]) : truth[kind];
  const bad = chance.next() < BAD_SHARE ? badSpread * chance.normal() : 0;
  const u = scaled(kind, seen) + ownSd(kind, seen) * chance.normal() + placeSd * chance.normal() + bad;
  return bounded(kind, unscaled(kind, u));
}

/** Nobody writes down a temperature or a pH that cannot be. */
function bounded(kind: KindId, value: number): number {
  if (kind === 'temperature') return Math.min(60, Math.max(-5, value));
  return kind === 'pH' ? Math.min(14, Math.max(0, value)) : value;
}
