import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin } from '../testing/close';
import { linearSlope } from './linear';
import { lineAt, lineBetween, robustLine, slopeOf } from './robustLine';
import { seeded } from './seeded';

const WIDE = { level: 100, slope: 100, step: 100 };
const points = (of: (x: number) => number, sd: number, seed: number, count = 40) => {
  const chance = seeded(seed);
  return Array.from({ length: count }, (_, i) => ({ x: i / 10, y: of(i / 10) + sd * chance.normal(), sd }));
};

describe('a line through points some of which may be wrong', () => {
  it('without scatter it is the line', () => {
    const line = robustLine(
      points((x) => 3 - 2 * x, 1e-4, 1),
      WIDE,
    );
    expectNear(slopeOf(line).value, -2, 1e-3);
    expectNear(lineAt(line, 2).value, -1, 1e-3);
    expectNear(lineBetween(line, 1, 3).value, -4, 1e-3);
  });
  it('with even scatter it lies near the least squares line', () => {
    const even = points((x) => 1 + 0.5 * x, 0.1, 4);
    expectNear(
      slopeOf(robustLine(even, WIDE)).value,
      linearSlope(
        even.map(({ x }) => x),
        even.map(({ y }) => y),
      ),
      0.01,
    );
  });
  it('what it says of its own doubt holds: the truth lies within two standard deviations 95 times of a hundred', () => {
    const inside = Array.from({ length: 400 }, (_, seed) => {
      const line = robustLine(
        points((x) => 1 + 0.5 * x, 0.1, seed + 1),
        WIDE,
      );
      const { value, sd } = lineBetween(line, 0.5, 3.9);
      return Math.abs(value - 1.7) < 1.96 * sd;
    });
    expectWithin(inside.filter(Boolean).length, 380, 0.035);
  });
  it('a tenth of wild points moves it little, and they are named', () => {
    const wild = points((x) => 1 + 0.5 * x, 0.1, 9).map((point, i) => (i % 10 === 3 ? { ...point, y: point.y + 5 } : point));
    const line = robustLine(wild, WIDE);
    expectNear(slopeOf(line).value, 0.5, 0.08);
    expect(line.weights.flatMap((weight, i) => (weight < 0.2 ? [i] : []))).toEqual([3, 13, 23, 33]);
  });
  it('more scatter than the points admit to widens it', () => {
    const shaky = points(() => 0, 0.3, 2).map((point) => ({ ...point, sd: 0.05 }));
    const line = robustLine(shaky, WIDE);
    expectWithin(line.scatter, 0.3, 0.35);
    expect(lineAt(line, 2).sd).toBeGreaterThan(0.03);
  });
  it('a step stands where it is said to', () => {
    const line = robustLine(
      points((x) => (x >= 2 ? 1.4 : 1), 0.02, 3),
      WIDE,
      [2],
    );
    expectNear(lineBetween(line, 1.9999, 2).value, 0.4, 0.03);
    expectNear(slopeOf(line).value, 0, 0.02);
  });
  it('one point is its own level, as sure as it is, and the slope is the prior’s', () => {
    const line = robustLine([{ x: 0, y: 0.3, sd: 0.05 }], { level: 1, slope: 0.2, slopeMiddle: -0.1 });
    expectNear(lineAt(line, 0).value, 0.3, 1e-9);
    expectNear(lineAt(line, 0).sd, 0.05, 0.001);
    expect([slopeOf(line).value, slopeOf(line).sd].map((x) => Math.round(x * 1e6) / 1e6)).toEqual([-0.1, 0.2]);
  });
});
