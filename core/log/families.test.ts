import { describe, expect, it } from 'vitest';
import { oxidationChance } from './membraneFindings';

/** Check values L36 and L37 of the science of logs: of the families of a rise of passage, oxidation against a seal. */
describe('a skin that was oxidised, or a seal that leaks', () => {
  it('is told apart by seven hundredths of output', () => {
    // Both let as much more salt through; among the two of them the chapter’s posterior is by the output alone.
    const [oxidation, seal] = [0.753, 0.224];
    expect(oxidationChance({ value: 0.07, sd: 0.03 })).toBeCloseTo(oxidation / (oxidation + seal), 1);
    const [little, most] = [0.137, 0.695];
    expect(oxidationChance({ value: 0.01, sd: 0.03 })).toBeCloseTo(little / (little + most), 1);
  });
  it('is not said to be either where the output says nothing', () => {
    expect(oxidationChance({ value: 0.045, sd: 0.2 })).toBeGreaterThan(0.35);
    expect(oxidationChance({ value: 0.045, sd: 0.2 })).toBeLessThan(0.65);
  });
});
