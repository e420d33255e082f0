import type { Seeded } from '../../numeric';
import { ownSd, READING_KINDS, scaled, unscaled, type KindId } from '../kinds';
import { BAD_SHARE } from '../likelihood';
import type { Truth } from '../rig';
import { SHARED, type SharedError, type SharedSd } from '../shared';

/** Errors that several readings share, each in standard deviations. */
export type SharedErrors = Readonly<Record<SharedError, number>>;

export const drawnErrors = (chance: Seeded): SharedErrors =>
  Object.fromEntries(SHARED.map((error) => [error, chance.normal()])) as Record<SharedError, number>;

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
