<script setup lang="ts">
import { computed } from 'vue';
import LineChart from '../kit/chart/LineChart.vue';
import { DAY_MS, THIN } from '@yes-clear/core/quantity';
import type { ChartMark } from '../kit/chart/house';
import type { TimeWindow } from '../kit/chart/useTimeWindow';
import type { CourseDrawing } from './useLogSeries';

/** A membrane's output or salt over time, in per cent of its reference, with the level at which something is done. */
const props = defineProps<{
  course: CourseDrawing;
  limit: number;
  from: number;
  today: number;
  window: TimeWindow;
  /** Work that was done; named in the chart above. */
  work: readonly ChartMark[];
  label: string;
}>();
const unnamed = computed(() => props.work.map(({ at }) => ({ at, text: '' })));
const percent = (value: number): string => `${Math.round(value * 10) / 10}${THIN}%`;
</script>

<template>
  <div>
    <h2><slot /></h2>
    <LineChart
      :series="course.series"
      scale="linear"
      :low="course.low"
      :high="course.high"
      :levels="[limit]"
      :from="from"
      :until="today + DAY_MS"
      :window="window"
      :moments="unnamed"
      :today="today"
      today-text=""
      :format="percent"
      :label="label"
    />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
/* Side by side there is no room behind a heading. */
h2 :slotted(span) { display: block; padding: 0; font-weight: 450; font-size: 13.3px; color: var(--muted); }
</style>
