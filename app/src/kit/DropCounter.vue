<script setup lang="ts">
import type { Kit } from '@yes-clear/core/file';
import { formatQuantity, THIN, type UnitPreference } from '@yes-clear/core/quantity';
import { dropResult } from '@yes-clear/core/water';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import QuantityField from './QuantityField.vue';
import { DROP_KITS, kitOf } from './dropKits';

/** Counts drops with a wide target or the space bar, and says what they mean while they fall. */
type Count = NonNullable<Kit['hardnessCount']>;
const props = defineProps<{ what: 'hardness' | 'alkalinity'; units: UnitPreference; last: Count | null }>();
const emit = defineEmits<{ take: [result: { mgL: number; count: Count }]; close: [] }>();

const kit = ref(props.last ? kitOf(props.last) : 'degree');
const ownMg = ref(props.last?.mgPerDrop ?? 10);
const sampleMl = ref(props.last?.sampleMl ?? 5);
const drops = ref(0);

const chosen = computed(() => DROP_KITS.find((row) => row.key === kit.value));
const count = computed<Count>(() => ({
  drops: drops.value,
  sampleMl: sampleMl.value,
  mgPerDrop: chosen.value?.mgPerDrop ?? ownMg.value,
  nominalSampleMl: chosen.value?.nominalSampleMl ?? 5,
}));
const result = computed(() => dropResult(count.value));
const say = (mgL: number): string => formatQuantity(mgL, `${props.what}MgL`, props.units).text;
const shown = computed(() => (result.value.ok ? formatQuantity(result.value.value.resultMgL, `${props.what}MgL`, props.units) : null));

/** What twice the sample would give for the same water. */
const doubled = computed(() => dropResult({ ...count.value, drops: drops.value * 2, sampleMl: sampleMl.value * 2 }));
const advice = computed(() => {
  if (!result.value.ok) return result.value.error.message;
  const { advice: kind, stepMgL } = result.value.value;
  if (drops.value === 0) return `One drop is ${say(stepMgL)}. No drop at all means below one.`;
  if (kind === 'double' && doubled.value.ok)
    return `Few drops for a sharp figure: ${sampleMl.value * 2}${THIN}mL would halve the step to ${say(doubled.value.value.stepMgL)}, ±${say(doubled.value.value.plusMinusMgL)}.`;
  if (kind === 'halve') return `Many drops: ${sampleMl.value / 2}${THIN}mL would need half of them.`;
  return doubled.value.ok ? `One drop is ${say(stepMgL)}; twice the sample would make it ±${say(doubled.value.value.plusMinusMgL)}.` : '';
});

const add = (by: number): void => {
  drops.value = Math.min(200, Math.max(0, drops.value + by));
};
function take(): void {
  if (result.value.ok && drops.value > 0) emit('take', { mgL: result.value.value.resultMgL, count: count.value });
}
// One hand holds the vial: the whole keyboard is the counter, except inside a field.
useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if ((event.target as HTMLElement).closest('input, .v-select, .v-overlay__content .v-list')) return;
    if (event.code === 'Space') {
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat) add(1);
    } else if (event.key === 'Backspace') add(-1);
    else if (event.key === 'Enter' && !(event.target as HTMLElement).closest('button')) take();
  },
  { capture: true },
);
</script>

<template>
  <v-dialog :model-value="true" max-width="560" @update:model-value="emit('close')">
    <v-card class="counter" role="document" aria-label="Count drops">
      <header>
        <h2>Count drops for {{ what }}</h2>
        <button class="button small plain" type="button" @click="emit('close')">Close</button>
      </header>
      <div class="setup">
        <div class="labelled">
          <span>Kit</span>
          <v-select v-model="kit" :items="DROP_KITS" item-value="key" item-title="title" aria-label="Kit" />
        </div>
        <QuantityField
          v-if="kit === 'own'"
          label="One drop in 5 mL"
          dimension="hardnessMgL"
          unit="mg/L CaCO₃"
          :low="0.1"
          :high="1000"
          :units="units"
          :model-value="ownMg"
          @update:model-value="ownMg = $event ?? ownMg"
        />
        <div class="labelled">
          <span>Sample</span>
          <div class="segments" role="radiogroup" aria-label="Sample">
            <button v-for="ml in [5, 10, 20]" :key="ml" type="button" role="radio" :aria-checked="sampleMl === ml" @click="sampleMl = ml">
              {{ ml }}&nbsp;mL
            </button>
          </div>
        </div>
      </div>
      <button class="tap" type="button" aria-label="Count a drop" @click="add(1)">
        <span class="drops">{{ drops }}</span>
        <span>{{ drops === 1 ? 'drop' : 'drops' }}</span>
        <small>tap here or press <kbd>space</kbd> at each drop; stop when the colour turns</small>
      </button>
      <div class="result" aria-live="polite">
        <strong data-testid="drop-result">{{ shown?.text ?? '–' }}</strong>
        <span v-if="result.ok && drops > 0">±{{ say(result.value.plusMinusMgL) }}</span>
        <p>{{ advice }}</p>
      </div>
      <footer>
        <button class="button" type="button" :disabled="drops === 0" @click="add(-1)">One too many</button>
        <button class="button" type="button" :disabled="drops === 0" @click="drops = 0">Start again</button>
        <button class="button primary" type="button" :disabled="drops === 0 || !result.ok" @click="take">Take this figure</button>
      </footer>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.counter { padding: 16px 18px 18px; display: grid; gap: 14px; }
header { display: flex; justify-content: space-between; align-items: center; }
.setup { display: flex; gap: 14px; flex-wrap: wrap; align-items: flex-start; }
.setup .labelled:first-child { flex: 1 1 240px; }
.tap {
  display: grid; justify-items: center; gap: 2px; padding: 20px 14px 16px; border: 2px solid var(--action); border-radius: 16px; background: var(--select);
  color: var(--ink); font: inherit; cursor: pointer; touch-action: manipulation; user-select: none;
}
.tap:active { background: color-mix(in srgb, var(--action) 22%, var(--select)); }
.drops { font-size: 76px; line-height: 1; font-weight: 720; }
.tap small { font-size: 13.3px; color: var(--muted); margin-top: 8px; }
.result { display: flex; flex-wrap: wrap; gap: 0 10px; align-items: baseline; min-height: 72px; }
.result strong { font-size: 27px; }
.result span { font-size: 17px; color: var(--muted); }
.result p { flex: 1 0 100%; font-size: 13.6px; color: var(--muted); }
footer { display: flex; gap: 10px; justify-content: flex-end; flex-wrap: wrap; }
footer .primary { flex: 0 1 auto; }
@media (max-width: 480px) { footer .button { flex: 1 1 auto; justify-content: center; } .drops { font-size: 96px; } .tap { padding: 34px 14px 26px; } }
</style>
