import type { Mineral } from '../water';

/** How far a water may be past saturation before its scale is acted on, without and with what holds it. */

/** Scales told in per cent of saturation. */
const PERCENT_MINERALS = ['gypsum', 'barite', 'celestite', 'fluorite', 'silica'] as const satisfies readonly Mineral[];
export type PercentMineral = (typeof PERCENT_MINERALS)[number];

export interface ScaleLimits {
  /** Calcite by its index. */
  readonly calciteIndex: number;
  readonly percent: Readonly<Record<PercentMineral, number>>;
}

/** Without anything that holds them (common design practice, recalled). */
export const UNHELD: ScaleLimits = { calciteIndex: 0, percent: { gypsum: 80, barite: 80, celestite: 80, fluorite: 100, silica: 100 } };
/** With antiscalant at its full dose (design guides of membrane makers, recalled; suppliers' programs differ by a third). */
const HELD: ScaleLimits = {
  calciteIndex: 1.8,
  percent: { gypsum: 230, barite: 6000, celestite: 800, fluorite: 12_000, silica: 100 },
};

const eachPercent = (of: (mineral: PercentMineral) => number): ScaleLimits['percent'] =>
  Object.fromEntries(PERCENT_MINERALS.map((mineral) => [mineral, of(mineral)])) as Record<PercentMineral, number>;

/** Limits at a share of the full dose: calcite by its index, the others by the logarithm of their per cent (ours). */
export function limitsAtDose(share: number): ScaleLimits {
  const part = Math.min(1, Math.max(0, share));
  return {
    calciteIndex: part * HELD.calciteIndex,
    percent: eachPercent((mineral) => UNHELD.percent[mineral] ** (1 - part) * HELD.percent[mineral] ** part),
  };
}

/** The higher of limits, each for itself: what holds one scale does not loosen another. */
export const highestLimits = (all: readonly ScaleLimits[]): ScaleLimits =>
  all.reduce((a, b) => ({
    calciteIndex: Math.max(a.calciteIndex, b.calciteIndex),
    percent: eachPercent((mineral) => Math.max(a.percent[mineral], b.percent[mineral])),
  }));
