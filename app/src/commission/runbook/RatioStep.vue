<script setup lang="ts">
import { USUAL_RATIO } from '@yes-clear/core/membrane';
import { currentSample } from '@yes-clear/core/file';
import { newId } from '../../store/newId';
import {
  LINE_STEP,
  bothLow,
  bucketTest,
  jugsBeyond,
  expectedProductLPerH,
  productAgainst,
  trimAdvice,
  type BucketResult,
  type TrimAdvice,
} from '@yes-clear/core/commission';
import { THIN, type Outcome, words } from '@yes-clear/core/quantity';
import type { MembraneOperation } from '@yes-clear/core/train';
import { refDebounced, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { waterColour } from '../../descent/waterColour';
import FindingCard from '../../kit/FindingCard.vue';
import QuantityField from '../../kit/QuantityField.vue';
import { useKey } from '../../kit/useKeys';
import { useOpenSystem } from '../../system/openSystem';
import MeasuringJug from './MeasuringJug.vue';
import RatioScale from './RatioScale.vue';
import RestrictorBar from './RestrictorBar.vue';
import { useCountdown } from './useCountdown';
import { useRunbook } from './useRunbook';
import { withRestrictor } from './withRestrictor';

/** Waste and product in any two jugs over the same time; what that means for the restrictor. */
const props = defineProps<{ again: boolean }>();
/** With what is off about it, where the last measurement is not what was wanted. */
const emit = defineEmits<{ saved: [off: string | null] }>();
const current = useOpenSystem();
const { system } = current;

/** A ratio within this of the wanted one is kept without a word (common practice: a tenth). */
const KEPT = 0.1;
/** Jugs are read in millilitres, or in cups where volumes are gallons. */
const jugUnit = computed(() => (system.value?.units.volume === 'gal' ? 'cup' : 'mL'));
const EMPTY = {
  wasteL: null as number | null,
  productL: null as number | null,
  seconds: 60,
};
/** What is in the jugs is kept even if the tab dies before it is saved. */
const draft = useLocalStorage(`ratio-draft-${props.again ? 'again-' : ''}${system.value?.id ?? ''}`, EMPTY, { mergeDefaults: true });
const typed = ref({ waste: '', product: '' });
const countdown = useCountdown(() => draft.value.seconds);
useKey('t', () => countdown.toggle());

const result = computed(() =>
  draft.value.wasteL === null || draft.value.productL === null
    ? null
    : bucketTest({ wasteL: draft.value.wasteL, productL: draft.value.productL }),
);
const bucket = computed(() => (result.value?.ok ? result.value.value : null));
const target = computed(() => system.value?.train.wasteTarget ?? 4);
/** Pressure and temperature are those planned until the person on site reads others: at this step or at the line's own. */
const book = useRunbook();
/** What is fitted now: a new element where one is being fitted, whatever the log says of the one before. */
const operation = computed(() => book.expected.value?.operation ?? null);
const pressureBar = computed(() => book.today.value.linePressureBar ?? system.value?.source.linePressureBar ?? 0);
const temperatureC = computed(() => book.today.value.temperatureC ?? (system.value ? currentSample(system.value.source).temperatureC : 15));
function advise(at: MembraneOperation, measured: BucketResult): Outcome<TrimAdvice> {
  return trimAdvice(
    at.unit,
    { ...at.feed, temperatureC: temperatureC.value },
    { ...at.conditions, linePressureBar: pressureBar.value },
    measured,
    target.value,
  );
}
/** The advice solves the unit some dozens of times: it follows the typing at a small distance. */
const settledBucket = refDebounced(bucket, 160);
const advice = computed(() => {
  const at = operation.value;
  return at && settledBucket.value && beyond.value === null ? advise(at, settledBucket.value) : null;
});
/** The product's jug against the clock, the pressure and the temperature: another flow than planned is told at once. */
const product = computed(() => {
  const at = operation.value;
  const { productL, seconds } = draft.value;
  if (!at || productL === null || productL === 0) return null;
  const expected = expectedProductLPerH(
    at.unit,
    { ...at.feed, temperatureC: temperatureC.value },
    { ...at.conditions, linePressureBar: pressureBar.value },
  );
  return expected === null ? null : productAgainst(productL, seconds, expected);
});
const productFinding = computed(() => {
  const against = product.value;
  if (against?.verdict === 'fits') return lowTogether.value;
  if (!against || !system.value) return null;
  const say = words(system.value.units);
  const flow = (lPerH: number): string => say.of(lPerH, 'flowLPerH');
  return {
    severity: 'mind' as const,
    title: `Product runs at ${flow(against.measuredLPerH)}; ${flow(against.expectedLPerH)} were expected`,
    why: `At ${say.of(pressureBar.value, 'pressureBar')} and ${say.of(temperatureC.value, 'temperatureC')}. Likely, in this order: ${against.reasons.join('; ')}.`,
  };
});
/** Both flows below the solved ones by much the same: pressure is missing, whatever the gauge on the line says. */
const lowTogether = computed(() => {
  const solvedWaste = book.expected.value?.solved.unit?.concentrateLPerH;
  const against = product.value;
  const { wasteL, seconds } = draft.value;
  if (!against || solvedWaste === undefined || wasteL === null || !system.value) return null;
  const [productShare, wasteShare] = [against.measuredLPerH / against.expectedLPerH, (3600 * wasteL) / seconds / solvedWaste];
  if (!bothLow(productShare, wasteShare)) return null;
  const off = (share: number): string => `${Math.round(100 * (1 - share))}${THIN}%`;
  return {
    severity: 'note' as const,
    title: `Product ${off(productShare)} and waste ${off(wasteShare)} below what was worked out`,
    why: 'Both together: less pressure reaches the membrane than the gauge shows. Look for a kink, a valve half open, a filter that is clogged already; the ratio itself holds.',
  };
});
/** Jugs that hold more than the unit can have drawn: said before anything is cut for it. */
const beyond = computed(() => {
  const feed = book.expected.value?.solved.unit?.feedLPerH;
  const { wasteL, productL, seconds } = draft.value;
  if (!system.value || feed === undefined || wasteL === null || productL === null || !jugsBeyond({ wasteL, productL }, seconds, feed))
    return null;
  const say = words(system.value.units);
  return {
    severity: 'bad' as const,
    title: `${say.of(wasteL + productL, 'volumeL')} in ${Math.round(seconds)}${THIN}s is ${say.of((3600 * (wasteL + productL)) / seconds, 'flowLPerH')}: more than this unit draws`,
    why: `It draws about ${say.of(feed, 'flowLPerH')}. Was it millilitres, or did the jugs stand longer? Type it anew; nothing is cut for this.`,
  };
});
/** More product than waste where the unit gives several times as much waste: the lines are likely changed. */
const swapped = computed(() => {
  const expectedRatio = book.expected.value?.solved.unit?.wasteToProduct ?? 0;
  if (!bucket.value || bucket.value.wasteToProduct >= 1 || expectedRatio < 2) return null;
  return {
    severity: 'bad' as const,
    title: 'More product than waste: are the lines, or the jugs, changed?',
    why: `This unit gives about ${expectedRatio.toFixed(1)} of waste to 1 of product. On the housing the central port is product, the offset one waste.`,
  };
});
/** How long the tube is as it hangs there: a cut is a share of it, so it is asked, not taken for granted. */
const restrictor = computed(() => (operation.value && operation.value.stage.valve === null ? operation.value.stage.restrictor : null));
function setLength(lengthMm: number): void {
  const at = operation.value;
  if (!at) return;
  current.edit('restrictor length', (s) => withRestrictor(s, at.stage.id, { lengthMm, assumed: false }));
}
const solved = computed(() => current.solved.value?.report ?? null);
const verdict = computed(() => {
  const ratio = bucket.value?.wasteToProduct;
  if (ratio === undefined || !bucket.value) return null;
  const share = `${Math.round(bucket.value.recovery * 100)}${THIN}% of the feed becomes product.`;
  if (ratio < USUAL_RATIO.least) return { good: false, text: `${share} Too much is kept back.` };
  if (ratio > USUAL_RATIO.most) return { good: false, text: `${share} Much goes to the drain.` };
  return { good: true, text: share };
});
const scaling = computed(() => {
  const scale = solved.value?.scale;
  if (!scale || !system.value) return '';
  const say = words(system.value.units);
  if (scale.ratioAtAction === null)
    return scale.feedIndex > scale.actionIndex ? 'This water can scale at any ratio.' : 'This water does not scale at any usual ratio.';
  return `This water scales below ${say.ratio(scale.ratioAtAction)}.`;
});
const expected = computed(() => {
  const ratio = book.expected.value?.solved.unit?.wasteToProduct;
  return ratio && system.value ? `The model expected ${words(system.value.units).ratio(ratio)} here.` : '';
});
const fullL = computed(() => Math.max(draft.value.wasteL ?? 0, draft.value.productL ?? 0, 0.05) * 1.12);
const colours = computed(() => ({
  waste: waterColour(solved.value?.solved.waste?.state.ec25UScm ?? 800),
  product: waterColour(solved.value?.solved.stations.find((s) => s.kind === 'membrane')?.state.ec25UScm ?? 15),
}));

function save(): void {
  const at = operation.value;
  if (!bucket.value || !at || draft.value.wasteL === null || draft.value.productL === null) return;
  const measured = bucket.value;
  const found = advise(at, measured);
  const now = new Date().toISOString();
  const { wasteL, productL, seconds } = draft.value;
  const [readBar, readC] = [pressureBar.value, temperatureC.value];
  current.edit('ratio measured', (s) => {
    const ratio = {
      id: newId(),
      at: now,
      wasteL,
      productL,
      seconds,
      pressureBar: readBar,
      temperatureC: readC,
      restrictorLengthMm: at.stage.restrictor.lengthMm,
    };
    const kept = { ...s, build: { ...s.build, ratios: [...s.build.ratios, ratio] } };
    if (!found.ok) return kept;
    // From here on the model's tube is the real one.
    const { calibratedBoreMm } = found.value;
    return withRestrictor({ ...kept, build: { ...kept.build, calibratedBoreMm } }, at.stage.id, { boreMm: calibratedBoreMm });
  });
  draft.value = { ...draft.value, wasteL: null, productL: null };
  const { wasteToProduct, uncertainty } = measured;
  const off = props.again && Math.abs(wasteToProduct - target.value) > Math.max(KEPT * target.value, 2 * uncertainty);
  emit('saved', off ? `${wasteToProduct.toFixed(1)} ± ${uncertainty.toFixed(1)} : 1 stands, ${target.value} : 1 was wanted.` : null);
}
const mark = (which: 'waste' | 'product', text: string): void => {
  typed.value = { ...typed.value, [which]: /[a-z]/i.test(text) ? `typed ${text.trim()}` : '' };
};
</script>

<template>
  <div v-if="system" class="ratio">
    <div class="top">
      <div class="jugs">
        <MeasuringJug label="Waste" :volume-l="draft.wasteL" :full-l="fullL" :colour="colours.waste" :cups="jugUnit === 'cup'" />
        <MeasuringJug label="Product" :cups="jugUnit === 'cup'" :volume-l="draft.productL" :full-l="fullL" :colour="colours.product" />
      </div>
      <div class="result" aria-live="polite">
        <h3>Waste to product</h3>
        <p class="figure" data-testid="ratio">{{ bucket ? `${bucket.wasteToProduct.toFixed(1)} : 1` : '–' }}</p>
        <p v-if="verdict" class="verdict" :class="{ good: verdict.good }">{{ verdict.text }}</p>
        <p v-else-if="result && !result.ok" class="verdict">{{ result.error.message }}</p>
        <RatioScale :ratio="bucket?.wasteToProduct ?? null" :target="target" />
        <p class="small notes">
          {{ scaling }} {{ expected }} <template v-if="bucket">Jugs read to ±{{ bucket.uncertainty.toFixed(1) }}.</template>
        </p>
      </div>
    </div>
    <div class="fields">
      <QuantityField
        look="big"
        label="Waste"
        dimension="volumeL"
        :unit="jugUnit"
        :units="system.units"
        optional
        :model-value="draft.wasteL"
        :note="typed.waste"
        @update:model-value="draft.wasteL = $event"
        @typed="mark('waste', $event)"
      />
      <QuantityField
        look="big"
        label="Product"
        dimension="volumeL"
        :unit="jugUnit"
        :units="system.units"
        optional
        :model-value="draft.productL"
        :note="typed.product"
        @update:model-value="draft.productL = $event"
        @typed="mark('product', $event)"
      />
      <QuantityField
        look="big"
        label="Time"
        dimension="timeS"
        :low="1"
        :high="3600"
        :units="system.units"
        :model-value="draft.seconds"
        @update:model-value="$event !== null && (draft.seconds = $event)"
      />
      <button class="button timer" :class="{ running: countdown.running.value }" type="button" @click="countdown.toggle()">
        {{
          countdown.running.value
            ? `${countdown.left.value} s · stop`
            : countdown.finished.value
              ? 'Time: take both away'
              : `Start ${Math.round(draft.seconds)} s timer`
        }}
        <kbd>T</kbd>
      </button>
    </div>
    <div class="conditions">
      <QuantityField
        label="Line pressure now"
        dimension="pressureBar"
        :units="system.units"
        :model-value="pressureBar"
        @update:model-value="$event !== null && book.readLine(LINE_STEP.pressure, $event)"
      />
      <QuantityField
        label="Water temperature now"
        dimension="temperatureC"
        :units="system.units"
        :model-value="temperatureC"
        @update:model-value="$event !== null && book.readLine(LINE_STEP.temperature, $event)"
      />
      <QuantityField
        v-if="restrictor"
        label="Restrictor length now"
        dimension="lengthMm"
        unit="cm"
        :low="10"
        :high="2000"
        :units="system.units"
        :assumed="restrictor.assumed"
        :model-value="restrictor.lengthMm"
        @confirm="setLength(restrictor.lengthMm)"
        @update:model-value="$event !== null && setLength($event)"
      />
      <p class="small muted">
        The ratio is no constant: the membrane feels the cold, the restrictor hardly does. Both are kept with the measurement.
      </p>
    </div>
    <FindingCard v-if="beyond" :finding="beyond" />
    <FindingCard v-else-if="swapped" :finding="swapped" />
    <FindingCard v-else-if="productFinding" :finding="productFinding" />
    <FindingCard
      v-if="advice?.ok && restrictor?.assumed"
      :finding="{
        severity: 'note',
        title: 'How long is the restrictor tube?',
        why: 'A cut is a share of its length, and nobody has measured it yet: enter it, or confirm it as it stands.',
      }"
    />
    <RestrictorBar
      v-else-if="advice?.ok && operation"
      :advice="advice.value"
      :length-mm="operation.stage.restrictor.lengthMm"
      :target="target"
    />
    <FindingCard
      v-else-if="advice && !advice.ok"
      :finding="{ severity: 'mind', title: 'This measurement does not fit the model', why: advice.error.message }"
    />
    <div class="row">
      <button class="button primary" type="button" :disabled="!bucket || beyond !== null" @click="save">
        {{ again ? 'Save as baseline' : 'Save and go to trim' }}
      </button>
      <span class="muted small">The target is {{ target }} : 1.</span>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.ratio { display: grid; gap: 12px; }
.top { display: flex; gap: 34px; flex-wrap: wrap; align-items: flex-start; }
.jugs { display: flex; gap: 30px; }
.result { flex: 1; min-width: 260px; }
.figure { font-size: 52px; line-height: 1.1; font-weight: 760; letter-spacing: -0.01em; }
.verdict { color: var(--warning); font-weight: 650; }
.verdict.good { color: var(--good); }
.notes { margin-top: 12px; color: var(--muted); max-width: 360px; }
.fields { display: grid; grid-template-columns: 1fr 1fr 0.8fr auto; gap: 12px; align-items: start; }
.conditions { display: grid; grid-template-columns: 1fr 1.25fr 1.2fr 1.4fr; gap: 12px; align-items: start; }
.conditions p { padding-top: 22px; }
.timer { min-height: 50px; margin-top: 23px; justify-content: center; }
.timer.running { background: var(--select); border-color: var(--action); }
@media (max-width: 860px) {
  .top { gap: 16px; justify-content: center; }
  .fields, .conditions { grid-template-columns: 1fr 1fr; }
  .conditions p { grid-column: 1 / -1; padding: 0; }
  .timer { min-height: 52px; }
  .row .button { min-height: 48px; }
}
</style>
