import { findRoot } from '../numeric';
import { fail, ok, outOfRange, type Outcome } from '../quantity';
import { equilibria } from './equilibria';
import { HOTTEST_C } from './saturation';
import { HARDNESS_PER_MG } from './solutes';
import { closedSpecies, molalWater, type MolalWater, type Water } from './water';

/** Saturation with calcite: how eager (index) and how much (mg/L as CaCO3). */
export interface CalciteState {
  /** log10(IAP/K); above 0 the water can scale. This is the rigorous Langelier index. */
  readonly saturationIndex: number;
  /** Calcium carbonate that would settle (positive) or dissolve (negative) in a closed vessel, mg/L. */
  readonly precipitationMgL: number;
  readonly pH: number;
}

/** log10(IAP/K) of calcite in a closed water at a temperature. */
function indexAt(molal: MolalWater, temperatureC: number, guess?: number): { index: number; pH: number } | null {
  const species = closedSpecies(molal, temperatureC, guess);
  if (!species.ok) return null;
  const s = species.value;
  return { index: Math.log10((s.ca * s.gamma2 * s.co3 * s.gamma2) / equilibria(temperatureC).calcite), pH: s.pH };
}

/** The molal water after x mol/kg of CaCO3 have left it. */
const without = (molal: MolalWater, x: number): MolalWater => ({
  ...molal,
  totals: { ...molal.totals, ca: molal.totals.ca - x },
  carbonMolPerKg: molal.carbonMolPerKg - x,
  alkalinityEqPerKg: molal.alkalinityEqPerKg - 2 * x,
});

const noCalcium = (water: Water): Outcome<never> | null =>
  water.mgL.Ca > 0 && water.alkalinityMgL > 0
    ? null
    : fail('mgL.Ca', water.mgL.Ca, 'calcium and alkalinity above 0', 'No calcite index: no calcium or no alkalinity.');

function tooHot(temperatureC: number): Outcome<never> | null {
  const error = outOfRange('temperatureC', 'Temperature', temperatureC, 0, HOTTEST_C, '°C');
  return error && { ok: false, error };
}

/** The most lime that can fall when steam or boiling carries the CO2 away: calcium or alkalinity, mg/L as CaCO3. */
export function steamedScaleMgL(water: Water): number {
  return Math.max(0, Math.min(water.mgL.Ca * HARDNESS_PER_MG.Ca, water.alkalinityMgL));
}

/** Saturation index of calcite at a temperature, closed vessel: carbon and alkalinity carried, pH solved anew. */
export function calciteIndex(water: Water, temperatureC: number): Outcome<number> {
  const missing = noCalcium(water) ?? tooHot(temperatureC);
  if (missing) return missing;
  const here = indexAt(molalWater(water), temperatureC);
  if (!here) return fail('carbonMmolL', water.carbonMmolL, 'a composition with a pH', 'No pH fits this water.');
  return ok(here.index);
}

/**
 * Index and precipitation potential of calcite in a closed vessel at a temperature to 130 °C.
 * Expect ±0.1 and ±5 mg/L at 125 °C, where the constants are extrapolated.
 */
export function calciteState(water: Water, temperatureC: number): Outcome<CalciteState> {
  const missing = noCalcium(water) ?? tooHot(temperatureC);
  if (missing) return missing;
  const molal = molalWater(water);
  const here = indexAt(molal, temperatureC);
  if (!here) return fail('carbonMmolL', water.carbonMmolL, 'a composition with a pH', 'No pH fits this water.');
  const state = (precipitationMgL: number): Outcome<CalciteState> => ok({ saturationIndex: here.index, precipitationMgL, pH: here.pH });
  if (Math.abs(here.index) < 1e-9) return state(0);

  const after = (x: number): number => indexAt(without(molal, x), temperatureC, here.pH)?.index ?? Number.NaN;
  const toMgL = (x: number): number => x * molal.waterKgPerL25 * 100_087;
  if (here.index > 0) {
    const most = Math.min(molal.totals.ca, molal.carbonMolPerKg) * (1 - 1e-9);
    const root = findRoot(after, 0, most, 1e-12, here.index, -99);
    return state(toMgL(root?.x ?? 0));
  }
  let far = -1e-4;
  while (after(far) < 0 && far > -1) far *= 2;
  const root = findRoot(after, far, 0, 1e-12);
  return state(toMgL(root?.x ?? 0));
}
