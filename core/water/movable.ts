import { BALANCE_CHARGE, CACO3_G_PER_EQ, MOLAR_MASS } from './solutes';

/** The quantities rung (b) may move, in meq/L; charge of each. */
export const MOVABLE = ['Ca', 'Mg', 'Na', 'K', 'Cl', 'SO4', 'NO3', 'alkalinity'] as const;
export type Movable = (typeof MOVABLE)[number];
const CHARGE: Readonly<Record<Movable, number>> = { ...BALANCE_CHARGE, alkalinity: -1 };
export const signOf = (key: Movable): number => Math.sign(CHARGE[key]);

export const toMeq = (key: Movable, mgL: number): number =>
  key === 'alkalinity' ? mgL / CACO3_G_PER_EQ : (mgL * Math.abs(CHARGE[key])) / MOLAR_MASS[key];
export const toMgL = (key: Movable, meq: number): number =>
  key === 'alkalinity' ? meq * CACO3_G_PER_EQ : (meq * MOLAR_MASS[key]) / Math.abs(CHARGE[key]);
