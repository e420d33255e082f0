import type { PercentMineral, ScaleLimits } from '../dosing';
import { betaMaxOf, type UnitSolution } from '../membrane';
import { findRoot } from '../numeric';
import { actedCalciteIndex, calciteState, eachSolute, percentOfSaturation, saturation, type Water } from '../water';

/** What the concentrate does to the membrane it leaves. */
export interface ScaleOutlook {
  readonly feedIndex: number;
  /** Calcite index of the waste as it leaves. */
  readonly index: number;
  /** The same at the membrane's skin, where polarization makes the water stronger. */
  readonly wallIndex: number;
  /** Calcium carbonate the waste could drop, mg/L. */
  readonly precipitationMgL: number;
  readonly actionIndex: number;
  /** Waste : product at which the index reaches the action limit; null when no ratio from 0.3 to 50 does. */
  readonly ratioAtAction: number | null;
  /** Other scales of the waste beyond their limit, in per cent of saturation. */
  readonly minerals: readonly { readonly mineral: PercentMineral; readonly percent: number; readonly limitPercent: number }[];
  /** Highest recovery at which neither calcite nor any other scale passes its limit; null when none does up to 97 %. */
  readonly safeRecovery: number | null;
}

/** The calcite index to go by; null without calcium or alkalinity. */
function actedIndexOf(water: Water): number | null {
  const index = actedCalciteIndex(water, water.temperatureC);
  return index.ok ? index.value : null;
}

/** Calcite index of a solved unit's waste; null where there is no calcium, no alkalinity or no production. */
export function wasteIndex({ permeate, concentrate }: UnitSolution): number | null {
  return permeate ? actedIndexOf(concentrate) : null;
}

const eachLimit = (percent: ScaleLimits['percent']): [PercentMineral, number][] => Object.entries(percent) as [PercentMineral, number][];

/** Index of a scale that cannot form. */
const NONE = -9;

/** By how much the worst scale of a water exceeds its limit, as a logarithm; below 0 all is well. */
function excess(water: Water, { calciteIndex, percent }: ScaleLimits): number {
  const indices = saturation(water, water.temperatureC);
  if (!indices.ok) return NONE;
  const others = eachLimit(percent).map(([mineral, limit]) => (indices.value[mineral] ?? NONE) - Math.log10(limit / 100));
  return Math.max((actedIndexOf(water) ?? NONE) - calciteIndex, ...others);
}

/** A water made of two by linear weights of everything conserved. */
function combine(a: Water, weightA: number, b: Water, weightB: number): Water {
  return {
    mgL: eachSolute((s) => Math.max(0, a.mgL[s] * weightA + b.mgL[s] * weightB)),
    alkalinityMgL: a.alkalinityMgL * weightA + b.alkalinityMgL * weightB,
    carbonMmolL: Math.max(0, a.carbonMmolL * weightA + b.carbonMmolL * weightB),
    temperatureC: a.temperatureC,
  };
}

/** What the waste of a unit could drop: its calcite index, and other scales beyond their limit; null where it makes nothing. */
export function wasteScale(unit: UnitSolution, limits: ScaleLimits): Pick<ScaleOutlook, 'index' | 'minerals'> | null {
  const index = wasteIndex(unit);
  return unit.permeate ? { index: index ?? NONE, minerals: beyondLimit(unit.concentrate, limits) } : null;
}

/**
 * Scaling of a solved unit's waste, and the ratio at which it would begin.
 *
 * Other ratios are judged by mass balance with the present permeate: its strength changes little with the
 * ratio, and it carries little of the calcium anyway.
 *
 * @returns null where there is no calcium, no alkalinity or no production
 */
export function scaleOutlook(unit: UnitSolution, limits: ScaleLimits): ScaleOutlook | null {
  const { permeate, concentrate, recovery } = unit;
  if (!permeate || unit.wasteToProduct === null) return null;
  const actionIndex = limits.calciteIndex;
  const t = concentrate.temperatureC;
  const waste = calciteState(concentrate, t);
  if (!waste.ok) return null;
  // Feed by balance of what leaves.
  const feed = combine(permeate, recovery, concentrate, 1 - recovery);
  const beta = betaMaxOf(unit.ranks);
  // C_wall = C_p + (C_b − C_p)·β for every solute; CO2 stands alike on both sides, and so it stays.
  const wall = actedIndexOf(combine(concentrate, beta, permeate, 1 - beta));
  const wasteAt = (y: number): Water => combine(feed, 1 / (1 - y), permeate, -y / (1 - y));
  const indexAt = (ratio: number): number => {
    return actedIndexOf(wasteAt(1 / (1 + ratio))) ?? Number.NaN;
  };
  const root = findRoot((ln) => indexAt(Math.exp(ln)) - actionIndex, Math.log(0.3), Math.log(50), 1e-4);
  return {
    feedIndex: actedIndexOf(feed) ?? Number.NaN,
    index: actedIndexOf(concentrate) ?? waste.value.saturationIndex,
    wallIndex: wall ?? waste.value.saturationIndex,
    precipitationMgL: Math.max(0, waste.value.precipitationMgL),
    actionIndex,
    ratioAtAction: root ? Math.exp(root.x) : null,
    minerals: beyondLimit(concentrate, limits),
    // A feed that is over its limit as it comes has no safe recovery.
    safeRecovery: excess(wasteAt(0.01), limits) > 0 ? null : (findRoot((y) => excess(wasteAt(y), limits), 0.01, 0.97, 1e-3)?.x ?? null),
  };
}

/** The scales of a water beyond their limit. */
function beyondLimit(water: Water, { percent: most }: ScaleLimits): ScaleOutlook['minerals'] {
  const indices = saturation(water, water.temperatureC);
  if (!indices.ok) return [];
  return eachLimit(most).flatMap(([mineral, limitPercent]) => {
    const index = indices.value[mineral];
    const percent = index === null ? 0 : percentOfSaturation(index);
    return percent > limitPercent ? [{ mineral, percent, limitPercent }] : [];
  });
}
