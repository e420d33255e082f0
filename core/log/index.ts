export { cartridgeChanged, lagStage } from './cartridges';
export { dueOf, upkeepOf, type Due, type ToBring } from './due';
export { lastDone, serviced, worksOn, type ServiceDone } from './services';
export { logFindings } from './findings';
export { meterEntry, shownUnitOf } from './meterEntry';
export { parseQuickLine, type QuickLine } from './quickline';
export { trackResin, type ResinTracking } from './resin';
export { baselineOf, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
export { standing } from './standing';
export { courseAt, membraneTrend, unitAsRead, type Course, type CoursePoint, type MembraneTrend, type UnitMaps } from './membraneTrend';
export { OUTPUT_LIMITS, PASSAGE_LIMITS } from './membraneFindings';
export { crossing, type Crossing } from './crossing';
export { dayWords, seasonWords } from './days';
export { DAY_MS } from './volume';
export { slipsOf, type Doubt } from './slips';
export { readWhen, momentText, type CalendarMoment, type LocalClock } from './when';
export { edited, lineOf } from './lineOf';
export {
  alreadyHere,
  guessColumns,
  readTable,
  readingsCsv,
  takeLines,
  takeTable,
  unitsOf,
  type Column,
  type ColumnOf,
  type TakenTable,
  type TextTable,
} from './table';
