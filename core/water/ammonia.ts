import { MOLAR_MASS } from './solutes';

/** Share of total ammonia that is free NH3 in dilute water, 0–1. Emerson et al. 1975 (formula recalled). */
export function freeAmmoniaShare(pH: number, temperatureC: number): number {
  return 1 / (1 + 10 ** (0.09018 + 2729.92 / (temperatureC + 273.15) - pH));
}

/**
 * Nitrogen set free as ammonia when carbon breaks monochloramine, mg/L as N per mg/L of chloramine as Cl2.
 * An upper figure: an aged bed turns part of it into nitrogen gas.
 */
export const NITROGEN_PER_CHLORAMINE = MOLAR_MASS.NH4N / MOLAR_MASS.chloramine;

/** Conductivity of a mole of ammonia as the ammonium hydroxide it is in pure water, S·cm²/mol at 25 °C: its ion and hydroxide's share. */
const AMMONIA_CONDUCTS = 73.5 + 44.5;

/**
 * Most true ammonia that a water of a conductivity can hold, mg/L as N: it conducts, and every other ion takes from what
 * the meter shows. A kit that reads more behind resin reads chloramine, or errs.
 */
export const mostAmmoniaMgL = (ec25UScm: number): number => (MOLAR_MASS.NH4N / AMMONIA_CONDUCTS) * ec25UScm;

/** Of all nitrogen a kit for ammonia reads: what is chloramine, by its total chlorine as Cl2, and what is ammonia, mg/L as N. */
export function splitAmmonia(
  totalNMgL: number,
  totalChlorineMgL: number,
): { readonly chloramineNMgL: number; readonly ammoniaNMgL: number } {
  const chloramineNMgL = Math.min(totalNMgL, NITROGEN_PER_CHLORAMINE * totalChlorineMgL);
  return { chloramineNMgL, ammoniaNMgL: totalNMgL - chloramineNMgL };
}

/** Chloramine's part of all nitrogen a kit reads on mains whose total chlorine nobody tested, and how far that may err. */
const UNTESTED = { chloramine: 2 / 3, plusMinus: 1 / 4 } as const;

/** Nitrogen a kit for ammonia read, told apart. */
export interface KitAmmonia {
  readonly ammoniaNMgL: number;
  /** Chloramine's nitrogen, mg/L as N; and all chloramine there is, mg/L as Cl2. */
  readonly chloramineNMgL: number;
  readonly chloramineMgL: number;
  /** How far the ammonia may err where nobody tested total chlorine, mg/L as N; null where it is told apart by test. */
  readonly plusMinusMgL: number | null;
}

/**
 * What a kit's total is made of: by the chloramine that was tested, within what the conductivity can hold, or by what
 * mains usually hold of it.
 *
 * @param chloramineMgL as Cl2; null where nobody tested it
 * @param mayHold whether the supply is one that chloramine is dosed to
 */
export function kitAmmonia(totalNMgL: number, chloramineMgL: number | null, ec25UScm: number | undefined, mayHold: boolean): KitAmmonia {
  const untested = chloramineMgL === null && mayHold && totalNMgL > 0;
  const stated = chloramineMgL ?? 0;
  const ofChloramine = untested ? UNTESTED.chloramine * totalNMgL : splitAmmonia(totalNMgL, stated).chloramineNMgL;
  // What the water cannot hold as ammonia is chloramine, whatever was tested.
  const held = ec25UScm === undefined ? Infinity : mostAmmoniaMgL(ec25UScm);
  const ammoniaNMgL = Math.min(held, totalNMgL - ofChloramine);
  const chloramineNMgL = totalNMgL - ammoniaNMgL;
  return {
    ammoniaNMgL,
    chloramineNMgL,
    chloramineMgL: Math.max(stated, chloramineNMgL / NITROGEN_PER_CHLORAMINE),
    plusMinusMgL: untested ? UNTESTED.plusMinus * totalNMgL : null,
  };
}

/** Total ammonia before a membrane once carbon has broken the chloramine, mg/L as N. */
export const ammoniaAfterCarbonMgL = (mgL: { readonly NH4N: number; readonly chloramine: number }): number =>
  mgL.NH4N + NITROGEN_PER_CHLORAMINE * mgL.chloramine;
