<script setup lang="ts">
import type { Drawn } from './drawn';

/** A tank, open above, and the water in it. */
defineProps<Drawn>();
</script>

<template>
  <rect class="back" v-bind="vessel.box" />
  <rect
    :x="vessel.box.x + 2"
    :y="vessel.box.y + vessel.box.height * (1 - vessel.fill)"
    :width="vessel.box.width - 4"
    :height="Math.max(0, vessel.box.height * vessel.fill - 2)"
    :fill="vessel.from"
  />
  <path
    class="walls"
    :d="`M${vessel.box.x} ${vessel.box.y} V${vessel.box.y + vessel.box.height} H${vessel.box.x + vessel.box.width} V${vessel.box.y}`"
  />
</template>

<!-- prettier-ignore -->
<style scoped>
.back { fill: var(--sheet); }
.walls { fill: none; stroke: var(--vessel-line, #1b2b2d); stroke-width: 2.4; }
:root[data-theme='dark'] .walls { stroke: #9fb0ad; }
</style>
