import type { Lens } from '../../lens';
import PressurePanel from './PressurePanel.vue';

export const pressureLens: Lens = { id: 'pressure', title: 'Pressure', kind: null, shown: () => true, panel: PressurePanel };
