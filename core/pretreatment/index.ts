export {
  CARBON_MEDIA,
  RATED_AGAINST,
  ammoniaShare,
  carbonCapacityG,
  chloramineFactor,
  chloramineRules,
  isCatalytic,
  leastContactS,
  carbonLeak,
  carbonRowLitres,
  carbonState,
  contactTimeS,
  dechlorinated,
  type CarbonState,
} from './carbon';
export {
  blockedAtLitres,
  bubblePointBar,
  finalFilterLitres,
  finalFilterLossBar,
  holdLeakMlPerMin,
  ultrafilterFluxLmh,
} from './finalFilter';
export { dirtLoading, loadingLitres, prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex, type SiltDensity } from './siltDensity';
