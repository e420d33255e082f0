<script setup lang="ts">
import { computed } from 'vue';

/** A round gauge with its needle, its figure, and a mark where the target stands. */
const props = defineProps<{ label: string; value: number; most: number; text: string; target: number | null }>();
/** A needle sweeps 240 degrees, from lower left to lower right. */
const angle = (value: number): number => -120 + 240 * Math.max(0, Math.min(1, value / props.most));
const at = (degrees: number, radius: number): readonly [number, number] => {
  const a = ((degrees - 90) * Math.PI) / 180;
  return [50 + radius * Math.cos(a), 48 + radius * Math.sin(a)];
};
const needle = computed(() => at(angle(props.value), 30));
const mark = computed(() => (props.target === null ? null : [at(angle(props.target), 33), at(angle(props.target), 43)]));
const arc = computed(() => {
  const [ax, ay] = at(-120, 38);
  const [bx, by] = at(120, 38);
  return `M${ax} ${ay} A38 38 0 1 1 ${bx} ${by}`;
});
const ticks = computed(() => [0, 0.25, 0.5, 0.75, 1].map((share) => [at(-120 + 240 * share, 34), at(-120 + 240 * share, 38)]));
</script>

<template>
  <figure class="gauge" :aria-label="`${label} ${text}`">
    <svg viewBox="0 0 100 76" aria-hidden="true">
      <path :d="arc" class="face" />
      <line v-for="(tick, i) in ticks" :key="i" :x1="tick[0]![0]" :y1="tick[0]![1]" :x2="tick[1]![0]" :y2="tick[1]![1]" class="tick" />
      <line v-if="mark" :x1="mark[0]![0]" :y1="mark[0]![1]" :x2="mark[1]![0]" :y2="mark[1]![1]" class="target" />
      <line x1="50" y1="48" :x2="needle[0]" :y2="needle[1]" class="needle" />
      <circle cx="50" cy="48" r="3.4" class="hub" />
    </svg>
    <figcaption>
      <strong>{{ text }}</strong><span>{{ label }}</span>
    </figcaption>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.gauge { margin: 0; display: grid; justify-items: center; }
svg { width: 100%; max-width: 132px; }
.face { fill: none; stroke: var(--ink); stroke-width: 1.8; }
.tick { stroke: var(--muted); stroke-width: 1.4; }
.target { stroke: var(--good); stroke-width: 4; stroke-linecap: round; }
.needle { stroke: var(--action); stroke-width: 3; stroke-linecap: round; }
.hub { fill: var(--ink); }
figcaption { display: grid; justify-items: center; font-size: 13.3px; color: var(--muted); margin-top: -8px; }
strong { font-size: 15.5px; color: var(--ink); }
</style>
