<script setup lang="ts">
import type { BoughtSet, System } from '@yes-clear/core/file';
import { computed, ref, watch } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { idFor } from '../store/newId';
import type { Options } from './useOptions';

/** A set that is bought whole, held against what one builds by its maker's own figures. */
const props = defineProps<{ system: System; options: Options }>();
const open = defineModel<boolean>({ required: true });
const at = ref<string | null>(null);
const sets = computed(() => props.system.choice.bought);
const set = computed(() => sets.value.find(({ id }) => id === at.value) ?? null);
watch(open, (now) => {
  if (now) at.value = sets.value[0]?.id ?? null;
});
function add(): void {
  const id = idFor('set');
  const fresh: BoughtSet = {
    id,
    name: `Set ${sets.value.length + 1}`,
    price: 0,
    partsPerYear: 0,
    visitsPerYear: 1,
    kWhPerM3: 0,
    productLPerH: 0,
    wasteToProduct: 0,
    commonSpares: false,
    support: true,
  };
  props.options.set('set added', { bought: [...sets.value, fresh] });
  at.value = id;
}
const change = (next: Partial<BoughtSet>): void =>
  props.options.set(`set ${at.value} ${Object.keys(next).join()}`, {
    bought: sets.value.map((one) => (one.id === at.value ? { ...one, ...next } : one)),
  });
function remove(): void {
  props.options.set('set removed', { bought: sets.value.filter(({ id }) => id !== at.value) });
  at.value = sets.value.find(({ id }) => id !== at.value)?.id ?? null;
}
const money = computed(() => props.system.prices.currency);
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card class="dialog-card">
      <DialogHead title="A bought set" @close="open = false" />
      <p class="small muted">By its maker’s own figures, nothing of it is solved here. It stands side by side with what is built.</p>
      <div class="row">
        <button
          v-for="one in sets"
          :key="one.id"
          type="button"
          class="button small"
          :class="{ primary: one.id === at }"
          @click="at = one.id"
        >
          {{ one.name }}
        </button>
        <button v-if="sets.length < 8" type="button" class="button small" @click="add">Add a set</button>
      </div>
      <div v-if="set" :key="set.id" class="grid">
        <label class="labelled wide"
          ><span>Name</span
          ><NameField
            class="plain-input"
            label="Name of the set"
            :maxlength="80"
            :model-value="set.name"
            @update:model-value="change({ name: $event })"
        /></label>
        <QuantityField
          label="Price"
          dimension="count"
          :high="1000000"
          :unit="money"
          :units="system.units"
          :model-value="set.price"
          @update:model-value="$event !== null && change({ price: $event })"
        />
        <QuantityField
          label="Parts, a year"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :model-value="set.partsPerYear"
          @update:model-value="$event !== null && change({ partsPerYear: $event })"
        />
        <QuantityField
          label="Visits, a year"
          dimension="count"
          :high="366"
          :units="system.units"
          :model-value="set.visitsPerYear"
          @update:model-value="$event !== null && change({ visitsPerYear: $event })"
        />
        <QuantityField
          label="Makes"
          dimension="flowLPerH"
          :units="system.units"
          :model-value="set.productLPerH"
          @update:model-value="$event !== null && change({ productLPerH: $event })"
        />
        <QuantityField
          label="Energy, kWh a m³ (Wh a litre)"
          dimension="count"
          :high="1000"
          :units="system.units"
          :model-value="set.kWhPerM3"
          @update:model-value="$event !== null && change({ kWhPerM3: $event })"
        />
        <QuantityField
          label="Waste for a litre made"
          dimension="count"
          :high="100"
          :units="system.units"
          :model-value="set.wasteToProduct"
          @update:model-value="$event !== null && change({ wasteToProduct: $event })"
        />
        <label class="tick"
          ><input
            type="checkbox"
            :checked="set.commonSpares"
            @change="change({ commonSpares: ($event.target as HTMLInputElement).checked })"
          />
          Spares to be had anywhere</label
        >
        <label class="tick"
          ><input type="checkbox" :checked="set.support" @change="change({ support: ($event.target as HTMLInputElement).checked })" /> Its
          maker supports it</label
        >
        <button type="button" class="button small danger" @click="remove">Remove this set</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.grid { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 10px 14px; }
.wide { grid-column: 1 / -1; }
.tick { display: flex; gap: 8px; align-items: center; font-size: 14px; min-height: 38px; }
</style>
