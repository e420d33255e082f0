import { allStages } from '@yes-clear/core/file';
import type { Lens } from '../../lens';
import CartridgePanel from './CartridgePanel.vue';

/** The dial of a cartridge, in the train or in a use of it. */
export const cartridgeLens: Lens = {
  id: 'cartridge',
  title: 'Cartridge',
  kind: 'decarboniser',
  shown: ({ train }) => allStages(train).some(({ kind }) => kind === 'decarboniser'),
  panel: CartridgePanel,
};
