export { bringFor, dueOf, membraneSeen, upkeepRows, type Due, type ToBring, type UpkeepRow } from './due';
export { behindInRow, lastDone, fittedBefore, serviced, workedOn, WORK_WORDS, worksOn, type ServiceDone } from './services';
export { logFindings, rowName, shareBand } from './findings';
export { meterEntry, shownUnitOf } from './meterEntry';
export { parseQuickLine, typedUnits, type QuickLine } from './quickline';
export { litresCounted, type LitresCounted } from './litres';
export { trackResin, type ResinTracking } from './resin';
export { baselineOf, probeEc25, probeRoles, readingRatio, saltRemoved, type ProbeRoles } from './series';
export { standing, type Standing } from './standing';
export { AGEING } from './membraneFilter';
export { courseAt, membraneTrend, unitAsRead, type Course, type CoursePoint, type MembraneTrend, type UnitMaps } from './membraneTrend';
export { OUTPUT_LIMITS, PASSAGE_LIMITS, shareWithDoubt, toldSteps, type ToldStep } from './membraneFindings';
export { crossing, type Crossing } from './crossing';
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
  type RowWork,
  type TakenTable,
  type TextTable,
} from './table';
export { isOnRecord, withoutFigure, withWorks } from './takenWork';
export { readWork, workText, type WorkRead } from './workText';
export { isMeterFile, takeRecording, type TakenRecording } from './meterFile';
export { shownBy, solvedIn, type TrueState } from './simulated';
export { senmlTable } from './senmlTable';
export { sameVisits } from './visits';
export { trainUse } from './use';
export { supplySteps } from './supplySteps';
