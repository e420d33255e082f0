/** Kinds of resin bed. */
export const RESIN_CLASSES = ['mixedBed', 'colourMixedBed', 'silicaStage', 'cationBed', 'anionBed'] as const;
export type ResinClassId = (typeof RESIN_CLASSES)[number];

/** A class of resin bed. Capacities are per litre of bed as packed, voids included; 0 for a side it does not take. */
export interface ResinClass {
  readonly label: string;
  readonly cationEqPerL: number;
  readonly anionEqPerL: number;
  /** Volume share of the cation resin; the rest is anion resin. */
  readonly cationShare: number;
  readonly densityKgPerL: number;
  readonly voidFraction: number;
  readonly beadMm: number;
  /** A dye shows how far the bed is spent. */
  readonly colours: boolean;
}

/** Generic gel resins (trade literature, recalled). A 40:60 mix has nearly equal equivalents on both sides. */
export const RESIN_ROWS: Readonly<Record<ResinClassId, ResinClass>> = {
  mixedBed: {
    label: 'Mixed bed',
    cationEqPerL: 0.72,
    anionEqPerL: 0.6,
    cationShare: 0.4,
    densityKgPerL: 0.72,
    voidFraction: 0.38,
    beadMm: 0.7,
    colours: false,
  },
  // 5 to 10 % less than without dye.
  colourMixedBed: {
    label: 'Colour mixed bed',
    cationEqPerL: 0.67,
    anionEqPerL: 0.56,
    cationShare: 0.4,
    densityKgPerL: 0.72,
    voidFraction: 0.38,
    beadMm: 0.7,
    colours: true,
  },
  silicaStage: {
    label: 'Silica stage, anion-rich',
    cationEqPerL: 0.54,
    anionEqPerL: 0.7,
    cationShare: 0.3,
    densityKgPerL: 0.7,
    voidFraction: 0.38,
    beadMm: 0.7,
    colours: false,
  },
  // Strong-acid gel in hydrogen form and strong-base gel in hydroxide form, each in a vessel of its own.
  cationBed: {
    label: 'Cation bed, hydrogen form',
    cationEqPerL: 1.8,
    anionEqPerL: 0,
    cationShare: 1,
    densityKgPerL: 0.8,
    voidFraction: 0.38,
    beadMm: 0.7,
    colours: false,
  },
  anionBed: {
    label: 'Anion bed, hydroxide form',
    cationEqPerL: 0,
    anionEqPerL: 1,
    cationShare: 0,
    densityKgPerL: 0.68,
    voidFraction: 0.38,
    beadMm: 0.7,
    colours: false,
  },
};

/** One bed of resin as fitted. */
export interface Bed {
  readonly resin: ResinClassId;
  readonly volumeL: number;
  readonly depthMm: number;
  /** 0.90 upright and firmly packed, 0.75 lying or loose (our defaults). */
  readonly packing: number;
}
