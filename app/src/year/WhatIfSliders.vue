<script setup lang="ts">
import { moneyText, words, type UnitPreference } from '@yes-clear/core/quantity';
import type { Outlook } from '@yes-clear/core/year';
import { computed } from 'vue';
import type { Year } from './useYear';

/** What if: each pulled and seen at once. */
const props = defineProps<{ year: Year; outlook: Outlook; resinPrice: number; currency: string; units: UnitPreference }>();
const say = computed(() => words(props.units));
const now = computed(() => props.year.whatIf.value);
const percent = (factor: number): string => {
  const by = Math.round(100 * (factor - 1));
  return by === 0 ? 'as it is' : `${by > 0 ? '+' : '−'}${Math.abs(by)}\u202f%`;
};
const sliders = computed(() => [
  {
    key: 'strength',
    label: 'Tap strength',
    min: Math.min(1, Math.max(0.6, Math.ceil(20 * props.outlook.strengths[0]) / 20)),
    max: Math.max(1, Math.min(1.6, Math.floor(20 * props.outlook.strengths[1]) / 20)),
    step: 0.05,
    value: now.value.strength,
    says: percent(now.value.strength),
  },
  { key: 'use', label: 'Use', min: 0.5, max: 2, step: 0.05, value: now.value.use, says: percent(now.value.use) },
  {
    key: 'warmerC',
    label: 'Water',
    min: -4,
    max: 4,
    step: 0.5,
    value: now.value.warmerC,
    says:
      now.value.warmerC === 0
        ? 'as usual'
        : `${say.value.degrees(Math.abs(now.value.warmerC))} ${now.value.warmerC > 0 ? 'warmer' : 'colder'}`,
  },
  ...(props.outlook.run.total.resin > 0
    ? [
        {
          key: 'resinPrice',
          label: 'Resin price',
          min: 0.5,
          max: 2,
          step: 0.05,
          value: now.value.resinPrice,
          says: `${moneyText(props.resinPrice * now.value.resinPrice, props.currency)} a litre`,
        },
      ]
    : []),
]);
const set = (key: string, value: number): void => props.year.pull({ [key]: value });
const weeks = (count: number): string => (count === 0 ? 'each on its day' : `${count} ${count === 1 ? 'week' : 'weeks'}`);
const part = computed(() => props.year.missed.value?.part ?? '');
const LATE = [1, 2, 4, 8, 12, 26] as const;
const lateBy = computed(() => props.year.missed.value?.weeks ?? 4);
</script>

<template>
  <div class="sheet sliders" role="group" aria-label="What if">
    <label v-for="slider in sliders" :key="slider.key">
      <span>{{ slider.label }}</span>
      <strong>{{ slider.says }}</strong>
      <input
        type="range"
        :aria-label="slider.label"
        :aria-valuetext="slider.says"
        :min="slider.min"
        :max="slider.max"
        :step="slider.step"
        :value="slider.value"
        @input="set(slider.key, Number(($event.target as HTMLInputElement).value))"
      />
    </label>
    <label>
      <span>Change together within</span>
      <strong>{{ weeks(year.bundleWeeks.value) }}</strong>
      <input
        type="range"
        aria-label="Change together within"
        :aria-valuetext="weeks(year.bundleWeeks.value)"
        min="0"
        max="12"
        step="1"
        :value="year.bundleWeeks.value"
        @input="year.bundle(Number(($event.target as HTMLInputElement).value))"
      />
    </label>
    <label class="late">
      <span>One change comes late</span>
      <select
        class="plain-input"
        aria-label="One change comes late"
        :value="part"
        @change="year.miss(($event.target as HTMLSelectElement).value, lateBy)"
      >
        <option value="">none</option>
        <option v-for="[id, name] in outlook.names" :key="id" :value="id">{{ name }}</option>
      </select>
      <select
        v-if="year.missed.value"
        class="plain-input"
        aria-label="Late by"
        :value="year.missed.value.weeks"
        @change="year.miss(part, Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="count in LATE" :key="count" :value="count">by {{ weeks(count) }}</option>
      </select>
    </label>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.sliders { display: grid; grid-template-columns: repeat(auto-fit, minmax(128px, 1fr)); gap: 8px 18px; padding: 10px 14px; }
label { display: grid; gap: 2px; align-content: start; min-width: 0; }
label span { font-size: 13px; color: var(--muted); }
label strong { font-size: 14px; }
input { width: 100%; accent-color: var(--action); margin: 2px 0; min-height: 22px; }
.late select { min-height: 30px; padding: 2px 6px; font-size: 13.6px; }
@media (max-width: 860px) { .sliders { grid-template-columns: repeat(2, minmax(0, 1fr)); } input { min-height: 34px; } .late select { min-height: 40px; } }
</style>
