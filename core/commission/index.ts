export { HANGING_ROWS, hangingOf, isBoat } from './hanging';
export { asWorkedOn, expectedToday, LINE_STEP, todayOf, type Expected, type Today } from './expected';
export { doubtOf, expectedText, judge, measuredOf, measureOf, probeOf, unitsOfProbe, type Verdict } from './judge';
export { baselineReading, fittedBy, handedOver, skippingCosts, type HandedOver } from './handOver';
export { brokenRules, ORDER_RULES, type BrokenRule, type NeedRule, type OrderRule } from './order';
export { lineSays, PAPER_KEYS, PAPER_LABELS, paperOf, type Block, type Label, type Paper, type PaperKey, type Parties } from './papers';
export {
  GROUP_LABELS,
  HOOK_UP_SETS,
  partsCsv,
  partsOf,
  partsTotal,
  standsSays,
  type PartsTotal,
  type PricedPart,
  sumOf,
  toolsSays,
} from './parts';
export { piecesOf, tubeFor, tubeLines, TUBE_SIZES, type Carries, type PortEnd, type PortName, type TubeLine } from './plumbing';
export { bothLow, bucketTest, jugsBeyond, productAgainst, type BucketResult } from './ratio';
export { runbook, runbookSteps, WORK_LABELS, type RunbookSection, type WorkAsked } from './runbook';
export { isUpgrade, trainChange, type TrainChange } from './trainChange';
export { valveTurns, type SkidReadings, type ValveTurn } from './valves';
export { expectedProductLPerH, trimAdvice, type TrimAdvice } from './trim';
export { lastMeasured, newWork, openWork, stepDone, stepReopened, withDeviation, withMeasured, withStepEntered, withWork } from './work';
export { missingAt, unproven, WAITED, waitMeasure } from './missing';
export { measuredOutput, standingRatio, type MeasuredOutput } from './measuredOutput';
