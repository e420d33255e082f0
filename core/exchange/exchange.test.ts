import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { balanced, settleWater, solutesMgL, type Water } from '../water';
import { bedCapacityEq, bedThroughput } from './throughput';
import { floorOf, polishedWater, type PolishFloor } from './polish';
import { bedPressureBar, bedUtilisation, frontLeak, utilisationAt } from './film';
import { forecastCartridge, loadSd, priorCapacity, updateCapacity } from './capacity';
import { ionicLoad } from './load';
import type { Bed } from './resins';

const NO_FLOOR: PolishFloor = { saltUmolL: 0, carbonUmolL: 0, silicaMgL: 0, ammoniaMgL: 0, sodiumMgL: 0 };
const cartridge: Bed = { resin: 'mixedBed', volumeL: 0.6, depthMm: 220, packing: 0.9 };
/** The chapter's generic tap at a strength in meq/L: cations Ca 60, Mg 15, Na 20, K 5 %; anions HCO3 60, Cl 20, SO4 15, NO3 5 %. */
function genericTap(meqL: number, co2MmolL = 0.15, silicaMmolL = 0.15): Water {
  return balanced(
    solutesMgL({
      Ca: 0.6 * meqL * 20.039,
      Mg: 0.15 * meqL * 12.1525,
      Na: 0.2 * meqL * 22.99,
      K: 0.05 * meqL * 39.098,
      Cl: 0.2 * meqL * 35.453,
      SO4: 0.15 * meqL * 48.0315,
      NO3: 0.05 * meqL * 62.005,
      SiO2: silicaMmolL * 60.084,
    }),
    0.6 * meqL + co2MmolL,
    25,
  );
}

// Check values of the handbook's exchange chapter, sections 2 and 12, computed independently.
describe('film transfer', () => {
  it('7: 0.22 m at 20 bed volumes an hour', () => {
    const s = value(bedUtilisation(cartridge, 12, 25));
    expectWithin(s.reynolds, 0.958, 0.01);
    expectWithin(s.cation.htuMm, 11.28, 0.01);
    expectWithin(s.cation.transferUnits, 19.5, 0.01);
    expectWithin(s.cation.utilisation, 0.815, 0.01);
  });
  it('8: 0.90 m at 60 bed volumes an hour', () => {
    const bed: Bed = { resin: 'mixedBed', volumeL: 25, depthMm: 900, packing: 0.9 };
    const s = value(bedUtilisation(bed, 1500, 25));
    expectWithin(s.anion.htuMm, 40, 0.01);
    expectWithin(s.anion.transferUnits, 22.49, 0.01);
    expectWithin(s.anion.utilisation, 0.84, 0.01);
    expectWithin(value(bedUtilisation(bed, 1500, 25, 0.001)).anion.utilisation, 0.737, 0.01);
  });
  it.each([
    [0.22, 10, 0.884, 0.922],
    [0.22, 60, 0.616, 0.744],
    [0.45, 20, 0.854, 0.903],
    [0.9, 20, 0.884, 0.923],
  ])('table 2.3: %s m at %s BV/h', (depth, bvh, cation, anion) => {
    const s = value(bedUtilisation({ ...cartridge, depthMm: depth * 1000 }, bvh * cartridge.volumeL, 25));
    expectWithin(s.cation.utilisation, cation, 0.005);
    expectWithin(s.anion.utilisation, anion, 0.005);
  });
  it('9: the film law itself', () => {
    expectWithin(utilisationAt(10, 0.01), 0.63948, 1e-4);
    expectWithin(utilisationAt(20, 0.01), 0.81974, 1e-4);
  });
  it('46: a bed too short gives zero, never less', () => expect(utilisationAt(3, 0.01)).toBe(0));
  it('leaks nothing when fresh and everything when long spent', () => {
    expect(frontLeak(40, 0)).toBeLessThan(1e-16);
    expect(frontLeak(40, 1.5)).toBe(1);
    expectWithin(frontLeak(20, utilisationAt(20, 0.01)), 0.01, 1e-9);
  });
  // Ergun 1952 by hand: 776 Pa/m over 0.22 m.
  it('takes little pressure at household flow', () => expectNear(bedPressureBar(cartridge, 4, 25), 0.00171, 0.00002));
  it.each([
    [{ volumeL: 0 }, 5, 'volumeL'],
    [{}, 0, 'flowLPerH'],
    [{ depthMm: 10 }, 5, 'depthMm'],
    [{}, 1e5, 'flowLPerH'],
  ] as const)('refuses %o at %s L/h naming %s', (change, flow, field) => {
    const outcome = bedUtilisation({ ...cartridge, ...change }, flow, 25);
    expect(outcome.ok ? '' : outcome.error.field).toBe(field);
  });
});

describe('load and throughput', () => {
  it('2.4: the generic tap of 100 ppm carries 1.952 meq/L', () => {
    const load = ionicLoad(genericTap(1.952));
    expectWithin(load.cationMeqL, 1.952, 1e-3);
    expectWithin(load.anionMeqL, 1.952 + 0.3, 1e-3);
    expectWithin(load.weakAcidMeqL, 0.3, 0.01);
  });
  it('the cation load equals strong anions and alkalinity', () => {
    const tap = genericTap(3);
    expectWithin(ionicLoad(tap).cationMeqL, tap.alkalinityMgL / 50.0435 + 0.4 * 3, 1e-9);
  });
  it.each([
    [0.6, 0.22, 0.2, 1.952, 126],
    [1.2, 0.45, 0.3, 4.088, 136],
    [7, 0.4, 2, 4.088, 783],
    [11, 0.45, 3, 1.952, 2414],
    [25, 0.9, 6, 4.088, 2886],
  ])('table 2.4 and 21: %s L of resin', (volumeL, depth, lPerMin, meqL, litres) => {
    const bed: Bed = { resin: 'mixedBed', volumeL, depthMm: depth * 1000, packing: 0.9 };
    const s = value(bedUtilisation(bed, lPerMin * 60, 25));
    const got = bedThroughput([bed], [s], ionicLoad(genericTap(meqL)));
    expect(got.limiting).toBe('anion');
    expectWithin(got.until.kind === 'litres' ? got.until.litres : 0, litres, 0.02);
  });
  it('22: a membrane in front saves resin 9.6 and 13.7 times', () => {
    for (const [meqL, times] of [
      [1.952, 9.6],
      [4.088, 13.7],
    ] as const) {
      const alone = ionicLoad(genericTap(meqL)).anionMeqL;
      const behind = ionicLoad(genericTap(meqL * 0.04, 0.15, 0.15 * 0.05)).anionMeqL;
      expectWithin(alone / behind, times, 0.02);
    }
  });
  it('5: two in series reach past what one alone would', () => {
    const s = value(bedUtilisation(cartridge, 12, 25));
    const load = ionicLoad(genericTap(1));
    const litres = (n: number): number => {
      const got = bedThroughput(Array(n).fill(cartridge), Array(n).fill(s), load).until;
      return got.kind === 'litres' ? got.litres : 0;
    };
    expect(litres(2)).toBeGreaterThan(2 * litres(1));
  });
  it('pure water uses nothing: unlimited, not infinity', () => {
    const s = value(bedUtilisation(cartridge, 12, 25));
    expect(bedThroughput([cartridge], [s], ionicLoad(balanced(solutesMgL({}), 0, 25))).until).toEqual({ kind: 'unlimited' });
  });
  it('a fresh bed leaves pure water, a spent one what came in', () => {
    const feed = genericTap(0.1);
    const s = value(bedUtilisation(cartridge, 6, 25));
    const out = (used: number): number =>
      value(settleWater(polishedWater(feed, 'mixedBed', s, { cation: used, anion: used }, NO_FLOOR))).ec25UScm;
    expectWithin(out(0), 0.05501, 0.01);
    expectWithin(out(60), value(settleWater(feed)).ec25UScm, 1e-6);
  });
  it('an effluent is electroneutral and never negative whatever is spent', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1.3, noNaN: true }), fc.double({ min: 0, max: 1.3, noNaN: true }), (cation, anion) => {
        const out = polishedWater(
          genericTap(0.2),
          'mixedBed',
          value(bedUtilisation(cartridge, 6, 15)),
          { cation, anion },
          floorOf('mixedBed', 0.6, false),
        );
        expect(Object.values(out.mgL).every((mgL) => mgL >= 0)).toBe(true);
        expect(settleWater(out).ok).toBe(true);
      }),
      { numRuns: 80 },
    );
  });
});

describe('tracking', () => {
  const prior = { lnMean: Math.log(6), sd: 0.25 };
  it('25: breakthrough seen at 4.8 eq', () => {
    const after = updateCapacity(prior, { kind: 'breakthrough', loadEq: 4.8, loadSd: 0.1 });
    expectWithin(Math.exp(after.lnMean), 5.067, 0.001);
    expectWithin(after.sd, 0.1231, 0.001);
  });
  it('26: taken out at 6.6 eq before breakthrough', () => {
    const after = updateCapacity(prior, { kind: 'removedBefore', loadEq: 6.6, loadSd: 0.1 });
    expectWithin(Math.exp(after.lnMean), 7.492, 0.001);
    expectWithin(after.sd, 0.171, 0.001);
  });
  it('far above the belief the tail is taken directly, not as one less almost one', () => {
    const after = updateCapacity({ lnMean: 0, sd: 0.0578 }, { kind: 'removedBefore', loadEq: 3.385, loadSd: 0.1 });
    expect(after.lnMean).toBeGreaterThan(0.1);
    expect(after.sd).toBeGreaterThan(0.04);
  });
  it('27: what is left after 2.0 eq at 0.04 eq a day', () => {
    const belief = updateCapacity(prior, { kind: 'breakthrough', loadEq: 4.8, loadSd: 0.1 });
    const f = forecastCartridge(belief, 2, 0.1, 0.04);
    [0.498, 0.605, 0.69].forEach((expected, i) => expectWithin([f.remaining.p10, f.remaining.p50, f.remaining.p90][i]!, expected, 0.005));
    [49.6, 76.7, 111.1].forEach((expected, i) => expectWithin([f.daysLeft!.p10, f.daysLeft!.p50, f.daysLeft!.p90][i]!, expected, 0.005));
  });
  it('gives no date when nothing is used', () => expect(forecastCartridge(prior, 1, 0.1, 0).daysLeft).toBeNull());
  it('stays within 0 and 1 whatever was taken up', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), (loadEq) => {
        const { remaining } = forecastCartridge(priorCapacity(bedCapacityEq(cartridge).anionEq), loadEq, loadSd(5), 0.01);
        for (const share of [remaining.p10, remaining.p50, remaining.p90]) {
          expect(share).toBeGreaterThanOrEqual(0);
          expect(share).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
});
