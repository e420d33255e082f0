<script setup lang="ts">
import type { Instrument } from '@yes-clear/core/file';
import { shownUnitOf } from '@yes-clear/core/log';
import { METER_FORM_ROWS, METER_FORMS, type MeterForm } from '@yes-clear/core/template';
import { computed } from 'vue';
import type { MeterChoice } from './useProbeEdits';

/** The meter a probe is read by: one of the system's, or a new one of a kind. */
const props = defineProps<{ label: string; instruments: readonly Instrument[]; modelValue: MeterChoice }>();
const emit = defineEmits<{ 'update:modelValue': [meter: MeterChoice] }>();
const NEW = 'new:';
const items = computed(() => [
  ...props.instruments.map((one) => ({ value: one.id, title: `${one.name}, ${one.carried ? 'carried, ' : ''}${shownUnitOf(one)}` })),
  ...METER_FORMS.map((form) => ({ value: NEW + form, title: `New: ${METER_FORM_ROWS[form].label}` })),
]);
const chosen = computed(() => (typeof props.modelValue === 'string' ? props.modelValue : NEW + props.modelValue.make));
const choose = (key: string): void => emit('update:modelValue', key.startsWith(NEW) ? { make: key.slice(NEW.length) as MeterForm } : key);
</script>

<template>
  <v-select :items="items" :model-value="chosen" :aria-label="label" @update:model-value="choose" />
</template>
