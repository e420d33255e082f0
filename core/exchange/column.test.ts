import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { cellRow, runCells, type CellBed, type CellRun } from './cells';
import { coherentWaves, frontChain } from './coherence';
import { separationFactors, type CounterIon } from './selectivity';
import { CATION_ROWS, type CationId } from './ions';

// Check values of the handbook's exchange chapter, sections 3, 4 and 12, computed independently; selectivities by
// Bonner & Smith 1957, theory by Helfferich & Klein 1970 (both recalled).

const ion = (id: CationId, fraction: number): CounterIon => ({ ...CATION_ROWS[id], selectivity: CATION_ROWS[id].preference, fraction });
const factors = (ions: readonly CounterIon[], meqL: number, q = 2) =>
  value(separationFactors(ions, CATION_ROWS.Na.preference, meqL / 1000, q));

describe('selectivity', () => {
  it('4: calcium over strontium, potassium over sodium', () => {
    expectWithin(CATION_ROWS.Ca.preference / CATION_ROWS.Sr.preference, 0.7926, 1e-3);
    expectWithin(CATION_ROWS.K.preference / CATION_ROWS.Na.preference, 1.4646, 1e-3);
  });
  it('5: half sodium, half calcium at 5 meq/L', () => {
    const { alpha, resinFractions } = factors([ion('Na', 0.5), ion('Ca', 0.5)], 5);
    expectWithin(resinFractions[1]!, 0.97834, 1e-3);
    expectWithin(alpha[1]! / alpha[0]!, 45.16, 1e-3);
  });
  it.each([
    [1, 90.9],
    [5, 40.52],
    [20, 20.14],
    [100, 8.878],
  ])('6: dilution favours calcium: at %d meq/L %d times sodium', (meqL, expected) => {
    const { alpha, resinFractions } = factors([ion('Na', 0.3), ion('Mg', 0.2), ion('Ca', 0.5)], meqL);
    expectWithin(alpha[2]! / alpha[0]!, expected, 1e-3);
    if (meqL === 5) expectWithin(alpha[1]! / alpha[0]!, 25.84, 1e-3);
    expectWithin(
      resinFractions.reduce((a, b) => a + b),
      1,
      1e-9,
    );
  });
  it('a water without sodium still has factors; one without anything is refused', () => {
    expect(factors([ion('Na', 0), ion('Ca', 1)], 5).resinFractions[1]).toBeCloseTo(1, 9);
    expect(separationFactors([ion('Na', 0)], 1.98, 0.005, 2).ok).toBe(false);
  });
});

describe('the exact theory', () => {
  it('11: case A, ammonium and calcium in a mixed bed', () => {
    const fronts = value(frontChain([1, 4], [0.4, 0.6]));
    expectWithin(fronts[0]!.lambda * 360, 360, 1e-9);
    expectWithin(fronts[1]!.lambda * 360, 514.29, 1e-4);
    expectWithin(fronts[0]!.behind[0]! / 0.4, 2.5, 1e-9);
    expectWithin(fronts[1]!.behind[1]!, 0.6, 1e-9);
  });
  it('12: case B, a softener: two shocks and the magnesium plateau', () => {
    const waves = value(coherentWaves([1, 3, 5], [0.2, 0.3, 0.5], [1, 0, 0]));
    expect(waves.map((wave) => wave.kind)).toEqual(['shock', 'shock']);
    expectWithin(waves[0]!.fromLambda, 1.174444, 1e-4);
    expectWithin(waves[1]!.fromLambda, 1.388889, 1e-4);
    [0.2228, 0.7772, 0].forEach((x, i) => expectNear(waves[0]!.behind[i]!, x, 1e-4));
  });
  it('13: case C, a spreading wave', () => {
    const [wave] = value(coherentWaves([1, 4], [1, 0], [0.4, 0.6]));
    expect(wave!.kind).toBe('spreading');
    expectWithin(wave!.fromLambda, 0.5102, 1e-4);
    expectWithin(wave!.toLambda, 4, 1e-4);
  });
  it('14: a chain of five', () => {
    const fronts = value(frontChain([1, 1.29, 1.46, 20, 40], [0.3, 0.1, 0.05, 0.2, 0.35]));
    [1, 1.1633, 1.26592, 1.76283, 2.16193].forEach((lambda, k) => expectWithin(fronts[k]!.lambda, lambda, 1e-4));
  });
  it('the order in which ions are given does not matter, absent ones are left out', () => {
    const fronts = value(frontChain([4, 7, 1], [0.6, 0, 0.4]));
    expect(fronts.map((front) => front.ion)).toEqual([2, 0]);
    expectWithin(fronts[1]!.lambda, 514.29 / 360, 1e-4);
  });
  it('refuses fractions that do not sum to 1', () => expect(frontChain([1, 4], [0.4, 0.4]).ok).toBe(false));
});

const bed = (capacityEq: number, cells: number, transferUnits: number | null = null): CellBed => ({ capacityEq, cells, transferUnits });
/** Litres at which an ion first passes a level, between batches. */
function litresAt(run: CellRun, ionAt: number, meqL: number): number {
  const n = run.row.ions;
  for (let b = 1; b < run.litres.length; b++) {
    const [before, now] = [run.outMeqL[(b - 1) * n + ionAt]!, run.outMeqL[b * n + ionAt]!];
    if (now >= meqL) return run.litres[b - 1]! + ((meqL - before) / (now - before)) * (run.litres[b]! - run.litres[b - 1]!);
  }
  return NaN;
}
const peak = (run: CellRun, ionAt: number): number =>
  run.litres.reduce((most, _, b) => Math.max(most, run.outMeqL[b * run.row.ions + ionAt]!), 0);

describe('cells in series', () => {
  it('10: one ion, 100 cells, batch a tenth, 20 transfer units', () => {
    const run = value(runCells(value(cellRow([1], [bed(1, 100, 20)])), [1], { litres: 1200, batchShare: 0.1 }));
    expectNear(litresAt(run, 0, 0.01) / 1000, 0.8163, 0.003);
    expectNear(litresAt(run, 0, 0.1) / 1000, 0.9351, 0.003);
  });
  it('11: case A in 100 cells: fronts, peak and balance', () => {
    const run = value(runCells(value(cellRow([1, 4], [bed(0.72, 100)])), [0.8, 1.2], { litres: 700 }));
    expectWithin(litresAt(run, 0, 1), 360, 0.002);
    expectWithin(litresAt(run, 1, 0.6), 514.29, 0.002);
    expectWithin(peak(run, 0) / 0.8, 2.5, 1e-3);
    expect(run.balanceError).toBeLessThan(1e-10);
  });
  it('12: case B in 200 cells', () => {
    const run = value(runCells(value(cellRow([1, 3, 5], [bed(2, 200)], [1, 0, 0])), [1, 1.5, 2.5], { litres: 700 }));
    expectWithin(litresAt(run, 1, 0.5 * 0.7772 * 5), 469.87, 1e-3);
    expectWithin(litresAt(run, 2, 1.25), 555.67, 1e-3);
    expectWithin(peak(run, 1) / 5, 0.7771, 1e-3);
    expect(run.balanceError).toBeLessThan(1e-10);
  });
  it('13: case C in 200 cells: the strong ion at Λ = 1', () => {
    // What is on the resin follows from the water it stands in.
    const y = [0.4 / (0.4 + 4 * 0.6), 2.4 / 2.8];
    const loaded = value(cellRow([1, 4], [bed(2, 200)], y));
    const run = value(runCells(loaded, [5, 0], { litres: 500 }));
    const at = run.litres.findIndex((litres) => litres >= 400);
    expectNear(run.outMeqL[at * 2 + 1]! / 5, 0.3301, 0.01);
  });
  it('15: the chain of five in 200 cells, midpoints at half the plateau', () => {
    const x = [0.3, 0.1, 0.05, 0.2, 0.35];
    const alpha = [1, 1.29, 1.46, 20, 40];
    const run = value(runCells(value(cellRow(alpha, [bed(1, 200)])), x, { litres: 2400 }));
    const fronts = value(frontChain(alpha, x));
    [1, 1.166, 1.261, 1.763, 2.162].forEach((lambda, k) => {
      const before = k > 0 ? fronts[k - 1]!.behind[k]! : 0;
      expectWithin(litresAt(run, k, (before + fronts[k]!.behind[k]!) / 2) / 1000, lambda, 0.005, `front ${k}`);
    });
  });
  it('plateaus within 1 % and fronts within one cell of the theory', () => {
    const run = value(runCells(value(cellRow([1, 4], [bed(0.72, 60)])), [0.8, 1.2], { litres: 700 }));
    const fronts = value(frontChain([1, 4], [0.4, 0.6]));
    const cell = 360 / 60;
    expect(Math.abs(litresAt(run, 1, 0.6) - fronts[1]!.lambda * 360)).toBeLessThan(cell);
    expectWithin(peak(run, 0), fronts[0]!.behind[0]! * 2, 0.01);
  });
  it('two beds in a row are one bed of both: the front comes at the sum', () => {
    const run = value(runCells(value(cellRow([1, 4], [bed(0.3, 60), bed(0.42, 60)])), [0.8, 1.2], { litres: 700 }));
    expectWithin(litresAt(run, 0, 1), 360, 0.003);
    expectWithin(litresAt(run, 1, 0.6), 514.29, 0.005);
  });
  it('refuses zero capacity, zero feed and a batch that is no batch', () => {
    expect(cellRow([1], [bed(0, 10)]).ok).toBe(false);
    const row = value(cellRow([1], [bed(1, 10)]));
    expect(runCells(row, [0], { litres: 1 }).ok).toBe(false);
    expect(runCells(row, [1], { litres: 1, batchShare: 2 }).ok).toBe(false);
  });
});
