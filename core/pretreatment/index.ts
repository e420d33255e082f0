export {
  CARBON_MEDIA,
  CHLORAMINE_COUNTS,
  carbonLeak,
  carbonLoadMgL,
  carbonState,
  contactTimeS,
  dechlorinated,
  type CarbonState,
} from './carbon';
export { dirtLoading, prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex, type SiltDensity } from './siltDensity';
