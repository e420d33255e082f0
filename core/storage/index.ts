export { SHUT_OFF_SHARE, bladderBar, bladderFillH, bladderHeldL, type BladderTank } from './bladder';
export { SMALL_ELEMENT_L, creep, type RestingMembrane } from './creep';
export { floatCycle, type FloatCycle } from './float';
export {
  CARBON_G_PER_MOL,
  UV_END_OF_LIFE,
  UV_GOAL_MJ_PER_CM2,
  loopAtRest,
  loopTimeH,
  loopWeek,
  organicLeft,
  polisherDays,
  resistivityMOhmCm,
  uvDoseMJPerCm2,
  velocityMPerS,
  type Loop,
  type LoopMoment,
  type LoopWater,
} from './loop';
