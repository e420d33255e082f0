import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { balanced, settleWater, solutesMgL, type Water } from '../water';
import { amountOf, type IonId } from './ions';
import { effluent, firstPast, simulateBeds, type ColumnRun } from './column';
import type { Bed } from './resins';

/** A bed of one litre that holds just what its class says: packing 1, so Q = 0.72 and 0.60 eq/L. */
const litre: Bed = { resin: 'mixedBed', volumeL: 1, depthMm: 400, packing: 1 };
/** A water from meq/L of each ion; carbon in mmol/L. */
function waterOf(meqL: Partial<Record<IonId, number>>): Water {
  const mgL = Object.fromEntries(
    Object.entries(meqL).flatMap(([id, amount]) => (id === 'carbon' ? [] : [[id, amountOf(id as IonId, amount)]])),
  );
  return balanced(solutesMgL(mgL), meqL.carbon ?? 0, 25);
}
const front = (run: ColumnRun, ion: IonId): number => run.fronts.find((one) => one.ion === ion)!.litres;
const at = (run: ColumnRun, litres: number): number => run.litres.findIndex((passed) => passed >= litres);

// Exchange chapter, section 4.4, computed independently.
describe('RO permeate of a chloramine tap on a mixed bed', () => {
  const permeate = waterOf({ Na: 0.1, NH4N: 0.04, Mg: 0.02, Ca: 0.04, SiO2: 0.01, carbon: 0.29, Cl: 0.08, NO3: 0.02, SO4: 0.01 });
  const run = value(simulateBeds([litre], permeate, 20, { litres: 4200, cells: 60, transferUnits: null }));
  it('16: the fronts in their order', () => {
    const expected: [IonId, number][] = [
      ['SiO2', 1463.4],
      ['carbon', 1494.4],
      ['Cl', 3333.8],
      ['NO3', 8012],
      ['SO4', 17_400],
      ['Na', 3600],
      ['NH4N', 4255.7],
      ['Mg', 11_317],
      ['Ca', 12_907],
    ];
    for (const [ion, litres] of expected) expectWithin(front(run, ion), litres, 1e-3, ion);
  });
  it('16: silica is dumped at 24.6 mg/L, 41 times the feed, before anything a meter sees', () => {
    const plateau = run.fronts.find((one) => one.ion === 'SiO2')!.plateauMeqL;
    expectWithin(amountOf('SiO2', plateau), 24.6, 2e-3);
    const silica = run.outMeqL.SiO2!.map((meqL) => amountOf('SiO2', meqL));
    expectWithin(Math.max(...silica), 23.4, 0.02);
    // A meter that counts by 1 ppm shows 0 or 1 while silica is past the reef limit.
    expect(run.ec25UScm[at(run, firstPast(run.litres, silica, 1)!)]).toBeLessThan(3);
  });
  it('17: the CO2 band reads 5 µS/cm at pH 4.9, the acid band more than the feed', () => {
    expectWithin(run.ec25UScm[at(run, 1600)]!, 5.13, 0.05);
    expectNear(run.pH[at(run, 1600)]!, 4.88, 0.05);
    expectWithin(run.ec25UScm[at(run, 3550)]!, 40.4, 0.05);
    expectNear(run.pH[at(run, 3550)]!, 4.01, 0.05);
    expectWithin(run.feedUScm, 23.3, 0.03);
  });
  it('18: the film softens the edges: 1, 2 and 4 µS/cm, and silica 1 mg/L', () => {
    const film = value(simulateBeds([litre], permeate, 20, { litres: 1700, cells: 60, transferUnits: { cation: 20, anion: 30 } }));
    const silica = film.outMeqL.SiO2!.map((meqL) => amountOf('SiO2', meqL));
    (
      [
        [1, 1380],
        [2, 1450],
        [4, 1515],
      ] as const
    ).forEach(([ec, litres]) => expectNear(firstPast(film.litres, film.ec25UScm, ec)!, litres, 10));
    expectNear(firstPast(film.litres, silica, 1)!, 1405, 10);
  });
  it('20: nothing is lost', () => expect(run.balanceError).toBeLessThan(1e-10));
  it('the bed holds its capacity where it is spent, and less ahead of the front', () => {
    const moment = run.moments.find((one) => one.litres >= 700)!;
    const held = Array.from({ length: run.cells.anion }, (_, c) =>
      run.anions.reduce((sum, _, i) => sum + moment.anion[c * run.anions.length + i]!, 0),
    );
    expectWithin(held[0]!, 1, 1e-6);
    expect(held.at(-1)).toBe(0);
  });
});

describe('the ammonium dump of DI on hard water', () => {
  it('19: ammonium at 16.6 mg/L N between 266 and 275 bed volumes', () => {
    const tap = waterOf({ Na: 0.5, NH4N: 0.04, Mg: 0.6, Ca: 2, Cl: 1, carbon: 2.2 });
    const run = value(simulateBeds([litre], tap, 20, { transferUnits: null }));
    expectWithin(front(run, 'Na'), 229.3, 1e-3);
    expectWithin(front(run, 'NH4N'), 266.4, 1e-3);
    expectWithin(front(run, 'Mg'), 275.4, 1e-3);
    expectWithin(front(run, 'Ca'), 300.6, 1e-3);
    expectWithin(amountOf('NH4N', run.fronts.find((one) => one.ion === 'NH4N')!.plateauMeqL), 16.57, 1e-3);
    expect(run.limiting).toBe('anion');
  });
});

/** Waters a bed may meet: every ion from none to a few meq/L, closed on sodium or chloride. */
const anyWater = fc
  .record({
    Ca: fc.double({ min: 0.01, max: 4, noNaN: true }),
    Mg: fc.double({ min: 0, max: 2, noNaN: true }),
    Na: fc.double({ min: 0.01, max: 3, noNaN: true }),
    NH4N: fc.double({ min: 0, max: 0.2, noNaN: true }),
    Cl: fc.double({ min: 0.01, max: 3, noNaN: true }),
    SO4: fc.double({ min: 0, max: 2, noNaN: true }),
    NO3: fc.double({ min: 0, max: 0.5, noNaN: true }),
    SiO2: fc.double({ min: 0, max: 0.4, noNaN: true }),
    carbon: fc.double({ min: 0.01, max: 4, noNaN: true }),
  })
  .map((ions) => {
    // Alkalinity cannot be more than the carbon can carry.
    const strong = ions.Cl + ions.SO4 + ions.NO3;
    const cations = ions.Ca + ions.Mg + ions.Na + ions.NH4N;
    return cations > strong + 0.95 * ions.carbon ? { ...ions, carbon: (cations - strong) / 0.9 } : ions;
  });

describe('separate beds', () => {
  const tap = waterOf({ Na: 0.5, Mg: 0.6, Ca: 2, Cl: 0.7, SO4: 0.4, carbon: 2.2, SiO2: 0.2 });
  const cation: Bed = { resin: 'cationBed', volumeL: 1, depthMm: 400, packing: 1 };
  const anion: Bed = { resin: 'anionBed', volumeL: 1, depthMm: 400, packing: 1 };
  it('a cation bed in hydrogen form makes acid of what it is fed, until sodium comes', () => {
    const run = value(simulateBeds([cation], tap, 20, { transferUnits: null }));
    expect([run.limiting, run.cells.anion]).toEqual(['cation', 0]);
    expectWithin(front(run, 'Na'), (1000 * 1.8) / 3.1, 1e-9);
    const early = at(run, 0.3 * front(run, 'Na'));
    // Strong acid of chloride and sulfate, 1.1 mmol/L; all carbon is CO2.
    expectNear(run.pH[early]!, -Math.log10(1.1e-3), 0.06);
    expectWithin(run.outMeqL.carbon![early]!, 2.2, 1e-9);
    expect(run.outMeqL.Ca![early]).toBe(0);
  });
  it('with an anion bed behind it they do what a mixed bed does', () => {
    const pair = value(simulateBeds([cation, anion], tap, 20, { transferUnits: null }));
    expectWithin(front(pair, 'SiO2'), 1000 / 3.5, 1e-9);
    const early = at(pair, 0.5 * front(pair, 'SiO2'));
    expect(pair.ec25UScm[early]).toBeLessThan(0.06);
    expect(pair.balanceError).toBeLessThan(1e-10);
    expect([pair.cells.cation, pair.cells.anion > 0]).toEqual([0, true]);
  });
  it('an anion bed alone on a tap makes it alkaline', () => {
    const run = value(simulateBeds([anion], tap, 20, { transferUnits: null }));
    expect(run.pH[at(run, 0.3 * front(run, 'SiO2'))]).toBeGreaterThan(11);
  });
});

describe('any bed on any water', () => {
  it('nothing negative leaves it, electroneutral to what a meter sees, and all is accounted for', () => {
    fc.assert(
      fc.property(anyWater, fc.double({ min: 5, max: 40, noNaN: true }), (ions, flow) => {
        const water = waterOf(ions);
        const run = value(simulateBeds([litre], water, flow, { cells: 40 }));
        expect(run.balanceError).toBeLessThan(1e-3);
        for (const series of Object.values(run.outMeqL)) for (const meqL of series) expect(meqL).toBeGreaterThanOrEqual(0);
        for (const value_ of [...run.ec25UScm, ...run.pH]) expect(Number.isFinite(value_)).toBe(true);
        const mid = run.litres.length >> 1;
        const out = effluent(water, Object.fromEntries(Object.entries(run.outMeqL).map(([id, series]) => [id, series[mid]!])));
        expect(value(settleWater(out)).ec25UScm).toBeCloseTo(run.ec25UScm[mid]!, 6);
      }),
      { numRuns: 25 },
    );
  });
  it('at the end it is loaded to its capacity, on both sides', () => {
    fc.assert(
      fc.property(anyWater, (ions) => {
        const water = waterOf(ions);
        const short = value(simulateBeds([litre], water, 20, { cells: 40, transferUnits: null, litres: 1 }));
        const end = 1.3 * Math.max(...short.fronts.map((one) => one.litres));
        const run = value(simulateBeds([litre], water, 20, { cells: 40, transferUnits: null, litres: end }));
        for (const side of ['cation', 'anion'] as const) {
          const loaded = run.moments.at(-1)![side].reduce((sum, share) => sum + share, 0) / 40;
          expectNear(loaded, 1, 1e-4);
        }
      }),
      { numRuns: 10 },
    );
  });
  it('more resin never shortens its life', () => {
    fc.assert(
      fc.property(anyWater, fc.double({ min: 1.1, max: 3, noNaN: true }), (ions, factor) => {
        const water = waterOf(ions);
        const life = (volumeL: number): number => {
          const run = value(simulateBeds([{ ...litre, volumeL, depthMm: 400 * volumeL }], water, 20, { cells: 40 }));
          return firstPast(run.litres, run.ec25UScm, 2) ?? Infinity;
        };
        expect(life(factor)).toBeGreaterThanOrEqual(life(1));
      }),
      { numRuns: 10 },
    );
  });
});

describe('bad input', () => {
  it('no resin, no flow and pure water are refused by name', () => {
    const tap = waterOf({ Na: 1, Cl: 1, carbon: 0.1 });
    const field = (outcome: ReturnType<typeof simulateBeds>): string => (outcome.ok ? '' : outcome.error.field);
    expect(field(simulateBeds([], tap, 20))).toBe('beds');
    expect(field(simulateBeds([{ ...litre, volumeL: 0 }], tap, 20))).toBe('volumeL');
    expect(field(simulateBeds([litre], tap, 0))).toBe('flowLPerH');
    expect(field(simulateBeds([litre], waterOf({}), 20))).toBe('water');
  });
});
