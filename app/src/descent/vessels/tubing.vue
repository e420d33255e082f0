<script setup lang="ts">
import { computed } from 'vue';
import type { Drawn } from './drawn';

/** Long tubing: three loops of a coil along the line. */
const props = defineProps<Drawn>();
const coil = computed(() => {
  const { x, y, width, height } = props.vessel.box;
  const r = props.small ? 3 : 9;
  const start = x + width / 2 - 1.5 * r;
  return [0, 1, 2]
    .map((k) => `M${start + k * r - r} ${y + height / 2} a${r} ${r * 1.5} 0 1 1 ${2 * r} 0 a${r} ${r * 1.5} 0 1 1 ${-2 * r} 0`)
    .join(' ');
});
</script>

<template>
  <path class="coil" :d="coil" />
</template>

<!-- prettier-ignore -->
<style scoped>
.coil { fill: none; stroke: var(--muted); stroke-width: 2.4; }
</style>
