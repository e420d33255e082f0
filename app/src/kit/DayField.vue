<script setup lang="ts">
/** A calendar day, as on a cartridge or a report. An emptied field keeps the day it had unless it may be empty. */
const props = defineProps<{ label: string; modelValue: string | null; optional?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [day: string | null] }>();
function changed(text: string): void {
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
      :value="modelValue ?? ''"
      @change="changed(($event.target as HTMLInputElement).value)"
  /></label>
</template>
