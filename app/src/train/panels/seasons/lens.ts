import { hasKind, type Lens } from '../../lens';
import SeasonStrip from './SeasonStrip.vue';

export const seasonsLens: Lens = { id: 'seasons', title: 'Seasons', kind: null, shown: hasKind('membrane'), panel: SeasonStrip };
