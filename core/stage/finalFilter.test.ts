import { describe, expect, it } from 'vitest';
import { METRIC_UNITS } from '../quantity';
import { expectWithin } from '../testing/close';
import { kindOf, newStage, type StageOf } from '.';

const fresh = newStage('finalFilter', 'f');
const slope = (changes: Partial<StageOf<'finalFilter'>>, temperatureC = 25): number =>
  kindOf(fresh).slopeBar({ ...fresh, ...changes }, 400, temperatureC);

describe('a final filter', () => {
  it('takes its clean loss at its own flow, and four times that half used', () => {
    expectWithin(slope({}) * 600, 0.07, 1e-9);
    expectWithin(slope({ usedShare: 0.5 }) / slope({}), 4, 1e-9);
    expect(slope({}, 5)).toBeGreaterThan(slope({}));
  });
  it('is used by the litres of its log, unless somebody entered how far it is', () => {
    expect(kindOf(fresh).worn(fresh, { passedL: 25_000 }, 0)).toMatchObject({ usedShare: 0.25 });
    expect(kindOf(fresh).worn({ ...fresh, usedShare: 0.7 }, { passedL: 25_000 }, 0)).toMatchObject({ usedShare: 0.7 });
    expect(kindOf(fresh).renewed({ ...fresh, usedShare: 0.7 })).toMatchObject({ usedShare: null });
  });
  it('is changed by loss or after a year, whichever comes first', () => {
    const [due] = kindOf(fresh).upkeep(fresh, null);
    expect(due).toMatchObject({ says: 'change', afterDays: 365 });
    // 0.07 bar clean, 1 bar the limit, 100,000 L to block it: N40.
    expectWithin(due!.litresNew!, 73_542, 0.002);
  });
  it('says when it takes more than it is changed at', () => {
    const said = (usedShare: number): string[] =>
      kindOf(fresh)
        .findings({ stage: { ...fresh, usedShare }, before: { flowLPerH: 600, water: { temperatureC: 25 } }, units: METRIC_UNITS } as never)
        .map(({ title }) => title.replaceAll('\u202f', ' '));
    expect(said(0.5)).toEqual([]);
    expect(said(0.8)).toEqual(['Final filter takes 1.75 bar, it is changed at 1.00 bar']);
  });
  it('is wetted, vented and may be held under air', () =>
    expect(
      kindOf(fresh)
        .steps(fresh, { units: METRIC_UNITS } as never)
        .map(({ title }) => title),
    ).toEqual([expect.stringContaining('Wet final filter'), expect.stringContaining('Hold final filter under air')]));
});
