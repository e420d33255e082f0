import { normalQuantile } from '../numeric';
import { roundForReading, THIN } from '../quantity';
import {
  calciteState,
  dryResidueMgL,
  HARDNESS_PER_MG,
  openToAir,
  salinityOf,
  settleWater,
  type CompletedWater,
  type Solute,
  type Water,
  type WaterState,
} from '../water';
import type { Limit } from './goals';
import type { LimitQuantity } from './schema';

/** Whether a limit is kept; not known where only an assumption decides it. */
export type Verdict = 'met' | 'missed' | 'unknown';

/** A limit held against a water. */
export interface LimitCheck {
  readonly limit: Limit;
  readonly value: number;
  readonly verdict: Verdict;
  /** Which end is crossed, if any. */
  readonly side: 'high' | 'low' | null;
  /** Room to the nearest bound in the limit's own unit; negative when crossed. */
  readonly margin: number;
  /** The figure rests on what nobody measured of the tap, with its one standard deviation; null where it was measured or follows. */
  readonly assumed: Assumed | null;
}

/** What a figure's doubt is, one standard deviation of it, and how much of its substance was taken for the tap. */
export interface Assumed {
  readonly plusMinus: number;
  readonly atTap: number;
}

/** What is known of a tap, and how well. */
export type TapKnown = Pick<CompletedWater, 'water' | 'origins' | 'plusMinusMgL'>;

/** Whether a limit is about what nobody tested and nothing is known of: the little a resin leaves is no finding. */
export const untested = ({ assumed }: LimitCheck): boolean => assumed !== null && assumed.atTap === 0;

/** An assumed figure misses its limit for certain only so many standard deviations beyond it, whatever a kit would read. */
const MISSED_SD = 3;
/** It meets its limit where it does so 90% likely. */
const MET_SD = normalQuantile(0.9);

/** The verdict on a figure: what was measured or follows from it decides; what was assumed only beyond its own doubt. */
function verdictOf(side: LimitCheck['side'], margin: number, assumed: Assumed | null): Verdict {
  const sure = assumed === null || assumed.atTap === 0 || Math.abs(margin) > (side === null ? MET_SD : MISSED_SD) * assumed.plusMinus;
  if (!sure) return 'unknown';
  return side === null ? 'met' : 'missed';
}

/** Steam boilers of espresso machines, °C. */
export const STEAM_BOILER_C = 125;

/** The figure of a water that a limit is about. */
export function limitedValue(quantity: LimitQuantity, water: Water, state: WaterState): number {
  const { mgL } = water;
  switch (quantity) {
    case 'ec25UScm':
      return state.ec25UScm;
    case 'tdsMgL':
      return state.tdsMgL;
    case 'residueMgL':
      return dryResidueMgL(water);
    case 'salinity':
      return salinityOf(water);
    case 'chlorineMgL':
      return mgL.chlorine + mgL.chloramine;
    case 'ammoniaMgL':
      return mgL.NH4N;
    case 'nitrateMgL':
      return mgL.NO3;
    case 'phosphateMgL':
      return mgL.PO4;
    case 'silicaMgL':
      return mgL.SiO2;
    case 'fluorideMgL':
      return mgL.F;
    case 'boronMgL':
      return mgL.B;
    case 'calciumMgL':
      return mgL.Ca;
    case 'magnesiumMgL':
      return mgL.Mg;
    case 'sodiumMgL':
      return mgL.Na;
    case 'chlorideMgL':
      return mgL.Cl;
    case 'sulfateMgL':
      return mgL.SO4;
    case 'calciumHardnessMgL':
      return mgL.Ca * HARDNESS_PER_MG.Ca;
    case 'hardnessMgL':
      return state.hardnessMgL;
    case 'alkalinityMgL':
      return state.alkalinityMgL;
    case 'pH':
      return state.pH;
    case 'boilerScaleMgL': {
      const lime = calciteState(water, STEAM_BOILER_C);
      // Without calcium or alkalinity there is no lime to fall.
      return lime.ok ? Math.max(0, lime.value.precipitationMgL) : 0;
    }
  }
}

/** Room between a value and a limit's nearest bound, in the limit's unit. */
function room(limit: Limit, value: number): number {
  return Math.min(limit.high === null ? Infinity : limit.high - value, limit.low === null ? Infinity : value - limit.low);
}

/** A figure with the digits it is shown with: what reads as the limit is at the limit, what reads above it is not met. */
export const asShown = (value: number, quantity: LimitQuantity): number =>
  quantity === 'pH' ? Number(value.toFixed(2)) : Number(roundForReading(value).replaceAll(THIN, ''));

/** The ions of the tap a limit's figure is made of, with what each gives to it; none where the meter or pH speaks for it. */
const MADE_OF: Readonly<Partial<Record<LimitQuantity, readonly (readonly [key: Solute | 'alkalinity', each: number])[]>>> = {
  ammoniaMgL: [['NH4N', 1]],
  nitrateMgL: [['NO3', 1]],
  phosphateMgL: [['PO4', 1]],
  silicaMgL: [['SiO2', 1]],
  fluorideMgL: [['F', 1]],
  boronMgL: [['B', 1]],
  calciumMgL: [['Ca', 1]],
  magnesiumMgL: [['Mg', 1]],
  sodiumMgL: [['Na', 1]],
  chlorideMgL: [['Cl', 1]],
  sulfateMgL: [['SO4', 1]],
  calciumHardnessMgL: [['Ca', HARDNESS_PER_MG.Ca]],
  hardnessMgL: [
    ['Ca', HARDNESS_PER_MG.Ca],
    ['Mg', HARDNESS_PER_MG.Mg],
  ],
  alkalinityMgL: [['alkalinity', 1]],
  boilerScaleMgL: [
    ['Ca', HARDNESS_PER_MG.Ca],
    ['alkalinity', 1],
  ],
  chlorineMgL: [
    ['chlorine', 1],
    ['chloramine', 1],
  ],
};

/** Doubt of a pH that follows from carbon dioxide or alkalinity nobody measured (our judgement). */
const PH_ASSUMED = 0.3;

/** Doubt of a figure that rests on what was assumed of the tap: the same share of it as at the tap. */
function assumedOf(quantity: LimitQuantity, value: number, tap: TapKnown): LimitCheck['assumed'] {
  if (quantity === 'pH')
    return tap.origins.pH === 'assumed' || tap.origins.alkalinity === 'assumed' ? { plusMinus: PH_ASSUMED, atTap: value } : null;
  const parts = MADE_OF[quantity] ?? [];
  if (!parts.some(([key]) => tap.origins[key] === 'assumed')) return null;
  const at = (key: Solute | 'alkalinity'): number => (key === 'alkalinity' ? tap.water.alkalinityMgL : tap.water.mgL[key]);
  const amount = parts.reduce((sum, [key, each]) => sum + each * at(key), 0);
  const spread = Math.hypot(...parts.map(([key, each]) => each * tap.plusMinusMgL[key]));
  // Nothing is taken for it: not tested, which is not none.
  return { plusMinus: amount > 0 ? (Math.abs(value) * spread) / amount : 0, atTap: amount };
}

/** The water as it is once it has stood open to the air; null where that cannot be told. */
function opened(water: Water): { readonly water: Water; readonly state: WaterState } | null {
  const open = openToAir(water);
  const state = open.ok ? settleWater(open.value) : open;
  return open.ok && state.ok ? { water: open.value, state: state.value } : null;
}

/**
 * The figure a limit is held against: where carbon dioxide leaves with time, too low counts only once it has left, and
 * what it rises to afterwards is no longer the train's.
 */
function figureOf(limit: Limit, water: Water, state: WaterState): number {
  const value = limitedValue(limit.quantity, water, state);
  if (limit.judged !== 'onceOpen' || limit.low === null || value >= limit.low) return value;
  const open = opened(water);
  return open ? Math.min(limit.high ?? Infinity, limitedValue(limit.quantity, open.water, open.state)) : value;
}

/**
 * Holds limits against one water. Whoever has a goal asks `judge`.
 *
 * @param tap what is known of the tap it comes from; null where it does not matter
 */
export function checkLimits(limits: readonly Limit[], water: Water, state: WaterState, tap: TapKnown | null = null): LimitCheck[] {
  return limits.map((limit) => {
    const value = figureOf(limit, water, state);
    const { low, high, quantity } = limit;
    const shown = (figure: number): number => asShown(figure, quantity);
    const side = high !== null && shown(value) > shown(high) ? 'high' : low !== null && shown(value) < shown(low) ? 'low' : null;
    const margin = room(limit, value);
    const assumed = tap && assumedOf(quantity, value, tap);
    return { limit, value, verdict: verdictOf(side, margin, assumed), side, margin, assumed };
  });
}
