import { BAR_PER_PSI } from '../quantity';

/** Size classes of spiral elements: diameter and length in tenths of an inch, then output or kind. */
export const ELEMENT_CLASSES = [
  '1812-24',
  '1812-50',
  '1812-75',
  '1812-100',
  '1812-150',
  '1812-200',
  '2012-200',
  '2540-BW',
  '2540-LE',
  '4040-BW',
  '4040-LE',
  '4040-XLE',
  '2540-SW',
  '4040-SW',
  '4040-NF',
] as const;
export type ElementClass = (typeof ELEMENT_CLASSES)[number];

/** Small tap-water elements, as households have them. */
export const isSmallElement = (id: ElementClass): boolean => id.startsWith('1812') || id.startsWith('2012');

/** What a maker prints of an element: geometry, test condition, and what it makes there. */
export interface ElementRow {
  readonly areaM2: number;
  readonly lengthM: number;
  readonly spacerMm: number;
  readonly testPressureBar: number;
  readonly testNaClMgL: number;
  readonly testRecovery: number;
  readonly nominalFlowGpd: number;
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
const BORIC = { household: 40, lowEnergy: 65, brackish: 90, sea: 30 } as const;

const row = (
  areaM2: number,
  lengthM: number,
  spacerMm: number,
  testPsi: number,
  testNaClMgL: number,
  testRecovery: number,
  nominalFlowGpd: number,
  nominalRejection: number,
  minimumRejection: number,
  limits: ElementLimits,
  material: 'RO' | 'NF' = 'RO',
): ElementRow => ({
  areaM2,
  lengthM,
  spacerMm,
  testPressureBar: testPsi * BAR_PER_PSI,
  testNaClMgL,
  testRecovery,
  nominalFlowGpd,
  nominalRejection,
  minimumRejection,
  silicaPassage: limits === SMALL ? 6 : 3,
  boricPassage: limits === SMALL ? BORIC.household : testPsi >= 800 ? BORIC.sea : testPsi >= 225 ? BORIC.brackish : BORIC.lowEnergy,
  material,
  limits,
});

/**
 * Size classes, typical of the trade (recalled, rounded). The areas of the small ones are the least
 * certain (±25 %), which hardly matters because A and B are derived from the same row.
 */
export const ELEMENT_ROWS: Readonly<Record<ElementClass, ElementRow>> = {
  '1812-24': row(0.28, 0.25, 0.5, 60, 250, 0.15, 24, 0.98, 0.96, SMALL),
  '1812-50': row(0.4, 0.25, 0.5, 60, 250, 0.15, 50, 0.98, 0.96, SMALL),
  '1812-75': row(0.46, 0.25, 0.5, 60, 250, 0.15, 75, 0.975, 0.95, SMALL),
  '1812-100': row(0.5, 0.25, 0.5, 65, 250, 0.15, 100, 0.97, 0.95, SMALL),
  '1812-150': row(0.65, 0.25, 0.5, 65, 250, 0.15, 150, 0.96, 0.93, SMALL),
  '1812-200': row(0.7, 0.25, 0.45, 80, 250, 0.15, 200, 0.95, 0.92, SMALL),
  '2012-200': row(0.8, 0.25, 0.5, 70, 250, 0.15, 200, 0.96, 0.93, SMALL),
  '2540-BW': row(2.6, 0.965, 0.71, 225, 2000, 0.15, 850, 0.995, 0.99, MID),
  '2540-LE': row(2.6, 0.965, 0.71, 150, 2000, 0.15, 850, 0.99, 0.98, MID),
  '4040-BW': row(7.9, 0.965, 0.71, 225, 2000, 0.15, 2500, 0.995, 0.99, LARGE),
  '4040-LE': row(7.9, 0.965, 0.71, 150, 2000, 0.15, 2500, 0.99, 0.98, LARGE),
  '4040-XLE': row(7.9, 0.965, 0.71, 100, 500, 0.15, 2300, 0.99, 0.975, LARGE),
  '2540-SW': row(2.6, 0.965, 0.71, 800, 32000, 0.08, 700, 0.994, 0.992, SEA(MID)),
  '4040-SW': row(7.4, 0.965, 0.71, 800, 32000, 0.08, 1950, 0.997, 0.994, SEA(LARGE)),
  '4040-NF': row(7.6, 0.965, 0.71, 70, 500, 0.15, 2000, 0.5, 0.4, LARGE, 'NF'),
};

/** Above this a membrane dies, °C (common practice). */
export const MAX_TEMPERATURE_C = 45;
/** Free or combined chlorine a polyamide membrane tolerates, mg/L (common practice). */
export const MAX_CHLORINE_MG_L = 0.1;
/** Feed pH an element stands day after day: small tap-water elements, and larger ones (recalled). */
export const pHRange = (id: ElementClass): readonly [low: number, high: number] => (isSmallElement(id) ? [3, 10] : [2, 11]);

/** Whether elements of a class are made for sea water: tested at tens of grams a litre. */
export const isSeawaterElement = (elementClass: ElementClass): boolean => ELEMENT_ROWS[elementClass].testNaClMgL > 10_000;
