<script setup lang="ts">
import { longDayOfYear } from '../time/dates';
import { tapIsAssumed, USUAL_WATER_TEMPERATURE, type SampleWay } from '@yes-clear/core/file';
import { mdiPlus } from '@mdi/js';
import { BEYOND_SAYS, isHardnessAssumed } from '@yes-clear/core/water';
import { computed } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import DayField from '../kit/DayField.vue';
import FindingCard from '../kit/FindingCard.vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import CompositionBars from './CompositionBars.vue';
import HardnessScales from './HardnessScales.vue';
import KitWay from './KitWay.vue';
import MeterWay from './MeterWay.vue';
import ReportWay from './ReportWay.vue';
import SaturationTable from './SaturationTable.vue';
import SolidsRow from './SolidsRow.vue';
import { CHARACTER_CHOICES, needed, useSample } from './useSample';

/** One dated sample: a reading, a kit or a report, completed to one consistent water. */
const { current, source, sample, isAssumed, confirm, set, setSource, add, remove } = useSample();
const units = computed(() => current.units.value);
const completed = computed(() => (current.water.value?.ok ? current.water.value.value : null));
const error = computed(() => (current.water.value && !current.water.value.ok ? current.water.value.error : null));
const state = current.tapState;
const WAYS: readonly { value: SampleWay; title: string }[] = [
  { value: 'meter', title: 'One reading' },
  { value: 'kit', title: 'Test kit' },
  { value: 'report', title: 'Report' },
  { value: 'usual', title: 'Nothing yet' },
];
/** Which entered values the contradiction is about. */
const blamed = computed(() => {
  const field = error.value?.field;
  const kit = sample.value?.way === 'kit' ? sample.value.kit : null;
  const conductivity = field === 'ec25UScm' || field === 'reading';
  return {
    reading: conductivity,
    hardness: field === 'hardnessMgL' || (field === 'ec25UScm' && kit !== null && kit.hardnessMgL !== null),
    alkalinity: field === 'alkalinityMgL' || field === 'pH' || (field === 'ec25UScm' && kit !== null && kit.alkalinityMgL !== null),
    pH: field === 'pH',
  };
});
/** What the tables below would show as if it were known. */
const unmeasured = computed(() => {
  const origins = completed.value?.origins;
  return {
    hardness: origins !== undefined && isHardnessAssumed(origins),
    alkalinity: origins?.alkalinity === 'assumed',
  };
});
const samples = computed(() =>
  [...(source.value?.samples ?? [])]
    .sort((a, b) => b.takenOn.localeCompare(a.takenOn))
    .map((one) => ({
      value: one.id,
      title: longDayOfYear(one.takenOn),
    })),
);
</script>

<template>
  <template v-if="source && sample">
    <section class="sheet panel entry">
      <div class="top">
        <Segments label="What is at hand" :choices="WAYS" :model-value="sample.way" @update:model-value="set('way in', { way: $event })" />
        <div class="dated">
          <v-select
            v-if="samples.length > 1"
            class="which"
            :items="samples"
            :model-value="source.sampleId"
            aria-label="Sample of"
            @update:model-value="setSource('sample chosen', { sampleId: $event })"
          />
          <button class="button" type="button" @click="add"><AppIcon :path="mdiPlus" />New sample</button>
          <button v-if="samples.length > 1" class="button plain danger" type="button" @click="remove">Remove</button>
        </div>
      </div>
      <div class="field-grid">
        <MeterWay v-if="sample.way === 'meter'" :blamed="blamed.reading" />
        <KitWay v-else-if="sample.way === 'kit'" :blamed="blamed" />
        <ReportWay v-else-if="sample.way === 'report'" />
        <p v-else class="muted usual">
          It stands on a usual water of its kind until somebody measures: nothing here is known. One reading of a meter tells its strength.
        </p>
      </div>
      <div class="field-grid second">
        <div class="labelled">
          <span>Kind of supply</span>
          <v-select
            :items="CHARACTER_CHOICES"
            :model-value="sample.character"
            aria-label="Kind of supply"
            @update:model-value="set('kind of supply', { character: $event })"
          />
        </div>
        <QuantityField
          label="Water temperature"
          dimension="temperatureC"
          :units="units"
          :usual="USUAL_WATER_TEMPERATURE"
          :model-value="sample.temperatureC"
          :assumed="isAssumed('temperature')"
          @confirm="confirm('temperature')"
          @update:model-value="needed((temperatureC) => set('temperature', { temperatureC }))($event)"
        />
        <DayField label="Taken on" :model-value="sample.takenOn" @update:model-value="$event && set('sample date', { takenOn: $event })" />
        <p class="muted small hint">What is not measured is filled in from the kind of supply, and marked so.</p>
      </div>
      <FindingCard
        v-if="error"
        :finding="{ severity: 'bad', title: 'These numbers do not make one water', why: error.message }"
        data-testid="water-error"
      />
      <p v-if="state?.beyond" class="muted small hint">{{ BEYOND_SAYS[state.beyond] }}</p>
    </section>
    <section v-if="completed" class="sheet panel"><CompositionBars :completed="completed" /></section>
    <section v-if="completed && state" class="sheet scales">
      <HardnessScales :hardness-mg-l="state.hardnessMgL" :alkalinity-mg-l="completed.water.alkalinityMgL" :assumed="unmeasured" />
    </section>
    <section v-if="completed && state" class="sheet" aria-label="Dissolved solids by every name">
      <SolidsRow :water="completed.water" :ec25-u-scm="state.ec25UScm" :tds-mg-l="state.tdsMgL" :assumed="tapIsAssumed(source)" />
    </section>
    <section v-if="completed" class="sheet scales">
      <SaturationTable :water="completed.water" :units="units" :assumed="unmeasured.hardness || unmeasured.alkalinity" />
    </section>
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.usual { grid-column: 1 / -1; }
.entry { display: grid; gap: 14px; }
.top { display: flex; justify-content: space-between; gap: 10px 16px; flex-wrap: wrap; align-items: center; }
.dated { display: flex; gap: 8px; align-items: center; flex-wrap: wrap; }
.which { min-width: 220px; }
.second { border-top: 1px solid var(--hair); padding-top: 12px; }
.hint { align-self: center; }
.scales { padding: 4px 0; }
@media (max-width: 520px) { .top :deep(.segments) { flex-wrap: wrap; } }
</style>
