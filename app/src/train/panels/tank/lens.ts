import { hasKind, type Lens } from '../../lens';
import TankPanel from './TankPanel.vue';

export const tankLens: Lens = { id: 'tank', title: 'Tank', kind: 'tank', shown: hasKind('tank'), panel: TankPanel };
