<script setup lang="ts">
import { computed } from 'vue';
import { clockText, spanText, useTimers } from './useTimers';

/** Every wait that runs, on whatever page: a line each, with the way back to its system. */
const { timers, now, stop } = useTimers();
const rows = computed(() =>
  timers.value.map((one) => ({ ...one, left: (one.endsAt - now.value) / 1000 })).sort((a, b) => a.endsAt - b.endsAt),
);
</script>

<template>
  <ul v-if="rows.length > 0" class="timers" aria-label="Timers">
    <li v-for="row in rows" :key="row.id" :class="{ over: row.left <= 0 }">
      <RouterLink :to="`/system/${row.systemId}/build`"
        ><b>{{ row.left > 0 ? clockText(row.left) : 'Time is up' }}</b> {{ row.title }}
        <span class="muted">{{ row.place }}{{ row.left <= -60 ? `, ${spanText(-row.left)} ago` : '' }}</span></RouterLink
      >
      <button class="button small" type="button" :aria-label="`Take away the timer of ${row.title}`" @click="stop(row.id)">
        {{ row.left > 0 ? 'Stop' : 'Seen' }}
      </button>
    </li>
  </ul>
</template>

<!-- prettier-ignore -->
<style scoped>
.timers { list-style: none; margin: 0; padding: 0; display: flex; flex-wrap: wrap; border-bottom: 1px solid var(--line); background: var(--side); }
li { display: flex; align-items: center; gap: 10px; padding: 5px 20px; min-width: 0; }
li + li { border-left: 1px solid var(--line); }
li.over { background: var(--select); }
a { color: var(--ink); text-decoration: none; font-size: 14px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
b { font-variant-numeric: tabular-nums; margin-right: 6px; color: var(--action); }
.over b { color: var(--warning); }
@media (max-width: 860px) { .timers { display: block; } li { justify-content: space-between; padding: 6px 12px; } li + li { border-left: 0; border-top: 1px solid var(--line); } .button.small { min-height: 40px; } }
</style>
