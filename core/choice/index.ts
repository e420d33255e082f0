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
export { turningsOf, type Turning, type TurningRange, type Turnings } from './turning';
export { MOST_MARGIN, recommend, TIE_BAND, whyNot, type Criterion, type Recommendation, type Weighed, type WhyNot } from './recommend';
export { enumerateOptions, JOB_AXES, spaceSize, valueOf, type Axis, type Job, type Option } from './axes';
export { PART_PRICES, PART_WORDS, PRICED, USUAL_PRICES, isPriced, tankPrice, type Priced, type PriceList } from './prices';
export {
  capitalOf,
  membraneKey,
  ROUTES,
  type Plan,
  type PlannedMembrane,
  type PlannedPump,
  type PlannedResin,
  type Route as WaterRoute,
} from './plan';
export {
  askingOf,
  factorsAt,
  lifeYears,
  yearOf,
  type Ageing,
  type Answers,
  type Asked,
  type MembraneAnswer,
  type MembraneAt,
  type Physics,
} from './answers';
export { blendShare, type ChoiceGoal, type ChoiceNeed, type ChoiceSite, type ChoiceWater, type Judging } from './judging';
export { cartridgeLitres, figuresOf, LANE_LEAK, type Figures, type OptionLine } from './figures';
export { judgePlan, type Judged } from './judge';
export { RULES, wasteIndex, type Rejection, type RuleId } from './rules';
export { pricedParts, resinNamed, spacesOf, type Choice, type JobWater, type Kept, type Space } from './jobs';
export {
  candidate,
  candidateCount,
  candidates,
  choose,
  foundOf,
  joined,
  objectives,
  sift,
  vectorOf,
  type Candidate,
  type Chosen,
  type Found,
  type Pruned,
  type Sifted,
} from './search';
export { comparisonOf, jobOf, priceList, spacesOfSystem, type Comparison } from './forSystem';
export { physicsOn } from './onTap';
export {
  MOST_ROWS,
  rowBy,
  shownOf,
  surenessOf,
  titleBy,
  TODAY,
  trainBy,
  turnsOf,
  whyNotThis,
  type Row,
  type Shown,
  type Why,
} from './compare';
export { nearness, TURNING_INPUTS, type InputTurn, type TurningInput } from './sensitivity';
export {
  AXIS_WORDS,
  axisValueText,
  changeText,
  dearerText,
  detailOf,
  dominatedText,
  INPUT_WORDS,
  reasonText,
  rejectionText,
  ROLE_WORDS,
  ROUTE_WORDS,
  RULE_WORDS,
  secondText,
  SPACE_WORDS,
  titleOf,
} from './says';
export { whPerL } from './present';
export { compareUnderDoubt, USUAL_DOUBTS, type Compared } from './certainty';
export { comparisonPage } from './page';
