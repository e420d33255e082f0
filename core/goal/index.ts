export { checkLimits, limitedValue, STEAM_BOILER_C, untested, type LimitCheck, type Verdict } from './check';
export { against, judge, metByAssumption, plainGoal, type GoalAsked, type Judgement, type Served } from './judge';
export { outsideStrength, strengthLimit, type StrengthLimit } from './strength';
export {
  demandLPerDay,
  demandLPerWeek,
  evenDemand,
  fillTimeH,
  hourlyDrawL,
  hourlyNeedL,
  batchL,
  drawnAtOnceLPerH,
  largestDrawL,
  needLPerDay,
  spokenNeed,
  productionForTankLPerDay,
  productDemand,
  productLPerDay,
  scaledDemand,
  smallestTankL,
  tankWeek,
} from './demand';
export { ecOfShownPpm, GOAL_ROWS, LIMIT_LABELS, goalLimits, schoolOf, type GoalFamily, type Limit, type School } from './goals';
export { allMet, assumedText, dimensionOf, limitText, missText, strengthTexts } from './limitText';
export { prepareWater, type Prepared } from './prepare';
export {
  GOAL_IDS,
  LIMIT_QUANTITIES,
  goalSchema,
  type Demand,
  type Goal,
  type GoalId,
  type LimitQuantity,
  type OwnLimit,
  type Preparation,
} from './schema';
