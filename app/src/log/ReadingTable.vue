<script setup lang="ts">
import { dayAndTime } from '../time/dates';
import type { Reading, System } from '@yes-clear/core/file';
import { probeRoles, readingRatio, saltRemoved, shownUnitOf } from '@yes-clear/core/log';
import { formatIn, formatQuantity, shownUnit, THIN } from '@yes-clear/core/quantity';
import { mdiDeleteOutline } from '@mdi/js';
import { useMediaQuery } from '@vueuse/core';
import { computed, ref } from 'vue';
import AppIcon from '../kit/AppIcon.vue';

/** Every reading as it was taken, newest first. */
const props = defineProps<{ system: System; readings: readonly Reading[] }>();
defineEmits<{ remove: [reading: Reading] }>();
const roles = computed(() => probeRoles(props.system));
/** Rows asked for beside those of the first look. */
const more = ref(0);
/** A table longer than this is shown piece by piece. */
const PIECE = 200;
/** Rows before the rest is folded away; a phone shows a handful. */
const phone = useMediaQuery('(max-width: 860px)');
const page = computed(() => (phone.value ? 4 : 12));
const newest = computed(() => [...props.readings].reverse());
const shown = computed(() => newest.value.slice(0, page.value + more.value));
const hidden = computed(() => newest.value.length - shown.value.length);
const moreSays = computed(() => {
  if (hidden.value === 0) return 'Show fewer';
  return hidden.value <= PIECE ? `Show all ${newest.value.length}` : `Show ${PIECE} more of ${newest.value.length}`;
});
function turn(): void {
  more.value = hidden.value === 0 ? 0 : more.value + PIECE;
}
const probes = computed(() =>
  props.system.train.probes.map((probe) => {
    const instrument = props.system.instruments.find((candidate) => candidate.id === probe.instrumentId);
    return { id: probe.id, head: `${probe.name} ${instrument ? shownUnitOf(instrument) : ''}` };
  }),
);
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
const perMinute = (number: number | null): string => (number === null ? '' : formatIn(number, 'flowLPerH', 'mL/min').number);
</script>

<template>
  <section class="sheet table">
    <table class="figures">
      <thead>
        <tr>
          <th>When</th>
          <th v-for="probe in probes" :key="probe.id">{{ probe.head }}</th>
          <th>Salt removed</th>
          <th>{{ unit('pressureBar') }}</th>
          <th>{{ unit('temperatureC') }}</th>
          <th>Product mL/min</th>
          <th>Ratio</th>
          <th>Meter L</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="reading in shown" :key="reading.id">
          <td data-head="When">
            {{ dayAndTime(reading.at) }}<small v-if="reading.note">{{ reading.note }}</small>
          </td>
          <td v-for="probe in probes" :key="probe.id" :data-head="probe.head">{{ value(reading, probe.id) }}</td>
          <td data-head="Salt removed">{{ removed(reading) }}</td>
          <td :data-head="`Pressure ${unit('pressureBar')}`">{{ quantity(reading.pressureBar, 'pressureBar') }}</td>
          <td :data-head="`Temperature ${unit('temperatureC')}`">{{ quantity(reading.temperatureC, 'temperatureC') }}</td>
          <td data-head="Product mL/min">{{ perMinute(reading.productLPerH) }}</td>
          <td data-head="Waste to product">{{ ratio(reading) }}</td>
          <td data-head="Meter L">{{ reading.meterL === null ? '' : Math.round(reading.meterL) }}</td>
          <td class="tool">
            <button type="button" :aria-label="`Remove the reading of ${dayAndTime(reading.at)}`" @click="$emit('remove', reading)">
              <AppIcon :path="mdiDeleteOutline" :size="17" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="newest.length > page" class="button small plain all" type="button" @click="turn">
      {{ moreSays }}
    </button>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.table { overflow-x: auto; }
td:first-child { white-space: normal; min-width: 112px; }
small { display: block; color: var(--muted); font-size: 13px; font-weight: 450; line-height: 1.25; }
.tool { padding: 0 2px !important; }
.tool button { border: 0; background: transparent; color: var(--muted); cursor: pointer; padding: 5px; border-radius: 7px; display: grid; opacity: 0.55; }
tr:hover .tool button, .tool button:focus-visible { opacity: 1; }
.all { margin: 4px 8px 8px; }
/* On a phone each reading is a small stack of its figures. */
@media (max-width: 860px) {
  thead { display: none; }
  tr { display: grid; grid-template-columns: 1fr 1fr; padding: 9px 12px; border-top: 1px solid var(--line); position: relative; gap: 2px 14px; }
  tr:first-child { border-top: 0; }
  td { border: 0 !important; padding: 1px 0 !important; text-align: right !important; display: flex; justify-content: space-between; gap: 8px; white-space: nowrap; }
  td::before { content: attr(data-head); color: var(--muted); font-size: 13px; overflow: hidden; text-overflow: ellipsis; }
  td:first-child { grid-column: 1 / -1; font-weight: 680; justify-content: flex-start; flex-wrap: wrap; align-items: baseline; padding-right: 40px !important; }
  td:first-child::before, td.tool::before { content: none; }
  td:empty { display: none; }
  .tool { position: absolute; right: 6px; top: 4px; }
  .tool button { padding: 10px; }
}
</style>
