<script setup lang="ts">
import { parseQuantity } from '@yes-clear/core/quantity';
import { ref, watch } from 'vue';

/** What one costs: an amount of money, or nothing where nobody knows it yet. What cannot be read stays and says why. */
const props = defineProps<{ label: string; modelValue: number | null; most?: number }>();
const emit = defineEmits<{ 'update:modelValue': [value: number | null] }>();
const shown = (value: number | null): string => (value === null ? '' : value.toFixed(2));
const text = ref(shown(props.modelValue));
const error = ref('');
watch(
  () => props.modelValue,
  (value) => (text.value = shown(value)),
);
function left(): void {
  error.value = '';
  if (text.value.trim() === '') {
    if (props.modelValue !== null) emit('update:modelValue', null);
    return;
  }
  const read = parseQuantity(text.value, 'count', { field: props.label, low: 0, high: props.most ?? 1_000_000 });
  if (!read.ok) {
    error.value = read.error.message;
    return;
  }
  if (Math.abs(read.value.value - (props.modelValue ?? -1)) > 0.004) emit('update:modelValue', read.value.value);
  else text.value = shown(props.modelValue);
}
</script>

<template>
  <span class="price">
    <input
      v-model="text"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      :aria-label="label"
      :aria-invalid="error !== ''"
      :placeholder="'no price'"
      @change="left"
      @keydown.enter="left"
    />
    <span v-if="error" class="wrong" role="alert">{{ error }}</span>
  </span>
</template>

<!-- prettier-ignore -->
<style scoped>
.price { display: inline-grid; justify-items: end; }
input { width: 84px; font: 450 14px var(--digits); font-variant-numeric: tabular-nums; text-align: right; padding: 3px 8px; border: 1px solid transparent; border-radius: 7px; background: transparent; color: var(--ink); }
input:hover, input:focus { border-color: var(--line); background: var(--paper); }
input[aria-invalid='true'] { border-color: var(--bad); }
input::placeholder { color: var(--warning); opacity: 1; }
.wrong { color: var(--bad); font-size: 13px; max-width: 240px; text-align: right; }
</style>
