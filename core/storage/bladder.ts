import { BAR_PER_ATM, firstError, fail, ok, outOfRange, type Outcome } from '../quantity';

/** A bladder tank: gas that water pushes together. */
export interface BladderTank {
  /** Gas volume when empty, L. */
  readonly gasL: number;
  /** Gauge pressure when empty, bar; about 0.5 is usual. */
  readonly prechargeBar: number;
}

/** Gauge pressure of a bladder tank that holds so much water, bar (isothermal). */
export function bladderBar(tank: BladderTank, heldL: number): number {
  return ((tank.prechargeBar + BAR_PER_ATM) * tank.gasL) / (tank.gasL - heldL) - BAR_PER_ATM;
}

/** Water held at a gauge pressure, L; 0 below the precharge. */
export function bladderHeldL(tank: BladderTank, bar: number): number {
  return Math.max(0, tank.gasL * (1 - (tank.prechargeBar + BAR_PER_ATM) / (bar + BAR_PER_ATM)));
}

/** Share of line pressure at which an automatic shut-off closes (common practice). */
export const SHUT_OFF_SHARE = 2 / 3;

/**
 * Hours to fill a bladder tank from empty to a pressure against which the membrane makes less and less: Simpson's
 * rule over the volume, twelve intervals.
 *
 * @param productLPerH output against a back-pressure, L/h
 * @returns an error when the membrane stands still before the tank is at that pressure
 */
export function bladderFillH(
  tank: BladderTank,
  untilBar: number,
  productLPerH: (backPressureBar: number) => number,
): Outcome<{ heldL: number; hours: number }> {
  const invalid = firstError(
    outOfRange('gasL', 'Gas volume of the tank', tank.gasL, 0.1, 10_000, 'L'),
    outOfRange('prechargeBar', 'Precharge', tank.prechargeBar, 0, 10, 'bar'),
    outOfRange('untilBar', 'Shut-off pressure', untilBar, 0, 20, 'bar'),
  );
  if (invalid) return { ok: false, error: invalid };
  const heldL = bladderHeldL(tank, untilBar);
  const steps = 12;
  let sum = 0;
  for (let i = 0; i <= steps; i++) {
    const made = productLPerH(bladderBar(tank, (heldL * i) / steps));
    if (!(made > 0))
      return fail(
        'untilBar',
        untilBar,
        'a shut-off below the pressure at which the membrane stands still',
        `The membrane stands still before the tank is at ${untilBar.toFixed(1)} bar: it never fills.`,
      );
    sum += (i === 0 || i === steps ? 1 : i % 2 === 1 ? 4 : 2) / made;
  }
  return ok({ heldL, hours: (sum * heldL) / steps / 3 });
}
