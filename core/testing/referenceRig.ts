import { CHAPTER_ROWS } from './chapterRows';
import { unitRig } from '../fault/unitRig';
import type { Rig } from '../fault/rig';
import { CLEAN, feedViscosity, sodiumChloride, type MembraneUnit } from '../membrane';
import { BAR_PER_PSI } from '../quantity';

/** The two systems the science of faults is checked on (chapter on faults, 2.1): sodium chloride, ppm as mg/L, 60 psi, 15 °C. */

const TEMPERATURE_C = 15;
export const REFERENCE_LINE_BAR = 60 * BAR_PER_PSI;
const CLEAN_FILTER_BAR_PER_L_H = 0.1 / 150;
const NACL_G_PER_MOL = 22.99 + 35.453;

/** @param elements one, or two in series on the concentrate */
export function referenceRig(elements: 1 | 2): Rig {
  const unit: MembraneUnit = {
    row: CHAPTER_ROWS.household75,
    ranks: [{ vessels: 1, elementsPerVessel: elements }],
    factors: CLEAN,
    restrictor: { lengthMm: 200, boreMm: elements === 1 ? 1.2018887 : 1.58667 },
  };
  const rig = unitRig({
    unit,
    feed: sodiumChloride(250),
    conditions: {
      linePressureBar: REFERENCE_LINE_BAR,
      prefilterBarPerLPerH: (CLEAN_FILTER_BAR_PER_L_H * feedViscosity(TEMPERATURE_C, 0)) / feedViscosity(25, 0),
      permeatePressureBar: 0,
      temperatureC: TEMPERATURE_C,
      law: 'astmD4516',
    },
    strengthPpm: (mmolL) => mmolL[0]! * NACL_G_PER_MOL,
  });
  if (!rig.ok) throw new Error(rig.error.message);
  return rig.value;
}
