import { findRoot } from '../numeric';
import { fail, ok, outOfRange, type Outcome } from '../quantity';
import { equilibria } from './equilibria';
import { HOTTEST_C } from './saturation';
import type { Species } from './distribution';
import { HARDNESS_PER_MG, MOLAR_MASS } from './solutes';
import { closedSpecies, molalWater, speciesTdsMgL, type MolalWater, type Water } from './water';

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
  return { index: indexOf(species.value, temperatureC), pH: species.value.pH };
}

/** log10(IAP/K) of calcite. */
const indexOf = (s: Species, temperatureC: number): number =>
  Math.log10((s.ca * s.gamma2 * s.co3 * s.gamma2) / equilibria(temperatureC).calcite);

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

/**
 * pK2* − pKsp* of calcite in sea water: Lueker et al. 2000 and Mucci 1983 (recalled).
 *
 * @param salinity g/kg; sound for 5–45 and 5–40 °C, extrapolated to 80
 */
export function seaCalciteK(salinity: number, temperatureC: number): number {
  const T = temperatureC + 273.15;
  const S = salinity;
  const pK2 = 471.78 / T + 25.929 - 3.16967 * Math.log(T) - 0.01781 * S + 0.0001122 * S * S;
  const logKsp =
    Math.log10(equilibria(temperatureC).calcite) +
    (-0.77712 + 0.0028426 * T + 178.34 / T) * Math.sqrt(S) -
    0.07711 * S +
    0.0041249 * S ** 1.5;
  return pK2 + logKsp;
}

/** A meter calibrated in ordinary buffers reads about so much above the pH scale of the sea constants. */
const TOTAL_SCALE_SHIFT = 0.13;
/** Below the first the rigorous index stands alone, above the second that of the sea, mg/L. */
const BLEND_MG_L = { from: 5000, to: 20_000 } as const;

/** Share of the sea's index in the one that is acted on: a smooth step in the logarithm of what is dissolved. */
function seaShare(tdsMgL: number): number {
  const x = Math.log(tdsMgL / BLEND_MG_L.from) / Math.log(BLEND_MG_L.to / BLEND_MG_L.from);
  const within = Math.min(1, Math.max(0, x));
  return within * within * (3 - 2 * within);
}

/** Whether sulfate outweighs chloride in a strong water: the constants of the sea do not fit it, and its index is ±0.3. */
export const isSulfateBrine = ({ mgL, alkalinityMgL }: Water): boolean =>
  (2 * mgL.SO4) / MOLAR_MASS.SO4 > mgL.Cl / MOLAR_MASS.Cl && molalWater({ mgL, alkalinityMgL, carbonMmolL: 0 }).tdsMgL > BLEND_MG_L.from;

/** Index by the constants of the sea, on kg of solution. */
function seaIndex(species: Species, molal: MolalWater, tdsMgL: number, temperatureC: number): number {
  const perKg = molal.waterKgPerL25 / (molal.waterKgPerL25 + tdsMgL / 1e6);
  const carbonate = species.hco3 + species.caHco3 + species.mgHco3 + species.naHco3 + 2 * (species.co3 + species.caCo3 + species.mgCo3);
  const salinity = (1000 * (tdsMgL / 1e6)) / (molal.waterKgPerL25 + tdsMgL / 1e6);
  const pHs = seaCalciteK(salinity, temperatureC) - Math.log10(molal.totals.ca * perKg) - Math.log10(carbonate * perKg);
  return species.pH - TOTAL_SCALE_SHIFT - pHs;
}

/**
 * The calcite index that is acted on, at any strength: the rigorous one of fresh water, the sea's in strong, and a
 * smooth passage between 5 and 20 g/L. Sulfate brines keep the rigorous one.
 */
export function actedCalciteIndex(water: Water, temperatureC: number): Outcome<number> {
  const missing = noCalcium(water) ?? tooHot(temperatureC);
  if (missing) return missing;
  const molal = molalWater(water);
  const settled = closedSpecies(molal, temperatureC);
  if (!settled.ok) return settled;
  const species = settled.value;
  const rigorous = indexOf(species, temperatureC);
  const tdsMgL = speciesTdsMgL(water.mgL, species, molal.waterKgPerL25);
  const share = isSulfateBrine(water) ? 0 : seaShare(tdsMgL);
  return ok(share === 0 ? rigorous : (1 - share) * rigorous + share * seaIndex(species, molal, tdsMgL, temperatureC));
}
