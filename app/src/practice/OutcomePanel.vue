<script setup lang="ts">
import { faultOf, HARMS, isIdle, repairOf } from '@yes-clear/core/fault';
import { inSentence, THIN } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { faultName, oddsText } from '../kit/faultText';
import type { PracticeView } from '../worker/practiceBench';
import { checkLabel, minutesText } from './say';

/** How an exercise went: harm first, then what was hidden, the score, and the way beside the shortest one. */
const props = defineProps<{ view: PracticeView }>();
const judged = computed(() => props.view.judged!);
const hidden = computed(() => judged.value.hidden.map(({ id }) => faultName(id)).join('; and: '));
const verdict = computed(() => {
  const { credit } = judged.value;
  if (credit === 1) return 'You named it.';
  if (credit >= 0.6) return 'Not quite that, but it would have been mended.';
  if (credit > 0) return 'It was among those you named.';
  return 'It was something else.';
});
const minutes = (value: number): string => `${Math.round(value)}${THIN}min`;
const effort = computed(() => {
  const { minutes: work, parts, harm, mending, total } = judged.value.effort;
  const shares = [
    `${minutes(work)} at the rig`,
    ...(parts >= 0.5 ? [`${minutes(parts)} for parts`] : []),
    ...(harm > 0 ? [`${minutes(harm)} for harm`] : []),
    ...(mending >= 0.5 ? [`${minutes(mending)} to mend what you named`] : []),
  ];
  return `Your way: ${minutes(total)} of effort (${shares.join(', ')}). The shortest way on the same rig: ${minutes(judged.value.effortRef)}.`;
});
const odds = (bits: number): string => oddsText(2 ** bits);
const bits = (value: number): string => (value > -0.005 ? '0' : value.toFixed(2).replace('-', '−'));
const confidence = computed(() => {
  const { own, search } = judged.value.surpriseBits;
  return `What was hidden you gave ${odds(own)} (${bits(own)} bit); on what you had read, the search gives it ${odds(search)} (${bits(search)} bit).`;
});
const missed = computed(() => {
  const one = judged.value.missed;
  if (!one) return null;
  const pair = one.separates ? `: it tells “${faultName(one.separates[0])}” from “${faultName(one.separates[1])}”` : '';
  return `The best check you did not make is ${inSentence(checkLabel(one.check))}${pair}.`;
});
const early = computed(() => judged.value.boughtEarly.map((id) => inSentence(repairOf(id).label)).join(', '));
const remedy = computed(() => judged.value.hidden.map(({ id }) => faultOf(id)?.words.remedy ?? '').join(' '));
const signed = (value: number): string => `${value < 0 ? '−' : ''}${Math.abs(value).toFixed(1)}`;
</script>

<template>
  <section class="outcome" aria-label="How it went">
    <div v-for="id in judged.harm" :key="id" class="sheet harm" role="alert">
      <strong>{{ HARMS[id].title }}</strong> {{ HARMS[id].caution }} Counted as {{ HARMS[id].minutes }} minutes.
    </div>
    <div class="sheet result">
      <p class="score">
        <strong>{{ judged.score }}</strong> of 100
      </p>
      <div>
        <h2>{{ verdict }}</h2>
        <p>
          Hidden was: <strong>{{ hidden }}</strong>. {{ remedy }}
        </p>
      </div>
    </div>
    <p>{{ effort }}</p>
    <p>{{ confidence }}</p>
    <p v-if="missed">{{ missed }}</p>
    <p v-if="early">Bought before it was sure to help: {{ early }}.</p>
    <p class="teaches">{{ view.exercise.teaches }}</p>
    <div v-if="view.steps.length > 0" class="sheet table">
      <table>
        <thead>
          <tr>
            <th>Your checks</th>
            <th class="num">min</th>
            <th class="num">settled, bit</th>
            <th class="num">expected</th>
            <th>led afterwards</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(step, i) in view.steps" :key="i" :class="{ first: i === judged.firstLed }">
            <td>
              {{ checkLabel(step.check) }}
              <small v-if="isIdle(step)">could not tell anything: the leading causes predict the same here</small>
              <small v-else-if="i === judged.firstLed">from here what was hidden led</small>
            </td>
            <td class="num">{{ minutesText(step.minutes).replace(`${THIN}min`, '') }}</td>
            <td class="num">{{ signed(step.bits) }}</td>
            <td class="num">{{ signed(step.expectedBits) }}</td>
            <td>{{ faultName(step.lead) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="judged.optimal.length > 0" class="short">
      <h3>The shortest way</h3>
      <p>{{ judged.optimal.map(({ check }) => inSentence(checkLabel(check))).join(' → ') }}</p>
    </div>
    <p v-else class="muted small">The shortest way needs no check at all.</p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.outcome { display: grid; gap: 11px; }
.harm { border-left: 4px solid var(--bad); padding: 10px 13px; }
.harm strong { color: var(--bad); }
.result { display: grid; grid-template-columns: max-content minmax(0, 1fr); gap: 18px; padding: 14px 16px; align-items: center; }
.score { color: var(--muted); }
.score strong { font-size: 34px; color: var(--action); letter-spacing: -0.02em; }
h2 { font-size: 17px; }
.teaches { border-left: 4px solid var(--good); padding: 4px 0 4px 10px; font-weight: 600; }
.table { padding: 6px 12px 8px; overflow-x: auto; }
table { border-collapse: collapse; width: 100%; font-size: 14px; }
th { text-align: left; font-size: 13px; color: var(--muted); font-weight: 600; padding: 5px 10px 5px 0; }
td { border-top: 1px solid var(--hair); padding: 6px 10px 6px 0; vertical-align: top; }
.num { text-align: right; }
td small { display: block; color: var(--muted); font-size: 12.8px; }
.first td { background: color-mix(in srgb, var(--good) 9%, transparent); }
</style>
