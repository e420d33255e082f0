import { molalWater, closedSpecies, MOLAR_MASS, balanced, type Solute, type Water } from '../water';
import { ok, type Outcome } from '../quantity';
import type { ElementRow } from './classes';

/**
 * What crosses a membrane as its own kind: charge, passage relative to NaCl (`B_i = B·r_i`), mass, and the
 * total it belongs to. Passages for polyamide RO and for NF: common-practice ordering, numbers recalled,
 * each uncertain by a factor of about 1.5 to 2. `Infinity` marks a dissolved gas, which passes whole.
 */
interface SpeciesRow {
  readonly charge: number;
  readonly passageRO: number;
  readonly passageNF: number;
  readonly gPerMol: number;
  readonly belongsTo: Solute | 'carbon' | 'balance';
}

const kind = (charge: number, passageRO: number, passageNF: number, gPerMol: number, belongsTo: SpeciesRow['belongsTo']): SpeciesRow => ({
  charge,
  passageRO,
  passageNF,
  gPerMol,
  belongsTo,
});

export const SPECIES_ROWS = {
  Ca: kind(2, 0.35, 0.3, 40.078, 'Ca'),
  Mg: kind(2, 0.3, 0.15, 24.305, 'Mg'),
  Na: kind(1, 1, 1, 22.99, 'Na'),
  K: kind(1, 1.1, 1.1, 39.098, 'K'),
  NH4: kind(1, 1.5, 1.2, 18.039, 'NH4N'),
  // No published relative passage for iron at hand: taken as calcium.
  Fe: kind(2, 0.35, 0.3, 55.845, 'Fe'),
  Ba: kind(2, 0.35, 0.3, 137.327, 'Ba'),
  Sr: kind(2, 0.35, 0.3, 87.62, 'Sr'),
  Cl: kind(-1, 1, 1, 35.453, 'Cl'),
  SO4: kind(-2, 0.2, 0.03, 96.063, 'SO4'),
  NO3: kind(-1, 4, 2, 62.005, 'NO3'),
  F: kind(-1, 1.3, 1.3, 18.998, 'F'),
  HCO3: kind(-1, 1.2, 1, 61.017, 'carbon'),
  CO3: kind(-2, 0.25, 0.05, 60.009, 'carbon'),
  organic: kind(-1, 0.05, 0.05, 100, 'organic'),
  H2PO4: kind(-1, 0.5, 0.2, 96.987, 'PO4'),
  HPO4: kind(-2, 0.15, 0.03, 95.979, 'PO4'),
  H3SiO4: kind(-1, 1, 1, 95.107, 'SiO2'),
  BOH4: kind(-1, 1, 1, 78.843, 'B'),
  SiO2: kind(0, 3, 2, 60.084, 'SiO2'),
  BOH3: kind(0, 40, 3, 61.833, 'B'),
  CO2: kind(0, Infinity, Infinity, 44.01, 'carbon'),
  NH3: kind(0, Infinity, Infinity, 17.031, 'NH4N'),
  HOCl: kind(0, Infinity, Infinity, 70.906, 'chlorine'),
  NH2Cl: kind(0, Infinity, Infinity, 70.906, 'chloramine'),
  // H+ and OH- are not transported; what they leave of the charge balance travels as an ion like Na or Cl.
  plus: kind(1, 1, 1, 22.99, 'balance'),
  minus: kind(-1, 1, 1, 35.453, 'balance'),
} as const satisfies Record<string, SpeciesRow>;

/** Passage of a species relative to NaCl through an element. */
export function passageOf(
  id: SpeciesId,
  { material, silicaPassage, boricPassage }: Pick<ElementRow, 'material' | 'silicaPassage' | 'boricPassage'>,
): number {
  if (material === 'NF') return SPECIES_ROWS[id].passageNF;
  if (id === 'SiO2') return silicaPassage;
  return id === 'BOH3' ? boricPassage : SPECIES_ROWS[id].passageRO;
}

export type SpeciesId = keyof typeof SPECIES_ROWS;

/** A feed as the membrane sees it: parallel arrays of the species present, mmol/L. */
export interface FeedSpecies {
  readonly ids: readonly SpeciesId[];
  readonly mmolL: readonly number[];
}

/** Builds a feed from given amounts, dropping what is absent. */
export function feedSpecies(mmolL: Partial<Record<SpeciesId, number>>): FeedSpecies {
  const ids = (Object.keys(SPECIES_ROWS) as SpeciesId[]).filter((id) => (mmolL[id] ?? 0) > 0);
  return { ids, mmolL: ids.map((id) => mmolL[id] ?? 0) };
}

/** Speciates a water and lists what will be transported; ion pairs are undone, charge is closed by `plus`/`minus`. */
export function speciesOfWater(water: Water): Outcome<FeedSpecies> {
  const molal = molalWater(water);
  const solved = closedSpecies(molal, water.temperatureC);
  if (!solved.ok) return solved;
  const s = solved.value;
  const perLitre = molal.waterKgPerL25 * 1000;
  const total = (solute: Solute): number => water.mgL[solute] / MOLAR_MASS[solute];
  const amounts: Partial<Record<SpeciesId, number>> = {
    Ca: total('Ca'),
    Mg: total('Mg'),
    Na: total('Na'),
    K: total('K'),
    Fe: total('Fe'),
    Ba: total('Ba'),
    Sr: total('Sr'),
    Cl: total('Cl'),
    SO4: total('SO4'),
    NO3: total('NO3'),
    F: total('F'),
    organic: total('organic'),
    NH4: s.nh4 * perLitre,
    NH3: s.nh3 * perLitre,
    HCO3: (s.hco3 + s.caHco3 + s.mgHco3 + s.naHco3) * perLitre,
    CO3: (s.co3 + s.caCo3 + s.mgCo3) * perLitre,
    CO2: s.co2 * perLitre,
    H2PO4: (s.h2po4 + s.h3po4) * perLitre,
    HPO4: (s.hpo4 + s.po4) * perLitre,
    SiO2: s.h4sio4 * perLitre,
    H3SiO4: s.h3sio4 * perLitre,
    BOH3: s.boh3 * perLitre,
    BOH4: s.boh4 * perLitre,
    HOCl: total('chlorine'),
    NH2Cl: total('chloramine'),
  };
  const charge = (Object.keys(amounts) as SpeciesId[]).reduce((sum, id) => sum + SPECIES_ROWS[id].charge * (amounts[id] ?? 0), 0);
  return ok(feedSpecies(charge > 0 ? { ...amounts, minus: charge } : { ...amounts, plus: -charge }));
}

/** Adds up species into a water again; its alkalinity follows from its ions. */
export function waterOfSpecies(ids: readonly SpeciesId[], mmolL: ArrayLike<number>, temperatureC: number): Water {
  const mgL = {} as Record<Solute, number>;
  for (const solute of Object.keys(MOLAR_MASS) as Solute[]) mgL[solute] = 0;
  let carbonMmolL = 0;
  ids.forEach((id, i) => {
    const home = SPECIES_ROWS[id].belongsTo;
    const amount = Math.max(0, mmolL[i] ?? 0);
    if (home === 'carbon') carbonMmolL += amount;
    else if (home !== 'balance') mgL[home] += amount * MOLAR_MASS[home];
  });
  return balanced(mgL, carbonMmolL, temperatureC);
}
