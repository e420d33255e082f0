import { findRoot } from '../numeric';
import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { feedDensity, feedViscosity } from './channel';

/** A capillary flow restrictor: a length of narrow tube in the waste line. */
export interface Restrictor {
  readonly lengthMm: number;
  readonly boreMm: number;
}

/** Entrance 0.5 and exit 1.0 velocity heads. */
const END_LOSSES = 1.5;

/**
 * Friction factor of a tube: laminar, Blasius, and a smooth passage between them, so that pressure
 * rises strictly with flow.
 */
export function frictionFactor(reynolds: number): number {
  const laminar = 64 / reynolds;
  if (reynolds <= 2000) return laminar;
  const turbulent = 0.3164 * reynolds ** -0.25;
  if (reynolds >= 4000) return turbulent;
  const x = (reynolds - 2000) / 2000;
  const w = x * x * (3 - 2 * x);
  return (1 - w) * laminar + w * turbulent;
}

function tubeFlow(
  boreMm: number,
  flowLPerH: number,
  temperatureC: number,
  tdsMgL: number,
): { headPa: number; friction: number; reynolds: number } {
  const d = boreMm / 1000;
  const velocity = flowLPerH / 3.6e6 / ((Math.PI * d * d) / 4);
  const density = feedDensity(tdsMgL);
  const reynolds = (density * velocity * d) / feedViscosity(temperatureC, tdsMgL);
  return { headPa: (density * velocity * velocity) / 2, friction: frictionFactor(reynolds), reynolds };
}

/** Pressure a restrictor takes at a flow, bar. Household ones are turbulent: flow goes with length to the power −0.42. */
export function restrictorPressureBar(restrictor: Restrictor, flowLPerH: number, temperatureC: number, tdsMgL = 0): number {
  if (flowLPerH <= 0) return 0;
  const { headPa, friction } = tubeFlow(restrictor.boreMm, flowLPerH, temperatureC, tdsMgL);
  return (((friction * restrictor.lengthMm) / restrictor.boreMm + END_LOSSES) * headPa) / 1e5;
}

function restrictorError(restrictor: Restrictor): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('boreMm', 'Restrictor bore', restrictor.boreMm, 0.2, 3, 'mm'),
    outOfRange('lengthMm', 'Restrictor length', restrictor.lengthMm, 10, 2000, 'mm'),
  );
}

/** Flow through a restrictor at a pressure drop, L/h. */
export function restrictorFlowLPerH(restrictor: Restrictor, pressureDropBar: number, temperatureC: number, tdsMgL = 0): Outcome<number> {
  const invalid = restrictorError(restrictor);
  if (invalid) return { ok: false, error: invalid };
  if (pressureDropBar <= 0) return ok(0);
  const root = findRoot(
    (lnQ) => restrictorPressureBar(restrictor, Math.exp(lnQ), temperatureC, tdsMgL) - pressureDropBar,
    Math.log(1e-4),
    Math.log(1e5),
    1e-12,
  );
  if (!root)
    return fail(
      'pressureDropBar',
      pressureDropBar,
      'a pressure this tube can pass',
      `No flow through this restrictor takes ${pressureDropBar} bar.`,
    );
  return ok(Math.exp(root.x));
}

/** Bore that passes a rated flow: what a label's "800 mL/min at 60 psi" means as a tube of that length. */
export function boreFromRating(flowLPerH: number, pressureBar: number, lengthMm: number, temperatureC: number): Outcome<number> {
  const root = findRoot(
    (d) => Math.log(restrictorPressureBar({ lengthMm, boreMm: d }, flowLPerH, temperatureC) / pressureBar),
    0.1,
    20,
    1e-10,
  );
  if (!root)
    return fail(
      'ratedFlowLPerH',
      flowLPerH,
      'a flow a tube of 0.1 to 20 mm bore can pass',
      `No bore passes ${flowLPerH} L/h at this pressure.`,
    );
  return ok(root.x);
}

/** Length of tube that takes a pressure at a flow, mm. */
export function restrictorLengthMm(
  boreMm: number,
  flowLPerH: number,
  pressureDropBar: number,
  temperatureC: number,
  tdsMgL = 0,
): Outcome<number> {
  const { headPa, friction } = tubeFlow(boreMm, flowLPerH, temperatureC, tdsMgL);
  const lengthMm = (((pressureDropBar * 1e5) / headPa - END_LOSSES) * boreMm) / friction;
  if (!(lengthMm > 0)) {
    return fail(
      'targetFlow',
      flowLPerH,
      'a smaller flow or a wider bore',
      `The bore alone passes less than ${flowLPerH} L/h at this pressure: fit a larger restrictor.`,
    );
  }
  return ok(lengthMm);
}
