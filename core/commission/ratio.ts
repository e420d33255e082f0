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

/** Product within this of the prediction is what jugs, clock and a model can agree on (our judgement). */
const PRODUCT_FITS = 0.25;

/** Output in a jug against what the unit would give under the same pressure and temperature. */
export interface ProductAgainst {
  readonly measuredLPerH: number;
  readonly expectedLPerH: number;
  readonly verdict: 'fits' | 'less' | 'more';
  /** What it usually is, likeliest first (common practice). */
  readonly reasons: readonly string[];
}

/**
 * Holds a jug of product against the prediction at today's pressure and temperature.
 *
 * @param productL litres in the jug
 * @param seconds how long it was filled
 * @param expectedLPerH product of the solved unit under the conditions of the test
 */
export function productAgainst(productL: number, seconds: number, expectedLPerH: number): ProductAgainst {
  const measuredLPerH = (3600 * productL) / seconds;
  const against = measuredLPerH / expectedLPerH;
  const verdict = against < 1 - PRODUCT_FITS ? 'less' : against > 1 + PRODUCT_FITS ? 'more' : 'fits';
  return { measuredLPerH, expectedLPerH, verdict, reasons: PRODUCT_REASONS[verdict] };
}

/** Product and waste both below this share of the solved ones lack pressure, not a restrictor (our judgement). */
const BOTH_LOW = 0.88;

/** Whether both flows lie below the solved ones together: then less pressure reaches the membrane than was read. */
export const bothLow = (productShare: number, wasteShare: number): boolean => productShare < BOTH_LOW && wasteShare < BOTH_LOW;

/** So many times what the unit draws is no reading of it, whatever its doubt (our judgement). */
const BEYOND = 3;

/**
 * Whether two jugs hold more than the unit can have drawn in that time: a unit or the clock was mistaken, and a cut made
 * after it would be wrong.
 *
 * @param expectedFeedLPerH feed of the solved unit under the conditions of the test
 */
export const jugsBeyond = ({ wasteL, productL }: BucketTest, seconds: number, expectedFeedLPerH: number): boolean =>
  (3600 * (wasteL + productL)) / seconds > BEYOND * expectedFeedLPerH;

const PRODUCT_REASONS: Readonly<Record<ProductAgainst['verdict'], readonly string[]>> = {
  fits: [],
  less: [
    'a valve or the float holds the product back',
    'less pressure at the membrane than typed: clogged filters, a long thin line',
    'a smaller element than planned',
    'less than ten minutes of running',
  ],
  more: ['another element than planned', 'the time was longer than set', 'a torn O-ring lets feed into the product: read its ppm'],
};

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
