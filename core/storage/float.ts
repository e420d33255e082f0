import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/** A tank whose float starts the unit at one level and stops it at another. */
export interface FloatTank {
  readonly volumeL: number;
  /** Shares of the volume. */
  readonly startShare: number;
  readonly stopShare: number;
}

export interface FloatCycle {
  readonly startsPerDay: number;
  readonly runHoursPerDay: number;
  /** Lowest level of the days counted, L; 0 when it ran dry. */
  readonly lowestL: number;
}

/**
 * Level of a tank event by event in closed form: at each hour's end the draw changes, in between the float switches at
 * its two levels. Starts full enough for the float to be off; the pattern is run twice and the second time counted.
 *
 * @param drawLPerH what is drawn in each hour of a day or a week
 * @param productionLPerH what the unit makes while it runs
 * @returns an error naming the float when it stops at or below where it starts
 */
export function floatCycle(tank: FloatTank, drawLPerH: readonly number[], productionLPerH: number): Outcome<FloatCycle> {
  const invalid = firstError(
    outOfRange('volumeL', 'Tank volume', tank.volumeL, 0.1, 100_000, 'L'),
    outOfRange('productionLPerH', 'Production', productionLPerH, 0, 1e6, 'L/h'),
  );
  if (invalid) return { ok: false, error: invalid };
  if (!(tank.stopShare > tank.startShare))
    return fail(
      'stopShare',
      tank.stopShare,
      `more than ${tank.startShare}`,
      `The float stops at ${Math.round(100 * tank.stopShare)} % and starts at ${Math.round(100 * tank.startShare)} %: it must stop above where it starts.`,
    );
  const [on, off] = [tank.startShare * tank.volumeL, tank.stopShare * tank.volumeL];
  let level = off;
  let filling = false;
  let lowestL = level;
  let [starts, runH] = [0, 0];
  const hours = drawLPerH.length;
  for (let hour = 0; hour < 2 * hours; hour++) {
    const draw = drawLPerH[hour % hours]!;
    const counted = hour >= hours;
    let left = 1;
    while (left > 0) {
      const net = (filling ? productionLPerH : 0) - draw;
      const target = filling ? off : on;
      // An empty tank stays empty while more is drawn than made.
      const reaches = filling ? net > 0 : net < 0;
      const span = reaches ? Math.min(left, Math.max(0, (target - level) / net)) : left;
      const switched = reaches && span < left;
      level = switched ? target : Math.max(0, level + net * span);
      if (counted) {
        if (filling) runH += span;
        lowestL = Math.min(lowestL, level);
        if (switched && !filling) starts += 1;
      }
      if (switched) filling = !filling;
      left -= span;
    }
  }
  const days = hours / 24;
  return ok({ startsPerDay: starts / days, runHoursPerDay: runH / days, lowestL });
}
