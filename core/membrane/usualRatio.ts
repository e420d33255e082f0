/** Waste to product of household units that both schools accept (common practice): 3 to 6 parts of waste. */
export const USUAL_RATIO = { least: 3, most: 6 } as const;

/** Whether a ratio lies within what both schools accept. */
export const isUsualRatio = (ratio: number): boolean => ratio >= USUAL_RATIO.least && ratio <= USUAL_RATIO.most;
