import type { ReportQuantity } from './schema';
import { CACO3_G_PER_MOL, L_PER_US_GALLON, MG_L_PER_DH } from '../quantity';
import { CACO3_G_PER_EQ, HCO3_PER_ALKALINITY, MOLAR_MASS } from '../water';

/** What amounts can be counted in: "as N", "as CaCO3". g per mol of the counted thing. */
export const BASES = {
  N: MOLAR_MASS.NH4N,
  NO3: MOLAR_MASS.NO3,
  NH4: 18.039,
  NH3: 17.031,
  P: 30.974,
  PO4: MOLAR_MASS.PO4,
  Si: 28.086,
  SiO2: MOLAR_MASS.SiO2,
  B: MOLAR_MASS.B,
  Ca: MOLAR_MASS.Ca,
  Mg: MOLAR_MASS.Mg,
  HCO3: 61.017,
  CaCO3: CACO3_G_PER_MOL,
  Cl2: MOLAR_MASS.chlorine,
} as const;
export type Basis = keyof typeof BASES;

/** How an amount stated in a basis becomes the amount stored; 1 where they are the same. */
const per = (from: number, to: number): number => to / from;

/** One thing a report can list. */
export interface Analyte {
  readonly id: string;
  /** What it is called on the screen. */
  readonly label: string;
  /** Names in reports, lower case, in the languages they come in. */
  readonly names: RegExp;
  /** Where it goes; null: recognised, but nothing here uses it. */
  readonly quantity: ReportQuantity | null;
  /** An `equivalent` is counted by its charge: a millimole of it is 50 mg/L as CaCO3, not 100. */
  readonly kind: 'amount' | 'hardness' | 'equivalent' | 'conductivity' | 'pH' | 'temperature' | 'none';
  /** Basis taken when none is stated, and the factor from each basis to what is stored. */
  readonly basis?: Basis;
  readonly factors?: Partial<Record<Basis, number>>;
}

const ion = (id: string, label: string, names: RegExp, quantity: ReportQuantity): Analyte => ({
  id,
  label,
  names,
  quantity,
  kind: 'amount',
});
const based = (
  id: string,
  label: string,
  names: RegExp,
  quantity: ReportQuantity,
  basis: Basis,
  factors: Partial<Record<Basis, number>>,
): Analyte => ({ id, label, names, quantity, kind: 'amount', basis, factors });
const unused = (id: string, label: string, names: RegExp): Analyte => ({ id, label, names, quantity: null, kind: 'none' });

const HARDNESS: Partial<Record<Basis, number>> = { CaCO3: 1, Ca: per(BASES.Ca, BASES.CaCO3), HCO3: 1 / HCO3_PER_ALKALINITY };
const NITRATE: Partial<Record<Basis, number>> = { NO3: 1, N: per(BASES.N, BASES.NO3) };
const AMMONIA: Partial<Record<Basis, number>> = { N: 1, NH4: per(BASES.NH4, BASES.N), NH3: per(BASES.NH3, BASES.N) };
const PHOSPHATE: Partial<Record<Basis, number>> = { PO4: 1, P: per(BASES.P, BASES.PO4) };
const SILICA: Partial<Record<Basis, number>> = { SiO2: 1, Si: per(BASES.Si, BASES.SiO2) };

/**
 * What reports list, the more exact names first: the first that fits is taken.
 * Names in English, German, French and Spanish as supply reports print them (common practice).
 */
export const ANALYTES: readonly Analyte[] = [
  // Calcium and magnesium as hardness come before total hardness and before the ions.
  based('calciumHardness', 'Calcium hardness', /calcium[- ]?hardness|hardness[ ,]*calcium|calciumh[aä]rte/, 'Ca', 'CaCO3', {
    CaCO3: MOLAR_MASS.Ca / BASES.CaCO3,
    Ca: 1,
  }),
  based('magnesiumHardness', 'Magnesium hardness', /magnesium[- ]?hardness|hardness[ ,]*magnesium|magnesiumh[aä]rte/, 'Mg', 'CaCO3', {
    CaCO3: MOLAR_MASS.Mg / BASES.CaCO3,
    Mg: 1,
  }),
  unused('permanentHardness', 'Permanent hardness', /(permanent|non[- ]?carbonate)[- ]hardness|nichtkarbonath/),
  // A base capacity is the acid of a water, named by a pH; it is neither a pH nor an alkalinity.
  unused('baseCapacity', 'Base capacity', /basekapazit|base capacity|acidity/),
  {
    id: 'acidCapacity',
    label: 'Acid capacity',
    names: /s[aä]urekapazit|acid capacity/,
    quantity: 'alkalinityMgL',
    kind: 'equivalent',
    basis: 'CaCO3',
    factors: HARDNESS,
  },
  {
    id: 'alkalinity',
    label: 'Alkalinity',
    names: /alkalinit|alcalini|karbonath[aä]rte|carbonate hardness|temporary hardness|\bkh\b|titre alcalim|\btac\b|\bm[- ]alk/,
    quantity: 'alkalinityMgL',
    kind: 'hardness',
    basis: 'CaCO3',
    factors: HARDNESS,
  },
  {
    id: 'bicarbonate',
    label: 'Bicarbonate',
    names: /bi-?carbonate?|hydrogen-?\s?[ck]arbonat|\bhco3\b/,
    quantity: 'alkalinityMgL',
    kind: 'amount',
    basis: 'HCO3',
    factors: { HCO3: 1 / HCO3_PER_ALKALINITY, CaCO3: 1 },
  },
  {
    id: 'hardness',
    label: 'Total hardness',
    names: /hardness|h[aä]rte|duret[eé]|dureza|\bgh\b/,
    quantity: 'hardnessMgL',
    kind: 'hardness',
    basis: 'CaCO3',
    factors: HARDNESS,
  },
  {
    id: 'conductivity',
    label: 'Conductivity',
    names: /conductiv|conductance|leitf[aä]hig|conductibilit|\be\.?c\.?\b(?!oli)/,
    quantity: 'ec25UScm',
    kind: 'conductivity',
  },
  ion('tds', 'Dissolved solids', /total dissolved|dissolved solids|\btds\b|dry residue|abdampfr[uü]ck|r[eé]sidu(o)? s[eé]c/, 'tdsMgL'),
  { id: 'pH', label: 'pH', names: /\bph\b|hydrogen ion/, quantity: 'pH', kind: 'pH' },
  { id: 'temperature', label: 'Temperature', names: /temperatur/, quantity: 'temperatureC', kind: 'temperature' },
  based('nitrite', 'Nitrite', /nitrit|\bno2\b/, 'NO3', 'NO3', {}),
  based('nitrate', 'Nitrate', /nitrat|\bno3\b/, 'NO3', 'NO3', NITRATE),
  based('ammonium', 'Ammonium', /ammonium|amonio|\bnh4\b/, 'NH4N', 'NH4', AMMONIA),
  based('ammonia', 'Ammonia', /ammonia|ammoniak|\bnh3\b/, 'NH4N', 'N', AMMONIA),
  based('phosphate', 'Phosphate', /phosphat|fosfat|\bpo4\b/, 'PO4', 'PO4', PHOSPHATE),
  based('phosphorus', 'Phosphorus', /phosphor(us)?\b|phosphore/, 'PO4', 'P', PHOSPHATE),
  based('silica', 'Silica', /silica\b|silicat|kiesels|s[ií]lice|\bsio2\b/, 'SiO2', 'SiO2', SILICA),
  based('silicon', 'Silicon', /silicon|silizium|silicium|\bsi\b/, 'SiO2', 'Si', SILICA),
  unused(
    'totalChlorine',
    'Total chlorine, free and combined together',
    /total chlorine|total residual|gesamtchlor|chlore total|cloro total/,
  ),
  unused('chlorineDioxide', 'Chlorine dioxide', /chlorine dioxide|chlorit|chlorat/),
  ion('chloramine', 'Chloramine', /(mono)?-?chloramine?|combined chlorine|combined residual/, 'chloramine'),
  ion('chlorine', 'Free chlorine', /chlorine|free residual|\bcl2\b|freies chlor\b|chlore libre|cloro libre/, 'chlorine'),
  ion('chloride', 'Chloride', /chlorid|chlorure|cloruro|\bcl-?\b/, 'Cl'),
  ion('sulfate', 'Sulfate', /sul(f|ph)at|\bso4\b/, 'SO4'),
  ion('fluoride', 'Fluoride', /fluorid|fluorure|fluoruro|\bf-?\b/, 'F'),
  based('calcium', 'Calcium', /calcium|kalzium|calcio|\bca(2\+)?\b/, 'Ca', 'Ca', { Ca: 1, CaCO3: MOLAR_MASS.Ca / BASES.CaCO3 }),
  based('magnesium', 'Magnesium', /magn[eé]si|\bmg(2\+)?\b(?!\s*\/)/, 'Mg', 'Mg', { Mg: 1, CaCO3: MOLAR_MASS.Mg / BASES.CaCO3 }),
  ion('sodium', 'Sodium', /sodium|natrium|sodio|\bna\+?\b/, 'Na'),
  ion('potassium', 'Potassium', /potassium|kalium|potasio|\bk\+?\b/, 'K'),
  ion('barium', 'Barium', /barium|bario|\bba\b/, 'Ba'),
  ion('strontium', 'Strontium', /strontium|\bsr\b/, 'Sr'),
  ion('boron', 'Boron', /\bboron\b|\bbor\b|\bbore\b|\bboro\b/, 'B'),
  ion('iron', 'Iron', /\biron\b|\beisen\b|\bfer\b|hierro|\bfe\b/, 'Fe'),
  // Recognised so that nobody wonders; no model here uses them.
  unused('manganese', 'Manganese', /mangan/),
  unused('aluminium', 'Aluminium', /alumin/),
  unused('turbidity', 'Turbidity', /turbid|tr[uü]bung/),
  unused('organicCarbon', 'Organic carbon', /organic carbon|\btoc\b|\bdoc\b/),
  unused('colour', 'Colour', /colou?r\b|f[aä]rbung/),
  unused('odour', 'Odour and taste', /odou?r|taste|geruch|geschmack/),
  unused('metals', 'Trace metal', /\blead\b|copper|zinc|nickel|chromium|cadmium|mercury|arsenic|selenium|antimony|blei|kupfer|zink/),
  unused('organics', 'Organic trace', /pesticid|trihalomethan|\bthm|benzene|\bpah\b|\bpfas\b|bromate|cyanide|uranium/),
  unused('germs', 'Germs', /coli|enterococc|colony|bacteria|clostrid|legionell/),
  unused(
    'waste',
    'Waste-water figure',
    /\bb\.?o\.?d\.?\b|\bc\.?o\.?d\.?\b|biochemical oxygen|chemical oxygen|suspended solids|\btss\b|kjeldahl|\btkn\b|grease/,
  ),
  unused('pool', 'Pool figure', /cyanuric|stabili[sz]er|bather|\borp\b|redox/),
];

/** A text with the digits of formulas set on the line: NO₃ as NO3. */
export const plainDigits = (text: string): string => text.replace(/[₀-₉]/g, (digit) => String(digit.charCodeAt(0) - 0x2080));

/** What a row's name is about; null when nothing fits. */
export function analyteOf(name: string): Analyte | null {
  const lower = plainDigits(name).toLowerCase().replace(/⁻|⁺|²/g, '');
  return ANALYTES.find((analyte) => analyte.names.test(lower)) ?? null;
}

/** Hardness scales beside mg/L: mg/L as CaCO3 in one of each. */
export const HARDNESS_SCALES: readonly (readonly [RegExp, number, string])[] = [
  [/°?\s?d(eutsche)?\.?h|german|°d\b/i, MG_L_PER_DH, '°dH'],
  [/°?\s?f\.?h|french|°f\b/i, 10, '°fH'],
  [/clark|°e\b|english/i, 64.79891 / 4.54609, '°e'],
  [/gpg|grains?/i, 64.79891 / L_PER_US_GALLON, 'gpg'],
  [/mmol/i, CACO3_G_PER_MOL, 'mmol/L'],
  [/m(illi)?eq|mval/i, CACO3_G_PER_EQ, 'meq/L'],
];
