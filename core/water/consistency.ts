import { CACO3_G_PER_EQ, MOLAR_MASS, solutesMgL, type Solute } from './solutes';
import { alkalinityByBalance, settleWater, waterFromPH } from './water';

export interface KnownOfWater {
  readonly mgL?: Partial<Record<Solute, number>>;
  readonly hardnessMgL?: number | undefined;
  readonly alkalinityMgL?: number | undefined;
  readonly pH: number;
}

/**
 * The lowest conductivity at 25 °C any neutral water with these measured values can have, µS/cm.
 * Hardness is taken as calcium; missing cations are filled with sodium; missing anions with
 * bicarbonate, or with chloride when the alkalinity is measured.
 */
export function lowestEc25(known: KnownOfWater): number {
  const mgL: Partial<Record<Solute, number>> = { ...known.mgL };
  if (known.hardnessMgL !== undefined) {
    const magnesium = ((mgL.Mg ?? 0) / MOLAR_MASS.Mg) * 2;
    const calcium = ((mgL.Ca ?? 0) / MOLAR_MASS.Ca) * 2;
    const missing = known.hardnessMgL / CACO3_G_PER_EQ - magnesium - calcium;
    if (missing > 0) mgL.Ca = ((calcium + missing) * MOLAR_MASS.Ca) / 2;
  }
  // Positive: cations exceed the strong anions by this much, meq/L.
  const excess = alkalinityByBalance(solutesMgL(mgL)) / CACO3_G_PER_EQ;
  const alkalinity = (known.alkalinityMgL ?? Math.max(0, excess * CACO3_G_PER_EQ)) / CACO3_G_PER_EQ;
  const short = alkalinity - excess;
  if (short > 0) mgL.Na = (mgL.Na ?? 0) + short * MOLAR_MASS.Na;
  else mgL.Cl = (mgL.Cl ?? 0) - short * MOLAR_MASS.Cl;
  const water = waterFromPH(mgL, alkalinity * CACO3_G_PER_EQ, known.pH, 25);
  if (!water.ok) return 0;
  const state = settleWater(water.value, known.pH);
  return state.ok ? state.value.ec25UScm : 0;
}
