import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/** A drop-count test: drops until the colour changed, and what one drop stands for. */
export interface DropCount {
  readonly drops: number;
  readonly sampleMl: number;
  /** mg/L as CaCO3 one drop counts in the kit's own sample. */
  readonly mgPerDrop: number;
  /** The kit's own sample, mL. */
  readonly nominalSampleMl: number;
}

export interface DropResult {
  readonly resultMgL: number;
  /** What one drop more or less would change, mg/L. */
  readonly stepMgL: number;
  /** Half a drop for the end point and 5 % for drop size and reagent (common practice), mg/L. */
  readonly plusMinusMgL: number;
  /** What another sample size would give: finer below 5 drops, quicker above 20. */
  readonly advice: 'double' | 'halve' | null;
}

/**
 * Result of a drop-count test.
 *
 * @returns an error when the drops are not a whole number from 0 to 200 or the sample is not 1 to 100 mL
 */
export function dropResult(count: DropCount): Outcome<DropResult> {
  const { drops, sampleMl, mgPerDrop, nominalSampleMl } = count;
  const invalid = firstError(
    outOfRange('drops', 'Drops', drops, 0, 200),
    outOfRange('sampleMl', 'Sample', sampleMl, 1, 100, 'mL'),
    outOfRange('nominalSampleMl', "The kit's sample", nominalSampleMl, 1, 100, 'mL'),
    outOfRange('mgPerDrop', 'One drop', mgPerDrop, 0.1, 1000, 'mg/L'),
  );
  if (invalid) return { ok: false, error: invalid };
  if (!Number.isInteger(drops))
    return fail('drops', drops, 'a whole number from 0 to 200', `Drops is ${drops}; accepted is a whole number from 0 to 200.`);
  const stepMgL = (mgPerDrop * nominalSampleMl) / sampleMl;
  const resultMgL = drops * stepMgL;
  return ok({
    resultMgL,
    stepMgL,
    plusMinusMgL: Math.hypot(stepMgL / 2, 0.05 * resultMgL),
    advice: drops < 5 && sampleMl * 2 <= 100 ? 'double' : drops > 20 && sampleMl / 2 >= 1 ? 'halve' : null,
  });
}
