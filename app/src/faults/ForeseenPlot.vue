<script setup lang="ts">
import { KIND_WORDS, type KindId } from '@yes-clear/core/fault';
import type { UnitPreference } from '@yes-clear/core/quantity';
import { scaleLinear } from 'd3-scale';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import type { Expected } from '../worker/faultSearch';
import { faultName, readingText } from '../kit/faultText';

/** What the check would read under each of the leading causes, as hills over one axis. */
const props = defineProps<{ kind: KindId; expected: readonly Expected[]; units: UnitPreference }>();
/** As wide as its card, so that its figures keep their size on a phone. */
const { width } = useElementSize(useTemplateRef<HTMLElement>('figure'));
const WIDTH = computed(() => Math.max(260, Math.round(width.value) || 560));
/** Room a figure of the axis takes. */
const TICK = 105;
const HEIGHT = 118;
const BASE = 84;
const TOP = 26;
const INKS = ['var(--action)', 'var(--warning)', 'var(--good)'] as const;
const SPREAD = 2.6;
/** Room for half a figure at either end. */
const SIDE = 34;
const STEPS = 60;
const hills = computed(() => {
  const all = props.expected.map((one) => ({ ...one, sd: Math.max(1e-9, (one.band.high - one.band.low) / 2) }));
  const low = Math.max(0, Math.min(...all.map(({ band, sd }) => band.middle - SPREAD * sd)));
  const high = Math.max(...all.map(({ band, sd }) => band.middle + SPREAD * sd));
  const x = scaleLinear()
    .domain([low, high])
    .range([SIDE, WIDTH.value - SIDE]);
  const tallest = Math.max(...all.map(({ sd }) => 1 / sd));
  return {
    ticks: x
      .ticks(Math.max(2, Math.floor(WIDTH.value / TICK)))
      .map((value) => ({ at: x(value), text: readingText(props.kind, value, props.units) })),
    rows: all.map((one, i) => {
      const points = Array.from({ length: STEPS + 1 }, (_, k) => {
        const value = low + ((high - low) * k) / STEPS;
        const height = (BASE - TOP) * Math.sqrt(1 / one.sd / tallest) * Math.exp(-0.5 * ((value - one.band.middle) / one.sd) ** 2);
        return `${x(value).toFixed(1)},${(BASE - height).toFixed(1)}`;
      });
      return {
        id: one.id,
        ink: INKS[i % INKS.length],
        at: x(one.band.middle),
        path: `M${x(low)},${BASE} L${points.join(' L')} L${x(high)},${BASE} Z`,
      };
    }),
  };
});
const says = computed(
  () =>
    `${KIND_WORDS[props.kind].label}: ${props.expected.map((one) => `${faultName(one.id)} ${readingText(props.kind, one.band.middle, props.units)}`).join('; ')}`,
);
</script>

<template>
  <figure ref="figure">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="says">
      <path v-for="row in hills.rows" :key="row.id" :d="row.path" :fill="row.ink" fill-opacity="0.3" :stroke="row.ink" stroke-width="1.4" />
      <line :x1="SIDE" :x2="WIDTH - SIDE" :y1="BASE" :y2="BASE" class="axis" />
      <g v-for="tick in hills.ticks" :key="tick.at">
        <line :x1="tick.at" :x2="tick.at" :y1="BASE" :y2="BASE + 4" class="axis" />
        <text :x="tick.at" :y="BASE + 19" text-anchor="middle">{{ tick.text }}</text>
      </g>
    </svg>
    <figcaption>
      <span v-for="row in hills.rows" :key="row.id"><i :style="{ background: row.ink }"></i>{{ faultName(row.id) }}</span>
    </figcaption>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
figure { margin: 0; }
svg { display: block; width: 100%; height: 118px; }
.axis { stroke: var(--line); }
text { font-size: 13px; fill: var(--muted); font-family: var(--digits); }
figcaption { display: flex; flex-wrap: wrap; gap: 4px 16px; font-size: 13.3px; color: var(--muted); }
figcaption i { display: inline-block; width: 10px; height: 10px; border-radius: 3px; margin-right: 6px; opacity: 0.75; }
</style>
