import { describe, expect, it } from 'vitest';
import { mean, normalCumulative, seeded, solveLinear } from '../numeric';
import { expectWithin } from '../testing/close';
import { alarmOf, bestSplit, NO_SUMS, summed, type Alarm } from './cusum';

/** Alarms of a whole series; the sums start anew after each. */
function cusum(z: readonly number[], slack: number, height: number): Alarm[] {
  const alarms: Alarm[] = [];
  let sums = NO_SUMS;
  z.forEach((value, i) => {
    sums = summed(sums, value, i, slack);
    const alarm = alarmOf(sums, i, height);
    if (!alarm) return;
    alarms.push(alarm);
    sums = NO_SUMS;
  });
  return alarms;
}

/** Readings until an alarm of a two-sided sum on a shifted normal scatter, on the average of many. */
function runLength(height: number, shift: number, runs: number, seed: number): number {
  const chance = seeded(seed);
  return mean(
    Array.from({ length: runs }, () => {
      for (let length = 64; ; length *= 2) {
        // One-sided, as the tables are: only the upward sum can alarm where nothing goes down.
        const z = Array.from({ length }, () => chance.normal() + shift);
        const alarm = cusum(z, 0.5, height).find(({ direction }) => direction === 'up');
        if (alarm) return alarm.seenAt + 1;
        if (length > 40_000) return length;
      }
    }),
  );
}

describe('the cumulative sum', () => {
  // Science of faults, 5: readings to alarm by a chain of Brook & Evans (1972); Montgomery's tables give 8.38 and 10.4 at one sd (recalled).
  it.each([
    [4, 1, 8.4],
    [5, 1, 10.4],
    [6, 1, 12.4],
    [4, 2, 3.3],
    [5, 2, 4.0],
    [6, 2, 4.7],
  ])('height %s: a shift of %s sd is seen after %s readings', (height, shift, length) =>
    expectWithin(runLength(height, shift, 4000, 3), length, 0.04),
  );
  it('height 4: without a shift 335 readings pass between two false alarms of a side', () => {
    const chance = seeded(11);
    const z = Array.from({ length: 600_000 }, () => chance.normal());
    const alarms = cusum(z, 0.5, 4).filter(({ direction }) => direction === 'up').length;
    // Both sides start anew after an alarm of either, which costs each a few.
    expectWithin(z.length / alarms, 335, 0.06);
  });
  it('names the first reading that led up to it', () => {
    expect(cusum([0, 0, 0, 3, 3, 3, 0], 0.5, 6)).toEqual([{ seenAt: 5, since: 3, direction: 'up' }]);
    expect(cusum([0, -4, -4, 0], 0.5, 6)).toEqual([{ seenAt: 2, since: 1, direction: 'down' }]);
  });
});

describe('the day of a step', () => {
  it('L33: the best split of the chapter’s series is its seventh reading, whatever the sum began with', () => {
    const z = [0.01, -0.02, 0, 0.02, -0.01, 0.03, 0.16, 0.13, 0.18, 0.15, 0.17].map((value) => value / 0.03);
    for (const since of [0, 3, 5]) expect(bestSplit(z, since, z.length - 1) + 1).toBe(7);
    expect(bestSplit([null, 0, 4, null, 4], 1, 4)).toBe(2);
  });
  it('L34: run lengths of one side by a chain of Brook and Evans (1972, recalled), and the height of section 7.1', () => {
    // The sum in cells: from each the chance of the next by the normal's cumulative; the mean number of steps until it passes.
    const length = (height: number, shift: number): number => {
      const cells = 160;
      const width = (2 * height) / (2 * cells - 1);
      const go = (from: number, to: number): number => {
        const middle = (to - from) * width + 0.5 - shift;
        return to === 0
          ? normalCumulative(middle + width / 2)
          : normalCumulative(middle + width / 2) - normalCumulative(middle - width / 2);
      };
      const rows = Array.from({ length: cells }, (_, i) => Array.from({ length: cells }, (__, j) => (i === j ? 1 : 0) - go(i, j)));
      return solveLinear(rows, new Array<number>(cells).fill(1))![0]!;
    };
    for (const [height, expected] of [[4, 335], [5, 931], [5.3, 1261], [6, 2552]] as const) expectWithin(length(height, 0), expected, 0.01); // prettier-ignore
    for (const [height, at1, at2] of [
      [4, 8.4, 3.3],
      [5, 10.4, 4.0],
      [5.3, 11.0, 4.2],
      [6, 12.4, 4.7],
    ] as const) {
      // prettier-ignore
      expectWithin(length(height, 1), at1, 0.01);
      expectWithin(length(height, 2), at2, 0.02);
    }
    // L40: 960 readings of a side.
    expect(Math.abs(length(5.03, 0) - 960)).toBeLessThan(20);
  });
});
