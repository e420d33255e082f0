<script setup lang="ts">
import { computed } from 'vue';
import type { Drawn } from './drawn';

/** A pump: its casing, and three curved blades around the hub. */
const props = defineProps<Drawn>();
const radius = computed(() => props.vessel.box.width / 2);
const centre = computed(() => ({ x: props.vessel.box.x + radius.value, y: props.vessel.box.y + props.vessel.box.height / 2 }));
const blades = computed(() => {
  const { x, y } = centre.value;
  const length = radius.value - 4;
  const at = (angle: number, reach: number): string => `${x + reach * Math.cos(angle)} ${y + reach * Math.sin(angle)}`;
  return [0, 1, 2]
    .map((k) => (k * 2 * Math.PI) / 3 - Math.PI / 2)
    .map((angle) => `M${x} ${y} Q${at(angle + 0.2, length * 0.65)} ${at(angle + 1.05, length)}`)
    .join(' ');
});
</script>

<template>
  <circle class="body" :cx="centre.x" :cy="centre.y" :r="radius" fill="#f7f2e5" />
  <path v-if="!small" class="blades" :d="blades" />
  <circle v-else class="hub" :cx="centre.x" :cy="centre.y" r="2" />
</template>

<!-- prettier-ignore -->
<style scoped>
.blades { fill: none; stroke: #1b2b2d; stroke-width: 2.6; stroke-linecap: round; }
.hub { fill: #1b2b2d; }
</style>
