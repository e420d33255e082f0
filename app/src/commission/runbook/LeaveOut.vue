<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';

/** Asks for the reason when a step is left out or a figure taken as it is; without one nothing happens. */
const props = defineProps<{ asks: keyof typeof TITLES; costs: string }>();
const emit = defineEmits<{ say: [reason: string]; cancel: [] }>();
const reason = ref('');
const field = useTemplateRef<HTMLInputElement>('field');
onMounted(() => void nextTick(() => field.value?.focus()));
const usual = computed(() => REASONS[props.asks]);
const say = (): void => {
  const text = reason.value.trim();
  if (text !== '') emit('say', text.slice(0, 500));
};
</script>

<script lang="ts">
const TITLES = {
  skip: 'Leave this step out',
  figure: 'Go on with a figure outside its bounds',
  no: 'It was answered no: go on all the same',
  blank: 'Go on without what was not read or answered',
} as const;
const REASONS: Readonly<Record<keyof typeof TITLES, readonly string[]>> = {
  skip: ['Not on this site', 'Done before', 'No tool for it today'],
  figure: ['Agreed with the customer', 'Mended later', 'The meter is off'],
  no: ['Mended later', 'Agreed with the customer'],
  blank: ['No instrument for it here', 'Read later', 'Timed by another clock'],
};
</script>

<template>
  <form class="sheet panel leave" @submit.prevent="say">
    <h3>{{ TITLES[asks] }}</h3>
    <p>{{ costs }}</p>
    <label>Why? It stands in the record.<input ref="field" v-model="reason" type="text" maxlength="500" autocomplete="off" /></label>
    <div class="row chips">
      <button v-for="text in usual" :key="text" class="button small" type="button" @click="reason = text">{{ text }}</button>
    </div>
    <div class="row">
      <button class="button primary" type="submit" :disabled="reason.trim() === ''">
        {{ asks === 'skip' ? 'Leave it out' : 'Go on' }}
      </button>
      <button class="button" type="button" @click="emit('cancel')">Back to the step</button>
    </div>
  </form>
</template>

<!-- prettier-ignore -->
<style scoped>
.leave { display: grid; gap: 8px; padding: 12px 16px; border-left: 4px solid var(--warning); }
label { display: grid; gap: 4px; font-weight: 600; font-size: 14px; }
input { font: 450 16px var(--digits); padding: 10px 12px; border: 1px solid var(--line); border-radius: 9px; background: var(--paper); color: var(--ink); }
@media (max-width: 860px) { .button { min-height: 46px; } }
</style>
