<script setup lang="ts">
import { short, WEEKDAYS } from '../../../time/dates';
import type { LoopSettings } from '@yes-clear/core/file';
import { formatQuantity, THIN, inSentence } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import QuantityField from '../../../kit/QuantityField.vue';
import LineChart from '../../../kit/chart/LineChart.vue';
import { houseColours, type ChartSeries } from '../../../kit/chart/house';
import FigureLine from '../../../kit/FigureLine.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useAnswer } from '../../../worker/useAnswer';

/** What circulates behind the tank: resistivity at the outlets and level of the tank through a week of draws. */
defineEmits<{ remove: [] }>();
const current = useOpenSystem();
const { system, solved } = current;
const { answer: loop } = useAnswer('loop', () =>
  solved.value?.system.train.loop
    ? { system: solved.value.system, train: solved.value.report.train, solved: solved.value.report.solved }
    : null,
);
const done = computed(() => (loop.value?.ok ? loop.value.value : null));
const set = (changes: Partial<LoopSettings>): void =>
  current.edit(`loop ${Object.keys(changes).join()}`, (s) => ({
    ...s,
    train: { ...s.train, loop: s.train.loop && { ...s.train.loop, ...changes } },
  }));
const marks = WEEKDAYS.map(short).map((text, day) => ({ value: 24 * day, text }));
const line = (label: string, colour: string, of: (hour: number) => number): ChartSeries => ({
  label,
  colour,
  points: (done.value?.week ?? []).map((moment, k) => ({ x: moment.hour, y: of(k) })),
});
const purity = computed(() => [line('outlets', houseColours().action, (k) => done.value!.week[k]!.outletMOhmCm)]);
const level = computed(() => [line('tank, %', houseColours().ink, (k) => (100 * done.value!.week[k]!.volumeL) / done.value!.tank.volumeL)]);
const figures = computed(() => {
  const d = done.value;
  if (!d || !system.value) return [];
  return [
    [`${d.restMOhmCm.toFixed(1)}${THIN}MΩ·cm`, 'at the outlets'],
    [d.startsPerDay.toFixed(1), 'starts a day'],
    [`${d.velocityMPerS.toFixed(2)}${THIN}m/s`, 'in the loop'],
    [`${d.returnVelocityMPerS.toFixed(2)}${THIN}m/s`, 'back at the largest draw'],
    [formatQuantity(d.tank.volumeL, 'volumeL', system.value.units).text, `in ${inSentence(d.tank.name)}`],
  ] as const;
});
/** Hours in which the unit started, and how often. */
const starts = computed(() => {
  const week = done.value?.week ?? [];
  return week.flatMap((moment, k) => {
    const count = moment.starts - (week[k - 1]?.starts ?? 0);
    return count > 0 ? [{ hour: k, count }] : [];
  });
});
const most = computed(() => Math.max(1, ...starts.value.map(({ count }) => count)));
const plain = (value: number): string => String(Math.round(value * 10) / 10);
</script>

<template>
  <section v-if="system?.train.loop && loop" class="panel loop" aria-label="Loop">
    <div class="headed">
      <h2>Loop</h2>
      <p class="muted small">A week of draws: the worst hour counts, not the mean.</p>
      <button type="button" class="button small danger" @click="$emit('remove')">Take the loop out</button>
    </div>
    <FindingCard v-if="!loop.ok" :finding="{ severity: 'bad', title: 'This loop cannot run', why: loop.error.message }" />
    <div class="field-grid">
      <QuantityField
        label="Flow round the loop"
        dimension="flowLPerH"
        :low="0.1"
        :units="system.units"
        :model-value="system.train.loop.flowLPerH"
        @update:model-value="$event !== null && set({ flowLPerH: $event })"
      />
      <QuantityField
        label="Bore of the loop"
        dimension="lengthMm"
        unit="mm"
        :low="2"
        :high="200"
        :units="system.units"
        :model-value="system.train.loop.boreMm"
        @update:model-value="$event !== null && set({ boreMm: $event })"
      />
      <QuantityField
        label="Water surface of the tank"
        dimension="surfaceM2"
        :high="100"
        :units="system.units"
        :model-value="system.train.loop.surfaceM2"
        @update:model-value="$event !== null && set({ surfaceM2: $event })"
      />
      <label class="vent"
        ><input
          type="checkbox"
          :checked="system.train.loop.ventFilter"
          @change="set({ ventFilter: ($event.target as HTMLInputElement).checked })"
        />
        Soda lime in the vent</label
      >
    </div>
    <template v-if="done">
      <FigureLine :figures="figures" />
      <div class="charts">
        <div>
          <h3>Resistivity at the outlets, MΩ·cm at 25 °C</h3>
          <LineChart
            :series="purity"
            scale="linear"
            :low="0"
            :high="18.2"
            :from="0"
            :until="168"
            :marks="marks"
            :format="plain"
            label="Resistivity over the week"
          />
        </div>
        <div>
          <h3>Level of the tank, %</h3>
          <LineChart
            :series="level"
            scale="linear"
            :low="0"
            :high="100"
            :from="0"
            :until="168"
            :marks="marks"
            :format="plain"
            label="Tank level over the week"
          />
        </div>
      </div>
      <h3>
        Starts of the unit by the hour <span class="muted">{{ starts.length === 0 ? 'none' : `at most ${most} in an hour` }}</span>
      </h3>
      <div class="starts" role="img" :aria-label="`Starts by the hour, at most ${most}`">
        <i
          v-for="start in starts"
          :key="start.hour"
          :style="{ left: `${(100 * start.hour) / 168}%`, height: `${(100 * start.count) / most}%` }"
        />
      </div>
      <div class="cards"><FindingCard v-for="finding in done.findings" :key="finding.id" :finding="finding" /></div>
    </template>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.loop { display: grid; gap: 10px; }
.headed { display: flex; align-items: baseline; gap: 6px 14px; }
.headed p { margin: 0; flex: 1; }
h3 { font-size: 13.4px; margin: 4px 0 -6px; font-weight: 650; }
.charts { display: grid; grid-template-columns: repeat(auto-fit, minmax(330px, 1fr)); gap: 10px 16px; }
.charts > div { display: grid; gap: 10px; grid-template-columns: minmax(0, 1fr); }
.loop :deep(.chart) { height: 130px; }
h3 span { font-weight: 400; }
.starts { position: relative; height: 26px; margin: 4px 122px 0 58px; border-bottom: 1.5px solid var(--ink); }
.starts i { position: absolute; bottom: 0; width: 0.45%; background: var(--action); border-radius: 2px 2px 0 0; }
.vent { align-self: center; font-size: 13.8px; display: flex; gap: 8px; align-items: center; }
.cards { display: grid; grid-template-columns: repeat(auto-fit, minmax(260px, 1fr)); gap: 10px; }
</style>
