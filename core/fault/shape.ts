import { CATALOGUE } from './catalogue';
import { logSumExp, mean, median, normalSpread } from '../numeric';

/** How a series of the log goes: the evidence of four small linear models (science of faults, 5). */
export const SHAPES = ['steady', 'drift', 'step', 'season'] as const;
export type Shape = (typeof SHAPES)[number];

/** Scatter no series is believed to stay below. */
const LEAST_SCATTER = 0.02;
/** How far each part of a model may go, one sd. */
const TAU = { level: 0.05, driftPerYear: 0.25, step: 0.3, season: 0.06 } as const;
const DAYS = 365;

/**
 * ln of the evidence of a linear model y = X·b + e: b normal about 0 with its own sd, e with the scatter s.
 *
 * @param columns of X, each with the sd of its coefficient
 */
function lnEvidence(
  y: readonly number[],
  scatter: number,
  columns: readonly { readonly x: readonly number[]; readonly sd: number }[],
): number {
  // Column by column the covariance is s²I plus rank-one pieces: inverse and determinant by Sherman and Morrison.
  const n = y.length;
  const inverse = y.map((_, i) => y.map((__, j) => (i === j ? 1 / (scatter * scatter) : 0)));
  let lnDet = 2 * n * Math.log(scatter);
  for (const { x, sd } of columns) {
    const w = x.map((value) => value * sd);
    const k = inverse.map((row) => row.reduce((sum, value, j) => sum + value * w[j]!, 0));
    const d = 1 + w.reduce((sum, value, i) => sum + value * k[i]!, 0);
    lnDet += Math.log(d);
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) inverse[i]![j]! -= (k[i]! * k[j]!) / d;
  }
  const squares = y.reduce((sum, yi, i) => sum + yi * inverse[i]!.reduce((part, value, j) => part + value * y[j]!, 0), 0);
  return -0.5 * (squares + lnDet + n * Math.log(2 * Math.PI));
}

/**
 * How likely each shape is for a series.
 *
 * @param days of the points, ascending, the first at 0
 * @param scatter of a reading about its line; not below 0.02
 * @param changes days of work on record; where there is none, a step may stand at every gap
 */
export function shapeEvidence(
  days: readonly number[],
  y: readonly number[],
  scatter: number,
  changes: readonly number[] = [],
): { readonly ln: Readonly<Record<Shape, number>>; readonly probability: Readonly<Record<Shape, number>> } {
  const s = Math.max(scatter, LEAST_SCATTER);
  const level = { x: days.map(() => 1), sd: TAU.level };
  const stepAt = (day: number): number => lnEvidence(y, s, [level, { x: days.map((d) => (d >= day ? 1 : 0)), sd: TAU.step }]);
  const at = changes.length > 0 ? changes : days.slice(1);
  const ln = {
    steady: lnEvidence(y, s, [level]),
    drift: lnEvidence(y, s, [level, { x: days.map((d) => d / DAYS), sd: TAU.driftPerYear }]),
    step: logSumExp(at.map(stepAt)) - Math.log(at.length),
    season: lnEvidence(y, s, [
      level,
      { x: days.map((d) => Math.cos((2 * Math.PI * d) / DAYS)), sd: TAU.season },
      { x: days.map((d) => Math.sin((2 * Math.PI * d) / DAYS)), sd: TAU.season },
    ]),
  };
  const all = logSumExp(SHAPES.map((shape) => ln[shape]));
  const probability = Object.fromEntries(SHAPES.map((shape) => [shape, Math.exp(ln[shape] - all)])) as Record<Shape, number>;
  return { ln, probability };
}

/** Causes a shape speaks for: those that go on by and by, those that come at once, those that come with the year. */
const SPEAKS_FOR: Readonly<Record<Shape, readonly string[]>> = {
  // What no meter sees keeps its odds against healthy for ever.
  steady: ['healthy', ...CATALOGUE.flatMap(({ id, unseen }) => (unseen ? [id] : []))],
  drift: ['fouled', 'scaled', 'prefilter', 'resinSpent', 'oxidised', 'pumpWeak', 'pumpSlip', 'cartridgeSpent'],
  step: ['meterFault', 'sealLeak', 'lineLow', 'probePlace'],
  season: ['coldWater', 'feedStrong'],
};
const SPOKEN = 5;
const MOST = 5;
const LEAST = 0.2;
/** Points below which a series has no shape. */
const LEAST_POINTS = 5;

/**
 * What the shape of a series multiplies the odds of each cause by.
 *
 * @param raised causes that the work at the recorded change brings about; they take the step's part where there was any
 */
export function shapeMultipliers(
  probability: Readonly<Record<Shape, number>>,
  ids: readonly string[],
  raised: readonly string[] | null = null,
): number[] {
  const of = (id: string): number =>
    SHAPES.reduce((sum, shape) => {
      const listed = shape === 'step' && raised ? raised : SPEAKS_FOR[shape];
      return sum + probability[shape] * (listed.includes(id) ? SPOKEN : 1);
    }, 0);
  const plain = ids.map(of);
  const mean = plain.reduce((sum, value) => sum + value, 0) / Math.max(1, plain.length);
  return plain.map((value) => Math.min(MOST, Math.max(LEAST, value / mean)));
}

/** One series of the log: when, and how far it stood from its reference, in ln. */
export interface Series {
  readonly days: readonly number[];
  readonly y: readonly number[];
}
/** Points from which a series' own scatter is taken. */
const RUN_IN = 6;

/**
 * What the shape of some series of the log multiplies the odds of each cause by; 1 where they are too short to have one.
 *
 * @param changes days of work on record, on the series' own count of days
 * @param raised causes which that work brings about
 */
export function shapeFactors(
  series: readonly Series[],
  ids: readonly string[],
  changes: readonly number[],
  raised: readonly string[],
): number[] {
  const long = series.filter(({ y }) => y.length >= LEAST_POINTS);
  if (long.length === 0) return ids.map(() => 1);
  const each = long.map(({ days, y }) => {
    const first = days[0]!;
    const level = median(y.slice(0, RUN_IN));
    const scatter = normalSpread(y.slice(0, RUN_IN).map((value) => value - level));
    const inside = changes.map((day) => day - first).filter((day) => day > 0 && day <= days.at(-1)! - first);
    const { probability } = shapeEvidence(
      days.map((day) => day - first),
      y.map((value) => value - level),
      scatter,
      inside,
    );
    return shapeMultipliers(probability, ids, inside.length > 0 ? raised : null);
  });
  // Series of one membrane tell much the same: their mean, not their product.
  return ids.map((_, i) => Math.exp(mean(each.map((factors) => Math.log(factors[i]!)))));
}
