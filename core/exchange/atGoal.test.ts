import { describe, expect, it } from 'vitest';
import { beforeBed, usedAtGoal, weakAcidPlateauUScm, weakAcidsAt, type IonicLoad } from '.';

/** Check values L23 to L25 of the science of logs, computed there by a separate program. */
const load = (strong: number, weak: number): IonicLoad => ({
  cationMeqL: strong,
  anionMeqL: strong + weak,
  strongMeqL: strong,
  bicarbonateMeqL: 0,
  weakAcidMeqL: weak,
});
const before = (strong: number, weak: number, ec = 12) => beforeBed({ carbonMmolL: weak }, ec, load(strong, weak));

describe('how far a bed is used at its goal', () => {
  it('weak acids that read 2, 4, 8 µS/cm (L23)', () => {
    expect(weakAcidsAt(2)).toBeCloseTo(0.06193, 5);
    expect(weakAcidsAt(4)).toBeCloseTo(0.23955, 4);
    expect(weakAcidsAt(8)).toBeCloseTo(0.94168, 4);
  });
  it('2 µS/cm of 0.30 mmol/L, 34 transfer units (L24)', () =>
    expect(usedAtGoal('anion', 34, before(0.02, 0.3), 2)).toBeCloseTo(0.98301, 4));
  it('plateaus of 0.20, 0.30, 0.40 mmol/L (L25)', () =>
    [0.2, 0.3, 0.4].forEach((c, i) => expect(Math.abs(weakAcidPlateauUScm(c) - [3.649, 4.485, 5.189][i]!)).toBeLessThan(0.003)));
  it('a goal above the plateau is reached by strong ions alone, a fifth of the weak share later', () => {
    const [below, above] = [4.4, 4.6].map((goal) => usedAtGoal('anion', 34, before(0.1, 0.3), goal)) as [number, number];
    expect(above - below).toBeGreaterThanOrEqual(0);
    expect(usedAtGoal('anion', 34, before(0.1, 0.3), 40)).toBeGreaterThan(1.1);
  });
  it('without a goal: the first visible rise; a stricter goal is passed sooner', () => {
    expect(usedAtGoal('anion', 10, before(0.1, 0.3), null)).toBeCloseTo(0.63948, 4);
    const used = [0.5, 1, 2, 4].map((goal) => usedAtGoal('anion', 20, before(0.1, 0.3), goal));
    used.slice(1).forEach((later, i) => expect(later).toBeGreaterThan(used[i]!));
    expect(usedAtGoal('cation', 20, before(0.1, 0.3, 50), 5)).toBeCloseTo(1 + (1 + Math.log(0.1)) / 20, 9);
  });
});
