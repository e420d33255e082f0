<script setup lang="ts">
import type { Reading, System } from '@yes-clear/core/file';
import {
  alreadyHere,
  guessColumns,
  readTable,
  slipsOf,
  takeLines,
  takeTable,
  unitsOf,
  type Column,
  type ColumnOf,
} from '@yes-clear/core/log';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useNotice } from '../kit/useNotice';
import { useHistory } from '../store/history';
import { newId } from '../store/newId';
import { bringInReadings } from '../store/readings';
import { useSaving } from '../store/saving';
import { localClock } from '../time/localClock';
import { dayOfYear } from '../time/dates';

/** Readings from a file or a clipboard: columns named once for each make of file, what cannot be read named by its line. */
const props = defineProps<{ system: System; readings: readonly Reading[] }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const history = useHistory();
const saving = useSaving();
const picker = useTemplateRef<HTMLInputElement>('picker');
const text = ref('');
const busy = ref(false);
const clock = computed(() => localClock(new Date(), props.system.units.temperature === '°F'));

const table = computed(() => (text.value.trim() === '' ? null : readTable(text.value)));
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
const choices = computed((): readonly { readonly value: ColumnOf; readonly title: string }[] => [
  { value: 'ignore', title: 'not taken' },
  { value: 'when', title: 'day and time' },
  { value: 'date', title: 'day' },
  { value: 'time', title: 'time' },
  ...props.system.train.probes.map(({ id, name }) => ({ value: `probe:${id}` as ColumnOf, title: name })),
  { value: 'pressureBar', title: 'Pressure' },
  { value: 'temperatureC', title: 'Temperature' },
  { value: 'productLPerH', title: 'Product flow' },
  { value: 'wasteLPerH', title: 'Waste flow' },
  { value: 'meterL', title: 'Meter total' },
  { value: 'note', title: 'Note' },
]);

/** More rows than these are not taken at once. */
const MOST_ROWS = 20_000;
const tooMany = computed(() => (table.value?.rows.length ?? 0) > MOST_ROWS);
const taken = computed(() => {
  if (text.value.trim() === '' || tooMany.value) return null;
  return table.value
    ? takeTable(props.system, table.value, columns.value, clock.value, newId)
    : takeLines(props.system, text.value, clock.value, newId);
});
const twice = computed(() => (taken.value ? alreadyHere(taken.value.readings, props.readings) : new Set<string>()));
const fresh = computed(() => (taken.value?.readings ?? []).filter(({ id }) => !twice.value.has(id)));
/** Readings with a figure that looks like a slip, held against the log and the rest of the file. */
const odd = computed(() => {
  const all = [...props.readings, ...fresh.value].sort((a, b) => a.at.localeCompare(b.at));
  const at = new Map(all.map(({ id }, i) => [id, i]));
  return fresh.value.flatMap((reading) => {
    const i = at.get(reading.id) ?? 0;
    const doubts = slipsOf(props.system, reading, all.slice(Math.max(0, i - 12), i + 13)).filter(({ field }) => field !== 'at');
    return doubts.length > 0 ? [{ reading, doubts }] : [];
  });
});
const oddHow = ref<'mend' | 'strike' | 'keep'>('mend');
const span = computed(() => {
  const days = fresh.value.map(({ at }) => at).sort();
  return days.length === 0 ? '' : `${dayOfYear(days[0]!)} to ${dayOfYear(days.at(-1)!)}`;
});

async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file) text.value = await file.text();
}
/** Odd readings as somebody wants them: with what they probably were, struck out, or as they stand. */
function settled(): Reading[] {
  const doubtsOf = new Map(odd.value.map(({ reading, doubts }) => [reading.id, doubts]));
  return fresh.value.map((reading) => {
    const doubts = doubtsOf.get(reading.id);
    if (!doubts) return reading;
    if (oddHow.value === 'strike') return { ...reading, counts: false };
    if (oddHow.value === 'keep') return { ...reading, confirmed: doubts.map(({ field }) => field) };
    // What it probably was, figure by figure; what nothing is likelier for is struck out.
    const all = [...props.readings, ...fresh.value];
    let now = reading;
    for (let round = 0; round < doubts.length; round++) {
      const next = slipsOf(props.system, now, all).find(({ probably }) => probably !== null);
      if (!next?.probably) break;
      now = next.probably.reading;
    }
    return doubts.some(({ probably }) => probably === null) ? { ...now, counts: false } : now;
  });
}
async function bringIn(): Promise<void> {
  busy.value = true;
  const readings = settled();
  const kept = await saving.keep('the readings', () => bringInReadings(readings));
  busy.value = false;
  if (!kept.ok) {
    notice.say(`Not saved: ${kept.reason}. ${kept.remedy}`);
    return;
  }
  if (table.value) remembered.value = { ...remembered.value, [key.value]: [...columns.value] };
  notice.say(`${readings.length} readings brought in.`, { label: 'Undo', run: () => void history.undo().then((says) => notice.say(says)) });
  emit('close');
}
const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;
</script>

<template>
  <v-dialog :model-value="true" max-width="900" scrollable @update:model-value="emit('close')">
    <v-card class="bring">
      <div class="head">
        <h1>Bring in readings</h1>
        <button class="button small" type="button" @click="emit('close')">Close</button>
      </div>
      <p class="small muted">
        A table from a spreadsheet or a logger, or lines as they stand on paper, each with its day: 12 Nov 311 6 0 59psi 11C.
      </p>
      <div class="row">
        <button class="button small" type="button" @click="picker?.click()">Choose a file</button>
        <input ref="picker" type="file" accept=".csv,.tsv,.txt,text/*" hidden aria-label="Readings file" @change="open" />
      </div>
      <textarea
        v-model="text"
        class="plain-input"
        rows="5"
        aria-label="Readings as text"
        placeholder="or paste them here"
        spellcheck="false"
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
      <p v-if="tooMany" class="problem" role="alert">
        {{ table?.rows.length }} rows; at most {{ MOST_ROWS }} are taken at once. Cut the file by years and bring in one after the other.
      </p>
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
          <p>{{ counted(odd.length, 'reading looks', 'readings look') }} like a slip:</p>
          <ul>
            <li v-for="one in odd.slice(0, 4)" :key="one.reading.id">
              {{ dayOfYear(one.reading.at) }}: {{ one.doubts[0]!.says
              }}{{ one.doubts[0]!.probably ? ` Probably ${one.doubts[0]!.probably.text}.` : '' }}
            </li>
            <li v-if="odd.length > 4">and {{ odd.length - 4 }} more</li>
          </ul>
          <label
            v-for="how in [
              ['mend', 'Take what they probably were'],
              ['strike', 'Keep them, struck out'],
              ['keep', 'They are as typed'],
            ] as const"
            :key="how[0]"
            ><input v-model="oddHow" type="radio" name="odd" :value="how[0]" /> {{ how[1] }}</label
          >
        </div>
        <button class="button primary" type="button" :disabled="fresh.length === 0 || busy" @click="bringIn">
          Bring in {{ counted(fresh.length, 'reading', 'readings') }}
        </button>
      </template>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.bring { padding: 16px 18px 18px; display: grid; gap: 12px; overflow-y: auto; }
.head { display: flex; justify-content: space-between; align-items: center; }
textarea { font: 500 14px/1.5 var(--typed); width: 100%; resize: vertical; }
.scroll { overflow-x: auto; }
th { white-space: nowrap; vertical-align: bottom; }
th span { display: block; padding-bottom: 3px; }
select { font: inherit; font-weight: 550; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); border-radius: 7px; padding: 4px; min-height: 32px; margin-right: 4px; }
.problem { color: var(--bad); font-weight: 550; }
.refused, .odd { border-left: 4px solid var(--warning); padding-left: 12px; font-size: 14px; display: grid; gap: 4px; }
ul { margin: 0; padding-left: 18px; }
p { margin: 0; }
label { display: flex; gap: 8px; align-items: center; min-height: 30px; }
.button.primary { justify-content: center; min-height: 44px; }
</style>
