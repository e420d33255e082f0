<script setup lang="ts">
import { usualUnits } from '../kit/usualUnits';
import { METRIC_UNITS } from '@yes-clear/core/quantity';
import { GOAL_IDS, GOAL_ROWS, type GoalId } from '@yes-clear/core/goal';
import { TEMPLATE_ROWS, type Answers } from '@yes-clear/core/template';
import { CHARACTER_ROWS, CHARACTERS, type Character } from '@yes-clear/core/water';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { columnsOf } from '../descent/drawing';
import DescentPicture from '../descent/DescentPicture.vue';
import FindingCard from '../kit/FindingCard.vue';
import FigureLine from '../kit/FigureLine.vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import { newId } from '../store/newId';
import { useSaving } from '../store/saving';
import { addSystem } from '../store/systems';
import { useAnswer } from '../worker/useAnswer';

/** The first visit: two answers, and the train that fits them is drawn and solved under the fields. */
defineEmits<{ open: []; template: []; demo: [] }>();
const router = useRouter();
const saving = useSaving();

const KNOWN = [
  { value: 'ppm', title: 'ppm' },
  { value: 'µS/cm', title: 'µS/cm' },
  { value: 'unknown', title: 'I don’t know' },
] as const;
type Known = (typeof KNOWN)[number]['value'];
const known = ref<Known>('ppm');
/** Conductivity as typed. Until it is, the train stands on a usual tap, and says so. */
const ec25UScm = ref<number | null>(null);
const character = ref<Character>('municipal');
const goal = ref<GoalId>('marineMakeUp');
const GOALS = GOAL_IDS.filter((id) => id !== 'custom').map((value) => ({ value, title: GOAL_ROWS[value].label }));
const SUPPLIES = CHARACTERS.map((value) => ({ value, title: CHARACTER_ROWS[value].label }));

const units = usualUnits();
const answers = computed<Answers>(() => {
  if (known.value === 'unknown') return { goal: goal.value, reading: null, character: character.value, units };
  if (ec25UScm.value === null) return { goal: goal.value, reading: null, character: 'municipal', units };
  const shown = known.value === 'ppm' ? ec25UScm.value * METRIC_UNITS.ppmFactor : ec25UScm.value;
  return { goal: goal.value, reading: { shown, in: known.value }, character: 'municipal', units };
});
const { answer } = useAnswer('firstSight', () => answers.value);
const sight = computed(() => (answer.value?.ok ? answer.value.value : null));

/** Room for the axis, and the least a column's words need, px. */
const LEFT = 96;
const COLUMN = 84;
const { width } = useElementSize(useTemplateRef<HTMLElement>('host'));
const columnWidth = computed(() =>
  sight.value ? Math.max(COLUMN, Math.floor((width.value - LEFT - 2) / columnsOf(sight.value.input))) : COLUMN,
);

const refused = ref<string | null>(null);
async function keep(): Promise<void> {
  // What solves a train comes with the page it is needed for.
  const { fittingSystem } = await import('@yes-clear/core/advice');
  const system = fittingSystem(answers.value, { id: newId(), site: 'Site', at: new Date().toISOString() });
  const kept = await saving.keep('the new system', () => addSystem(system));
  refused.value = kept.ok ? null : `Not saved: ${kept.reason}. ${kept.remedy}`;
  if (kept.ok) await router.push({ name: 'train', params: { id: system.id } });
}
</script>

<template>
  <section class="first">
    <header>
      <h1>From the tap to a logged reading.</h1>
      <p>
        Yes Clear works out reverse-osmosis and deionization systems for the people who build and look after them. Two answers, and here is
        a train; everything is computed and kept in this browser.
      </p>
    </header>
    <div class="ask sheet">
      <div class="question">
        <h2>What does the meter show at the tap?</h2>
        <div class="row">
          <Segments v-model="known" label="What the meter counts in" :choices="KNOWN" />
          <QuantityField
            v-if="known !== 'unknown'"
            label="At the tap"
            dimension="conductivityUScm"
            :unit="known"
            :low="0.1"
            :high="200000"
            :units="METRIC_UNITS"
            optional
            empty="as it reads"
            :model-value="ec25UScm"
            @update:model-value="ec25UScm = $event"
          />
          <label v-else class="labelled"
            ><span>Kind of supply</span><v-select v-model="character" :items="SUPPLIES" aria-label="Kind of supply"
          /></label>
        </div>
      </div>
      <div class="question">
        <h2>What is the water for?</h2>
        <label class="labelled"><span>Use</span><v-select v-model="goal" :items="GOALS" aria-label="What the water is for" /></label>
      </div>
    </div>
    <FindingCard
      v-if="answer && !answer.ok"
      :finding="{ severity: 'bad', title: 'This cannot be worked out', why: answer.error.message }"
    />
    <section v-if="sight" class="sheet sight" aria-label="The train that fits">
      <div class="says">
        <h2>{{ sight.title }}</h2>
        <p class="muted small">{{ TEMPLATE_ROWS[sight.template].label }}. {{ TEMPLATE_ROWS[sight.template].says }}</p>
        <p v-if="!answers.reading" class="muted small">
          Nobody measured this tap: it stands on a usual water, {{ CHARACTER_ROWS[answers.character].label.toLowerCase() }}.
        </p>
      </div>
      <div ref="host" class="scroller">
        <DescentPicture :input="sight.input" size="large" :sentence="sight.sentence" :left="LEFT" :column-width="columnWidth" />
      </div>
      <FigureLine :figures="sight.foot" />
      <ul class="findings">
        <li v-for="finding in sight.findings" :key="finding.id" :class="finding.severity">
          <strong>{{ finding.title }}</strong> {{ finding.why }}
        </li>
      </ul>
    </section>
    <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
    <div class="ways">
      <button class="button primary" type="button" :disabled="!sight" @click="keep">Keep it as a system</button>
      <span class="or muted">or</span>
      <button class="button" type="button" @click="$emit('template')">Start from a template</button>
      <button class="button" type="button" @click="$emit('open')">Open a file</button>
      <button class="button" type="button" @click="$emit('demo')">Load the demo</button>
      <RouterLink class="button" :to="{ name: 'practice' }">Practise finding faults</RouterLink>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.first { max-width: 1000px; margin: 26px auto 40px; padding: 0 20px; display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr); }
header { display: grid; gap: 6px; }
h1 { font-size: 27px; }
header p { font-size: 16px; line-height: 1.45; max-width: 780px; }
.ask { display: grid; grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr); gap: 12px 26px; padding: 14px 16px; }
.question { display: grid; gap: 8px; align-content: start; }
.question .row { align-items: end; }
.question .row > :last-child { flex: 1 1 180px; }
.sight { display: grid; grid-template-columns: minmax(0, 1fr); gap: 8px; padding: 12px 16px 14px; }
.scroller { overflow-x: auto; overflow-y: hidden; }
.findings { display: grid; grid-template-columns: repeat(auto-fit, minmax(250px, 1fr)); gap: 10px 16px; list-style: none; margin: 4px 0 0; padding: 0; font-size: 13.3px; }
.findings li { border-left: 4px solid var(--line); padding-left: 10px; }
.findings strong { display: block; font-size: 14.5px; }
.findings .good { border-color: var(--good); }
.findings .mind { border-color: var(--warning); }
.findings .bad { border-color: var(--bad); }
.ways { display: flex; gap: 10px; flex-wrap: wrap; align-items: center; }
.wrong { color: var(--bad); font-weight: 550; }
@media (max-width: 860px) { .ask { grid-template-columns: minmax(0, 1fr); } }
@media (max-width: 500px) { .first { padding: 0 12px; margin-top: 14px; } .or { display: none; } .ways .button { flex: 1 1 100%; justify-content: center; } }
</style>
