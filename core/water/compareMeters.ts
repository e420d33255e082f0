import { readingFromEc25, ec25FromReading, METER_SALTS, type MeterScale } from './meter';

/** One instrument dipped into the glasses: what it showed in each, null where it was not read. */
export interface ComparedMeter {
  readonly id: string;
  readonly name: string;
  readonly scale: MeterScale;
  /** As shown, without any correction; one entry a glass. */
  readonly shown: readonly (number | null)[];
}

export interface MeterVerdict {
  readonly id: string;
  readonly name: string;
  /** EC25 behind each reading by the meter's own scale, µS/cm. */
  readonly ec25UScm: readonly (number | null)[];
  /** Mean deviation from the reference in conductivity: what is error, as a share; null without a common glass. */
  readonly error: number | null;
  /** How much the shown figure differs from the reference's because the scales differ, as a share. */
  readonly byScale: number | null;
  readonly says: 'reference' | 'agrees' | 'differs' | 'other scale' | 'not read';
  /** The scale on which its readings would agree, when its own does not fit and another does. */
  readonly likelyScale: MeterScale | null;
  /** Shown = gain × true + offset, fitted over the glasses. */
  readonly correction: { readonly gain: number; readonly offset: number } | null;
}

/** Agreement: 15 % in conductivity, or 2 µS/cm below 10 (common practice). */
const AGREE_SHARE = 0.15;
const AGREE_USCM = 2;
/** Another scale explains a difference when it brings the meter this near. */
const EXPLAINED_SHARE = 0.05;
/** What pens claim of themselves (common practice): off by more in every glass, and the same way, another scale is looked for. */
const CLAIMED_SHARE = 0.05;

const agrees = (ec: number, reference: number): boolean =>
  Math.abs(ec - reference) <= (reference < 10 ? AGREE_USCM : AGREE_SHARE * reference);

/** Scales an instrument may have; the factor ones are those printed on instruments. */
export const COMMON_SCALES: readonly MeterScale[] = [
  { kind: 'conductivity' },
  ...[0.5, 0.55, 0.64, 0.7].map((factor) => ({ kind: 'factor' as const, factor })),
  ...METER_SALTS.map((salt) => ({ kind: 'curve' as const, salt })),
];

const ecOf = (shown: number | null | undefined, scale: MeterScale): number | null => {
  if (shown === null || shown === undefined) return null;
  const ec = ec25FromReading(shown, scale);
  return ec.ok ? ec.value : null;
};

/** Deviation of each reading from the reference in the same glass, as shares; glasses not read by both are left out. */
function deviations(ec: readonly (number | null)[], reference: readonly (number | null)[]): number[] {
  return ec.flatMap((value, i) => {
    const ref = reference[i];
    return value !== null && ref !== null && ref !== undefined && ref > 0 ? [value / ref - 1] : [];
  });
}
const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Gain and offset that turn what a meter should show into what it showed.
 * One glass fixes the gain alone; from two glasses that differ by half, least squares on relative errors fixes both.
 */
export function fitCorrection(shown: readonly number[], ideal: readonly number[]): { gain: number; offset: number } | null {
  const points = shown.flatMap((y, i) => (ideal[i] !== undefined && ideal[i] > 0 ? [{ x: ideal[i], y }] : []));
  if (points.length === 0) return null;
  const highest = Math.max(...points.map((p) => p.x));
  const lowest = Math.min(...points.map((p) => p.x));
  const weighted = (of: (p: { x: number; y: number }) => number): number => points.reduce((sum, p) => sum + of(p) / (p.x * p.x), 0);
  if (points.length === 1 || highest < 1.5 * lowest) {
    const gain = weighted((p) => p.x * p.y) / weighted((p) => p.x * p.x);
    return gain > 0 ? { gain, offset: 0 } : null;
  }
  const [w, wx, wy, wxx, wxy] = [
    weighted(() => 1),
    weighted((p) => p.x),
    weighted((p) => p.y),
    weighted((p) => p.x * p.x),
    weighted((p) => p.x * p.y),
  ];
  const gain = (w * wxy - wx * wy) / (w * wxx - wx * wx);
  return gain > 0 ? { gain, offset: (wy - gain * wx) / w } : null;
}

/**
 * Holds several instruments against one of them in the same glasses: how much of each difference is the scale
 * and how much is error, which scale would explain it, and the correction that brings it into line.
 */
export function compareMeters(meters: readonly ComparedMeter[], referenceId: string): MeterVerdict[] {
  const reference = meters.find((meter) => meter.id === referenceId);
  const referenceEc = reference ? reference.shown.map((shown) => ecOf(shown, reference.scale)) : [];
  return meters.map((meter) => {
    const ec25UScm = meter.shown.map((shown) => ecOf(shown, meter.scale));
    const error = mean(deviations(ec25UScm, referenceEc));
    const base = { id: meter.id, name: meter.name, ec25UScm };
    if (meter.id === referenceId) return { ...base, error: 0, byScale: 0, says: 'reference', likelyScale: null, correction: null };
    if (error === null) return { ...base, error, byScale: null, says: 'not read', likelyScale: null, correction: null };
    const common = meter.shown.flatMap((shown, i) => {
      // A glass beyond what either scale can show tells nothing of the other.
      const [ec, own] = [referenceEc[i], ec25UScm[i]];
      const ideal = ec ? readingFromEc25(ec, meter.scale) : null;
      return shown !== null && ec && own && ideal !== null ? [{ shown, ec, own, ideal }] : [];
    });
    if (common.length === 0) return { ...base, error, byScale: null, says: 'not read', likelyScale: null, correction: null };
    const ideal = common.map((glass) => glass.ideal);
    const referenceShows = common.map(({ ec }) => readingFromEc25(ec, reference!.scale) ?? ec);
    const byScale = ideal.reduce((sum, value, i) => sum + value / referenceShows[i]! - 1, 0) / ideal.length;
    const near = common.every(({ own, ec }) => agrees(own, ec));
    const strange =
      !near ||
      (common.length > 1 && Math.abs(error) > CLAIMED_SHARE && common.every(({ own, ec }) => Math.sign(own - ec) === Math.sign(error)));
    const likelyScale = strange ? explainingScale(meter, referenceEc) : null;
    const fine = near && likelyScale === null;
    return {
      ...base,
      error,
      byScale,
      says: fine ? 'agrees' : likelyScale ? 'other scale' : 'differs',
      likelyScale,
      correction: fitCorrection(
        common.map(({ shown }) => shown),
        ideal,
      ),
    };
  });
}

/** The common scale on which a meter comes nearest to the reference, when it comes near enough in every glass. */
function explainingScale(meter: ComparedMeter, referenceEc: readonly (number | null)[]): MeterScale | null {
  let best: MeterScale | null = null;
  let least = EXPLAINED_SHARE;
  for (const scale of COMMON_SCALES) {
    const own = meter.shown.map((shown) => ecOf(shown, scale));
    const worst = Math.max(...deviations(own, referenceEc).map(Math.abs));
    if (worst < least) {
      least = worst;
      best = scale;
    }
  }
  return best ?? ownFactor(meter, referenceEc);
}

/** Factors a scale in ppm may have. */
const FACTORS = { least: 0.3, most: 1.1 } as const;
/** A factor no instrument has printed on it, where one explains every glass. */
function ownFactor({ shown }: ComparedMeter, referenceEc: readonly (number | null)[]): MeterScale | null {
  const ratios = shown.flatMap((value, i) => (value !== null && value > 0 && referenceEc[i] ? [value / referenceEc[i]] : []));
  const factor = mean(ratios);
  if (factor === null || ratios.length < 2 || factor < FACTORS.least || factor > FACTORS.most) return null;
  const alike = ratios.every((ratio) => Math.abs(ratio / factor - 1) < EXPLAINED_SHARE);
  return alike ? { kind: 'factor', factor: Math.round(1000 * factor) / 1000 } : null;
}
