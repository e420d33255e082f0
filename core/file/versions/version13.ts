import { asItWas, isData, type FileVersion } from './raw';

/** Nobody had said how use swings over the year. */
const goalFrom12 = (goal: unknown): unknown =>
  isData(goal) && isData(goal['demand']) ? { ...goal, demand: { ...goal['demand'], season: null } } : goal;

const systemFrom12 = (system: unknown): unknown =>
  isData(system) ? { ...system, goal: goalFrom12(system['goal']), away: [], orderDays: null, removed: [] } : system;

/** Version 13: the year of a use, days away, time to order, readings that stay removed. */
export const version13: FileVersion = { version: 13, system: systemFrom12, reading: asItWas };
