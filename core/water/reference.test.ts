import quadprog from 'quadprog';
import { describe, expect, it } from 'vitest';
import { expectNear, value } from '../testing/close';
import { sequentialLeastSquares } from './leastSquares';
import { CHARACTERS, characterWater } from './characters';
import { completeWater } from './completion';
import { settleWater } from './water';

/** meq/L of Ca, Mg, Na, K, Cl, SO4, NO3 and alkalinity in the municipal character. */
const REFERENCE = [2.745, 0.741, 1.218, 0.102, 1.072, 0.937, 0.194, 2.566];
const SIGN = [1, 1, 1, 1, -1, -1, -1, -1];

/**
 * The same bounded least squares by quadprog (Goldfarb & Idnani's dual method, a general QP solver):
 * minimise Σ((e − r)/(r + 0.02))² with charge balance and hardness held, e ≥ 0, measured values fixed.
 */
function byQuadprog(reference: readonly number[], fixed: Readonly<Record<number, number>>, hardness: number | null): number[] {
  const n = reference.length;
  const weight = reference.map((r) => 1 / (r + 0.02) ** 2);
  const equalities: { row: number[]; right: number }[] = [{ row: SIGN, right: 0 }];
  if (hardness !== null) equalities.push({ row: [1, 1, 0, 0, 0, 0, 0, 0], right: hardness });
  for (const [i, fixedTo] of Object.entries(fixed)) equalities.push({ row: SIGN.map((_, k) => (k === Number(i) ? 1 : 0)), right: fixedTo });
  const bounds = SIGN.map((_, i) => ({ row: SIGN.map((__, k) => (k === i ? 1 : 0)), right: 0 }));
  const rows = [...equalities, ...bounds];
  // The package counts from one.
  const one = <T>(list: T[]): T[] => [undefined as T, ...list];
  const D = one(SIGN.map((_, i) => one(SIGN.map((__, k) => (i === k ? 2 * weight[i]! : 0)))));
  const d = one(reference.map((r, i) => 2 * weight[i]! * r));
  const A = one(Array.from({ length: n }, (_, i) => one(rows.map((row) => row.row[i]!))));
  const result = quadprog.solveQP(D, d, A, one(rows.map((row) => row.right)), equalities.length);
  expect(result.message).toBe('');
  return result.solution.slice(1);
}

describe('completing a water against a general QP solver', () => {
  it.each<[string, Record<number, number>, number | null]>([
    ['charge balance alone', {}, null],
    ['a hardness', {}, 5],
    ['a hardness and an alkalinity', { 7: 3.4 }, 4.2],
    ['an alkalinity above all cations: bounds become active', { 7: 0.05, 4: 0.02 }, 6],
    ['much chloride', { 4: 9 }, 1.5],
    ['many measured ions', { 0: 3, 2: 0.4, 4: 1.9, 5: 0.3 }, null],
  ])('%s', (_, fixed, hardness) => {
    const start = REFERENCE.map((r, i) => fixed[i] ?? r);
    const free = REFERENCE.map((_r, i) => fixed[i] === undefined);
    const rows = [
      { coefficients: SIGN, right: 0 },
      ...(hardness === null ? [] : [{ coefficients: [1, 1, 0, 0, 0, 0, 0, 0], right: hardness }]),
    ];
    const ours = sequentialLeastSquares(start, REFERENCE, free, rows, null);
    const reference = byQuadprog(REFERENCE, fixed, hardness);
    expect(ours).not.toBeNull();
    ours!.forEach((e, i) => expectNear(e, reference[i]!, 1e-6, `ion ${i}`));
  });
  it('says when no such water exists', () => {
    // Every anion fixed at nothing, hardness demanded: no charge can balance it.
    const start = REFERENCE.map((r, i) => (i >= 4 ? 0 : r));
    const free = REFERENCE.map((_, i) => i < 4);
    const rows = [
      { coefficients: SIGN, right: 0 },
      { coefficients: [1, 1, 0, 0, 0, 0, 0, 0], right: 3 },
    ];
    expect(sequentialLeastSquares(start, REFERENCE, free, rows, null)).toBeNull();
  });
});

describe('what a completed water must keep', () => {
  it.each(CHARACTERS.filter((name) => name !== 'rain' && name !== 'seawater'))('%s: the conductivity that was measured', (character) => {
    const listed = value(settleWater(value(characterWater(character, 1)))).ec25UScm;
    for (const share of [0.5, 1, 1.6]) {
      const ec25UScm = listed * share;
      const plain = value(completeWater({ character, temperatureC: 25, ec25UScm }));
      expectNear(value(settleWater(plain.water)).ec25UScm / ec25UScm, 1, 1e-6);
      const kit = value(completeWater({ character, temperatureC: 25, ec25UScm, alkalinityMgL: plain.water.alkalinityMgL * 0.9 }));
      expectNear(value(settleWater(kit.water)).ec25UScm / ec25UScm, 1, 1e-6);
    }
  });
});
