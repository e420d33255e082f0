<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/** A stack of cells between two electrodes: every other cell holds resin, as far as it is free. */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const CELLS = 5;
const cells = computed(() => {
  const { x, y, width, height } = inside.value;
  const each = width / CELLS;
  return Array.from({ length: CELLS }, (_, i) => ({ x: x + i * each, y, width: each, height, resin: i % 2 === 0 }));
});
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f7f2e5" />
  <template v-if="!small">
    <template v-for="cell in cells" :key="cell.x">
      <rect v-if="cell.resin" class="free" :x="cell.x" :y="cell.y" :width="cell.width" :height="cell.height" />
      <rect v-if="cell.resin" class="salted" :x="cell.x" :y="cell.y" :width="cell.width" :height="cell.height * vessel.fill" />
      <line class="skin" :x1="cell.x" :x2="cell.x" :y1="cell.y" :y2="cell.y + cell.height" />
    </template>
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.free { fill: var(--resin-fresh); opacity: 0.75; }
.salted { fill: var(--resin-used); }
.skin { stroke: #1b2b2d; stroke-width: 1; }
</style>
