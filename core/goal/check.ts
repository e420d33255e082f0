import { roundForReading, THIN } from '../quantity';
import { calciteState, dryResidueMgL, HARDNESS_PER_MG, salinityOf, type Water, type WaterState } from '../water';
import type { Limit } from './goals';
import type { LimitQuantity } from './schema';

/** A limit held against a water. */
export interface LimitCheck {
  readonly limit: Limit;
  readonly value: number;
  readonly met: boolean;
  /** Which end is crossed, if any. */
  readonly side: 'high' | 'low' | null;
  /** Room to the nearest bound in the limit's own unit; negative when crossed. */
  readonly margin: number;
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
const asShown = (value: number, quantity: LimitQuantity): number =>
  quantity === 'pH' ? Number(value.toFixed(2)) : Number(roundForReading(value).replaceAll(THIN, ''));

/** Checks every limit of a goal against a water. */
export function checkGoal(limits: readonly Limit[], water: Water, state: WaterState): LimitCheck[] {
  return limits.map((limit) => {
    const value = limitedValue(limit.quantity, water, state);
    const { low, high, quantity } = limit;
    const shown = (figure: number): number => asShown(figure, quantity);
    const side = high !== null && shown(value) > shown(high) ? 'high' : low !== null && shown(value) < shown(low) ? 'low' : null;
    return { limit, value, met: side === null, side, margin: room(limit, value) };
  });
}
