<script setup lang="ts">
import type { Source } from '@yes-clear/core/file';
import { siltDensityIndex } from '@yes-clear/core/pretreatment';
import { computed } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import { PLAIN_UNITS } from './meterScales';

/** How fast a fine filter plugs: two fillings of half a litre, timed. */
const props = defineProps<{ silt: Source['silt'] }>();
const emit = defineEmits<{ change: [silt: Source['silt']] }>();

/** What a test starts with: fifteen minutes, and a water that plugs nothing yet. */
const FIRST: NonNullable<Source['silt']> = { initialSeconds: 30, finalSeconds: 36, minutes: 15 };
const result = computed(() => props.silt && siltDensityIndex(props.silt.initialSeconds, props.silt.finalSeconds, props.silt.minutes));
const set = (changes: Partial<NonNullable<Source['silt']>>): void => emit('change', { ...(props.silt ?? FIRST), ...changes });
</script>

<template>
  <section class="sheet panel stack" aria-label="Silt density">
    <div class="headed">
      <h2>Silt density</h2>
      <p class="muted small">500 mL through 0.45 µm at 2.1 bar, timed at once and again after a quarter of an hour.</p>
      <button v-if="!silt" class="button" type="button" @click="emit('change', FIRST)">Enter a test</button>
      <button v-else class="button small danger" type="button" @click="emit('change', null)">Take it out</button>
    </div>
    <template v-if="silt && result">
      <div class="field-grid">
        <QuantityField
          label="First filling, s"
          dimension="count"
          :low="1"
          :high="3600"
          :units="PLAIN_UNITS"
          :model-value="silt.initialSeconds"
          @update:model-value="$event !== null && set({ initialSeconds: $event })"
        />
        <QuantityField
          label="Last filling, s"
          dimension="count"
          :low="1"
          :high="36000"
          :units="PLAIN_UNITS"
          :model-value="silt.finalSeconds"
          @update:model-value="$event !== null && set({ finalSeconds: $event })"
        />
        <QuantityField
          label="Time between, min"
          dimension="count"
          :low="1"
          :high="60"
          :units="PLAIN_UNITS"
          :model-value="silt.minutes"
          @update:model-value="$event !== null && set({ minutes: $event })"
        />
      </div>
      <p v-if="result.ok" class="result">
        SDI{{ result.value.minutes }} <strong>{{ result.value.index.toFixed(1) }}</strong>
        <span v-if="result.value.pastLimit" class="muted"> past the limit: in 15 min it is above 5</span>
        <span v-else class="muted"> at most 5 before a membrane, 3 is aimed at</span>
      </p>
      <p v-else class="stopped" role="alert">{{ result.error.message }}</p>
    </template>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { flex: 1 1 200px; }
.result { font-size: 14.5px; }
.stopped { color: var(--bad); font-weight: 550; font-size: 13.6px; }
</style>
