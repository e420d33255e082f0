import type { Lens } from '../../lens';
import LedgerPanel from './LedgerPanel.vue';

export const ledgerLens: Lens = { id: 'ledger', title: 'Ledger', kind: null, shown: () => true, panel: LedgerPanel };
