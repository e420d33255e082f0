/**
 * The feed channel of a spiral element: how fast salt diffuses back from the wall, and what pressure
 * the flow costs. Schock & Miquel 1987; empty-channel floor Shah & London 1978; viscosity a Vogel-type
 * fit, 1 % low at 5 °C (all recalled).
 */
import { vogelPaS } from '../water';

/** Pa·s; concentration in mg/L. */
export function feedViscosity(temperatureC: number, tdsMgL: number): number {
  return vogelPaS(temperatureC) * (1 + 2.2e-6 * tdsMgL);
}

/** kg/m³ (25 °C base). */
export function feedDensity(tdsMgL: number): number {
  return 997.05 + 0.74e-3 * tdsMgL;
}

/** Diffusivity of NaCl, m²/s, by Stokes–Einstein from 1.50e-9 at 25 °C. */
export function saltDiffusivity(temperatureC: number): number {
  return (1.5e-9 * ((temperatureC + 273.15) / 298.15) * feedViscosity(25, 0)) / feedViscosity(temperatureC, 0);
}

/** Open share of a spacer-filled channel. */
const POROSITY = 0.89;
/** Sherwood number of the empty channel: keeps back-diffusion finite at rest. */
const SHERWOOD_FLOOR_CUBED = 8.235 ** 3;

export interface Channel {
  readonly crossSectionM2: number;
  readonly hydraulicDiameterM: number;
  readonly lengthM: number;
}

/** Channel of an element: half the membrane area each side of a spacer of height `spacerMm`. */
export function channelOf(element: { areaM2: number; lengthM: number; spacerMm: number }): Channel {
  const h = element.spacerMm / 1000;
  return {
    crossSectionM2: (element.areaM2 / (2 * element.lengthM)) * h * POROSITY,
    hydraulicDiameterM: (4 * POROSITY * h) / (2 + 8 * (1 - POROSITY)),
    lengthM: element.lengthM,
  };
}

/** Fluid constants that change only with temperature, computed once per march. */
export interface FeedFluid {
  readonly viscosityClean: number;
  readonly diffusivity: number;
}

export function feedFluid(temperatureC: number): FeedFluid {
  return { viscosityClean: feedViscosity(temperatureC, 0), diffusivity: saltDiffusivity(temperatureC) };
}

/**
 * Mass transfer coefficient (L/(m²·h)) and pressure loss of the whole element (bar) at a flow.
 *
 * @param flowLPerH bulk flow in the channel
 * @param tdsMgL bulk concentration
 */
export function channelState(
  channel: Channel,
  fluid: FeedFluid,
  flowLPerH: number,
  tdsMgL: number,
): { transferLmh: number; lossBar: number } {
  const velocity = flowLPerH / 3.6e6 / channel.crossSectionM2;
  const density = feedDensity(tdsMgL);
  const viscosity = fluid.viscosityClean * (1 + 2.2e-6 * tdsMgL);
  const reynolds = (density * velocity * channel.hydraulicDiameterM) / viscosity;
  const schmidt = viscosity / (density * fluid.diffusivity);
  const sherwoodCubed = (0.065 * reynolds ** 0.875) ** 3 * schmidt ** 0.75 + SHERWOOD_FLOOR_CUBED;
  const transfer = (Math.cbrt(sherwoodCubed) * fluid.diffusivity) / channel.hydraulicDiameterM;
  const friction = 6.23 * reynolds ** -0.3;
  const lossPa = ((friction * density * velocity * velocity) / (2 * channel.hydraulicDiameterM)) * channel.lengthM;
  return { transferLmh: transfer * 3.6e6, lossBar: lossPa / 1e5 };
}
