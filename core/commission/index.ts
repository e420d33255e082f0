export { bucketTest, type BucketResult } from './ratio';
export { runbook, runbookSteps, type RunbookStep } from './runbook';
export { trimAdvice, type TrimAdvice } from './trim';
