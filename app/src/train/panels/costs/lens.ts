import type { Lens } from '../../lens';
import CostsPanel from './CostsPanel.vue';

export const costsLens: Lens = { id: 'costs', title: 'Costs', kind: null, shown: () => true, panel: CostsPanel };
