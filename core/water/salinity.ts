import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import type { Solute, SolutesMgL } from './solutes';
import { MOLAR_MASS } from './solutes';

/**
 * Practical salinity of sea water and its conductivity: the scale of 1978 (UNESCO 1981, coefficients recalled).
 * Exact for 0–35 °C and salinities of 2 to 42; the same formula holds to 75 within 1 %.
 */

const A = [0.008, -0.1692, 25.3851, 14.0941, -7.0261, 2.7081];
const B = [0.0005, -0.0056, -0.0066, -0.0375, 0.0636, -0.0144];
/** From which a tap is sea water, µS/cm. */
export const SEA_USCM = 20_000;
/** Conductivity of standard sea water (S 35, 15 °C), mS/cm. */
const STANDARD_MSCM = 42.914;

/** The scale is defined on temperatures of 1968. */
const t68 = (temperatureC: number): number => 1.00024 * temperatureC;

const polynomial = (coefficients: readonly number[], x: number): number =>
  coefficients.reduceRight((sum, coefficient) => sum * x + coefficient, 0);

/** Conductivity of standard sea water at a temperature against that at 15 °C. */
const ratioAt = (t: number): number => polynomial([0.6766097, 2.00564e-2, 1.104259e-4, -6.9698e-7, 1.0031e-9], t);

/** Practical salinity of sea water that conducts so much at a temperature in °C; conductivity in mS/cm. */
export function practicalSalinity(conductivityMScm: number, temperatureC: number): number {
  const t = t68(temperatureC);
  const q = Math.sqrt(conductivityMScm / (STANDARD_MSCM * ratioAt(t)));
  return polynomial(A, q) + ((t - 15) / (1 + 0.0162 * (t - 15))) * polynomial(B, q);
}

/** Conductivity of sea water of a practical salinity at a temperature in °C, mS/cm; NaN where the scale has no answer. */
export function seaConductivityMScm(salinity: number, temperatureC: number): number {
  const root = findRoot((ln) => practicalSalinity(Math.exp(ln), temperatureC) - salinity, Math.log(0.001), Math.log(400), 1e-10);
  return root ? Math.exp(root.x) : Number.NaN;
}

/** Weakest and strongest sea water the scale speaks for; to the last it was extended. */
export const SEA_SALINITY = { low: 2, high: 42, extended: 75 } as const;
/** Warmest sea water it speaks for, °C. */
export const SEA_WARMEST_C = 35;

/** Density of sea water at 25 °C, kg/L. Millero & Poisson 1981 (recalled). */
const seaDensity25 = (salinity: number): number =>
  0.997048 + 7.59238e-4 * salinity - 4.202e-6 * salinity ** 1.5 + 4.8314e-7 * salinity * salinity;

/** Chloride of sea water of salinity 35, mmol/kg. */
const CHLORIDE_35 = 546.71;
/** Chloride of sea water of a salinity, mmol per litre at 25 °C. */
const chlorideMmolL = (salinity: number): number => ((CHLORIDE_35 * salinity) / 35) * seaDensity25(salinity);

/** How far the proportions of a water may lie from those of the sea to be called sea water. */
const LIKE_THE_SEA = 0.1;
/** Sodium, magnesium and sulfate per chloride in the sea, mol/mol: those of the listed sea water (water section 15). */
const PER_CHLORIDE: readonly (readonly [Solute, number])[] = [
  ['Na', 11032 / 22.99 / (19830 / 35.453)],
  ['Mg', 1314 / 24.305 / (19830 / 35.453)],
  ['SO4', 2776 / 96.063 / (19830 / 35.453)],
];

/** Salinity of a water in the proportions of the sea, also of a brine made from it, by its chloride; null for any other water. */
export function seaSalinityOf(mgL: SolutesMgL): number | null {
  const chloride = mgL.Cl / MOLAR_MASS.Cl;
  if (!(chloride > chlorideMmolL(1))) return null;
  for (const [solute, perChloride] of PER_CHLORIDE)
    if (Math.abs(mgL[solute] / MOLAR_MASS[solute] / chloride / perChloride - 1) > LIKE_THE_SEA) return null;
  const root = findRoot((salinity) => chlorideMmolL(salinity) - chloride, 0, 300, 1e-9);
  return root?.x ?? null;
}

/** Salinity from a conductivity, with its range checked: names the reading when it lies outside. */
export function salinityFrom(conductivityUScm: number, temperatureC: number): Outcome<number> {
  const salinity = practicalSalinity(conductivityUScm / 1000, temperatureC);
  if (temperatureC < 0 || temperatureC > SEA_WARMEST_C)
    return fail(
      'temperatureC',
      temperatureC,
      `0 to ${SEA_WARMEST_C} °C`,
      `Salinity is defined from 0 to ${SEA_WARMEST_C} °C; the water has ${temperatureC} °C.`,
    );
  if (!(salinity >= SEA_SALINITY.low && salinity <= SEA_SALINITY.extended))
    return fail(
      'reading',
      conductivityUScm,
      `sea water of salinity ${SEA_SALINITY.low} to ${SEA_SALINITY.extended}`,
      `${Math.round(conductivityUScm)} µS/cm at ${temperatureC} °C is no sea water of salinity ${SEA_SALINITY.low} to ${SEA_SALINITY.extended}.`,
    );
  return ok(salinity);
}
