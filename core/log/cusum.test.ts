import { describe, expect, it } from 'vitest';
import { mean, seeded } from '../numeric';
import { expectWithin } from '../testing/close';
import { cusum, unexplained, type SeriesPoint } from './cusum';

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

describe('a series that leaves its line', () => {
  const series = (of: (day: number) => number, seed: number, every = 7, days = 364): SeriesPoint[] => {
    const chance = seeded(seed);
    return Array.from({ length: Math.floor(days / every) }, (_, i) => ({
      day: i * every,
      y: of(i * every) + 0.05 * chance.normal(),
      sd: 0.05,
    }));
  };
  it('a slope of its own is no alarm; at most one series in ten of a year has a false one', () => {
    const alarms = Array.from({ length: 200 }, (_, seed) => unexplained(series((day) => (-0.15 * day) / 365, seed + 1)).length);
    expect(alarms.reduce((sum, n) => sum + n, 0)).toBeLessThanOrEqual(20);
  });
  it.each([0.2, -0.2])('a step of %s is found, within three weeks of its day', (step) => {
    const found = Array.from({ length: 60 }, (_, seed) => unexplained(series((day) => (day >= 182 ? step : 0), seed + 1)));
    expect(found.filter((alarms) => alarms.length > 0).length).toBeGreaterThanOrEqual(57);
    const since = found.flatMap(([alarm]) => (alarm ? [alarm.since * 7] : []));
    expect(since.filter((day) => Math.abs(day - 182) <= 21).length).toBeGreaterThan(0.9 * since.length);
    expect(new Set(found.flatMap(([alarm]) => (alarm ? [alarm.direction] : [])))).toEqual(new Set([step > 0 ? 'up' : 'down']));
  });
  it('the same step on the day of a recorded change is none', () => {
    const alarms = Array.from({ length: 60 }, (_, seed) =>
      unexplained(
        series((day) => (day >= 182 ? -0.25 : 0), seed + 1),
        [182],
      ),
    );
    expect(alarms.flat().length).toBeLessThanOrEqual(6);
  });
  it('one wild reading is a slip before it is a change', () => {
    const wild = series(() => 0, 5).map((point, i) => (i === 20 ? { ...point, y: 2.3 } : point));
    expect(unexplained(wild)).toEqual([]);
  });
  it('of nothing, and of one reading, nothing is said', () => {
    expect(unexplained([])).toEqual([]);
    expect(unexplained([{ day: 0, y: 1, sd: 0.1 }])).toEqual([]);
  });
});
