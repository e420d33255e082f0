<script setup lang="ts">
import { skippingCosts, standingRatio, type Verdict } from '@yes-clear/core/commission';
import type { Measure, Step } from '@yes-clear/core/stage';
import { computed, ref, watch } from 'vue';
import FindingCard from '../../kit/FindingCard.vue';
import { spanText } from '../../kit/useTimers';
import { timeOfDay } from '../../time/dates';
import LeaveOut from './LeaveOut.vue';
import MeasureRow from './MeasureRow.vue';
import RatioStep from './RatioStep.vue';
import StepTimer from './StepTimer.vue';
import TrimStep from './TrimStep.vue';
import { useRunbook } from './useRunbook';
import ValveAdvice from './ValveAdvice.vue';

/** One step: what must stand before it, what to do, what is read, and what to do when it fails. */
const props = defineProps<{ step: Step }>();
const book = useRunbook();
const doneAt = computed(() => book.done.value.get(props.step.id) ?? null);
const deviation = computed(() => book.deviations.value.get(props.step.id) ?? null);
const outside = computed(() => book.outside(props.step));
const missing = computed(() => book.missing(props.step));
const costs = computed(() => {
  if (asking.value === 'accept' && ratioOff.value !== null) return ratioOff.value;
  if (asking.value === 'accept')
    return [...outside.value.map(({ measure, verdict }) => said(measure, verdict)), ...missing.value].map((text) => `${text}.`).join(' ');
  const left = asking.value === 'rest' ? openElsewhere.value : [props.step];
  return [...new Set(left.map(({ act }) => skippingCosts(act)))].slice(0, 4).join(' ');
});
/** A figure outside its bounds with what was expected; a no is an answer. */
const said = (measure: Measure, verdict: Verdict): string =>
  measure.dimension === 'seen' ? `${measure.label}: no` : `${measure.label} ${verdict.read}, ${verdict.expected}`;
/** What going on is asked for: a figure off, an answer of no, or a blank. */
const about = computed(() => {
  if (ratioOff.value !== null || outside.value.some(({ measure }) => measure.dimension !== 'seen')) return 'figure' as const;
  return outside.value.length > 0 ? ('no' as const) : ('blank' as const);
});
const asking = ref<'skip' | 'accept' | 'rest' | null>(null);
watch(
  () => props.step.id,
  () => (asking.value = null),
);
/** Out of bounds, answered no or left blank, it goes on only with a reason. */
function go(): void {
  if (outside.value.length > 0 || missing.value.length > 0) asking.value = 'accept';
  else book.tick(props.step.id);
}
function answered(reason: string): void {
  if (asking.value === 'rest') book.handOverWithout([...openElsewhere.value], props.step.id, reason);
  else if (asking.value === 'accept') book.tick(props.step.id, reason, costs.value);
  else book.skip(props.step, reason);
  asking.value = null;
}
const openElsewhere = computed(() => book.steps.value.filter(({ id }) => id !== props.step.id && !book.settled(id)));
const isLast = computed(() => book.steps.value.at(-1)?.id === props.step.id);
/** The last ratio, if it is not the wanted one, goes on with a reason. */
const ratioOff = ref<string | null>(null);
function ratioSaved(off: string | null): void {
  ratioOff.value = off;
  if (off === null) book.tick(props.step.id);
  else asking.value = 'accept';
}
/** Where more runs to waste than is wanted nothing is cut: the step says so instead of its own words. */
const tooMuch = computed(() => {
  const last = book.system.value && standingRatio(book.system.value);
  const target = book.system.value?.train.wasteTarget ?? 4;
  const form = book.expected.value?.operation?.stage.restrictor.form;
  if (props.step.tool !== 'trim' || !last || last.productL <= 0 || last.wasteL / last.productL <= 1.1 * target) return null;
  return {
    title: `${(last.wasteL / last.productL).toFixed(1)} : 1 runs to waste: nothing is cut`,
    how:
      form === 'tube'
        ? 'Every cut lets more go. Fit a longer tube, or leave it where water costs little; then measure again.'
        : 'Fit the next smaller size, or leave it where water costs little; then measure again.',
  };
});
const cautions = computed(() => (tooMuch.value ? [] : props.step.cautions));
/** Cut: what was measured belongs to the length before. */
function measureAgain(): void {
  book.go(book.steps.value.find(({ tool }) => tool === 'ratio')?.id ?? props.step.id);
}
</script>

<template>
  <div class="step-work">
    <h1 class="title">{{ tooMuch?.title ?? step.title }}</h1>
    <p v-if="step.before" class="before"><b>First:</b> {{ step.before }}</p>
    <p class="how">
      {{ tooMuch?.how ?? step.how
      }}<template v-if="step.tool === 'ratio' || step.tool === 'ratioAgain'">
        Any jug will do: type “1 1/4 cup”, “0.33 L” or “330 ml”.</template
      >
    </p>
    <div v-if="cautions.length > 0" class="stack here">
      <FindingCard
        v-for="caution in cautions"
        :key="caution.title"
        :finding="{ severity: 'mind', title: caution.title, why: caution.text }"
      />
    </div>
    <StepTimer v-if="step.waits" :step="step" />
    <RatioStep
      v-if="step.tool === 'ratio' || step.tool === 'ratioAgain'"
      :key="step.id"
      :again="step.tool === 'ratioAgain'"
      @saved="ratioSaved"
    />
    <TrimStep v-else-if="step.tool === 'trim'" @measure="measureAgain" @done="book.tick(step.id)" />
    <template v-if="step.measures.length > 0">
      <MeasureRow v-for="measure in step.measures" :key="`${step.id}/${measure.id}`" :step="step" :measure="measure" />
    </template>
    <ValveAdvice v-if="step.tool === 'valves'" :step="step" />
    <p v-if="book.problem.value && step.measures.length > 0" class="small muted" role="status">
      Nothing is held against a prediction: {{ book.problem.value }}
    </p>
    <FindingCard
      v-if="deviation"
      :finding="{
        severity: 'mind',
        title: deviation.how === 'skipped' ? 'Left out' : 'Taken as it is',
        why: `${deviation.reason}${deviation.how === 'skipped' ? ` ${skippingCosts(step.act)}` : ''}`,
      }"
    />
    <FindingCard
      v-for="text in step.act === 'handOver' ? book.unproven.value : []"
      :key="text"
      :finding="{ severity: 'bad', title: 'Not proven yet', why: text }"
    />
    <div v-if="isLast && openElsewhere.length > 0 && !asking" class="sheet panel open">
      <p>
        <b>{{ openElsewhere.length === 1 ? '1 step is' : `${openElsewhere.length} steps are` }} still open</b>, from “{{
          openElsewhere[0]!.title
        }}” on.
      </p>
      <div class="row">
        <button class="button small" type="button" @click="book.go(openElsewhere[0]!.id)">Go there</button>
        <button class="button small" type="button" @click="asking = 'rest'">
          Hand over without {{ openElsewhere.length === 1 ? 'it' : 'them' }}
        </button>
      </div>
    </div>
    <LeaveOut v-if="asking" :asks="asking === 'accept' ? about : 'skip'" :costs="costs" @cancel="asking = null" @say="answered" />
    <div v-else class="row end">
      <template v-if="!doneAt">
        <button
          v-if="step.tool !== 'ratio' && step.tool !== 'ratioAgain'"
          class="button big"
          :class="{ primary: outside.length === 0 }"
          type="button"
          @click="go"
        >
          {{ outside.length > 0 ? 'Go on as it is' : isLast && openElsewhere.length === 0 ? 'Done, hand over' : 'Done, next step' }}
        </button>
        <button v-if="deviation?.how !== 'skipped'" class="button" type="button" @click="asking = 'skip'">Leave it out</button>
        <span v-if="missing.length > 0" class="muted small">{{
          missing.length === 1 ? missing[0] : `${missing.length} not read or answered yet`
        }}</span>
      </template>
      <template v-else>
        <button class="button" type="button" @click="book.reopen(step.id)">Do it again</button>
        <button class="button" type="button" @click="book.next(step.id)">Next step</button>
        <span class="muted small">Done {{ timeOfDay(doneAt) }}</span>
      </template>
      <span class="muted small span">{{
        step.minutes >= 60 && step.minutes % 60 === 0 ? `${step.minutes / 60} h` : `about ${spanText(step.minutes * 60)}`
      }}</span>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.step-work { display: grid; gap: 14px; max-width: 820px; }
.title { font-size: 24px; }
.before { color: var(--muted); margin: -6px 0 -8px; }
.how { margin: 0; max-width: 640px; font-size: 15.5px; }
.here { display: none; }
.end { margin-top: 4px; gap: 10px; }
.span { margin-left: auto; }
.open { display: grid; gap: 8px; padding: 10px 14px; }
.big { min-height: 46px; }
@media (max-width: 860px) {
  /* On a phone the caution stands above the work, where the hand is. */
  .here { display: grid; }
  .end .button { min-height: 50px; }
  .big { flex: 1; justify-content: center; }
}
</style>
