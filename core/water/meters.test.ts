import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { characterWater } from './characters';
import { compareMeters, fitCorrection, type ComparedMeter } from './compareMeters';
import {
  compensated,
  ec25FromConductivity,
  meterEc25,
  plainMeter,
  pureWaterUScm,
  readingFromEc25,
  saltConductivityUScm,
  withResidualDrop,
  type MeterScale,
} from './meter';
import { conductivityByHand, chargeBalance, allowedDifferencePercent, standardChecks } from './standardChecks';
import { settleWater, uncompensatedUScm, waterFromPH } from './water';
import { solutesMgL } from './solutes';

const NACL: MeterScale = { kind: 'curve', salt: 'NaCl' };
const HALF: MeterScale = { kind: 'factor', factor: 0.5 };
const EC: MeterScale = { kind: 'conductivity' };

describe('salts', () => {
  // Computed independently for the handbook.
  it.each([
    [47, 'NaCl', [21.49, 210.4, 1018.58, 1992.37]],
    [48, 'KCl', [20.01, 196.6, 957.91, 1881.87]],
    [49, 'mixedSalts', [16.12, 155.83, 741.37, 1432.15]],
    [50, 'NaHCO3', [11.39, 110.09, 529.45, 1032.38]],
  ] as const)('%i: %s at 10, 100, 500, 1000 mg/L', (_, salt, expected) =>
    [10, 100, 500, 1000].forEach((mgL, i) => expectWithin(saltConductivityUScm(salt, mgL), expected[i]!, 0.005)),
  );
  // Common practice: 2.04 µS/cm per mg/L of table salt; 1.06–1.13 of baking soda, whose "ppm" is half the truth.
  it('51: µS/cm per mg/L', () => {
    expectWithin(saltConductivityUScm('NaCl', 500) / 500, 2.04, 0.04);
    for (const mgL of [100, 500]) {
      expect(saltConductivityUScm('NaHCO3', mgL) / mgL).toBeGreaterThan(1.04);
      expect(saltConductivityUScm('NaHCO3', mgL) / mgL).toBeLessThan(1.14);
    }
  });
  it('52: 222 µS/cm on the factor scales', () => {
    expectWithin(readingFromEc25(222, HALF)!, 111, 1e-9);
    expectWithin(readingFromEc25(222, { kind: 'factor', factor: 0.7 })!, 155.4, 1e-9);
  });
  // Common practice: an in-line meter and a pen in one tap sample.
  it('53: the factors two instruments imply', () => {
    expectNear(122 / 241, 0.506, 0.001);
    expectNear(147 / 221, 0.665, 0.001);
    const meters: ComparedMeter[] = [
      { id: 'inline', name: 'In-line', scale: { kind: 'factor', factor: 0.506 }, shown: [122] },
      { id: 'pen', name: 'Pen', scale: { kind: 'factor', factor: 0.665 }, shown: [147] },
    ];
    const [, pen] = compareMeters(meters, 'inline');
    // 20 % apart in ppm, of which the scale makes up more than all; in conductivity they agree within a tenth.
    expectNear(147 / 122 - 1, 0.205, 0.001);
    expect(pen!.byScale!).toBeGreaterThan(0.3);
    expect(Math.abs(pen!.error!)).toBeLessThan(0.1);
    expect(pen!.says).toBe('agrees');
  });
});

describe('temperature', () => {
  it('55: pure water at 10 °C through a linear correction', () => expectWithin(compensated(pureWaterUScm(10), 10), 0.0331, 0.02));
  it('56: and at 40 °C', () => expectWithin(compensated(pureWaterUScm(40), 40), 0.0865, 0.02));
  it.each([10, 18, 32, 40])('near pure water the correction takes the water itself out: %s °C', (t) =>
    expectWithin(value(ec25FromConductivity(pureWaterUScm(t), t)), 0.05501, 0.005),
  );
  it('says when less is read than pure water conducts', () => {
    const outcome = ec25FromConductivity(0.03, 25);
    expect(outcome.ok ? '' : outcome.error.message).toMatch(
      /Reads below pure water at 25 °C \(18\.2 MΩ·cm\): set the meter's compensation or check probe and temperature/,
    );
  });
  it('57: municipal water at 10 °C on a 2 %/°C meter', () => {
    const cold = value(uncompensatedUScm({ ...value(characterWater('municipal', 1)), temperatureC: 10 }));
    expectWithin(compensated(cold, 10), 491.6, 0.01);
  });
  it('a meter without correction is corrected here; one with it is believed', () => {
    const cold = value(uncompensatedUScm({ ...value(characterWater('municipal', 1)), temperatureC: 10 }));
    expectWithin(value(meterEc25(cold, { ...plainMeter(EC), compensation: 'none' }, 10)), 486, 0.015);
    expect(value(meterEc25(480, plainMeter(EC), 10))).toBe(480);
    // A lab meter on cold pure water shows 0.0331 and means 0.0550.
    expectWithin(value(meterEc25(compensated(pureWaterUScm(10), 10), plainMeter(EC), 10)), 0.05501, 0.005);
  });
  it('undoes its own gain and offset before its scale', () => {
    const meter = { ...plainMeter(HALF), gain: 1.1, offset: 2 };
    expectWithin(value(meterEc25(1.1 * 150 + 2, meter, null)), 300, 1e-9);
    expect(value(meterEc25(1, meter, null))).toBe(0);
  });
});

describe('comparing meters', () => {
  const glasses = [30, 210, 480];
  const made = (id: string, scale: MeterScale, gain = 1, offset = 0): ComparedMeter => ({
    id,
    name: id,
    scale,
    shown: glasses.map((ec) => gain * readingFromEc25(ec, scale)! + offset),
  });
  it('two scales on one water differ by scale alone', () => {
    const [, pen] = compareMeters([made('lab', EC), made('pen', { kind: 'factor', factor: 0.7 })], 'lab');
    expectNear(pen!.error!, 0, 1e-9);
    expectNear(pen!.byScale!, -0.3, 1e-9);
    expect(pen!.says).toBe('agrees');
  });
  it('finds a gain and an offset', () => {
    const [, pen] = compareMeters([made('lab', EC), made('pen', HALF, 1.25, 3)], 'lab');
    expect(pen!.says).toBe('differs');
    expectWithin(pen!.correction!.gain, 1.25, 1e-9);
    expectNear(pen!.correction!.offset, 3, 1e-9);
  });
  it('from one glass fixes the gain alone', () => expect(fitCorrection([110], [100])).toEqual({ gain: 1.1, offset: 0 }));
  it('names the scale an instrument really has', () => {
    // A 0.7 pen entered as a 0.5 one.
    const entered = { ...made('pen', { kind: 'factor', factor: 0.7 }), scale: HALF };
    const [, pen] = compareMeters([made('lab', EC), entered], 'lab');
    expect(pen!.says).toBe('other scale');
    expect(pen!.likelyScale).toEqual({ kind: 'factor', factor: 0.7 });
  });
  it('allows 2 µS/cm near zero', () => {
    const meters: ComparedMeter[] = [
      { id: 'a', name: 'a', scale: EC, shown: [4] },
      { id: 'b', name: 'b', scale: EC, shown: [5.8] },
    ];
    expect(compareMeters(meters, 'a')[1]!.says).toBe('agrees');
  });
  it('an unread instrument is said to be unread', () => {
    const meters: ComparedMeter[] = [
      { id: 'a', name: 'a', scale: EC, shown: [100, null] },
      { id: 'b', name: 'b', scale: EC, shown: [null, 50] },
    ];
    expect(compareMeters(meters, 'a')[1]).toMatchObject({ says: 'not read', error: null, correction: null });
  });
  it('any gain and offset is found again from three glasses', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 1.6, noNaN: true }),
        fc.double({ min: -2, max: 10, noNaN: true }),
        fc.constantFrom<MeterScale>(EC, HALF, NACL),
        (gain, offset, scale) => {
          const ideal = glasses.map((ec) => readingFromEc25(ec, scale)!);
          const fit = fitCorrection(
            ideal.map((x) => gain * x + offset),
            ideal,
          )!;
          expectWithin(fit.gain, gain, 1e-6);
          expectNear(fit.offset, offset, 1e-6);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('leftovers', () => {
  it('59: a drop of tap water left in the cap', () => expectNear(withResidualDrop(1, 10, 500, 0.05), 3.48, 0.01));
});

describe('a whole analysis', () => {
  /** The worked example of Standard Methods 2510 and 1030E (recalled), bicarbonate 170 mg/L. */
  const example = { Ca: 55, Mg: 12, Na: 28, K: 3.2, SO4: 77, Cl: 20 };
  it('30: conductivity by hand', () => {
    const { k0, k } = conductivityByHand({ ...example, HCO3: 170 });
    expectWithin(k0, 578.2, 0.002);
    expectWithin(k, 478.8, 0.01);
    expectWithin(k, 482.9, 0.002);
  });
  it('31: conductivity by the core', () => {
    const water = value(waterFromPH(example, 139.43, 7.8, 25));
    const state = value(settleWater(water));
    expectWithin(state.ec25UScm, 485.4, 0.005);
    expectWithin(state.ionicStrength, 0.00709, 0.005);
  });
  it('46: charges of the example', () => {
    const balance = chargeBalance(solutesMgL(example), 139.43);
    expectWithin(balance.cationsMeqL, 5.032, 0.002);
    expectWithin(balance.anionsMeqL, 4.953, 0.002);
    expectNear(balance.differencePercent, 0.79, 0.02);
    expect(allowedDifferencePercent(balance)).toBe(2);
  });
  // Standard Methods 1030E (recalled): limits by the size of the anion sum.
  it.each([
    [1, 1.2, 9.0909],
    [5, 5, 2],
    [20, 20, 5],
  ])('allows a difference by size: anions %s meq/L', (anionsMeqL, cationsMeqL, percent) =>
    expectNear(allowedDifferencePercent({ anionsMeqL, cationsMeqL, differencePercent: 0 }), percent, 0.001),
  );
  it('a sound analysis passes every test it can be put to', () => {
    const checks = standardChecks(solutesMgL(example), 139.43, { ec25UScm: 485, tdsMgL: 300 }, 485.4);
    expect(checks.map((c) => [c.id, c.passed])).toEqual([
      ['balance', true],
      ['tds', true],
      ['conductivity', true],
      ['cations', true],
      ['anions', true],
      ['tdsPerConductivity', true],
    ]);
  });
  it('a slipped digit fails the tests that can see it', () => {
    const slipped = standardChecks(solutesMgL({ ...example, Na: 280 }), 139.43, { ec25UScm: 485 }, 1000);
    expect(slipped.filter((c) => !c.passed).map((c) => c.id)).toEqual(['balance', 'conductivity', 'cations']);
  });
});
