export { expectedToday, LINE_STEP, todayOf, type Expected, type Today } from './expected';
export { doubtOf, expectedText, judge, type Verdict } from './judge';
export { BASELINE_STEP, baselineReading, handedOver, skippingCosts, type HandedOver } from './handOver';
export { brokenRules, ORDER_RULES, type BrokenRule, type NeedRule, type OrderRule } from './order';
export { lineSays, PAPER_KEYS, PAPER_LABELS, paperOf, type Block, type Label, type Paper, type PaperKey, type Parties } from './papers';
export {
  GROUP_LABELS,
  HOOK_UP_SETS,
  partsCsvRows,
  partsOf,
  partsTotal,
  standsSays,
  toolsFor,
  type PartsTotal,
  type PricedPart,
} from './parts';
export { tubeFor, tubeLines, TUBE_SIZES, type Carries, type PortEnd, type PortName, type TubeLine } from './plumbing';
export { bucketTest, productAgainst, type BucketResult } from './ratio';
export { runbook, runbookSteps, WORK_LABELS, type RunbookSection, type WorkAsked } from './runbook';
export { isUpgrade, trainChange, type TrainChange } from './trainChange';
export { valveTurns, type SkidReadings, type ValveTurn } from './valves';
export { expectedProductLPerH, trimAdvice, type TrimAdvice } from './trim';
export { lastMeasured, newWork, openWork, stepDone, stepReopened, withDeviation, withMeasured, withWork } from './work';
