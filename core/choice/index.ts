export {
  breakEvenVolume,
  capitalRecovery,
  equivalentAnnualCost,
  presentValue,
  presentValueEven,
  presentValueRenewals,
  renewalsWithin,
} from './money';
export { dominates, inSteps, kneeOfTwo, nearestToIdeal, paretoFront, paretoRanks } from './front';
export { turningsOf } from './turning';
export { recommend, whyNot, type Weighed } from './recommend';
export { enumerateOptions, JOB_AXES, spaceSize, valueOf, type Axis } from './axes';
export { PART_WORDS, USUAL_PRICES, type Priced } from './prices';
export { type PlannedMembrane } from './plan';
export { askingOf, type Ageing, type Answers, type Asked, type MembraneAnswer, type Physics } from './answers';
export { blendShare, type Judging } from './judging';
export { figuresOf, type Figures } from './figures';
export { judgePlan, type Judged } from './judge';
export { RULES, wasteIndex, type Rejection, type RuleId } from './rules';
export { pricedParts, spacesOf, type Kept, type Space } from './jobs';
export {
  candidate,
  candidateCount,
  candidates,
  choose,
  joined,
  objectives,
  sift,
  vectorOf,
  type Chosen,
  type Found,
  type Sifted,
} from './search';
export { comparisonOf, jobOf, pricedByJob, priceList, spacesOfSystem, type Comparison } from './forSystem';
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
export { FURTHEST, nearness, type InputTurn } from './sensitivity';
export {
  AXIS_WORDS,
  axisValueText,
  changeText,
  dearerText,
  dominatedText,
  doubtsText,
  INPUT_WORDS,
  reasonText,
  rejectionText,
  ROLE_WORDS,
  ROUTE_WORDS,
  RULE_WORDS,
  secondText,
  SPACE_WORDS,
} from './says';
export { whPerL } from './present';
export { compareUnderDoubt, doubtsOf, type Compared } from './certainty';
export { comparisonPage } from './page';
