import { hasKind, type Lens } from '../../lens';
import ColumnPanel from './ColumnPanel.vue';

export const resinLens: Lens = { id: 'resin', title: 'Resin', kind: 'resin', shown: hasKind('resin'), panel: ColumnPanel };
