import type { Reading, Train } from '../file';
import { DAY_MS } from '../quantity';

/**
 * Litres that passed up to a reading since a moment: the meter's difference, or the design use where there is
 * no meter. A reading before that moment counts for its share of the time.
 */
export function litresSince(
  sinceMs: number,
  from: Reading | null,
  to: Reading,
  designPerDay: number,
): { readonly litres: number; readonly metered: boolean } {
  const toMs = Date.parse(to.at);
  if (from && from.meterL !== null && to.meterL !== null && to.meterL >= from.meterL) {
    const fromMs = Date.parse(from.at);
    const share = toMs > fromMs ? Math.min(1, (toMs - sinceMs) / (toMs - fromMs)) : 1;
    return { litres: (to.meterL - from.meterL) * share, metered: true };
  }
  return { litres: ((toMs - sinceMs) / DAY_MS) * designPerDay, metered: false };
}

/** A counter set anew shows what it is set to, give or take what ran through while it was set. */
const SET_WITHIN = 0.05;

/**
 * Readings with the litres that had passed in place of what the meter showed: one that counts down, may go below nought
 * and is set anew, and one that begins again behind its last figure, both become a total that only rises. A plain meter
 * stays as it was read.
 *
 * @param ordered readings, oldest first
 */
export function countedUp(ordered: readonly Reading[], { counts, setToL, rollsOverL }: Train['meter']): readonly Reading[] {
  if (counts === 'up' && rollsOverL === null) return ordered;
  let before: number | null = null;
  let total = 0;
  return ordered.map((reading) => {
    const shown = reading.meterL;
    if (shown === null) return reading;
    if (before === null) total = counts === 'up' ? shown : Math.max(0, (setToL ?? shown) - shown);
    else if (counts === 'down') total += shown <= before ? before - shown : Math.max(0, (setToL ?? shown) - shown);
    else total += shown >= before ? shown - before : rollsOverL! - before + shown;
    before = shown;
    return { ...reading, meterL: total };
  });
}

/** Whether a meter that counts down can show this after that: less, or what it is set to. */
export const isCountedDown = (shown: number, before: number, { setToL }: Train['meter']): boolean =>
  shown <= before || (setToL === null ? false : Math.abs(shown - setToL) <= SET_WITHIN * setToL);

/**
 * Readings with what the meter had counted at each: between two at which it was read, in a line; where it was never read
 * before or after, or went back, nothing is put in.
 *
 * @param ordered readings, oldest first
 */
export function meterFilled(ordered: readonly Reading[]): Reading[] {
  const filled = [...ordered];
  let last = -1;
  ordered.forEach((reading, i) => {
    if (reading.meterL === null) return;
    const before = ordered[last];
    if (before && before.meterL! <= reading.meterL) {
      const [fromMs, untilMs] = [Date.parse(before.at), Date.parse(reading.at)];
      for (let k = last + 1; k < i; k++) {
        const share = untilMs > fromMs ? (Date.parse(ordered[k]!.at) - fromMs) / (untilMs - fromMs) : 0;
        filled[k] = { ...ordered[k]!, meterL: before.meterL! + share * (reading.meterL - before.meterL!) };
      }
    }
    last = i;
  });
  return filled;
}

/**
 * Product since a moment up to now: by the meter between readings, by the planned use before the first, after the last
 * and wherever the meter was not read.
 *
 * @param ordered readings, oldest first
 */
export function productSinceL(ordered: readonly Reading[], sinceMs: number, nowMs: number, designPerDay: number): number {
  let litres = 0;
  let from = sinceMs;
  const filled = meterFilled(ordered);
  let previous = filled.findLast((reading) => Date.parse(reading.at) < sinceMs) ?? null;
  for (const reading of filled) {
    const at = Date.parse(reading.at);
    if (at < sinceMs || at > nowMs) continue;
    litres += litresSince(from, previous, reading, designPerDay).litres;
    previous = reading;
    from = at;
  }
  return litres + (Math.max(0, nowMs - from) / DAY_MS) * designPerDay;
}
