<script setup lang="ts">
import type { PathStep } from '@yes-clear/core/fault';
import { useElementSize } from '@vueuse/core';
import { scaleLinear } from 'd3-scale';
import { computed, useTemplateRef } from 'vue';

/** How much is still open, in bits over minutes: the person's own steps, and those of the shortest way once it is told. */
const props = defineProps<{
  startBits: number;
  steps: readonly PathStep[];
  minutes: number;
  shortest?: readonly PathStep[] | null;
}>();
const { width } = useElementSize(useTemplateRef<HTMLElement>('figure'));
const WIDTH = computed(() => Math.max(240, Math.round(width.value) || 298));
const HEIGHT = 148;
const LEFT = 40;
const RIGHT = 34;
const TOP = 18;
const BASE = 112;
const last = computed(() => Math.max(10, props.minutes, props.shortest?.at(-1)?.at ?? 0));
const x = computed(() =>
  scaleLinear()
    .domain([0, last.value])
    .nice(4)
    .range([LEFT, WIDTH.value - RIGHT]),
);
const y = computed(() =>
  scaleLinear()
    .domain([0, Math.max(2, Math.ceil(props.startBits))])
    .range([BASE, TOP]),
);
/** A line that stays where it is until something is known. */
function path(steps: readonly PathStep[], until: number): string {
  let at = `M${x.value(0)},${y.value(props.startBits)}`;
  for (const step of steps) at += ` H${x.value(step.at).toFixed(1)} V${y.value(step.entropyBits).toFixed(1)}`;
  return `${at} H${x.value(Math.max(until, steps.at(-1)?.at ?? 0)).toFixed(1)}`;
}
const end = (steps: readonly PathStep[], until: number): { x: number; y: number } => ({
  x: x.value(Math.max(until, steps.at(-1)?.at ?? 0)),
  y: y.value(steps.at(-1)?.entropyBits ?? props.startBits),
});
const own = computed(() => end(props.steps, props.minutes));
const best = computed(() => (props.shortest ? end(props.shortest, 0) : null));
const bits = (value: number): string => `${Math.round(10 * value) / 10}`;
const says = computed(
  () =>
    `Open at first ${bits(props.startBits)} bits, now ${bits(props.steps.at(-1)?.entropyBits ?? props.startBits)} after ${Math.round(props.minutes)} minutes` +
    (props.shortest
      ? `; the shortest way ends at ${bits(props.shortest.at(-1)?.entropyBits ?? props.startBits)} after ${Math.round(props.shortest.at(-1)?.at ?? 0)} minutes`
      : ''),
);
</script>

<template>
  <figure ref="figure" class="sheet">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="says">
      <g v-for="tick in y.ticks(3)" :key="`y${tick}`" class="grid">
        <line :x1="LEFT" :x2="WIDTH - 10" :y1="y(tick)" :y2="y(tick)" />
        <text :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end">{{ tick }}{{ tick === y.ticks(3).at(-1) ? ' bit' : '' }}</text>
      </g>
      <text v-for="tick in x.ticks(4)" :key="`x${tick}`" class="foot" :x="x(tick)" :y="BASE + 20" text-anchor="middle">
        {{ tick }}{{ tick === 0 ? ' min' : '' }}
      </text>
      <path v-if="shortest" class="shortest" :d="path(shortest, 0)" />
      <path class="own" :d="path(steps, minutes)" />
      <circle class="own-end" :cx="own.x" :cy="own.y" r="4" />
      <text class="word" :x="own.x" :y="own.y - 9" text-anchor="end">you</text>
      <template v-if="best">
        <circle class="best-end" :cx="best.x" :cy="best.y" r="3.4" />
        <text class="word quiet" :x="best.x + 8" :y="best.y + (best.y > BASE - 12 ? -5 : 4)">shortest</text>
      </template>
    </svg>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
figure { margin: 0; padding: 4px 0 0; }
svg { display: block; width: 100%; }
text { font-family: var(--digits); font-size: 12.5px; fill: var(--muted); }
.grid line { stroke: var(--hair); }
.own { fill: none; stroke: var(--action); stroke-width: 2.4; }
.own-end { fill: var(--action); }
.shortest { fill: none; stroke: var(--warning); stroke-width: 2; stroke-dasharray: 5 4; }
.best-end { fill: var(--warning); }
.word { font-weight: 650; fill: var(--action); }
.quiet { fill: var(--warning); }
</style>
