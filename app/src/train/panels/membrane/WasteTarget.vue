<script setup lang="ts">
import { membraneStage, type Train } from '@yes-clear/core/file';
import { words } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import QuantityField from '../../../kit/QuantityField.vue';
import { useOpenSystem } from '../../../system/openSystem';

/** The ratio of waste to product that is wanted, and what for: one target, on every page. */
const current = useOpenSystem();
const { system, solved } = current;
const WHY: readonly { readonly value: Train['wasteWhy']; readonly title: string }[] = [
  { value: 'trade', title: 'as the trade runs household units' },
  { value: 'scale', title: 'so that nothing scales' },
  { value: 'stands', title: 'as what stands there runs' },
  { value: 'own', title: 'because I want it so' },
];
const restricted = computed(() => membraneStage(system.value?.train.stages ?? [])?.valve === null);
const set = (changes: Partial<Pick<Train, 'wasteTarget' | 'wasteWhy'>>): void =>
  current.edit('wanted ratio', (s) => ({ ...s, train: { ...s.train, ...changes } }));
function typed(wasteTarget: number | null): void {
  if (wasteTarget !== null) set({ wasteTarget, wasteWhy: 'own' });
}
/** Where it runs now, and from where on this water scales. */
const beside = computed(() => {
  const report = solved.value?.report;
  if (!system.value || !report?.solved.unit?.wasteToProduct) return '';
  const say = words(system.value.units);
  const scale = report.scale?.ratioAtAction;
  return `Runs at ${say.ratio(report.solved.unit.wasteToProduct)}. ${scale ? `Scale begins below ${say.ratio(scale)}.` : 'No ratio down to 0.3 : 1 scales here.'}`;
});
/** Takes the ratio as it runs for the one that is wanted. */
function asItRuns(): void {
  const ratio = solved.value?.report.solved.unit?.wasteToProduct;
  if (ratio) set({ wasteTarget: Number(ratio.toPrecision(2)), wasteWhy: 'stands' });
}
const because = (why: Train['wasteWhy'] | null): void => (why === 'stands' ? asItRuns() : why ? set({ wasteWhy: why }) : undefined);
</script>

<template>
  <section v-if="system && restricted" class="target" aria-label="Waste wanted">
    <QuantityField
      look="row"
      label="Waste wanted for each litre of product"
      dimension="ratio"
      :low="0.2"
      :high="50"
      :units="system.units"
      :model-value="system.train.wasteTarget"
      @update:model-value="typed"
    />
    <v-select :items="WHY" :model-value="system.train.wasteWhy" aria-label="Why this ratio" @update:model-value="because" />
    <p class="muted small">{{ beside }}</p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.target { display: grid; grid-template-columns: minmax(220px, 1.2fr) minmax(180px, 1fr) minmax(160px, 1.2fr); gap: 8px 14px; align-items: center; }
@media (max-width: 860px) { .target { grid-template-columns: 1fr; } }
</style>
