import { CACO3_G_PER_MOL, fail, ok, type Outcome } from '../quantity';
import { calciteState, MOLAR_MASS, type Water } from '../water';

/** Feed blended back into a permeate. */
export interface FeedBlend {
  /** Share of the product that is feed. */
  readonly bypass: number;
  /** Product over all the water drawn. */
  readonly overallRecovery: number;
}

/**
 * Share of feed that brings a conserved quantity of a permeate to a target: ions, hardness, alkalinity, not pH.
 *
 * @param recovery of the membrane alone
 * @returns an error naming the target where it does not lie between permeate and feed
 */
export function blendPermeate(feed: number, permeate: number, target: number, recovery: number): Outcome<FeedBlend> {
  const [low, high] = [Math.min(feed, permeate), Math.max(feed, permeate)];
  if (!(target >= low && target <= high) || low === high)
    return fail(
      'target',
      target,
      `${low.toPrecision(3)} to ${high.toPrecision(3)}`,
      `Blending reaches ${low.toPrecision(3)} to ${high.toPrecision(3)}, not ${target}.`,
    );
  const bypass = (target - permeate) / (feed - permeate);
  return ok({ bypass, overallRecovery: 1 / ((1 - bypass) / recovery + bypass) });
}

/** Time constant of a calcite bed, min (2–8; our value, unsure). */
const CALCITE_TAU_MIN = 4;
/** Calcium and alkalinity put in so that water without any has an index, mmol/L. */
const TRACE_MMOL_L = 1e-4;

export interface CalcitePickup {
  readonly water: Water;
  /** Calcium carbonate taken up, mg/L, and what it would be at rest. */
  readonly takenMgL: number;
  readonly saturationMgL: number;
}

const dissolve = (water: Water, mmolL: number): Water => ({
  ...water,
  mgL: { ...water.mgL, Ca: water.mgL.Ca + MOLAR_MASS.Ca * mmolL },
  alkalinityMgL: water.alkalinityMgL + CACO3_G_PER_MOL * mmolL,
  carbonMmolL: water.carbonMmolL + mmolL,
});

/**
 * Water behind a bed of calcite, closed to air: as far towards saturation as its contact time lets it.
 *
 * @param contactMin empty-bed contact time, min; Infinity for rest
 */
export function calcitePickup(water: Water, contactMin: number): Outcome<CalcitePickup> {
  if (!(contactMin > 0)) return fail('contactMin', contactMin, 'above 0', `A contact time of ${contactMin} min is no contact.`);
  // Acid takes calcite up before there is any index to speak of.
  const startMmolL = Math.max(0, -water.alkalinityMgL) / CACO3_G_PER_MOL + TRACE_MMOL_L;
  const started = dissolve(water, startMmolL);
  const state = calciteState(started, water.temperatureC);
  if (!state.ok) return state;
  const saturationMgL = Math.max(0, -state.value.precipitationMgL) + (state.value.precipitationMgL < 0 ? CACO3_G_PER_MOL * startMmolL : 0);
  const takenMgL = saturationMgL * (1 - Math.exp(-contactMin / CALCITE_TAU_MIN));
  return ok({ water: dissolve(water, takenMgL / CACO3_G_PER_MOL), takenMgL, saturationMgL });
}
