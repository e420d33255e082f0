import type { Water, WaterState } from '../water';
import type { Limit, LimitQuantity } from './goals';

/** A limit held against a water. */
export interface LimitCheck {
  readonly limit: Limit;
  readonly value: number;
  readonly met: boolean;
  /** Which end is crossed, if any. */
  readonly side: 'high' | 'low' | null;
}

/** The figure of a water that a limit is about. */
export function limitedValue(quantity: LimitQuantity, water: Water, state: WaterState): number {
  const { mgL } = water;
  switch (quantity) {
    case 'ec25UScm':
      return state.ec25UScm;
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
    case 'hardnessMgL':
      return state.hardnessMgL;
    case 'alkalinityMgL':
      return state.alkalinityMgL;
    case 'pH':
      return state.pH;
  }
}

/** Checks every limit of a goal against a water. */
export function checkGoal(limits: readonly Limit[], water: Water, state: WaterState): LimitCheck[] {
  return limits.map((limit) => {
    const value = limitedValue(limit.quantity, water, state);
    // Alkalinity of a permeate may come out as -1e-12 from the charge balance.
    const side = limit.high !== null && value > limit.high ? 'high' : limit.low !== null && value < limit.low - 1e-6 ? 'low' : null;
    return { limit, value, met: side === null, side };
  });
}
