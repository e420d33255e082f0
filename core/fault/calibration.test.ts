import { describe, expect, it } from 'vitest';
import { referenceRig } from '../testing/referenceRig';
import { REFERENCE_CHECKS, referenceTable } from '../testing/referenceFaults';
import { faultTally, joined } from '../testing/seededFaults';

/** Section 7 of the chapter on faults, on few cases; `npm run calibration` has the whole. */
describe('hidden causes, searched with three of the best checks', () => {
  it('are found as often as stated, of 300', () => {
    const seeds = Array.from({ length: 150 }, (_, i) => 104729 * (i + 1));
    const tally = joined(
      faultTally(referenceRig(1), referenceTable(1), REFERENCE_CHECKS, seeds),
      faultTally(referenceRig(2), referenceTable(2), REFERENCE_CHECKS, seeds),
    );
    expect(tally.cases).toBe(300);
    expect(tally.first.at(-1)! / tally.cases).toBeGreaterThan(0.8);
    expect(tally.three.at(-1)! / tally.cases).toBeGreaterThan(0.92);
    // What is stated over all causes is what came true.
    for (const { stated, count, true: held } of tally.bins) {
      const sum = (list: readonly number[]): number => list.reduce((total, value) => total + value, 0);
      expect(sum(count)).toBeGreaterThan(900);
      expect(Math.abs(sum(stated) - sum(held)) / tally.cases).toBeLessThan(0.05);
    }
  }, 240_000);
});
