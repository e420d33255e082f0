import { FOUR_IN_FIVE_SD } from '../numeric';

/** How unsure the life of a resin behind a membrane is: carbon dioxide decides it, and hardly anybody measures that. */

/** What is known of the tap's carbon dioxide: standard deviations of pH, and of the logarithm of alkalinity (product assumptions). */
export interface CarbonKnowledge {
  readonly pH: number;
  readonly lnAlkalinity: number;
}
export const CARBON_KNOWN = {
  meterOnly: { pH: 0.35, lnAlkalinity: 0.25 },
  pHStrip: { pH: 0.2, lnAlkalinity: 0.25 },
  pHMeter: { pH: 0.1, lnAlkalinity: 0.25 },
  pHMeterAndKit: { pH: 0.05, lnAlkalinity: 0.05 },
} as const satisfies Record<string, CarbonKnowledge>;
export type CarbonKnown = keyof typeof CARBON_KNOWN;

/** Doubt of CO2 itself by pH before and after an hour of bubbling with air, as a share. */
export const AERATION_DOUBT = 0.15;
/** Relative doubts of silica, ions and capacity. */
const DOUBT = { silica: 0.5, ions: 0.1, capacity: 0.12 } as const;

/** Shares of the load in the middle estimate. */
export interface LoadShares {
  readonly co2: number;
  readonly silica: number;
  readonly ions: number;
}

/** Life over its median that is passed by 90 and by 10 in a hundred. */
export interface LifeBand {
  readonly p10: number;
  readonly p90: number;
}

/** Band of a life that goes as 1/(ions + silica + CO2), by the doubt of the logarithm of CO2. */
function bandOf({ co2, silica, ions }: LoadShares, sdLnCo2: number): LifeBand {
  const rest = FOUR_IN_FIVE_SD * Math.sqrt((DOUBT.silica * silica) ** 2 + (DOUBT.ions * ions) ** 2 + DOUBT.capacity ** 2);
  const by = (z: number): number => Math.hypot(Math.log(1 + co2 * (Math.exp(z * sdLnCo2) - 1)), rest);
  return { p10: Math.exp(-by(FOUR_IN_FIVE_SD)), p90: Math.exp(by(-FOUR_IN_FIVE_SD)) };
}

/** The band by what is known of pH and alkalinity. */
export const lifeBand = (shares: LoadShares, { pH, lnAlkalinity }: CarbonKnowledge): LifeBand =>
  bandOf(shares, Math.hypot(Math.LN10 * pH, lnAlkalinity));

/** The band once CO2 was measured by aeration. */
export const lifeBandByAeration = (shares: LoadShares): LifeBand => bandOf(shares, AERATION_DOUBT);
