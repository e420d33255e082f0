import { describe, expect, it } from 'vitest';
import { JOBS } from './jobs';
import { runInSlices } from './slices';

function* count(to: number): Generator<number, string> {
  for (let i = 1; i <= to; i++) yield i / to;
  return 'done';
}
/** A clock that goes on by so many ms at each look. */
const clock = (step: number): (() => number) => {
  let at = 0;
  return () => (at += step);
};

describe('long work in slices', () => {
  it('tells how far it is now and then, and ends with its result', async () => {
    const told: number[] = [];
    const result = await runInSlices(count(100), {
      progress: (share) => told.push(share),
      cancelled: () => false,
      pause: () => Promise.resolve(),
      now: clock(10),
    });
    expect(result).toBe('done');
    expect(told.length).toBeGreaterThan(10);
    expect(told.length).toBeLessThan(60);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
  });
  it('stops at the next look when it is cancelled', async () => {
    let looks = 0;
    const result = await runInSlices(count(1_000_000), {
      progress: () => undefined,
      cancelled: () => (looks += 1) > 3,
      pause: () => Promise.resolve(),
      now: clock(50),
    });
    expect([result, looks]).toEqual([null, 4]);
  });
  it('a column of resin is such work, and says what is wrong with its input', () => {
    const water = { mgL: {} as never, alkalinityMgL: 0, carbonMmolL: 0, temperatureC: 20 };
    const outcome = JOBS.column({ beds: [], water, flowLPerH: 10, options: {} }).next();
    expect(outcome).toMatchObject({ done: true, value: { ok: false, error: { field: 'beds' } } });
  });
});
