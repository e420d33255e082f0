export { atGauge, atPlace, type AtPlace } from './atPlace';
export { meanExposure } from './exposure';
export { ammoniaInKit, COLDEST_MONTH, sampleWater, seasonSpan, tapWater, temperatureInMonth, yearlyCourse, type SeasonSpan } from './feed';
export { gasBar, inletBar, shutOffBar } from './pressure';
export { continued, nothingKnown, quickTrain, withTail, type Begun, type Known } from './quick';
export { membraneOperation, solveTrain, withUses, type MembraneOperation } from './solve';
export {
  litresPerProduct,
  polishedStation,
  productStation,
  runsInto,
  wasteToProduct,
  waysOf,
  type SolvedBranch,
  type SolvedTrain,
} from './solved';
export { keptBy, type Station } from './walk';
export { wornTrain } from './wear';
