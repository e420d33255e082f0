<script setup lang="ts">
import type { Instrument, Sample, System } from '@yes-clear/core/file';
import { CHARACTERS, CHARACTER_ROWS, settleWater, type MeterScale } from '@yes-clear/core/water';
import { computed } from 'vue';
import FindingCard from '../kit/FindingCard.vue';
import FindingsList from '../kit/FindingsList.vue';
import QuantityField from '../kit/QuantityField.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useCurrentSystem } from '../store/current';
import CompositionBars from './CompositionBars.vue';
import HardnessScales from './HardnessScales.vue';
import { waterFindings } from './useWaterFindings';

/** Water: what comes out of the tap, completed to one consistent water. */
const current = useCurrentSystem();
const { system, water } = current;
const completed = computed(() => (water.value?.ok ? water.value.value : null));
const error = computed(() => (water.value && !water.value.ok ? water.value.error : null));
/** Which entered values the contradiction is about. */
const blamed = computed(() => {
  const field = error.value?.field;
  const sample = system.value?.source.sample;
  const conductivity = field === 'ec25UScm' || field === 'reading';
  return {
    reading: conductivity,
    hardness: field === 'hardnessMgL' || (field === 'ec25UScm' && sample?.hardnessMgL !== null),
    alkalinity: field === 'alkalinityMgL' || field === 'pH' || (field === 'ec25UScm' && sample?.alkalinityMgL !== null),
    pH: field === 'pH',
  };
});
const state = computed(() => {
  const settled = completed.value ? settleWater(completed.value.water) : null;
  return settled?.ok ? settled.value : null;
});
const findings = computed(() => (completed.value && system.value ? waterFindings(completed.value, system.value.units) : []));
const instrument = computed(() => system.value?.instruments.find((candidate) => candidate.id === system.value?.source.sample.instrumentId) ?? system.value?.instruments[0]);

const setSource = (label: string, changes: Partial<System['source']>): void => current.edit(label, (s) => ({ ...s, source: { ...s.source, ...changes } }));
const setSample = (label: string, changes: Partial<Sample>): void => current.edit(label, (s) => ({ ...s, source: { ...s.source, sample: { ...s.source.sample, ...changes } } }));

/** A field that must hold a number keeps the last one while it is empty. */
const needed = (write: (value: number) => void) => (value: number | null) => {
  if (value !== null) write(value);
};
/** What was measured of the sample beside the meter. */
const sampleFields = computed(() => {
  const sample = system.value?.source.sample;
  if (!sample) return [];
  return [
    { label: 'Water temperature', dimension: 'temperatureC' as const, modelValue: sample.temperatureC, write: needed((temperatureC) => setSample('temperature', { temperatureC })) },
    { label: 'Total hardness', dimension: 'hardnessMgL' as const, optional: true, blamed: blamed.value.hardness, modelValue: sample.hardnessMgL, write: (hardnessMgL: number | null) => setSample('hardness', { hardnessMgL }) },
    { label: 'Alkalinity', dimension: 'alkalinityMgL' as const, optional: true, blamed: blamed.value.alkalinity, modelValue: sample.alkalinityMgL, write: (alkalinityMgL: number | null) => setSample('alkalinity', { alkalinityMgL }) },
    { label: 'pH', dimension: 'ph' as const, optional: true, blamed: blamed.value.pH, modelValue: sample.pH, write: (pH: number | null) => setSample('pH', { pH }) },
  ];
});
/** What belongs to the place rather than to the sample. */
const siteFields = computed(() => {
  const source = system.value?.source;
  if (!source) return [];
  const { chlorineMgL, chloramineMgL } = source.sample;
  return [
    { label: 'Line pressure', dimension: 'pressureBar' as const, modelValue: source.linePressureBar, write: needed((linePressureBar) => setSource('line pressure', { linePressureBar })) },
    { label: 'Coldest water of the year', dimension: 'temperatureC' as const, modelValue: source.lowestTemperatureC, write: needed((lowestTemperatureC) => setSource('coldest water', { lowestTemperatureC })) },
    { label: 'Free chlorine', dimension: 'concentrationMgL' as const, high: 20, modelValue: chlorineMgL, write: needed((value) => setSample('chlorine', { chlorineMgL: value })) },
    { label: 'Chloramine', dimension: 'concentrationMgL' as const, high: 20, modelValue: chloramineMgL, write: needed((value) => setSample('chloramine', { chloramineMgL: value })) },
  ];
});

/** Scales a pen or in-line meter may have; the factor ones are what instruments print. */
const SCALES: readonly { readonly key: string; readonly title: string; readonly scale: MeterScale; readonly factor: number | null }[] = [
  { key: 'ec', title: 'Conductivity, µS/cm', scale: { kind: 'conductivity' }, factor: null },
  { key: 'f0.5', title: 'ppm, factor 0.5', scale: { kind: 'factor', factor: 0.5 }, factor: 0.5 },
  { key: 'f0.55', title: 'ppm, factor 0.55', scale: { kind: 'factor', factor: 0.55 }, factor: 0.55 },
  { key: 'f0.64', title: 'ppm, factor 0.64', scale: { kind: 'factor', factor: 0.64 }, factor: 0.64 },
  { key: 'f0.7', title: 'ppm, factor 0.7', scale: { kind: 'factor', factor: 0.7 }, factor: 0.7 },
  { key: 'cNaCl', title: 'ppm as NaCl', scale: { kind: 'curve', salt: 'NaCl' }, factor: 0.5 },
  { key: 'cKCl', title: 'ppm as KCl', scale: { kind: 'curve', salt: 'KCl' }, factor: 0.52 },
  { key: 'c442', title: 'ppm as 442 natural water', scale: { kind: 'curve', salt: '442' }, factor: 0.68 },
];
const scaleKey = computed(() => {
  const scale = instrument.value?.scale;
  if (!scale) return 'f0.5';
  return scale.kind === 'conductivity' ? 'ec' : scale.kind === 'factor' ? `f${scale.factor}` : `c${scale.salt}`;
});
const readingUnit = computed(() => (instrument.value?.scale.kind === 'conductivity' ? 'µS/cm' : 'ppm'));
function setScale(key: string): void {
  const choice = SCALES.find((candidate) => candidate.key === key);
  const target = instrument.value;
  if (!choice || !target) return;
  // Probes of the system share this meter's scale unless they have their own; the ppm shown everywhere follow it.
  current.edit('meter scale', (s) => ({
    ...s,
    instruments: s.instruments.map((candidate): Instrument => (candidate.id === target.id ? { ...candidate, scale: choice.scale } : candidate)),
    units: choice.factor === null ? s.units : { ...s.units, ppmFactor: choice.factor },
  }));
}
const characters = CHARACTERS.filter((key) => key !== 'seawater').map((key) => ({ title: CHARACTER_ROWS[key].label, value: key, props: { subtitle: CHARACTER_ROWS[key].says } }));
const hardnessUnits = ['mg/L CaCO₃', '°dH', 'gpg', '°fH'] as const;
/** The reading is a plain number in the meter's own unit; its conductivity is worked out by its scale. */
const plainUnits = computed(() => ({ system: 'metric' as const, hardness: 'mg/L CaCO₃' as const, ppmFactor: 1 }));
</script>

<template>
  <div v-if="system" class="work">
    <main class="stack">
      <div class="page-head"><h1>What comes out of the tap</h1></div>
      <section class="sheet panel entry">
        <div class="grid">
          <div class="labelled">
            <span>Kind of supply</span>
            <v-select
              :items="characters"
              :model-value="system.source.sample.character"
              aria-label="Kind of supply"
              @update:model-value="setSample('kind of supply', { character: $event })"
            />
          </div>
          <div class="labelled">
            <span>Meter scale</span>
            <v-select
              :items="SCALES"
              item-value="key"
              item-title="title"
              :model-value="scaleKey"
              aria-label="Meter scale"
              @update:model-value="setScale"
            />
          </div>
          <QuantityField
            label="Meter reading"
            dimension="count"
            optional
            :low="0"
            :high="200000"
            :units="plainUnits"
            :blamed="blamed.reading"
            :model-value="system.source.sample.reading"
            :note="`as the meter shows it, ${readingUnit}`"
            @update:model-value="setSample('reading', { reading: $event })"
          />
          <QuantityField
            v-for="{ write, ...field } in sampleFields"
            :key="field.label"
            v-bind="field"
            :units="system.units"
            @update:model-value="write($event)"
          />
          <div class="labelled">
            <span>Hardness is shown in</span>
            <v-select
              :items="hardnessUnits"
              :model-value="system.units.hardness"
              aria-label="Hardness unit"
              @update:model-value="current.edit('hardness unit', (s) => ({ ...s, units: { ...s.units, hardness: $event } }))"
            />
          </div>
        </div>
        <div class="grid second">
          <QuantityField
            v-for="{ write, ...field } in siteFields"
            :key="field.label"
            v-bind="field"
            :units="system.units"
            @update:model-value="write($event)"
          />
        </div>
        <FindingCard
          v-if="error"
          :finding="{ severity: 'bad', title: 'These numbers do not make one water', why: error.message }"
          data-testid="water-error"
        />
      </section>
      <section v-if="completed" class="sheet panel"><CompositionBars :completed="completed" /></section>
      <section v-if="completed && state" class="sheet scales">
        <HardnessScales :hardness-mg-l="state.hardnessMgL" :alkalinity-mg-l="completed.water.alkalinityMgL" />
      </section>
    </main>
    <aside>
      <TrainStrip />
      <FindingsList v-if="findings.length > 0" title="What this water means" :findings="findings" />
    </aside>
  </div>
</template>

<style scoped>
.entry { display: grid; gap: 14px; }
.grid { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 10px 14px; }
.second { border-top: 1px solid var(--hair); padding-top: 12px; }
.labelled { display: grid; gap: 3px; align-content: start; }
.labelled span { font-size: 13.3px; font-weight: 600; color: var(--muted); }
.labelled :deep(.v-select__selection-text) { font-size: 14.5px; }
.scales { padding: 4px 0; }
@media (max-width: 1000px) { .grid { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
@media (max-width: 420px) { .grid { gap: 10px; } }
</style>
