<script setup lang="ts">
import type { Preparation } from '@yes-clear/core/goal';
import { computed, ref } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import { useGoal } from './useGoal';
import { hardnessOf, settleWater, shareForTarget, type Water } from '@yes-clear/core/water';

/** What is put to the product before it is used: nothing, salt, minerals, or some of the tap. */
const { current, goal, set } = useGoal();
const units = computed(() => current.units.value);
const prepare = computed(() => goal.value!.prepare);
const WAYS: readonly { value: Preparation['how']; title: string }[] = [
  { value: 'none', title: 'As it is' },
  { value: 'minerals', title: 'Minerals back' },
  { value: 'blend', title: 'Tap blended back' },
  { value: 'salt', title: 'Sea salt' },
];
const START: Record<Preparation['how'], Preparation> = {
  none: { how: 'none' },
  salt: { how: 'salt', salinity: 35 },
  minerals: { how: 'minerals', hardnessMgL: 50, calciumShare: 0.75, alkalinityMgL: 25, bicarbonate: 'K' },
  blend: { how: 'blend', tapShare: 0.1 },
};
const change = (changes: object): void => set('preparation', { prepare: { ...prepare.value, ...changes } as Preparation });
/** Share of tap at which the blend has a hardness. */
function shareForHardness(hardnessMgL: number | null): void {
  const water = current.water.value;
  const product = current.solved.value?.report.solved.stations.at(-1)?.water;
  if (hardnessMgL === null || !water?.ok) return;
  const share = product ? shareForTarget(product, water.value.water, (mixed) => hardnessOf(mixed.mgL), hardnessMgL) : null;
  if (share !== null) change({ tapShare: Math.round(1000 * share) / 1000 });
}
/** Share of tap at which the blend has a carbonate hardness: with alkalinity, as far as there is hardness for it. */
function shareForCarbonate(mgL: number | null): void {
  const water = current.water.value;
  const product = current.solved.value?.report.solved.stations.at(-1)?.water;
  if (mgL === null || !water?.ok || !product) return;
  const share = shareForTarget(product, water.value.water, carbonateOf, mgL);
  outOfReach.value = share === null ? 'No share gives that: it lies outside product and tap.' : '';
  if (share !== null) change({ tapShare: Math.round(1000 * share) / 1000 });
}
const carbonateOf = (mixed: Water): number => Math.min(mixed.alkalinityMgL, hardnessOf(mixed.mgL));
const blendCarbonate = computed(() => {
  const prepared = current.solved.value?.report.prepared;
  return prepared?.ok ? carbonateOf(prepared.value.water) : null;
});
/** Share of tap at which a meter reads so much in the blend: solved, for conductivities do not simply add. */
function shareForReading(ec25UScm: number | null): void {
  const water = current.water.value;
  const product = current.solved.value?.report.solved.stations.at(-1)?.water;
  if (ec25UScm === null || !water?.ok || !product) return;
  const reads = (mixed: Water): number => {
    const state = settleWater(mixed);
    return state.ok ? state.value.ec25UScm : Number.NaN;
  };
  const share = shareForTarget(product, water.value.water, reads, ec25UScm);
  outOfReach.value = share === null ? 'No share gives that: it lies outside product and tap.' : '';
  if (share !== null) change({ tapShare: Math.round(1000 * share) / 1000 });
}
const outOfReach = ref('');
const blendReads = computed(() => {
  const prepared = current.solved.value?.report.prepared;
  const state = prepared?.ok ? settleWater(prepared.value.water) : null;
  return state?.ok ? state.value.ec25UScm : null;
});
const blendHardness = computed(() => {
  const prepared = current.solved.value?.report.prepared;
  return prepared?.ok ? hardnessOf(prepared.value.water.mgL) : null;
});
</script>

<template>
  <section v-if="goal" class="sheet panel prepare">
    <div class="head">
      <h2>Before it is used</h2>
      <Segments
        label="Before it is used"
        :choices="WAYS"
        :model-value="prepare.how"
        @update:model-value="set('preparation', { prepare: START[$event] })"
      />
    </div>
    <div v-if="prepare.how === 'salt'" class="field-grid">
      <QuantityField
        label="Salinity, g/kg"
        dimension="count"
        :low="1"
        :high="80"
        :units="units"
        :model-value="prepare.salinity"
        @update:model-value="$event !== null && change({ salinity: $event })"
      />
    </div>
    <div v-else-if="prepare.how === 'minerals'" class="field-grid">
      <QuantityField
        label="Hardness wanted"
        dimension="hardnessMgL"
        :high="2000"
        :units="units"
        :model-value="prepare.hardnessMgL"
        @update:model-value="$event !== null && change({ hardnessMgL: $event })"
      />
      <QuantityField
        label="Calcium's share of it"
        dimension="fraction"
        unit="%"
        :units="units"
        :model-value="prepare.calciumShare"
        note="75 % is usual"
        @update:model-value="$event !== null && change({ calciumShare: $event })"
      />
      <QuantityField
        label="Alkalinity wanted"
        dimension="alkalinityMgL"
        :high="2000"
        :units="units"
        :model-value="prepare.alkalinityMgL"
        @update:model-value="$event !== null && change({ alkalinityMgL: $event })"
      />
      <div class="labelled">
        <span>Bicarbonate of</span>
        <Segments
          label="Bicarbonate of"
          :choices="[
            { value: 'K', title: 'Potassium' },
            { value: 'Na', title: 'Sodium' },
          ]"
          :model-value="prepare.bicarbonate"
          @update:model-value="change({ bicarbonate: $event })"
        />
      </div>
    </div>
    <div v-else-if="prepare.how === 'blend'" class="field-grid">
      <QuantityField
        label="Share of tap"
        dimension="fraction"
        unit="%"
        :units="units"
        :model-value="prepare.tapShare"
        @update:model-value="$event !== null && change({ tapShare: $event })"
      />
      <QuantityField
        label="…or reading wanted"
        dimension="conductivityUScm"
        optional
        :units="units"
        :model-value="blendReads"
        :note="outOfReach"
        @update:model-value="shareForReading"
      />
      <QuantityField
        label="…or hardness wanted"
        dimension="hardnessMgL"
        optional
        :units="units"
        :model-value="blendHardness"
        @update:model-value="shareForHardness"
      />
      <QuantityField
        label="…or carbonate hardness wanted"
        dimension="hardnessMgL"
        optional
        :units="units"
        :model-value="blendCarbonate"
        @update:model-value="shareForCarbonate"
      />
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.prepare { display: grid; gap: 12px; }
.head { display: flex; justify-content: space-between; align-items: center; gap: 10px; flex-wrap: wrap; }
@media (max-width: 520px) { .head :deep(.segments) { flex-wrap: wrap; } }
</style>
