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
export { enumerateOptions, JOB_AXES, spaceSize, valueOf, type Axis, type Choice, type Job } from './axes';
export { benchOf, jobOf, spacesOfSystem, type Bench } from './bench';
export type { Heads } from './heads';
export { judgeOption, RULES, type Figures, type Judged, type Look, type Rejection, type RuleId } from './option';
export { spacesOf, type Kept, type Space } from './spaces';
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
  type Missed,
  type Searched,
  type Sifted,
} from './search';
export {
  lookAt,
  MOST_ROWS,
  rowBy,
  searchOf,
  shownOf,
  siftOptions,
  surenessOf,
  titleBy,
  TODAY,
  trainBy,
  turnsOf,
  whyNotThis,
  type OptionsSifted,
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
  wouldDoText,
} from './says';
export { piecesOf } from './pieces';
export { routesOf, type RouteCost, type RoutesCompared } from './routes';
export { doubtsOf, type Compared } from './certainty';
export { comparisonPage } from './page';
