import { CACO3_G_PER_EQ, MOLAR_MASS, type Water } from '../water';

/** How carbon is made up. */
export const CARBON_MEDIA = ['block', 'granular'] as const;
export type CarbonMedium = (typeof CARBON_MEDIA)[number];

/** Rate constants, 1/s (product assumptions, factor 2): chloramine needs several times longer than free chlorine. */
const RATE: Readonly<Record<CarbonMedium, { chlorine: number; chloramine: number }>> = {
  block: { chlorine: 0.5, chloramine: 0.08 },
  granular: { chlorine: 0.02, chloramine: 0.005 },
};

export interface Carbon {
  readonly medium: CarbonMedium;
  readonly volumeL: number;
  /** Litres on the label, at 2 mg/L of free chlorine (NSF/ANSI 42 challenge, recalled). */
  readonly ratedL: number;
  /** Litres of feed passed since it was fitted. */
  readonly passedL: number;
}

/** Empty-bed contact time, s. */
export function contactTimeS(volumeL: number, flowLPerH: number): number {
  return (volumeL / flowLPerH) * 3600;
}

/** Share of a disinfectant left after a bed: first order in contact time, weakened as the bed fills. */
export function carbonLeak(medium: CarbonMedium, disinfectant: 'chlorine' | 'chloramine', contactS: number, activity = 1): number {
  return Math.exp(-RATE[medium][disinfectant] * contactS * activity);
}

export interface CarbonState {
  readonly contactTimeS: number;
  /** Share of the chlorine capacity used, 0–1. */
  readonly usedShare: number;
  readonly litresLeft: number | null;
  /** Litres it would take when new; null where there is nothing to remove. */
  readonly litresNew: number | null;
}

/** Less chlorine than any test shows, mg/L: what it takes of a carbon's life is nothing to count on. */
const UNSEEN_MG_L = 0.005;

/** What chloramine counts against free chlorine of a carbon's capacity (product assumption). */
export const CHLORAMINE_COUNTS = 5;
/** What a litre of water takes of a carbon's capacity, as free chlorine, mg. */
export const carbonLoadMgL = (chlorineMgL: number, chloramineMgL: number): number => chlorineMgL + CHLORAMINE_COUNTS * chloramineMgL;

/** How far a carbon is used at a feed's chlorine and chloramine. */
export function carbonState(carbon: Carbon, feed: Water, flowLPerH: number): CarbonState {
  const capacityG = (2 * carbon.ratedL) / 1000;
  const perLitreG = carbonLoadMgL(feed.mgL.chlorine, feed.mgL.chloramine) / 1000;
  const usedShare = Math.min(1, (perLitreG * carbon.passedL) / capacityG);
  const litresNew = perLitreG > UNSEEN_MG_L / 1000 ? capacityG / perLitreG : null;
  return {
    contactTimeS: contactTimeS(carbon.volumeL, flowLPerH),
    usedShare,
    litresLeft: litresNew === null ? null : (1 - usedShare) * litresNew,
    litresNew,
  };
}

/**
 * The water after a carbon. Free chlorine ends as chloride and takes an equivalent of alkalinity with it;
 * chloramine ends as chloride and ammonia, which leaves alkalinity as it was.
 */
export function dechlorinated(carbon: Carbon, feed: Water, flowLPerH: number): Water {
  const state = carbonState(carbon, feed, flowLPerH);
  const activity = 1 - state.usedShare;
  const chlorine = feed.mgL.chlorine * carbonLeak(carbon.medium, 'chlorine', state.contactTimeS, activity);
  const chloramine = feed.mgL.chloramine * carbonLeak(carbon.medium, 'chloramine', state.contactTimeS, activity);
  const freeMmolL = (feed.mgL.chlorine - chlorine) / MOLAR_MASS.chlorine;
  const boundMmolL = (feed.mgL.chloramine - chloramine) / MOLAR_MASS.chloramine;
  return {
    ...feed,
    mgL: {
      ...feed.mgL,
      chlorine,
      chloramine,
      Cl: feed.mgL.Cl + (freeMmolL + boundMmolL) * MOLAR_MASS.Cl,
      NH4N: feed.mgL.NH4N + boundMmolL * MOLAR_MASS.NH4N,
    },
    alkalinityMgL: feed.alkalinityMgL - freeMmolL * CACO3_G_PER_EQ,
  };
}
