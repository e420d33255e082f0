import { L_PER_US_GALLON } from '../quantity';
import type { ElementRow } from './classes';
import { waterFactor } from './temperature';

/** What is printed on an element, or on its data sheet; null where it does not say, or nobody has read it. */
export interface ElementLabel {
  readonly makesLPerH: number | null;
  readonly testPressureBar: number | null;
  readonly testTemperatureC: number | null;
  /** Sodium chloride of the test. */
  readonly testSaltMgL: number | null;
  readonly rejection: number | null;
}

export const NOTHING_PRINTED: ElementLabel = {
  makesLPerH: null,
  testPressureBar: null,
  testTemperatureC: null,
  testSaltMgL: null,
  rejection: null,
};

/**
 * The row of an element as its label has it: what is printed in place of the class's own, the flow brought to 25 °C by
 * the water permeability's law, the spread and the least rejection kept in proportion.
 *
 * @example labelledRow(row, { ...NOTHING_PRINTED, makesLPerH: 14.2 }) // 90 gal/day at the class's own test
 */
export function labelledRow(row: ElementRow, label: ElementLabel): ElementRow {
  const { makesLPerH, testPressureBar, testTemperatureC, testSaltMgL, rejection } = label;
  if (Object.values(label).every((one) => one === null)) return row;
  const printedGpd = makesLPerH === null ? row.nominalFlowGpd : (makesLPerH * 24) / L_PER_US_GALLON;
  const nominalFlowGpd = testTemperatureC === null ? printedGpd : printedGpd / waterFactor(testTemperatureC);
  const nominalRejection = rejection ?? row.nominalRejection;
  return {
    ...row,
    nominalFlowGpd,
    flowSpreadGpd: (row.flowSpreadGpd * nominalFlowGpd) / row.nominalFlowGpd,
    testPressureBar: testPressureBar ?? row.testPressureBar,
    testNaClMgL: testSaltMgL ?? row.testNaClMgL,
    nominalRejection,
    // As far under what is printed as the class's least is under its middle, in salt that passes.
    minimumRejection: 1 - ((1 - nominalRejection) * (1 - row.minimumRejection)) / (1 - row.nominalRejection),
  };
}
