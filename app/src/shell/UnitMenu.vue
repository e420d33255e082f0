<script setup lang="ts">
import { UNIT_CHOICES, UNIT_PRESETS, presetOf, withPreset, type Measured, type UnitPreference } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { focusMenu } from '../kit/focusMenu';
import Segments from '../kit/Segments.vue';

/** The units figures are shown in: a set that goes together, or each for itself. Switching never changes a stored value. */
const props = defineProps<{ modelValue: UnitPreference }>();
const emit = defineEmits<{ 'update:modelValue': [units: UnitPreference] }>();

const NAMES: Readonly<Record<Measured, string>> = {
  strength: 'Strength of water',
  pressure: 'Pressure',
  temperature: 'Temperature',
  volume: 'Volume',
  flow: 'Flow',
  length: 'Length',
  hardness: 'Hardness',
};
const TITLES: Readonly<Record<string, string>> = { 'MΩ·cm': 'MΩ·cm when pure', 'mg/L CaCO₃': 'mg/L CaCO₃' };
const rows = computed(() =>
  (Object.keys(UNIT_CHOICES) as Measured[]).map((measured) => ({
    measured,
    name: NAMES[measured],
    choices: UNIT_CHOICES[measured].map((value) => ({ value: value as string, title: TITLES[value] ?? value })),
    value: props.modelValue[measured] as string,
  })),
);
const sets = UNIT_PRESETS.map(({ key, title }) => ({ value: key, title }));
const preset = computed(() => presetOf(props.modelValue));
const SHORT: Readonly<Record<string, string>> = { 'µS/cm': 'µS', 'MΩ·cm': 'MΩ' };
const short = computed(() => `${SHORT[props.modelValue.strength] ?? props.modelValue.strength} · ${props.modelValue.pressure}`);
const choose = (measured: Measured, unit: string): void => emit('update:modelValue', { ...props.modelValue, [measured]: unit });
</script>

<template>
  <v-menu location="bottom end" :close-on-content-click="false" @update:model-value="focusMenu">
    <template #activator="{ props: opens }">
      <button v-bind="opens" class="button units" type="button" :aria-label="`Units: ${short}`">{{ short }}</button>
    </template>
    <section class="sheet panel" role="dialog" aria-label="Units">
      <Segments
        class="sets"
        look="chips"
        label="Units that go together"
        :choices="sets"
        :model-value="preset"
        @update:model-value="emit('update:modelValue', withPreset(modelValue, $event))"
      />
      <div v-for="row in rows" :key="row.measured" class="row">
        <span>{{ row.name }}</span>
        <Segments
          class="each"
          look="chips"
          :label="row.name"
          :choices="row.choices"
          :model-value="row.value"
          @update:model-value="choose(row.measured, $event)"
        />
      </div>
    </section>
  </v-menu>
</template>

<!-- prettier-ignore -->
<style scoped>
.units { font: 650 13px var(--digits); padding: 7px 11px; min-height: 38px; white-space: nowrap; }
.panel { display: grid; gap: 8px; padding: 14px; max-width: min(560px, calc(100vw - 24px)); max-height: 80vh; overflow: auto; }
.sets { padding-bottom: 8px; border-bottom: 1px solid var(--line); }
.row { display: grid; grid-template-columns: 128px 1fr; align-items: center; gap: 10px; font-size: 13.3px; font-weight: 600; color: var(--muted); }
.each :deep(button) { font: 600 13px var(--digits); padding: 4px 9px; min-height: 30px; }
@media (max-width: 860px) { .units { min-height: 40px; padding: 7px 9px; } .each :deep(button) { min-height: 40px; } .row { grid-template-columns: 1fr; gap: 3px; } }
</style>
