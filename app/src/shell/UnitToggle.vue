<script setup lang="ts">
import type { UnitSystem } from '@yes-clear/core/quantity';
import { useMediaQuery } from '@vueuse/core';
import { computed } from 'vue';
import Segments from '../kit/Segments.vue';

/** ppm and psi, or µS and bar. Switching never changes a stored value. */
const props = defineProps<{ modelValue: UnitSystem }>();
const emit = defineEmits<{ 'update:modelValue': [system: UnitSystem] }>();
const CHOICES = [
  { value: 'trade', title: 'ppm · psi' },
  { value: 'metric', title: 'µS · bar' },
] as const;
/** On a phone only the chosen one is shown; pressing it chooses the other. */
const narrow = useMediaQuery('(max-width: 860px)');
const shown = computed(() => (narrow.value ? CHOICES.filter(({ value }) => value === props.modelValue) : CHOICES));
const other = computed(() => (props.modelValue === 'trade' ? 'metric' : 'trade'));
const choose = (value: UnitSystem): void => emit('update:modelValue', narrow.value ? other.value : value);
</script>

<template>
  <Segments class="units" label="Units" :choices="shown" :model-value="modelValue" @update:model-value="choose" />
</template>

<!-- prettier-ignore -->
<style scoped>
.units :deep(button) { color: var(--muted); font: 650 13px var(--digits); padding: 7px 10px; min-height: 32px; }
.units :deep(button[aria-checked='true']) { background: var(--ink); color: var(--paper); }
@media (max-width: 860px) { .units :deep(button) { padding: 7px 9px; min-height: 40px; } }
</style>
