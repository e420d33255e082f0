import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import {
  alkalinityByBalance,
  CHARACTERS,
  completeWater,
  hardnessOf,
  lowestEc25,
  settleWater,
  SOLUTES,
  type PartialAnalysis,
} from './index';

const at25 = { temperatureC: 25 } as const;

// Rows of the handbook's water chapter, computed independently.
describe('rung a: one meter reading', () => {
  it.each([
    ['municipal', 0.5975, 76.73],
    ['chalk', 0.4839, 113.13],
    ['softSurface', 2.4977, 72.62],
  ] as const)('39–41: 300 µS/cm as %s', (character, factor, alkalinity) => {
    const completed = value(completeWater({ character, ...at25, ec25UScm: 300 }));
    expectWithin(completed.factor, factor, 0.005);
    expectWithin(completed.water.alkalinityMgL, alkalinity, 0.005);
    expect(new Set(Object.values(completed.origins))).toEqual(new Set(['assumed']));
  });
  it('refuses product water as a supply', () => {
    const outcome = completeWater({ character: 'municipal', ...at25, ec25UScm: 0.056 });
    expect(outcome.ok ? '' : outcome.error.message).toContain('too pure');
  });
});

describe('rung b: a field kit', () => {
  it('42: municipal with hardness, alkalinity and pH', () => {
    const { water, origins } = value(
      completeWater({ character: 'municipal', ...at25, ec25UScm: 480, hardnessMgL: 150, alkalinityMgL: 110, pH: 7.6 }),
    );
    const expected = { Ca: 46.25, Mg: 8.38, Na: 35.58, K: 4.12, Cl: 43.26, SO4: 48, NO3: 12.19 } as const;
    for (const [ion, mgL] of Object.entries(expected)) expectWithin(water.mgL[ion as keyof typeof expected], mgL, 0.02, ion);
    expect([origins.Ca, origins.Mg, origins.alkalinity, origins.SO4]).toEqual(['derived', 'derived', 'measured', 'assumed']);
  });
  it('43: chalk with a measured nitrate', () => {
    const { water, origins } = value(
      completeWater({ character: 'chalk', ...at25, ec25UScm: 640, hardnessMgL: 280, alkalinityMgL: 235, pH: 7.3, mgL: { NO3: 30 } }),
    );
    const expected = { Ca: 103.58, Mg: 5.18, Na: 23.31, K: 2.55, Cl: 31.75, SO4: 28.34 } as const;
    for (const [ion, mgL] of Object.entries(expected)) expectWithin(water.mgL[ion as keyof typeof expected], mgL, 0.02, ion);
    expect(water.mgL.NO3).toBe(30);
    expect(origins.NO3).toBe('measured');
  });
  it('works from a hardness alone', () => {
    const { water } = value(completeWater({ character: 'chalk', ...at25, hardnessMgL: 200 }));
    expectWithin(hardnessOf(water.mgL), 200, 1e-6);
  });
});

describe('contradictions', () => {
  it.each([
    [{ hardnessMgL: 300, alkalinityMgL: 240 }, 574.9],
    [{ hardnessMgL: 180 }, 332.4],
    [{ alkalinityMgL: 200 }, 358.7],
  ])('44: %o needs at least %s µS/cm', (known, expected) => {
    expectWithin(lowestEc25({ ...known, pH: 7.7 }), expected, 0.01);
  });
  it('45: names the numbers that cannot stand together', () => {
    const outcome = completeWater({ character: 'municipal', ...at25, ec25UScm: 400, hardnessMgL: 300, alkalinityMgL: 240 });
    expect(outcome.ok).toBe(false);
    if (!outcome.ok) {
      expect(outcome.error.field).toBe('ec25UScm');
      expect(outcome.error.message).toMatch(/Hardness 300 and alkalinity 240 .* at least 575 µS\/cm/);
      expect(outcome.error.message).toContain('conductivity entered is 400');
    }
  });
  it('works on with a warning when they miss by less than 5 %', () => {
    const { warning } = value(completeWater({ character: 'municipal', ...at25, ec25UScm: 560, hardnessMgL: 300, alkalinityMgL: 240 }));
    expect(warning).toContain('at least 575');
  });
  it('asks for a number when there is none', () => {
    const outcome = completeWater({ character: 'municipal', ...at25 });
    expect(outcome.ok ? '' : outcome.error.message).toContain('at least one is needed');
  });
});

describe('any partial analysis', () => {
  const analysis: fc.Arbitrary<PartialAnalysis> = fc.record(
    {
      character: fc.constantFrom(...CHARACTERS),
      temperatureC: fc.double({ min: 1, max: 40, noNaN: true }),
      ec25UScm: fc.double({ min: 0.06, max: 60_000, noNaN: true }),
      hardnessMgL: fc.double({ min: 0, max: 800, noNaN: true }),
      alkalinityMgL: fc.double({ min: 0, max: 500, noNaN: true }),
      pH: fc.double({ min: 5, max: 10, noNaN: true }),
    },
    { requiredKeys: ['character', 'temperatureC'] },
  );
  it('is completed to a neutral water that conducts as measured, or refused with a reason', () => {
    let completed = 0;
    fc.assert(
      fc.property(analysis, (given) => {
        const outcome = completeWater(given);
        if (!outcome.ok) {
          expect(outcome.error.message.length).toBeGreaterThan(10);
          return;
        }
        completed += 1;
        const { water } = outcome.value;
        for (const solute of SOLUTES) expect(water.mgL[solute]).toBeGreaterThanOrEqual(0);
        const cations = Math.max(1, water.mgL.Na / 22.99 + water.mgL.Ca / 20 + water.mgL.Mg / 12.15);
        if (given.alkalinityMgL === undefined) expectNear(alkalinityByBalance(water.mgL) - water.alkalinityMgL, 0, 1e-3 * cations);
        if (given.hardnessMgL !== undefined) expectNear(hardnessOf(water.mgL), given.hardnessMgL, 1e-3);
        expect(settleWater(water).ok).toBe(true);
      }),
      { numRuns: 150, seed: 7 },
    );
    expect(completed).toBeGreaterThan(20);
  });
});
