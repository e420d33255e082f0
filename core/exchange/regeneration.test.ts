import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { balanced, settleWater, solutesMgL } from '../water';
import {
  anionEqPerL,
  calciumInAcidMmolL,
  cationEqPerL,
  doseEq,
  pairChemicals,
  pairCycle,
  regenerationBV,
  SERVICE_EQ_PER_L,
  serviceTankL,
  silicaSlipMgL,
  sodiumSlipMgL,
  strongestAcidPercent,
  wasteAlkalinityEq,
  type Acid,
  type AnionType,
  type PairOfBeds,
  type RegenerationWay,
} from './regeneration';

/** Check values of the chapter on kinds, §4: by their row. */
type Row = readonly [g: number, capacity: number, ratio: number];
const cation = (acid: Acid, way: RegenerationWay, rows: readonly Row[]): void => {
  for (const [g, capacity, ratio] of rows) {
    expectWithin(cationEqPerL(acid, way, g), capacity, 0.003, `${acid} ${g}`);
    expectWithin(doseEq(g, acid) / cationEqPerL(acid, way, g), ratio, 0.003, `${acid} ${g}`);
  }
};
const anion = (type: AnionType, rows: readonly Row[]): void => {
  for (const [g, capacity, ratio] of rows) {
    expectWithin(anionEqPerL(type, 'coCurrent', g), capacity, 0.003, `${type} ${g}`);
    expectWithin(doseEq(g, 'NaOH') / anionEqPerL(type, 'coCurrent', g), ratio, 0.003, `${type} ${g}`);
  }
};

describe('capacity by dose', () => {
  it('N26: hydrochloric acid, the way of the water', () =>
    cation('HCl', 'coCurrent', [
      [40, 0.7084, 1.549],
      [80, 1.058, 2.073],
      [160, 1.317, 3.333],
    ]));
  it('N27: against it', () =>
    cation('HCl', 'counterCurrent', [
      [50, 0.8988, 1.526],
      [80, 1.153, 1.904],
    ]));
  it('N28: sulfuric acid', () =>
    cation('H2SO4', 'coCurrent', [
      [80, 0.7531, 2.166],
      [120, 0.9169, 2.669],
      [160, 1.013, 3.221],
    ]));
  it('N29: caustic on type I; N30: on type II; N31: on weak base', () => {
    anion('strongI', [
      [64, 0.5415, 2.955],
      [96, 0.6401, 3.75],
      [160, 0.7194, 5.56],
    ]);
    anion('strongII', [[64, 0.6814, 2.348]]);
    anion('weakBase', [[60, 0.9966, 1.505]]);
  });
  it('no regenerant gives more capacity than it brings', () => {
    for (const way of ['coCurrent', 'counterCurrent'] as const)
      for (const g of [20, 60, 120, 320]) {
        for (const acid of ['HCl', 'H2SO4'] as const) expect(cationEqPerL(acid, way, g)).toBeLessThan(doseEq(g, acid));
        for (const type of ['strongI', 'strongII', 'weakBase'] as const) expect(anionEqPerL(type, way, g)).toBeLessThan(doseEq(g, 'NaOH'));
      }
  });
});

describe('what slips', () => {
  it('N32: sodium, by dose, way and acid', () => {
    const of = (acid: Acid, way: RegenerationWay, g: number): number => sodiumSlipMgL(acid, way, g, { strongMeqL: 2, sodiumShare: 0.5 });
    expectWithin(of('HCl', 'coCurrent', 40), 2.362, 0.01);
    expectWithin(of('HCl', 'coCurrent', 80), 0.9034, 0.01);
    expectWithin(of('HCl', 'coCurrent', 160), 0.1415, 0.01);
    expectWithin(of('HCl', 'counterCurrent', 50), 0.175, 0.01);
    expectWithin(of('H2SO4', 'coCurrent', 120), 1.37, 0.01);
  });
  it('N33: silica, by dose, warmth of the caustic and way', () => {
    expectWithin(silicaSlipMgL('coCurrent', 64, 0.1, 20), 0.09999, 0.01);
    expectWithin(silicaSlipMgL('coCurrent', 64, 0.1, 35), 0.05015, 0.01);
    expectWithin(silicaSlipMgL('coCurrent', 64, 0.1, 50), 0.02516, 0.01);
    expectWithin(silicaSlipMgL('coCurrent', 128, 0.1, 20), 0.02635, 0.01);
    expectWithin(silicaSlipMgL('counterCurrent', 64, 0.1, 50), 0.005031, 0.01);
  });
});

describe('sulfuric acid and gypsum', () => {
  it('N34: strongest acid by the share of calcium, as the trade has it (15 %: 5–6, 33 %: 3–4, 60 %: 2, all: 1–1.5; recalled)', () => {
    const capacity = cationEqPerL('H2SO4', 'coCurrent', 100);
    const strongest = (share: number): number => strongestAcidPercent(100, share, capacity);
    expectWithin(strongest(0.15), 6, 0.005);
    expectWithin(strongest(0.33), 3.583, 0.005);
    expectWithin(strongest(0.6), 1.97, 0.005);
    expectWithin(strongest(1), 1.182, 0.005);
    expect(strongest(0)).toBe(6);
    expectWithin(calciumInAcidMmolL(100, 4, 0.6, capacity), 101.5, 0.005);
  });
});

describe('a pair of beds', () => {
  const beds: PairOfBeds = {
    cationL: 50,
    anionL: 75,
    acid: 'HCl',
    anionType: 'strongI',
    way: 'coCurrent',
    acidGPerL: 80,
    causticGPerL: 80,
  };
  const load = { cationMeqL: 5, strongMeqL: 2.3, weakMeqL: 2.75 };
  it('N35: its cycle with a degasser between, and its waste', () => {
    const { cationL, anionL, litres } = pairCycle(beds, load, 2.5);
    expectWithin(cationL!, 10_584, 0.005);
    expectWithin(anionL!, 17_606, 0.005);
    expect(litres).toBe(cationL);
    expectWithin(wasteAlkalinityEq(beds, load, litres!), 68.88, 0.005);
    // The waste as a water: the eq left over as sodium, beside 110 eq of salt and 1.38 mol of carbon.
    const volume = 1705;
    const meq = (eq: number): number => (1000 * eq) / volume;
    const salt = { Na: 22.99 * meq(110 + 68.88), Cl: 35.453 * meq(110) };
    const waste = balanced(solutesMgL(salt), meq(1.38), 25);
    expectNear(value(settleWater(waste)).pH, 12.47, 0.1);
    // Hydrochloric acid to pH 8: what stands above the alkalinity its carbon has there.
    let [low, high] = [0, meq(68.88)];
    for (let k = 0; k < 50; k++) {
      const middle = (low + high) / 2;
      const tried = balanced(solutesMgL({ ...salt, Cl: salt.Cl + 35.453 * middle }), meq(1.38), 25);
      if (value(settleWater(tried)).pH > 8) low = middle;
      else high = middle;
    }
    expectWithin((36.46 * low * volume) / 1e6, 2.462, 0.005);
  });
  it('N36: without a degasser the anion bed carries all carbon', () => {
    const { litres } = pairCycle(beds, load);
    expectWithin(litres!, 8890, 0.005);
    expectWithin(wasteAlkalinityEq(beds, load, litres!), 64.31, 0.005);
    // Weak base takes none of it.
    expect(pairCycle({ ...beds, anionType: 'weakBase' }, load).anionL!).toBeGreaterThan(25_000);
  });
  it('N37: water of a regeneration', () => {
    expectWithin(regenerationBV(80, 5, 5), 11.6, 0.001);
    expectWithin(regenerationBV(80, 4, 8), 15, 0.001);
    const { acidKg, causticKg, waterL } = pairChemicals(beds, { acidPercent: 5, causticPercent: 4 });
    expect([acidKg, causticKg]).toEqual([4, 6]);
    // The waste's litres of N35.
    expectWithin(waterL, 1705, 0.001);
  });
  it('N38: an exchanged tank', () => {
    const litres = serviceTankL(28, SERVICE_EQ_PER_L.mixed, 0.9, 0.4);
    expectWithin(litres, 31_500, 0.001);
    expectWithin(litres / 600, 52.5, 0.001);
  });
});
