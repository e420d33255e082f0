<script setup lang="ts">
import { computed } from 'vue';

/** A tapered flow meter with its float, its figure, and a mark where the target stands. */
const props = defineProps<{ label: string; value: number; most: number; text: string; target: number | null }>();
const [TOP, FOOT] = [6, 88];
const y = (value: number): number => FOOT - (FOOT - TOP) * Math.max(0, Math.min(1, value / props.most));
const marks = Array.from({ length: 11 }, (_, k) => ({ y: FOOT - ((FOOT - TOP) * k) / 10, long: k % 5 === 0 }));
const float = computed(() => y(props.value));
</script>

<template>
  <figure class="flow" :aria-label="`${label} ${text}`">
    <svg viewBox="0 0 60 96" aria-hidden="true">
      <path class="tube" d="M20 2 L24 92 H36 L40 2 Z" />
      <line v-for="mark in marks" :key="mark.y" class="tick" :x1="mark.long ? 44 : 46" x2="51" :y1="mark.y" :y2="mark.y" />
      <line v-if="target !== null" class="target" x1="6" x2="17" :y1="y(target)" :y2="y(target)" />
      <path class="float" :d="`M22.5 ${float - 5} H37.5 L33 ${float + 4} H27 Z`" />
    </svg>
    <figcaption>
      <strong>{{ text }}</strong><span>{{ label }}</span>
    </figcaption>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.flow { margin: 0; display: grid; justify-items: center; gap: 3px; }
svg { width: 62px; }
.tube { fill: var(--sheet); stroke: var(--ink); stroke-width: 1.8; stroke-linejoin: round; }
.tick { stroke: var(--muted); stroke-width: 1.3; }
.target { stroke: var(--good); stroke-width: 4; stroke-linecap: round; }
.float { fill: var(--action); stroke: var(--ink); stroke-width: 1.2; stroke-linejoin: round; }
figcaption { display: grid; justify-items: center; font-size: 13.3px; color: var(--muted); }
strong { font-size: 15.5px; color: var(--ink); }
</style>
