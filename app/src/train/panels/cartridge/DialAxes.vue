<script setup lang="ts">
import { THIN } from '@yes-clear/core/quantity';

/** The frame of a chart along a dial: marks up the side, the shares of the dial at the foot. */
defineProps<{
  x: (bypass: number) => number;
  /** Height of the foot, and of the figures below it. */
  foot: number;
  bottom: number;
  ticks: readonly { readonly y: number; readonly text: string }[];
}>();
const SHARES = [0, 0.25, 0.5, 0.75, 1];
</script>

<template>
  <g v-for="tick in ticks" :key="tick.text">
    <line class="hair" :x1="x(0)" :x2="x(1)" :y1="tick.y" :y2="tick.y" />
    <text class="tick" :x="x(0) - 6" :y="tick.y + 4.5" text-anchor="end">{{ tick.text }}</text>
  </g>
  <line class="foot" :x1="x(0)" :x2="x(1)" :y1="foot" :y2="foot" />
  <text v-for="share in SHARES" :key="share" class="tick" :x="x(share)" :y="bottom" text-anchor="middle">
    {{ 100 * share }}{{ THIN }}%
  </text>
</template>

<!-- prettier-ignore -->
<style scoped>
.hair { stroke: var(--hair); }
.foot { stroke: var(--ink); stroke-width: 1.2; }
.tick { fill: var(--muted); }
</style>
