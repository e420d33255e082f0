<script setup lang="ts">
import { CHECK_WORDS, faultOf, KIND_WORDS } from '@yes-clear/core/fault';
import { allStages, type System } from '@yes-clear/core/file';
import { inSentence } from '@yes-clear/core/quantity';
import { kindOf } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import { confirmCause } from '../store/confirmed';
import { changeReading } from '../store/readings';
import { isRecorded } from '@yes-clear/core/recording';
import { useSaving } from '../store/saving';
import type { FaultsFound } from '../worker/faultSearch';
import { faultName, oddsText, readingText } from '../kit/faultText';
import type { FaultSearch } from './useFaultSearch';

/** What is to be done if it is the likeliest cause, what says so, what no meter can see, and where the outcome goes. */
const props = defineProps<{ search: FaultSearch; found: FaultsFound; system: System }>();
const notice = useNotice();
const saving = useSaving();
const undo = useUndo();
const cause = computed(() => props.found.mend?.id ?? props.found.lead);
const fault = computed(() => faultOf(cause.value));
/** The stage that is worked on, where a part of it is changed: its runbook begins with it. */
const stage = computed(() =>
  fault.value && fault.value.cost.parts.length > 0
    ? (allStages(props.system.train).find((one) => kindOf(one).faults(one).includes(fault.value!.id)) ?? null)
    : null,
);
const isHealthy = computed(() => cause.value === 'healthy');
const standing = computed(() => props.found.known.filter(({ struck }) => !struck));
/** One reading that carries it all is named, where it may be bad. */
const restsOnOne = computed(() => {
  const first = props.found.evidence[0];
  const known = first && standing.value[first.reading];
  return props.found.evidence.length === 1 && known?.bad != null && known.bad > 0.2;
});
/** The outcome goes into the log, with the reading it was found by, and into the workshop's own odds. */
async function itWas(): Promise<void> {
  const id = cause.value;
  const name = faultName(id);
  const judged = props.search.judged.value;
  const noted = judged !== null && !isRecorded(judged);
  const count = async (by: 1 | -1): Promise<void> => {
    await confirmCause(id, by);
    await props.search.countAnew();
  };
  const kept = await saving.keep('what it was', async () => {
    if (noted) await changeReading(judged, { ...judged, note: `${judged.note} Found: ${name}.`.trim().slice(0, 2000) }, 'what was found');
    await count(1);
  });
  if (!kept.ok) return;
  notice.say(`Written down: ${name}.`, {
    label: 'Take back',
    run: () => {
      if (noted) undo.run();
      void count(-1);
    },
  });
}
</script>

<template>
  <template v-if="fault">
    <h2>
      {{ isHealthy ? 'As it stands' : found.mend ? 'Do this' : `If it is: ${inSentence(faultName(cause))}` }}
    </h2>
    <article class="card">
      <h3>{{ fault.words.remedy }}</h3>
      <p v-if="!isHealthy" class="small muted">
        {{ fault.cost.minutes > 0 ? `About ${fault.cost.minutes} minutes` : 'No work'
        }}{{ fault.cost.parts.length > 0 ? `; ${fault.cost.parts.join(', ')}` : '; no parts' }}.
      </p>
    </article>
    <article v-if="!isHealthy && fault.cost.parts.length > 0" class="card caution">
      <h3>Before anything is opened</h3>
      <p>
        Shut the feed, open the waste, and wait until the gauge reads nothing. Where mains plumbing or wiring is touched, the local code and
        licensed hands come first.
      </p>
    </article>
    <article class="card">
      <h3>What it looks like</h3>
      <p>{{ fault.words.sign }}</p>
      <h3>Not to be confused with</h3>
      <p>{{ fault.words.notTo }}</p>
    </article>
    <article v-if="found.evidence.length > 0" class="card">
      <h3>What says so</h3>
      <p v-for="one in found.evidence.slice(0, 3)" :key="one.reading">
        {{ KIND_WORDS[one.kind].label }} {{ readingText(one.kind, standing[one.reading]!.value, system.units) }}
        {{ one.words === 'all but rules out the other' ? 'all but rules out' : one.words }}
        “{{
          faultName(
            one.words === 'all but rules out the other'
              ? one.nats > 0
                ? found.against!
                : found.lead
              : one.nats > 0
                ? found.lead
                : found.against!,
          )
        }}”.
      </p>
      <p v-if="restsOnOne" class="small muted">This rests on one reading.</p>
    </article>
  </template>
  <article v-if="found.notExcluded.length > 0" class="card unseen">
    <h3>No meter can see this</h3>
    <p v-for="one in found.notExcluded" :key="one.id">
      <strong>{{ faultName(one.id) }}</strong> {{ oddsText(one.probability) }}. {{ one.harm }} Check:
      {{ CHECK_WORDS[one.kit].label.toLowerCase() }}.
    </p>
  </article>
  <div class="row">
    <button class="button primary" type="button" @click="itWas">{{ isHealthy ? 'It was nothing' : 'It was this' }}</button>
    <RouterLink class="button" :to="{ name: 'build', params: { id: system.id }, query: stage ? { part: stage.id } : {} }">
      {{ stage ? `Runbook: change ${inSentence(stage.name)}` : 'Runbook in Build' }}
    </RouterLink>
  </div>
  <p v-for="one in found.leftOut" :key="one.id" class="small muted">{{ faultName(one.id) }} is not looked for here: {{ one.why }}</p>
</template>

<!-- prettier-ignore -->
<style scoped>
.card { background: var(--sheet); border: 1px solid var(--line); border-radius: 10px; padding: 11px 13px 12px; display: grid; gap: 5px; }
.card h3 { font-size: 15px; line-height: 1.3; }
.card p { line-height: 1.4; font-size: 14.5px; }
.caution { border-left: 4px solid var(--warning); }
.unseen { border-left: 4px solid var(--action); }
.row { display: flex; gap: 8px; flex-wrap: wrap; }
@media (max-width: 860px) { .row .button { min-height: 44px; } }
</style>
