import type { Outcome } from '../quantity';
import { settleWater, type Water, type WaterState } from '../water';
import { checkLimits, type LimitCheck, type TapKnown, type Verdict } from './check';
import { GOAL_ROWS, goalLimits } from './goals';
import { prepareWater, type Prepared } from './prepare';
import type { Goal } from './schema';

/** What of a goal decides whether a water is good enough. */
export type GoalAsked = Pick<Goal, 'id' | 'school' | 'crewLimitPpm' | 'ownLimits' | 'prepare'>;

/** What a goal is held against. */
export interface Served {
  /** As the train leaves it. */
  readonly product: Water;
  /** Its state where the trade reads its meter: before a tank's air, at the outlets of a loop at their worst hour. */
  readonly state: WaterState;
  /** The tap, which may be blended back. */
  readonly tapWater: Water;
  /** What of the tap was measured and what assumed; null where nobody asks. */
  readonly tap: TapKnown | null;
}

/** Whether a water is good enough for a goal, and what decides it. */
export interface Judgement {
  /** Missed where a limit is; not known where none is and an assumption decides one. */
  readonly verdict: Verdict;
  readonly checks: readonly LimitCheck[];
  /** The water as it is used: with what is put to it. */
  readonly prepared: Outcome<Prepared>;
}

/** Whether the product itself is judged: where nothing is put to it, and where what is put to it is another matter. */
export const judgesProduct = ({ id, prepare }: Pick<Goal, 'id' | 'prepare'>): boolean =>
  prepare.how === 'none' || (GOAL_ROWS[id].judgesProduct && prepare.how !== 'blend');

const verdictOn = (checks: readonly LimitCheck[]): Verdict =>
  checks.some(({ verdict }) => verdict === 'missed') ? 'missed' : checks.some(({ verdict }) => verdict === 'unknown') ? 'unknown' : 'met';

/**
 * The one judge: holds a goal against what a train leaves, prepared as the goal says and where the goal says.
 *
 * @param ppmFactor ppm a meter of this system shows for a µS/cm
 */
export function judge(goal: GoalAsked, ppmFactor: number, { product, state, tapWater, tap }: Served): Judgement {
  const limits = goalLimits(goal, ppmFactor);
  const prepared = prepareWater(goal.prepare, product, tapWater);
  const asProduct = (): LimitCheck[] => checkLimits(limits, product, state, tap);
  const asUsed = (): LimitCheck[] => {
    if (!prepared.ok) return asProduct();
    const used = settleWater(prepared.value.water);
    // Minerals put in by weight are known; a blend is the tap's.
    return used.ok
      ? checkLimits(limits, prepared.value.water, used.value, prepared.value.recipe.how === 'blend' ? tap : null)
      : asProduct();
  };
  const checks = judgesProduct(goal) ? asProduct() : asUsed();
  return { verdict: verdictOn(checks), checks, prepared };
}

/** A goal without limits of somebody's own, as a use taken off a train has it. */
export const plainGoal = ({ id, school = null }: Pick<Goal, 'id'> & Partial<Pick<Goal, 'school'>>): GoalAsked => ({
  id,
  school,
  crewLimitPpm: null,
  ownLimits: [],
  prepare: { how: 'none' },
});

/** What stands against a goal: what is missed, then what may be, each the worst first as the goal lists them. */
export const against = (checks: readonly LimitCheck[]): LimitCheck[] => [
  ...checks.filter(({ verdict }) => verdict === 'missed'),
  ...checks.filter(({ verdict, side }) => verdict === 'unknown' && side !== null),
];

/** Limits that are met by figures nobody measured, and may not be. */
export const metByAssumption = (checks: readonly LimitCheck[]): LimitCheck[] =>
  checks.filter(({ verdict, side }) => verdict === 'unknown' && side === null);
