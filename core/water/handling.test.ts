import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { ammoniaAfterCarbonMgL, freeAmmoniaShare, NITROGEN_PER_CHLORAMINE } from './ammonia';
import { balanced, closedSpecies, dissolvedMgL, hardnessOf, molalWater, openToAir, settleWater, type Water } from './water';
import { characterWater, CHARACTERS, type Character } from './characters';
import { dosed, mineralDose } from './dosing';
import { dropResult } from './kit';
import { dryResidueMgL, hardnessParts, hardnessWord, palatabilityWord } from './grades';
import { mixWaters, salinityOf, seaSaltGPerL, shareForTarget, withSeaSalt } from './mixing';
import { solutesMgL, SOLUTES } from './solutes';

const pure = balanced(solutesMgL({}), 0, 25);
const character = (name: Character, factor = 1): Water => value(characterWater(name, factor));
const ec = (water: Water): number => value(settleWater(water)).ec25UScm;

describe('mixing', () => {
  it('64: one part chalk water, three parts pure', () => {
    const mixed = value(
      mixWaters([
        { water: character('chalk'), volumeL: 1 },
        { water: pure, volumeL: 3 },
      ]),
    );
    const state = value(settleWater(mixed));
    expectNear(state.pH, 7.439, 0.01);
    expectWithin(state.ec25UScm, 160.06, 0.005);
    expectWithin(mixed.alkalinityMgL, 58.45, 0.002);
  });
  it('65: conductivity is computed, not averaged', () => {
    const mixed = mixWaters([
      { water: character('chalk'), volumeL: 1 },
      { water: pure, volumeL: 9 },
    ]);
    expectWithin(ec(value(mixed)), 65.99, 0.005);
  });
  it('says what is wrong with the volumes', () => {
    const none = mixWaters([{ water: pure, volumeL: 0 }]);
    expect(none.ok ? '' : none.error.message).toContain('every volume is 0');
    const negative = mixWaters([{ water: pure, volumeL: -1 }]);
    expect(negative.ok ? '' : negative.error.field).toBe('parts[0].volumeL');
  });
  const anyWater = fc
    .record({
      name: fc.constantFrom(...CHARACTERS),
      factor: fc.double({ min: 0.05, max: 1.5, noNaN: true }),
      t: fc.double({ min: 2, max: 40, noNaN: true }),
    })
    .map(({ name, factor, t }) => ({ ...character(name, factor), temperatureC: t }));
  it('conserves every solute, the alkalinity and the carbon', () => {
    fc.assert(
      fc.property(anyWater, anyWater, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (a, b, share) => {
        const mixed = value(
          mixWaters([
            { water: a, volumeL: share },
            { water: b, volumeL: 1 - share },
          ]),
        );
        const kg = (water: Water, volumeL: number): number => molalWater(water).waterKgPerL25 * volumeL;
        const mass = kg(a, share) + kg(b, 1 - share);
        const volume = mass / molalWater(mixed).waterKgPerL25;
        for (const solute of SOLUTES)
          expectNear(
            mixed.mgL[solute] * volume,
            a.mgL[solute] * share + b.mgL[solute] * (1 - share),
            1e-7 * (1 + a.mgL[solute] + b.mgL[solute]),
          );
        expectNear(mixed.alkalinityMgL * volume, a.alkalinityMgL * share + b.alkalinityMgL * (1 - share), 1e-6);
        expectNear(mixed.carbonMmolL * volume, a.carbonMmolL * share + b.carbonMmolL * (1 - share), 1e-7);
      }),
      { numRuns: 80 },
    );
  });
  it('conducts less with every litre of pure water, and no less than pure water itself', () => {
    fc.assert(
      fc.property(anyWater, fc.double({ min: 0.05, max: 0.9, noNaN: true }), (water, share) => {
        const at25 = { ...water, temperatureC: 25 };
        const thinner = value(
          mixWaters([
            { water: at25, volumeL: share },
            { water: pure, volumeL: 1 - share },
          ]),
        );
        expect(ec(thinner)).toBeLessThan(ec(at25));
        expect(ec(thinner)).toBeGreaterThan(0.055);
      }),
      { numRuns: 60 },
    );
  });
  it('finds the share of tap water that brings a hardness back', () => {
    const tap = character('municipal');
    const share = shareForTarget(pure, tap, (water) => hardnessOf(water.mgL), 40)!;
    expectWithin(share, 40 / hardnessOf(tap.mgL), 0.002);
    expect(shareForTarget(pure, tap, (water) => hardnessOf(water.mgL), 400)).toBeNull();
  });
});

describe('dosing', () => {
  it('95: hardness 100 (calcium to magnesium 3 : 1) and alkalinity 50 from pure water', () => {
    const dose = value(mineralDose(pure, { hardnessMgL: 100, calciumShare: 0.75, alkalinityMgL: 50, bicarbonate: 'Na' }));
    expectWithin(dose.calciumChlorideMgL, 110.17, 0.002);
    expectWithin(dose.magnesiumSulfateMgL, 61.57, 0.002);
    expectWithin(dose.bicarbonateMgL, 83.93, 0.002);
    const open = value(settleWater(value(openToAir(dosed(pure, dose)))));
    expectNear(open.pH, 8.15, 0.01);
    expectWithin(open.ec25UScm, 332.1, 0.005);
  });
  it('brings any weaker water to its target', () => {
    const start = character('softSurface');
    const target = { hardnessMgL: 90, calciumShare: 0.6, alkalinityMgL: 60, bicarbonate: 'K' as const };
    const after = dosed(start, value(mineralDose(start, target)));
    expectWithin(hardnessOf(after.mgL), 90, 1e-9);
    expectWithin(after.alkalinityMgL, 60, 1e-9);
    expect(after.mgL.K).toBeGreaterThan(start.mgL.K);
  });
  it('refuses to take minerals out', () => {
    const outcome = mineralDose(character('chalk'), { hardnessMgL: 100, calciumShare: 1, alkalinityMgL: 300, bicarbonate: 'Na' });
    expect(outcome.ok ? '' : outcome.error.message).toMatch(
      /already has more hardness than the target: 28\d.* Blend with purer water first/,
    );
  });
});

describe('sea salt', () => {
  it('35 takes 36.3 g per litre of water', () => expectWithin(value(seaSaltGPerL(35)), 36.3, 0.002));
  it('a salt mix has the salinity asked for, and calcium and alkalinity of the sea', () => {
    const reef = value(withSeaSalt(pure, 35));
    expectNear(salinityOf(reef), 35, 0.4);
    expectWithin(reef.mgL.Ca, 422, 0.02);
    expectWithin(reef.alkalinityMgL, 125, 0.02);
    expectNear(value(settleWater(reef)).pH, 8.2, 0.15);
    expectNear(salinityOf(value(withSeaSalt(pure, 20))), 20, 0.3);
  });
  it('names its range', () => {
    const outcome = seaSaltGPerL(120);
    expect(outcome.ok ? '' : outcome.error.message).toBe('Salinity is 120 g/kg; accepted is 0 to 80 g/kg.');
  });
});

describe('ammonia', () => {
  // Emerson et al. 1975 (formula recalled).
  it.each([
    [7, 25, 0.0056],
    [8, 25, 0.0537],
    [9, 25, 0.3619],
    [9.41, 25, 0.5931],
    [8, 5, 0.0123],
    [9.41, 15, 0.4122],
  ])('67–68, M49: free share at pH %s and %s °C', (pH, t, share) => expectNear(freeAmmoniaShare(pH, t), share, 0.001));
  it('69: 2 mg/L of chloramine leaves 0.395 mg/L of nitrogen', () => {
    expectNear(2 * NITROGEN_PER_CHLORAMINE, 0.395, 0.001);
    expectNear(ammoniaAfterCarbonMgL({ NH4N: 0.1, chloramine: 2 }), 0.495, 0.001);
  });
  it('70: passage of 0.44 at pH 9.41 lies within the free share from 15 to 25 °C (common practice)', () => {
    const passage = 0.32 / 0.72;
    expect(passage).toBeGreaterThan(freeAmmoniaShare(9.41, 15));
    expect(passage).toBeLessThan(freeAmmoniaShare(9.41, 25));
  });
  it('a solved water splits its ammonia as the dilute formula does', () => {
    const water = { ...pure, mgL: solutesMgL({ NH4N: 0.01, Na: 5, Cl: 7.71 }), alkalinityMgL: 0.036 };
    const state = value(settleWater(water));
    expectNear(state.freeAmmoniaMgL / 0.01, freeAmmoniaShare(state.pH, 25), 0.01);
  });
});

describe('drop kits', () => {
  // 92 is the usual kit (common practice); 93 and 94 follow from it.
  it.each([
    [92, 10, 5, 178, 17.8, 12.59],
    [93, 10, 10, 89, 8.9, 6.29],
    [94, 3, 20, 13.35, 4.45, 2.32],
  ])('%i: %i drops in %i mL', (_, drops, sampleMl, result, step, plusMinus) => {
    const found = value(dropResult({ drops, sampleMl, mgPerDrop: 17.8, nominalSampleMl: 5 }));
    expectNear(found.resultMgL, result, 0.01);
    expectNear(found.stepMgL, step, 0.01);
    expectNear(found.plusMinusMgL, plusMinus, 0.01);
  });
  it.each([
    [3, 5, 'double'],
    [10, 5, null],
    [24, 10, 'halve'],
    [3, 80, null],
  ])('%i drops in %i mL: %s', (drops, sampleMl, advice) =>
    expect(value(dropResult({ drops, sampleMl, mgPerDrop: 17.8, nominalSampleMl: 5 })).advice).toBe(advice),
  );
  it.each([
    [{ drops: 2.5 }, 'drops', 'whole number from 0 to 200'],
    [{ drops: 201 }, 'drops', '0 to 200'],
    [{ sampleMl: 0.5 }, 'sampleMl', '1 to 100 mL'],
    [{ mgPerDrop: Number.NaN }, 'mgPerDrop', '0.1 to 1000'],
  ])('%o is refused', (change, field, accepted) => {
    const outcome = dropResult({ drops: 3, sampleMl: 5, mgPerDrop: 17.8, nominalSampleMl: 5, ...change });
    expect(outcome.ok ? [] : [outcome.error.field, outcome.error.accepted]).toEqual([field, expect.stringContaining(accepted)]);
  });
});

describe('grades and dissolved solids', () => {
  it.each([
    [60, 'soft'],
    [61, 'moderately hard'],
    [120, 'moderately hard'],
    [180, 'hard'],
    [181, 'very hard'],
  ])('USGS: %s is %s', (hardness, word) => expect(hardnessWord(hardness)).toBe(word));
  it.each([
    [179, 'soft enough'],
    [300, 'moderately hard'],
    [301, 'very hard'],
  ])('beverage trade: %s is %s', (hardness, word) => expect(hardnessWord(hardness, 'beverage')).toBe(word));
  // WHO (recalled).
  it.each([
    [299, 'excellent'],
    [300, 'good'],
    [600, 'fair'],
    [900, 'poor'],
    [1200, 'unacceptable'],
  ])('WHO: %s is %s', (tds, word) => expect(palatabilityWord(tds)).toBe(word));
  it.each<[number, Character, number, number]>([
    [32, 'softSurface', 85.4, 67.5],
    [33, 'chalk', 491.9, 348.3],
    [34, 'softened', 511.7, 367.5],
    [35, 'municipal', 354.1, 275.7],
    [36, 'brackish', 2052.5, 1899.8],
    [37, 'seawater', 35957.9, 35893.3],
    [38, 'rain', 6.4, 6.2],
  ])('%i: %s as a sum of ions and as a residue', (_, name, sum, residue) => {
    const water = character(name);
    // The row counts carbonate as carbonate where we count all alkalinity as bicarbonate (0.4 % at most), and rain's
    // ammonium as NH4 where it is stored as N (0.09 mg/L).
    expectWithin(dissolvedMgL(water.mgL, water.alkalinityMgL), sum, name === 'rain' ? 0.03 : 0.005);
    expectWithin(dryResidueMgL(water), residue, name === 'rain' ? 0.03 : 0.005);
  });
  it('parts hardness into what goes with boiling and what stays', () => {
    expect(hardnessParts(200, 150)).toEqual({ temporary: 150, permanent: 50 });
    expect(hardnessParts(100, 150)).toEqual({ temporary: 100, permanent: 0 });
    expect(hardnessParts(100, -3)).toEqual({ temporary: 0, permanent: 100 });
  });
});

describe('electroneutrality', () => {
  it('a mixture of anything stays neutral', () => {
    const [a, b] = [character('chalk'), character('brackish')];
    const mixed = value(
      mixWaters([
        { water: a, volumeL: 2 },
        { water: b, volumeL: 1 },
      ]),
    );
    const molal = molalWater(mixed);
    const s = value(closedSpecies(molal, 25));
    const t = molal.totals;
    const positive = 2 * (s.ca + s.mg + s.ba + s.sr) + s.mgF + s.caF + s.caOh + s.na + s.k + s.h + s.caHco3 + s.mgHco3;
    const negative = s.oh + t.cl + t.no3 + s.f + s.hco3 + s.hso4 + s.h3sio4 + s.naSo4 + s.kSo4 + 2 * (s.co3 + s.so4);
    expectNear((positive - negative) / s.ionicStrength, 0, 1e-9);
  });
});
