export {
  breakEvenVolume,
  capitalRecovery,
  equivalentAnnualCost,
  presentValue,
  presentValueEven,
  presentValueRenewals,
  renewalsWithin,
  type Route,
} from './money';
export { dominates, inSteps, kneeOfTwo, nearestToIdeal, paretoFront, paretoRanks, type Knee } from './front';
export {
  beats,
  quantileOf,
  sampleInputs,
  spreadOf,
  surelyWord,
  USUAL_SAMPLING,
  type Sampling,
  type Spread,
  type UncertainInput,
} from './uncertain';
export { turningsOf, type Turning, type TurningRange, type Turnings } from './turning';
export { MOST_MARGIN, recommend, TIE_BAND, whyNot, type Criterion, type Recommendation, type Weighed, type WhyNot } from './recommend';
export { enumerateOptions, JOB_AXES, spaceSize, valueOf, type Axis, type Job, type Option } from './axes';
