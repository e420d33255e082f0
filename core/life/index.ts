export { pumpEnergy, stageEnergy, trainEnergy } from './energy';
export { loopPolisherDays, loopState, worstHourMOhmCm, worstMOhmCm, type LoopState } from './loop';
export { membraneLife, type MembraneLife } from './membrane';
export { bringsNew, partLives, timesPerYear, upkeepOf, yearStandings, type DaysBand, type LivesAsked, type PartLife } from './parts';
export { beforeFirstBed, changedInTurn, resinLife, type ResinChange, type ResinLife } from './resin';
export { seasonAt, yearMean, type Season } from './season';
export {
  allStandings,
  branchStandings,
  carbonStates,
  sayings,
  servedChlorineMgL,
  standingAt,
  trainStandings,
  type SolvedUse,
  type StageStanding,
} from './standing';
export { feedSeasons, LEAST_C, STRONGEST_MONTH, trainYear, type FeedSeasons, type TrainYear } from './trainYear';
