<script setup lang="ts">
import { lineOf, WORK_WORDS } from '@yes-clear/core/log';
import type { Reading, Service } from '@yes-clear/core/file';
import { dayOfYear, dayOfYearAndTime } from '../time/dates';
import Segments from '../kit/Segments.vue';
import type { Clash } from '../store/transfer';
import type { VisitAnswer } from './useTwice';

/** What may have been written down by two keepers each: one visit, one piece of work. Nothing is answered for a person. */
defineProps<{
  clash: Clash;
  visits: readonly (readonly [Reading, Reading])[];
  works: readonly (readonly [Service, Service])[];
  visitOf: (pair: readonly [Reading, Reading]) => VisitAnswer | null;
  workOf: (pair: readonly [Service, Service]) => 'one' | 'two' | null;
}>();
const emit = defineEmits<{
  visit: [pair: readonly [Reading, Reading], answer: VisitAnswer];
  work: [pair: readonly [Service, Service], answer: 'one' | 'two'];
}>();
const VISITS = [
  { value: 'here', title: 'Count this browser’s' },
  { value: 'there', title: 'Count the file’s' },
  { value: 'two', title: 'Two readings' },
] as const;
const WORKS = [
  { value: 'one', title: 'Done once' },
  { value: 'two', title: 'Done twice' },
] as const;
</script>

<template>
  <div class="twice">
    <h3>Written down twice?</h3>
    <p class="small muted">Left open, both stand.</p>
    <ul>
      <li v-for="pair in visits" :key="pair[0].id">
        <p>
          Here {{ dayOfYearAndTime(pair[0].at) }}: <b>{{ lineOf(pair[0], clash.here.system) }}</b>
        </p>
        <p>
          File {{ dayOfYearAndTime(pair[1].at) }}: <b>{{ lineOf(pair[1], clash.there.system) }}</b>
        </p>
        <Segments
          :label="`Visit of ${dayOfYearAndTime(pair[0].at)}`"
          :choices="VISITS"
          :model-value="visitOf(pair)"
          @update:model-value="emit('visit', pair, $event)"
        />
      </li>
      <li v-for="pair in works" :key="pair[0].id">
        <p>
          {{ pair[0].name }}, {{ WORK_WORDS[pair[0].work] }}: here on <b>{{ dayOfYear(pair[0].at) }}</b>, in the file on
          <b>{{ dayOfYear(pair[1].at) }}</b>
        </p>
        <Segments
          :label="`Work on ${pair[0].name}`"
          :choices="WORKS"
          :model-value="workOf(pair)"
          @update:model-value="emit('work', pair, $event)"
        />
      </li>
    </ul>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.twice { border-top: 1px solid var(--line); padding-top: 8px; display: grid; gap: 4px; }
h3 { font-size: 14px; font-weight: 600; margin: 0; }
ul { list-style: none; margin: 0; padding: 0; display: grid; gap: 8px; max-height: 300px; overflow: auto; }
li { display: grid; gap: 3px; padding: 7px 0; border-top: 1px solid var(--line); font-size: 13.8px; }
li p { margin: 0; overflow-wrap: anywhere; font-variant-numeric: tabular-nums; }
li > :deep(.segments) { justify-self: start; margin-top: 4px; }
@media (max-width: 600px) {
  li > :deep(.segments button) { min-height: 44px; }
}
</style>
