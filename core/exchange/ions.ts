import { MOLAR_MASS, type Solute, type Water } from '../water';

/** The ions a bed takes up, with how strongly each is held. Weakest first on either side. */

/** Cations, with their preference over lithium on 8 % DVB sulfonic resin (Bonner & Smith 1957, recalled). */
export const CATION_ROWS = {
  Na: { valence: 1, preference: 1.98 },
  NH4N: { valence: 1, preference: 2.55 },
  K: { valence: 1, preference: 2.9 },
  Mg: { valence: 2, preference: 3.29 },
  // Iron(II) is not in the table: cobalt stands beside it (our value).
  Fe: { valence: 2, preference: 3.74 },
  Ca: { valence: 2, preference: 5.16 },
  Sr: { valence: 2, preference: 6.51 },
  Ba: { valence: 2, preference: 11.5 },
} as const satisfies Partial<Record<Solute, { valence: 1 | 2; preference: number }>>;

/**
 * Anions, with their separation factor over chloride on type I resin at 5–10 meq/L (Clifford, recalled). Total carbon,
 * silica, boron and phosphate take one equivalent a mole. Silica 0.05 (0.02–0.1), boron and phosphate are our values,
 * unsure; what matters is the order.
 */
export const ANION_ROWS = {
  B: { valence: 1, preference: 0.03 },
  SiO2: { valence: 1, preference: 0.05 },
  F: { valence: 1, preference: 0.07 },
  PO4: { valence: 1, preference: 0.25 },
  carbon: { valence: 1, preference: 0.27 },
  Cl: { valence: 1, preference: 1 },
  NO3: { valence: 1, preference: 3.2 },
  SO4: { valence: 2, preference: 9.1 },
  // Humic anions are taken and not given up again (our value).
  organic: { valence: 1, preference: 30 },
} as const satisfies Partial<Record<Solute | 'carbon', { valence: 1 | 2; preference: number }>>;

export type CationId = keyof typeof CATION_ROWS;
export type AnionId = keyof typeof ANION_ROWS;
/** An ion of either side; total inorganic carbon goes as one. */
export type IonId = CationId | AnionId;

export const CATION_IDS = Object.keys(CATION_ROWS) as CationId[];
export const ANION_IDS = Object.keys(ANION_ROWS) as AnionId[];

const valenceOf = (ion: IonId): number => (ion in CATION_ROWS ? CATION_ROWS[ion as CationId] : ANION_ROWS[ion as AnionId]).valence;

/** Equivalents of an ion a litre of water brings, meq/L. */
export const ionMeqL = (water: Water, ion: IonId): number =>
  ion === 'carbon' ? Math.max(0, water.carbonMmolL) : (valenceOf(ion) * Math.max(0, water.mgL[ion])) / MOLAR_MASS[ion];

/** Anions a bed takes whatever its kind; carbon, silica and boron meet a strong base only. */
const STRONG_IDS = ['Cl', 'SO4', 'NO3', 'F', 'PO4', 'organic'] as const satisfies readonly AnionId[];
const sumMeqL = (water: Water, ids: readonly IonId[]): number => ids.reduce((sum, id) => sum + ionMeqL(water, id), 0);
/** All cations a litre of water brings, meq/L. */
export const cationsMeqL = (water: Water): number => sumMeqL(water, CATION_IDS);
/** All strong anions, meq/L. */
export const strongAnionsMeqL = (water: Water): number => sumMeqL(water, STRONG_IDS);

/** What neither a bed nor a stack takes. */
export const UNTAKEN: readonly Solute[] = ['chlorine', 'chloramine'];

/** mg/L (in the basis the solute is stored in), or mmol/L of carbon, that so many meq/L are. */
export const amountOf = (ion: IonId, meqL: number): number => (ion === 'carbon' ? meqL : (meqL * MOLAR_MASS[ion]) / valenceOf(ion));

/** What an ion is called in a sentence. */
const SAID: Readonly<Record<IonId, string>> = {
  Na: 'sodium',
  NH4N: 'ammonium',
  K: 'potassium',
  Mg: 'magnesium',
  Fe: 'iron',
  Ca: 'calcium',
  Sr: 'strontium',
  Ba: 'barium',
  B: 'boron',
  SiO2: 'silica',
  F: 'fluoride',
  PO4: 'phosphate',
  carbon: 'carbon dioxide',
  Cl: 'chloride',
  NO3: 'nitrate',
  SO4: 'sulfate',
  organic: 'organic matter',
};

/** Share of a side's load below which an ion does not make the end of it. */
const COUNTS = 0.02;

/**
 * The ion with which a side of a resin begins to let through: the one held most weakly, of those that make up a part of
 * what it takes up. The others push it along in front of them.
 *
 * @returns its name in a sentence; null for a water that brings nothing to that side
 */
export function firstThrough(feed: Water, side: 'cation' | 'anion'): string | null {
  const ids: readonly IonId[] = side === 'cation' ? CATION_IDS : ANION_IDS;
  const total = ids.reduce((sum, id) => sum + ionMeqL(feed, id), 0);
  // Both lists are in the order of preference, weakest first.
  const first = total > 0 ? ids.find((id) => ionMeqL(feed, id) / total >= COUNTS) : undefined;
  return first ? SAID[first] : null;
}
