import { describe, expect, it } from 'vitest';
import { value } from '../testing/close';
import { ELEMENT_ROWS } from './classes';
import { derivePermeability, sodiumChloride } from './derive';
import { labelledRow, NOTHING_PRINTED } from './label';
import { CLEAN, marchElement, marchSetup } from './march';
import { saltFactor, waterFactor } from './temperature';

const row = ELEMENT_ROWS.household75;
const GPD = 3.785411784 / 24;

describe('an element by its label', () => {
  it('says nothing: it is one of its class', () => expect(labelledRow(row, NOTHING_PRINTED)).toBe(row));
  it('makes at its own test what is printed, with the salt that is printed', () => {
    // 90 gal/day at 58 psi, 77 °F and 300 mg/L, 96 % held back.
    const label = { makesLPerH: 90 * GPD, testPressureBar: 4, testTemperatureC: 25, testSaltMgL: 300, rejection: 0.96 };
    const printed = labelledRow(row, label);
    expect(printed.nominalFlowGpd).toBeCloseTo(90, 6);
    expect(printed.flowSpreadGpd).toBeCloseTo((11 * 90) / 75, 6);
    const found = value(derivePermeability(printed, 'mixture'));
    const feed = sodiumChloride(300);
    const run = marchElement(marchSetup(printed, found, CLEAN, feed, 25, 'mixture'), (90 * GPD) / 0.15, feed.mmolL, 4, 0)!;
    expect(run.permeateLPerH / GPD).toBeCloseTo(90, 4);
    expect(1 - run.permeateMmolH[0]! / run.permeateLPerH / feed.mmolL[0]!).toBeCloseTo(0.96, 6);
  });
  it('a test in the cold is brought to 25 °C by the law of the skin', () => {
    const cold = labelledRow(row, { ...NOTHING_PRINTED, makesLPerH: 50 * GPD, testTemperatureC: 15 });
    expect(cold.nominalFlowGpd).toBeCloseTo(50 / waterFactor(15), 6);
    expect(waterFactor(15)).toBeLessThan(1);
    expect(saltFactor(15)).toBeLessThan(1);
  });
  it('a better element than its class has a better least', () => {
    const better = labelledRow(row, { ...NOTHING_PRINTED, rejection: 0.985 });
    expect(better.minimumRejection).toBeGreaterThan(row.minimumRejection);
    expect(better.minimumRejection).toBeLessThan(0.985);
  });
});
