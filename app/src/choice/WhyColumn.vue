<script setup lang="ts">
import {
  changeText,
  doubtsOf,
  doubtsText,
  FURTHEST,
  INPUT_WORDS,
  reasonText,
  rejectionText,
  ROUTE_WORDS,
  RULE_WORDS,
  TODAY,
  type InputTurn,
} from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import { inSentence, moneyText } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import FindingCard from '../kit/FindingCard.vue';
import type { Options } from './useOptions';

/** Why this one, what would change it, and how sure it is. */
const props = defineProps<{ system: System; options: Options }>();
const whole = computed(() => props.options.whole.value);
const found = (id: string) => whole.value!.sifted.found.find((one) => one.id === id)!;
const currency = computed(() => props.system.prices.currency);
const reason = computed(() => {
  const best = props.options.recommended.value;
  return best && whole.value ? reasonText(best, found(best.id), found(best.cheapest), currency.value) : null;
});
/** The nearest turn of each input, as a bar by the logarithm of its factor. */
const bars = computed(() =>
  (props.options.turns.value ?? []).map((turn) => {
    const near = nearest(turn);
    if (!near) return { input: turn.input, text: 'never', width: 0, side: 'left' as const };
    const factor = near.at < 1 ? 1 / near.at : near.at;
    return {
      input: turn.input,
      text: `${near.at < 1 ? '÷' : '×'}${factor < 10 ? factor.toFixed(factor < 1.1 ? 2 : 1) : Math.round(factor)}`,
      width: Math.min(100, (100 * Math.log(factor)) / Math.log(FURTHEST)),
      side: near.at < 1 ? ('left' as const) : ('right' as const),
    };
  }),
);
const nearest = ({ below, above }: InputTurn) => (below && (!above || Math.abs(Math.log(below.at)) <= Math.log(above.at)) ? below : above);
const alone = computed(() => bars.value.every(({ width }) => width === 0));
/** Where a turn is no jump: what the two cost there. */
const meets = computed(() =>
  props.options.recommended.value?.by === 'cost'
    ? 'There both cost the same a year.'
    : 'There the sturdier one costs more than the twentieth it is worth.',
);
/** The two inputs that turn it first, in words. */
const turnWords = computed(() =>
  (props.options.turns.value ?? []).slice(0, 2).flatMap((turn) => {
    const near = nearest(turn);
    if (!near) return [];
    const percent = Math.round(100 * Math.abs(near.at - 1));
    const moved =
      near.at < 1
        ? near.at > 0.5
          ? `${percent}\u202f% less`
          : `less than ${Math.round(100 * near.at)}\u202f% of it`
        : near.at < 2
          ? `${percent}\u202f% more`
          : `${near.at.toFixed(1)} times as much`;
    const wins = near.wins ? `${inSentence(ROUTE_WORDS[near.wins])} would win` : 'nothing here would do';
    return [
      {
        key: turn.input,
        title: `${INPUT_WORDS[turn.input]} ${moved}: ${wins}`,
        why: near.jump && near.wins ? 'There one of the two stops, or begins, to be allowed.' : meets.value,
      },
    ];
  }),
);
const sureness = computed(() => {
  const now = props.options.sure.value;
  const at = now ? now.ids.indexOf(TODAY) : -1;
  if (!now) return null;
  const rival = at > 0 ? at : now.ids.length > 1 ? 1 : -1;
  if (rival < 0) return null;
  const share = Math.round(100 * now.compared.firstBeats[rival]!);
  const name = at > 0 ? 'today’s' : 'the next one';
  const word = { clearly: 'Clearly', probably: 'Probably', even: 'Even' }[now.compared.word[rival]!];
  const band = now.compared.spreads[0]!;
  const breaks = at > 0 ? props.options.rows.value.find(({ id }) => id === TODAY)?.rejection : null;
  return {
    title: share >= 50 ? `${word}: cheaper than ${name} in ${share} of 100` : `Dearer than ${name} in ${100 - share} of 100`,
    why: `${moneyText(band.p50, currency.value)} a year, ${moneyText(band.p10, currency.value)} to ${moneyText(band.p90, currency.value)} in 8 of 10 cases. ${doubtsText(doubtsOf(props.system))}${breaks ? ` Today’s breaks a rule: ${RULE_WORDS[breaks.rule].toLowerCase()}.` : ''}`,
    good: share >= 70,
  };
});
</script>

<template>
  <h2>{{ reason ? 'Why this one' : 'What is in the way' }}</h2>
  <FindingCard v-if="reason" :finding="{ severity: 'good', title: reason[0], why: reason[1] }" />
  <template v-if="whole && !reason">
    <FindingCard
      :finding="{
        severity: 'bad',
        title: 'No train would do',
        why: 'Each breaks a rule. The smallest change that would let one in stands below, rule by rule.',
      }"
    />
    <FindingCard
      v-for="{ rejection, title } in whole.shown.smallest"
      :key="rejection.rule"
      :finding="{
        severity: 'mind',
        title: changeText(rejection, system.units, system.prices.currency),
        why: `${RULE_WORDS[rejection.rule]}. ${title}: ${rejectionText(rejection, system.units, system.prices.currency)}`,
      }"
    />
    <FindingCard
      v-if="whole.shown.smallest.length === 0"
      :finding="{
        severity: 'mind',
        title: 'No single change would let one in',
        why: 'Every train breaks two rules or more: the count on the left says which.',
      }"
    />
  </template>
  <FindingCard v-for="turn in turnWords" :key="turn.key" :finding="{ severity: 'note', title: turn.title, why: turn.why }" />
  <section v-if="reason" class="sheet turns" aria-label="What would change the answer">
    <h3>What would change the answer</h3>
    <p v-if="options.turning.value !== null" class="small muted" role="status">
      Each figure is being moved until another route wins…
      <progress :value="options.turning.value" max="1" aria-label="Figures looked at"></progress>
    </p>
    <p v-if="bars.length > 0 && alone" class="small">
      No other route would do anywhere near: whatever water and parts cost, this kind stays the answer.
    </p>
    <dl v-else-if="bars.length > 0">
      <template v-for="bar in bars" :key="bar.input">
        <dt>{{ INPUT_WORDS[bar.input] }}</dt>
        <dd :class="bar.side"><span v-if="bar.width > 0" class="bar" :style="{ width: `${bar.width / 2}%` }"></span></dd>
        <dd class="text">{{ bar.text }}</dd>
      </template>
    </dl>
    <p v-if="bars.length > 0 && !alone" class="small muted">
      To a fifth and to five times each; the tap’s strength to a third and three times.
    </p>
  </section>
  <FindingCard v-if="sureness" :finding="{ severity: sureness.good ? 'good' : 'note', title: sureness.title, why: sureness.why }" />
</template>

<!-- prettier-ignore -->
<style scoped>
.turns { padding: 11px 13px; display: grid; gap: 8px; }
.turns h3 { color: var(--ink); font-size: 14.5px; }
dl { display: grid; grid-template-columns: 96px minmax(0, 1fr) 48px; gap: 6px 8px; margin: 0; font-size: 13.3px; align-items: center; }
dd { margin: 0; position: relative; height: 14px; border-radius: 3px; background: linear-gradient(90deg, transparent calc(50% - 1px), var(--muted) 0, var(--muted) calc(50% + 1px), transparent 0); }
.bar { position: absolute; top: 1px; height: 12px; background: var(--action); border-radius: 3px; }
.left .bar { right: 50%; }
.right .bar { left: 50%; }
.text { background: none; height: auto; color: var(--muted); text-align: right; }
progress { width: 100%; height: 6px; accent-color: var(--action); }
</style>
