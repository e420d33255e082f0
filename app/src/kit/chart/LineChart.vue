<script setup lang="ts">
import { DAY_MS } from '@yes-clear/core/quantity';
import { dayAndTime, longDay } from '../../time/dates';
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
import { computed, useTemplateRef, watch } from 'vue';
import { Line } from 'vue-chartjs';
import {
  annotationsOf,
  endLabels,
  hoverLine,
  houseColours,
  logTicks,
  marksOf,
  timeTicks,
  namedApart,
  type ChartMark,
  type ChartSeries,
} from './house';
import { nearestIndex } from './round';
import { usePanZoom } from './usePanZoom';
import type { TimeWindow } from './useTimeWindow';

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
  /** Time shown together with other charts: panned, zoomed and pointed at in any of them. */
  window?: TimeWindow;
  /** Moments and levels worth a mark. */
  moments?: readonly ChartMark[];
  levels?: readonly number[];
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
  hoverLine,
);
const narrow = useMediaQuery('(max-width: 600px)');
const colours = computed(() => houseColours());
const holder = useTemplateRef<HTMLElement>('holder');
const line = useTemplateRef<InstanceType<typeof Line>>('line');
const shownFrom = computed(() => props.window?.from.value ?? props.from);
const shownUntil = computed(() => props.window?.until.value ?? props.until);
const drawn = (): Chart<'line'> | null => (line.value?.chart as Chart<'line'> | null | undefined) ?? null;
if (props.window) {
  const { show, reset } = props.window;
  usePanZoom(holder, {
    shown: () => ({ from: shownFrom.value, until: shownUntil.value }),
    plot: () => drawn()?.chartArea ?? null,
    show,
    reset,
  });
}
function pointed(event: PointerEvent): void {
  const chart = drawn();
  if (!props.window || !chart || !holder.value) return;
  const x = event.clientX - holder.value.getBoundingClientRect().left;
  const inside = x >= chart.chartArea.left && x <= chart.chartArea.right;
  props.window.point(inside ? (chart.scales['x']?.getValueForPixel(x) ?? null) : null);
}
/** Points nearest to a moment, one a line that has a name. */
function nearestTo(chart: Chart<'line'>, at: number): { datasetIndex: number; index: number }[] {
  return props.series.flatMap((one, datasetIndex) => {
    if (one.quiet || one.points.length === 0) return [];
    const index = nearestIndex(one.points, at);
    const element = chart.getDatasetMeta(datasetIndex).data[index];
    return element ? [{ datasetIndex, index }] : [];
  });
}
watch(
  () => props.window?.hover.value ?? null,
  (at) => {
    const chart = drawn();
    if (!chart) return;
    const active = at === null ? [] : nearestTo(chart, at);
    const first = active[0] && chart.getDatasetMeta(active[0].datasetIndex).data[active[0].index];
    chart.tooltip?.setActiveElements(active, first ? { x: first.x, y: first.y } : { x: 0, y: 0 });
    chart.draw();
  },
);

/** Points beyond which dots are drawn small. */
const MANY = 150;
/** Width a mark at the foot takes with its room, px. */
const MARK_PX = 74;
const footMarks = (width: number) => timeTicks(shownFrom.value, shownUntil.value, Math.max(2, Math.min(10, Math.floor(width / MARK_PX))));
/** A span in which hours are told apart, ms. */
const CLOSE_MS = 45 * DAY_MS;
/** A moment in words: a date, or the nearest mark to the left and the hours since. */
function momentText(value: number): string {
  if (!props.marks) return shownUntil.value - shownFrom.value < CLOSE_MS ? dayAndTime(value) : longDay(value);
  const mark = props.marks.findLast((candidate) => candidate.value <= value);
  return mark ? `${mark.text} ${String(Math.floor(value - mark.value)).padStart(2, '0')}:00` : '';
}

/** Moments within what is shown, named where there is room. */
const shownMoments = computed(() => {
  const inside = (props.moments ?? []).filter(({ at }) => at >= shownFrom.value && at <= shownUntil.value);
  return narrow.value ? inside.map(({ at }) => ({ at, text: '' })) : namedApart(inside, shownFrom.value, shownUntil.value);
});

const data = computed<ChartData<'line', { x: number; y: number }[]>>(() => ({
  datasets: props.series.map((line) => ({
    label: line.label,
    data: [...line.points],
    borderColor: line.colour,
    backgroundColor: line.fillTo === undefined ? line.colour : `${line.colour}33`,
    borderWidth: line.width ?? 2.2,
    borderDash: line.dashed ? [4, 4] : [],
    showLine: !line.scattered,
    pointRadius: line.dots ? (line.points.length > MANY ? 1.6 : 2.6) : 0,
    pointHoverRadius: 4,
    pointBackgroundColor: line.hollow ? 'transparent' : line.colour,
    pointBorderColor: line.colour,
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
    layout: { padding: { right: narrow.value ? 8 : props.window ? 20 : 122, top: 10 } },
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: shownFrom.value,
        max: shownUntil.value,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (axis: { ticks: { value: number }[]; chart: { width: number } }) => {
          axis.ticks = [...(props.marks ?? footMarks(axis.chart.width))];
        },
        ticks: {
          ...ticks,
          maxRotation: 0,
          // Marks bring their own words.
          callback: (_value: number | string, i: number, marks: { text?: string }[]) => marks[i]?.text ?? '',
        },
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
        // Pointed at together with others, it follows them and not its own pointer.
        ...(props.window ? { events: [] } : {}),
        filter: ({ datasetIndex }: { datasetIndex: number }) => props.series[datasetIndex]?.quiet !== true,
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
        names: props.series.map((line) => line.endText === undefined),
        colours: props.series.map((line) => line.colour),
        inside: narrow.value,
        room: props.window ? 20 : 122,
      },
      hoverLine: { at: props.window?.hover.value ?? null, colour: muted },
      annotation: {
        annotations: {
          ...annotationsOf(colours.value, props.low, props.high, props.band ?? null, props.today ?? null, props.todayText),
          ...marksOf(colours.value, shownMoments.value, props.levels ?? []),
        },
      },
    },
  } as unknown as ChartOptions<'line'>;
});
</script>

<template>
  <div
    ref="holder"
    class="chart"
    :class="{ moved: window }"
    :tabindex="window ? 0 : undefined"
    :role="window ? 'group' : undefined"
    :aria-label="window ? `${label}; arrows move along time, plus and minus zoom, 0 shows all` : undefined"
    @pointermove="pointed"
    @pointerleave="window?.point(null)"
  >
    <Line ref="line" :data="data" :options="options" :aria-label="label" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.chart { height: 158px; position: relative; }
.moved { touch-action: pan-y; cursor: grab; border-radius: 8px; }
.moved:active { cursor: grabbing; }
</style>
