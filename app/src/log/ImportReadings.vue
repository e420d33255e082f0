<script setup lang="ts">
import { allStages, type Reading, type System } from '@yes-clear/core/file';
import {
  alreadyHere,
  guessColumns,
  isMeterFile,
  isOnRecord,
  readTable,
  slipsOf,
  takeLines,
  takeTable,
  unitsOf,
  withoutFigure,
  withWorks,
  WORK_WORDS,
  type Column,
  type ColumnOf,
  type Doubt,
  type RowWork,
} from '@yes-clear/core/log';
import { useLocalStorage } from '@vueuse/core';
import { FIGURES, type Figure } from '@yes-clear/core/recording';
import { grouped, THIN } from '@yes-clear/core/quantity';
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import { useOpenSystem } from '../system/openSystem';
import { newId } from '../store/newId';
import { bringInReadings } from '../store/readings';
import { keepRecording, whileWriting } from '../store/recordingRows';
import { useSaving } from '../store/saving';
import { localClock } from '../time/localClock';
import { dayOfYear } from '../time/dates';
import type { BroughtIn } from '../worker/bringIn';
import { askBeside, bringInBeside, type Running } from '../worker/client';

/** Readings from a file or a clipboard: columns named once for each make of file, what cannot be read named by its line. */
const props = defineProps<{ system: System; readings: readonly Reading[] }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const undo = useUndo();
const saving = useSaving();
const current = useOpenSystem();
const picker = useTemplateRef<HTMLInputElement>('picker');
const text = ref('');
const busy = ref(false);
const clock = computed(() => localClock(new Date(), props.system.units.temperature === '°F'));

/** A file too long for a field of text, of which the field holds the head. */
const long = shallowRef<{ readonly name: string; readonly file: Blob } | null>(null);
const name = ref('Pasted table');
const table = computed(() => (text.value.trim() === '' ? null : readTable(text.value)));
/** Rows in all: of a long file about as many as its length says. */
const rowCount = computed(() => {
  const rows = table.value?.rows.length ?? 0;
  return long.value ? Math.round((rows * long.value.file.size) / Math.max(1, text.value.length)) : rows;
});
/** Written by a meter rather than by hand: kept whole, and each day counts with its middle figure. */
const byMeter = computed(() => table.value !== null && isMeterFile(table.value, columns.value, rowCount.value, clock.value));
/** What columns were taken for before, by the make of file. */
const remembered = useLocalStorage<Record<string, Column[]>>('yes-clear:columns', {});
const key = computed(() => `${props.system.id}|${table.value?.shape ?? ''}`);
const columns = shallowRef<readonly Column[]>([]);
watch(
  table,
  (found) => {
    columns.value = found ? (remembered.value[key.value] ?? guessColumns(props.system, found, clock.value)) : [];
  },
  { immediate: true },
);
function setColumn(i: number, change: Partial<Column>): void {
  columns.value = columns.value.map((column, k) => {
    if (k === i) {
      const of = change.of ?? column.of;
      return { of, unit: change.unit ?? (of === column.of ? column.unit : (unitsOf(props.system, of)[0] ?? null)) };
    }
    // Two columns do not hold the same.
    return change.of && change.of !== 'ignore' && column.of === change.of ? { of: 'ignore', unit: null } : column;
  });
}
/** Columns of figures or words nobody has named: told, for on a phone they lie off the screen. */
const notTaken = computed(() =>
  columns.value.flatMap(({ of }, i) =>
    of === 'ignore' && table.value?.rows.some((row) => (row[i] ?? '') !== '') ? [table.value.heads[i] ?? ''] : [],
  ),
);
const choices = computed((): readonly { readonly value: ColumnOf; readonly title: string }[] => [
  { value: 'ignore', title: 'not taken' },
  { value: 'when', title: 'day and time' },
  { value: 'date', title: 'day' },
  { value: 'time', title: 'time' },
  ...props.system.train.probes.map(({ id, name }) => ({ value: `probe:${id}` as ColumnOf, title: name })),
  ...props.system.train.gauges.map(({ id, name }) => ({ value: `gauge:${id}` as ColumnOf, title: name })),
  ...(Object.keys(FIGURES) as Figure[]).map((value) => ({ value, title: FIGURES[value].name })),
  { value: 'work', title: 'Work done' },
  { value: 'note', title: 'Note' },
  { value: 'counts', title: 'Counts, yes or no' },
]);

const taken = computed(() => {
  if (text.value.trim() === '' || byMeter.value) return null;
  return table.value
    ? takeTable(props.system, table.value, columns.value, clock.value, newId)
    : takeLines(props.system, text.value, clock.value, newId);
});
const twice = computed(() => (taken.value ? alreadyHere(taken.value.readings, props.readings) : new Set<string>()));
const fresh = computed(() => (taken.value?.readings ?? []).filter(({ id }) => !twice.value.has(id)));
/** The log and the file in one, in order of time, with where each reading stands. */
const together = computed(() => {
  const all = [...props.readings, ...fresh.value].sort((a, b) => a.at.localeCompare(b.at));
  return { all, at: new Map(all.map(({ id }, i) => [id, i])) };
});
/** Readings next to one, that it is held against. */
const AROUND = 12;
function slipsIn(reading: Reading): Doubt[] {
  const { all, at } = together.value;
  const i = at.get(reading.id) ?? 0;
  return slipsOf(props.system, reading, all.slice(Math.max(0, i - AROUND), i + AROUND + 1)).filter(({ field }) => field !== 'at');
}
/** Readings with a figure that looks like a slip, held against the log and the rest of the file. */
const odd = computed(() =>
  fresh.value.flatMap((reading) => {
    const doubts = slipsIn(reading);
    return doubts.length > 0 ? [{ reading, doubts }] : [];
  }),
);
/** What is done with each odd reading: as it is typed until somebody says otherwise. */
type OddAnswer = 'keep' | 'correct' | 'leave';
const answers = ref<Record<string, OddAnswer>>({});
const ODD: readonly { readonly value: OddAnswer; readonly title: string }[] = [
  { value: 'keep', title: 'As typed' },
  { value: 'correct', title: 'Correct' },
  { value: 'leave', title: 'Leave the figure out' },
];
/** Odd readings are gone through one by one; a file with more of them has its columns wrong. */
const MOST_ODD = 60;
/** Work of the table that is not on record yet; each is written down unless it is taken out. */
const works = computed((): readonly RowWork[] => (taken.value?.works ?? []).filter((one) => !isOnRecord(props.system, one)));
const leftOut = ref<ReadonlySet<number>>(new Set());
const chosenWorks = computed(() => works.value.filter((_, i) => !leftOut.value.has(i)));
function toggleWork(i: number): void {
  const next = new Set(leftOut.value);
  if (!next.delete(i)) next.add(i);
  leftOut.value = next;
}
const partOf = ({ stageId, instrumentId }: RowWork): string =>
  allStages(props.system.train).find(({ id }) => id === stageId)?.name ??
  props.system.instruments.find(({ id }) => id === instrumentId)?.name ??
  '';
/** The first reading of a new log may be what was measured at the handover. */
const canBeHandOver = computed(() => props.system.build.commissioned === null && props.readings.length === 0 && fresh.value.length > 1);
const isHandOver = ref(false);
const span = computed(() => {
  const days = fresh.value.map(({ at }) => at).sort();
  return days.length === 0 ? '' : `${dayOfYear(days[0]!)} to ${dayOfYear(days.at(-1)!)}`;
});

/** Characters that are still shown as text, and the head of what is longer. */
const SHOWN_TEXT = 600_000;
const HEAD = 60_000;
const refusal = ref('');
async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file) await take(file.name, file);
}
/** Takes a file, of spreadsheets and loggers or of sensor figures; of a long one the head is enough to name its columns. */
async function take(called: string, file: Blob): Promise<void> {
  refusal.value = '';
  name.value = called;
  const start = await file.slice(0, HEAD).text();
  if (start.trimStart().startsWith('[')) {
    const found = await askBeside('senmlTable', { text: await file.text(), nowMs: Date.now() });
    if (!found.ok) refusal.value = found.error.message;
    else await take(called, new Blob([found.value]));
    return;
  }
  const isLong = file.size > SHOWN_TEXT;
  long.value = isLong ? { name: called, file } : null;
  text.value = isLong ? start.slice(0, start.lastIndexOf('\n')) : await file.text();
}
async function pasted(): Promise<void> {
  long.value = null;
  if (text.value.trimStart().startsWith('[')) await take(name.value, new Blob([text.value]));
}
/** A meter's file is read and written by the worker: how far it is, and the way to stop it. */
const share = ref<number | null>(null);
let running: Running<BroughtIn> | null = null;
async function bringInRecord(): Promise<void> {
  const head = table.value;
  if (!head) return;
  share.value = 0;
  busy.value = true;
  refusal.value = '';
  const kept = await saving.keep('the record', () =>
    whileWriting(async () => {
      const asked = {
        id: newId(),
        system: props.system,
        name: name.value,
        file: long.value?.file ?? new Blob([text.value]),
        head: { heads: head.heads, delimiter: head.delimiter },
        columns: columns.value.map(({ of, unit }) => ({ of, unit })),
        at: new Date().toISOString(),
      };
      running = bringInBeside(asked, (now) => (share.value = now));
      const done = await running.result;
      if (done?.row) await keepRecording(done.row);
      return done;
    }),
  );
  busy.value = false;
  share.value = null;
  running = null;
  if (!kept.ok) {
    refusal.value = `Not saved: ${kept.reason}. ${kept.remedy}`;
    return;
  }
  const done = kept.value;
  if (!done) return;
  const left =
    done.refusedCount > 0
      ? ` ${counted(done.refusedCount, 'row was', 'rows were')} not understood and left out; the first: line ${done.refused[0]!.row}, ${done.refused[0]!.why}`
      : '';
  if (!done.row) {
    refusal.value = (done.twice > 0 ? 'All of it is here already.' : 'There is no figure in it.') + left;
    return;
  }
  remember();
  const twice = done.twice > 0 ? ` ${counted(done.twice, 'row was', 'rows were')} here already.` : '';
  notice.say(`${counted(done.row.rows, 'row', 'rows')} of ${done.row.days.length} days brought in.${twice}${left}`, undo);
  emit('close');
}
onScopeDispose(() => running?.cancel());
function remember(): void {
  if (table.value) remembered.value = { ...remembered.value, [key.value]: [...columns.value] };
}
/** Readings as somebody wants them: nothing is corrected or left out unasked. */
function settled(): Reading[] {
  const doubtsOf = new Map(odd.value.map(({ reading, doubts }) => [reading.id, doubts]));
  return fresh.value.map((reading) => {
    const doubts = doubtsOf.get(reading.id);
    if (!doubts) return reading;
    switch (answers.value[reading.id] ?? 'keep') {
      case 'keep':
        return { ...reading, confirmed: doubts.map(({ field }) => field) };
      case 'leave':
        return doubts.reduce((one, { field }) => withoutFigure(one, field), reading);
      case 'correct':
        return corrected(reading, doubts.length);
    }
  });
}
/** A reading with what it probably was, figure by figure; what nothing is likelier for stays as it was typed. */
function corrected(reading: Reading, rounds: number): Reading {
  let now = reading;
  for (let round = 0; round < rounds; round++) {
    const next = slipsIn(now).find(({ probably }) => probably !== null);
    if (!next?.probably) break;
    now = next.probably.reading;
  }
  return { ...now, confirmed: slipsIn(now).map(({ field }) => field) };
}
const megabytes = computed(() => ((long.value?.file.size ?? 0) / 1e6).toFixed(1));
const roughly = (count: number): number => Number(count.toPrecision(2));
async function bringIn(): Promise<void> {
  busy.value = true;
  const readings = settled();
  const kept = await saving.keep('the readings', () => bringInReadings(readings));
  busy.value = false;
  if (!kept.ok) {
    notice.say(`Not saved: ${kept.reason}. ${kept.remedy}`);
    return;
  }
  remember();
  const written = chosenWorks.value;
  const first = readings.reduce<Reading | null>((oldest, one) => (oldest === null || one.at < oldest.at ? one : oldest), null);
  if (written.length > 0 || (isHandOver.value && first))
    current.edit('work from a table', (s) => {
      const worked = withWorks(s, written, current.solved.value?.use ?? {}, newId);
      if (!isHandOver.value || !first) return worked;
      return { ...worked, build: { ...worked.build, commissioned: { at: first.at, train: worked.train, readingId: first.id } } };
    });
  const also = written.length > 0 ? ` ${counted(written.length, 'piece of work', 'pieces of work')} written down.` : '';
  notice.say(`${counted(readings.length, 'reading', 'readings')} brought in.${also}`, undo);
  emit('close');
}
const counted = (count: number, one: string, many: string): string => `${grouped(count)} ${count === 1 ? one : many}`;
</script>

<template>
  <v-dialog :model-value="true" max-width="900" scrollable @update:model-value="emit('close')">
    <v-card class="dialog-card">
      <DialogHead title="Bring in readings" @close="emit('close')" />
      <p class="small muted">
        A table from a spreadsheet or a logger, or lines as they stand on paper, each with its day: 12 Nov 311 6 0 59psi 11C.
      </p>
      <div class="row">
        <button class="button small" type="button" @click="picker?.click()">Choose a file</button>
        <input
          ref="picker"
          type="file"
          accept=".csv,.tsv,.txt,.json,.senml,text/*,application/json"
          hidden
          aria-label="Readings file"
          @change="open"
        />
      </div>
      <p v-if="long" class="small">{{ long.name }}, {{ megabytes }}{{ THIN }}MB; its head:</p>
      <textarea
        v-model="text"
        :readonly="long !== null"
        class="plain-input"
        rows="5"
        aria-label="Readings as text"
        placeholder="or paste them here"
        spellcheck="false"
        @input="pasted"
      />
      <div v-if="table" class="scroll">
        <table class="figures" aria-label="Columns">
          <thead>
            <tr>
              <th v-for="(column, i) in columns" :key="i">
                <span>{{ table.heads[i] }}</span>
                <select
                  :value="column.of"
                  :aria-label="`Column ${i + 1} holds`"
                  @change="setColumn(i, { of: ($event.target as HTMLSelectElement).value as ColumnOf })"
                >
                  <option v-for="choice in choices" :key="choice.value" :value="choice.value">{{ choice.title }}</option>
                </select>
                <select
                  v-if="unitsOf(system, column.of).length > 0"
                  :value="column.unit"
                  :aria-label="`Unit of column ${i + 1}`"
                  @change="setColumn(i, { unit: ($event.target as HTMLSelectElement).value })"
                >
                  <option v-for="unit in unitsOf(system, column.of)" :key="unit" :value="unit">{{ unit }}</option>
                </select>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, r) in table.rows.slice(0, 4)" :key="r">
              <td v-for="(column, i) in columns" :key="i" :class="{ muted: column.of === 'ignore' }">{{ row[i] ?? '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="notTaken.length > 0 && !byMeter" class="small">Not taken: {{ notTaken.join(', ') }}.</p>
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <template v-if="byMeter">
        <p class="says" aria-live="polite">
          <strong>A meter’s record</strong>, {{ long ? 'about ' : '' }}{{ counted(long ? roughly(rowCount) : rowCount, 'row', 'rows') }}. It
          is kept whole and can be looked into hour by hour; in the log each day counts once, with its middle figure while water was made.
        </p>
        <div v-if="share !== null" class="going">
          <progress :value="share" max="1" aria-label="Bringing in"></progress>
          <span>{{ Math.round(100 * share) }}{{ THIN }}%</span>
          <button class="button small" type="button" @click="running?.cancel()">Stop</button>
        </div>
        <button v-else class="button primary" type="button" :disabled="busy" @click="bringInRecord">Bring in the record</button>
      </template>
      <template v-if="taken">
        <p aria-live="polite" class="says">
          <strong>{{ counted(fresh.length, 'reading', 'readings') }}</strong> {{ span
          }}<template v-if="twice.size > 0"
            >; {{ counted(twice.size, 'is here already and is', 'are here already and are') }} left out</template
          >.
        </p>
        <div v-if="taken.refused.length > 0" class="refused">
          <p>{{ counted(taken.refused.length, 'line is', 'lines are') }} not understood and left out:</p>
          <ul>
            <li v-for="one in taken.refused.slice(0, 6)" :key="one.row">line {{ one.row }}: {{ one.why }}</li>
            <li v-if="taken.refused.length > 6">and {{ taken.refused.length - 6 }} more</li>
          </ul>
        </div>
        <div v-if="odd.length > 0" class="odd">
          <p>{{ counted(odd.length, 'reading looks', 'readings look') }} like a slip. Each stays as typed until you say otherwise.</p>
          <fieldset v-for="one in odd.slice(0, MOST_ODD)" :key="one.reading.id">
            <legend>{{ dayOfYear(one.reading.at) }}</legend>
            <p v-for="doubt in one.doubts" :key="doubt.field">
              {{ doubt.says }}{{ doubt.probably ? ` Probably ${doubt.probably.text}.` : '' }}
            </p>
            <span class="answers">
              <label
                v-for="{ value, title } in ODD.filter(
                  (how) => how.value !== 'correct' || one.doubts.some(({ probably }) => probably !== null),
                )"
                :key="value"
                ><input
                  type="radio"
                  :name="`odd-${one.reading.id}`"
                  :checked="(answers[one.reading.id] ?? 'keep') === value"
                  @change="answers = { ...answers, [one.reading.id]: value }"
                />
                {{ title }}</label
              >
            </span>
          </fieldset>
          <p v-if="odd.length > MOST_ODD">and {{ odd.length - MOST_ODD }} more, kept as typed: see whether the columns are right.</p>
        </div>
        <div v-if="works.length > 0" class="works">
          <p>{{ counted(works.length, 'piece of work', 'pieces of work') }} to write down:</p>
          <label v-for="(one, i) in works" :key="i"
            ><input type="checkbox" :checked="!leftOut.has(i)" @change="toggleWork(i)" />
            <span
              >{{ dayOfYear(one.doneAt) }} · {{ partOf(one) }}: {{ WORK_WORDS[one.work] }} <span class="muted">“{{ one.text }}”</span></span
            ></label
          >
        </div>
        <label v-if="canBeHandOver"
          ><input v-model="isHandOver" type="checkbox" /> The first reading is the handover: later ones are held against it</label
        >
        <button class="button primary" type="button" :disabled="(fresh.length === 0 && chosenWorks.length === 0) || busy" @click="bringIn">
          Bring in {{ counted(fresh.length, 'reading', 'readings')
          }}{{ chosenWorks.length > 0 ? ` and ${counted(chosenWorks.length, 'piece of work', 'pieces of work')}` : '' }}
        </button>
      </template>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
textarea { font: 500 14px/1.5 var(--typed); width: 100%; resize: vertical; }
.scroll { overflow-x: auto; }
th { white-space: nowrap; vertical-align: bottom; }
th span { display: block; padding-bottom: 3px; }
select { font: inherit; font-weight: 550; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); border-radius: 7px; padding: 4px; min-height: 32px; margin-right: 4px; }
.going { display: flex; gap: 12px; align-items: center; }
.going progress { flex: 1; height: 10px; accent-color: var(--action); }
.problem { color: var(--bad); font-weight: 550; }
.refused, .odd { border-left: 4px solid var(--warning); padding-left: 12px; font-size: 14px; display: grid; gap: 4px; }
fieldset { border: 0; border-top: 1px solid var(--hair); margin: 0; padding: 6px 0 2px; }
legend { font-weight: 650; padding: 0; float: left; margin-right: 8px; }
.answers { display: flex; flex-wrap: wrap; gap: 4px 16px; clear: both; }
.works { display: grid; gap: 2px; font-size: 14px; }
ul { margin: 0; padding-left: 18px; }
p { margin: 0; }
label { display: flex; gap: 8px; align-items: center; min-height: 30px; }
.button.primary { justify-content: center; min-height: 44px; }
</style>
