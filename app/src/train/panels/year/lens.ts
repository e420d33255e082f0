import { defineAsyncComponent } from 'vue';
import type { Lens } from '../../lens';

/** The coming year of the train as it is planned. */
export const yearLens: Lens = {
  id: 'year',
  title: 'Year ahead',
  kind: null,
  shown: ({ train }) => train.stages.length > 0,
  panel: defineAsyncComponent(() => import('./YearPanel.vue')),
};
