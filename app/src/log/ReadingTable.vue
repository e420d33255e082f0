<script setup lang="ts">
import { dayAndTime, dayOfYear } from '../time/dates';
import { furtherGauges, gaugeDimension, gaugeValue, readsFlow, type Reading, type System } from '@yes-clear/core/file';
import { probeRoles, readingRatio, saltRemoved, shownUnitOf } from '@yes-clear/core/log';
import { formatIn, formatQuantity, shownUnit, THIN } from '@yes-clear/core/quantity';
import { isRecorded } from '@yes-clear/core/recording';
import { mdiPencilOutline } from '@mdi/js';
import { useMediaQuery } from '@vueuse/core';
import { computed, ref } from 'vue';
import AppIcon from '../kit/AppIcon.vue';

/** Every reading as it was taken: newest first, or by any figure; those that hold a word. */
const props = defineProps<{ system: System; readings: readonly Reading[]; outliers?: ReadonlySet<string> }>();
defineEmits<{ edit: [reading: Reading]; bringIn: []; save: [] }>();
const roles = computed(() => probeRoles(props.system));
/** Rows asked for beside those of the first look. */
const more = ref(0);
/** A table longer than this is shown piece by piece. */
const PIECE = 200;
/** Rows before the rest is folded away; a phone shows a handful. */
const phone = useMediaQuery('(max-width: 860px)');
const page = computed(() => (phone.value ? 4 : 12));

const sought = ref('');
const found = computed(() => {
  const word = sought.value.trim().toLowerCase();
  if (word === '') return props.readings;
  return props.readings.filter((one) => `${dayOfYear(one.at)} ${beside(one)}`.toLowerCase().includes(word));
});
/** The column the rows are sorted by, and which way; by time, the newest first, until somebody asks otherwise. */
const by = ref<{ readonly key: string; readonly up: boolean }>({ key: 'at', up: false });
const sorted = computed(() => {
  const { key, up } = by.value;
  const figure = (one: Reading): number | null => {
    if (key === 'at') return Date.parse(one.at);
    if (key === 'removed') return saltRemoved(one, roles.value, props.system.instruments);
    if (key === 'ratio') return readingRatio(one);
    if (key.startsWith('gauge:')) return gaugeValue(one, key.slice('gauge:'.length));
    if (key.startsWith('probe:')) return one.values.find(({ probeId }) => `probe:${probeId}` === key)?.shown ?? null;
    return one[key as 'pressureBar' | 'temperatureC' | 'productLPerH' | 'meterL'];
  };
  // What was not read stands last either way.
  const rank = (one: Reading): number => figure(one) ?? (up ? Infinity : -Infinity);
  return found.value
    .map((one) => ({ one, at: rank(one) }))
    .sort((a, b) => (up ? a.at - b.at : b.at - a.at))
    .map(({ one }) => one);
});
function sortBy(key: string): void {
  by.value = { key, up: by.value.key === key ? !by.value.up : key !== 'at' };
}
const sortedAs = (key: string): 'ascending' | 'descending' | 'none' =>
  by.value.key !== key ? 'none' : by.value.up ? 'ascending' : 'descending';
const shown = computed(() => sorted.value.slice(0, page.value + more.value));
const hidden = computed(() => sorted.value.length - shown.value.length);
const moreSays = computed(() => {
  if (hidden.value === 0) return 'Show fewer';
  return hidden.value <= PIECE ? `Show all ${sorted.value.length}` : `Show ${PIECE} more of ${sorted.value.length}`;
});
function turn(): void {
  more.value = hidden.value === 0 ? 0 : more.value + PIECE;
}
const probes = computed(() =>
  props.system.train.probes.map((probe) => {
    const instrument = props.system.instruments.find((candidate) => candidate.id === probe.instrumentId);
    return { id: probe.id, key: `probe:${probe.id}`, head: `${probe.name} ${instrument ? shownUnitOf(instrument) : ''}` };
  }),
);
const gauges = computed(() =>
  [...furtherGauges(props.system.train, false), ...furtherGauges(props.system.train, true)].map((gauge) => {
    const unit = readsFlow(gauge) ? 'L/h' : props.system.units.pressure;
    return {
      id: gauge.id,
      key: `gauge:${gauge.id}`,
      head: `${gauge.name} ${unit}`,
      dimension: gaugeDimension(gauge),
      unit,
    };
  }),
);
const gaugeText = (reading: Reading, { id, dimension, unit }: (typeof gauges.value)[number]): string => {
  const found = gaugeValue(reading, id);
  return found === null ? '' : formatIn(found, dimension, unit).number;
};
const unit = (dimension: 'pressureBar' | 'temperatureC'): string => shownUnit(dimension, props.system.units);
const value = (reading: Reading, probeId: string): string => {
  const found = reading.values.find((candidate) => candidate.probeId === probeId);
  return found ? String(Number(found.shown.toPrecision(4))) : '';
};
const removed = (reading: Reading): string => {
  const share = saltRemoved(reading, roles.value, props.system.instruments);
  return share === null ? '' : `${(100 * share).toFixed(1)}${THIN}%`;
};
const ratio = (reading: Reading): string => {
  const found = readingRatio(reading);
  return found === null ? '' : `${found.toFixed(1)} : 1`;
};
const quantity = (number: number | null, dimension: 'pressureBar' | 'temperatureC'): string =>
  number === null ? '' : formatQuantity(number, dimension, props.system.units).number;
const columns = computed(() => [
  { key: 'at', head: 'When' },
  ...probes.value.map(({ key, head }) => ({ key, head })),
  ...(roles.value.afterMembrane ? [{ key: 'removed', head: 'Salt removed' }] : []),
  { key: 'pressureBar', head: unit('pressureBar') },
  ...gauges.value.map(({ key, head }) => ({ key, head })),
  { key: 'temperatureC', head: unit('temperatureC') },
  { key: 'productLPerH', head: `Product ${shownUnit('flowLPerH', props.system.units)}` },
  { key: 'ratio', head: 'Ratio' },
  { key: 'meterL', head: `Meter ${props.system.units.volume}` },
]);
const meter = (litres: number | null): string => (litres === null ? '' : formatQuantity(litres, 'volumeL', props.system.units).number);
/** What stands beside a reading's day: its note, and how it counts. */
const beside = (reading: Reading): string =>
  [
    reading.counts ? '' : 'struck out',
    isRecorded(reading) ? 'recorded' : '',
    reading.confirmed.length > 0 ? 'as typed' : '',
    props.outliers?.has(reading.id) ? 'counts little' : '',
    reading.photos.length > 0 ? `${reading.photos.length} ${reading.photos.length === 1 ? 'picture' : 'pictures'}` : '',
    reading.note,
  ]
    .filter((word) => word !== '')
    .join(' · ');
const flow = (number: number | null): string => (number === null ? '' : formatQuantity(number, 'flowLPerH', props.system.units).number);
</script>

<template>
  <section class="sheet" aria-label="Readings">
    <div class="head">
      <h2>Readings</h2>
      <span class="tools">
        <button type="button" class="button small" @click="$emit('bringIn')">Bring in</button>
        <button v-if="readings.length > 0" type="button" class="button small" @click="$emit('save')">Save as table</button>
      </span>
      <input v-model="sought" class="plain-input" type="search" aria-label="Find readings" placeholder="a day, a word of a note" />
    </div>
    <div class="table">
      <table class="figures">
        <thead>
          <tr>
            <th v-for="column in columns" :key="column.key" :aria-sort="sortedAs(column.key)">
              <button type="button" @click="sortBy(column.key)">
                {{ column.head }}<i v-if="by.key === column.key" aria-hidden="true">{{ by.up ? '↑' : '↓' }}</i>
              </button>
            </th>
            <th class="tool"></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="reading in shown" :key="reading.id" :class="{ out: !reading.counts }">
            <td data-head="When">
              {{ dayAndTime(reading.at) }}<small v-if="beside(reading)">{{ beside(reading) }}</small>
            </td>
            <td v-for="probe in probes" :key="probe.id" :data-head="probe.head">{{ value(reading, probe.id) }}</td>
            <td v-if="roles.afterMembrane" data-head="Salt removed">{{ removed(reading) }}</td>
            <td :data-head="`Pressure ${unit('pressureBar')}`">{{ quantity(reading.pressureBar, 'pressureBar') }}</td>
            <td v-for="gauge in gauges" :key="gauge.id" :data-head="gauge.head">{{ gaugeText(reading, gauge) }}</td>
            <td :data-head="`Temperature ${unit('temperatureC')}`">{{ quantity(reading.temperatureC, 'temperatureC') }}</td>
            <td :data-head="`Product ${shownUnit('flowLPerH', system.units)}`">{{ flow(reading.productLPerH) }}</td>
            <td data-head="Waste to product">{{ ratio(reading) }}</td>
            <td :data-head="`Meter ${system.units.volume}`">{{ meter(reading.meterL) }}</td>
            <td class="tool">
              <button
                v-if="!isRecorded(reading)"
                type="button"
                :aria-label="`Change the reading of ${dayAndTime(reading.at)}`"
                @click="$emit('edit', reading)"
              >
                <AppIcon :path="mdiPencilOutline" :size="17" />
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="sorted.length === 0" class="muted small none">No reading holds “{{ sought }}”.</p>
    <button v-if="sorted.length > page" class="button small plain all" type="button" @click="turn">
      {{ moreSays }}
    </button>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.head { display: flex; justify-content: space-between; gap: 12px; align-items: center; padding: 10px 14px 6px; }
.tools { display: flex; gap: 6px; margin-right: auto; }
.head input { width: 220px; }
.table { overflow-x: auto; }
.table th { white-space: normal; vertical-align: bottom; padding: 4px 8px; line-height: 1.2; }
.table th button { font: inherit; color: inherit; border: 0; background: transparent; padding: 4px 0; cursor: pointer; text-align: inherit; width: 100%; }
.table th i { font-style: normal; padding-left: 3px; }
.table td { padding-left: 8px; padding-right: 8px; }
td:first-child { white-space: normal; min-width: 112px; }
small { display: block; color: var(--muted); font-size: 13px; font-weight: 450; line-height: 1.25; }
.out td { color: var(--muted); text-decoration: line-through; }
.out td.tool, .out small { text-decoration: none; }
/* What a row is changed by is always within reach, however many probes stand before it. */
.tool { padding: 0 4px !important; position: sticky; right: 0; background: var(--sheet); width: 36px; }
.tool button { border: 0; background: transparent; color: var(--muted); cursor: pointer; padding: 5px; border-radius: 7px; display: grid; }
.tool button:hover, .tool button:focus-visible { color: var(--ink); }
.none { padding: 0 14px 12px; }
.all { margin: 4px 8px 8px; }
/* On a phone each reading is a small stack of its figures. */
@media (max-width: 860px) {
  .head { flex-wrap: wrap; }
  .head .button { min-height: 42px; }
  .head input { width: 100%; min-height: 42px; }
  thead { display: none; }
  tr { display: grid; grid-template-columns: 1fr 1fr; padding: 9px 12px; border-top: 1px solid var(--line); position: relative; gap: 2px 14px; }
  tr:first-child { border-top: 0; }
  .table td { border: 0 !important; padding: 1px 0 !important; text-align: right !important; display: flex; justify-content: space-between; gap: 8px; white-space: nowrap; }
  td::before { content: attr(data-head); color: var(--muted); font-size: 13px; overflow: hidden; text-overflow: ellipsis; }
  .table td:first-child { grid-column: 1 / -1; font-weight: 680; justify-content: flex-start; flex-wrap: wrap; align-items: baseline; padding-right: 48px !important; white-space: normal; }
  td:first-child::before, td.tool::before { content: none; }
  .table td:empty { display: none; }
  .table td.tool { position: absolute; right: 4px; top: 2px; width: auto; }
  .tool button { padding: 12px; }
}
</style>
