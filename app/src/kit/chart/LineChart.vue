<script setup lang="ts">
import { longDay, monthMark } from '../../time/dates';
import { useMediaQuery } from '@vueuse/core';
import {
  Chart,
  Decimation,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { computed } from 'vue';
import { Line } from 'vue-chartjs';
import { annotationsOf, endLabels, houseColours, logTicks, monthStep, monthTicks, type ChartSeries } from './house';

/** One house style for every chart: hairline grid, labels at the ends of the lines, bands for limits. */
const props = defineProps<{
  series: readonly ChartSeries[];
  scale: 'log' | 'linear';
  low: number;
  high: number;
  /** Shaded range, such as a goal. */
  band?: { readonly from: number; readonly to: number } | null;
  /** A moment marked by an upright line, with the word that stands at it. */
  today?: number | null;
  todayText?: string;
  from: number;
  until: number;
  format: (value: number) => string;
  label: string;
  /** Marks along the foot in place of the months, as text and place. */
  marks?: readonly { readonly value: number; readonly text: string }[];
}>();
Chart.register(
  LineController,
  LineElement,
  PointElement,
  LinearScale,
  LogarithmicScale,
  Filler,
  Tooltip,
  Decimation,
  annotation,
  endLabels,
);
const narrow = useMediaQuery('(max-width: 600px)');
const colours = computed(() => houseColours());

/** What stands at a mark along the foot. */
const footText = (value: number): string =>
  props.marks ? (props.marks.find((mark) => mark.value === value)?.text ?? '') : monthMark(value, monthStep(props.from, props.until));
/** A moment in words: a date, or the nearest mark to the left and the hours since. */
function momentText(value: number): string {
  if (!props.marks) return longDay(value);
  const mark = props.marks.findLast((candidate) => candidate.value <= value);
  return mark ? `${mark.text} ${String(Math.floor(value - mark.value)).padStart(2, '0')}:00` : '';
}

const data = computed<ChartData<'line', { x: number; y: number }[]>>(() => ({
  datasets: props.series.map((line) => ({
    label: line.label,
    data: [...line.points],
    borderColor: line.colour,
    backgroundColor: line.fillTo === undefined ? line.colour : `${line.colour}33`,
    borderWidth: line.width ?? 2.2,
    borderDash: line.dashed ? [4, 4] : [],
    pointRadius: line.dots ? 2.6 : 0,
    pointHoverRadius: 4,
    pointBackgroundColor: line.colour,
    fill: line.fillTo ?? false,
  })),
}));

const options = computed(() => {
  const { muted, hair, font, ink } = colours.value;
  const ticks = { color: muted, font };
  return {
    responsive: true,
    maintainAspectRatio: false,
    animation: false,
    parsing: false,
    layout: { padding: { right: narrow.value ? 8 : 122, top: 10 } },
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: props.from,
        max: props.until,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
          axis.ticks = props.marks ? props.marks.map(({ value }) => ({ value })) : monthTicks(props.from, props.until);
        },
        ticks: { ...ticks, maxRotation: 0, callback: (value: number | string) => footText(Number(value)) },
      },
      y: {
        type: props.scale === 'log' ? 'logarithmic' : 'linear',
        min: props.low,
        max: props.high,
        grid: { color: hair, lineWidth: 1 },
        border: { display: false },
        afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
          if (props.scale === 'log') axis.ticks = logTicks(props.low, props.high);
        },
        afterFit: (axis: { width: number }) => {
          axis.width = 58;
        },
        ticks: { ...ticks, maxTicksLimit: 5, callback: (value: number | string) => props.format(Number(value)) },
      },
    },
    plugins: {
      legend: { display: false },
      // More points than dots on the screen are thinned to the highest and lowest of each.
      decimation: { enabled: true, algorithm: 'min-max' },
      tooltip: {
        displayColors: false,
        backgroundColor: ink,
        titleFont: font,
        bodyFont: font,
        callbacks: {
          title: (items: { parsed: { x: number } }[]) => (items[0] ? momentText(items[0].parsed.x) : ''),
          label: (item: { dataset: { label?: string }; parsed: { y: number } }) =>
            `${item.dataset.label}: ${props.format(Number(item.parsed.y.toPrecision(3)))}`,
        },
      },
      endLabels: {
        labels: props.series.map((line) => (line.quiet ? '' : (line.endText ?? line.label))),
        colours: props.series.map((line) => line.colour),
        inside: narrow.value,
      },
      annotation: {
        annotations: annotationsOf(colours.value, props.low, props.high, props.band ?? null, props.today ?? null, props.todayText),
      },
    },
  } as unknown as ChartOptions<'line'>;
});
</script>

<template>
  <div class="chart"><Line :data="data" :options="options" :aria-label="label" /></div>
</template>

<!-- prettier-ignore -->
<style scoped>
.chart { height: 158px; position: relative; }
</style>
