/** What can be read of a system to find a fault: its scale, how well it is read, and how long that takes. */

/** Scale on which a reading is compared: logarithmic above a floor, or as it is. */
export interface ReadingKind {
  /** Added before the logarithm, so that 0 stays finite; null where the scale is linear. */
  readonly floor: number | null;
  /** One standard deviation of the reading itself: a share of it, and what is always there. */
  readonly relative: number;
  readonly absolute: number;
  readonly minutes: number;
  /** The instrument whose error it shares with others. */
  readonly instrument: Instrument | null;
  /** What nobody knows of this place beside the reading's own error, on the scale. */
  readonly placeSd: number;
  /** What a bad reading is off by, on the scale. */
  readonly badSpread: number;
}
export type Instrument = 'inline' | 'gauge' | 'jug' | 'pen';

/** L/h in a mL/min. */
const ML_PER_MIN = 0.06;

const strength = (
  floor: number,
  relative: number,
  absolute: number,
  minutes: number,
  instrument: Instrument,
  placeSd = 0,
): ReadingKind => ({
  floor,
  relative,
  absolute,
  minutes,
  instrument,
  placeSd,
  badSpread: 1,
});
const flow = (absoluteMlPerMin: number, minutes: number): ReadingKind => ({
  floor: 2 * ML_PER_MIN,
  relative: 0.03,
  absolute: absoluteMlPerMin * ML_PER_MIN,
  minutes,
  instrument: 'jug',
  placeSd: 0,
  badSpread: 1,
});
const shareOf = (relative: number, minutes: number, instrument: Instrument | null): ReadingKind => ({
  floor: 0,
  relative,
  absolute: 0,
  minutes,
  instrument,
  placeSd: 0,
  badSpread: 1,
});
const linear = (absolute: number, minutes: number, placeSd: number, badSpread: number): ReadingKind => ({
  floor: null,
  relative: 0,
  absolute,
  minutes,
  instrument: null,
  placeSd,
  badSpread,
});

/**
 * Kinds of reading (product assumptions). Strengths in ppm as a meter shows sodium chloride, flows in L/h, pressures in bar,
 * temperature in °C; of two membranes the second against the first.
 */
export const READING_KINDS = {
  tap: strength(1, 0.02, 0.5, 0.5, 'inline'),
  membrane: strength(1, 0.02, 0.5, 0.5, 'inline'),
  later: strength(1, 0.02, 0.5, 15, 'inline'),
  clean: strength(1, 0.02, 0.5, 4, 'inline'),
  product: strength(0.5, 0.03, 0.3, 0.5, 'inline'),
  midResin: strength(0.5, 0.03, 0.3, 4, 'inline', 1.2),
  line: shareOf(0.02, 0.5, 'gauge'),
  inlet: shareOf(0.02, 5, 'gauge'),
  temperature: linear(0.5, 0.5, 0, 8),
  productFlow: flow(1, 3),
  wasteFlow: flow(2, 2),
  openFlow: flow(1, 4),
  penMembrane: strength(1, 0.03, 1, 2, 'pen'),
  penTap: strength(1, 0.03, 1, 1, 'pen'),
  ratioStrength: shareOf(0.06, 8, null),
  ratioFlow: shareOf(0.05, 8, null),
  pH: linear(0.25, 3, 0.5, 2),
  // Beyond the set the method is checked on: systems with softeners, dials, loops and piston pumps.
  penProduct: strength(0.5, 0.03, 1, 1.5, 'pen'),
  /** Total hardness behind a softener, mg/L as CaCO₃, by a drop kit. */
  softHardness: { floor: 9, relative: 0.05, absolute: 9, minutes: 3, instrument: null, placeSd: 0, badSpread: 1 },
  /** Carbonate hardness of the blend, with the dial as it stands and with the bypass shut, mg/L as CaCO₃. */
  blendHardness: { floor: 9, relative: 0.05, absolute: 9, minutes: 3, instrument: null, placeSd: 0, badSpread: 1 },
  shutHardness: { floor: 9, relative: 0.05, absolute: 9, minutes: 5, instrument: null, placeSd: 0, badSpread: 1 },
  /** Resistivity of a tank after a night at rest, MΩ·cm. */
  nightResistivity: shareOf(0.05, 1, null),
  /** Flow at the return of a loop, and of a pump with its valve open, L/h. */
  returnFlow: shareOf(0.05, 3, null),
  pumpFlow: shareOf(0.04, 5, null),
  /** Drain and recycle meters of a skid, L/h. */
  recycleFlow: shareOf(0.05, 2, null),
} as const satisfies Record<string, ReadingKind>;
export type KindId = keyof typeof READING_KINDS;
export const KIND_IDS = Object.keys(READING_KINDS) as readonly KindId[];

/** What a figure uses up, EUR (common practice); a meter uses nothing. */
const USED_EUR: Partial<Record<KindId, number>> = { pH: 0.15, softHardness: 0.3, blendHardness: 0.3, shutHardness: 0.3 };

/** What an hour of work costs, EUR (product assumption). */
export const HOURLY_RATE = 45;
/** Minutes of work that money stands for. */
export const minutesOf = (money: number): number => (60 * money) / HOURLY_RATE;

/** Minutes of work that a check's strips and drops stand for. */
export function kitMinutes(check: KindId | YesNoId): number {
  const used = check in YES_NO_CHECKS ? (YES_NO_CHECKS[check as YesNoId] as YesNoCheck).usesEur : USED_EUR[check as KindId];
  return minutesOf(used ?? 0);
}

/** A gauge that reads nothing is taken for this, so that its logarithm is finite. */
const LEAST = 1e-3;

/** A reading on its scale. */
export function scaled(kind: KindId, value: number): number {
  const { floor } = READING_KINDS[kind];
  return floor === null ? value : Math.log(Math.max(LEAST, value + floor));
}

/** A reading from its place on the scale; never below nothing. */
export function unscaled(kind: KindId, u: number): number {
  const { floor } = READING_KINDS[kind];
  return floor === null ? u : Math.max(0, Math.exp(u) - floor);
}

/** One standard deviation of a reading's own error on its scale, at what is expected of it. */
export function ownSd(kind: KindId, expected: number): number {
  const { floor, relative, absolute } = READING_KINDS[kind];
  const plain = Math.hypot(relative * expected, absolute);
  return floor === null ? plain : plain / Math.max(expected + floor, 1e-9);
}

/** What a reading can be at all. */
const LIMITS: Partial<Record<KindId, { readonly from: number; readonly to: number; readonly says: string }>> = {
  temperature: { from: -5, to: 60, says: '−5 to 60 °C' },
  pH: { from: 0, to: 14, says: '0 to 14' },
};

/** What is wrong with a value of a kind, in words of what would be accepted; null where nothing is. */
export function kindIssue(kind: KindId, value: number): string | null {
  const limits = LIMITS[kind];
  if (limits) return value >= limits.from && value <= limits.to ? null : limits.says;
  return Number.isFinite(value) && value >= 0 ? null : '0 or more';
}

/** A check that is answered yes or no. */
export interface YesNoCheck {
  readonly minutes: number;
  /** How often it says yes where nothing of the kind is there. */
  readonly falseYes: number;
  /** A look or a question: asked before anything that is only a little better. */
  readonly free?: true;
  /** What it uses up, EUR (common practice). */
  readonly usesEur?: number;
}

/** Kits, looks and questions (rates are product assumptions). */
export const YES_NO_CHECKS = {
  chlorineStrip: { minutes: 3, falseYes: 0.03, usesEur: 0.4 },
  silicaKit: { minutes: 5, falseYes: 0.03, usesEur: 1.2 },
  ammoniaKit: { minutes: 5, falseYes: 0.03, usesEur: 0.8 },
  drainWhenFull: { minutes: 5, falseYes: 0.02 },
  lookConnections: { minutes: 2, falseYes: 0.02, free: true },
  inspectSeals: { minutes: 20, falseYes: 0.04 },
  askFirstMinute: { minutes: 0.5, falseYes: 0.15, free: true },
  // Beyond that set.
  freeChlorineStrip: { minutes: 3, falseYes: 0.03, usesEur: 0.4 },
  countStarts: { minutes: 10, falseYes: 0.05 },
  lampCheck: { minutes: 2, falseYes: 0.05 },
  liftHose: { minutes: 5, falseYes: 0.05 },
  feelRelief: { minutes: 3, falseYes: 0.05 },
  foamTest: { minutes: 15, falseYes: 0.05 },
  smellOil: { minutes: 3, falseYes: 0.05 },
  lookSoftener: { minutes: 1, falseYes: 0.02, free: true },
  lookSweep: { minutes: 3, falseYes: 0.03, free: true },
  readStack: { minutes: 3, falseYes: 0.03, free: true },
  lookDosing: { minutes: 3, falseYes: 0.02, free: true },
} as const satisfies Record<string, YesNoCheck>;
export type YesNoId = keyof typeof YES_NO_CHECKS;
export const YES_NO_IDS = Object.keys(YES_NO_CHECKS) as readonly YesNoId[];
