<script setup lang="ts">
import type { Doubt } from '@yes-clear/core/log';
import { nextTick, useTemplateRef, watch } from 'vue';

/** Figures that look like slips, each with what it probably was: asked about before they count. */
const props = defineProps<{ doubts: readonly Doubt[] }>();
defineEmits<{ answer: [doubt: Doubt, how: 'probably' | 'asTyped'] }>();
const first = useTemplateRef<HTMLElement>('first');
// The answer is where the hand was: on the keys.
watch(
  () => props.doubts,
  () => void nextTick(() => first.value?.querySelector('button')?.focus()),
  { immediate: true },
);
</script>

<template>
  <ul ref="first" class="doubts" role="alert" aria-label="Before it counts">
    <li v-for="doubt in doubts" :key="doubt.field">
      <p>{{ doubt.says }}</p>
      <div class="row">
        <button v-if="doubt.probably" type="button" class="button small primary" @click="$emit('answer', doubt, 'probably')">
          {{ doubt.probably.text }}
        </button>
        <button type="button" class="button small" @click="$emit('answer', doubt, 'asTyped')">{{ doubt.asTyped }}</button>
      </div>
    </li>
  </ul>
</template>

<!-- prettier-ignore -->
<style scoped>
.doubts { list-style: none; margin: 0; padding: 0; display: grid; gap: 10px; }
li { border-left: 4px solid var(--warning); padding: 2px 0 2px 12px; display: grid; gap: 7px; }
p { margin: 0; font-size: 14px; line-height: 1.35; }
.row { gap: 8px; flex-wrap: wrap; }
@media (max-width: 860px) { .button { min-height: 44px; } }
</style>
