import type { LoopSettings } from '../file';

/** A loop to start from: a bench pump through 20 mm pipe, 1 to 2 m/s (common practice), a lid without a filter. */
export const newLoop = (): LoopSettings => ({ flowLPerH: 1800, boreMm: 20, surfaceM2: 0.5, ventFilter: false });
