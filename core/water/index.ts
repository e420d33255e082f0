export { NITROGEN_PER_CHLORAMINE, ammoniaAfterCarbonMgL, freeAmmoniaShare, kitAmmonia, mostAmmoniaMgL, type KitAmmonia } from './ammonia';
export type { PartialAnalysis } from './analysis';
export { CHARACTERS, CHARACTER_ROWS, characterWater, type Character } from './characters';
export { compareMeters, type MeterVerdict } from './compareMeters';
export { completeWater, isHardnessAssumed, type CompletedWater, type Origin } from './completion';
export { BEYOND_SAYS } from './conducts';
export { dosed, mineralDose, type MineralDose } from './dosing';
export { HARDNESS_SCALES, dryResidueMgL, hardnessParts, hardnessWord, palatabilityWord, type HardnessSchool } from './grades';
export { dropResult } from './kit';
export {
  AIR_MATTERS_BELOW_USCM,
  COMPENSATIONS,
  METER_SALTS,
  compensated,
  ec25FromReading,
  meterEc25,
  meterSalinity,
  plainMeter,
  readingFromEc25,
  STRONGEST_MG_L,
  smallestStepUScm,
  withResidualDrop,
  type Compensation,
  type MeterScale,
} from './meter';
export { SALT_MIX_MOISTURE, mixWaters, salinityOf, seaSaltGPerL, shareForTarget, strengthened, withSeaSalt } from './mixing';
export { OSMOTIC_GROUPS, barPerOsmolal, osmolality, type OsmoticGroup } from './osmotic';
export { daviesSlope, densityKgPerL, vogelPaS } from './properties';
export { equilibria } from './equilibria';
export { SEA_USCM, seaConductivityMScm, seaSalinityOf } from './salinity';
export { langelierByHand, percentOfSaturation, ryznarIndex, ryznarWord, saturation, type Mineral } from './saturation';
export { actedCalciteIndex, calciteIndex, calciteState, isSulfateBrine, steamedScaleMgL, type CalciteState } from './scale';
export {
  BALANCE_CHARGE,
  CACO3_G_PER_EQ,
  HARDNESS_PER_MG,
  HCO3_PER_ALKALINITY,
  MOLAR_MASS,
  SOLUTES,
  eachSolute,
  isSolute,
  solutesMgL,
  type Solute,
} from './solutes';
export { standardChecks } from './standardChecks';
export {
  AIR_CO2_ATM,
  alkalinityAtPH,
  alkalinityByBalance,
  balanced,
  closedSpecies,
  dissolvedMgL,
  hardnessOf,
  molalWater,
  openToAir,
  settleWater,
  waterFromPH,
  type Water,
  type WaterState,
} from './water';
export { CARBONIC_K1, carbonicUScm, HYDROGEN_BICARBONATE_USCM } from './carbonic';
