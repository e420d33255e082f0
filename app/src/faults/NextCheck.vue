<script setup lang="ts">
import { CHECK_WORDS, isKind, KIND_WORDS, kindIssue, LEAST_BITS, type KindId, type YesNoId } from '@yes-clear/core/fault';
import type { UnitPreference } from '@yes-clear/core/quantity';
import { computed, ref, watch } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import type { FaultsFound } from '../worker/faultSearch';
import ForeseenPlot from './ForeseenPlot.vue';
import { bandText, faultName, oddsText, readingText } from '../kit/faultText';
import type { FaultSearch } from './useFaultSearch';

/** The check that tells most a minute, what each leading cause would read, and where its answer goes. */
const props = defineProps<{ search: FaultSearch; found: FaultsFound; units: UnitPreference }>();
/** What is asked for: the check chosen, or the reading that is to be taken again. */
const asked = computed((): { readonly id: KindId | YesNoId; readonly minutes: number } | null => {
  const now = props.found;
  if (now.check) return now.check;
  const again = now.again[0];
  const known = again === undefined ? undefined : now.known[again];
  return known ? { id: known.kind, minutes: 0.5 } : null;
});
const label = (id: KindId | YesNoId): string => (isKind(id) ? KIND_WORDS[id].label : CHECK_WORDS[id].label);
const words = computed(() => (asked.value ? (isKind(asked.value.id) ? KIND_WORDS[asked.value.id] : CHECK_WORDS[asked.value.id]) : null));
const minutesText = (minutes: number): string => (minutes < 1 ? 'half a minute' : `${minutes} ${minutes === 1 ? 'minute' : 'minutes'}`);
const lead = computed(() => {
  switch (props.found.decision) {
    case 'readAgain':
      return 'First read this again';
    case 'nothingFits':
      return 'Read these two again first';
    case 'remedy':
      return 'What is to be done is plain';
    case 'trial':
      return 'More readings will not decide';
    default:
      return 'Best next check';
  }
});
/** The likeliest pairs of causes, where no single one fits. */
const NAMED_PAIRS = 2;
const pairs = computed(() =>
  props.found.pairs
    .slice(0, NAMED_PAIRS)
    .map(({ ids, probability }) => `${ids.map((id) => `“${faultName(id)}”`).join(' and ')} (${oddsText(probability)} of the pairs tried)`),
);
const again = computed(() => props.found.again.map((i) => props.found.known[i]!));
const value = ref<number | null>(null);
watch(
  () => asked.value?.id,
  () => (value.value = null),
);
const kind = computed((): KindId | null => (asked.value && isKind(asked.value.id) ? asked.value.id : null));
const issue = computed(() => {
  if (!kind.value || value.value === null) return null;
  const allowed = kindIssue(kind.value, value.value);
  return allowed ? `Accepted is ${allowed}.` : null;
});
function enter(): void {
  if (!kind.value || value.value === null || issue.value) return;
  props.search.read({ kind: kind.value, value: value.value });
  value.value = null;
}
const tells = computed(() => {
  const check = props.found.check;
  if (!check) return '';
  if (check.bits < LEAST_BITS) return 'It would hardly tell anything.';
  const [a, b] = check.separates ?? [];
  return a && b ? `It tells “${faultName(a)}” from “${faultName(b)}”.` : '';
});
const expectations = computed(() => {
  const check = props.found.check;
  if (!check || !isKind(check.id)) return '';
  const at = check.id;
  return check.expected.map(({ id, band }) => `${faultName(id)}: ${bandText(at, band, props.units)}`).join('. ');
});
const OTHERS = 6;
const all = ref(false);
const others = computed(() => props.found.others.slice(0, all.value ? undefined : OTHERS));
</script>

<template>
  <section class="card" aria-label="What to do next">
    <p class="lead">
      {{ lead }}<template v-if="found.check && found.decision === 'check'"> · {{ minutesText(found.check.minutes) }}</template>
    </p>
    <template v-if="again.length > 0">
      <p v-if="props.found.decision === 'nothingFits'">
        No cause that is known fits all of this. Before anything is changed, read again:
        {{ again.map((one) => `${KIND_WORDS[one.kind].label} (${readingText(one.kind, one.value, units)})`).join(' and ') }}.
      </p>
      <p v-if="pairs.length > 0">
        If they stand, two causes at once would fit: {{ pairs.join('; or ') }}. Mend one, and measure again before the other.
      </p>
      <p v-else>
        {{ KIND_WORDS[again[0]!.kind].label }} {{ readingText(again[0]!.kind, again[0]!.value, units) }} does not go with what else was
        read.
      </p>
    </template>
    <template v-if="asked && words">
      <h2>{{ label(asked.id) }}</h2>
      <p>{{ words.how }} {{ tells }}</p>
      <p v-if="words.caution" class="caution">{{ words.caution }}</p>
      <template v-if="kind">
        <p v-if="expectations" class="small muted">{{ expectations }}.</p>
        <ForeseenPlot
          v-if="props.found.check && props.found.check.expected.length > 0"
          :kind="kind"
          :expected="props.found.check.expected"
          :units="units"
        />
        <form class="enter" @submit.prevent="enter">
          <QuantityField
            :key="kind"
            :label="`${KIND_WORDS[kind].label}, as read`"
            :dimension="KIND_WORDS[kind].dimension"
            :units="units"
            :model-value="value === null ? null : value * KIND_WORDS[kind].perUnit"
            optional
            @update:model-value="value = $event === null ? null : $event / KIND_WORDS[kind].perUnit"
          />
          <button class="button primary" type="submit" :disabled="value === null || issue !== null">Enter it</button>
        </form>
        <p v-if="issue" class="problem">{{ issue }}</p>
      </template>
      <div v-else class="enter" role="group" :aria-label="label(asked.id)">
        <span class="question">{{ CHECK_WORDS[asked.id as YesNoId].question }}</span>
        <button class="button primary" type="button" @click="search.answer({ check: asked.id as YesNoId, yes: true })">Yes</button>
        <button class="button" type="button" @click="search.answer({ check: asked.id as YesNoId, yes: false })">No</button>
      </div>
    </template>
    <p v-else-if="found.decision === 'remedy'">See what to do, and write down what it was: the next search knows it.</p>
    <p v-else-if="found.decision === 'trial'">No check would tell more than it costs: the cheapest trial for its odds stands beside.</p>
  </section>
  <section v-if="others.length > 0" class="others">
    <h3>Other checks, by what they settle a minute</h3>
    <div class="chips">
      <button v-for="one in others" :key="one.id" type="button" class="chip" @click="search.choose(one.id)">
        {{ label(one.id) }} <small>{{ one.minutes < 1 ? '½' : one.minutes }} min</small>
      </button>
      <button v-if="!all && props.found.others.length > OTHERS" type="button" class="chip more" @click="all = true">
        {{ props.found.others.length - OTHERS }} more
      </button>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.card { background: var(--sheet); border: 2px solid var(--action); border-radius: 12px; padding: 14px 16px 16px; display: grid; gap: 9px; }
.lead { color: var(--action); font-weight: 650; font-size: 14.5px; }
h2 { font-size: 17.5px; }
.caution { border-left: 4px solid var(--warning); padding: 4px 0 4px 10px; font-weight: 550; }
.enter { display: flex; gap: 10px; align-items: end; flex-wrap: wrap; }
.enter .quantity { flex: 1 1 200px; max-width: 320px; }
.question { flex: 1 1 200px; align-self: center; font-weight: 600; }
.problem { color: var(--bad); font-weight: 550; }
.others { display: grid; gap: 7px; }
h3 { font-size: 14px; font-weight: 600; color: var(--muted); }
.chips { display: flex; flex-wrap: wrap; gap: 7px; }
.chip { border: 1px solid var(--line); background: var(--sheet); color: var(--ink); border-radius: 9px; padding: 6px 11px; font: inherit; font-size: 14px; cursor: pointer; text-align: left; }
.chip:hover { border-color: var(--muted); }
.chip small { color: var(--muted); padding-left: 3px; }
@media (max-width: 860px) { .chip, .enter .button { min-height: 44px; } }
</style>
