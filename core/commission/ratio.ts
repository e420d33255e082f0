import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';

/** Waste and product run into jugs over the same time. */
export interface BucketTest {
  readonly wasteL: number;
  readonly productL: number;
  /** How well each jug can be read; defaults to 10 mL or 1 %, whichever is more. */
  readonly wasteErrorL?: number;
  readonly productErrorL?: number;
}

export interface BucketResult {
  readonly wasteToProduct: number;
  /** One standard deviation of it. */
  readonly uncertainty: number;
  /** Share of the feed that becomes product. */
  readonly recovery: number;
}

/** How well an ordinary kitchen jug is read (common practice). */
const jugErrorL = (volumeL: number): number => Math.max(0.01, 0.01 * volumeL);

/**
 * Waste : product by volume. Over the same time the time cancels, and so does the unit of the jugs.
 *
 * @example bucketTest({ wasteL: 1, productL: 0.25, wasteErrorL: 0.01, productErrorL: 0.01 }) // 4.0 ± 0.165
 */
export function bucketTest(test: BucketTest): Outcome<BucketResult> {
  const invalid = firstError(
    outOfRange('wasteL', 'Waste', test.wasteL, 0, 10_000, 'L'),
    outOfRange('productL', 'Product', test.productL, 0, 10_000, 'L'),
  );
  if (invalid) return { ok: false, error: invalid };
  if (test.productL === 0)
    return fail(
      'productL',
      0,
      'above 0 L',
      'Product is 0: without product there is no ratio. Wait until it runs, then measure both again.',
    );
  if (test.wasteL === 0)
    return fail(
      'wasteL',
      0,
      'above 0 L',
      'Waste is 0: the membrane must never run without waste. Check the restrictor and the drain line.',
    );
  const wasteToProduct = test.wasteL / test.productL;
  const wasteShare = (test.wasteErrorL ?? jugErrorL(test.wasteL)) / test.wasteL;
  const productShare = (test.productErrorL ?? jugErrorL(test.productL)) / test.productL;
  return ok({
    wasteToProduct,
    uncertainty: wasteToProduct * Math.hypot(wasteShare, productShare),
    recovery: 1 / (1 + wasteToProduct),
  });
}
