export { CARBON_MEDIA, carbonState, dechlorinated, type CarbonState } from './carbon';
export { dirtLoading, prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex, type SiltDensity } from './siltDensity';
