export { lifeKey, lifeOf, outletOf, type BedLife } from './bedLife';
export { blendPermeate, calcitePickup } from './blend';
export { cellRow, runCells } from './cells';
export { frontChain } from './coherence';
export { columnSteps, firstPast, simulateBeds, type ColumnOptions, type ColumnRun, type Side } from './column';
export {
  bypassFor,
  capacityLitres,
  decarbonised,
  flushL,
  meterPresetL,
  neighbourSettings,
  ratedCapacityEq,
  ratingAgrees,
  type DecarbonisingCartridge,
} from './decarbonise';
export { bedPressureBar, bedUtilisation, frontLeak, slowestFlowLPerH, utilisationAt, type BedUtilisation } from './film';
export { CATION_IDS, amountOf, cationsMeqL, ionMeqL, strongAnionsMeqL, UNTAKEN, type IonId, firstThrough } from './ions';
export { CARBON_KNOWN, lifeBand, lifeBandByAeration, type CarbonKnown, type LifeBand, type LoadShares } from './lifeDoubt';
export {
  ampsFor,
  CURRENT_SHARE,
  feedCountsUScm,
  hydrogenLPerH,
  LOADED,
  loadOf,
  mostAmps,
  mostHardnessMgL,
  ohms,
  saltShare,
  STACK_FLOOR,
  stackLossBar,
  stackPasses,
  stackUnits,
  stackW,
  voltsFor,
  type StackLoad,
} from './electro';
export {
  ACIDS,
  ANION_TYPES,
  calciumInAcidMmolL,
  cationEqPerL,
  MOST_CALCIUM_MMOL_L,
  pairChemicals,
  pairCycle,
  REGENERATION_WAYS,
  silicaSlipMgL,
  sodiumSlipMgL,
  strongestAcidPercent,
  wasteAlkalinityEq,
  type PairLoad,
} from './regeneration';
export { ionicLoad, type IonicLoad } from './load';
export { RESIN_CLASSES, RESIN_ROWS, type Bed, type ResinClassId } from './resins';
export { judgeRise, type RisePoint } from './service';
export { SODIUM_PER_HARDNESS, sizeSoftener, softened, softenerCapacityEqPerL, softenerLeakageMgL, type SoftenerPlan } from './softener';
export { KINETIC, POLISH_FLOORS, floorOf, measuredFloor, polishedWater, type PolishFloor } from './polish';
export { bedCapacityEq, bedThroughput, type BedThroughput } from './throughput';
export {
  BED_SD,
  bandOf,
  carriedBeyondEq,
  endAt,
  forecastCartridge,
  loadSd,
  PRIOR_SD,
  priorCapacity,
  updateCapacity,
  type Band,
  type CapacityBelief,
  type CapacityEvidence,
  type CartridgeForecast,
} from './capacity';
export { beforeBed, FIRST_RISE, usedAtGoal, weakAcidPlateauUScm, weakAcidsAt, type BeforeBed } from './atGoal';
