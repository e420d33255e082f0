import { ok, type Outcome } from '../quantity';
import { alkalinityByBalance, balanced, openToAir, waterFromPH, type Water } from './water';
import { eachSolute, type Solute, type SolutesMgL } from './solutes';

/** Kinds of supply, used to fill in what was not measured. */
export const CHARACTERS = ['municipal', 'chalk', 'softSurface', 'softened', 'brackish', 'seawater', 'rain'] as const;
export type Character = (typeof CHARACTERS)[number];

interface CharacterRow {
  readonly label: string;
  readonly says: string;
  readonly mgL: Partial<Record<Solute, number>>;
  /** Typical pH, or null when the water stands in balance with air. */
  readonly pH: number | null;
}

/** Typical compositions, mg/L, composed for this product; alkalinity follows from the charge balance. */
export const CHARACTER_ROWS: Readonly<Record<Character, CharacterRow>> = {
  municipal: {
    label: 'Mixed municipal',
    says: 'middling hardness, some sulfate and chloride',
    mgL: { Ca: 55, Mg: 9, Na: 28, K: 4, Cl: 38, SO4: 45, NO3: 12, F: 0.7, SiO2: 7 },
    pH: 7.7,
  },
  chalk: {
    label: 'Chalk or limestone well',
    says: 'hard, most of it with alkalinity',
    mgL: { Ca: 105, Mg: 5, Na: 12, K: 2, Cl: 22, SO4: 25, NO3: 25, F: 0.15, SiO2: 12 },
    pH: 7.4,
  },
  softSurface: {
    label: 'Soft lake or moorland',
    says: 'little of anything',
    mgL: { Ca: 12, Mg: 2, Na: 8, K: 1, Cl: 11, SO4: 10, NO3: 2, F: 0.1, SiO2: 4 },
    pH: 7.6,
  },
  softened: {
    label: 'Softened',
    says: 'hardness swapped for sodium',
    mgL: { Ca: 2, Mg: 0.3, Na: 139, K: 2, Cl: 22, SO4: 25, NO3: 25, F: 0.15, SiO2: 12 },
    pH: 7.5,
  },
  brackish: {
    label: 'Brackish well',
    says: 'sodium chloride and sulfate',
    mgL: { Ca: 120, Mg: 60, Na: 480, K: 12, Cl: 700, SO4: 350, NO3: 5, F: 1, SiO2: 20, Ba: 0.03, Sr: 2 },
    pH: 7.5,
  },
  seawater: {
    label: 'Seawater',
    says: 'open sea',
    mgL: { Ca: 422, Mg: 1314, Na: 11032, K: 409, Cl: 19830, SO4: 2776, F: 1.3, SiO2: 1, Sr: 8.1, B: 4.6 },
    pH: 8.1,
  },
  rain: {
    label: 'Rain',
    says: 'nearly pure, in balance with the air',
    mgL: { Ca: 0.4, Mg: 0.12, Na: 1, K: 0.1, Cl: 1.8, SO4: 1.2, NO3: 1, NH4N: 0.3 },
    pH: null,
  },
};

/** A character's solutes scaled by a factor. */
export function scaledSolutes(character: Character, factor: number): SolutesMgL {
  return eachSolute((solute) => (CHARACTER_ROWS[character].mgL[solute] ?? 0) * factor);
}

/**
 * A character's water at a strength (1 = as listed), at the character's pH and 25 °C.
 *
 * @param pH overrides the character's own
 */
export function characterWater(character: Character, factor: number, pH = CHARACTER_ROWS[character].pH): Outcome<Water> {
  const mgL = scaledSolutes(character, factor);
  if (pH !== null) return waterFromPH(mgL, alkalinityByBalance(mgL), pH, 25);
  const open = openToAir(balanced(mgL, 0, 25));
  return open.ok ? ok(open.value) : open;
}
