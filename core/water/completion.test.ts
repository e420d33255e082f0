import fc from 'fast-check';
import { percent } from '../quantity';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { alkalinityByBalance, hardnessOf, settleWater, waterFromPH } from './water';
import { characterWater, CHARACTERS, scaledSolutes } from './characters';
import { completeWater } from './completion';
import { lowestEc25 } from './consistency';
import { SOLUTES, solutesMgL } from './solutes';
import type { PartialAnalysis } from './analysis';

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
    [{ hardnessMgL: 300, alkalinityMgL: 240 }, 508.3],
    [{ hardnessMgL: 180 }, 312.5],
    [{ alkalinityMgL: 200 }, 344.8],
  ])('44: %o needs at least %s µS/cm', (known, expected) => {
    expectWithin(lowestEc25({ ...known, pH: 7.7 }), expected, 0.01);
  });
  it('45: names the numbers that cannot stand together', () => {
    const outcome = completeWater({ character: 'municipal', ...at25, ec25UScm: 400, hardnessMgL: 300, alkalinityMgL: 240 });
    expect(outcome.ok).toBe(false);
    if (!outcome.ok) {
      expect(outcome.error.field).toBe('ec25UScm');
      expect(outcome.error.message).toMatch(
        /Hardness 300 and alkalinity 240 .* at least 508 µS\/cm \(hardness alone \d+\) in any water, even one all magnesium and sulfate; 400 was entered/,
      );
    }
  });
  it('works on when they miss within the error of meter and kit: as its kind has it, and says by how much they differ', () => {
    const { water, warning, misfit } = value(
      completeWater({ character: 'municipal', ...at25, ec25UScm: 470, hardnessMgL: 300, alkalinityMgL: 240 }),
    );
    const used = value(settleWater(water)).ec25UScm;
    expect(used).toBeGreaterThan(508);
    expect(warning).toContain(
      `With this hardness and alkalinity a mixed municipal supply conducts about ${Math.round(used)} µS/cm, ${percent(misfit!)} more than the 470 read`,
    );
  });
  it.each([
    ['municipal', { ec25UScm: 450, hardnessMgL: 260 }],
    ['municipal', { ec25UScm: 450, hardnessMgL: 260, alkalinityMgL: 180 }],
    ['chalk', { ec25UScm: 500, hardnessMgL: 300 }],
    ['chalk', { ec25UScm: 300, alkalinityMgL: 160 }],
    ['softSurface', { ec25UScm: 100, hardnessMgL: 50, alkalinityMgL: 40 }],
  ] as const)('%s %o keeps calcium against magnesium as its kind has it, and some sodium and chloride', (character, entered) => {
    const { water, misfit, plusMinusMgL } = value(completeWater({ character, ...at25, ...entered }));
    const usual = scaledSolutes(character, 1);
    const ratio = water.mgL.Mg / water.mgL.Ca / (usual.Mg / usual.Ca);
    expect(ratio).toBeGreaterThan(1 / 1.501);
    expect(ratio).toBeLessThan(1.501);
    expect(water.mgL.Na).toBeGreaterThan(0.05 * usual.Na);
    expect(water.mgL.Cl).toBeGreaterThan(0.05 * usual.Cl);
    // What it conducts is off the reading by what is said of it, and the doubt is as wide.
    const off = value(settleWater(water)).ec25UScm / entered.ec25UScm - 1;
    if (misfit === null) expect(Math.abs(off)).toBeLessThan(0.031);
    else {
      expectNear(off, misfit, 0.002);
      if ('hardnessMgL' in entered) expect(plusMinusMgL.Ca / water.mgL.Ca).toBeGreaterThan(misfit / 2);
    }
  });
  it('leaves no supply without sodium or chloride, whatever a kit says of it', () => {
    let tried = 0;
    fc.assert(
      fc.property(
        fc.constantFrom('municipal' as const, 'chalk' as const, 'softSurface' as const),
        fc.double({ min: 80, max: 900, noNaN: true }),
        fc.double({ min: 0.2, max: 0.7, noNaN: true }),
        fc.double({ min: 0.1, max: 0.6, noNaN: true }),
        (character, ec25UScm, hardness, alkalinity) => {
          const found = completeWater({
            character,
            ...at25,
            ec25UScm,
            hardnessMgL: hardness * ec25UScm,
            alkalinityMgL: alkalinity * ec25UScm,
          });
          if (!found.ok) return;
          tried += 1;
          const { mgL } = found.value.water;
          expect(Math.min(mgL.Na, mgL.Cl)).toBeGreaterThan(0.01);
        },
      ),
      { numRuns: 300 },
    );
    expect(tried).toBeGreaterThan(150);
  });
  it('asks for a number when there is none', () => {
    const outcome = completeWater({ character: 'municipal', ...at25 });
    expect(outcome.ok ? '' : outcome.error.message).toContain('at least one is needed');
  });
});

describe('rung c: a whole report', () => {
  /** A chalk-like report whose charges miss by 3 %: sodium 10 mg/L too low. */
  const report: PartialAnalysis = {
    character: 'chalk',
    ...at25,
    ec25UScm: 590,
    alkalinityMgL: 234,
    pH: 7.4,
    mgL: { Ca: 105, Mg: 5, Na: 2, K: 2, Cl: 22, SO4: 25, NO3: 25, F: 0.15, SiO2: 12 },
  };
  it('is kept as it stands, its imbalance told and not spread', () => {
    const completed = value(completeWater(report));
    expect(completed.rung).toBe('report');
    for (const [ion, mgL] of Object.entries(report.mgL!)) expect(completed.water.mgL[ion as 'Ca']).toBe(mgL);
    expect(completed.water.alkalinityMgL).toBe(234);
    expectNear(completed.balance.differencePercent, (100 * (5.8 - 6.23)) / (5.8 + 6.23), 0.4);
    expect(completed.closedOn).toBeNull();
    expect(completed.origins.Na).toBe('measured');
  });
  it('is closed on sodium when asked, and says so', () => {
    const completed = value(completeWater({ ...report, closeBalance: true }));
    expect(completed.closedOn).toBe('Na');
    expect(completed.origins.Na).toBe('derived');
    expectNear(completed.water.mgL.Na, 12, 0.5);
    expectNear(alkalinityByBalance(completed.water.mgL) - completed.water.alkalinityMgL, 0, 1e-9);
    expect(completed.balance.differencePercent).toBeLessThan(-2);
  });
  it('is closed on chloride when anions are short', () => {
    const completed = value(completeWater({ ...report, mgL: { ...report.mgL, Na: 40 }, closeBalance: true }));
    expect(completed.closedOn).toBe('Cl');
    expect(completed.water.mgL.Cl).toBeGreaterThan(22);
  });
  it('with one ion missing, the charge gives it', () => {
    const { Na: _sodium, ...without } = report.mgL!;
    const { water, origins } = value(completeWater({ ...report, mgL: without }));
    expect(origins.Na).toBe('derived');
    expectNear(water.mgL.Na, 12, 0.5);
  });
  it('with hardness in place of calcium and magnesium, shares it as the supply does', () => {
    const { Ca: _ca, Mg: _mg, ...without } = report.mgL!;
    const { water, origins } = value(completeWater({ ...report, hardnessMgL: 280, mgL: without }));
    expectWithin(hardnessOf(water.mgL), 280, 1e-9);
    expect(origins.Ca).toBe('derived');
    expectWithin(water.mgL.Ca / water.mgL.Mg, 21, 1e-6);
  });
  it('names a hardness that calcium and magnesium do not make', () => {
    const outcome = completeWater({ ...report, hardnessMgL: 150 });
    expect(outcome.ok ? '' : outcome.error.message).toMatch(/Hardness 150 .* does not fit calcium and magnesium, which make 283/);
  });
  it('names charges that nothing can close', () => {
    const outcome = completeWater({
      character: 'municipal',
      ...at25,
      hardnessMgL: 300,
      alkalinityMgL: 20,
      mgL: { Cl: 10, SO4: 5, NO3: 1 },
    });
    expect(outcome.ok ? '' : outcome.error.message).toMatch(/Cations entered sum to 5\.99 meq\/L and anions to 0\.\d+ meq\/L/);
  });
});

describe('far from the listed strength', () => {
  it.each([
    ['seawater', 486],
    ['seawater', 9000],
    ['softSurface', 4000],
    ['chalk', 15],
    ['rain', 400],
  ] as const)('%s at %s µS/cm', (character, ec25UScm) => {
    const { water } = value(completeWater({ character, ...at25, ec25UScm }));
    expectWithin(value(settleWater(water)).ec25UScm, ec25UScm, 1e-6);
  });
});

describe('the wrong kind of supply', () => {
  it('a reading no such supply can have asks for the kind', () => {
    const outcome = completeWater({ character: 'chalk', ...at25, ec25UScm: 51_800 });
    expect(outcome.ok ? '' : outcome.error.message).toMatch(/No chalk or limestone well water conducts 51800 µS\/cm\. Choose the kind/);
  });
  it('a whole report of sea water is taken as it is, whatever the kind', () => {
    const mgL = { Ca: 420, Mg: 1300, Na: 11_000, K: 400, Cl: 19_800, SO4: 2770 };
    const completed = value(completeWater({ character: 'chalk', ...at25, ec25UScm: 51_800, alkalinityMgL: 125, pH: 8.1, mgL }));
    expect(completed.rung).toBe('report');
    expect(completed.water.mgL.Na).toBe(11_000);
  });
});

describe('what was not found', () => {
  it('"<0.05" counts as half of it, is marked assumed, and keeps its own doubt', () => {
    const { water, origins, plusMinusMgL } = value(
      completeWater({ character: 'municipal', ...at25, ec25UScm: 400, below: { NO3: 0.5, NH4N: 0.05 } }),
    );
    expectNear(water.mgL.NO3, 0.25, 1e-12);
    expectNear(water.mgL.NH4N, 0.025, 1e-12);
    expect([origins.NO3, origins.NH4N]).toEqual(['assumed', 'assumed']);
    expect(plusMinusMgL.NO3).toBeLessThan(0.3);
  });
  it('a typed 0 is a measured zero', () => {
    const { water, origins } = value(completeWater({ character: 'municipal', ...at25, ec25UScm: 400, mgL: { NO3: 0 } }));
    expect([water.mgL.NO3, origins.NO3]).toEqual([0, 'measured']);
  });
});

describe('how sure', () => {
  const reading = { character: 'municipal', ...at25, ec25UScm: 480 } as const;
  const kit = { ...reading, hardnessMgL: 150, alkalinityMgL: 110, pH: 7.6 } as const;
  it('every further measurement makes every ion surer, or as sure', () => {
    const one = value(completeWater(reading)).plusMinusMgL;
    const two = value(completeWater({ ...reading, hardnessMgL: 150 })).plusMinusMgL;
    const four = value(completeWater(kit)).plusMinusMgL;
    for (const ion of ['Ca', 'alkalinity'] as const) {
      expect(two[ion]).toBeLessThan(one[ion] * 1.05);
      expect(four[ion]).toBeLessThan(two[ion] * 1.05);
    }
    expect(four.Ca).toBeLessThan(0.6 * one.Ca);
  });
  it('a finer drop count is worth its finer step', () => {
    const coarse = value(completeWater({ ...kit, plusMinus: { alkalinityMgL: 20 } })).plusMinusMgL.alkalinity;
    const fine = value(completeWater({ ...kit, plusMinus: { alkalinityMgL: 4 } })).plusMinusMgL.alkalinity;
    expect(fine).toBeLessThan(4.01);
    expect(coarse).toBeGreaterThan(2 * fine);
  });
  it('holds against 400 made-up waters: the true calcium lies within two spreads nearly always', () => {
    // Waters scattered about the character by half, measured without error: what the spread claims to cover.
    let inside = 0;
    let tried = 0;
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.4, max: 1.6, noNaN: true }), { minLength: 7, maxLength: 7 }), (k) => {
        const mgL = { Ca: 55 * k[0]!, Mg: 9 * k[1]!, Na: 28 * k[2]!, K: 4 * k[3]!, Cl: 38 * k[4]!, SO4: 45 * k[5]!, NO3: 12 * k[6]! };
        const alkalinityMgL = alkalinityByBalance(solutesMgL(mgL));
        if (alkalinityMgL < 30) return;
        const state = value(settleWater(value(waterFromPH(mgL, alkalinityMgL, 7.7, 25))));
        const outcome = completeWater({ character: 'municipal', ...at25, ec25UScm: state.ec25UScm });
        if (!outcome.ok) return;
        tried += 1;
        if (Math.abs(outcome.value.water.mgL.Ca - mgL.Ca) < 2 * outcome.value.plusMinusMgL.Ca) inside += 1;
      }),
      { numRuns: 400 },
    );
    expect(tried).toBeGreaterThan(200);
    expect(inside / tried).toBeGreaterThan(0.85);
    expect(inside / tried).toBeLessThan(1.0001);
  });
});

describe('any partial analysis', () => {
  const amount = (low: number, high: number): fc.Arbitrary<number> =>
    fc.double({ min: Math.log(low), max: Math.log(high), noNaN: true }).map(Math.exp);
  const ions = fc.record(
    {
      Ca: amount(0.1, 600),
      Mg: amount(0.05, 300),
      Na: amount(0.1, 3000),
      K: amount(0.05, 100),
      Cl: amount(0.1, 5000),
      SO4: amount(0.1, 2000),
      NO3: amount(0.01, 150),
      F: amount(0.01, 5),
      SiO2: amount(0.1, 80),
      NH4N: amount(0.01, 5),
      Sr: amount(0.01, 5),
    },
    { requiredKeys: [] },
  );
  const analysis: fc.Arbitrary<PartialAnalysis> = fc.record(
    {
      character: fc.constantFrom(...CHARACTERS),
      temperatureC: fc.double({ min: 1, max: 40, noNaN: true }),
      ec25UScm: amount(0.06, 60_000),
      hardnessMgL: fc.oneof(fc.constant(0), amount(0.5, 900)),
      alkalinityMgL: fc.oneof(fc.constant(0), amount(0.5, 600)),
      pH: fc.double({ min: 4, max: 10, noNaN: true }),
      mgL: fc.oneof({ weight: 2, arbitrary: fc.constant({}) }, { weight: 3, arbitrary: ions }),
      below: fc.oneof({ weight: 3, arbitrary: fc.constant({}) }, { weight: 1, arbitrary: ions }),
      closeBalance: fc.boolean(),
    },
    { requiredKeys: ['character', 'temperatureC'] },
  );
  /** Parts of a real water as different people would report it: some left out, each off by a few per cent. */
  const partOfAWater: fc.Arbitrary<PartialAnalysis> = fc
    .tuple(
      fc.constantFrom(...CHARACTERS.filter((name) => name !== 'seawater' && name !== 'rain')),
      fc.constantFrom(...CHARACTERS),
      amount(0.3, 2),
      fc.array(fc.double({ min: -0.04, max: 0.04, noNaN: true }), { minLength: 14, maxLength: 14 }),
      fc.array(fc.boolean(), { minLength: 14, maxLength: 14 }),
      fc.integer({ min: 0, max: 3 }),
      fc.boolean(),
    )
    .map(([name, believed, factor, off, given, style, closeBalance]) => {
      const water = value(characterWater(name, factor));
      const state = value(settleWater(water));
      const ionNames = ['Ca', 'Mg', 'Na', 'K', 'Cl', 'SO4', 'NO3', 'F', 'SiO2'] as const;
      // Style 0: a pen alone; 1: a kit; 2 and 3: some or all of a report.
      const has = (i: number): boolean => (style === 3 ? true : given[i]!);
      const mgL =
        style < 2 ? {} : Object.fromEntries(ionNames.flatMap((ion, i) => (has(i) ? [[ion, water.mgL[ion] * (1 + off[i]!)]] : [])));
      return {
        character: believed,
        temperatureC: 15,
        closeBalance,
        mgL,
        ...(style === 0 || has(9) ? { ec25UScm: state.ec25UScm * (1 + off[9]!) } : {}),
        ...(style > 0 && has(10) ? { alkalinityMgL: Math.max(0, water.alkalinityMgL * (1 + off[10]!)) } : {}),
        ...(style === 1 && has(11) ? { hardnessMgL: state.hardnessMgL * (1 + off[11]!) } : {}),
        ...(style > 0 && has(12) ? { pH: state.pH + off[12]! * 10 } : {}),
      };
    });
  it(
    '10,000 of them are completed to a water that can be computed, or refused by the name of what contradicts',
    { timeout: 120_000 },
    () => {
      const count: Record<string, number> = { reading: 0, kit: 0, report: 0, refused: 0 };
      fc.assert(
        fc.property(fc.oneof(analysis, partOfAWater), (given) => {
          const outcome = completeWater(given);
          if (!outcome.ok) {
            count['refused']! += 1;
            expect(outcome.error.message).toMatch(
              /[Hh]ardness|[Aa]lkalinity|[Cc]onductivity|pH|meter reading|brine|too pure|[Ii]ons|kind of supply/,
            );
            expect(outcome.error.message).not.toMatch(/NaN|undefined|Infinity/);
            return;
          }
          const { water, rung, origins, plusMinusMgL, closedOn } = outcome.value;
          count[rung]! += 1;
          for (const solute of SOLUTES) {
            if (!(water.mgL[solute] >= 0 && plusMinusMgL[solute] >= 0))
              expect([solute, water.mgL[solute], plusMinusMgL[solute]]).toEqual([]);
            const typed = given.mgL?.[solute];
            if (typed !== undefined && solute !== closedOn) expect([water.mgL[solute], origins[solute]]).toEqual([typed, 'measured']);
          }
          const charges = 0.02 * outcome.value.balance.cationsMeqL + 0.002;
          if (rung !== 'report') expectNear(alkalinityByBalance(water.mgL) - water.alkalinityMgL, 0, charges);
          const state = settleWater(water);
          if (!state.ok) throw new Error(state.error.message);
          expect(Number.isFinite(state.value.ec25UScm + state.value.pH)).toBe(true);
        }),
        { numRuns: 10_000 },
      );
      for (const [kind, times] of Object.entries(count)) expect(times, kind).toBeGreaterThan(500);
    },
  );
});
