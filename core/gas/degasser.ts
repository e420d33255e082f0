import { vogelPaS } from '../water';
import { filmShare, shareLeft, strippingFactor, gasVolumeL, transferUnitsFor, atRestMmolL, CO2_G_PER_MOL, vapourBar } from './strip';

/**
 * Hollow fibres that take CO2 out of water: water outside, sweep gas or vacuum inside, against each other. The water film
 * governs.
 */

/** Exponent of the flow in the transfer units: cross-flow contactors give −0.58 (Baudot et al. 2001, recalled), larger ones −0.45 to −0.65 (Sengupta et al. 1998, recalled); ours. */
const FLOW_EXPONENT = -0.55;
/** A degasser nobody has a sheet of: transfer units at 170 L/h for each m² of fibre, 25 °C (a fit, ±40 %). */
const UNKNOWN_UNITS = { units: 2.5, lPerHM2: 170 } as const;
/** Loss grows with flow and viscosity (fit). */
const LOSS_EXPONENT = { flow: 1.7, viscosity: 0.3 } as const;
/** Gas pressure must stay so many times above that of water vapour. */
const VAPOUR_TIMES = 1.2;

/** A point a data sheet prints: transfer units at a flow and temperature. */
export interface UnitsAt {
  readonly units: number;
  readonly lPerH: number;
  readonly temperatureC: number;
}

/** Transfer units at another flow and temperature. */
export const degasserUnits = ({ units, lPerH, temperatureC }: UnitsAt, flowLPerH: number, atC: number): number =>
  (units * (flowLPerH / lPerH) ** FLOW_EXPONENT * filmShare(atC)) / filmShare(temperatureC);

/** What is taken where no sheet tells, by the surface of the fibres, m². */
export const usualUnits = (surfaceM2: number): UnitsAt => ({
  units: UNKNOWN_UNITS.units,
  lPerH: UNKNOWN_UNITS.lPerHM2 * surfaceM2,
  temperatureC: 25,
});

/** The gas side: litres an hour of dry gas at 0 °C and 1.01325 bar, its absolute pressure in the fibres, its CO2. */
export interface Sweep {
  readonly normalLPerH: number;
  readonly gasBar: number;
  readonly ppm: number;
}

/** Stripping factor of a sweep at a water flow. */
export const sweepFactor = ({ normalLPerH, gasBar }: Sweep, waterLPerH: number, temperatureC: number): number =>
  strippingFactor(gasVolumeL(normalLPerH, gasBar, temperatureC), waterLPerH, temperatureC);

/** Least absolute pressure of the gas: below it water boils in the fibres, bar. */
export const leastGasBar = (temperatureC: number): number => VAPOUR_TIMES * vapourBar(temperatureC);

/** Transfer units behind what a sheet prints: free CO2 in and out, mg/L, with the sweep it was measured with. */
export function unitsFromSheet(inMgL: number, outMgL: number, sweep: Sweep, flowLPerH: number, temperatureC: number): number {
  const rest = atRestMmolL(sweep.ppm, sweep.gasBar, temperatureC) * CO2_G_PER_MOL;
  return transferUnitsFor((outMgL - rest) / (inMgL - rest), sweepFactor(sweep, flowLPerH, temperatureC));
}

/** Free CO2 behind a degasser, mmol/L. */
export function degassedMmolL(co2MmolL: number, units: number, sweep: Sweep, flowLPerH: number, temperatureC: number): number {
  const rest = atRestMmolL(sweep.ppm, sweep.gasBar, temperatureC);
  return rest + (co2MmolL - rest) * shareLeft(units, sweepFactor(sweep, flowLPerH, temperatureC));
}

/** Loss on the water side at a flow and temperature, from one printed at 25 °C, bar. */
export const degasserLossBar = (
  printed: { readonly bar: number; readonly atLPerH: number },
  flowLPerH: number,
  temperatureC: number,
): number =>
  printed.bar * (flowLPerH / printed.atLPerH) ** LOSS_EXPONENT.flow * (vogelPaS(temperatureC) / vogelPaS(25)) ** LOSS_EXPONENT.viscosity;
