<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/** A bundle of fine fibres, and bubbles that leave above them. */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const FIBRES = 6;
const fibres = computed(() => {
  const { x, y, width, height } = inside.value;
  return Array.from({ length: FIBRES }, (_, i) => `M${x + (width * (i + 0.5)) / FIBRES} ${y + height * 0.3} V${y + height}`).join(' ');
});
const bubbles = computed(() => {
  const { x, y, width, height } = inside.value;
  return [
    [0.3, 0.18],
    [0.62, 0.08],
    [0.72, 0.22],
  ].map(([across, down]) => ({ x: x + width * across!, y: y + height * down! }));
});
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#eef3f1" />
  <template v-if="!small">
    <path class="fibre" :d="fibres" />
    <circle v-for="({ x, y }, i) in bubbles" :key="i" class="bubble" :cx="x" :cy="y" r="2.2" />
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.fibre { stroke: #7d9aa0; stroke-width: 1; fill: none; }
.bubble { fill: #fff; stroke: #4d6b74; stroke-width: 1; }
</style>
