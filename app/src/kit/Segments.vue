<script setup lang="ts" generic="T extends string">
/** One choice of a few, side by side; arrow keys move along it. */
const props = defineProps<{ label: string; choices: readonly { readonly value: T; readonly title: string }[]; modelValue: T }>();
const emit = defineEmits<{ 'update:modelValue': [value: T] }>();
function step(event: KeyboardEvent, by: number): void {
  const at = props.choices.findIndex((choice) => choice.value === props.modelValue);
  const next = props.choices[(at + by + props.choices.length) % props.choices.length];
  if (next) emit('update:modelValue', next.value);
  const buttons = (event.currentTarget as HTMLElement).querySelectorAll('button');
  buttons[(at + by + buttons.length) % buttons.length]?.focus();
}
</script>

<template>
  <div
    class="segments"
    role="radiogroup"
    :aria-label="label"
    @keydown.right.prevent="step($event, 1)"
    @keydown.left.prevent="step($event, -1)"
  >
    <button
      v-for="choice in choices"
      :key="choice.value"
      type="button"
      role="radio"
      :aria-checked="choice.value === modelValue"
      :tabindex="choice.value === modelValue ? 0 : -1"
      @click="emit('update:modelValue', choice.value)"
    >
      {{ choice.title }}
    </button>
  </div>
</template>
