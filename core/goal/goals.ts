import type { Goal, GoalId } from '../file';
import { MG_L_PER_DH } from '../quantity';

/** What a limit is about; each is a figure of a solved water. */
export type LimitQuantity =
  'ec25UScm' | 'chlorineMgL' | 'ammoniaMgL' | 'nitrateMgL' | 'phosphateMgL' | 'silicaMgL' | 'hardnessMgL' | 'alkalinityMgL' | 'pH';

export interface Limit {
  readonly quantity: LimitQuantity;
  readonly label: string;
  readonly low: number | null;
  readonly high: number | null;
  /** Where the limit comes from. */
  readonly origin: string;
  /** Why it matters, in a few words. */
  readonly because: string;
  /** Whether a pen or in-line meter can see a breach. */
  readonly meterSees: boolean;
}

export interface GoalRow {
  readonly label: string;
  readonly says: string;
  /** ppm limits people run by, for goals that leave the figure to the crew. */
  readonly schools: readonly { readonly ppm: number; readonly label: string }[];
}

export const GOAL_ROWS: Readonly<Record<GoalId, GoalRow>> = {
  marineMakeUp: {
    label: 'Marine make-up',
    says: 'A blank slate for salt mix and top-up: nothing on the meter, and nothing a meter cannot see.',
    schools: [],
  },
  windowCleaning: {
    label: 'Window cleaning',
    says: 'Dries without a mark. Spots are minerals; each crew has its own limit.',
    schools: [
      { ppm: 0, label: 'Strictly 0 at the brush' },
      { ppm: 10, label: 'Up to 10 is fine' },
      { ppm: 50, label: 'Run to 50, spots likely' },
    ],
  },
  softWaterBreeding: {
    label: 'Soft-water breeding',
    says: 'Low in everything but not empty: a little mineral must come back or be left in.',
    schools: [],
  },
};

const TRADE = 'common practice';

/** EC at 25 °C up to which a whole-ppm meter still shows the limit: half a step above it. */
export function ecOfShownPpm(ppm: number, ppmFactor: number): number {
  return (ppm + 0.5) / ppmFactor;
}

/** The limits of a goal, strictest concern first. */
export function goalLimits(goal: Goal, ppmFactor: number): Limit[] {
  const limit = (
    quantity: LimitQuantity,
    label: string,
    low: number | null,
    high: number | null,
    because: string,
    meterSees = false,
  ): Limit => ({
    quantity,
    label,
    low,
    high,
    origin: TRADE,
    because,
    meterSees,
  });
  switch (goal.id) {
    case 'marineMakeUp':
      return [
        limit('ec25UScm', 'Conductivity', null, 2, 'Reads 0 to 1 ppm', true),
        limit('silicaMgL', 'Silica', null, 0.1, 'Feeds diatoms; no meter sees it'),
        limit('ammoniaMgL', 'Ammonia, total as N', null, 0.02, 'Passes the membrane at high pH'),
        limit('nitrateMgL', 'Nitrate', null, 0.2, 'Feeds algae'),
        limit('phosphateMgL', 'Phosphate', null, 0.02, 'Feeds algae'),
        limit('chlorineMgL', 'Chlorine and chloramine', null, 0.02, 'Kills livestock and membranes'),
      ];
    case 'windowCleaning': {
      const ppm = goal.crewLimitPpm ?? 0;
      return [
        {
          ...limit('ec25UScm', 'Conductivity', null, ecOfShownPpm(ppm, ppmFactor), `Reads ${ppm} ppm at the brush`, true),
          origin: goal.crewLimitPpm === null ? TRADE : 'this crew',
        },
      ];
    }
    case 'softWaterBreeding':
      return [
        limit('ec25UScm', 'Conductivity', 20, 150, 'Below 20 nothing buffers it', true),
        limit('hardnessMgL', 'Hardness', 0, 4 * MG_L_PER_DH, 'Eggs fail in harder water'),
        limit('alkalinityMgL', 'Alkalinity', 0, 2 * MG_L_PER_DH, 'Holds the pH up'),
        limit('pH', 'pH', 5, 6.8, 'The range these fish spawn in'),
        limit('chlorineMgL', 'Chlorine and chloramine', null, 0.02, 'Kills livestock and membranes'),
      ];
  }
}

/** Litres needed a day. */
export function demandLPerDay(goal: Goal): number {
  return goal.demandPer === 'day' ? goal.demandL : goal.demandL / 7;
}
