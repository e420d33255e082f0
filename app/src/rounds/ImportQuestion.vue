<script setup lang="ts">
import { dayOfYearAndTime } from '../time/dates';
import {
  isLikelyDate,
  newerOf,
  SYSTEM_PARTS,
  type FileIssue,
  type MergeChoices,
  type Reading,
  type ReadingSide,
  type RecordComparison,
  type SystemPart,
} from '@yes-clear/core/file';
import { computed, ref } from 'vue';
import Segments from '../kit/Segments.vue';
import type { Clash, ClashChoice, ImportPlan } from '../store/transfer';
import DifferingReadings from './DifferingReadings.vue';
import TwiceWritten from './TwiceWritten.vue';
import { useTwice } from './useTwice';

/** What a file holds of systems that are here already: nothing is replaced, and nothing left out, without a word. */
const props = defineProps<{ plan: ImportPlan }>();
const emit = defineEmits<{
  carryOut: [choices: ReadonlyMap<string, ClashChoice>, odd: 'keep' | 'leave', said: MergeChoices];
  cancel: [];
}>();
const choices = ref(new Map<string, ClashChoice>(props.plan.clashes.map(({ here }) => [here.system.id, 'merge'])));
const sides = ref(new Map<string, ReadingSide>());
const sideOf = (pair: readonly [Reading, Reading]): ReadingSide => sides.value.get(pair[0].id) ?? newerOf(pair);
const twice = useTwice(props.plan.clashes);
const odd = ref<'keep' | 'leave'>('leave');
const busy = ref(false);
const CHOICES = [
  { value: 'merge', title: 'Merge' },
  { value: 'both', title: 'Keep both' },
  { value: 'replace', title: 'Replace' },
  { value: 'leave', title: 'Leave as it is here' },
] as const;
const ODD = [
  { value: 'leave', title: 'Leave those readings out' },
  { value: 'keep', title: 'Open them as they are' },
] as const;

const many = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
const partsText = (parts: readonly SystemPart[]): string => parts.map((part) => SYSTEM_PARTS[part]).join(', ');
const newerText = ({ newer }: RecordComparison): string =>
  newer === 'same'
    ? 'edited last at the same time'
    : newer === 'here'
      ? 'the one here was edited last'
      : 'the one in the file was edited last';

/** What each choice would do, in numbers. */
function outcome({ here, compared }: Clash, choice: ClashChoice): string {
  const { readingsHere, readingsGone, parts, newer, stands } = compared;
  // Readings of impossible dates that are to be left out come along in no way.
  const comes = ({ at }: Reading): boolean => odd.value === 'keep' || isLikelyDate(at);
  const readingsThere = compared.readingsThere.filter(comes);
  const readingsDiffer = compared.readingsDiffer.filter(([, there]) => comes(there));
  switch (choice) {
    case 'merge': {
      const kept = stands === 'there' ? 'the file’s' : 'this browser’s';
      const rest = parts.length > 0 ? ` For ${partsText(parts)}, ${kept} stands.` : '';
      const doubled = readingsDiffer.filter((pair) => sideOf(pair) === 'both').length;
      const gone = readingsGone.length;
      const removed = gone > 0 ? ` What was removed stays removed: ${many(gone, 'reading')}.` : '';
      const goneHere = readingsGone.filter((reading) => here.readings.includes(reading)).length;
      return `All readings of both: ${many(here.readings.length - goneHere + readingsThere.length + doubled, 'reading')}.${removed}${rest}`;
    }
    case 'replace': {
      const gone =
        readingsHere.length > 0
          ? `${many(readingsHere.length, 'reading')} that only this browser has will be gone.`
          : 'No reading is lost.';
      const older = newer === 'here' && parts.length > 0 ? ` Newer entries here (${partsText(parts)}) will be gone.` : '';
      return `The file’s system takes its place. ${gone}${older}`;
    }
    case 'both':
      return `The file’s comes in beside it, named “${here.system.name} (file)”.`;
    case 'leave':
      return 'Nothing of this system is taken from the file.';
  }
}
/** Where a date stands, in words: a reading by its number, anything else by its place in the file. */
function oddText({ path, value }: FileIssue): string {
  const reading = /^readings\[(\d+)\]/.exec(path);
  return `${reading ? `Reading ${Number(reading[1]) + 1}` : path} is dated ${value.replaceAll('"', '').slice(0, 10)}`;
}
const others = computed(() => {
  const { fresh, known } = props.plan;
  return [
    ...(fresh.length > 0 ? [`${many(fresh.length, 'system')} new here will be opened.`] : []),
    ...(known.length > 0 ? [`${many(known.length, 'system')} ${known.length === 1 ? 'is' : 'are'} here already, the same.`] : []),
  ].join(' ');
});
function choose(id: string, choice: ClashChoice): void {
  choices.value = new Map(choices.value).set(id, choice);
}
function go(): void {
  busy.value = true;
  emit('carryOut', choices.value, odd.value, { which: (pair) => sides.value.get(pair[0].id), ...twice.said.value });
}
</script>

<template>
  <v-dialog :model-value="true" max-width="680" scrollable aria-label="Open a file" @update:model-value="emit('cancel')">
    <v-card class="ask">
      <h1>{{ plan.clashes.length > 0 ? 'Some of this is here already' : 'Dates to look at' }}</h1>
      <article v-for="clash in plan.clashes" :key="clash.here.system.id" class="clash" :aria-label="clash.here.system.name">
        <h2>
          {{ clash.here.system.name }} <span>{{ clash.here.system.site }}</span>
        </h2>
        <dl>
          <dt>Here</dt>
          <dd>{{ many(clash.here.readings.length, 'reading') }}, edited {{ dayOfYearAndTime(clash.here.system.updatedAt) }}</dd>
          <dt>In the file</dt>
          <dd>{{ many(clash.there.readings.length, 'reading') }}, edited {{ dayOfYearAndTime(clash.there.system.updatedAt) }}</dd>
          <dt>They differ</dt>
          <dd>
            {{
              [
                clash.compared.readingsHere.length > 0 ? `${many(clash.compared.readingsHere.length, 'reading')} only here` : '',
                clash.compared.readingsThere.length > 0 ? `${many(clash.compared.readingsThere.length, 'reading')} only in the file` : '',
                clash.compared.readingsDiffer.length > 0
                  ? `${many(clash.compared.readingsDiffer.length, 'reading')} not the same in both`
                  : '',
                clash.compared.readingsGone.length > 0
                  ? `${many(clash.compared.readingsGone.length, 'reading')} removed in one of them`
                  : '',
                clash.compared.parts.length > 0 ? `in ${partsText(clash.compared.parts)}; ${newerText(clash.compared)}` : '',
              ]
                .filter(Boolean)
                .join(' · ')
            }}
          </dd>
        </dl>
        <Segments
          :label="`What to do with ${clash.here.system.name}`"
          :choices="CHOICES"
          :model-value="choices.get(clash.here.system.id) ?? 'merge'"
          @update:model-value="choose(clash.here.system.id, $event)"
        />
        <p class="small">{{ outcome(clash, choices.get(clash.here.system.id) ?? 'merge') }}</p>
        <DifferingReadings
          v-if="clash.compared.readingsDiffer.length > 0 && (choices.get(clash.here.system.id) ?? 'merge') === 'merge'"
          :clash="clash"
          :side-of="sideOf"
          @choose="(id, side) => (sides = new Map(sides).set(id, side))"
        />
        <TwiceWritten
          v-if="(choices.get(clash.here.system.id) ?? 'merge') === 'merge' && twice.visits(clash).length + twice.works(clash).length > 0"
          :clash="clash"
          :visits="twice.visits(clash)"
          :works="twice.works(clash)"
          :visit-of="twice.visitOf"
          :work-of="twice.workOf"
          @visit="twice.sayVisit"
          @work="twice.sayWork"
        />
      </article>
      <article v-if="plan.odd.length > 0" class="clash">
        <h2>{{ many(plan.odd.length, 'date') }} outside 1990 to 2100</h2>
        <p class="small">
          {{ oddText(plan.odd[0]!) }}{{ plan.odd.length > 1 ? `, and ${plan.odd.length - 1} more` : '' }}. A clock that was wrong, or a
          slip?
        </p>
        <Segments v-model="odd" label="What to do with them" :choices="ODD" />
      </article>
      <p v-if="others" class="small muted">{{ others }}</p>
      <div class="row end">
        <button class="button" type="button" @click="emit('cancel')">Change nothing</button>
        <button class="button primary" type="button" :disabled="busy" @click="go">Go on</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.ask { padding: 18px 20px; display: grid; gap: 14px; overflow: auto; }
.clash { border: 1px solid var(--line); border-radius: 11px; padding: 11px 13px 12px; display: grid; gap: 9px; }
.clash h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 6px; }
dl { display: grid; grid-template-columns: 92px 1fr; gap: 3px 10px; margin: 0; font-size: 13.8px; }
dt { color: var(--muted); }
dd { margin: 0; }
.ask .clash > :deep(.segments) { justify-self: start; }
@media (max-width: 600px) {
  dl { grid-template-columns: 74px 1fr; }
  .ask .clash > :deep(.segments) { display: grid; justify-self: stretch; }
  .ask .clash > :deep(.segments button) { border-right: 0; border-bottom: 1px solid var(--line); text-align: left; min-height: 44px; }
  .ask .clash > :deep(.segments button:last-child) { border-bottom: 0; }
}
.end { justify-content: flex-end; }
</style>
