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

/** Steps a row's life is followed in. */
const ROW_STEPS = 80;

/**
 * Litres of feed a row of carbons in one flow passes until more than a limit of chlorine and chloramine together comes
 * through its last: the first is used up before the next, and each lets through more as it fills.
 *
 * @param carbons in the order of the water, with what has passed each
 * @param limitMgL what may come through
 * @returns null where the feed holds less than any test shows; 0 where too much comes through at once
 */
export function carbonRowLitres(carbons: readonly Carbon[], feed: Pick<Water, 'mgL'>, flowLPerH: number, limitMgL: number): number | null {
  const load = carbonLoadMgL(feed.mgL.chlorine, feed.mgL.chloramine);
  if (!(load > UNSEEN_MG_L) || carbons.length === 0) return null;
  const capacityMg = carbons.map(({ ratedL }) => 2 * ratedL);
  const used = carbons.map(({ passedL }, i) => Math.min(1, (load * passedL) / capacityMg[i]!));
  const contacts = carbons.map(({ volumeL }) => contactTimeS(volumeL, flowLPerH));
  const takenMg = carbons.map(() => 0);
  /** What comes through as the row is now, mg/L; what each takes of a litre is noted. */
  const pass = (): number => {
    let { chlorine, chloramine } = feed.mgL;
    for (let i = 0; i < carbons.length; i++) {
      const { medium } = carbons[i]!;
      const before = carbonLoadMgL(chlorine, chloramine);
      chlorine *= carbonLeak(medium, 'chlorine', contacts[i]!, 1 - used[i]!);
      chloramine *= carbonLeak(medium, 'chloramine', contacts[i]!, 1 - used[i]!);
      takenMg[i] = before - carbonLoadMgL(chlorine, chloramine);
    }
    return chlorine + chloramine;
  };
  const stepL = capacityMg.reduce((sum, mg, i) => sum + (1 - used[i]!) * mg, 0) / load / ROW_STEPS;
  let litres = 0;
  let now = pass();
  if (now > limitMgL || !(stepL > 0)) return 0;
  for (let step = 0; step < 4 * ROW_STEPS; step++) {
    takenMg.forEach((mg, i) => (used[i] = Math.min(1, used[i]! + (mg * stepL) / capacityMg[i]!)));
    const next = pass();
    // Through so little that it never reaches the limit: spent when nothing is taken any more.
    if (next > limitMgL) return litres + (stepL * (limitMgL - now)) / Math.max(1e-12, next - now);
    litres += stepL;
    now = next;
    if (used.every((share) => share >= 1)) return litres;
  }
  return litres;
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
