<script setup lang="ts">
import { formatIn, roundForReading } from '@yes-clear/core/quantity';
import { dryResidueMgL, readingFromEc25, type MeterScale, type Water } from '@yes-clear/core/water';
import { computed } from 'vue';

/** One water under every name "TDS" goes by: three different things, and four scales of one of them. */
const props = defineProps<{ water: Water; ec25UScm: number; tdsMgL: number; /** Nothing of it was measured. */ assumed: boolean }>();
function ppm(scale: MeterScale): string {
  const shown = readingFromEc25(props.ec25UScm, scale);
  return shown === null ? 'off its scale' : `${roundForReading(kept(shown))} ppm`;
}
/** Two digits are all an assumed figure has. */
const kept = (value: number): number => (props.assumed ? Number(value.toPrecision(2)) : value);
const kinds = computed(() => [
  { label: 'Sum of ions', text: `${roundForReading(kept(props.tdsMgL))} mg/L` },
  { label: 'Dry residue', text: `${roundForReading(kept(dryResidueMgL(props.water)))} mg/L` },
  { label: 'Conductivity', text: formatIn(props.ec25UScm, 'conductivityUScm', 'µS/cm').text },
  { label: 'Pen × 0.5', text: ppm({ kind: 'factor', factor: 0.5 }) },
  { label: 'Pen × 0.7', text: ppm({ kind: 'factor', factor: 0.7 }) },
  { label: 'As NaCl', text: ppm({ kind: 'curve', salt: 'NaCl' }) },
  { label: 'As mixed salts', text: ppm({ kind: 'curve', salt: 'mixedSalts' }) },
]);
</script>

<template>
  <dl class="solids">
    <div v-for="kind in kinds" :key="kind.label">
      <dt>{{ kind.label }}</dt>
      <dd>{{ assumed ? '~' : '' }}{{ kind.text }}</dd>
    </div>
  </dl>
</template>

<!-- prettier-ignore -->
<style scoped>
.solids { display: grid; grid-template-columns: repeat(auto-fit, minmax(104px, 1fr)); gap: 8px 12px; margin: 0; padding: 10px 14px; }
dt { font-size: 13.3px; color: var(--muted); }
dd { margin: 0; font-weight: 650; }
</style>
