export { bucketTest, type BucketResult } from './ratio';
export { runbook, runbookSteps, type Step } from './runbook';
export { trimAdvice, type TrimAdvice } from './trim';
