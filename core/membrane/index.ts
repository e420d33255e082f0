export * from './classes';
export * from './channel';
export * from './temperature';
export * from './species';
export * from './derive';
export * from './restrictor';
export * from './pump';
export * from './valve';
export { betaMaxOf, elementCount, rankFluxLmh, type ElementState, type RankState, type VesselRank } from './ranks';
export * from './model';
export * from './operation';
export * from './unit';
export * from './normalise';
export * from './ageing';
// The march works on typed arrays inside the room; what leaves it is plain data.
export { CLEAN, SLICES, type FoulingFactors, type Permeability } from './march';
export type { OsmoticLaw } from './osmosis';
