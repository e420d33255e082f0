<script setup lang="ts">
import type { PadField } from './usePad';

/** Big keys for a wet thumb: a field for each figure, one pad for all. */
defineProps<{ fields: readonly PadField[]; at: string; values: Readonly<Record<string, string>>; today: string }>();
defineEmits<{ select: [key: string]; press: [key: string]; next: []; day: [day: string] }>();
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0', '⌫'] as const;
</script>

<template>
  <div class="pads">
    <div class="fields">
      <label class="field day"
        ><span>Read on</span
        ><input
          type="date"
          :max="today"
          :value="values['when'] || today"
          aria-label="Read on"
          @change="$emit('day', ($event.target as HTMLInputElement).value)"
      /></label>
      <button
        v-for="field in fields"
        :key="field.key"
        type="button"
        class="field"
        :class="{ on: at === field.key }"
        :aria-pressed="at === field.key"
        @click="$emit('select', field.key)"
      >
        <span>{{ field.label }}</span><strong>{{ values[field.key] || '–' }}</strong
        ><span>{{ field.unit }}</span>
      </button>
    </div>
    <div class="keys">
      <button v-for="key in KEYS" :key="key" type="button" :aria-label="key === '⌫' ? 'delete' : key" @click="$emit('press', key)">
        {{ key }}
      </button>
      <button type="button" class="next" @click="$emit('next')">Next</button>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.pads { display: grid; gap: 10px; }
.fields { display: grid; grid-template-columns: repeat(4, 1fr); gap: 6px; }
.field { display: grid; justify-items: center; align-content: center; border: 1px solid var(--line); border-radius: 10px; background: var(--sheet); padding: 5px 2px; font: inherit; font-size: 13px; line-height: 1.2; color: var(--muted); min-width: 0; min-height: 62px; }
.field > span { max-width: 100%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.field strong { font-size: 20px; color: var(--ink); line-height: 1.2; }
.field.on { border: 2px solid var(--action); padding: 4px 1px; }
.day { grid-column: 1 / -1; grid-template-columns: auto 1fr; justify-items: start; align-items: center; gap: 12px; min-height: 46px; padding: 4px 12px; font-size: 14px; }
.day input { border: 0; background: transparent; font: 600 16px var(--digits); color: var(--ink); width: 100%; min-height: 36px; }
.keys { display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px; }
.keys button { height: 48px; border: 1px solid var(--line); border-radius: 11px; background: var(--paper); font: 600 22px var(--digits); color: var(--ink); touch-action: manipulation; }
.keys .next { grid-column: 1 / -1; height: 44px; font-size: 16px; }
</style>
