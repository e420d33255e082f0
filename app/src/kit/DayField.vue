<script setup lang="ts">
import { FIRST_YEAR, isLikelyDate, LAST_YEAR } from '@yes-clear/core/file';
import { computed, ref, useId } from 'vue';

/**
 * A calendar day, as on a cartridge or a report. An emptied field keeps the day it had unless it may be empty; a day in a
 * year in which nothing here can have happened is asked about and not taken.
 */
const props = defineProps<{ label: string; modelValue: string | null; optional?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [day: string | null] }>();
const id = useId();
const refused = ref<string | null>(null);
const says = computed(() =>
  refused.value === null ? '' : `${props.label} is ${refused.value}: is the year right? Accepted is ${FIRST_YEAR} to ${LAST_YEAR}.`,
);
function changed(text: string): void {
  refused.value = text !== '' && !isLikelyDate(text) ? text : null;
  if (refused.value !== null) return;
  if (text !== '') emit('update:modelValue', text);
  else if (props.optional) emit('update:modelValue', null);
}
</script>

<template>
  <label class="labelled"
    ><span>{{ label }}</span
    ><input
      class="plain-input"
      type="date"
      max="9999-12-31"
      :value="refused ?? modelValue ?? ''"
      :aria-invalid="refused ? 'true' : 'false'"
      :aria-describedby="id"
      @change="changed(($event.target as HTMLInputElement).value)"
    /><em v-if="says" :id="id" role="alert">{{ says }}</em></label
  >
</template>

<!-- prettier-ignore -->
<style scoped>
em { color: var(--bad); font-style: normal; font-size: 13px; font-weight: 550; grid-column: 1 / -1; }
</style>
