import { describe, expect, it } from 'vitest';
import type { System } from '../file';
import { evenDemand } from '../goal';
import { runToEnd } from '../numeric';
import { readDemo } from '../testing/demo';
import { benchOf, choose, nearness, searchOf, turnsOf, type Found } from '.';

/** What would change the answer, held against searches of their own on either side of each turn. */

/** A van that draws little: resin alone is not far. */
const LITTLE_L = 15;
const demo = readDemo('veldrastix-van-tank').system;
const drawing = (litresPerDay: number, of: System): System => ({
  ...of,
  goal: { ...of.goal, demand: evenDemand(litresPerDay, 'day') },
});
const system = drawing(LITTLE_L, demo);
const narrow: System = {
  ...system,
  choice: {
    ...system.choice,
    kept: [
      { axis: 'element', values: ['in25Usual', 'in4Lowest', 'household150'] },
      { axis: 'number', values: [1, 'one'] },
      { axis: 'pump', values: ['cart'] },
      { axis: 'recovery', values: [0.5] },
      { axis: 'scale', values: ['nothing'] },
      { axis: 'recycle', values: [true] },
      { axis: 'tankL', values: [400] },
    ],
  },
};
const found = (of: System): readonly Found[] => {
  const bench = benchOf(of);
  if (!bench.ok) throw new Error(bench.error.message);
  return searchOf(bench.value).found;
};
const cheapest = (of: System): Found => found(of).reduce((a, b) => (b.annualCost < a.annualCost ? b : a));
const best = choose(found(narrow), narrow.choice.tieBand).recommendation!;
const own = found(narrow).find(({ id }) => id === best.id)!.route;
const told = runToEnd(turnsOf(narrow, best.id));
if (!told.ok) throw new Error(told.error.message);
const of = (input: string) => told.value.find((one) => one.input === input)!;

describe('what would change the answer', () => {
  it('is told nearest first', () => {
    const order = told.value.map(nearness);
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });
  it('fewer litres: beyond its turn another route wins, before it the same', () => {
    const { below } = of('litres');
    expect(below).not.toBeNull();
    const drawn = (factor: number): System => drawing(factor * LITTLE_L, narrow);
    expect(cheapest(drawn(below!.at * 0.9)).route).toBe(below!.wins);
    expect(cheapest(drawn(below!.at * 1.1)).route).toBe(own);
  });
  it('a price: a search with it beyond its turn has the other route first', () => {
    const { below } = of('resinPrice');
    if (below) {
      const at = (factor: number): System => ({ ...narrow, prices: { ...narrow.prices, resinPerL: narrow.prices.resinPerL * factor } });
      expect(cheapest(at(below.at * 0.95)).route).toBe(below.wins);
      expect(cheapest(at(below.at * 1.05)).route).toBe(own);
    }
    const shorter = of('horizon').below;
    if (shorter) {
      const kept = (factor: number): System => ({
        ...narrow,
        choice: { ...narrow.choice, horizonYears: narrow.choice.horizonYears * factor },
      });
      expect(cheapest(kept(shorter.at * 0.95)).route).toBe(shorter.wins);
      expect(cheapest(kept(shorter.at * 1.05)).route).toBe(own);
    }
    expect(below ?? shorter).not.toBeNull();
  });
});
