export { cartridgeChanged, lagStage } from './cartridges';
export { logFindings } from './findings';
export { parseQuickLine, shownUnitOf, type QuickLine } from './quickline';
export { dateAfter, trackResin, type ResinTracking } from './resin';
export { probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
export { standing, type Standing } from './standing';
export { DAY_MS } from './volume';
