import {
  BAR_PER_PSI,
  formatAbout,
  formatQuantity,
  formatWithDoubt,
  L_PER_US_GALLON,
  shownUnit,
  THIN,
  type UnitPreference,
} from '../quantity';

/** Classes of spiral elements: by size, and by what they are made for or, of the household's, by what they make a day. */
export const ELEMENT_CLASSES = [
  'household25',
  'household50',
  'household75',
  'household100',
  'household150',
  'household200',
  'household200Wide',
  'in25Usual',
  'in25Low',
  'in4Usual',
  'in4Low',
  'in4Lowest',
  'in25Sea',
  'in4Sea',
  'in4Loose',
] as const;
export type ElementClass = (typeof ELEMENT_CLASSES)[number];

/** Sizes of elements, by diameter and length. */
export const ELEMENT_SIZES = ['household', 'householdWide', 'in25', 'in4'] as const;
export type ElementSize = (typeof ELEMENT_SIZES)[number];
/** What an element is made for: tap water at the line's pressure, or with a pump, or salt alone held back in part. */
export type ElementUse = 'household' | 'usual' | 'lowPressure' | 'lowestPressure' | 'sea' | 'loose';

/** An element of a class: geometry, test condition, and what it makes there. */
export interface ElementRow {
  readonly size: ElementSize;
  readonly use: ElementUse;
  readonly areaM2: number;
  readonly lengthM: number;
  readonly spacerMm: number;
  readonly testPressureBar: number;
  readonly testNaClMgL: number;
  readonly testRecovery: number;
  readonly nominalFlowGpd: number;
  /** How far elements of the class lie from that, to either side, gal/day. */
  readonly flowSpreadGpd: number;
  readonly nominalRejection: number;
  readonly minimumRejection: number;
  /** Passage of silica relative to NaCl: household elements hold back 86–89 % (measured 85), larger ones more. */
  readonly silicaPassage: number;
  /** Passage of boric acid relative to NaCl: sea-water elements 20 to 45, brackish 60 to 130, low-energy 45 to 100, household 20 to 80 (nobody measured). */
  readonly boricPassage: number;
  /** 'RO' polyamide, or the looser 'NF'; decides which solute passages apply. */
  readonly material: 'RO' | 'NF';
  readonly limits: ElementLimits;
}

/** Typical limits (recalled). */
export interface ElementLimits {
  readonly maxPressureBar: number;
  readonly maxFeedLPerMin: number;
  readonly minConcentrateLPerMin: number;
  readonly maxRecovery: number;
  readonly maxPressureDropBar: number;
}

const SMALL: ElementLimits = {
  maxPressureBar: 8.6,
  maxFeedLPerMin: 7.6,
  minConcentrateLPerMin: 0.3,
  maxRecovery: 0.3,
  maxPressureDropBar: 0.7,
};
const MID: ElementLimits = { maxPressureBar: 41, maxFeedLPerMin: 23, minConcentrateLPerMin: 3.8, maxRecovery: 0.18, maxPressureDropBar: 1 };
const LARGE: ElementLimits = {
  maxPressureBar: 41,
  maxFeedLPerMin: 61,
  minConcentrateLPerMin: 11.4,
  maxRecovery: 0.18,
  maxPressureDropBar: 1,
};
const SEA = (base: ElementLimits): ElementLimits => ({ ...base, maxPressureBar: 69, maxRecovery: 0.13 });

/** Boric acid against NaCl, by what an element is made for. */
const BORIC: Readonly<Record<ElementUse, number>> = {
  household: 40,
  usual: 90,
  lowPressure: 65,
  lowestPressure: 65,
  sea: 30,
  loose: 65,
};
/** The test that is usual for what an element is made for (common practice): psi, mg/L of NaCl, recovery. */
const TESTS = {
  usual: [225, 2000, 0.15],
  lowPressure: [150, 2000, 0.15],
  lowestPressure: [100, 500, 0.15],
  sea: [800, 32_000, 0.08],
  loose: [70, 500, 0.15],
} as const satisfies Readonly<Record<Exclude<ElementUse, 'household'>, readonly [number, number, number]>>;

const madeOf = ({
  use,
  testPsi,
  ...row
}: Omit<ElementRow, 'testPressureBar' | 'silicaPassage' | 'boricPassage' | 'material'> & { readonly testPsi: number }): ElementRow => ({
  ...row,
  use,
  testPressureBar: testPsi * BAR_PER_PSI,
  silicaPassage: use === 'household' ? 6 : 3,
  boricPassage: BORIC[use],
  material: use === 'loose' ? 'NF' : 'RO',
});
const small = (
  size: ElementSize,
  areaM2: number,
  testPsi: number,
  [nominalFlowGpd, flowSpreadGpd]: readonly [number, number],
  nominalRejection: number,
  minimumRejection: number,
): ElementRow =>
  madeOf({
    size,
    use: 'household',
    areaM2,
    lengthM: 0.25,
    spacerMm: 0.5,
    testPsi,
    testNaClMgL: 250,
    testRecovery: 0.15,
    nominalFlowGpd,
    flowSpreadGpd,
    nominalRejection,
    minimumRejection,
    limits: SMALL,
  });
const large = (
  size: 'in25' | 'in4',
  use: Exclude<ElementUse, 'household'>,
  areaM2: number,
  [nominalFlowGpd, flowSpreadGpd]: readonly [number, number],
  nominalRejection: number,
  minimumRejection: number,
): ElementRow => {
  const [testPsi, testNaClMgL, testRecovery] = TESTS[use];
  const limits = size === 'in25' ? MID : LARGE;
  return madeOf({
    size,
    use,
    areaM2,
    lengthM: 0.965,
    spacerMm: 0.71,
    testPsi,
    testNaClMgL,
    testRecovery,
    nominalFlowGpd,
    flowSpreadGpd,
    nominalRejection,
    minimumRejection,
    limits: use === 'sea' ? SEA(limits) : limits,
  });
};

/**
 * Our own rows, in two figures: the middle of what elements of a size and use make at the test that is usual for them,
 * with the spread among them. The law's A and B are derived from the same row. The areas of the small ones are the least
 * certain (±25 %), which hardly matters for that reason.
 */
export const ELEMENT_ROWS: Readonly<Record<ElementClass, ElementRow>> = {
  household25: small('household', 0.28, 60, [25, 4], 0.98, 0.96),
  household50: small('household', 0.4, 60, [50, 8], 0.98, 0.96),
  household75: small('household', 0.46, 60, [75, 11], 0.975, 0.95),
  household100: small('household', 0.5, 65, [100, 15], 0.97, 0.95),
  household150: small('household', 0.65, 65, [150, 20], 0.96, 0.93),
  household200: { ...small('household', 0.7, 80, [200, 30], 0.95, 0.92), spacerMm: 0.45 },
  household200Wide: small('householdWide', 0.8, 70, [200, 30], 0.96, 0.93),
  in25Usual: large('in25', 'usual', 2.6, [800, 100], 0.994, 0.988),
  in25Low: large('in25', 'lowPressure', 2.6, [800, 100], 0.989, 0.978),
  in4Usual: large('in4', 'usual', 7.9, [2400, 300], 0.994, 0.988),
  in4Low: large('in4', 'lowPressure', 7.9, [2400, 300], 0.989, 0.978),
  in4Lowest: large('in4', 'lowestPressure', 7.9, [2200, 300], 0.988, 0.975),
  in25Sea: large('in25', 'sea', 2.6, [650, 100], 0.995, 0.991),
  in4Sea: large('in4', 'sea', 7.4, [1900, 250], 0.996, 0.993),
  in4Loose: large('in4', 'loose', 7.6, [1900, 300], 0.5, 0.4),
};

/** Small tap-water elements, as households have them. */
export const isSmallElement = (id: ElementClass): boolean => ELEMENT_ROWS[id].use === 'household';

/** Sizes as they are measured, in inches and centimetres. */
const SIZE_WORDS: Readonly<Record<ElementSize, { readonly in: string; readonly cm: string }>> = {
  household: { in: '1.8 × 12', cm: '4.6 × 30' },
  householdWide: { in: '2 × 12', cm: '5 × 30' },
  in25: { in: '2.5 × 40', cm: '6.4 × 100' },
  in4: { in: '4 × 40', cm: '10 × 100' },
};
/** What an element is made for, in a word. */
const USE_WORDS: Readonly<Record<ElementUse, string>> = {
  household: '',
  usual: 'usual',
  lowPressure: 'low pressure',
  lowestPressure: 'lowest pressure',
  sea: 'sea',
  loose: 'loose',
};
const flowLPerH = (gpd: number): number => (gpd * L_PER_US_GALLON) / 24;

/** An element by its size and what it is made for, or of the household's by what it makes: "4 × 40 in, low pressure". */
export function elementText(id: ElementClass, units: UnitPreference): string {
  const { size, use, nominalFlowGpd } = ELEMENT_ROWS[id];
  const makes = use === 'household' ? formatAbout(flowLPerH(nominalFlowGpd), 'flowLPerH', units).text : USE_WORDS[use];
  const measure = units.length === 'in' ? 'in' : 'cm';
  return `${SIZE_WORDS[size][measure]}${THIN}${measure}, ${makes}`;
}

/** What new elements of a row make at their test, with the spread among them: no figure of one element. */
export function elementMakes(row: ElementRow, units: UnitPreference): string {
  const { nominalFlowGpd, flowSpreadGpd, testPressureBar, nominalRejection } = row;
  const unit = shownUnit('flowLPerH', units);
  const flow = formatWithDoubt(flowLPerH(nominalFlowGpd), flowLPerH(flowSpreadGpd), 'flowLPerH', unit);
  const [bar, held] = [
    formatQuantity(testPressureBar, 'pressureBar', units).text,
    formatQuantity(nominalRejection, 'fraction', units).text,
  ];
  return `${flow} at ${bar}, ${held} of salt held back`;
}

/** Above this a membrane dies, °C (common practice). */
export const MAX_TEMPERATURE_C = 45;
/** Free or combined chlorine a polyamide membrane tolerates, mg/L (common practice). */
export const MAX_CHLORINE_MG_L = 0.1;
/** Feed pH an element stands day after day: small tap-water elements, and larger ones (recalled). */
export const pHRange = (id: ElementClass): readonly [low: number, high: number] => (isSmallElement(id) ? [3, 10] : [2, 11]);

/** Whether elements of a class are made for sea water. */
export const isSeawaterElement = (elementClass: ElementClass): boolean => ELEMENT_ROWS[elementClass].use === 'sea';
