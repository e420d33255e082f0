import type { Reading, System } from '../file';
import { normalCumulative } from '../numeric';
import { smallestStepUScm } from '../water';
import { inOrder, probeEc25 } from './series';

/** What is read behind a row of resin, against the goal: whether it was past it (science of logs, 5.3). */
export interface OutletPoint {
  readonly ms: number;
  readonly readingId: string;
  readonly ec25UScm: number;
  /** Chance that the product was past the goal, by this reading alone. */
  readonly past: number;
}

/** Own scatter of a meter, as a share (2.1). */
const METER_SD = 0.02;
/** A reading this sure counts as past the goal, or as clean. */
export const PAST = 0.9;
export const CLEAN = 0.1;
export const HALF = 0.5;

/** Readings of the product, oldest first, each with the chance that it was past the goal. */
export function outletPoints(system: System, readings: readonly Reading[], probeId: string, goalUScm: number): OutletPoint[] {
  return inOrder(readings).flatMap((reading) => {
    const ec25UScm = probeEc25(reading, probeId, system.instruments);
    const value = reading.values.find((one) => one.probeId === probeId);
    const meter = value && system.instruments.find(({ id }) => id === value.instrumentId);
    if (ec25UScm === null || !meter) return [];
    return [{ ms: Date.parse(reading.at), readingId: reading.id, ec25UScm, past: chancePast(ec25UScm, goalUScm, smallestStepUScm(meter)) }];
  });
}

/** Chance that what showed as a figure was past a goal: its last digit hides half a step either way, its scatter a share. */
export function chancePast(shownUScm: number, goalUScm: number, stepUScm: number): number {
  const sd = Math.hypot(METER_SD * shownUScm, stepUScm / Math.sqrt(12));
  return normalCumulative((shownUScm - goalUScm) / Math.max(sd, 1e-9));
}

/** The last of some readings that was clean by half at least. */
export const lastClean = (points: readonly OutletPoint[]): OutletPoint | undefined => points.findLast(({ past }) => past < HALF);

/**
 * First reading of a stretch from which on the product stays past the goal: sure alone, or half sure and the next one too;
 * a clean reading after it takes it back. Null where it never does.
 */
export function crossingOf(points: readonly OutletPoint[]): number | null {
  let first: number | null = null;
  points.forEach(({ past }, i) => {
    if (past < CLEAN) first = null;
    else if (first === null && (past >= PAST || (past >= HALF && (points[i + 1]?.past ?? 0) >= HALF))) first = i;
  });
  return first;
}
