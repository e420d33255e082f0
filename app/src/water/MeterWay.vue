<script setup lang="ts">
import { readingGivesWay } from '@yes-clear/core/file';
import { formatIn } from '@yes-clear/core/quantity';
import { AIR_MATTERS_BELOW_USCM, meterEc25 } from '@yes-clear/core/water';
import { meterEntry, shownUnitOf } from '@yes-clear/core/log';
import { computed } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import { PLAIN_UNITS, SCALES, scaleKey } from './meterScales';
import { useSample } from './useSample';

/** One reading of a pen or in-line meter, with the meter it was taken on. */
defineProps<{ blamed: boolean; optional?: boolean }>();
const { current, source, sample, isAssumed, confirm, set } = useSample();
/** The template's reading gives way to a kit: the field is empty, and says what the kit's figures come to. */
const givesWay = computed(() => source.value !== null && readingGivesWay(source.value));
const instruments = computed(() => current.system.value?.instruments ?? []);
const instrument = computed(
  () => instruments.value.find((candidate) => candidate.id === sample.value?.instrumentId) ?? instruments.value[0],
);
const meters = computed(() => instruments.value.map(({ id, name }) => ({ title: name || 'Unnamed meter', value: id })));

/** The conductivity behind what was read, and what to mind about it. */
const note = computed(() => {
  if (!instrument.value || !sample.value) return '';
  const state = current.tapState.value;
  if (givesWay.value)
    return state ? `not read; the kit comes to about ${formatIn(state.ec25UScm, 'conductivityUScm', 'µS/cm').text}` : 'not read';
  const read = sample.value.reading;
  if (read === null || read === 0) return `as the meter shows it, ${shownUnitOf(instrument.value)}`;
  const ec = meterEc25(read, instrument.value, sample.value.temperatureC);
  if (!ec.ok) return ec.error.message;
  const means = `${shownUnitOf(instrument.value)}; ${formatIn(ec.value, 'conductivityUScm', 'µS/cm').text} at 25 °C`;
  return ec.value < AIR_MATTERS_BELOW_USCM ? `${means}. Air alone adds up to 1 µS/cm within minutes` : means;
});

function setScale(key: string): void {
  const choice = SCALES.find((candidate) => candidate.key === key);
  const target = instrument.value;
  if (!choice || !target) return;
  // The ppm shown everywhere follow the meter the tap was read on.
  current.edit('meter scale', (s) => ({
    ...s,
    instruments: s.instruments.map((candidate) => (candidate.id === target.id ? { ...candidate, scale: choice.scale } : candidate)),
    units: choice.factor === null ? s.units : { ...s.units, ppmFactor: choice.factor },
  }));
}
</script>

<template>
  <template v-if="sample && instrument">
    <QuantityField
      label="Meter reading"
      dimension="count"
      :low="0"
      :high="200000"
      :optional="optional"
      :units="PLAIN_UNITS"
      :reads="(text: string) => meterEntry(text, instrument!, 'Meter reading')"
      :blamed="blamed"
      :model-value="givesWay ? null : sample.reading"
      :note="note"
      :assumed="!givesWay && isAssumed('reading')"
      @confirm="confirm('reading')"
      @update:model-value="set('reading', { reading: $event })"
    />
    <div class="labelled">
      <span>Read on</span>
      <v-select
        :items="meters"
        :model-value="instrument.id"
        aria-label="Read on"
        @update:model-value="set('meter', { instrumentId: $event })"
      />
    </div>
    <div class="labelled">
      <span>Meter scale</span>
      <v-select
        :items="SCALES"
        item-value="key"
        item-title="title"
        :model-value="scaleKey(instrument.scale)"
        aria-label="Meter scale"
        @update:model-value="setScale"
      />
    </div>
  </template>
</template>
