<script setup lang="ts">
import { doubtOf, expectedText, probeOf, unitsOfProbe } from '@yes-clear/core/commission';
import { USUAL_LINE_PRESSURE, USUAL_WATER_TEMPERATURE } from '@yes-clear/core/file';
import type { Measure, Step } from '@yes-clear/core/stage';
import { computed, ref } from 'vue';
import DropCounter from '../../kit/DropCounter.vue';
import QuantityField from '../../kit/QuantityField.vue';
import Segments from '../../kit/Segments.vue';
import MeasureGauge from './MeasureGauge.vue';
import { useRunbook } from './useRunbook';

/** One thing that is read or looked at: typed as people type, drawn on what is accepted, judged at once. */
const props = defineProps<{ step: Step; measure: Measure }>();
const book = useRunbook();
const units = computed(() => unitsOfProbe(book.system.value!, probeOf(book.system.value!, props.step, props.measure)));
const last = computed(() => book.last(props.step, props.measure)?.value ?? null);
const verdict = computed(() => book.verdict(props.step, props.measure));
const good = computed(() => verdict.value?.verdict === 'fits' || verdict.value?.verdict === 'kept');
const against = computed(() => book.asRead(props.step, props.measure));
const expected = computed(() => expectedText(against.value, units.value));
const usual = computed(() =>
  props.measure.dimension === 'temperatureC'
    ? USUAL_WATER_TEMPERATURE
    : props.measure.id === 'linePressureBar' && (props.measure.expected ?? 2) >= USUAL_LINE_PRESSURE.low
      ? USUAL_LINE_PRESSURE
      : undefined,
);
const SEEN = [
  { value: 'yes', title: 'Yes' },
  { value: 'no', title: 'No' },
] as const;
/** Hardness and alkalinity are counted from a drop bottle. */
const counted = computed(() =>
  props.measure.dimension === 'hardnessMgL'
    ? ('hardness' as const)
    : props.measure.dimension === 'alkalinityMgL'
      ? ('alkalinity' as const)
      : null,
);
const counting = ref(false);
function take({ mgL }: { mgL: number }): void {
  counting.value = false;
  keep(mgL);
}
const keep = (value: number | null): void => {
  if (value !== null && value !== last.value) book.read(props.step, props.measure, value);
};
</script>

<template>
  <div v-if="measure.dimension === 'seen'" class="seen">
    <span class="label">{{ measure.label }}</span>
    <Segments
      :label="measure.label"
      :choices="SEEN"
      :model-value="last === null ? null : last === 1 ? 'yes' : 'no'"
      @update:model-value="keep($event === 'yes' ? 1 : 0)"
    />
    <p v-if="verdict?.advice" class="advice" role="status">{{ verdict.advice }}</p>
  </div>
  <div v-else class="figure">
    <QuantityField
      look="big"
      :label="measure.label"
      :dimension="measure.dimension"
      v-bind="{ ...(measure.unit && { unit: measure.unit }), ...(usual && { usual }) }"
      :units="units"
      optional
      :model-value="last"
      @update:model-value="keep"
    />
    <div class="told">
      <MeasureGauge
        :low="against.low"
        :high="against.high"
        :expected="against.expected"
        :read="last"
        :doubt="last === null ? 0 : doubtOf(measure, last)"
        :good="good"
      />
      <p class="small" role="status">
        <b v-if="verdict" :class="{ good, off: !good }"
          >{{ verdict.read }}{{ good ? '' : verdict.verdict === 'low' ? ', too low' : ', too high' }}.
        </b>
        <span class="muted">{{ expected }}{{ expected === '' ? '' : ': ' }}{{ measure.because }}.</span>
      </p>
      <p v-if="verdict?.advice" class="advice">{{ verdict.advice }}</p>
      <button v-if="counted && !counting" class="button small" type="button" @click="counting = true">Count drops</button>
    </div>
    <DropCounter
      v-if="counted && counting"
      class="counter"
      :what="counted"
      :units="units"
      :last="null"
      @take="take"
      @close="counting = false"
    />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.seen { display: flex; flex-wrap: wrap; gap: 8px 16px; align-items: center; }
.label { font-weight: 600; flex: 1 1 240px; max-width: 520px; }
.seen :deep(button) { min-height: 44px; min-width: 64px; justify-content: center; }
.figure { display: grid; grid-template-columns: 230px minmax(0, 1fr); gap: 6px 20px; align-items: start; }
.told { padding-top: 20px; min-width: 0; }
.told p { margin: 0 0 0 4px; max-width: 520px; text-wrap: pretty; }
b.good { color: var(--good); }
b.off { color: var(--warning); }
/* The counter takes the whole width: a wide target for a thumb. */
.counter { grid-column: 1 / -1; }
.told .button { margin-top: 8px; }
.advice { flex-basis: 100%; color: var(--ink); border-left: 4px solid var(--warning); padding: 2px 0 2px 10px; margin-top: 6px !important; font-size: 14.5px; }
@media (max-width: 860px) { .figure { grid-template-columns: minmax(0, 1fr); } .told { padding-top: 0; } .label { flex-basis: 180px; } }
</style>
