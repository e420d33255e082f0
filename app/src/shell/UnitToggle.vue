<script setup lang="ts">
import type { UnitSystem } from '@yes-clear/core/quantity';
import { useMediaQuery } from '@vueuse/core';

/** ppm and psi, or µS and bar. Switching never changes a stored value. */
const props = defineProps<{ modelValue: UnitSystem }>();
const emit = defineEmits<{ 'update:modelValue': [system: UnitSystem] }>();
/** On a phone only the chosen one is shown; pressing it chooses the other. */
const narrow = useMediaQuery('(max-width: 860px)');
function choose(key: UnitSystem): void {
  const other = key === 'trade' ? 'metric' : 'trade';
  emit('update:modelValue', narrow.value && key === props.modelValue ? other : key);
}
const CHOICES = [
  { key: 'trade', label: 'ppm · psi', long: 'ppm, psi, °F, gallons' },
  { key: 'metric', label: 'µS · bar', long: 'µS/cm, bar, °C, litres' },
] as const;
</script>

<template>
  <div class="units" role="radiogroup" aria-label="Units">
    <button
      v-for="choice in CHOICES"
      :key="choice.key"
      type="button"
      role="radio"
      :aria-checked="modelValue === choice.key"
      :title="choice.long"
      @click="choose(choice.key)"
    >
      {{ choice.label }}
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.units { display: flex; border: 1px solid var(--line); border-radius: 9px; overflow: hidden; background: var(--sheet); }
button { border: 0; background: transparent; color: var(--muted); font: 650 13px var(--digits); padding: 7px 10px; cursor: pointer; white-space: nowrap; min-height: 32px; }
button[aria-checked='true'] { background: var(--ink); color: var(--paper); }
@media (max-width: 860px) { button { display: none; padding: 7px 9px; min-height: 40px; } button[aria-checked='true'] { display: block; } }
</style>
