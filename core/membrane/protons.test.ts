import { CHAPTER_ROWS } from '../testing/chapterRows';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { alkalinityByBalance, characterWater, openToAir, settleWater, solutesMgL, waterFromPH, type Water } from '../water';
import { uncompensatedUScm } from '../water/water';
import { BAR_PER_PSI } from '../quantity';
import type { ElementClass } from './classes';
import { permeabilityOf } from './derive';
import { CLEAN } from './march';
import { runUnitAt } from './operation';
import { marchProtons, protonsMatter } from './protons';
import { SPECIES_ROWS, speciesOfWater, waterOfSpecies } from './species';

/** One element at a flow and pressure given, frozen and with protons. */
function run(id: ElementClass, water: Water, feedLPerH: number, bar: number, silicaPassage?: number) {
  const row = silicaPassage === undefined ? CHAPTER_ROWS[id] : { ...CHAPTER_ROWS[id], silicaPassage };
  const permeability = value(permeabilityOf(row, 'mixture'));
  const ranks = [{ vessels: 1, elementsPerVessel: 1 }];
  const feed = value(speciesOfWater(water));
  const flows = value(
    runUnitAt(
      { row, ranks, factors: CLEAN, restrictor: { boreMm: 1, lengthMm: 100 } },
      feed,
      { linePressureBar: bar, prefilterBarPerLPerH: 0, permeatePressureBar: 0, temperatureC: water.temperatureC, law: 'mixture' },
      feedLPerH,
    ),
  );
  const frozen = waterOfSpecies(feed.ids, flows.permeateMmolL!, water.temperatureC);
  const full = marchProtons(row, ranks, permeability, CLEAN, 'mixture', water, {
    membraneFeedLPerH: feedLPerH,
    feedPressureBar: bar,
    permeatePressureBar: 0,
  })!;
  return { frozen, full };
}
/** Conductivity as a pen with 2 %/°C shows it. */
const shownUScm = (water: Water): number => value(uncompensatedUScm(water)) / (1 + 0.02 * (water.temperatureC - 25));
const pHOf = (water: Water): number => value(settleWater(water)).pH;
const PSI60 = 60 * BAR_PER_PSI;

describe('boron and nitrate by hand (handbook of kinds, 8.4 and 8.5)', () => {
  /** Odds of one form: permeability to salt, polarisation, how much more passes than salt, flux. */
  const passed = (b: number, beta: number, r: number, j: number): number => (b * beta * r) / j / (1 + (b * beta * r) / j);
  const borate = (pH: number): number => 1 / (1 + 10 ** (9.24 - pH));
  const boron = (b: number, beta: number, r: number, j: number, pH: number): number =>
    1 - (1 - borate(pH)) * passed(b, beta, r, j) - borate(pH) * passed(b, beta, 1, j);
  const classes = { brackish: 'in4Usual', lowEnergy: 'in4Low', sea: 'in4Sea' } as const;
  it.each([
    ['brackish', 0.19, 1.35, 50, 7, 0.6859],
    ['brackish', 0.19, 1.35, 50, 8, 0.7012],
    ['brackish', 0.19, 1.35, 50, 9, 0.7985],
    ['brackish', 0.19, 1.35, 50, 10, 0.9494],
    ['lowEnergy', 0.3815, 1.35, 51.6, 7, 0.6087],
    ['lowEnergy', 0.3815, 1.35, 51.6, 9, 0.7477],
    ['sea', 0.1073, 1.17, 41.6, 8, 0.9214],
  ] as const)('N62, N63: %s at pH: %d of %d', (made, b, beta, j, pH, rejection) =>
    expectWithin(boron(b, beta, CHAPTER_ROWS[classes[made]].boricPassage, j, pH), rejection, 0.005),
  );
  it('N64: nitrate passes four times as salt does', () => {
    expectWithin(passed(0.19, 1.35, SPECIES_ROWS.NO3.passageRO, 50), 0.02011, 0.005);
    expectWithin(passed(0.449, 1.35, SPECIES_ROWS.NO3.passageRO, 25.7), 0.08621, 0.005);
  });
});

describe('hydroxide and hydrogen through the membrane (corrections, section 7)', () => {
  const alkaline = value(
    waterFromPH({ Ca: 8, Mg: 1.5, Na: 32.3, K: 1, Cl: 29.6, SO4: 14, NO3: 2.3, F: 0.7, NH4N: 0.72, PO4: 0.53, SiO2: 10.1 }, 40, 9.41, 15),
  );
  const measured = run('household75', { ...alkaline, temperatureC: 15 }, 40, PSI60);
  it('C24: the measured case of the trade (common practice; calibrated on it)', () => {
    const { full } = measured;
    expectWithin(shownUScm(full), 13.98, 0.02);
    expectNear(pHOf(full), 9.932, 0.02);
    expectWithin(full.mgL.NH4N, 0.292, 0.02);
    expectWithin(full.mgL.SiO2, 1.079, 0.02);
    expectWithin(full.mgL.NO3, 0.12, 0.02);
    expectWithin(full.mgL.PO4, 0.00066, 0.05);
    // Measured: 14 µS/cm, pH 10.07, ammonia 0.32, silica 1.5, nitrate 0.02, phosphate 0.
    expectWithin(shownUScm(full), 14, 0.02);
    expectNear(pHOf(full), 10.07, 0.15);
    expectWithin(full.mgL.NH4N, 0.32, 0.1);
  });
  it('C25: the same with its species frozen (before)', () => {
    const { frozen } = run('household75', { ...alkaline, temperatureC: 15 }, 40, PSI60, 3);
    expectWithin(shownUScm(frozen), 7.69, 0.02);
    expectNear(pHOf(frozen), 9.35, 0.03);
    expectWithin(frozen.mgL.SiO2, 0.573, 0.02);
  });
  // Computed by a separate program.
  it.each<['municipal' | 'softSurface', number, number, number]>([
    ['municipal', 7.7, 11.398, 6.129],
    ['softSurface', 8, 2.761, 6.468],
    ['softSurface', 9, 7.703, 9.348],
    ['municipal', 9, 17.465, 9.447],
  ])('C26: %s at pH %d leaves %d µS/cm', (character, pH, ec, permeatePH) => {
    const { full } = run('household75', value(characterWater(character, 1, pH)), 60, PSI60);
    expectWithin(shownUScm(full), ec, 0.02);
    expectNear(pHOf(full), permeatePH, 0.03);
  });
  it('C27: soft water brought to pH 4 with hydrochloric acid, open to the air', () => {
    const salts = { ...value(characterWater('softSurface', 1)).mgL, Cl: 35.33 };
    const acid = value(
      openToAir({ mgL: solutesMgL(salts), alkalinityMgL: alkalinityByBalance(solutesMgL(salts)), carbonMmolL: 0, temperatureC: 25 }),
    );
    expectNear(pHOf(acid), 4, 0.02);
    const { full } = run('household75', acid, 60, PSI60);
    expectWithin(shownUScm(full), 16.21, 0.02);
    expectNear(pHOf(full), 4.455, 0.03);
    expectNear(10 ** -(pHOf(full) - pHOf(acid)), 0.334, 0.02);
  });
  it.each([
    [10, 6, 0.889],
    [25, 6, 0.862],
    [10, 3, 0.941],
    [25, 3, 0.926],
  ])('C28: at %d °C a passage of %d holds back %d of the silica', (t, passage, rejection) => {
    const { frozen } = run('household75', { ...value(characterWater('municipal', 1)), temperatureC: t }, 60, PSI60, passage);
    expectNear(1 - frozen.mgL.SiO2 / 7, rejection, 0.005);
  });
  it.each([
    [8, 0.587],
    [9, 0.672],
    [10, 0.886],
  ])('C29: boron at pH %d is held back by %d', (pH, rejection) => {
    const carbonMmolL = 0.02;
    // Sodium by balance at the pH typed: found by its alkalinity.
    const at = (alkalinityMgL: number): Water => {
      const mgL = solutesMgL({ B: 1, Cl: 150, Na: (150 / 35.453 + alkalinityMgL / 50.0435) * 22.99 });
      return { mgL, alkalinityMgL, carbonMmolL, temperatureC: 25 };
    };
    let [low, high] = [-5, 60];
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (pHOf(at(middle)) < pH) low = middle;
      else high = middle;
    }
    const { full } = run('in25Low', at(low), 600, 8);
    expectNear(1 - full.mgL.B, rejection, 0.01);
  });
  it('conserves every solute, and hardly moves what a neutral supply leaves', () => {
    const feed = value(characterWater('chalk', 1));
    const { full, frozen } = run('household75', feed, 60, PSI60);
    for (const solute of ['Ca', 'Na', 'Cl', 'SO4', 'NO3'] as const) expectWithin(full.mgL[solute], frozen.mgL[solute], 0.03);
    expectNear(pHOf(full), pHOf(frozen), 0.05);
  });
  it('is left out where it would not show', () => {
    expect(protonsMatter(value(characterWater('chalk', 1)))).toBe(false);
    expect(protonsMatter(value(characterWater('softSurface', 1, 9)))).toBe(true);
    expect(protonsMatter(alkaline)).toBe(true);
  });
});
