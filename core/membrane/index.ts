export { solveAtPressure, type Accuracy, type Drawn, type Flows, type PressedPoint } from './atPressure';
export {
  SPENT_WATER_FACTOR,
  YEARLY_AGEING,
  aged,
  agedBy,
  pumpingKWhPerM3,
  serviceYears,
  yearlyAgeing,
  yearsUntilSpent,
  type YearlyAgeing,
} from './ageing';
export { feedViscosity } from './channel';
export {
  ELEMENT_CLASSES,
  ELEMENT_ROWS,
  elementMakes,
  elementText,
  MAX_CHLORINE_MG_L,
  MAX_TEMPERATURE_C,
  isSeawaterElement,
  isSmallElement,
  pHRange,
  type ElementClass,
  type ElementRow,
  type ElementSize,
  type ElementLimits,
} from './classes';
export type { UnitDefects } from './defects';
export { permeabilityOf, sodiumChloride } from './derive';
export { saltFactor, waterFactor } from './temperature';
export { CLEAN, type FoulingFactors } from './march';
export type { MembraneUnit, UnitConditions, UnitFlows } from './model';
export { solveUnitFlows } from './operation';
export { pumpOutletBar } from './pump';
export { betaMaxOf, elementCount, rankFluxLmh, type ElementState, type VesselRank } from './ranks';
export { labelledRow, NOTHING_PRINTED, type ElementLabel } from './label';
export { boreFromRating, restrictorFlowLPerH, restrictorPressureBar } from './restrictor';
export { speciesOfWater, waterOfSpecies, type FeedSpecies } from './species';
export { boreForRatio, lengthForRatio, roughFlows, solveMembraneUnit, withProtons, type UnitSolution } from './unit';
export { USUAL_RATIO, isUsualRatio } from './usualRatio';
export { feedBrineMgL, normalise, type UnitReading } from './normalise';
export { flowThroughValveLPerH, kvForFlow, valveHolding } from './valve';
