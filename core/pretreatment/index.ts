export {
  CARBON_MEDIA,
  CHLORAMINE_COUNTS,
  carbonLeak,
  carbonLoadMgL,
  carbonRowLitres,
  carbonState,
  contactTimeS,
  dechlorinated,
  type CarbonState,
} from './carbon';
export { dirtLoading, loadingLitres, prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex, type SiltDensity } from './siltDensity';
