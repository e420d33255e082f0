<script setup lang="ts">
import type { StageOf } from '@yes-clear/core/stage';
import { formatQuantity, L_PER_US_GALLON, THIN, words, inSentence } from '@yes-clear/core/quantity';
import { columnMarks, outMgL, resinChain } from '@yes-clear/core/advice';
import { useRafFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import LineChart from '../../../kit/chart/LineChart.vue';
import { roundMarks, roundTop } from '../../../kit/chart/round';
import { houseColours, type ChartSeries } from '../../../kit/chart/house';
import { useOpenSystem } from '../../../system/openSystem';
import ColumnTube from './ColumnTube.vue';
import { ION_LOOK } from './ions';
import { useColumn } from './useColumn';

/** The life of a resin stage: its bands at a moment that can be dragged, beside what leaves it and what the meter says. */
const props = defineProps<{ stage: StageOf<'resin'> }>();
const current = useOpenSystem();
const { system, solved } = current;
const chain = computed(() => solved.value && resinChain(solved.value.report.train.stages, solved.value.report.solved, props.stage.id));
const { run, error, progress, cancel, again } = useColumn(chain);
const units = computed(() => current.units.value);
const say = computed(() => words(units.value));

const marks = computed(() => (run.value && system.value ? columnMarks(system.value, props.stage, run.value) : []));
const horizon = computed(() => run.value?.moments.at(-1)?.litres ?? 0);
/** Litres the bed has had by the log; what a new scrub starts from. */
const soFar = computed(() => Math.min(horizon.value, solved.value?.use[props.stage.id]?.passedL ?? 0));
const litres = ref(0);
const touched = ref(false);
watch([soFar, horizon], () => {
  if (!touched.value || litres.value > horizon.value) litres.value = soFar.value;
});
watch(
  () => props.stage.id,
  () => (touched.value = false),
);
const moment = computed(() => {
  const moments = run.value?.moments ?? [];
  const at = moments.findIndex((one) => one.litres >= litres.value);
  return at < 0 ? Math.max(0, moments.length - 1) : at;
});

const PLAY_S = 9;
const { isActive, pause, resume } = useRafFn(
  ({ delta }) => {
    litres.value = Math.min(horizon.value, litres.value + (horizon.value * delta) / 1000 / PLAY_S);
    if (litres.value >= horizon.value) pause();
  },
  { immediate: false },
);
function play(): void {
  touched.value = true;
  if (isActive.value) return pause();
  if (litres.value >= horizon.value) litres.value = 0;
  resume();
}
function scrub(event: Event): void {
  pause();
  touched.value = true;
  litres.value = Number((event.target as HTMLInputElement).value);
}

/** What the bed lets out below this nobody measures, mg/L. */
const FLOOR = 0.003;
const shown = computed(() => {
  const r = run.value;
  if (!r) return [];
  return [...r.cations, ...r.anions].flatMap((id): ChartSeries[] => {
    const values = outMgL(r, id).map((value) => (id === 'carbon' ? value * 44.01 : value));
    if (Math.max(...values) < 5 * FLOOR) return [];
    const points = values.map((y, k) => ({ x: r.litres[k]!, y: Math.max(y, FLOOR) }));
    return [{ label: ION_LOOK[id].name, colour: ION_LOOK[id].colour, points, width: id === 'NH4N' || id === 'SiO2' ? 3 : 2 }];
  });
});
const top = computed(() => 10 ** Math.ceil(Math.log10(Math.max(1, ...shown.value.flatMap((line) => line.points.map((point) => point.y))))));
const inPpm = computed(() => units.value.strength === 'ppm');
const asMeter = (ec: number): number => (inPpm.value ? ec * units.value.ppmFactor : ec);
const meter = computed<ChartSeries[]>(() =>
  run.value
    ? [
        {
          label: inPpm.value ? 'meter, ppm' : 'meter, µS/cm',
          colour: houseColours().ink,
          points: run.value.ec25UScm.map((ec, k) => ({ x: run.value!.litres[k]!, y: asMeter(ec) })),
        },
      ]
    : [],
);
const meterTop = computed(() =>
  roundTop(Math.max(inPpm.value ? 5 : 10, ...meter.value.flatMap((line) => line.points.map((point) => point.y)))),
);
const litresText = (value: number): string => formatQuantity(value, 'volumeL', units.value).text;
const foot = computed(() => {
  // Round in the unit people see.
  const perUnit = units.value.volume === 'gal' ? L_PER_US_GALLON : 1;
  return roundMarks(horizon.value / perUnit, 6).map((mark) => ({ value: mark * perUnit, text: litresText(mark * perUnit) }));
});
const plain = (value: number): string => (value >= 1 ? String(value) : value.toPrecision(1));
const here = computed(() => {
  const r = run.value;
  if (!r) return null;
  const k = r.litres.findIndex((at) => at >= litres.value);
  const at = k < 0 ? r.litres.length - 1 : k;
  return { water: say.value.water(r.ec25UScm[at]!), pH: r.pH[at]!.toFixed(1) };
});
const capital = (text: string): string => text[0]!.toUpperCase() + text.slice(1);
/** What the marks mean together: whether the meter warns in time. */
const lesson = computed(() => {
  const shows = marks.value.find((mark) => mark.id === 'meter');
  const unseen = marks.value.find((mark) => mark.id === 'silica' || mark.id === 'ammonia');
  if (!shows || !unseen) return null;
  const apart = litresText(Math.abs(shows.litres - unseen.litres));
  const what = unseen.label.replace(/ past.*/, '');
  return unseen.litres < shows.litres
    ? {
        severity: 'mind' as const,
        title: `${capital(what)} passes the goal ${apart} before the meter shows 1 ppm`,
        why: 'No meter sees it. Change by litres, not by the reading, or keep a second cartridge behind this one.',
      }
    : {
        severity: 'good' as const,
        title: `The meter shows 1 ppm ${apart} before ${what} passes the goal`,
        why: 'Changed at the first ppm, nothing unseen gets through.',
      };
});
const first = computed(() => run.value?.fronts[0] ?? null);
</script>

<template>
  <section class="panel column" aria-label="Life of this resin">
    <div class="headed">
      <h2>Life of {{ inSentence(stage.name) }}</h2>
      <p v-if="run && first" class="muted small">
        {{ capital(ION_LOOK[first.ion].name) }} leaves first, after {{ litresText(first.litres) }} by theory; the {{ run.limiting }} side is
        spent first.
      </p>
      <span v-if="progress !== null" class="progress" role="status">
        <progress :value="progress" max="1" /> {{ Math.round(100 * progress) }}{{ THIN }}%
        <button type="button" class="button small" @click="cancel">Stop</button>
      </span>
      <button v-else-if="!run && !error" type="button" class="button small" @click="again">Run it</button>
    </div>
    <FindingCard v-if="error" :finding="{ severity: 'bad', title: 'This bed cannot be run', why: error.message }" />
    <p v-else-if="!chain" class="muted">No water flows through this resin.</p>
    <template v-if="run">
      <div class="sides">
        <div class="tubes">
          <ColumnTube v-if="run.cells.cation > 0" :run="run" side="cation" :moment="moment" :resin="stage.resinClass" />
          <ColumnTube v-if="run.cells.anion > 0" :run="run" side="anion" :moment="moment" :resin="stage.resinClass" />
        </div>
        <div class="charts">
          <h3>Leaving it, mg/L <span class="muted">log scale</span></h3>
          <LineChart
            :series="shown"
            scale="log"
            :low="FLOOR"
            :high="top"
            :from="0"
            :until="horizon"
            :marks="foot"
            :today="litres"
            today-text=""
            :format="plain"
            label="What leaves the resin by ion"
          />
          <h3>What a meter shows, {{ inPpm ? 'ppm' : 'µS/cm' }}</h3>
          <LineChart
            class="low"
            :series="meter"
            scale="linear"
            :low="0"
            :high="meterTop"
            :from="0"
            :until="horizon"
            :marks="foot"
            :today="litres"
            today-text=""
            :format="plain"
            label="Meter reading behind the resin"
          />
        </div>
      </div>
      <div class="time">
        <button type="button" class="button" @click="play">{{ isActive ? 'Pause' : 'Play' }}</button>
        <div class="track">
          <input
            type="range"
            min="0"
            :max="horizon"
            :step="horizon / 400"
            :value="litres"
            aria-label="Litres passed"
            :aria-valuetext="litresText(litres)"
            @input="scrub"
          />
          <i v-for="mark in marks" :key="mark.id" :class="mark.id" :style="{ left: `${(100 * mark.litres) / horizon}%` }" />
          <i v-if="soFar > 0" class="now" :style="{ left: `${(100 * soFar) / horizon}%` }" />
        </div>
        <output>
          <strong>{{ litresText(litres) }}</strong> <template v-if="here">{{ here.water }} · pH {{ here.pH }}</template>
        </output>
      </div>
      <ul class="marks">
        <li v-if="soFar > 0"><i class="now" /> {{ litresText(soFar) }} by the log, today</li>
        <li v-for="mark in marks" :key="mark.id">
          <i :class="mark.id" /> <strong>{{ litresText(mark.litres) }}</strong> {{ mark.label }}
        </li>
      </ul>
      <FindingCard v-if="lesson" :finding="lesson" />
    </template>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.column { display: grid; gap: 10px; }
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { flex: 1 1 260px; margin: 0; }
.progress { display: flex; gap: 8px; align-items: center; font-size: 13.4px; }
.sides { display: grid; grid-template-columns: 392px minmax(0, 1fr); gap: 14px; }
.tubes { display: flex; gap: 8px; }
.charts h3 { font-size: 13.4px; margin: 0 0 2px; font-weight: 650; }
.charts h3 span { font-weight: 400; }
.charts :deep(.chart) { height: 172px; }
.charts :deep(.chart.low) { height: 96px; }
.time { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: 12px; align-items: center; }
.time output { font-size: 13.8px; min-width: 168px; text-align: right; }
.track { position: relative; padding-bottom: 8px; }
.track input { width: 100%; accent-color: var(--action); margin: 0; display: block; }
.track i { position: absolute; bottom: 0; }
i { display: inline-block; width: 9px; height: 9px; border-radius: 50%; margin-left: -4.5px; background: var(--ink); }
.marks i { margin: 0 3px 0 0; }
i.silica { background: #e4568f; }
i.ammonia { background: #d9402f; }
i.colour { background: var(--resin); }
i.crew { background: var(--warning); }
i.now { background: var(--sheet); border: 2px solid var(--ink); }
.marks { list-style: none; margin: 0; padding: 0; display: flex; gap: 4px 22px; flex-wrap: wrap; font-size: 13.8px; }
@media (max-width: 860px) {
  .sides { grid-template-columns: minmax(0, 1fr); }
  .time { grid-template-columns: auto minmax(0, 1fr); }
  .time output { grid-column: 1 / -1; text-align: left; }
}
</style>
