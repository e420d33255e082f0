<script setup lang="ts">
import { ref, watch } from 'vue';

/**
 * A name or a few words, kept at every key: a text that is typed and not left is not lost. What a name is trimmed to is
 * shown on leaving; where it may not be empty, an emptied field keeps the last name.
 */
const props = defineProps<{ label: string; modelValue: string; maxlength: number; mayBeEmpty?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [text: string] }>();
const text = ref(props.modelValue);
const editing = ref(false);
watch(
  () => props.modelValue,
  (value) => {
    if (!editing.value) text.value = value;
  },
);
function typed(next: string): void {
  editing.value = true;
  text.value = next;
  const trimmed = next.trim();
  if (trimmed !== '' || props.mayBeEmpty) emit('update:modelValue', trimmed);
}
function left(): void {
  editing.value = false;
  text.value = props.modelValue;
}
</script>

<template>
  <input
    :value="text"
    :maxlength="maxlength"
    :aria-label="label"
    autocomplete="off"
    @input="typed(($event.target as HTMLInputElement).value)"
    @blur="left"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
  />
</template>
