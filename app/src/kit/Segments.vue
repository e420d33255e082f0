<script setup lang="ts" generic="T extends string, C extends { readonly value: T; readonly title: string }">
import { useTemplateRef } from 'vue';

/** One choice of a few, arrow keys move along it: joined side by side, as loose chips, or as cards with what the slot puts in them. */
const props = withDefaults(
  defineProps<{ label: string; choices: readonly C[]; modelValue: T | null; look?: 'joined' | 'chips' | 'cards' }>(),
  { look: 'joined' },
);
const emit = defineEmits<{ 'update:modelValue': [value: T] }>();
defineSlots<{ default?: (slot: { choice: C }) => unknown }>();
const buttons = useTemplateRef<HTMLButtonElement[]>('buttons');
function step(by: number): void {
  const { length } = props.choices;
  const at = Math.max(
    0,
    props.choices.findIndex((choice) => choice.value === props.modelValue),
  );
  const next = (at + by + length) % length;
  const choice = props.choices[next];
  if (!choice) return;
  emit('update:modelValue', choice.value);
  buttons.value?.[next]?.focus();
}
/** One of them is always to be reached by the tab key. */
const reachable = (choice: C, i: number): boolean =>
  props.choices.some(({ value }) => value === props.modelValue) ? choice.value === props.modelValue : i === 0;
</script>

<template>
  <div
    role="radiogroup"
    :class="look === 'joined' ? 'segments' : look"
    :aria-label="label"
    @keydown.right.prevent="step(1)"
    @keydown.down.prevent="step(1)"
    @keydown.left.prevent="step(-1)"
    @keydown.up.prevent="step(-1)"
  >
    <button
      v-for="(choice, i) in choices"
      :key="choice.value"
      ref="buttons"
      type="button"
      role="radio"
      :class="look === 'chips' ? ['button', 'small', { primary: choice.value === modelValue }] : look === 'cards' ? 'card' : undefined"
      :aria-checked="choice.value === modelValue"
      :tabindex="reachable(choice, i) ? 0 : -1"
      @click="emit('update:modelValue', choice.value)"
    >
      <slot :choice="choice">{{ choice.title }}</slot>
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.chips { display: flex; gap: 6px; flex-wrap: wrap; }
</style>
