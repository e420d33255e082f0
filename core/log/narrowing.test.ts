import { describe, expect, it } from 'vitest';
import { dateSd, lookGain, type DateDoubt } from './narrowing';

/** Check value L42 of the science of logs: holds 0.65 eq ± 12 %, taken 0.40 ± 10 %, 0.006 a day ± 12 %. */
const doubt: DateDoubt = { holdsEq: 0.65, takenEq: 0.4, perDayEq: 0.006, sd: { holds: 0.12, taken: 0.1, perDay: 0.12 } };

describe('what a look is worth (L42)', () => {
  it('against the doubt of the date', () => {
    expect(dateSd(doubt)).toBeCloseTo(15.44, 2);
    expect(lookGain(doubt, { sees: [-1, 1, 0], sd: 0.06 })).toBeCloseTo(0.743, 2);
    expect(lookGain(doubt, { sees: [1, 0, 0], sd: 0.15 })).toBeCloseTo(0.277, 2);
    expect(lookGain(doubt, { sees: [0, 1, 0], sd: 0.05 })).toBeCloseTo(0.149, 2);
    expect(lookGain(doubt, { sees: [0, 0, 1], sd: 0.05 })).toBeCloseTo(0.089, 2);
  });
  it('is less the worse it is read, and nothing where it sees nothing', () => {
    expect(lookGain(doubt, { sees: [1, 0, 0], sd: 0.5 })).toBeLessThan(lookGain(doubt, { sees: [1, 0, 0], sd: 0.15 }));
    expect(lookGain(doubt, { sees: [0, 0, 0], sd: 0.05 })).toBe(0);
  });
});
