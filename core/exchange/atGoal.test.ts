import { describe, expect, it } from 'vitest';
import { beforeBed, ionicLoad, simulateBeds, usedAtGoal, weakAcidPlateauUScm, weakAcidsAt, type IonId } from '.';
import { value } from '../testing/close';
import { balanced, solutesMgL, type Water } from '../water';
import { firstPast } from './column';
import { amountOf } from './ions';

/** Check values L23 to L25 of the science of logs, computed there by a separate program. */
function waterOf(meqL: Partial<Record<IonId, number>>): Water {
  const mgL = Object.fromEntries(
    Object.entries(meqL).flatMap(([id, amount]) => (id === 'carbon' ? [] : [[id, amountOf(id as IonId, amount)]])),
  );
  return balanced(solutesMgL(mgL), meqL.carbon ?? 0, 25);
}
const before = (strong: number, weak: number, ec = 12) => {
  const water = waterOf({ Na: strong, Cl: strong, carbon: weak });
  return beforeBed(water, ec, ionicLoad(water));
};

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
  it('a goal above the plateau is reached when a strong ion’s front comes, whose place the exact theory tells', () => {
    // By hand: factors 0.27 and 1 at shares of 3 and 1 have their root at 0.27/0.4525, so chloride comes at 1/0.4525 balances.
    expect(Math.abs(usedAtGoal('anion', 1000, before(0.1, 0.3), 30) - 1 / 0.4525)).toBeLessThan(0.01);
    // Up to what the weak acids come through at, those the strong ones push out included, their own front decides.
    for (const goal of [4.5, weakAcidPlateauUScm(0.4) - 0.01])
      expect(usedAtGoal('anion', 200, before(0.1, 0.3), goal)).toBeCloseTo(1.005, 9);
    expect(usedAtGoal('anion', 200, before(0, 0.3), 30)).toBe(20);
  });
  // Exchange chapter, 4.4: the permeate of a chloramine tap, whose chloride comes at 3333.8 L of a litre of resin.
  it('says when the cells of the column say so, for goals below the carbonic acid of a permeate and above it', () => {
    const water = waterOf({ Na: 0.1, NH4N: 0.04, Mg: 0.02, Ca: 0.04, SiO2: 0.01, carbon: 0.29, Cl: 0.08, NO3: 0.02, SO4: 0.01 });
    const load = ionicLoad(water);
    const meets = beforeBed(water, 25, load);
    const units = { cation: 150, anion: 200 };
    const run = value(
      simulateBeds([{ resin: 'mixedBed', volumeL: 1, depthMm: 400, packing: 1 }], water, 20, {
        litres: 4000,
        cells: 200,
        transferUnits: units,
      }),
    );
    for (const goal of [1, 2, 4, 8, 12]) {
      const used = Math.min(
        (usedAtGoal('anion', units.anion, meets, goal) * 600) / load.anionMeqL,
        (usedAtGoal('cation', units.cation, meets, goal) * 720) / load.cationMeqL,
      );
      const cells = firstPast(run.litres, run.ec25UScm, goal)!;
      expect(Math.abs(used / cells - 1), `${goal} µS/cm: ${used} against ${cells} L`).toBeLessThan(0.07);
    }
  });
  it('without a goal: the first visible rise; a stricter goal is passed sooner', () => {
    expect(usedAtGoal('anion', 10, before(0.1, 0.3), null)).toBeCloseTo(0.63948, 4);
    const used = [0.5, 1, 2, 4].map((goal) => usedAtGoal('anion', 20, before(0.1, 0.3), goal));
    used.slice(1).forEach((later, i) => expect(later).toBeGreaterThan(used[i]!));
    expect(usedAtGoal('cation', 20, before(0.1, 0.3, 50), 5)).toBeCloseTo(1 + (1 + Math.log(0.1)) / 20, 9);
  });
});
