<script setup lang="ts">
import { formatIn } from '@yes-clear/core/quantity';
import { computed } from 'vue';

/** A measuring jug filled to what was typed; both jugs of a pair share one scale. */
const props = defineProps<{ label: string; volumeL: number | null; fullL: number; colour: string; /** Read in cups. */ cups: boolean }>();
const level = computed(() => (props.volumeL === null || props.fullL <= 0 ? 0 : Math.min(1, props.volumeL / props.fullL)));
const text = computed(() =>
  props.volumeL === null ? '' : formatIn(props.volumeL, 'volumeL', props.cups ? 'cup' : props.volumeL >= 2 ? 'L' : 'mL').text,
);
const TOP = 12;
const BOTTOM = 214;
const y = computed(() => BOTTOM - level.value * (BOTTOM - TOP - 18));
</script>

<template>
  <figure class="jug">
    <svg viewBox="0 0 116 222" role="img" :aria-label="`${label}: ${text || 'empty'}`">
      <path :d="`M5 ${y} V${BOTTOM - 6} Q5 ${BOTTOM} 11 ${BOTTOM} H105 Q111 ${BOTTOM} 111 ${BOTTOM - 6} V${y} Z`" :fill="colour" />
      <path v-for="i in 9" :key="i" class="mark" :d="`M8 ${BOTTOM - i * 20} h${i % 2 === 0 ? 17 : 9}`" />
      <path class="glass" :d="`M4 4 V${BOTTOM - 6} Q4 ${BOTTOM + 2} 12 ${BOTTOM + 2} H104 Q112 ${BOTTOM + 2} 112 ${BOTTOM - 6} V4`" />
      <text x="58" :y="Math.max(20, y - 8)" text-anchor="middle">{{ text }}</text>
    </svg>
    <figcaption>{{ label }}</figcaption>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.jug { margin: 0; width: 100px; }
.glass { fill: none; stroke: var(--ink); stroke-width: 2.4; }
.mark { stroke: color-mix(in srgb, var(--ink) 38%, transparent); stroke-width: 1.6; fill: none; }
text { font: 700 15px var(--digits); fill: var(--ink); }
figcaption { text-align: center; font-size: 13.6px; font-weight: 600; color: var(--muted); padding-top: 3px; }
</style>
