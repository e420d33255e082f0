import { densityKgPerL, equilibria, vogelPaS } from '../water';

/**
 * Carbon dioxide between water and a gas that meets it: what both hold at rest, and how far water comes that way. A
 * membrane degasser (`degasser.ts`) and aeration in the open (`aeration.ts`) go by it.
 */

/** Molar mass of CO2, g/mol. */
export const CO2_G_PER_MOL = 44.01;
const KELVIN = 273.15;
/** Gas constant, L·atm/(mol·K). */
const R_L_ATM = 0.082057;
export const ATM_BAR = 1.01325;

/** Vapour pressure of water, bar. Magnus form (Alduchov & Eskridge 1996, recalled). */
export const vapourBar = (temperatureC: number): number => 0.0061094 * Math.exp((17.625 * temperatureC) / (temperatureC + 243.04));

/** Concentration in the gas over concentration in the water at rest. Henry's constant by Plummer & Busenberg 1982. */
export const gasOverWater = (temperatureC: number): number =>
  1 / (equilibria(temperatureC).kh * densityKgPerL(temperatureC) * R_L_ATM * (temperatureC + KELVIN));

/** Free CO2 at rest with a gas that holds so much of it, mmol/L. The gas is wet; pressure absolute. */
export const atRestMmolL = (ppm: number, gasBar: number, temperatureC: number): number =>
  (1000 * equilibria(temperatureC).kh * densityKgPerL(temperatureC) * ppm * 1e-6 * (gasBar - vapourBar(temperatureC))) / ATM_BAR;

/** Litres of dry gas at 0 °C and 1.01325 bar as litres at a temperature and pressure, wet. */
export const gasVolumeL = (normalL: number, gasBar: number, temperatureC: number): number =>
  (normalL * ((temperatureC + KELVIN) / KELVIN) * ATM_BAR) / (gasBar - vapourBar(temperatureC));

/** How much the gas can carry off against what the water brings: S; above 1 it is not what limits. */
export const strippingFactor = (gasLPerH: number, waterLPerH: number, temperatureC: number): number =>
  (gasOverWater(temperatureC) * gasLPerH) / waterLPerH;

/** Nearer to 1 than this and the law's two exponentials are one. */
const EVEN = 1e-9;

/**
 * Share of what is above rest that is left, counter-current, by transfer units and stripping factor: exact for a linear
 * equilibrium (Colburn; Kremser; recalled). 1 where no gas flows.
 */
export function shareLeft(transferUnits: number, stripping: number): number {
  if (stripping <= 0) return 1;
  if (!Number.isFinite(stripping)) return Math.exp(-transferUnits);
  if (Math.abs(1 - 1 / stripping) < EVEN) return 1 / (1 + transferUnits);
  const e = Math.exp(-transferUnits * (1 - 1 / stripping));
  return ((1 - 1 / stripping) * e) / (1 - e / stripping);
}

/** Transfer units behind a share left. */
export const transferUnitsFor = (left: number, stripping: number): number =>
  Math.abs(1 - 1 / stripping) < EVEN ? 1 / left - 1 : Math.log((1 - 1 / stripping) / left + 1 / stripping) / (1 - 1 / stripping);

/** Diffusivity in water relative to 25 °C: 0.651 at 10 °C. */
export const diffusivityShare = (temperatureC: number): number =>
  ((temperatureC + KELVIN) / (25 + KELVIN)) * (vogelPaS(25) / vogelPaS(temperatureC));

/** Transfer in the water film relative to 25 °C: 0.72 at 10 °C. */
export const filmShare = (temperatureC: number): number => {
  const kinematic = (t: number): number => vogelPaS(t) / densityKgPerL(t);
  return diffusivityShare(temperatureC) ** 0.67 * (kinematic(temperatureC) / kinematic(25)) ** -0.09;
};
