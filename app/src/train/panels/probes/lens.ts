import type { Lens } from '../../lens';
import ProbesPanel from './ProbesPanel.vue';

/** Where strength, pressure and flow are read. */
export const probesLens: Lens = { id: 'probes', title: 'Probes', kind: null, shown: () => true, panel: ProbesPanel };
