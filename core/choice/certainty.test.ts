import { describe, expect, it } from 'vitest';
import { atStrength, fixedPerWeek, membraneFirst, PLACEHOLDER_ROUTE, resinAlone, type RouteWater } from '../testing/chapterOptions/routes';
import { readDemo } from '../testing/demo';
import { beats, quantileOf, sampleInputs, type UncertainInput } from '../year';
import { USUAL_DOUBTS } from '../year';
import { benchOf, choose, rowBy, searchOf } from '.';
import { compareUnderDoubt } from './certainty';

/** Comparison under doubt: O38 and O39 of the science of options, by the exchange chapter's two routes. */

const TAP: RouteWater = { seenMeqL: 2.789, co2MeqL: 0.15, silicaMeqL: 0.15 };
const PRICES = { resinPerL: 6, waterPerM3: 2, sewerPerM3: 2, powerPerKWh: 0.25, membranePerYear: 400 };
const share = (sd: number): UncertainInput => ({ value: 1, sd, shape: 'lognormal' });
/** Strength, carbon dioxide, resin price, litres, fixed cost, capacity: in this order. */
const draws = sampleInputs([share(0.15), share(0.4), share(0.1), share(0.2), share(0.1), share(0.1)], {
  seed: 2026,
  points: 256,
  replicates: 8,
});

function weekly(litres: number): { alone: Float64Array; both: Float64Array } {
  if (!draws.ok) throw new Error(draws.error.message);
  const count = draws.value.length;
  const [alone, both] = [new Float64Array(count), new Float64Array(count)];
  draws.value.forEach((factors, i) => {
    const [ppm, co2, price, use, fixed, capacity] = factors as unknown as [number, number, number, number, number, number];
    const tap = { ...atStrength(TAP, ppm), co2MeqL: TAP.co2MeqL * co2 };
    // More capacity is less resin for a litre: it divides the price.
    const prices = { ...PRICES, resinPerL: (PRICES.resinPerL * price) / capacity };
    alone[i] = litres * use * resinAlone(tap, prices).total;
    both[i] = litres * use * membraneFirst(tap, PLACEHOLDER_ROUTE, prices).total + fixedPerWeek(PRICES) * fixed;
  });
  return { alone, both };
}

describe('two routes under doubt', () => {
  it.each([
    [200, 0.245],
    [251, 0.502],
    [300, 0.704],
    [400, 0.92],
  ])('O38: at %i L a week membrane and resin is the cheaper in %f of cases', (litres, expected) => {
    const { alone, both } = weekly(litres);
    expect(Math.abs(beats(both, alone) - expected)).toBeLessThan(0.015);
  });
  it('O39: what a week costs either way, at 300 L', () => {
    const { alone, both } = weekly(300);
    const band = (values: Float64Array): number[] => [0.1, 0.5, 0.9].map((p) => quantileOf(Float64Array.from(values).sort(), p));
    const near = (found: number[], expected: number[]): void =>
      found.forEach((value, i) => expect(Math.abs(value / expected[i]! - 1)).toBeLessThan(0.02));
    near(band(alone), [8.39, 12.18, 17.46]);
    near(band(both), [9.44, 10.65, 12.05]);
  });
});

describe('options under doubt', () => {
  const { system } = readDemo('tressimoor-coral-nursery');
  const narrow = { ...system, choice: { ...system.choice, kept: [{ axis: 'element', values: ['household50', 'household75'] }] } };
  const bench = benchOf(narrow);
  if (!bench.ok) throw new Error(bench.error.message);
  const { found } = searchOf(bench.value);
  const { recommendation } = choose(found);
  const figuresBy = (id: string) => rowBy(id, 'asked', narrow)!.figures;
  const dearest = found.reduce((a, b) => (b.annualCost > a.annualCost ? b : a));
  const { prices } = bench.value;
  const compared = compareUnderDoubt([figuresBy(recommendation!.id), figuresBy(dearest.id)], prices, USUAL_DOUBTS);

  it('the recommended one beats the dearest in nearly every case, and the bands hold their middle', () => {
    if (!compared.ok) throw new Error(compared.error.message);
    const { firstBeats, spreads, word } = compared.value;
    expect(firstBeats[0]).toBe(0.5);
    expect(firstBeats[1]).toBeGreaterThan(0.9);
    expect(word[1]).toBe('clearly');
    for (const { p10, p50, p90 } of spreads) expect(p10 < p50 && p50 < p90).toBe(true);
    const own = found.find(({ id }) => id === recommendation!.id)!;
    expect(Math.abs(spreads[0]!.p50 / own.annualCost - 1)).toBeLessThan(0.1);
  });
  it('a band nests in that of more doubt', () => {
    const one = [figuresBy(recommendation!.id)];
    const wide = compareUnderDoubt(one, prices, { ...USUAL_DOUBTS, use: 0.4, co2: 0.6 });
    const narrow = compareUnderDoubt(one, prices, { ...USUAL_DOUBTS, use: 0.05, co2: 0.1 });
    if (!wide.ok || !narrow.ok) throw new Error('no bands');
    expect(wide.value.spreads[0]!.p10).toBeLessThan(narrow.value.spreads[0]!.p10);
    expect(wide.value.spreads[0]!.p90).toBeGreaterThan(narrow.value.spreads[0]!.p90);
  });
});
