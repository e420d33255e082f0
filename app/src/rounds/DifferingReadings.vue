<script setup lang="ts">
import { lineOf } from '@yes-clear/core/log';
import type { Reading, ReadingSide, SystemRecord } from '@yes-clear/core/file';
import { dayOfYearAndTime } from '../time/dates';
import Segments from '../kit/Segments.vue';
import type { Clash } from '../store/transfer';

/** Readings that say one thing here and another in a file: the one changed last stands unless somebody says otherwise. */
defineProps<{ clash: Clash; sideOf: (pair: readonly [Reading, Reading]) => ReadingSide }>();
const emit = defineEmits<{ choose: [readingId: string, side: ReadingSide] }>();
const SIDES = [
  { value: 'here', title: 'Here' },
  { value: 'there', title: 'File' },
  { value: 'both', title: 'Both' },
] as const;

const said = ({ system }: SystemRecord, reading: Reading): string =>
  [
    lineOf(reading, system) || 'no figures',
    ...(reading.counts ? [] : ['struck out']),
    ...(reading.photos.length > 0 ? [`${reading.photos.length} pictured`] : []),
  ].join(', ');
const changed = ({ editedAt }: Reading): string => (editedAt === null ? '' : `changed ${dayOfYearAndTime(editedAt)}`);
</script>

<template>
  <ul class="pairs" aria-label="Readings that differ">
    <li v-for="pair in clash.compared.readingsDiffer" :key="pair[0].id">
      <p class="when">{{ dayOfYearAndTime(pair[0].at) }}</p>
      <dl>
        <dt>Here</dt>
        <dd :class="{ off: sideOf(pair) === 'there' }">
          {{ said(clash.here, pair[0]) }} <small>{{ changed(pair[0]) }}</small>
        </dd>
        <dt>File</dt>
        <dd :class="{ off: sideOf(pair) === 'here' }">
          <template v-if="pair[1].at !== pair[0].at">{{ dayOfYearAndTime(pair[1].at) }}: </template>{{ said(clash.there, pair[1]) }}
          <small>{{ changed(pair[1]) }}</small>
        </dd>
      </dl>
      <Segments
        :label="`Reading of ${dayOfYearAndTime(pair[0].at)}`"
        :choices="SIDES"
        :model-value="sideOf(pair)"
        @update:model-value="emit('choose', pair[0].id, $event)"
      />
    </li>
  </ul>
</template>

<!-- prettier-ignore -->
<style scoped>
.pairs { list-style: none; margin: 0; padding: 0; display: grid; max-height: 300px; overflow: auto; }
.pairs li { display: grid; grid-template-columns: 118px 1fr auto; gap: 4px 12px; align-items: center; padding: 8px 0; border-top: 1px solid var(--line); }
.when { font-size: 13.3px; color: var(--muted); }
dl { display: grid; grid-template-columns: 42px 1fr; gap: 2px 8px; margin: 0; font-size: 13.8px; }
dt { color: var(--muted); }
dd { margin: 0; overflow-wrap: anywhere; font-variant-numeric: tabular-nums; }
dd small { color: var(--muted); }
.off { text-decoration: line-through; color: var(--muted); }
@media (max-width: 600px) {
  .pairs li { grid-template-columns: 1fr; }
  .pairs :deep(.segments) { justify-self: start; }
  .pairs :deep(.segments button) { min-width: 72px; min-height: 44px; }
}
</style>
