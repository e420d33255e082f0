export { ageCost, failureRunCost, replacementAge, type AgeingPart, type ReplacementAge } from './replacement';
export {
  bestCalendar,
  bundleByRules,
  bundleVisits,
  planByRule,
  thresholdRule,
  windowRule,
  type FixedCalendar,
  type VisitedPart,
  type VisitPlan,
} from './bundle';
export { stepTank, tankIssue, type TankSetting, type TankState, type TankStep } from './tank';
export { daysLeft, passDay, type ChangeEvent, type CountedPart, type LateChange } from './counters';
export { chebyshevTable, seasonAt, yearMean, type Season } from './season';
export {
  COST_LINES,
  creepMeq,
  limitThroughput,
  PLAIN_POLICY,
  resinOutlet,
  simulateYears,
  type CostLine,
  type Costs,
  type Creep,
  type DayResponse,
  type YearPart,
  type YearPlant,
  type YearPolicy,
  type YearResin,
  type YearRun,
} from './simulate';
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
export { aheadOf, AS_USUAL, withWhatIf, type Ahead, type WhatIf } from './ahead';
export { USUAL_YEAR_DOUBTS, YEAR_SAMPLING, yearBands, type DateBand, type YearBands, type YearDoubts } from './bands';
export { costLineWord, outlookFindings, outlookOf, outlookTitle, type Outlook } from './outlook';
export { yearPage } from './page';
export { USUAL_PACE, vanShare, vanYear, type VanMonth, type VanPace, type VanShare } from './vanYear';
