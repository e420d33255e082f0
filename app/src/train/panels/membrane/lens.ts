import { hasKind, type Lens } from '../../lens';
import MembranePanel from './MembranePanel.vue';

export const membraneLens: Lens = {
  id: 'membrane',
  title: 'Membrane',
  kind: 'membrane',
  shown: hasKind('membrane'),
  panel: MembranePanel,
};
