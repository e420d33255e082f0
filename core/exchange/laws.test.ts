import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { value } from '../testing/close';
import { balanced, characterWater, solutesMgL, type Water } from '../water';
import { bedThroughput, type BedThroughput } from './throughput';
import { bedUtilisation, frontLeak, slowestFlowLPerH } from './film';
import { forecastCartridge, loadSd, priorCapacity, updateCapacity } from './capacity';
import { ionicLoad, type IonicLoad } from './load';
import type { Bed } from './resins';

const bed: Bed = { resin: 'mixedBed', volumeL: 1.2, depthMm: 450, packing: 0.9 };
/** Life of one bed that stands alone, at a flow and 15 °C. */
const alone = (of: Bed, load: IonicLoad, flowLPerH: number): number =>
  litres(bedThroughput([of], [value(bedUtilisation(of, flowLPerH, 15))], load));
const litres = (throughput: BedThroughput): number => (throughput.until.kind === 'litres' ? throughput.until.litres : Infinity);
const permeate = (strength: number): Water =>
  balanced(solutesMgL({ Na: 2 * strength, Cl: 2.2 * strength, Ca: 0.3 * strength, SiO2: 0.5 }), 0.2, 15);

describe('laws of a resin bed', () => {
  const flow = fc.double({ min: 2, max: 40, noNaN: true });
  it('more resin never shortens its life', () => {
    fc.assert(
      fc.property(flow, fc.double({ min: 1.05, max: 4, noNaN: true }), (q, times) => {
        const load = ionicLoad(permeate(1));
        const larger = { ...bed, volumeL: bed.volumeL * times };
        expect(alone(larger, load, q)).toBeGreaterThan(alone(bed, load, q));
      }),
    );
  });
  it('a faster flow uses it worse, a deeper bed better, loose packing loses it', () => {
    fc.assert(
      fc.property(flow, (q) => {
        const at = (b: Bed, l: number): number => value(bedUtilisation(b, l, 15)).anion.utilisation;
        expect(at(bed, q * 1.5)).toBeLessThan(at(bed, q));
        expect(at({ ...bed, depthMm: 600 }, q)).toBeGreaterThan(at(bed, q));
        const load = ionicLoad(permeate(1));
        expect(alone({ ...bed, packing: 0.75 }, load, q)).toBeLessThan(alone(bed, load, q));
      }),
    );
  });
  it('twice the salt spends it sooner, but less than twice as soon: CO2 stays what it was', () => {
    const once = alone(bed, ionicLoad(permeate(1)), 10);
    const twice = alone(bed, ionicLoad(permeate(2)), 10);
    expect(twice).toBeLessThan(once);
    expect(twice).toBeGreaterThan(once / 2);
  });
  it('the load of a water is the sum of its parts: twice the strength is twice the load', () => {
    const single = ionicLoad(value(characterWater('chalk', 0.5)));
    const double = ionicLoad(value(characterWater('chalk', 1)));
    expect(double.cationMeqL / single.cationMeqL).toBeCloseTo(2, 9);
    expect(double.anionMeqL).toBeGreaterThan(double.cationMeqL);
  });
  it('three beds in a row outlast three alone', () => {
    const state = value(bedUtilisation(bed, 20, 15));
    const load = ionicLoad(permeate(1));
    const row = litres(bedThroughput([bed, bed, bed], [state, state, state], load));
    expect(row).toBeGreaterThan(3 * litres(bedThroughput([bed], [state], load)));
  });
  it('leaks more the more of it is used, from nothing to everything', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 80, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (units, used) => {
        expect(frontLeak(units, used + 0.02)).toBeGreaterThanOrEqual(frontLeak(units, used));
        expect(frontLeak(units, used)).toBeLessThanOrEqual(1);
        expect(frontLeak(units, used)).toBeGreaterThan(0);
      }),
    );
  });
  it('the slowest flow it covers is just inside what it accepts', () => {
    const slowest = slowestFlowLPerH(bed, 15);
    expect(bedUtilisation(bed, slowest, 15).ok).toBe(true);
    expect(bedUtilisation(bed, slowest * 0.9, 15).ok).toBe(false);
  });
});

describe('laws of the belief', () => {
  const belief = fc.record({ lnMean: fc.double({ min: -1, max: 3, noNaN: true }), sd: fc.double({ min: 0.05, max: 0.5, noNaN: true }) });
  const load = fc.double({ min: 0.2, max: 20, noNaN: true });
  it('a breakthrough always makes it surer, and moves it towards what was seen', () => {
    fc.assert(
      fc.property(belief, load, (before, loadEq) => {
        const after = updateCapacity(before, { kind: 'breakthrough', loadEq, loadSd: 0.1 });
        expect(after.sd).toBeLessThan(before.sd);
        expect(Math.abs(after.lnMean - Math.log(loadEq))).toBeLessThanOrEqual(Math.abs(before.lnMean - Math.log(loadEq)) + 1e-12);
      }),
    );
  });
  it('a removal before breakthrough never lowers it', () => {
    fc.assert(
      fc.property(belief, load, (before, loadEq) => {
        const after = updateCapacity(before, { kind: 'removedBefore', loadEq, loadSd: 0.1 });
        expect(after.lnMean).toBeGreaterThanOrEqual(before.lnMean);
        expect(after.sd).toBeGreaterThan(0);
        expect(Number.isFinite(after.lnMean)).toBe(true);
      }),
    );
  });
  it('a forecast keeps its order and shortens as more is used', () => {
    fc.assert(
      fc.property(load, fc.double({ min: 0.01, max: 0.9, noNaN: true }), (capacity, share) => {
        const prior = priorCapacity(capacity);
        const early = forecastCartridge(prior, capacity * share * 0.5, loadSd(5), 0.01);
        const late = forecastCartridge(prior, capacity * share, loadSd(5), 0.01);
        for (const { remaining, daysLeft } of [early, late]) {
          expect(remaining.p10).toBeLessThanOrEqual(remaining.p50);
          expect(remaining.p50).toBeLessThanOrEqual(remaining.p90);
          expect(daysLeft!.p10).toBeLessThanOrEqual(daysLeft!.p90);
        }
        expect(late.daysLeft!.p50).toBeLessThan(early.daysLeft!.p50);
      }),
    );
  });
});
