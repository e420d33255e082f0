<script setup lang="ts">
import { boundsOf, type Dimension, type Outcome, type UnitPreference, type Usual } from '@yes-clear/core/quantity';
import { computed, useId } from 'vue';
import type { ZodType } from 'zod';
import { useQuantityInput } from './useQuantityInput';

/** One field for every physical quantity. `row` sets label and box side by side; `big` is for wet hands. */
const props = defineProps<{
  label: string;
  dimension: Dimension;
  units: UnitPreference;
  modelValue: number | null;
  unit?: string;
  /** Where the model holds it: its bounds are the field's. */
  of?: ZodType;
  low?: number;
  high?: number;
  optional?: boolean;
  /** What it usually holds; a figure outside asks which unit was meant. */
  usual?: Usual;
  /** How its text is read, where a meter's own unit is in it. */
  reads?: (text: string) => Outcome<number>;
  look?: 'row' | 'big' | 'column';
  note?: string;
  /** What stands in the field while it is empty. */
  empty?: string;
  /** Filled in by a template and looked at by nobody: marked, with the way to confirm it. */
  assumed?: boolean;
  /** Understood, but at odds with another field: marked without a message of its own. */
  blamed?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; typed: [text: string]; confirm: [] }>();
const id = useId();
const bounds = computed(() => (props.of ? boundsOf(props.of) : {}));
const { text, error, symbol, hint, doubt, typed, left, meant } = useQuantityInput({
  value: () => props.modelValue,
  dimension: () => props.dimension,
  label: () => props.label,
  units: () => props.units,
  unit: () => props.unit,
  low: () => props.low ?? bounds.value.low,
  high: () => props.high ?? bounds.value.high,
  optional: () => props.optional ?? false,
  usual: () => props.usual,
  reads: () => props.reads,
  changed: (value, raw) => {
    emit('update:modelValue', value);
    emit('typed', raw);
    // Typed as it stood: somebody has looked.
    if (props.assumed && value !== null && value === props.modelValue) emit('confirm');
  },
});
</script>

<template>
  <div class="quantity" :class="[look ?? 'column', { wrong: error, blamed }]">
    <label :for="id">{{ label }}</label>
    <div class="box">
      <input
        :id="id"
        :value="text"
        type="text"
        inputmode="text"
        autocomplete="off"
        spellcheck="false"
        :placeholder="optional ? (empty ?? 'not measured') : ''"
        :aria-invalid="error ? 'true' : 'false'"
        :aria-describedby="`${id}-says`"
        @input="typed(($event.target as HTMLInputElement).value)"
        @blur="left"
        @keydown.enter="left"
      />
      <span v-if="symbol" class="unit">{{ symbol }}</span>
    </div>
    <p v-if="doubt" class="asks doubt" role="status">
      {{ doubt.says }}
      <button v-for="choice in doubt.choices" :key="choice" type="button" @click="meant(choice)">{{ choice }}</button>
    </p>
    <p v-if="assumed" class="asks">
      Assumed, not looked at.
      <button type="button" :aria-label="`${label} is right as it stands`" @click="emit('confirm')">It is right</button>
    </p>
    <p :id="`${id}-says`" class="says" :role="error ? 'alert' : undefined">
      <template v-if="error">{{ error }}</template>
      <template v-else-if="look !== 'row'">{{ [hint, note].filter(Boolean).join(' · ') }}</template>
    </p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.quantity { display: grid; gap: 3px; align-content: start; }
label { font-size: 13.3px; font-weight: 600; color: var(--muted); }
.box { display: flex; align-items: center; border: 1px solid var(--line); border-radius: 9px; background: var(--sheet); padding: 0 10px; min-height: 38px; }
.box:focus-within { border-color: var(--action); box-shadow: inset 0 0 0 1px var(--action); }
input { flex: 1 1 0; min-width: 0; width: 100%; border: 0; outline: 0; background: transparent; color: inherit; font: 500 15px var(--typed); padding: 6px 0; }
input::placeholder { color: var(--muted); opacity: 0.75; font-family: var(--digits); font-size: 13.5px; }
.unit { color: var(--muted); font-size: 13.3px; padding-left: 8px; white-space: nowrap; }
.says { min-height: 0; font-size: 13px; color: var(--muted); }
.asks { font-size: 13px; color: var(--muted); }
.doubt { color: var(--warning); font-weight: 550; }
.asks button { border: 0; background: transparent; padding: 8px 6px; margin: -6px 0; font: inherit; font-weight: 650; color: var(--action); text-decoration: underline; cursor: pointer; }
.wrong .box, .blamed .box { border-color: var(--bad); box-shadow: inset 0 0 0 1px var(--bad); }
.wrong .says { color: var(--bad); font-weight: 550; }
.row { grid-template-columns: minmax(0, 1fr) 132px; align-items: center; column-gap: 8px; }
.row label { font-weight: 450; font-size: 13.6px; }
.row .box { min-height: 30px; border-radius: 8px; padding: 0 9px; }
.row input { text-align: right; font-size: 14px; padding: 2px 0; }
.row .unit { padding-left: 5px; font-size: 13px; }
.row .says { grid-column: 1 / -1; }
.big .box { min-height: 50px; padding: 0 14px; border-radius: 11px; }
.big input { font: 600 21px var(--digits); }
</style>
