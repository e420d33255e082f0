export { CARBON_MEDIA, carbonLeak, carbonState, contactTimeS, dechlorinated, type CarbonState } from './carbon';
export { dirtLoading, prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex, type SiltDensity } from './siltDensity';
