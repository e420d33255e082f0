<script setup lang="ts">
import { comparisonOf, PART_WORDS, priceList, pricedParts, type Priced } from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import { computed } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import QuantityField from '../kit/QuantityField.vue';
import type { OpenSystem } from '../system/openSystem';

/** What every part of the options costs; placeholders until the job's own are typed. */
const props = defineProps<{ system: System; of: OpenSystem }>();
const open = defineModel<boolean>({ required: true });
const prices = computed(() => priceList(props.system));
/** Parts that any option of this job is bought as. */
const parts = computed(() => {
  const laid = open.value ? comparisonOf(props.system) : null;
  return laid?.ok ? pricedParts(laid.value.spaces) : [];
});
const JOB = [
  ['waterPerM3', 'Water, a m³'],
  ['sewerPerM3', 'Sewer, a m³'],
  ['powerPerKWh', 'Power, a kWh'],
  ['resinPerL', 'Resin, a litre'],
  ['saltPerKg', 'Salt, a kg'],
  ['tankPerL', 'Tank, a litre'],
  ['filter', 'Sediment cartridge'],
  ['carbonPerL', 'Carbon, a litre'],
  ['boosterPump', 'Booster pump'],
] as const;
const OF_JOB: readonly Priced[] = ['sediment', 'booster', 'inhibitor', 'uvLamp', 'carbonBlock', 'calcite'];
const own = computed(() => parts.value.filter((part) => !OF_JOB.includes(part)));
const setPart = (part: Priced, each: number): void =>
  props.of.edit(`options price ${part}`, (s) => ({
    ...s,
    choice: { ...s.choice, prices: [...s.choice.prices.filter((one) => one.part !== part), { part, each }] },
  }));
const setJob = (key: (typeof JOB)[number][0], value: number): void =>
  props.of.edit(`prices ${key}`, (s) => ({ ...s, prices: { ...s.prices, [key]: value } }));
const typed = computed(() => new Set(props.system.choice.prices.map(({ part }) => part)));
</script>

<template>
  <v-dialog v-model="open" max-width="720">
    <v-card class="prices">
      <DialogHead title="Prices of this job" @close="open = false" />
      <p class="small muted">
        In {{ system.prices.currency }}. Amounts nobody typed are placeholders, no shop’s: they only give the order of things.
      </p>
      <div class="grid">
        <QuantityField
          v-for="[key, label] in JOB"
          :key="key"
          :label="label"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :model-value="system.prices[key]"
          @update:model-value="$event !== null && setJob(key, $event)"
        />
        <QuantityField
          label="A visit"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :model-value="system.choice.visitCost"
          @update:model-value="$event !== null && of.edit('options visit', (s) => ({ ...s, choice: { ...s.choice, visitCost: $event! } }))"
        />
        <QuantityField
          v-for="part in own"
          :key="part"
          :label="PART_WORDS[part]"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :note="typed.has(part) ? '' : 'placeholder'"
          :model-value="prices.part(part)"
          @update:model-value="$event !== null && setPart(part, $event)"
        />
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.prices { padding: 16px 18px; display: grid; gap: 12px; overflow-y: auto; }
.grid { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px 14px; }
@media (max-width: 600px) { .grid { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
</style>
