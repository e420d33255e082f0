<script setup lang="ts">
import { kitSchema, type Kit } from '@yes-clear/core/file';
import { dropResult } from '@yes-clear/core/water';
import { formatQuantity } from '@yes-clear/core/quantity';
import { ammoniaInKit } from '@yes-clear/core/train';
import { mdiEyedropper } from '@mdi/js';
import { computed, reactive, ref } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import QuantityField from '../kit/QuantityField.vue';
import DropCounter from '../kit/DropCounter.vue';
import MeterWay from './MeterWay.vue';
import { useSample } from './useSample';

/** What a box of drops and strips tells, beside one reading. */
defineProps<{ blamed: { readonly reading: boolean; readonly hardness: boolean; readonly alkalinity: boolean; readonly pH: boolean } }>();
const { current, sample, source, setKit } = useSample();
const units = computed(() => current.units.value);
/** What of the ammonia a kit reads is chloramine: by total chlorine, or until that is tested by what mains usually hold. */
const ammoniaNote = computed(() => {
  const { system } = current;
  const found = system.value && source.value && ammoniaInKit(source.value, system.value.instruments);
  if (!found || found.chloramineNMgL < 0.005) return '';
  const mgL = (value: number): string => formatQuantity(value, 'concentrationMgL', units.value).text;
  return found.plusMinusMgL === null
    ? `${mgL(found.ammoniaNMgL)} ammonia, ${mgL(found.chloramineNMgL)} chloramine`
    : `About a third is ammonia, the rest chloramine. Test total chlorine.`;
});
/** A strip shows a range, such as 7 to 14 °dH: its two ends are a reading. */
const opened = reactive(new Set<'hardness' | 'alkalinity'>());
const ranged = computed(() => ({
  hardness: opened.has('hardness') || sample.value?.kit.hardnessToMgL != null,
  alkalinity: opened.has('alkalinity') || sample.value?.kit.alkalinityToMgL != null,
}));
function rangeNote(key: 'hardness' | 'alkalinity'): string {
  const [from, to] = [sample.value?.kit[`${key}MgL`] ?? null, sample.value?.kit[`${key}ToMgL`] ?? null];
  if (from === null || to === null) return 'upper end of the range';
  const text = (mgL: number): string => formatQuantity(mgL, `${key}MgL`, units.value).text;
  return `counts as ${text((from + to) / 2)} ± ${text(Math.abs(to - from) / 2)}`;
}
/** Which figure the drops are being counted for. */
const counting = ref<'hardness' | 'alkalinity' | null>(null);

const COUNTED = [
  { key: 'hardness', label: 'Total hardness', dimension: 'hardnessMgL' },
  { key: 'alkalinity', label: 'Alkalinity', dimension: 'alkalinityMgL' },
] as const;
const TRACES = [
  { key: 'nitrateMgL', label: 'Nitrate, as NO₃' },
  { key: 'ammoniaMgL', label: 'Ammonia, total as N' },
  { key: 'phosphateMgL', label: 'Phosphate, as PO₄' },
  { key: 'silicaMgL', label: 'Silica, as SiO₂' },
] as const;

/** How a counted figure came about. */
function counted(key: 'hardness' | 'alkalinity'): string {
  const count = sample.value?.kit[`${key}Count`];
  const result = count && dropResult(count);
  if (!count || !result?.ok) return '';
  return `${count.drops} drops in ${count.sampleMl} mL, ±${formatQuantity(result.value.plusMinusMgL, `${key}MgL`, units.value).text}`;
}
/** A typed figure is no longer the one that was counted. */
const typed = (key: 'hardness' | 'alkalinity', value: number | null): void =>
  setKit(key, { [`${key}MgL`]: value, [`${key}Count`]: null } as Partial<Kit>);
function take(result: { mgL: number; count: NonNullable<Kit['hardnessCount']> }): void {
  const key = counting.value;
  if (key) setKit(`${key} counted`, { [`${key}MgL`]: result.mgL, [`${key}ToMgL`]: null, [`${key}Count`]: result.count } as Partial<Kit>);
  counting.value = null;
}
</script>

<template>
  <template v-if="sample">
    <MeterWay :blamed="blamed.reading" optional />
    <QuantityField
      label="pH"
      dimension="ph"
      optional
      :blamed="blamed.pH"
      :units="units"
      :model-value="sample.kit.pH"
      @update:model-value="setKit('pH', { pH: $event })"
    />
    <div v-for="{ key, label, dimension } in COUNTED" :key="key" class="counted">
      <QuantityField
        :label="label"
        :dimension="dimension"
        optional
        :blamed="blamed[key]"
        :units="units"
        :note="counted(key)"
        :model-value="sample.kit[`${key}MgL`]"
        @update:model-value="typed(key, $event)"
      />
      <QuantityField
        v-if="ranged[key]"
        :label="`${label}, to`"
        :dimension="dimension"
        optional
        empty="one figure"
        :units="units"
        :note="rangeNote(key)"
        :model-value="sample.kit[`${key}ToMgL`]"
        @update:model-value="setKit(`${key} range`, { [`${key}ToMgL`]: $event, [`${key}Count`]: null } as Partial<Kit>)"
      />
      <div class="ways">
        <button class="button small" type="button" @click="counting = key"><AppIcon :path="mdiEyedropper" :size="16" />Count drops</button>
        <button v-if="!ranged[key]" class="button small plain" type="button" @click="opened.add(key)">A strip’s range</button>
      </div>
    </div>
    <QuantityField
      v-for="trace in TRACES"
      :key="trace.key"
      :label="trace.label"
      :of="kitSchema.shape[trace.key]"
      dimension="concentrationMgL"
      optional
      :units="units"
      :note="trace.key === 'ammoniaMgL' ? ammoniaNote : ''"
      :model-value="sample.kit[trace.key]"
      @update:model-value="setKit(trace.label, { [trace.key]: $event })"
    />
    <DropCounter
      v-if="counting"
      :what="counting"
      :units="units"
      :last="sample.kit[`${counting}Count`] ?? sample.kit.hardnessCount ?? sample.kit.alkalinityCount"
      @take="take"
      @close="counting = null"
    />
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.counted { display: grid; gap: 6px; align-content: start; grid-column: span 2; grid-template-columns: minmax(0, 1fr) auto; align-items: start; }
.counted .ways { margin-top: 25px; display: grid; gap: 6px; }
</style>
