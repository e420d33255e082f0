<script setup lang="ts">
import { valveTurns } from '@yes-clear/core/commission';
import type { Step } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { useRunbook } from './useRunbook';

/** Three hands on three valves, each moving the other two: which to turn now, worked out from where all four figures stand. */
const props = defineProps<{ step: Step }>();
const book = useRunbook();
const read = (id: string): number | null => {
  const measure = props.step.measures.find((one) => one.id === id);
  return measure ? (book.last(props.step, measure)?.value ?? null) : null;
};
const turns = computed(() => {
  const solved = book.expected.value?.solved;
  if (!solved?.unit) return null;
  const at = solved.stations.findIndex(({ kind }) => kind === 'pump');
  return valveTurns(
    solved.unit,
    {
      feedPressureBar: read('feedPressureBar'),
      productLPerH: read('productLPerH'),
      wasteLPerH: read('wasteLPerH'),
      recycleLPerH: read('recycleLPerH'),
    },
    at > 0 ? solved.stations[at - 1]!.pressureBar : 0,
  );
});
const stands = computed(() => turns.value?.every(({ turn }) => turn === 'leave') ?? false);
/** The first that is off is turned; the others may come right by it. */
const now = computed(() => turns.value?.find(({ turn }) => turn !== 'leave') ?? null);
</script>

<template>
  <section class="sheet panel valves" aria-live="polite">
    <p v-if="turns === null" class="muted">Read all four, then this says which valve to turn, and how far.</p>
    <template v-else>
      <h3>{{ stands ? 'All three valves stand' : now!.says }}</h3>
      <ul>
        <li v-for="one in turns" :key="one.valve" :class="[one.turn, { now: one === now }]">
          <svg viewBox="0 0 40 40" width="40" height="40" aria-hidden="true">
            <circle cx="20" cy="20" r="17" />
            <line
              x1="20"
              y1="20"
              x2="20"
              y2="6"
              :transform="`rotate(${one.turn === 'leave' ? 0 : (one.turn === 'open' ? -1 : 1) * Math.min(150, 20 + 140 * one.by)} 20 20)`"
            />
          </svg>
          <span>{{ one.says }}</span>
        </li>
      </ul>
      <p v-if="!stands" class="small muted">One valve at a time, a minute to settle, then read all four again: each moves the other two.</p>
    </template>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.valves { padding: 12px 16px; }
ul { list-style: none; display: grid; grid-template-columns: repeat(auto-fit, minmax(200px, 1fr)); gap: 10px 16px; margin: 10px 0; padding: 0; }
li { display: flex; gap: 10px; align-items: center; font-size: 14px; color: var(--muted); }
li.now { color: var(--ink); font-weight: 650; }
svg { flex: none; }
circle { fill: var(--sheet); stroke: var(--line); stroke-width: 2; }
line { stroke: var(--muted); stroke-width: 3; stroke-linecap: round; }
.now circle { stroke: var(--warning); }
.leave circle { stroke: var(--good); }
.now line { stroke: var(--warning); }
</style>
