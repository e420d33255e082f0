<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import type { Away } from '@yes-clear/core/file';
import { computed } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import DayField from '../kit/DayField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { idFor } from '../store/newId';
import { dayField, MONTHS } from '../time/dates';
import { useGoal } from './useGoal';

/** How the use swings over the year, and the days away: the dates of resin and filters count with both. */
const { current, goal, setDemand } = useGoal();
const units = computed(() => current.units.value);
const season = computed(() => goal.value?.demand.season ?? null);
/** What busy seasons usually swing by (science of logs, 6; product assumption): begun with, and changed. */
const USUAL_SWING = 0.2;
function setMonth(text: string): void {
  const busiestMonth = Number(text);
  setDemand('busy season', { season: busiestMonth === 0 ? null : { busiestMonth, share: season.value?.share ?? USUAL_SWING } });
}
function setSwing(share: number | null): void {
  if (share !== null && season.value) setDemand('busy season', { season: { ...season.value, share } });
}
const away = computed(() => [...(current.system.value?.away ?? [])].sort((a, b) => a.from.localeCompare(b.from)));
const setAway = (label: string, change: (list: readonly Away[]) => Away[]): void =>
  current.edit(label, (s) => ({ ...s, away: change(s.away) }));
/** A week (common practice), with nothing drawn; both are changed where it is otherwise. */
const add = (): void =>
  setAway('days away', (list) => [...list, { id: idFor('away'), from: dayField(current.now.value), days: 7, share: 0 }]);
const set = (id: string, changes: Partial<Away>): void =>
  setAway('days away', (list) => list.map((one) => (one.id === id ? { ...one, ...changes } : one)));
const remove = (id: string): void => setAway('days away removed', (list) => list.filter((one) => one.id !== id));
const MOST = 400;
</script>

<template>
  <div v-if="goal" class="year">
    <h3>Over the year</h3>
    <div class="fields">
      <label class="labelled"
        ><span>Busiest month</span>
        <select
          class="plain-input"
          aria-label="Busiest month"
          :value="season?.busiestMonth ?? 0"
          @change="setMonth(($event.target as HTMLSelectElement).value)"
        >
          <option :value="0">not said</option>
          <option v-for="(month, i) in MONTHS" :key="month" :value="i + 1">{{ month }}</option>
        </select></label
      >
      <QuantityField
        v-if="season"
        class="swing"
        look="column"
        label="More than the mean then"
        dimension="fraction"
        unit="%"
        :units="units"
        :model-value="season.share"
        @update:model-value="setSwing"
      />
    </div>
    <div v-for="one in away" :key="one.id" class="fields" :aria-label="`Away from ${one.from}`" role="group">
      <DayField label="Away from" :model-value="one.from" @update:model-value="$event && set(one.id, { from: $event })" />
      <QuantityField
        look="column"
        label="Days"
        dimension="count"
        :low="1"
        :high="366"
        :units="units"
        :model-value="one.days"
        @update:model-value="$event !== null && set(one.id, { days: Math.round($event) })"
      />
      <QuantityField
        look="column"
        label="Still used"
        dimension="fraction"
        unit="%"
        :units="units"
        :model-value="one.share"
        @update:model-value="$event !== null && set(one.id, { share: $event })"
      />
      <button class="button small plain danger" type="button" :aria-label="`Remove days away from ${one.from}`" @click="remove(one.id)">
        Remove
      </button>
    </div>
    <button class="button small" type="button" :disabled="away.length >= MOST" @click="add">
      <AppIcon :path="mdiPlus" :size="16" />Add days away
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.year { display: grid; gap: 8px; justify-items: start; }
.fields { display: flex; gap: 12px; flex-wrap: wrap; align-items: end; }
.fields > * { width: 150px; }
.fields > button { width: auto; }
@media (max-width: 860px) { .fields > button, .button { min-height: 44px; } }
</style>
