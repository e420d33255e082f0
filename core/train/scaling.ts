import type { UnitSolution } from '../membrane';
import { findRoot } from '../numeric';
import { calciteIndex, calciteState, MOLAR_MASS, type Solute, type Water } from '../water';

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
}

/** A water made of two by linear weights of everything conserved. */
function combine(a: Water, weightA: number, b: Water, weightB: number): Water {
  const mgL = {} as Record<Solute, number>;
  for (const solute of Object.keys(MOLAR_MASS) as Solute[]) mgL[solute] = Math.max(0, a.mgL[solute] * weightA + b.mgL[solute] * weightB);
  return {
    mgL,
    alkalinityMgL: a.alkalinityMgL * weightA + b.alkalinityMgL * weightB,
    carbonMmolL: Math.max(0, a.carbonMmolL * weightA + b.carbonMmolL * weightB),
    temperatureC: a.temperatureC,
  };
}

/**
 * Scaling of a solved unit's waste, and the ratio at which it would begin.
 *
 * Other ratios are judged by mass balance with the present permeate: its strength changes little with the
 * ratio, and it carries little of the calcium anyway.
 *
 * @returns null where there is no calcium, no alkalinity or no production
 */
export function scaleOutlook(unit: UnitSolution, actionIndex: number): ScaleOutlook | null {
  const { permeate, concentrate, recovery } = unit;
  if (!permeate || unit.wasteToProduct === null) return null;
  const t = concentrate.temperatureC;
  const waste = calciteState(concentrate, t);
  if (!waste.ok) return null;
  // Feed by balance of what leaves.
  const feed = combine(permeate, recovery, concentrate, 1 - recovery);
  const beta = Math.max(1, ...unit.ranks.map((rank) => rank.betaMax));
  const wall = calciteIndex(gasesAsFeed(combine(concentrate, beta, permeate, 1 - beta), concentrate, beta), t);
  const indexAt = (ratio: number): number => {
    const y = 1 / (1 + ratio);
    const index = calciteIndex(combine(feed, 1 / (1 - y), permeate, -y / (1 - y)), t);
    return index.ok ? index.value : Number.NaN;
  };
  const feedIndex = calciteIndex(feed, t);
  const root = findRoot((ln) => indexAt(Math.exp(ln)) - actionIndex, Math.log(0.3), Math.log(50), 1e-4);
  return {
    feedIndex: feedIndex.ok ? feedIndex.value : Number.NaN,
    index: waste.value.saturationIndex,
    wallIndex: wall.ok ? wall.value : waste.value.saturationIndex,
    precipitationMgL: Math.max(0, waste.value.precipitationMgL),
    actionIndex,
    ratioAtAction: root ? Math.exp(root.x) : null,
  };
}

/** CO2 passes the membrane and is not polarized: takes back the part of it that `combine` scaled up. */
function gasesAsFeed(wall: Water, concentrate: Water, beta: number): Water {
  const bicarbonateMmolL = Math.max(0, wall.alkalinityMgL / 50.0435);
  const freeBefore = Math.max(0, concentrate.carbonMmolL - concentrate.alkalinityMgL / 50.0435);
  return beta > 1 ? { ...wall, carbonMmolL: Math.max(0, bicarbonateMmolL + freeBefore) } : wall;
}
