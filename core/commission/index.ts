export { bucketTest, productAgainst, type BucketResult } from './ratio';
export { runbook, runbookSteps, type RunbookStep } from './runbook';
export { expectedProductLPerH, trimAdvice, type TrimAdvice } from './trim';
