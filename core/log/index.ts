export { cartridgeChanged, lagStage } from './cartridges';
export { bringFor, dueOf, membraneSeen, upkeepRows, type Due, type ToBring, type UpkeepRow } from './due';
export { lastDone, nextCarbon, serviced, WORK_WORDS, worksOn, type ServiceDone } from './services';
export { logFindings } from './findings';
export { meterEntry, shownUnitOf } from './meterEntry';
export { parseQuickLine, type QuickLine } from './quickline';
export { countedUp } from './volume';
export { trackResin, type ResinTracking } from './resin';
export { baselineOf, probeEc25, probeRoles, readingRatio, saltRemoved, type ProbeRoles } from './series';
export { standing, type Standing } from './standing';
export {
  AGEING,
  courseAt,
  membraneTrend,
  unitAsRead,
  type Course,
  type CoursePoint,
  type MembraneTrend,
  type UnitMaps,
} from './membraneTrend';
export { OUTPUT_LIMITS, PASSAGE_LIMITS, shareWithDoubt } from './membraneFindings';
export { crossing, type Crossing } from './crossing';
export { dayWords, seasonWords } from './days';
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
  type Refused,
  type TakenTable,
  type TextTable,
} from './table';
export { isMeterFile, takeRecording, type TakenRecording } from './meterFile';
export { shownBy, solvedIn, type TrueState } from './simulated';
export { senmlTable } from './senmlTable';
