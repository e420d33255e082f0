/** A membrane at rest: what stands on its two sides. */
export interface RestingMembrane {
  /** Mean strength of the feed side when it stopped, mg/L. */
  readonly feedBrineMgL: number;
  /** Strength of the product while running, mg/L. */
  readonly steadyMgL: number;
  readonly feedSideL: number;
  readonly permeateSideL: number;
  /** Salt permeability times area at the temperature, L/h. */
  readonly saltLPerH: number;
}

/** Volumes of a household's element, from its spacers (±50 %). */
export const SMALL_ELEMENT_L = { feedSideL: 0.1, permeateSideL: 0.05 } as const;

export interface Creep {
  /** Strength behind the membrane at the restart, mg/L. */
  readonly startMgL: number;
  /** Time in which two thirds of it happen, h. */
  readonly tauH: number;
  /** Mean of the first litres drawn after the restart, mg/L. */
  readonly meanMgL: number;
}

/**
 * Salt that creeps through a membrane at rest, and what the first draw after it tastes of it.
 *
 * @param drawL litres drawn after the restart
 */
export function creep(rest: RestingMembrane, restH: number, drawL: number): Creep {
  const { feedSideL: f, permeateSideL: p, feedBrineMgL, steadyMgL } = rest;
  const equal = (f * feedBrineMgL + p * steadyMgL) / (f + p);
  const tauH = 1 / (rest.saltLPerH * (1 / f + 1 / p));
  const startMgL = equal + (steadyMgL - equal) * Math.exp(-restH / tauH);
  const meanMgL = steadyMgL + (startMgL - steadyMgL) * (p / drawL) * (1 - Math.exp(-drawL / p));
  return { startMgL, tauH, meanMgL };
}
