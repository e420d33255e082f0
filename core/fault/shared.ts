/** What is not exactly known and moves several readings together (science of faults, 1.4; product assumptions). */

/** Shared errors in the order of every sensitivity: six of the unit and its day, four of instruments. */
export const SHARED = ['lnWater', 'lnSalt', 'lnLine', 'temperatureC', 'lnFeed', 'lnRestrictor', 'gauge', 'inline', 'pen', 'jug'] as const;
export type SharedError = (typeof SHARED)[number];
/** Those that go through the solver. */
export const SOLVED_SHARED = SHARED.slice(0, 6);

/** One standard deviation of each, as ln or in °C. */
export type SharedSd = Readonly<Record<SharedError, number>>;

/** Of a system whose readings at the hand-over are known. */
export const WITH_BASELINE: SharedSd = {
  lnWater: 0.04,
  lnSalt: 0.1,
  lnLine: 0.06,
  temperatureC: 1.5,
  lnFeed: 0.08,
  lnRestrictor: 0.04,
  gauge: 0.03,
  inline: 0.03,
  pen: 0.06,
  jug: 0.02,
};

/** Of one nobody has measured before. */
export const WITHOUT_BASELINE: SharedSd = {
  ...WITH_BASELINE,
  lnWater: 0.12,
  lnSalt: 0.35,
  lnLine: 0.15,
  temperatureC: 4,
  lnFeed: 0.25,
  lnRestrictor: 0.12,
};
