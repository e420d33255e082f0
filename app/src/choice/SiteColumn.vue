<script setup lang="ts">
import { RULE_WORDS, type RuleId } from '@yes-clear/core/choice';
import type { ChoiceSettings, System } from '@yes-clear/core/file';
import { computed } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import type { Options } from './useOptions';

/** What the site allows, and what that leaves of the trains tried. */
const props = defineProps<{ system: System; options: Options }>();
defineEmits<{ prices: []; axes: []; bought: [] }>();
const choice = computed(() => props.system.choice);
const set = (change: Partial<ChoiceSettings>): void => props.options.set(Object.keys(change).join(), change);
const YES_NO = [
  { value: 'yes', title: 'yes' },
  { value: 'no', title: 'no' },
] as const;
const THERE = [
  ['power', 'Mains power'],
  ['drain', 'Drain'],
] as const;
const sifted = computed(() => props.options.whole.value?.sifted ?? null);
const pruned = computed(() => {
  const rows = Object.entries(sifted.value?.pruned ?? {}).map(([rule, one]) => ({ rule: rule as RuleId, count: one?.count ?? 0 }));
  return rows.toSorted((a, b) => b.count - a.count);
});
const most = computed(() => Math.max(1, ...pruned.value.map(({ count }) => count)));
const plain = (count: number): string => count.toLocaleString('en').replaceAll(',', '\u202f');
</script>

<template>
  <h2>What the site allows</h2>
  <div class="fields">
    <QuantityField
      look="row"
      label="Wall"
      dimension="lengthMm"
      unit="mm"
      :units="system.units"
      :low="100"
      :high="100000"
      optional
      empty="any"
      :model-value="choice.wallMm"
      @update:model-value="set({ wallMm: $event })"
    />
    <QuantityField
      look="row"
      label="To spend at once"
      dimension="count"
      :low="0"
      :high="1000000"
      :unit="system.prices.currency"
      :units="system.units"
      optional
      empty="any"
      :model-value="choice.capital"
      @update:model-value="set({ capital: $event })"
    />
    <div v-for="[key, label] in THERE" :key="key" class="pair">
      <span>{{ label }}</span>
      <Segments
        :label="label"
        :choices="YES_NO"
        :model-value="choice[key] ? 'yes' : 'no'"
        @update:model-value="set({ [key]: $event === 'yes' })"
      />
    </div>
    <QuantityField
      look="row"
      label="Hours a day it may run"
      dimension="count"
      :low="0.5"
      :high="24"
      :units="system.units"
      :model-value="choice.hoursPerDay"
      @update:model-value="$event !== null && set({ hoursPerDay: $event })"
    />
    <QuantityField
      look="row"
      label="Visits a year, at most"
      dimension="count"
      :low="0"
      :high="366"
      :units="system.units"
      optional
      empty="any"
      :model-value="choice.visitsPerYear"
      @update:model-value="set({ visitsPerYear: $event })"
    />
    <QuantityField
      look="row"
      label="Waste to product, at least"
      dimension="count"
      :low="0"
      :high="20"
      :units="system.units"
      optional
      empty="any"
      :model-value="choice.leastWaste"
      @update:model-value="set({ leastWaste: $event })"
    />
    <QuantityField
      look="row"
      label="Years to count"
      dimension="count"
      :low="0.25"
      :high="30"
      :units="system.units"
      :model-value="choice.horizonYears"
      @update:model-value="$event !== null && set({ horizonYears: $event })"
    />
  </div>
  <div class="row">
    <button class="button small" type="button" @click="$emit('prices')">Prices of this job</button>
    <button class="button small" type="button" @click="$emit('axes')">What to try</button>
    <button class="button small" type="button" @click="$emit('bought')">A bought set</button>
  </div>
  <section v-if="sifted" class="tried" aria-label="Trains tried">
    <h2>{{ plain(sifted.tried) }} trains tried</h2>
    <p class="small muted">{{ plain(sifted.found.length) }} would do; each other one by the first rule it breaks</p>
    <dl>
      <template v-for="{ rule, count } in pruned" :key="rule">
        <dt>{{ RULE_WORDS[rule] }}</dt>
        <dd>{{ plain(count) }}</dd>
        <dd class="bar" aria-hidden="true"><span :style="{ width: `${(100 * count) / most}%` }"></span></dd>
      </template>
    </dl>
  </section>
  <p class="small muted foot">
    Solved one by one on this water, coldest and warmest day, membrane new and old{{
      options.tookMs.value === null ? '' : `, in ${(options.tookMs.value / 1000).toFixed(1)}\u202fs`
    }}, as the workbench solves them; a plain tube wastes more in the cold.
  </p>
</template>

<!-- prettier-ignore -->
<style scoped>
.fields { display: grid; gap: 6px; }
.pair { display: flex; justify-content: space-between; align-items: center; font-size: 13.6px; color: var(--muted); }
.pair :deep(.segments button) { min-height: 30px; padding: 3px 12px; font-size: 13.6px; }
.fields :deep(.quantity.row) { grid-template-columns: minmax(0, 1fr) 104px; }
.tried { margin-top: 8px; }
dl { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 2px 8px; margin: 8px 0 0; font-size: 13.6px; }
dd { margin: 0; text-align: right; font-weight: 650; }
.bar { grid-column: 1 / -1; height: 6px; border-radius: 3px; background: var(--hair); overflow: hidden; margin-bottom: 4px; }
.bar span { display: block; height: 100%; background: color-mix(in srgb, var(--muted) 55%, transparent); }
.foot { margin-top: 6px; }
</style>
