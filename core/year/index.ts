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
