<script setup lang="ts">
import { computed } from 'vue';
import type { FaultsFound } from '../worker/faultSearch';
import { faultName, oddsText } from '../kit/faultText';

/** Causes by their odds: the first few by name, the others together. */
const props = defineProps<{ found: FaultsFound }>();
const NAMED = 5;
const rows = computed(() => props.found.ranking.slice(0, NAMED));
const left = computed(() => Math.max(0, 1 - rows.value.reduce((sum, { probability }) => sum + probability, 0)));
</script>

<template>
  <ol class="ranking" aria-label="Causes by their odds">
    <li v-for="(row, i) in rows" :key="row.id">
      <span class="name">{{ faultName(row.id) }}</span>
      <span class="track"><i :class="{ first: i === 0 }" :style="{ width: `${100 * row.probability}%` }"></i></span>
      <strong>{{ oddsText(row.probability) }}</strong>
    </li>
    <li v-if="left > 0.005" class="rest">
      <span class="name">All others together</span>
      <span class="track"><i :style="{ width: `${100 * left}%` }"></i></span>
      <strong>{{ oddsText(left) }}</strong>
    </li>
  </ol>
</template>

<!-- prettier-ignore -->
<style scoped>
.ranking { list-style: none; margin: 0; padding: 0; display: grid; gap: 8px; }
li { display: grid; grid-template-columns: minmax(150px, 1fr) minmax(120px, 1.1fr) 82px; gap: 14px; align-items: center; }
.name { font-weight: 620; line-height: 1.25; text-wrap: balance; }
.track { height: 20px; border-radius: 6px; background: var(--hair); overflow: hidden; }
.track i { display: block; height: 100%; border-radius: 6px; background: color-mix(in srgb, var(--action) 55%, var(--hair)); }
.track .first { background: var(--action); }
strong { text-align: right; font-variant-numeric: tabular-nums; }
.rest { color: var(--muted); }
.rest .name, .rest strong { font-weight: 450; }
@media (max-width: 860px) {
  li { grid-template-columns: 1fr 82px; row-gap: 3px; }
  .name { grid-area: 1 / 1; } strong { grid-area: 1 / 2; }
  .track { grid-area: 2 / 1 / 3 / 3; height: 12px; }
}
</style>
