import { fail, ok, outOfRange, type Outcome } from '../quantity';
import { equilibria } from './equilibria';
import { closedSpecies, molalWater, type Water } from './water';

/** Solids a water can be saturated with. */
export const MINERALS = ['calcite', 'aragonite', 'gypsum', 'anhydrite', 'barite', 'celestite', 'fluorite', 'silica'] as const;
export type Mineral = (typeof MINERALS)[number];

/** Hottest water for which saturation is computed, °C. */
export const HOTTEST_C = 130;

/** Solubility products at a temperature in °C; recalled from the source beside each. */
export function solubilityProducts(t: number): Readonly<Record<Mineral, number>> {
  const T = t + 273.15;
  const logT = Math.log10(T);
  const k = equilibria(t);
  return {
    calcite: k.calcite,
    aragonite: k.aragonite,
    // Nordstrom et al. 1990, less what brings it to the solubility handbooks print from 5 to 55 °C (recalled).
    gypsum: 10 ** (68.2401 - 3221.51 / T - 25.0627 * logT - 0.023 - 0.00075 * Math.max(0, t - 25)),
    anhydrite: 10 ** (197.52 - 8669.8 / T - 69.835 * logT),
    barite: 10 ** (136.035 - 7680.41 / T - 48.595 * logT),
    celestite: 10 ** (-6.63 - (-4340 / (8.314463 * Math.LN10)) * (1 / T - 1 / 298.15)),
    fluorite: 10 ** (66.348 - 4298.2 / T - 25.271 * logT),
    // Gunnarsson & Arnórsson 2000; 0–350 °C
    silica: 10 ** (-8.476 - 485.24 / T - 2.268e-6 * T * T + 3.068 * logT),
  };
}

/** log10(IAP/K) of each mineral; null where one of its ions is absent. */
export type Saturation = Readonly<Record<Mineral, number | null>>;

/**
 * Saturation of a closed water with the common scales at a temperature to 130 °C.
 * Ion pairs are counted; without CaSO4° gypsum would seem a third less soluble than it is.
 */
export function saturation(water: Water, temperatureC: number): Outcome<Saturation> {
  const invalid = outOfRange('temperatureC', 'Temperature', temperatureC, 0, HOTTEST_C, '°C');
  if (invalid) return { ok: false, error: invalid };
  const molal = molalWater(water);
  const settled = closedSpecies(molal, temperatureC);
  if (!settled.ok) return settled;
  const s = settled.value;
  const { gamma0, gamma1, gamma2 } = s;
  const products = solubilityProducts(temperatureC);
  const index = (activityProduct: number, mineral: Mineral): number | null =>
    activityProduct > 0 ? Math.log10(activityProduct / products[mineral]) : null;
  const ca = s.ca * gamma2;
  const so4 = s.so4 * gamma2;
  const co3 = s.co3 * gamma2;
  const f = s.f * gamma1;
  return ok({
    calcite: index(ca * co3, 'calcite'),
    aragonite: index(ca * co3, 'aragonite'),
    gypsum: index(ca * so4, 'gypsum'),
    anhydrite: index(ca * so4, 'anhydrite'),
    barite: index(s.ba * gamma2 * so4, 'barite'),
    celestite: index(s.sr * gamma2 * so4, 'celestite'),
    fluorite: index(ca * f * f, 'fluorite'),
    silica: index(s.h4sio4 * gamma0, 'silica'),
  });
}

/** Percent of saturation, 100·10^SI. */
export const percentOfSaturation = (index: number): number => 100 * 10 ** index;

/** What the hand sum needs. */
export interface HandIndexInput {
  readonly pH: number;
  readonly tdsMgL: number;
  readonly temperatureC: number;
  readonly calciumHardnessMgL: number;
  readonly alkalinityMgL: number;
}

/**
 * The Langelier index as worked by hand (classic formula, recalled): for comparison with hand sums only.
 * It runs 0.1–0.2 below the rigorous index of dilute waters, and keeps the cold pH when heated.
 */
export function langelierByHand(input: HandIndexInput): Outcome<number> {
  const { tdsMgL, calciumHardnessMgL, alkalinityMgL } = input;
  if (!(calciumHardnessMgL > 0) || !(alkalinityMgL > 0) || !(tdsMgL > 0))
    return fail(
      'calciumHardnessMgL',
      Math.min(calciumHardnessMgL, alkalinityMgL, tdsMgL),
      'above 0',
      'No calcite index: no calcium (or no alkalinity).',
    );
  const a = (Math.log10(tdsMgL) - 1) / 10;
  const b = -13.12 * Math.log10(input.temperatureC + 273) + 34.55;
  const c = Math.log10(calciumHardnessMgL) - 0.4;
  const d = Math.log10(alkalinityMgL);
  return ok(input.pH - (9.3 + a + b - c - d));
}

/** Ryznar's index, 2·pHs − pH, from the rigorous saturation index. An empirical index for distribution pipes. */
export const ryznarIndex = (pH: number, calciteIndex: number): number => pH - 2 * calciteIndex;

/** What Ryznar's index is taken to say (recalled). */
export function ryznarWord(index: number): string {
  if (index < 5.5) return 'heavy scale';
  if (index < 6.2) return 'scale';
  if (index <= 6.8) return 'about neutral';
  return index <= 8.5 ? 'a corrosive tendency' : 'strongly corrosive';
}
