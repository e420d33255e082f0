<script setup lang="ts">
import { bucketTest, standingRatio } from '@yes-clear/core/commission';
import { fixedRestrictor } from '@yes-clear/core/stage';
import { formatIn } from '@yes-clear/core/quantity';
import { computed, ref, watchEffect } from 'vue';
import FindingCard from '../../kit/FindingCard.vue';
import QuantityField from '../../kit/QuantityField.vue';
import { useOpenSystem } from '../../system/openSystem';
import { useAnswer } from '../../worker/useAnswer';
import RestrictorBar from './RestrictorBar.vue';
import { useRunbook } from './useRunbook';
import { withRestrictor } from './withRestrictor';

/** The cut itself: what the last measurement asks for, and the length that is left afterwards. */
const emit = defineEmits<{ measure: []; done: [] }>();
const current = useOpenSystem();
const { system } = current;
const book = useRunbook();
/** What is fitted now, as the runbook expects it. */
const operation = computed(() => book.expected.value?.operation ?? null);
const last = computed(() => system.value?.build.ratios.at(-1) ?? null);
const target = computed(() => system.value?.train.wasteTarget ?? 4);
/** The measurement belongs to the length it was taken at; after a cut it has to be taken again. */
const stale = computed(() => last.value !== null && system.value !== null && standingRatio(system.value) === null);
const bucket = computed(() => (last.value && !stale.value ? bucketTest(last.value) : null));
const { answer } = useAnswer('trim', () => {
  const at = operation.value;
  if (!at || !last.value || !bucket.value?.ok) return null;
  const { temperatureC, pressureBar } = last.value;
  const feed = temperatureC === null ? at.feed : { ...at.feed, temperatureC };
  const conditions = pressureBar === null ? at.conditions : { ...at.conditions, linePressureBar: pressureBar };
  return { at: { ...at, feed, conditions }, bucket: bucket.value.value, target: target.value, form: at.stage.restrictor.form };
});
const advice = computed(() => (bucket.value && !bucket.value.ok ? bucket.value : answer.value));
const lengthMm = ref<number | null>(null);
watchEffect(() => {
  lengthMm.value =
    advice.value?.ok && advice.value.value.kind === 'cut'
      ? Math.round(advice.value.value.lengthAfterMm)
      : (operation.value?.stage.restrictor.lengthMm ?? null);
});
function cutDone(): void {
  const at = operation.value;
  const left = lengthMm.value;
  if (!at || left === null) return;
  current.edit('restrictor cut', (s) => withRestrictor(s, at.stage.id, { lengthMm: left, assumed: false }));
  emit('measure');
}
function sizeFitted(mLPerMin: number): void {
  const at = operation.value;
  if (!at) return;
  current.edit('restrictor fitted', (s) => withRestrictor(s, at.stage.id, fixedRestrictor(at.stage.restrictor, mLPerMin)));
  emit('measure');
}
</script>

<template>
  <div v-if="system && operation" class="stack">
    <FindingCard
      v-if="!last"
      :finding="{ severity: 'note', title: '0 measurements so far', why: 'Measure waste and product first; the cut follows from it.' }"
    />
    <FindingCard
      v-else-if="stale"
      :finding="{
        severity: 'note',
        title: `Cut to ${formatIn(operation.stage.restrictor.lengthMm, 'lengthMm', 'cm').text}`,
        why: 'Run ten minutes, then measure waste and product again: the next cut follows from that.',
      }"
    />
    <FindingCard
      v-else-if="advice && !advice.ok"
      :finding="{ severity: 'mind', title: 'No advice for this measurement', why: advice.error.message }"
    />
    <FindingCard
      v-else-if="operation.stage.restrictor.assumed && operation.stage.restrictor.form === 'tube'"
      :finding="{
        severity: 'note',
        title: 'How long is the restrictor tube?',
        why: 'A cut is a share of its length, and nobody has measured it yet: enter it where waste and product are measured.',
      }"
    />
    <template v-else-if="advice?.ok">
      <RestrictorBar :advice="advice.value" :length-mm="operation.stage.restrictor.lengthMm" :target="target" />
      <div v-if="advice.value.kind === 'fitSize' && advice.value.mLPerMin !== null" class="row">
        <button class="button primary" type="button" @click="sizeFitted(advice.value.mLPerMin)">
          A {{ advice.value.mLPerMin }} mL/min restrictor is in
        </button>
      </div>
      <div v-if="advice.value.kind === 'cut'" class="row after">
        <QuantityField
          look="big"
          label="Length after the cut"
          dimension="lengthMm"
          unit="cm"
          :low="10"
          :high="operation.stage.restrictor.lengthMm"
          :units="system.units"
          :model-value="lengthMm"
          @update:model-value="lengthMm = $event"
        />
        <button class="button primary" type="button" @click="cutDone">It is cut</button>
      </div>
    </template>
    <div class="row">
      <button class="button" type="button" @click="emit('measure')">Measure waste and product</button>
      <button v-if="advice?.ok && advice.value.kind === 'onTarget'" class="button primary" type="button" @click="emit('done')">
        The ratio stands
      </button>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.after { align-items: flex-end; }
.after .quantity { width: 220px; }
.after .button { min-height: 50px; margin-bottom: 3px; }
</style>
