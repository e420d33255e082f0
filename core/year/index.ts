export { ageCost, failureRunCost, replacementAge } from './replacement';
export { bestCalendar, bundleByRules, bundleVisits, planByRule, thresholdRule, windowRule, type VisitedPart } from './bundle';
export { stepTank, tankIssue, type TankState } from './tank';
export { daysLeft, passDay, type CountedPart } from './counters';
export {
  BROUGHT_LINES,
  creepMeq,
  daysOfYears,
  limitThroughput,
  MONTH_DAYS,
  PLAIN_POLICY,
  RUNNING_LINES,
  simulateYears,
  USUAL_POLICY,
  type Creep,
  type YearPlant,
  type YearPolicy,
  type YearRun,
} from './simulate';
export {
  beats,
  quantileOf,
  sampleInputs,
  spreadOf,
  strengthDoubt,
  surelyWord,
  USUAL_DOUBTS,
  USUAL_SAMPLING,
  type Doubts,
  type Sampling,
  type Spread,
  type UncertainInput,
} from './uncertain';
export { aheadOf, AS_USUAL, withWhatIf, type Ahead, type WhatIf } from './ahead';
export { USUAL_YEAR_DOUBTS, YEAR_SAMPLING, yearBands, type YearBands } from './bands';
export { costLineWord, outlookFindings, outlookOf, outlookTitle, type Outlook } from './outlook';
export { yearPage } from './page';
export { USUAL_PACE, vanShare, vanYear, type VanShare } from './vanYear';
