import { describe, expect, it } from 'vitest';
import type { Reading } from '../file';
import { readDemo } from '../testing/demo';
import { isSameVisit, metersApart, sameVisits } from './visits';

/** Check value L43 of the science of logs, and pairs as two keepers write them down. */
const { system, readings } = readDemo('tressimoor-coral-nursery');
const last = readings.at(-1)!;
const later = (minutes: number, over: Partial<Reading> = {}): Reading => ({
  ...last,
  id: 'other',
  at: new Date(Date.parse(last.at) + minutes * 60_000).toISOString(),
  ...over,
});
const shown = (factor: number): Reading['values'] => last.values.map((value) => ({ ...value, shown: Math.round(value.shown * factor) }));

describe('a visit two keepers wrote down each', () => {
  it('is told by how far apart the figures of one meter are (L43)', () => {
    expect(metersApart(260, 264, 1)).toBeCloseTo(0.54, 2);
    expect(metersApart(6, 7, 1)).toBeCloseTo(2.09, 2);
    expect(metersApart(7, 6, 1)).toBeCloseTo(2.09, 2);
    expect([metersApart(0, 1, 1), metersApart(0, 5, 1)]).toEqual([0, Infinity]);
  });
  it('lies within two hours, shares a figure and contradicts none', () => {
    const { instruments } = system;
    expect(isSameVisit(last, later(90), instruments)).toBe(true);
    expect(isSameVisit(last, later(150), instruments)).toBe(false);
    expect(isSameVisit(last, later(30, { values: shown(1.3) }), instruments)).toBe(false);
    expect(isSameVisit(last, later(30, { temperatureC: (last.temperatureC ?? 15) + 4 }), instruments)).toBe(last.temperatureC === null);
    expect(isSameVisit(last, later(30, { values: [], pressureBar: null, temperatureC: null, productLPerH: null, wasteLPerH: null }), instruments)).toBe(false); // prettier-ignore
  });
  it('pairs each reading once, and asks nothing of what was struck out', () => {
    expect(sameVisits(system, [last], [later(10), later(20, { id: 'third' })]).map(([, { id }]) => id)).toEqual(['other']);
    expect(sameVisits(system, [last], [later(10, { counts: false })])).toEqual([]);
  });
});
