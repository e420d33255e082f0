export { cartridgeChanged, lagStage } from './cartridges';
export { dueOf } from './due';
export { logFindings } from './findings';
export { meterEntry, shownUnitOf } from './meterEntry';
export { parseQuickLine, type QuickLine } from './quickline';
export { trackResin, type ResinTracking } from './resin';
export { baselineOf, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
export { standing } from './standing';
export { DAY_MS } from './volume';
