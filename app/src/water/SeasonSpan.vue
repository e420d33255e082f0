<script setup lang="ts">
import type { SeasonSpan } from '@yes-clear/core/train';
import { formatQuantity, type UnitPreference } from '@yes-clear/core/quantity';
import { scaleLinear, scaleLog } from 'd3-scale';
import { computed } from 'vue';
import { waterColour } from '../descent/waterColour';

/** The year's span as two bars, with each dated sample where it falls. */
const props = defineProps<{
  span: SeasonSpan;
  samples: readonly {
    readonly id: string;
    readonly day: string;
    readonly ec25UScm: number;
    readonly temperatureC: number;
    readonly current: boolean;
  }[];
  units: UnitPreference;
}>();
const WIDTH = 720;
const LEFT = 118;
const RIGHT = 90;

const strengths = computed(() =>
  [props.span.weakestUScm, props.span.strongestUScm, ...props.samples.map((s) => s.ec25UScm)].filter(
    (ec): ec is number => ec !== null && ec > 0,
  ),
);
const rows = computed(() => {
  const { span, units, samples } = props;
  const warm = scaleLinear([Math.min(0, span.lowestTemperatureC), Math.max(30, span.highestTemperatureC)], [LEFT, WIDTH - RIGHT]);
  const list = [
    {
      key: 't',
      label: 'Temperature',
      from: warm(Math.min(span.lowestTemperatureC, span.highestTemperatureC)),
      to: warm(Math.max(span.lowestTemperatureC, span.highestTemperatureC)),
      low: formatQuantity(span.lowestTemperatureC, 'temperatureC', units).text,
      high: formatQuantity(span.highestTemperatureC, 'temperatureC', units).text,
      colour: ['var(--line)', 'var(--line)'],
      dots: samples.map((s) => ({ ...s, x: warm(s.temperatureC), colour: 'var(--ink)' })),
    },
  ];
  const ends = strengths.value;
  if (ends.length > 0) {
    const strong = scaleLog([Math.min(...ends) / 1.6, Math.max(...ends) * 1.6], [LEFT, WIDTH - RIGHT]);
    const weakest = span.weakestUScm ?? ends[0]!;
    const strongest = span.strongestUScm ?? ends[0]!;
    list.push({
      key: 'ec',
      label: 'Strength',
      from: strong(Math.min(weakest, strongest)),
      to: strong(Math.max(weakest, strongest)),
      low: formatQuantity(weakest, 'conductivityUScm', units).text,
      high: formatQuantity(strongest, 'conductivityUScm', units).text,
      colour: [waterColour(weakest), waterColour(strongest)],
      dots: samples.map((s) => ({ ...s, x: strong(s.ec25UScm), colour: waterColour(s.ec25UScm) })),
    });
  }
  return list;
});
</script>

<template>
  <svg
    class="span"
    :viewBox="`0 0 ${WIDTH} ${rows.length * 46 + 4}`"
    role="img"
    aria-label="Temperature and strength over the year, with the samples taken"
  >
    <defs>
      <linearGradient v-for="row in rows" :id="`year-${row.key}`" :key="row.key">
        <stop offset="0" :stop-color="row.colour[0]" />
        <stop offset="1" :stop-color="row.colour[1]" />
      </linearGradient>
    </defs>
    <g v-for="(row, i) in rows" :key="row.key" :transform="`translate(0 ${i * 46 + 24})`">
      <text x="0" y="5" class="label">{{ row.label }}</text>
      <line :x1="LEFT" :x2="WIDTH - RIGHT" y1="0" y2="0" class="axis" />
      <rect :x="row.from" y="-7" :width="Math.max(3, row.to - row.from)" height="14" rx="7" :fill="`url(#year-${row.key})`" class="bar" />
      <text :x="row.from - 8" y="5" text-anchor="end" class="end">{{ row.low }}</text>
      <text :x="Math.max(row.to, row.from + 3) + 8" y="5" class="end">{{ row.high }}</text>
      <circle
        v-for="dot in row.dots"
        :key="dot.id"
        :cx="dot.x"
        cy="0"
        :r="dot.current ? 6 : 4.5"
        :fill="dot.current ? dot.colour : 'var(--sheet)'"
        class="dot"
      >
        <title>{{ dot.day }}</title>
      </circle>
    </g>
  </svg>
</template>

<!-- prettier-ignore -->
<style scoped>
.span { width: 100%; max-width: 760px; }
.label { font-size: 13.6px; font-weight: 620; fill: var(--ink); }
.end { font-size: 13.3px; fill: var(--ink); paint-order: stroke; stroke: var(--sheet); stroke-width: 5px; }
.axis { stroke: var(--hair); }
.bar { stroke: var(--ink); stroke-width: 1; }
.dot { stroke: var(--ink); stroke-width: 1.6; }
</style>
