import { GOAL_ROWS } from '@yes-clear/core/goal';
import type { Lens } from '../../lens';
import BranchesPanel from './BranchesPanel.vue';

/** Uses are taken off a counter; where there is one already it is shown on any train. */
export const usesLens: Lens = {
  id: 'uses',
  title: 'Uses',
  kind: null,
  shown: ({ goal, train }) => GOAL_ROWS[goal.id].family === 'beverage' || train.branches.length > 0,
  panel: BranchesPanel,
};
