<script setup lang="ts">
import {
  Chart,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartData,
  type ChartEvent,
  type ActiveElement,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { computed } from 'vue';
import { Scatter } from 'vue-chartjs';
import { houseColours } from './house';
import { marksBetween, roundRange } from './round';

/** Many things by two of their figures: those nothing beats filled and joined, the others as rings, some by their names. */
export interface ChartPoint {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly look: 'other' | 'front' | 'today' | 'best';
  readonly name?: string;
}
const props = defineProps<{
  label: string;
  points: readonly ChartPoint[];
  /** The point that is looked at, here or in a picture beside. */
  active: string | null;
  formatX: (value: number) => string;
  formatY: (value: number) => string;
  says: (id: string) => readonly string[];
  /** Shaded range of the foot: what costs about as much. */
  band?: { readonly from: number; readonly to: number } | null;
}>();
const emit = defineEmits<{ pick: [id: string]; point: [id: string | null] }>();
Chart.register(ScatterController, LinearScale, PointElement, LineElement, Tooltip, annotation);

const colours = computed(() => houseColours());
const of = (look: ChartPoint['look']): ChartPoint[] => props.points.filter((point) => point.look === look);
/** Those drawn last lie on top. */
const groups = computed(() => [
  of('best'),
  of('today'),
  [...of('front'), ...of('best')].toSorted((a, b) => a.x - b.x || a.y - b.y),
  of('other'),
]);
const data = computed<ChartData<'scatter', ChartPoint[]>>(() => {
  const { action, muted } = colours.value;
  const warning = getComputedStyle(document.documentElement).getPropertyValue('--warning').trim();
  const bold = (points: readonly ChartPoint[], plain: number): number[] =>
    points.map(({ id }) => (id === props.active ? plain + 3 : plain));
  const [best, today, front, others] = groups.value as [ChartPoint[], ChartPoint[], ChartPoint[], ChartPoint[]];
  return {
    datasets: [
      // The one to take: a dot in a ring.
      {
        clip: false as const,
        data: best,
        pointRadius: bold(best, 9),
        pointBackgroundColor: 'transparent',
        pointBorderColor: action,
        pointBorderWidth: 2.5,
      },
      { clip: false as const, data: today, pointRadius: bold(today, 5), pointBackgroundColor: warning, pointBorderColor: warning },
      { clip: false as const, data: front, pointRadius: bold(front, 4), pointBackgroundColor: action, pointBorderColor: action },
      {
        clip: false as const,
        data: others,
        pointRadius: bold(others, 2.6),
        pointBackgroundColor: 'transparent',
        pointBorderColor: muted,
        pointBorderWidth: 1,
      },
    ],
  };
});
const range = (values: readonly number[]) => roundRange(Math.min(...values), Math.max(...values));
const options = computed(() => {
  const { muted, hair, font, ink, goal } = colours.value;
  const sheet = `${getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim()}cc`;
  const ticks = { color: muted, font };
  const named = props.points.filter(({ name }) => name);
  /** Where a name stands so that two of them do not: the best one's over it, today's under it, or beside it near the foot. */
  const placeOf = (x: number, y: number, look: ChartPoint['look']): object => {
    const right = x > (xs.min + xs.max) / 2;
    if (look !== 'today') return { position: { x: right ? 'end' : 'start', y: 'center' }, xAdjust: right ? -9 : 9, yAdjust: -16 };
    if (y > ys.min + NEAR_FOOT * (ys.max - ys.min)) return { position: { x: 'center', y: 'center' }, yAdjust: 16 };
    return { position: { x: 'start', y: 'center' }, xAdjust: 9 };
  };
  const xs = range(props.points.map(({ x }) => x));
  const ys = range(props.points.map(({ y }) => y));
  return {
    responsive: true,
    maintainAspectRatio: false,
    animation: false,
    parsing: false,
    layout: { padding: { right: 14, top: 12 } },
    interaction: { mode: 'nearest', axis: 'xy', intersect: false },
    onHover: (_event: ChartEvent, found: ActiveElement[]) => emit('point', idOf(found)),
    onClick: (_event: ChartEvent, found: ActiveElement[]) => {
      const id = idOf(found);
      if (id) emit('pick', id);
    },
    scales: {
      x: {
        type: 'linear',
        ...xs,
        afterBuildTicks: (axis: { ticks: { value: number }[] }) =>
          (axis.ticks = marksBetween(xs.min, xs.max, 5).map((value) => ({ value }))),
        grid: { display: false },
        border: { display: false },
        ticks: { ...ticks, maxTicksLimit: 6, maxRotation: 0, callback: (value: number | string) => props.formatX(Number(value)) },
      },
      y: {
        type: 'linear',
        ...ys,
        afterBuildTicks: (axis: { ticks: { value: number }[] }) =>
          (axis.ticks = marksBetween(ys.min, ys.max, 4).map((value) => ({ value }))),
        grid: { color: hair },
        border: { display: false },
        ticks: { ...ticks, maxTicksLimit: 5, callback: (value: number | string) => props.formatY(Number(value)) },
      },
    },
    plugins: {
      legend: { display: false },
      tooltip: {
        displayColors: false,
        backgroundColor: ink,
        callbacks: { label: (item: { raw: unknown }) => [...props.says((item.raw as ChartPoint).id)] },
      },
      annotation: {
        annotations: {
          ...(props.band && {
            band: {
              type: 'box',
              xMin: props.band.from,
              xMax: props.band.to,
              backgroundColor: goal,
              borderWidth: 0,
              drawTime: 'beforeDraw',
            },
          }),
          ...Object.fromEntries(
            named.map(({ id, x, y, name, look }) => [
              id,
              {
                type: 'label',
                xValue: x,
                yValue: y,
                content: name,
                backgroundColor: sheet,
                borderRadius: 4,
                padding: { x: 4, y: 1 },
                color:
                  look === 'today' ? getComputedStyle(document.documentElement).getPropertyValue('--warning').trim() : colours.value.action,
                font: { ...font, weight: 'bold' },
                ...placeOf(x, y, look),
              },
            ]),
          ),
        },
      },
    },
  };
});
/** Share of the height under which a name has no room below its point. */
const NEAR_FOOT = 0.16;
const idOf = (found: ActiveElement[]): string | null => {
  const one = found[0];
  return one ? (groups.value[one.datasetIndex]?.[one.index]?.id ?? null) : null;
};
</script>

<template>
  <figure class="points">
    <figcaption>{{ label }}</figcaption>
    <div class="holder"><Scatter :aria-label="label" :data="data as never" :options="options as never" /></div>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.points { margin: 0; padding: 11px 12px 8px; min-width: 0; }
figcaption { font-size: 13.3px; font-weight: 650; color: var(--muted); }
.holder { position: relative; height: 196px; }
</style>
