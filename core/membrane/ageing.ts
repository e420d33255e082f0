import { isSeawaterElement, isSmallElement, type ElementClass } from './classes';
import type { FoulingFactors } from './march';

/** What a membrane went through. */
export interface MembraneLife {
  readonly years: number;
  /** Sum of concentration and time that reached it, mg/L × hours. */
  readonly chlorineMgLHours?: number;
  readonly chloramineMgLHours?: number;
  /** Large, well pretreated units age more slowly than household ones. */
  readonly household: boolean;
}

/** What a year takes: share of the output lost, share by which salt passage rises. */
export interface YearlyAgeing {
  readonly water: number;
  readonly salt: number;
}
/** By the kind of unit (common design practice, recalled; ranges 5–15 % and 5–25 %). */
export const YEARLY_AGEING = {
  household: { water: 0.12, salt: 0.2 },
  large: { water: 0.07, salt: 0.1 },
} as const satisfies Readonly<Record<string, YearlyAgeing>>;
/** Exposure that doubles salt passage, mg/L × hours (ranges 200–1000 and 50,000–300,000; recalled). */
const CHLORINE_DOUBLES = 500;
const CHLORAMINE_DOUBLES = 200_000;
/** Below this a membrane is called spent (common practice). */
export const SPENT_WATER_FACTOR = 0.7;

/** Factors of a membrane that was new so many years ago; of one before it was new, where the years are negative. */
export const agedBy = ({ water, salt }: YearlyAgeing, years: number): FoulingFactors => ({
  water: (1 - water) ** years,
  salt: (1 + salt) ** years,
});

/** Years until a membrane is spent; Infinity where it loses nothing. */
export const yearsUntilSpent = ({ water }: YearlyAgeing): number =>
  water > 0 ? Math.log(SPENT_WATER_FACTOR) / Math.log(1 - water) : Infinity;

/** What a year takes of an element of a class. */
export const yearlyAgeing = (element: ElementClass): YearlyAgeing => YEARLY_AGEING[isSmallElement(element) ? 'household' : 'large'];

/** Years after which an element is replaced whatever it still makes (common practice, recalled): a boat's is idle for months. */
const MOST_YEARS = { household: 3, large: 5, sea: 3 } as const;

/** Years a new element serves: until it is spent, or its time is up. */
export const serviceYears = (element: ElementClass): number =>
  Math.min(
    MOST_YEARS[isSeawaterElement(element) ? 'sea' : isSmallElement(element) ? 'household' : 'large'],
    yearsUntilSpent(yearlyAgeing(element)),
  );

/** Output and salt factors of a membrane after a life, from those it had before. */
export function aged(before: FoulingFactors, life: MembraneLife): FoulingFactors {
  const byYears = agedBy(YEARLY_AGEING[life.household ? 'household' : 'large'], life.years);
  const doublings = (life.chlorineMgLHours ?? 0) / CHLORINE_DOUBLES + (life.chloramineMgLHours ?? 0) / CHLORAMINE_DOUBLES;
  return { water: before.water * byYears.water, salt: before.salt * byYears.salt * 2 ** doublings };
}

/**
 * Energy of one pump for a cubic metre of what a train makes in the end, kWh/m³; those of several pumps add up.
 *
 * @param bar by which it lifts what flows through it
 * @param litresPerL litres through it for a litre made in the end
 * @param efficiency pump and motor together
 * @param waste that a recovery device takes pressure from, and the share it gives back
 */
export function pumpingKWhPerM3(
  bar: number,
  litresPerL: number,
  efficiency: number,
  waste: { readonly bar: number; readonly litresPerL: number } | null = null,
  recoveryEfficiency = 0,
): number {
  const back = waste ? recoveryEfficiency * waste.bar * waste.litresPerL : 0;
  return (bar * litresPerL - back) / (36 * efficiency);
}
