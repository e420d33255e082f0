import { fail, ok, type Outcome } from '../quantity';

/** A tank that switches its unit on and off, exact between events (science of options, 7.2). */

export interface TankState {
  readonly levelL: number;
  readonly running: boolean;
  /** Hours since it last ran. */
  readonly restedH: number;
}
export interface TankSetting {
  readonly volumeL: number;
  /** Levels at which it starts and stops, as shares. */
  readonly onFraction: number;
  readonly offFraction: number;
}
/** What happened in a stretch of hours. */
export interface TankStep {
  readonly state: TankState;
  readonly madeL: number;
  readonly deliveredL: number;
  readonly unmetL: number;
  readonly ranH: number;
  /** How long it had rested at each start, h. */
  readonly rests: readonly number[];
}

const NEAR_L = 1e-9;
const MOST_EVENTS = 1000;

/** What is wrong with a setting; null where nothing is. */
export function tankIssue({ volumeL, onFraction, offFraction }: TankSetting): Outcome<never> | null {
  if (!(onFraction > 0 && onFraction < offFraction && offFraction <= 1))
    return fail(
      'onFraction',
      onFraction,
      `above 0 and below ${offFraction}`,
      `The tank starts at ${onFraction} and stops at ${offFraction}; accepted is 0 < start < stop ≤ 1.`,
    );
  return volumeL > 0 ? null : fail('volumeL', volumeL, 'above 0', `The tank holds ${volumeL} L; accepted is above 0.`);
}

/**
 * Lets a tank be drawn from at an even rate for some hours.
 *
 * @param production what the unit makes while it runs, L/h
 * @returns an error naming the setting where its band is too small to switch in
 */
export function stepTank(tank: TankSetting, start: TankState, demandLPerH: number, production: number, hours: number): Outcome<TankStep> {
  const onL = tank.onFraction * tank.volumeL;
  const offL = tank.offFraction * tank.volumeL;
  let { levelL, running, restedH } = start;
  let [madeL, unmetL, ranH, left] = [0, 0, 0, hours];
  const rests: number[] = [];
  for (let events = 0; left > 0; events++) {
    if (events > MOST_EVENTS)
      return fail(
        'onFraction',
        tank.onFraction,
        'further from where it stops',
        'The tank switches more than a thousand times an hour: its band is too small.',
      );
    if (!running && levelL <= onL + NEAR_L) {
      running = true;
      rests.push(restedH);
      restedH = 0;
    } else if (running && levelL >= offL - NEAR_L && production > demandLPerH) {
      running = false;
    }
    const net = (running ? production : 0) - demandLPerH;
    let step = left;
    let dry = false;
    if (running && net > 0) step = Math.min(left, Math.max(0, (offL - levelL) / net));
    else if (!running && net < 0) step = Math.min(left, Math.max(0, (levelL - onL) / -net));
    else if (running && net < 0 && levelL > NEAR_L) step = Math.min(left, levelL / -net);
    else if (running && net < 0) dry = true;
    if (dry) unmetL += -net * left;
    else levelL = Math.max(0, levelL + net * step);
    if (running) {
      madeL += production * step;
      ranH += step;
    } else restedH += step;
    left -= step;
    if (left < 1e-12) break;
  }
  return ok({ state: { levelL, running, restedH }, madeL, deliveredL: demandLPerH * hours - unmetL, unmetL, ranH, rests });
}
