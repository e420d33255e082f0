import type { DescentSize } from './drawing';

/** Measures of the picture in each of its sizes, px. */
export interface Sizes {
  readonly pipe: number;
  readonly vessel: number;
  readonly wide: number;
  readonly level: number;
  readonly top: number;
  readonly bottom: number;
}

export const SIZES: Record<DescentSize, Sizes> = {
  large: { pipe: 8, vessel: 30, wide: 38, level: 58, top: 62, bottom: 32 },
  strip: { pipe: 4, vessel: 11, wide: 14, level: 24, top: 14, bottom: 12 },
  thumb: { pipe: 4, vessel: 0, wide: 0, level: 0, top: 6, bottom: 6 },
};

/** Height of the smaller pictures, and the least and the most of the large one, px. */
export const HEIGHT = { strip: 116, thumb: 46, least: 230, most: 338 } as const;
