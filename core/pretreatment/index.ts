export { carbonState, dechlorinated, type CarbonState } from './carbon';
export { prefilterBarPerLPerH } from './sediment';
export { siltDensityIndex } from './siltDensity';
