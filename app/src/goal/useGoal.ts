import { type Demand, type Goal, type GoalId, type OwnLimit, type Preparation, GOAL_ROWS, type GoalFamily } from '@yes-clear/core/goal';
import { withDraws } from '@yes-clear/core/file';
import { computed } from 'vue';
import { useOpenSystem } from '../system/openSystem';

/** Goals as they stand in the chooser, by what the water is for. */
export const FAMILIES: readonly { readonly family: GoalFamily; readonly title: string }[] = [
  { family: 'aquarium', title: 'Aquarium' },
  { family: 'cleaning', title: 'Cleaning' },
  { family: 'laboratory', title: 'Laboratory' },
  { family: 'beverage', title: 'Coffee, ice, steam' },
  { family: 'drinking', title: 'Drinking' },
  { family: 'own', title: 'Something else' },
];

/** What is done to the product by default for a goal. */
function usualPreparation(id: GoalId): Preparation {
  return id === 'reefTank' ? { how: 'salt', salinity: 35 } : { how: 'none' };
}

/** The goal of the open system and the ways to change it. */
export function useGoal() {
  const current = useOpenSystem();
  const goal = computed(() => current.system.value?.goal ?? null);
  const set = (label: string, changes: Partial<Goal>): void => current.edit(label, (s) => ({ ...s, goal: { ...s.goal, ...changes } }));
  const setDemand = (label: string, changes: Partial<Demand>): void =>
    current.edit(label, (s) => ({ ...s, goal: { ...s.goal, demand: { ...s.goal.demand, ...changes } } }));
  /** What may run at once; the train is drawn at all of it together. */
  const setDraws = (draws: Demand['draws']): void => current.edit('drawn at once', (s) => withDraws(s, draws));
  function choose(id: GoalId): void {
    if (id === goal.value?.id) return;
    set('goal', {
      id,
      school: GOAL_ROWS[id].schools[0].id,
      crewLimitPpm: GOAL_ROWS[id].ppmSchools.length > 0 ? 0 : null,
      ownLimits: [],
      prepare: usualPreparation(id),
    });
  }
  /** Sets a limit for this job; null takes this job's own away again. */
  function setLimit(quantity: OwnLimit['quantity'], limit: Omit<OwnLimit, 'quantity'> | null): void {
    current.edit('own limit', (s) => ({
      ...s,
      goal: {
        ...s.goal,
        ownLimits: [...s.goal.ownLimits.filter((own) => own.quantity !== quantity), ...(limit ? [{ quantity, ...limit }] : [])],
      },
    }));
  }
  return { current, goal, set, setDemand, setDraws, choose, setLimit };
}
