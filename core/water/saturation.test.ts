import { describe, expect, it } from 'vitest';
import { findRoot } from '../numeric';
import { expectNear, expectWithin, value } from '../testing/close';
import { balanced, closedSpecies, molalWater, openToAir, settleWater, waterFromPH, type Water } from './water';
import { actedCalciteIndex, calciteState, seaCalciteK, steamedScaleMgL } from './scale';
import { characterWater, type Character } from './characters';
import {
  langelierByHand,
  MINERALS,
  percentOfSaturation,
  ryznarIndex,
  ryznarWord,
  saturation,
  solubilityProducts,
  type Mineral,
} from './saturation';
import { solutesMgL, type Solute } from './solutes';
import { waterKgPerL } from './properties';

const character = (name: Character): Water => value(characterWater(name, 1));

/** mmol/kg of a salt dissolved in pure water at which a mineral is just saturated. */
function solubilityMmol(
  mineral: Mineral,
  t: number,
  ions: readonly [Solute, Solute],
  molar: readonly [number, number],
  most: number,
): number {
  const at = (mmol: number): Water => balanced(solutesMgL({ [ions[0]]: mmol * molar[0], [ions[1]]: mmol * molar[1] }), 0, t);
  const root = findRoot((ln) => value(saturation(at(Math.exp(ln)), t))[mineral]!, Math.log(1e-4), Math.log(most), 1e-10)!;
  return Math.exp(root.x) / molalWater(at(Math.exp(root.x))).waterKgPerL25;
}

describe('solubility', () => {
  // 15.2–15.5 mmol/kg near 25 °C is the handbook solubility of gypsum, within 2 %.
  it.each([
    [5, 13.6],
    [25, 15.32],
    [40, 15.49],
    [55, 15.01],
  ])('79, N59: gypsum in pure water at %s °C', (t, mmol) => {
    const found = solubilityMmol('gypsum', t, ['Ca', 'SO4'], [40.078, 96.063], 100);
    expectWithin(found, mmol, 0.005);
  });
  it('25: water saturated with gypsum conducts about 2.2 mS/cm (USDA Handbook 60, recalled)', () => {
    const mmol = solubilityMmol('gypsum', 25, ['Ca', 'SO4'], [40.078, 96.063], 100);
    const ec = value(settleWater(balanced(solutesMgL({ Ca: mmol * 0.997 * 40.078, SO4: mmol * 0.997 * 96.063 }), 0, 25))).ec25UScm;
    expectWithin(ec, 2166, 0.005);
    expectWithin(ec, 2200, 0.03);
  });
  // Gunnarsson & Arnórsson 2000 (formula recalled).
  it.each([
    [5, 76.2],
    [25, 116.2],
    [40, 154.1],
  ])('80: amorphous silica at %s °C', (t, mgL) => expectWithin(solubilityProducts(t).silica * 60_084 * waterKgPerL(25, 0), mgL, 0.005));
  it('81: barite in pure water', () =>
    expectWithin(1000 * solubilityMmol('barite', 25, ['Ba', 'SO4'], [137.327, 96.063], 10), 10.69, 0.01));
  it('pairs matter: counted, gypsum is half as soluble again', () => {
    const water = balanced(solutesMgL({ Ca: 10.8 * 40.078, SO4: 10.8 * 96.063 }), 0, 25);
    expect(value(saturation(water, 25)).gypsum!).toBeLessThan(-0.1);
  });
  it('what is absent has no index, and a hot brine names its limit', () => {
    const indices = value(saturation(character('municipal'), 25));
    expect(MINERALS.filter((mineral) => indices[mineral] === null)).toEqual(['barite', 'celestite']);
    expectWithin(percentOfSaturation(indices.silica!), (100 * 7) / 116.2, 0.02);
    const hot = saturation(character('municipal'), 140);
    expect(hot.ok ? '' : hot.error.message).toBe('Temperature is 140 °C; accepted is 0 to 130 °C.');
  });
  it('brackish water stands near barite and far from celestite, as wells with sulfate do', () => {
    const indices = value(saturation(character('brackish'), 25));
    expect(indices.barite!).toBeGreaterThan(0);
    expect(indices.celestite!).toBeLessThan(-1);
    expect(indices.aragonite!).toBeCloseTo(indices.calcite! - 8.4798 + 8.3361, 3);
    expect(indices.anhydrite!).toBeLessThan(indices.gypsum!);
    expect(indices.fluorite!).toBeLessThan(0);
  });
});

describe('calcite', () => {
  // Computed independently for the handbook; ±0.1 and ±5 mg/L are what to expect of them at 125 °C.
  it.each<[string, Character, readonly (readonly [number, number, number])[]]>([
    [
      '73',
      'chalk',
      [
        [25, 0.39, 28.7],
        [60, 0.71, 61.1],
        [95, 1.13, 106.8],
        [125, 1.63, 147.5],
      ],
    ],
    [
      '74',
      'municipal',
      [
        [25, 0.17, 4.3],
        [60, 0.46, 15.7],
        [95, 0.82, 37.2],
        [125, 1.27, 61.3],
      ],
    ],
    [
      '75',
      'softSurface',
      [
        [25, -1.12, -5.4],
        [60, -0.79, -5.4],
        [95, -0.41, -4.4],
        [125, -0.06, -0.8],
      ],
    ],
    [
      '76',
      'softened',
      [
        [25, -1.2, -21.6],
        [60, -0.84, -14.4],
        [95, -0.37, -5.1],
        [125, 0.11, 1.0],
      ],
    ],
  ])('%s: %s, closed, to boiler heat', (_, name, rows) => {
    for (const [t, index, settles] of rows) {
      const state = value(calciteState(character(name), t));
      expectNear(state.saturationIndex, index, t > 100 ? 0.05 : 0.02);
      expectNear(state.precipitationMgL, settles, t > 100 ? 2 : 1);
    }
  });
  it('61: chalk water open to air', () =>
    expectNear(value(calciteState(value(openToAir(character('chalk'))), 25)).saturationIndex, 1.622, 0.01));
  it('72: the worked example rigorously: 25 °C; 82 °C with the pH kept; 82 °C closed', () => {
    const mgL = { Ca: 60.0667, Na: 53.7, Cl: 164.99 };
    const cold = value(waterFromPH(mgL, 34, 7.5, 25));
    expectNear(value(calciteState(cold, 25)).saturationIndex, -0.542, 0.02);
    const kept = value(waterFromPH(mgL, 34, 7.5, 82));
    expectNear(value(calciteState(kept, 82)).saturationIndex, 0.146, 0.02);
    const closed = value(calciteState(cold, 82));
    expectNear(closed.saturationIndex, 0.005, 0.02);
    expectNear(closed.pH, 7.351, 0.02);
  });
  // A classic worked example (recalled): −0.7 cold, +0.3 hot.
  it.each([
    [25, -0.731, -0.7],
    [82, 0.266, 0.3],
  ])('71: by hand at %s °C', (temperatureC, model, published) => {
    const index = value(langelierByHand({ pH: 7.5, tdsMgL: 320, temperatureC, calciumHardnessMgL: 150, alkalinityMgL: 34 }));
    expectNear(index, model, 0.002);
    expectNear(index, published, 0.05);
  });
  it('has no index by hand without calcium', () => {
    const outcome = langelierByHand({ pH: 7, tdsMgL: 100, temperatureC: 25, calciumHardnessMgL: 0, alkalinityMgL: 34 });
    expect(outcome.ok ? '' : outcome.error.message).toContain('no calcium');
  });
  it('77: Ryznar of the chalk water', () => {
    const { saturationIndex, pH } = value(calciteState(character('chalk'), 25));
    expectNear(ryznarIndex(pH, saturationIndex), 6.62, 0.03);
  });
  it.each([
    [5, 'heavy scale'],
    [6, 'scale'],
    [6.5, 'about neutral'],
    [8, 'a corrosive tendency'],
    [9, 'strongly corrosive'],
  ])('Ryznar %s is %s', (index, word) => expect(ryznarWord(index)).toBe(word));
  it('82: seawater', () => {
    const sea = character('seawater');
    const { saturationIndex } = value(calciteState(sea, 25));
    // Row 82 takes the reference composition; the listed character holds the same calcium within 1 %.
    expectNear(saturationIndex, 0.739, 0.03);
    expectNear(seaCalciteK(35, 25), 2.5966, 0.002);
    expectNear(seaCalciteK(60, 25), 2.7764, 0.002);
    // On open sea water both say the same.
    expectNear(value(actedCalciteIndex(sea, 25)), saturationIndex, 0.03);
    expect(actedCalciteIndex(balanced(solutesMgL({ Na: 1, Cl: 1.5 }), 0, 25), 25).ok).toBe(false);
  });
  it('steam sets the most that can fall: calcium or alkalinity', () => {
    expectWithin(steamedScaleMgL(character('municipal')), 128.43, 0.005);
    expectWithin(steamedScaleMgL(character('softened')), (2 * 100.087) / 40.078, 1e-6);
  });
  it('8: activity of the Davies law at I = 0.01', () => {
    const molal = molalWater(balanced(solutesMgL({ Na: 0.01 * 22_990 * 0.997, Cl: 0.01 * 35_453 * 0.997 }), 0, 25));
    const s = value(closedSpecies(molal, 25));
    expectNear(s.gamma1, 0.9018, 0.0005);
    expectNear(s.gamma2, 0.6613, 0.0005);
  });
});
