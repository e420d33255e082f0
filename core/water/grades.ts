import { closedSpecies, molalWater, speciesTdsMgL, type Water } from './water';

export type HardnessSchool = 'usgs' | 'beverage';

/** Word for a hardness in mg/L as CaCO3. USGS: an edge belongs to the softer class. Beverage trade: common practice. */
export function hardnessWord(hardnessMgL: number, school: HardnessSchool = 'usgs'): string {
  if (school === 'beverage') return hardnessMgL < 180 ? 'soft enough' : hardnessMgL <= 300 ? 'moderately hard' : 'very hard';
  if (hardnessMgL <= 60) return 'soft';
  if (hardnessMgL <= 120) return 'moderately hard';
  return hardnessMgL <= 180 ? 'hard' : 'very hard';
}

/** What the scale of hardness words is called: a word never stands without it. */
export const HARDNESS_SCALES: Readonly<Record<HardnessSchool, string>> = { usgs: 'USGS scale', beverage: 'beverage trade’s scale' };

/** Word for the taste of dissolved solids in mg/L; an edge belongs to the stronger class. WHO (recalled). */
export function palatabilityWord(tdsMgL: number): string {
  if (tdsMgL < 300) return 'excellent';
  if (tdsMgL < 600) return 'good';
  if (tdsMgL < 900) return 'fair';
  return tdsMgL < 1200 ? 'poor' : 'unacceptable';
}

/** Share of a bicarbonate's mass that stays when it is dried: the rest leaves as CO2 and water. */
const DRIED_BICARBONATE = 0.4917;

/** What stays in a dish dried at 180 °C, mg/L: the sum of ions with bicarbonate turned to carbonate. */
export function dryResidueMgL(water: Water): number {
  const molal = molalWater(water);
  const settled = closedSpecies(molal, 25);
  if (!settled.ok) return molal.tdsMgL;
  const s = settled.value;
  const bicarbonateMgL = 61_017 * molal.waterKgPerL25 * (s.hco3 + s.caHco3 + s.mgHco3 + s.naHco3);
  return speciesTdsMgL(water.mgL, s, molal.waterKgPerL25) - (1 - DRIED_BICARBONATE) * bicarbonateMgL;
}

/** Temporary hardness goes with boiling; the rest is permanent. mg/L as CaCO3. */
export function hardnessParts(hardnessMgL: number, alkalinityMgL: number): { readonly temporary: number; readonly permanent: number } {
  const temporary = Math.min(hardnessMgL, Math.max(0, alkalinityMgL));
  return { temporary, permanent: hardnessMgL - temporary };
}
