<script setup lang="ts">
import { EXERCISES, HARMS, hasValve, VALVES, type ValveId, type Valves } from '@yes-clear/core/fault';
import { THIN } from '@yes-clear/core/quantity';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { columnsOf } from '../descent/drawing';
import DescentPicture from '../descent/DescentPicture.vue';
import HeaderBar from '../kit/HeaderBar.vue';
import { faultName } from '../kit/faultText';
import FoundList from './FoundList.vue';
import NameCause from './NameCause.vue';
import OpenChart from './OpenChart.vue';
import OutcomePanel from './OutcomePanel.vue';
import { checkLabel, entryText } from './say';
import ToolGrid from './ToolGrid.vue';
import { usePractice } from './usePractice';

/** One exercise at the practice bench: the rig, what can be done to it, what was found, and how much is still open. */
const props = defineProps<{ exercise: string; seed: string }>();
const router = useRouter();
const practice = usePractice(props.exercise, Number(props.seed));
const { view, units, problem, refused, progress, busy, over } = practice;
const naming = ref(false);
// How it went is read from its top.
watch(over, (now) => now && window.scrollTo({ top: 0 }));

const subtitle = computed(() => {
  const one = view.value?.exercise;
  if (!one) return 'Setting the rig up';
  const number = EXERCISES.findIndex(({ id }) => id === one.id);
  return `${number < 0 ? 'Free play' : `Exercise ${number + 1} of ${EXERCISES.length}`} · ${one.asks}`;
});
const clock = computed(() => `${Math.round(view.value?.state.minutes ?? 0)}`);
const left = computed(() => {
  const budget = view.value?.exercise.budgetMinutes;
  return budget === undefined ? null : Math.max(0, Math.round(10 * (budget - view.value!.state.minutes)) / 10);
});
/** What came of the last thing done. */
const last = computed(() => {
  const now = view.value;
  if (!now) return '';
  if (refused.value) return refused.value;
  const entry = now.entries.at(-1);
  if (!entry) return `Customer: “${now.exercise.customer}”`;
  if (entry.action.kind === 'hint' && now.hint) {
    if (!now.hint.check) return 'Hint: what is to be done is plain. Name the cause.';
    const pair = now.hint.separates;
    return `Hint: ${checkLabel(now.hint.check)}${pair ? `. It tells “${faultName(pair[0])}” from “${faultName(pair[1])}”.` : '.'}`;
  }
  const { label, figure } = entryText(entry, now.exercise.system, now.exercise.asked, units);
  const says = figure ? `${label}: ${figure}` : label;
  return [says, ...entry.harm.map((id) => HARMS[id].title)].join('. ');
});
const harmed = computed(() => view.value?.entries.at(-1)?.harm ?? []);

/** Room for the axis, and the least a column's words need, px. */
const LEFT = 96;
const COLUMN = 92;
const { width } = useElementSize(useTemplateRef<HTMLElement>('host'));
const columnWidth = computed(() =>
  view.value ? Math.max(COLUMN, Math.floor((width.value - LEFT - 2) / columnsOf(view.value.picture.input))) : COLUMN,
);
/** A valve touched in the picture goes to its other position. */
function turn(id: string): void {
  const now = view.value;
  const valve = id as ValveId;
  if (!now || !(valve in VALVES) || !hasValve(now.exercise.system, valve)) return;
  const [first, second] = VALVES[valve].positions;
  void practice.act({ kind: 'valve', valve, to: (now.state.valves[valve] === first ? second : first) as Valves[ValveId] });
}
const next = computed(() => {
  const at = EXERCISES.findIndex(({ id }) => id === props.exercise);
  return at < 0 || at === EXERCISES.length - 1 ? null : EXERCISES[at + 1]!.id;
});
/** Another rig of the same exercise. */
const anotherSeed = (): string => String(1 + Math.floor(Math.random() * 99_999));
const go = (exercise: string, seed: string): void => void router.push({ name: 'bench', params: { exercise, seed } });
document.title = 'Practice bench · Yes Clear';
</script>

<template>
  <div>
    <HeaderBar title="Practice bench" :subtitle="subtitle">
      <template #tools>
        <p v-if="view" class="clock">
          <strong>{{ clock }}</strong> min · <strong>{{ Math.round(view.state.spent) }}</strong> EUR<span class="long"> of parts</span>
        </p>
        <template v-if="view && !over">
          <button class="button" type="button" :disabled="busy" title="Costs five minutes" @click="practice.act({ kind: 'hint' })">
            Hint
          </button>
          <button class="button primary" type="button" :disabled="busy" @click="naming = true">
            <span>Name<span class="long"> the cause</span></span>
          </button>
        </template>
      </template>
    </HeaderBar>
    <div v-if="problem" class="problem">
      <p role="alert">{{ problem }}</p>
      <div class="row ways">
        <button class="button" type="button" @click="practice.restart">Begin it again</button>
        <RouterLink class="button" :to="{ name: 'practice' }">All exercises</RouterLink>
      </div>
    </div>
    <div v-if="!view && progress !== null" class="sheet wait" role="status">
      <p>Setting the rig up, and working out what every cause would show of it…</p>
      <progress :value="progress" max="1" aria-label="Causes worked out"></progress>
    </div>
    <div v-if="view" class="work">
      <main class="stack">
        <h1 class="hidden">Practice bench</h1>
        <div ref="host" class="sheet scroller">
          <DescentPicture
            :input="view.picture.input"
            size="large"
            :sentence="view.picture.sentence"
            :left="LEFT"
            :column-width="columnWidth"
            @turn="turn"
          />
        </div>
        <p v-if="!over" class="last sheet" :class="{ refused: refused || harmed.length > 0 }" role="status" aria-live="polite">
          {{ last }}
        </p>
        <OutcomePanel v-if="over" :view="view" />
        <ToolGrid v-else :view="view" :busy="busy" @act="practice.act($event)" />
        <div v-if="over" class="row ways">
          <button class="button primary" type="button" @click="go(exercise, anotherSeed())">Again, on another rig</button>
          <button v-if="next" class="button" type="button" @click="go(next, '1')">Next exercise</button>
          <RouterLink class="button" :to="{ name: 'practice' }">All exercises</RouterLink>
        </div>
      </main>
      <aside>
        <div v-for="id in harmed" :key="id" class="sheet harm" role="alert">
          <strong>{{ HARMS[id].title }}</strong>
          <p>{{ HARMS[id].caution }} It counts {{ HARMS[id].minutes }}{{ THIN }}min.</p>
        </div>
        <FoundList :view="view" :units="units" />
        <section>
          <h2>How much is still open</h2>
          <OpenChart
            :start-bits="view.startBits"
            :steps="view.steps"
            :minutes="view.state.minutes"
            :shortest="view.judged ? view.judged.optimal : null"
          />
          <p v-if="!over" class="muted small">The shortest way and the cause are shown when you have named yours.</p>
        </section>
        <p v-if="left !== null && !over" class="small">
          <strong>{{ left }}{{ THIN }}min</strong> until the customer leaves.
        </p>
        <div v-if="!over" class="sheet caution">
          <strong>Before a housing is opened</strong>
          <p>{{ HARMS.pressure.caution }} Opened under pressure it counts an hour.</p>
        </div>
        <p class="muted small">On a real site local codes and licensed trades come first.</p>
      </aside>
    </div>
    <NameCause
      v-if="naming && view"
      :causes="view.causes"
      @close="naming = false"
      @name="(said) => ((naming = false), practice.declare(said))"
    />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.hidden { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.clock { white-space: nowrap; font-size: 14.5px; color: var(--muted); }
.clock strong { color: var(--ink); font-size: 18px; }
.scroller { overflow-x: auto; overflow-y: hidden; }
.stack { display: grid; gap: 12px; align-content: start; }
.last { padding: 9px 13px; font-weight: 600; border-left: 4px solid var(--action); }
.last.refused { border-left-color: var(--bad); }
.wait { margin: 20px; padding: 14px 16px; display: grid; gap: 10px; }
progress { width: 100%; height: 8px; accent-color: var(--action); }
.problem { margin: 14px 20px; display: grid; gap: 10px; }
.problem p { color: var(--bad); font-weight: 550; }
aside { display: grid; gap: 16px; align-content: start; }
aside section { display: grid; gap: 8px; }
.caution, .harm { border-left: 4px solid var(--warning); padding: 10px 13px; font-size: 14px; }
.harm { border-left-color: var(--bad); }
.harm strong { color: var(--bad); }
.ways { gap: 9px; flex-wrap: wrap; }
@media (max-width: 860px) {
  .long { display: none; }
  .clock strong { font-size: 16px; }
  .clock { font-size: 13px; }
  .last { position: sticky; top: calc(var(--header) + 6px); z-index: 6; box-shadow: 0 2px 8px #0002; }
  .button { min-height: 44px; }
}
</style>
