<script setup lang="ts">
import { minutesText } from './say';

/** Something that can be done at the rig: what it is called, how long it takes, and what could hurt. */
defineProps<{ label: string; minutes: number; says: string; caution?: string | null; busy: boolean }>();
defineEmits<{ act: [] }>();
</script>

<template>
  <button type="button" class="tool" :aria-disabled="busy" @click="$emit('act')">
    <span class="name"
      >{{ label }} <small>{{ minutesText(minutes) }}</small></span
    >
    <span class="says">{{ says }}</span>
    <span v-if="caution" class="caution">{{ caution }}</span>
  </button>
</template>

<!-- prettier-ignore -->
<style scoped>
.tool { display: grid; gap: 1px; align-content: start; text-align: left; background: var(--sheet); border: 1px solid var(--line); border-radius: 10px; padding: 8px 11px 9px; font: inherit; color: var(--ink); cursor: pointer; min-height: 52px; }
.tool:hover { border-color: var(--muted); }
.name { font-weight: 650; font-size: 14px; display: flex; justify-content: space-between; gap: 8px; }
.name small { font: 500 13px var(--typed); color: var(--muted); white-space: nowrap; }
.says { font-size: 13.2px; color: var(--muted); }
.caution { font-size: 12.8px; line-height: 1.3; color: var(--warning); padding-top: 3px; }
</style>
