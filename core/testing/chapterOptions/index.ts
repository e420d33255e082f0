/**
 * The science of options worked as it is written there, by plans and sums: a reference the product's search, front,
 * recommendation and turns are held against. The product itself judges trains, see `core/choice`.
 */
export { askingOf, type Asked, type MembraneAnswer, type Physics } from './answers';
export { figuresOf, type Figures } from './figures';
export { spacesOf, type Space } from './jobs';
export { judgePlan, type Judged } from './judge';
export type { Judging } from './judging';
export { USUAL_PRICES, type Priced } from './prices';
export { onStrongerTap, saltPhysics, SITE, TAP, tapLoads, windowCleaner, windowCleanerSpaces } from './scenarios';
export { siftAll, siftPart, type ChapterSifted } from './sift';
