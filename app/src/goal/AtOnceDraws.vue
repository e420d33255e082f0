<script setup lang="ts">
import { drawnAtOnceLPerH } from '@yes-clear/core/goal';
import { formatQuantity } from '@yes-clear/core/quantity';
import { mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { idFor } from '../store/newId';
import { useGoal } from './useGoal';

/** Benches, poles and taps that may run at the same time: their flows together are what the train is drawn at. */
const { current, goal, setDraws } = useGoal();
const units = computed(() => current.units.value);
const draws = computed(() => goal.value?.demand.draws ?? []);
const flow = (lPerH: number): string => formatQuantity(lPerH, 'flowLPerH', units.value).text;
const together = computed(() => (goal.value ? drawnAtOnceLPerH(goal.value.demand) : null));
const usual = computed(() => current.system.value?.train.drawLPerH ?? 0);
const add = (): void =>
  setDraws([...draws.value, { id: idFor('draw'), name: `Tap ${draws.value.length + 1}`, lPerH: Math.max(0.1, usual.value) }]);
const change = (id: string, changes: object): void => setDraws(draws.value.map((one) => (one.id === id ? { ...one, ...changes } : one)));
</script>

<template>
  <div class="draws">
    <h3>Running at the same time</h3>
    <p class="muted small">
      {{
        together === null
          ? `Nobody listed any: ${flow(usual)} is taken while a tap is open.`
          : `${flow(together)} while all of them run: stages behind the tank are judged at that.`
      }}
    </p>
    <div v-for="draw in draws" :key="draw.id" class="draw">
      <NameField
        class="plain-input"
        label="What draws"
        may-be-empty
        :maxlength="60"
        :model-value="draw.name"
        @update:model-value="change(draw.id, { name: $event })"
      />
      <QuantityField
        class="bare"
        label="Its flow"
        dimension="flowLPerH"
        :low="0.1"
        :units="units"
        :model-value="draw.lPerH"
        @update:model-value="$event !== null && change(draw.id, { lPerH: $event })"
      />
      <button
        class="button small plain danger"
        type="button"
        :aria-label="`Remove ${draw.name || 'this draw'}`"
        @click="setDraws(draws.filter(({ id }) => id !== draw.id))"
      >
        Remove
      </button>
    </div>
    <button class="button small" type="button" :disabled="draws.length >= 20" @click="add">
      <AppIcon :path="mdiPlus" :size="16" />Add a bench, a pole, a tap
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.draws { display: grid; gap: 8px; justify-items: start; }
h3 { margin: 0; }
.draw { display: grid; grid-template-columns: minmax(0, 190px) 140px auto; gap: 8px; align-items: center; }
.bare :deep(label) { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.bare :deep(.says:not([role])) { display: none; }
@media (max-width: 760px) { .draw { grid-template-columns: 1fr 1fr; } }
</style>
