<script setup lang="ts">
import { idFor } from '../store/newId';
import type { Instrument } from '@yes-clear/core/file';
import { newInstrument } from '@yes-clear/core/template';
import { shownUnitOf } from '@yes-clear/core/log';
import type { Compensation } from '@yes-clear/core/water';
import { mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import DayField from '../kit/DayField.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { useOpenSystem } from '../system/openSystem';
import MeterComparison from './MeterComparison.vue';
import { PLAIN_UNITS, SCALES, scaleKey } from './meterScales';
import { needed } from './useSample';

/** The instruments of this system: what each shows, how it corrects, when it was last calibrated. */
const current = useOpenSystem();
const instruments = computed(() => current.system.value?.instruments ?? []);
/** A meter that probes, samples or readings stand on cannot go. */
const inUse = computed(() => {
  const system = current.system.value;
  if (!system) return new Set<string>();
  return new Set([
    ...system.source.samples.map((sample) => sample.instrumentId),
    ...(system.source.second ? [system.source.second.sample.instrumentId] : []),
    ...system.train.probes.map((probe) => probe.instrumentId),
    ...current.readings.value.flatMap((reading) => reading.values.map((value) => value.instrumentId)),
  ]);
});

const set = (id: string, label: string, changes: Partial<Instrument>): void =>
  current.edit(label, (s) => ({ ...s, instruments: s.instruments.map((one) => (one.id === id ? { ...one, ...changes } : one)) }));
const add = (): void =>
  current.edit('meter added', (s) => ({
    ...s,
    instruments: [...s.instruments, newInstrument(idFor('meter'), `Meter ${s.instruments.length + 1}`)],
  }));
const remove = (id: string): void =>
  current.edit('meter removed', (s) => ({
    ...s,
    instruments: s.instruments.filter((one) => one.id !== id),
    comparison: {
      referenceId: s.comparison.referenceId === id ? null : s.comparison.referenceId,
      glasses: s.comparison.glasses.map((glass) => ({ ...glass, shown: glass.shown.filter((value) => value.instrumentId !== id) })),
    },
  }));
const corrected = (one: Instrument): string =>
  one.gain === 1 && one.offset === 0
    ? 'As it comes'
    : `Shows ${one.gain === 1 ? '' : `${one.gain.toFixed(3)} times the truth`}${one.offset === 0 ? '' : `${one.gain === 1 ? '' : ', '}${one.offset > 0 ? '+' : '−'}${Math.abs(one.offset).toPrecision(2)} ${shownUnitOf(one)}`}`;
</script>

<template>
  <section class="sheet panel meters">
    <div v-for="one in instruments" :key="one.id" class="meter">
      <div class="field-grid">
        <label class="labelled"
          ><span>Name</span
          ><NameField
            class="plain-input"
            label="Name"
            :maxlength="80"
            :model-value="one.name"
            @update:model-value="set(one.id, 'meter name', { name: $event })"
        /></label>
        <div class="labelled">
          <span>Scale</span>
          <v-select
            :items="SCALES"
            item-value="key"
            item-title="title"
            :model-value="scaleKey(one.scale)"
            :aria-label="`Scale of ${one.name}`"
            @update:model-value="(key: string) => set(one.id, 'meter scale', { scale: SCALES.find((row) => row.key === key)!.scale })"
          />
        </div>
        <div class="labelled">
          <span>Temperature</span>
          <v-select
            :items="[
              { title: 'Corrects to 25 °C by a share per degree', value: 'linear' },
              { title: 'Corrects pure water, as a line monitor does', value: 'pure' },
              { title: 'Does not correct', value: 'none' },
            ]"
            :model-value="one.compensation"
            :aria-label="`Temperature correction of ${one.name}`"
            @update:model-value="(compensation: Compensation) => set(one.id, 'temperature correction', { compensation })"
          />
        </div>
        <div class="labelled">
          <span>Where it is</span>
          <v-select
            :items="[
              { title: 'Stands in the line', value: false },
              { title: 'A pen, carried from place to place', value: true },
            ]"
            :model-value="one.carried"
            :aria-label="`Where ${one.name} is`"
            @update:model-value="(carried: boolean | null) => carried !== null && set(one.id, 'where a meter is', { carried })"
          />
        </div>
        <DayField
          label="Last calibrated"
          optional
          :model-value="one.calibratedOn"
          @update:model-value="set(one.id, 'calibrated', { calibratedOn: $event })"
        />
        <QuantityField
          label="Correction per °C"
          dimension="fraction"
          unit="%"
          :low="0"
          :high="0.1"
          :units="PLAIN_UNITS"
          :model-value="one.alphaPerC"
          note="2 % is usual"
          @update:model-value="needed((alphaPerC) => set(one.id, 'correction', { alphaPerC }))($event)"
        />
        <QuantityField
          label="Smallest step"
          dimension="count"
          :low="0.0001"
          :high="100"
          :units="PLAIN_UNITS"
          :model-value="one.resolution"
          :note="shownUnitOf(one)"
          @update:model-value="needed((resolution) => set(one.id, 'smallest step', { resolution }))($event)"
        />
        <div class="labelled">
          <span>Its own error</span>
          <p class="error">{{ corrected(one) }}</p>
        </div>
        <div class="acts">
          <button
            v-if="one.gain !== 1 || one.offset !== 0"
            class="button small"
            type="button"
            @click="set(one.id, 'correction removed', { gain: 1, offset: 0 })"
          >
            Take correction off
          </button>
          <button v-if="!inUse.has(one.id) && instruments.length > 1" class="button small danger" type="button" @click="remove(one.id)">
            Remove
          </button>
        </div>
      </div>
    </div>
    <div class="row">
      <button class="button" type="button" @click="add"><AppIcon :path="mdiPlus" />Add a meter</button>
      <p class="muted small">A reading is never kept without the meter it was taken on.</p>
    </div>
  </section>
  <MeterComparison @set="(id, label, changes) => set(id, label, changes)" />
</template>

<!-- prettier-ignore -->
<style scoped>
.meters { display: grid; gap: 14px; }
.meter { border-bottom: 1px solid var(--hair); padding-bottom: 12px; }
.error { padding: 8px 0; font-size: 14.5px; }
.acts { display: flex; gap: 8px; align-items: flex-start; padding-top: 24px; flex-wrap: wrap; }
</style>
