<script setup lang="ts">
import {
  feedPump,
  furtherGauges,
  GAUGE_WORDS,
  gaugePlaces,
  gaugeValue,
  isPlace,
  isSamePlace,
  outletPlace,
  placeKey,
  probePlaces,
  productProbe,
  readsFlow,
  type Gauge,
  type Probe,
  type Train,
} from '@yes-clear/core/file';
import { formatIn, formatQuantity, inSentence, ordinal, THIN } from '@yes-clear/core/quantity';
import { atGauge, atPlace } from '@yes-clear/core/train';
import { readingFromEc25 } from '@yes-clear/core/water';
import { shownUnitOf } from '@yes-clear/core/log';
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import AppIcon from '../../../kit/AppIcon.vue';
import NameField from '../../../kit/NameField.vue';
import QuantityField from '../../../kit/QuantityField.vue';
import Segments from '../../../kit/Segments.vue';
import { useOpenSystem } from '../../../system/openSystem';
import MeterSelect from '../../MeterSelect.vue';
import StandsDialog from '../../StandsDialog.vue';
import { useProbeEdits } from '../../useProbeEdits';
import { useWorkbench } from '../../useWorkbench';
import OrderTools from './OrderTools.vue';

/** Every place where this system is read, in the order of a line of figures: what is expected there, what was read last. */
const current = useOpenSystem();
const { drawn, report } = useWorkbench();
const edits = useProbeEdits(current);
const train = computed(() => current.system.value!.train);
const instruments = computed(() => current.system.value!.instruments);
const places = computed(() => probePlaces(train.value).map((place) => ({ ...place, value: placeKey(place), title: place.label })));
const standing = ref(false);

const shown = (ec25UScm: number, instrumentId: string): string => {
  const meter = instruments.value.find(({ id }) => id === instrumentId);
  const figure = meter ? readingFromEc25(ec25UScm, meter.scale) : null;
  return meter && figure !== null ? `${atStep(figure, meter.resolution)}${THIN}${shownUnitOf(meter)}` : '–';
};
/** As the display would show it: nothing finer than its smallest step, nor three digits. */
const atStep = (figure: number, step: number): string => {
  const rounded = Number((Math.round(Number(figure.toPrecision(3)) / step) * step).toPrecision(12));
  return String(rounded);
};
const rows = computed(() =>
  train.value.probes.map((probe, i) => {
    const here = report.value && atPlace(report.value.solved, probe);
    const last = current.readings.value.findLast(({ values }) => values.some(({ probeId }) => probeId === probe.id));
    const value = last?.values.find(({ probeId }) => probeId === probe.id);
    const meter = instruments.value.find(({ id }) => id === value?.instrumentId);
    return {
      probe,
      place: placeKey(probe),
      gone: !isPlace(places.value, probe),
      expected: here ? shown(here.state.ec25UScm, probe.instrumentId) : '–',
      read: value && meter ? `${Number(value.shown.toPrecision(4))}${THIN}${shownUnitOf(meter)}` : 'never',
      line: ordinal(i),
    };
  }),
);
const outlet = computed(() =>
  productProbe(train.value) ? null : places.value.find((place) => isSamePlace(place, outletPlace(train.value))),
);
const usual = computed(() => train.value.probes.at(-1)?.instrumentId ?? instruments.value[0]!.id);
function addProbe(key: string): void {
  const place = places.value.find(({ value }) => value === key);
  if (place) edits.add(place, place.label, usual.value);
}
function setPlace(probe: Probe, key: string): void {
  const place = places.value.find(({ value }) => value === key);
  if (place) edits.set(probe.id, { after: place.after, side: place.side, vessel: place.vessel });
}

const COUNTS = [
  { value: 'up', title: 'Counts up' },
  { value: 'down', title: 'Counts down' },
] as const;
const setMeter = (changes: Partial<Train['meter']>): void =>
  current.edit('litres meter', (s) => ({ ...s, train: { ...s.train, meter: { ...s.train.meter, ...changes } } }));

const MAIN = 'main';
const gaugeText = (value: number | null, flow: boolean): string =>
  value === null || !drawn.value
    ? '–'
    : flow
      ? formatIn(value, 'flowLPerH', 'L/h').text
      : formatQuantity(value, 'pressureBar', drawn.value.units).text;
const gauges = computed(() => {
  const lastOf = (of: (reading: (typeof current.readings.value)[number]) => number | null): number | null => {
    for (let i = current.readings.value.length - 1; i >= 0; i--) {
      const value = of(current.readings.value[i]!);
      if (value !== null) return value;
    }
    return null;
  };
  const expected = (at: Gauge['at']): number | null => (report.value && drawn.value ? atGauge(drawn.value, report.value.solved, at) : null);
  const unit = drawn.value?.units.pressure ?? 'bar';
  /** Which pressure or flow of a line it is: product and waste are the first two flows of any. */
  const lineOf = (gauge: Gauge): string => {
    const flow = readsFlow(gauge);
    const at = gauge.at === 'product' ? 0 : gauge.at === 'waste' ? 1 : furtherGauges(train.value, flow).indexOf(gauge) + (flow ? 2 : 1);
    return `${ordinal(at)} ${flow ? 'flow' : unit}`;
  };
  const further = train.value.gauges.map((gauge) => {
    const flow = readsFlow(gauge);
    const last = lastOf((reading) =>
      gauge.at === 'product' ? reading.productLPerH : gauge.at === 'waste' ? reading.wasteLPerH : gaugeValue(reading, gauge.id),
    );
    return {
      id: gauge.id,
      name: gauge.name,
      at: gauge.at,
      expected: gaugeText(expected(gauge.at), flow),
      read: last === null ? 'never' : gaugeText(last, flow),
      line: lineOf(gauge),
    };
  });
  const last = lastOf(({ pressureBar }) => pressureBar);
  return [
    {
      id: MAIN,
      name: 'Gauge',
      at: train.value.gauge as Gauge['at'],
      expected: gaugeText(expected(train.value.gauge), false),
      read: last === null ? 'never' : gaugeText(last, false),
      line: `${ordinal(0)} ${unit}`,
    },
    ...further,
  ];
});
/** Pressures already in the log were read where the gauge stood: another place is another gauge. */
const mainIsRead = computed(() => current.readings.value.some(({ pressureBar }) => pressureBar !== null));
const gaugeItems = computed(() => gaugePlaces(train.value).map((at) => ({ value: at, title: GAUGE_WORDS[at] })));
/** Behind the filters is at the membrane where no pump stands between the two. */
const mainItems = computed(() => {
  const hasPump = feedPump(train.value.stages) !== undefined;
  return gaugeItems.value.filter(({ value }) => value === 'line' || value === 'membrane' || (value === 'filters' && hasPump));
});
const setMain = (at: Gauge['at']): void => edits.setMainGauge(at as Train['gauge']);
</script>

<template>
  <div class="probes">
    <div class="above">
      <button type="button" class="button small" @click="standing = true">What stands there, since when</button>
    </div>
    <StandsDialog v-model="standing" />
    <section aria-label="Probes">
      <div class="entry head" aria-hidden="true">
        <span>Probe</span><span>Where</span><span>Meter</span><span class="n">Expected</span><span class="n">Last read</span
        ><span>In the line</span><span></span>
      </div>
      <div v-for="({ probe, place, gone, expected, read, line }, i) in rows" :key="probe.id" class="entry">
        <NameField
          class="plain-input"
          :label="`Name of probe ${i + 1}`"
          :maxlength="80"
          :model-value="probe.name"
          @update:model-value="edits.set(probe.id, { name: $event })"
        />
        <v-select
          :items="gone ? [...places, { value: place, title: 'Its place is gone' }] : places"
          :model-value="place"
          :aria-label="`Place of ${probe.name}`"
          @update:model-value="setPlace(probe, $event)"
        />
        <MeterSelect
          :label="`Meter of ${probe.name}`"
          :instruments="instruments"
          :model-value="probe.instrumentId"
          @update:model-value="edits.setMeter(probe.id, $event)"
        />
        <b class="n" data-head="Expected">{{ expected }}</b>
        <span class="n" data-head="Last read">{{ read }}</span>
        <span class="muted" data-head="In the line">{{ line }}</span>
        <OrderTools
          :name="probe.name"
          :first="i === 0"
          :last="i === rows.length - 1"
          @move="edits.move(probe.id, $event)"
          @remove="edits.remove(probe.id)"
        />
      </div>
      <p v-if="outlet" class="outlet">
        <b>No probe reads the product.</b> Place one {{ inSentence(outlet.label) }}, or carry a pen there.
        <button type="button" class="button small" @click="addProbe(outlet.value)">Place a probe {{ inSentence(outlet.label) }}</button>
      </p>
      <label class="add"
        ><AppIcon :path="mdiPlus" :size="18" /><span>Another probe</span>
        <v-select
          :items="places"
          :model-value="null"
          placeholder="choose its place, or press on a tube"
          aria-label="Place of another probe"
          @update:model-value="$event && addProbe($event)"
        />
      </label>
    </section>
    <section aria-label="Gauges and flow meters">
      <div class="entry head" aria-hidden="true">
        <span>Gauge, flow meter</span><span>Where</span><span></span><span class="n">Expected</span><span class="n">Last read</span
        ><span>In the line</span><span></span>
      </div>
      <div v-for="(gauge, i) in gauges" :key="gauge.id" class="entry">
        <span v-if="gauge.id === MAIN" class="plain">{{ gauge.name }}</span>
        <NameField
          v-else
          class="plain-input"
          :label="`Name of gauge ${i + 1}`"
          :maxlength="80"
          :model-value="gauge.name"
          @update:model-value="edits.setGauge(gauge.id, { name: $event })"
        />
        <v-select
          v-if="gauge.id === MAIN"
          :items="mainItems"
          :model-value="gauge.at"
          :disabled="mainIsRead || mainItems.length < 2"
          aria-label="Place of the gauge"
          @update:model-value="setMain($event)"
        />
        <v-select
          v-else
          :items="gaugeItems"
          :model-value="gauge.at"
          :aria-label="`Place of ${gauge.name}`"
          @update:model-value="edits.setGauge(gauge.id, { at: $event })"
        />
        <small v-if="gauge.id === MAIN && mainIsRead && mainItems.length > 1" class="muted"
          >Pressures in the log were read there. Add another gauge for another place.</small
        >
        <span v-else></span>
        <b class="n" data-head="Expected">{{ gauge.expected }}</b>
        <span class="n" data-head="Last read">{{ gauge.read }}</span>
        <span class="muted" data-head="In the line">{{ gauge.line }}</span>
        <OrderTools
          v-if="gauge.id !== MAIN"
          :name="gauge.name"
          :first="i === 1"
          :last="i === gauges.length - 1"
          @move="edits.moveGauge(gauge.id, $event)"
          @remove="edits.removeGauge(gauge.id)"
        />
      </div>
      <div class="counter">
        <span>Litres meter</span>
        <Segments
          label="Which way the litres meter counts"
          :choices="COUNTS"
          :model-value="train.meter.counts"
          @update:model-value="setMeter({ counts: $event })"
        />
        <QuantityField
          look="row"
          label="Set to"
          dimension="volumeL"
          :low="0"
          :high="1e9"
          optional
          empty="not set"
          :units="current.units.value"
          :model-value="train.meter.setToL"
          @update:model-value="setMeter({ setToL: $event })"
        />
        <QuantityField
          v-if="train.meter.counts === 'up'"
          look="row"
          label="Begins again behind"
          dimension="volumeL"
          :low="1"
          :high="1e9"
          optional
          empty="never"
          :units="current.units.value"
          :model-value="train.meter.rollsOverL"
          @update:model-value="setMeter({ rollsOverL: $event })"
        />
        <span v-else class="muted small">Below nought it counts on; set anew it begins from what it is set to.</span>
      </div>
      <label class="add"
        ><AppIcon :path="mdiPlus" :size="18" /><span>Another gauge or flow meter</span>
        <v-select
          :items="gaugeItems"
          :model-value="null"
          placeholder="choose its place"
          aria-label="Place of another gauge"
          @update:model-value="$event && edits.addGauge($event)"
        />
      </label>
    </section>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.probes { padding: 12px 14px; display: grid; gap: 18px; }
.above { display: flex; justify-content: flex-end; margin-bottom: -8px; }
.entry { display: grid; grid-template-columns: minmax(136px, 1fr) minmax(148px, 1.3fr) minmax(150px, 1.35fr) 84px 84px 74px 102px; gap: 7px; align-items: center; padding: 5px 0; border-top: 1px solid var(--hair); }
.entry.head { border-top: 0; color: var(--muted); font-size: 13.3px; font-weight: 620; padding: 0 0 4px; }
/* Places and meters have long names: their lists keep little room beside them. */
.entry :deep(.v-field) { --v-field-padding-start: 9px; --v-field-padding-end: 2px; }
.entry :deep(.v-select__selection-text) { font-size: 14px; }
.n { text-align: right; font-variant-numeric: tabular-nums; }
.plain { padding-left: 10px; }
.outlet { margin: 8px 0; padding: 9px 12px; border-left: 4px solid var(--warning); background: var(--paper); border-radius: 8px; display: flex; flex-wrap: wrap; gap: 6px 10px; align-items: center; }
/* A counter is set once: its fields lie in one line under the gauges. */
.counter { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: center; padding: 8px 0; border-top: 1px solid var(--hair); }
/* Its fields stand beside each other. */
.counter :deep(.quantity) { width: auto; min-width: 210px; }
.counter > :first-child { padding-left: 10px; }
.add { display: grid; grid-template-columns: auto auto minmax(0, 320px); justify-content: start; gap: 8px; align-items: center; padding-top: 8px; border-top: 1px solid var(--hair); }
@media (max-width: 860px) {
  .entry { grid-template-columns: 1fr 1fr; gap: 6px 8px; padding: 10px 0; }
  .entry.head { display: none; }
  .entry > :last-child { grid-column: 1 / -1; }
  .n, [data-head] { text-align: left; }
  [data-head]::before { content: attr(data-head) ' '; color: var(--muted); font-weight: 450; }
  .add { grid-template-columns: auto 1fr; }
  .add > :last-child { grid-column: 1 / -1; }
}
</style>
