import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { withAdded } from './mixing';
import { CACO3_G_PER_EQ, MOLAR_MASS } from './solutes';
import { hardnessOf, type Water } from './water';

/** Salts for putting minerals back, g/mol: as they are sold. */
const CALCIUM_CHLORIDE_DIHYDRATE = 147.015;
const MAGNESIUM_SULFATE_HEPTAHYDRATE = 246.475;
const BICARBONATE = { Na: 84.007, K: 100.115 } as const;

/** What the water shall have afterwards. */
export interface MineralTarget {
  /** Total hardness, mg/L as CaCO3. */
  readonly hardnessMgL: number;
  /** Share of the hardness to be added that is calcium, 0–1. */
  readonly calciumShare: number;
  /** mg/L as CaCO3. */
  readonly alkalinityMgL: number;
  readonly bicarbonate: 'Na' | 'K';
}

/** Salts to add, mg per litre of water. */
export interface MineralDose {
  /** CaCl2·2H2O. */
  readonly calciumChlorideMgL: number;
  /** MgSO4·7H2O. */
  readonly magnesiumSulfateMgL: number;
  readonly bicarbonateMgL: number;
  readonly bicarbonate: 'Na' | 'K';
}

/**
 * Salts that bring a water to a hardness and an alkalinity.
 *
 * @returns an error when the water already holds more than wanted: salts cannot take anything out
 */
export function mineralDose(water: Water, target: MineralTarget): Outcome<MineralDose> {
  const invalid = firstError(
    outOfRange('hardnessMgL', 'Hardness', target.hardnessMgL, 0, 2000, 'mg/L as CaCO₃'),
    outOfRange('alkalinityMgL', 'Alkalinity', target.alkalinityMgL, 0, 2000, 'mg/L as CaCO₃'),
    outOfRange('calciumShare', 'Calcium share', target.calciumShare, 0, 1),
  );
  if (invalid) return { ok: false, error: invalid };
  // A hair of hardness or alkalinity above the target is rounding, not a contradiction.
  const missingHardness = target.hardnessMgL - hardnessOf(water.mgL);
  const missingAlkalinity = target.alkalinityMgL - water.alkalinityMgL;
  if (missingHardness < -0.05)
    return fail(
      'hardnessMgL',
      target.hardnessMgL,
      `at least ${hardnessOf(water.mgL).toFixed(1)} mg/L as CaCO₃`,
      `The water already has more hardness than the target: ${hardnessOf(water.mgL).toFixed(1)} mg/L as CaCO₃ against ${target.hardnessMgL}. Blend with purer water first.`,
    );
  if (missingAlkalinity < -0.05)
    return fail(
      'alkalinityMgL',
      target.alkalinityMgL,
      `at least ${water.alkalinityMgL.toFixed(1)} mg/L as CaCO₃`,
      `The water already has more alkalinity than the target: ${water.alkalinityMgL.toFixed(1)} mg/L as CaCO₃ against ${target.alkalinityMgL}. Blend with purer water first.`,
    );
  const hardnessMmol = Math.max(0, missingHardness) / (2 * CACO3_G_PER_EQ);
  return ok({
    calciumChlorideMgL: target.calciumShare * hardnessMmol * CALCIUM_CHLORIDE_DIHYDRATE,
    magnesiumSulfateMgL: (1 - target.calciumShare) * hardnessMmol * MAGNESIUM_SULFATE_HEPTAHYDRATE,
    bicarbonateMgL: (Math.max(0, missingAlkalinity) / CACO3_G_PER_EQ) * BICARBONATE[target.bicarbonate],
    bicarbonate: target.bicarbonate,
  });
}

/** The water after the salts have dissolved, closed; let it stand open with `openToAir`. */
export function dosed(water: Water, dose: MineralDose): Water {
  const calcium = dose.calciumChlorideMgL / CALCIUM_CHLORIDE_DIHYDRATE;
  const magnesium = dose.magnesiumSulfateMgL / MAGNESIUM_SULFATE_HEPTAHYDRATE;
  const bicarbonate = dose.bicarbonateMgL / BICARBONATE[dose.bicarbonate];
  return withAdded(
    water,
    {
      Ca: calcium * MOLAR_MASS.Ca,
      Cl: 2 * calcium * MOLAR_MASS.Cl,
      Mg: magnesium * MOLAR_MASS.Mg,
      SO4: magnesium * MOLAR_MASS.SO4,
      [dose.bicarbonate]: bicarbonate * MOLAR_MASS[dose.bicarbonate],
    },
    bicarbonate,
  );
}
