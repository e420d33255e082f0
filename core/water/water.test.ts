import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import {
  balanced,
  molalWater,
  openToAir,
  settleWater,
  waterFromPH,
  closedSpecies,
  uncompensatedUScm,
  type Water,
  type WaterState,
} from './water';
import { characterWater, CHARACTERS, type Character } from './characters';
import { compensated, ec25FromReading, readingFromEc25, saltConductivityUScm } from './meter';
import { daviesSlope } from './properties';
import { equilibria } from './equilibria';
import { osmoticPressureBar } from './osmotic';
import { solutesMgL, type Solute } from './solutes';
import { calciteState } from './scale';

const log = Math.log10;
const nothing = (temperatureC: number): Water => ({ mgL: solutesMgL({}), alkalinityMgL: 0, carbonMmolL: 0, temperatureC });
const salt = (mgL: Partial<Record<Solute, number>>, temperatureC = 25): Water => balanced(solutesMgL(mgL), 0, temperatureC);
const stateOf = (water: Water): WaterState => value(settleWater(water));
const character = (name: Character, factor = 1): Water => value(characterWater(name, factor));

// Check values of the handbook's water chapter, section 15; the number of each row stands in its name.
describe('equilibrium constants', () => {
  const at = (t: number): ReturnType<typeof equilibria> => equilibria(t);
  it('6: at 25 °C (accepted values of the sources named in equilibria.ts)', () => {
    const k = at(25);
    const got = [k.kw, k.k1, k.k2, k.kh, k.calcite, k.aragonite].map((x) => -log(x));
    [13.9949, 6.3519, 10.3289, 1.4679, 8.4798, 8.3361].forEach((expected, i) => expectNear(got[i]!, expected, 0.001));
  });
  it('7: at 10 °C', () => {
    const k = at(10);
    const got = [k.kw, k.k1, k.k2, k.kh, k.calcite, k.ammonium, k.silicic, k.hypochlorous].map((x) => -log(x));
    [14.5275, 6.4633, 10.4879, 1.2694, 8.4105, 9.7314, 10.0819, 7.6902].forEach((expected, i) => expectNear(got[i]!, expected, 0.001));
  });
  it('8: Davies slope at 25 °C', () => expectNear(daviesSlope(25), 0.5108, 0.0005));
});

describe('conductivity', () => {
  // Light et al. 2005 (recalled): conductivity of pure water.
  it.each([
    [9, 25, 0.05501, 0.005],
    [10, 0, 0.0116, 0.02],
    [11, 10, 0.0231, 0.02],
    [12, 20, 0.042, 0.02],
    [13, 40, 0.113, 0.02],
    [14, 50, 0.172, 0.02],
  ])('%i: pure water at %s °C', (_, t, expected, share) => expectWithin(value(uncompensatedUScm(nothing(t))), expected, share));
  it('15: pure water open to air', () => {
    const open = stateOf(value(openToAir(nothing(25))));
    expectNear(open.pH, 5.598, 0.005);
    expectWithin(open.ec25UScm, 0.9941, 0.005);
  });
  // Standard Methods 2510 and Robinson & Stokes 1959 (recalled): KCl and NaCl solutions.
  it.each([
    [16, 'K', 0.001, 146.9, 0.005],
    [17, 'K', 0.01, 1412, 0.005],
    [18, 'K', 0.1, 12890, 0.005],
    [19, 'Na', 0.001, 123.7, 0.007],
    [20, 'Na', 0.01, 1185, 0.007],
    [21, 'Na', 0.1, 10670, 0.007],
    [22, 'Na', 0.5, 46800, 0.007],
  ] as const)('%i: %sCl %s mol/L', (_, cation, molar, expected, share) => {
    const mgL = { [cation]: molar * 1000 * (cation === 'K' ? 39.098 : 22.99), Cl: molar * 1000 * 35.453 };
    expectWithin(stateOf(salt(mgL)).ec25UScm, expected, share);
  });
  // Robinson & Stokes 1959 (recalled): equivalent conductivities.
  it.each([
    [0.001, 130.3],
    [0.01, 120.3],
    [0.1, 102.4],
  ])('23: CaCl2 at %s eq/L', (eq, expected) => {
    const ec = stateOf(salt({ Ca: (eq / 2) * 40078, Cl: eq * 35453 })).ec25UScm;
    expectWithin(ec / (1000 * eq), expected, 0.015);
  });
  it.each([
    [0.001, 124.1, 0.01],
    [0.01, 112.4, 0.01],
    [0.1, 89.9, 0.02],
  ])('24: Na2SO4 at %s eq/L', (eq, expected, share) => {
    const ec = stateOf(salt({ Na: eq * 22990, SO4: (eq / 2) * 96063 })).ec25UScm;
    expectWithin(ec / (1000 * eq), expected, share);
  });
  // PSS-78 as evaluated with TEOS-10; reference composition of Millero et al. 2008 (recalled).
  it.each([
    [26, 5, 25, 1.0008, 8960],
    [27, 35, 25, 1.0233, 53071],
    [28, 35, 10, 1.0233, 38090],
    [29, 40, 15, 1.0271, 48339],
  ])('%i: seawater of salinity %s at %s °C', (_, S, t, density, expected) => {
    const f = (S / 35) * density;
    const mgL = {
      Na: 468.96 * 22.99,
      K: 10.21 * 39.098,
      Mg: 52.82 * 24.305,
      Ca: 10.28 * 40.078,
      Sr: 0.0907 * 87.62,
      Cl: 546.71 * 35.453,
      SO4: 28.24 * 96.063,
      F: 0.068 * 18.998,
      B: 0.416 * 10.811,
    };
    const scaled = Object.fromEntries(Object.entries(mgL).map(([k, v]) => [k, v * f]));
    const water = value(waterFromPH(scaled, 2.3 * 50.0435 * f, 8.1, 25));
    expectWithin(value(uncompensatedUScm({ ...water, temperatureC: t })), expected, 0.001);
  });
});

describe('supply characters', () => {
  // Computed independently for the handbook.
  it.each<[Character, number, number, number]>([
    ['softSurface', 124.87, 29.07, 7.6],
    ['chalk', 590.34, 233.81, 7.4],
    ['softened', 596.78, 233.69, 7.5],
    ['municipal', 485.9, 128.43, 7.7],
    ['brackish', 3236.25, 249.86, 7.5],
    ['seawater', 53060, 125.12, 8.1],
    ['rain', 13.17, 0.27, 5.999],
  ])('32–38: %s', (name, ec25, alkalinity, pH) => {
    const water = character(name);
    const state = stateOf(water);
    expectWithin(state.ec25UScm, ec25, 0.005);
    expectWithin(water.alkalinityMgL, alkalinity, name === 'rain' ? 0.01 : 0.005);
    expectNear(state.pH, pH, 0.005);
  });
  it('60: species of the chalk water', () => {
    const water = character('chalk');
    const molal = molalWater(water);
    const s = value(closedSpecies(molal, 25));
    const W = molal.waterKgPerL25;
    expectWithin(water.carbonMmolL, 5.0162, 0.005);
    expectWithin(s.co2 * W * 44010, 16.12, 0.005);
    expectWithin(s.hco3 * W * 61017, 276.06, 0.005);
    expectWithin(s.caHco3 * W * 1e6, 96.27, 0.005);
    expectWithin(s.caSo4 * W * 1e6, 46.81, 0.005);
    expectWithin(s.ionicStrength, 0.00889, 0.005);
  });
  it('61: chalk water opened to air climbs to pH 8.74', () => {
    const open = stateOf(value(openToAir(character('chalk'))));
    expectNear(open.pH, 8.738, 0.01);
  });
  it('63: permeate of NaCl with dissolved CO2', () => {
    const permeate = stateOf(balanced(solutesMgL({ Na: 1, Cl: (1 / 22.99) * 35.453 }), 0.1, 25));
    expectNear(permeate.pH, 5.19, 0.005);
    expectWithin(permeate.ec25UScm, 8.027, 0.005);
  });
  it.each(CHARACTERS)('66: %s is electroneutral', (name) => {
    const molal = molalWater(character(name));
    const s = value(closedSpecies(molal, 25));
    const { totals: t } = molal;
    const charge =
      2 * (s.ca + s.mg + t.fe + s.ba + s.sr) +
      s.mgF +
      s.caF +
      s.caOh +
      s.na +
      s.k +
      s.nh4 +
      s.h +
      s.caHco3 +
      s.mgHco3 -
      (s.oh +
        t.cl +
        t.no3 +
        s.f +
        s.hco3 +
        s.hso4 +
        s.h2po4 +
        s.h3sio4 +
        s.boh4 +
        s.ocl +
        s.naSo4 +
        s.kSo4 +
        2 * (s.co3 + s.so4 + s.hpo4) +
        3 * s.po4);
    // Seawater's listed alkalinity is rounded into its ions; the others close to rounding.
    expectNear(charge / s.ionicStrength, 0, 1e-9);
  });
});

describe('meters', () => {
  // Rows 47–50, computed independently.
  it.each([
    ['NaCl', 10, 21.49],
    ['NaCl', 1000, 1992.37],
    ['KCl', 100, 196.6],
    ['mixedSalts', 500, 741.37],
    ['NaHCO3', 100, 110.09],
  ] as const)('%s %s mg/L', (name, mgL, expected) => {
    expectWithin(saltConductivityUScm(name, mgL), expected, 0.005);
  });
  it('52: one water on four scales', () => {
    expectWithin(readingFromEc25(222, { kind: 'curve', salt: 'NaCl' })!, 105.6, 0.005);
    expectWithin(readingFromEc25(222, { kind: 'curve', salt: 'mixedSalts' })!, 143.7, 0.005);
    expectWithin(readingFromEc25(222, { kind: 'factor', factor: 0.7 })!, 155.4, 1e-9);
  });
  // Common practice: readings of one membrane's product on different instruments.
  it('54: membrane product of 14.07 µS/cm', () => {
    expectWithin(readingFromEc25(14.07, { kind: 'curve', salt: 'mixedSalts' })!, 8.72, 0.005);
    expectWithin(readingFromEc25(14.07, { kind: 'curve', salt: 'NaCl' })!, 6.53, 0.005);
  });
  it('shows nothing beyond the end of a salt’s curve, as a display that is over its range', () => {
    expect(readingFromEc25(80_000, { kind: 'curve', salt: 'mixedSalts' })).toBeNull();
    for (const ec of [0, 1, 1e3, 7e4, 2e5])
      for (const salt of ['mixedSalts', 'NaCl', 'KCl'] as const) expect(readingFromEc25(ec, { kind: 'curve', salt })).not.toBeNaN();
  });
  it('goes back and forth on every scale', () => {
    for (const scale of [{ kind: 'curve', salt: 'mixedSalts' }, { kind: 'factor', factor: 0.64 }, { kind: 'conductivity' }] as const) {
      expectWithin(readingFromEc25(value(ec25FromReading(137, scale)), scale)!, 137, 1e-6);
    }
  });
  it('55: linear compensation misleads in pure cold water', () =>
    expectWithin(compensated(value(uncompensatedUScm(nothing(10))), 10), 0.0331, 0.02));
  it('refuses a negative reading', () => expect(ec25FromReading(-1, { kind: 'conductivity' }).ok).toBe(false));
});

describe('scaling', () => {
  it.each<[Character, readonly (readonly [number, number, number])[]]>([
    [
      'chalk',
      [
        [25, 0.39, 28.7],
        [60, 0.71, 61.1],
        [95, 1.13, 106.8],
      ],
    ],
    [
      'municipal',
      [
        [25, 0.17, 4.3],
        [60, 0.46, 15.7],
        [95, 0.82, 37.2],
      ],
    ],
    [
      'softSurface',
      [
        [25, -1.12, -5.4],
        [60, -0.79, -5.4],
        [95, -0.41, -4.4],
      ],
    ],
  ])('73–75: %s, closed', (name, rows) => {
    for (const [t, index, settles] of rows) {
      const state = value(calciteState(character(name), t));
      expectNear(state.saturationIndex, index, 0.02);
      expectNear(state.precipitationMgL, settles, 1);
    }
  });
  it('has no index without calcium', () => {
    const outcome = calciteState(salt({ Na: 10, Cl: 15.4 }), 25);
    expect(outcome.ok).toBe(false);
  });
});

describe('osmotic pressure', () => {
  // TEOS-10, evaluated; Robinson & Stokes 1959 (recalled) for NaCl.
  it.each([
    [83, 5, 15, 3.515, 3.535],
    [84, 20, 15, 14.017, 14.152],
    [85, 35, 5, 24.07, 24.545],
    [86, 35, 25, 25.92, 26.05],
    [87, 40, 25, 29.887, 30.032],
    [88, 70, 25, 55.73, 55.864],
  ])('%i: seawater of salinity %s at %s °C', (_, S, t, published, model) => {
    // Reference composition, mmol per kg of solution at S 35, brought to kg of water.
    const m = { na: 468.96, k: 10.21, mg: 52.82, ca: 10.28 + 0.0907, cl: 546.71 + 0.068, so4: 28.24, hco3: 2.3, neutral: 0.416 };
    const perKgWater = S / 35 / (1 - 0.0010047 * S) / 1000;
    const scaled = Object.fromEntries(Object.entries(m).map(([key, mmol]) => [key, mmol * perKgWater]));
    expectWithin(osmoticPressureBar(scaled, t), published, 0.03);
    expectWithin(osmoticPressureBar(scaled, t), model, 0.005);
  });
  it.each([
    [0.1, 0.9324],
    [0.5, 0.9209],
    [1, 0.9355],
  ])('89: NaCl %s mol/kg', (m, phi) => {
    const ideal = (2 * m * 8.314463 * 298.15 * 0.99704) / 100;
    expectNear(osmoticPressureBar({ na: m, cl: m }, 25) / ideal, phi, 0.002);
  });
  it.each([
    ['municipal', 0.1781],
    ['brackish', 1.2688],
  ] as const)('91: %s water', (name, bar) => {
    const { mgL, alkalinityMgL } = character(name);
    const m = {
      na: mgL.Na / 22.99,
      k: mgL.K / 39.098,
      mg: mgL.Mg / 24.305,
      ca: mgL.Ca / 40.078 + mgL.Sr / 87.62,
      cl: mgL.Cl / 35.453 + mgL.F / 18.998,
      so4: mgL.SO4 / 96.063,
      no3: mgL.NO3 / 62.005,
      hco3: alkalinityMgL / 50.0435,
      neutral: mgL.SiO2 / 60.084 + 0.115,
    };
    expectWithin(osmoticPressureBar(Object.fromEntries(Object.entries(m).map(([k, v]) => [k, v / 997])), 25), bar, 0.005);
  });
});

describe('laws that hold for any water', () => {
  const anyWater = fc.record({
    name: fc.constantFrom(...CHARACTERS.filter((c) => c !== 'seawater')),
    factor: fc.double({ min: 0.02, max: 2, noNaN: true }),
    t: fc.double({ min: 1, max: 40, noNaN: true }),
  });
  it('diluting always lowers conductivity', () => {
    fc.assert(
      fc.property(anyWater, fc.double({ min: 0.1, max: 0.95, noNaN: true }), ({ name, factor, t }, share) => {
        const water = { ...character(name, factor), temperatureC: t };
        const mgL = Object.fromEntries(Object.entries(water.mgL).map(([k, v]) => [k, v * share])) as Water['mgL'];
        const diluted = { mgL, alkalinityMgL: water.alkalinityMgL * share, carbonMmolL: water.carbonMmolL * share, temperatureC: t };
        // Rain is acid enough for its CO2 to count; the rest is plain.
        if (name !== 'rain') expect(stateOf(diluted).ec25UScm).toBeLessThan(stateOf(water).ec25UScm);
      }),
      { numRuns: 60 },
    );
  });
  it('pH solved from alkalinity and carbon gives both back', () => {
    fc.assert(
      fc.property(anyWater, fc.double({ min: 6, max: 9.5, noNaN: true }), ({ name, factor, t }, pH) => {
        const base = character(name, factor);
        const water = value(waterFromPH(base.mgL, Math.max(5, base.alkalinityMgL), pH, t));
        expectNear(stateOf(water).pH, pH, 1e-8);
      }),
      { numRuns: 100 },
    );
  });
});

describe('more check values of the chapter', () => {
  it.each([
    [7, 0.0056],
    [8, 0.0537],
    [9, 0.3619],
    [9.41, 0.5931],
  ])('67: free ammonia at pH %s, 25 °C (Emerson et al. 1975, recalled)', (pH, share) => {
    // Dilute: a trace of ammonium chloride, held at the pH by bicarbonate.
    const water = value(waterFromPH({ NH4N: 0.01, Cl: 0.0253, Na: 2 }, 4.35, pH, 25));
    expectNear(stateOf(water).freeAmmoniaMgL / 0.01, share, 0.006);
  });
  it('58: municipal water held closed at 20 °C, as a 2 %/°C meter shows it', () => {
    const cold = value(uncompensatedUScm({ ...character('municipal'), temperatureC: 20 }));
    expectWithin(cold, 437.5, 0.01);
    expectWithin(compensated(cold, 20), 486.1, 0.01);
  });
  it('57: and at 10 °C', () => expectWithin(value(uncompensatedUScm({ ...character('municipal'), temperatureC: 10 })), 344.1, 0.01));
  it('62: 1 mg/L of sodium as caustic, no CO2', () => {
    const caustic = stateOf(balanced(solutesMgL({ Na: 1 }), 0, 25));
    expectNear(caustic.pH, 9.631, 0.005);
    expectWithin(caustic.ec25UScm, 10.784, 0.005);
  });
  it('65: a tenth of the chalk water conducts more than a tenth', () => {
    const chalk = character('chalk');
    const tenth = Object.fromEntries(Object.entries(chalk.mgL).map(([k, v]) => [k, v / 10])) as Water['mgL'];
    expectWithin(
      stateOf({ mgL: tenth, alkalinityMgL: chalk.alkalinityMgL / 10, carbonMmolL: chalk.carbonMmolL / 10, temperatureC: 25 }).ec25UScm,
      65.99,
      0.005,
    );
  });
  it('78: calcite in pure water under air: the saturated water is at rest', () => {
    const mmol = 0.5421;
    const water = value(
      openToAir({ mgL: solutesMgL({ Ca: mmol * 40.078 }), alkalinityMgL: 2 * mmol * 50.0435, carbonMmolL: 1, temperatureC: 25 }),
    );
    expectNear(stateOf(water).pH, 8.199, 0.01);
    expectWithin(stateOf(water).ec25UScm, 105.9, 0.01);
    expectNear(value(calciteState(water, 25)).saturationIndex, 0, 0.01);
  });
});

describe('bad input', () => {
  it('names pH and alkalinity when they contradict', () => {
    const outcome = waterFromPH({ Na: 1, Cl: 1 }, 0, 9, 25);
    expect(outcome.ok ? '' : outcome.error.message).toContain('pH 9 is not possible with alkalinity 0');
  });
  it.each([
    [{ Ca: -1 }, 'mgL.Ca'],
    [{ Na: Number.NaN }, 'mgL.Na'],
    [{ Cl: 400_000 }, 'mgL.Cl'],
  ] as const)('%o names %s', (mgL, field) => {
    const outcome = waterFromPH(mgL, 50, 7, 25);
    expect(outcome.ok ? '' : outcome.error.field).toBe(field);
  });
  it('refuses a brine beyond the model', () => {
    const outcome = settleWater(salt({ Na: 100_000, Cl: 154_000 }));
    expect(outcome.ok ? '' : outcome.error.field).toBe('ionicStrength');
  });
});
