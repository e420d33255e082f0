import { CACO3_G_PER_EQ, MOLAR_MASS, type Water } from '../water';

/** How carbon is made up, and whether it was made to break chloramine. */
export const CARBON_MEDIA = ['block', 'granular', 'catalyticBlock', 'catalyticGranular'] as const;
export type CarbonMedium = (typeof CARBON_MEDIA)[number];
/** What the litres on a label are rated against; nothing where it prints none. */
export const RATED_AGAINST = ['chlorine', 'chloramine', 'nothing'] as const;
export type RatedAgainst = (typeof RATED_AGAINST)[number];

/** A medium: rate constants at 25 °C and pH 7.7, 1/s, and the chloramine a litre of it holds where no label says, g. */
interface MediumRow {
  readonly chlorine: number;
  readonly chloramine: number;
  readonly holdsGPerL: number;
  /** Chlorine it takes for each that a chloramine counts. */
  readonly chloramineCounts: number;
}
/**
 * Product assumptions, factor 2 (handbook, further kinds, section 7): chloramine needs several times longer than free
 * chlorine, catalytic carbon is four times as fast and lasts three times as long against it. A block without a rating is
 * taken to hold what granules do.
 */
const MEDIA: Readonly<Record<CarbonMedium, MediumRow>> = {
  block: { chlorine: 0.5, chloramine: 0.08, holdsGPerL: 30, chloramineCounts: 5 },
  granular: { chlorine: 0.02, chloramine: 0.005, holdsGPerL: 30, chloramineCounts: 5 },
  catalyticBlock: { chlorine: 0.6, chloramine: 0.25, holdsGPerL: 100, chloramineCounts: 5 / 3 },
  catalyticGranular: { chlorine: 0.04, chloramine: 0.02, holdsGPerL: 100, chloramineCounts: 5 / 3 },
};
/** Challenges of the ratings (NSF/ANSI 42, recalled), mg/L. */
const CHALLENGE_MG_L = { chlorine: 2, chloramine: 3 } as const;
/** Granules and blocks made against chloramine. */
export const isCatalytic = (medium: CarbonMedium): boolean => medium === 'catalyticBlock' || medium === 'catalyticGranular';

/** What the water is like where chloramine is to be broken. */
export interface ChloramineAt {
  readonly temperatureC: number;
  readonly pH: number;
}
export const CHLORAMINE_REFERENCE: ChloramineAt = { temperatureC: 25, pH: 7.7 };
/** How much slower chloramine breaks in the cold and in alkaline water (35 kJ/mol and the slope are ours, in the direction of Fairey et al. 2006, recalled). */
export function chloramineFactor({ temperatureC, pH }: ChloramineAt): number {
  const held = Math.min(9.5, Math.max(6.5, pH));
  return Math.exp((-35_000 / 8.3145) * (1 / (temperatureC + 273.15) - 1 / 298.15)) * 10 ** (-0.12 * (held - 7.7));
}

export interface Carbon {
  readonly medium: CarbonMedium;
  readonly volumeL: number;
  /** Litres on the label, and against what. */
  readonly ratedL: number;
  readonly ratedAgainst: RatedAgainst;
  /** Litres of feed passed since it was fitted. */
  readonly passedL: number;
}

/** Empty-bed contact time, s. */
export function contactTimeS(volumeL: number, flowLPerH: number): number {
  return (volumeL / flowLPerH) * 3600;
}

/** Share of a disinfectant left after a bed: first order in contact time, weakened as the bed fills. */
export function carbonLeak(
  medium: CarbonMedium,
  disinfectant: 'chlorine' | 'chloramine',
  contactS: number,
  activity = 1,
  at: ChloramineAt = CHLORAMINE_REFERENCE,
): number {
  const rate = MEDIA[medium][disinfectant] * (disinfectant === 'chloramine' ? chloramineFactor(at) : 1);
  return Math.exp(-rate * contactS * activity);
}

/** Least contact time that brings chloramine down to a limit while the bed is new, s. */
export const leastContactS = (medium: CarbonMedium, fromMgL: number, toMgL: number, at: ChloramineAt): number =>
  Math.log(fromMgL / toMgL) / (MEDIA[medium].chloramine * chloramineFactor(at));

/** What a bed takes up before it is spent, g: of free chlorine alone, and of chloramine alone. */
export function carbonCapacityG({ medium, volumeL, ratedL, ratedAgainst }: Omit<Carbon, 'passedL'>): {
  readonly chlorine: number;
  readonly chloramine: number;
} {
  const { holdsGPerL, chloramineCounts } = MEDIA[medium];
  if (ratedAgainst === 'chlorine') {
    const chlorine = (CHALLENGE_MG_L.chlorine * ratedL) / 1000;
    return { chlorine, chloramine: chlorine / chloramineCounts };
  }
  const chloramine = ratedAgainst === 'chloramine' ? (CHALLENGE_MG_L.chloramine * ratedL) / 1000 : holdsGPerL * volumeL;
  return { chlorine: chloramine * chloramineCounts, chloramine };
}

/** Share of the nitrogen of broken chloramine that comes back as ammonia after so many bed volumes (time constant ours). */
export const ammoniaShare = (bedVolumes: number): number => 1 / 3 + (2 / 3) * Math.exp(-bedVolumes / 5000);

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

/** Share of a carbon's capacity that a litre takes, which gives up so much chlorine and chloramine. */
function shareTaken(carbon: Omit<Carbon, 'passedL'>, chlorineMgL: number, chloramineMgL: number): number {
  const capacity = carbonCapacityG(carbon);
  return chlorineMgL / 1000 / capacity.chlorine + chloramineMgL / 1000 / capacity.chloramine;
}
/** Whether chloramine wears a carbon faster than the free chlorine beside it. */
export const chloramineRules = (carbon: Omit<Carbon, 'passedL'>, chlorineMgL: number, chloramineMgL: number): boolean =>
  shareTaken(carbon, 0, chloramineMgL) > shareTaken(carbon, chlorineMgL, 0);

/** How far a carbon is used at a feed's chlorine and chloramine. */
export function carbonState(carbon: Carbon, feed: Water, flowLPerH: number): CarbonState {
  const { chlorine, chloramine } = feed.mgL;
  const perLitre = shareTaken(carbon, chlorine, chloramine);
  const usedShare = Math.min(1, perLitre * carbon.passedL);
  const litresNew = chlorine + chloramine > UNSEEN_MG_L ? 1 / perLitre : null;
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
export function carbonRowLitres(
  carbons: readonly Carbon[],
  feed: Pick<Water, 'mgL'>,
  flowLPerH: number,
  limitMgL: number,
  at: ChloramineAt,
): number | null {
  if (!(feed.mgL.chlorine + feed.mgL.chloramine > UNSEEN_MG_L) || carbons.length === 0) return null;
  const perLitre = carbons.map((carbon) => shareTaken(carbon, feed.mgL.chlorine, feed.mgL.chloramine));
  const used = carbons.map(({ passedL }, i) => Math.min(1, perLitre[i]! * passedL));
  const contacts = carbons.map(({ volumeL }) => contactTimeS(volumeL, flowLPerH));
  const taken = carbons.map(() => 0);
  /** What comes through as the row is now, mg/L; what each takes of a litre is noted. */
  const pass = (): number => {
    let { chlorine, chloramine } = feed.mgL;
    for (let i = 0; i < carbons.length; i++) {
      const carbon = carbons[i]!;
      const before = { chlorine, chloramine };
      chlorine *= carbonLeak(carbon.medium, 'chlorine', contacts[i]!, 1 - used[i]!);
      chloramine *= carbonLeak(carbon.medium, 'chloramine', contacts[i]!, 1 - used[i]!, at);
      taken[i] = shareTaken(carbon, before.chlorine - chlorine, before.chloramine - chloramine);
    }
    return chlorine + chloramine;
  };
  const stepL = perLitre.reduce((sum, share, i) => sum + (1 - used[i]!) / share, 0) / ROW_STEPS;
  let litres = 0;
  let now = pass();
  if (now > limitMgL || !(stepL > 0)) return 0;
  for (let step = 0; step < 4 * ROW_STEPS; step++) {
    taken.forEach((share, i) => (used[i] = Math.min(1, used[i]! + share * stepL)));
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
export function dechlorinated(carbon: Carbon, feed: Water, flowLPerH: number, pH = CHLORAMINE_REFERENCE.pH): Water {
  const state = carbonState(carbon, feed, flowLPerH);
  const activity = 1 - state.usedShare;
  const chlorine = feed.mgL.chlorine * carbonLeak(carbon.medium, 'chlorine', state.contactTimeS, activity);
  const at = { temperatureC: feed.temperatureC, pH };
  const chloramine = feed.mgL.chloramine * carbonLeak(carbon.medium, 'chloramine', state.contactTimeS, activity, at);
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
