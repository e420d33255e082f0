<script setup lang="ts">
import { edited, lineOf, parseQuickLine, slipsOf, type Doubt } from '@yes-clear/core/log';
import { same, type Reading, type System } from '@yes-clear/core/file';
import { momentField } from '../time/dates';
import { computed, ref, shallowRef } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import DoubtList from '../kit/DoubtList.vue';
import QuickLineField from '../kit/QuickLineField.vue';
import { useSaving } from '../store/saving';
import { changeReading, readingsAround } from '../store/readings';
import PhotoRow from './PhotoRow.vue';

/** A reading as its line, to be changed, moved to another day, struck out, with its pictures. */
const props = defineProps<{ system: System; reading: Reading }>();
const emit = defineEmits<{ close: []; remove: []; saved: [] }>();
const saving = useSaving();
const before = lineOf(props.reading, props.system);
const text = ref(before);
const when = ref(momentField(props.reading.at));
const counts = ref(props.reading.counts);
// Plain, as it is stored: the database takes no proxies.
const photos = shallowRef<string[]>([...props.reading.photos]);
const read = (line: string): ReturnType<typeof parseQuickLine> => parseQuickLine(line, props.system);
const parsed = computed(() => read(text.value));
const latest = momentField(new Date());
const whenProblem = computed(() =>
  when.value === '' || Number.isNaN(Date.parse(when.value)) ? 'Say when it was read.' : when.value > latest ? 'That lies ahead.' : null,
);
/** A reading of pictures or notes alone stays as it was, figures or not. */
const problem = computed(() => whenProblem.value ?? (text.value === before ? null : parsed.value.problem));
const doubts = shallowRef<readonly Doubt[]>([]);
const refused = ref<string | null>(null);
let held: Reading | null = null;

function made(): Reading {
  const moved = momentField(props.reading.at) !== when.value;
  return {
    ...edited(props.reading, read(before).reading, parsed.value.reading, props.system.instruments),
    at: moved ? new Date(when.value).toISOString() : props.reading.at,
    counts: counts.value,
    photos: photos.value,
  };
}
async function keep(reading: Reading): Promise<void> {
  if (same(reading, props.reading)) {
    emit('close');
    return;
  }
  const others = await readingsAround(reading.systemId, reading.at).catch(() => []);
  // What does not count needs no answer.
  const odd = reading.counts ? slipsOf(props.system, reading, others) : [];
  held = reading;
  doubts.value = odd;
  if (odd.length > 0) return;
  const kept = await saving.keep('the reading', () => changeReading(props.reading, reading));
  refused.value = kept.ok ? null : `Not saved: ${kept.reason}. ${kept.remedy}`;
  if (kept.ok) emit('saved');
}
function answer(doubt: Doubt, how: 'probably' | 'asTyped'): void {
  if (!held) return;
  void keep(how === 'probably' && doubt.probably ? doubt.probably.reading : { ...held, confirmed: [...held.confirmed, doubt.field] });
}
</script>

<template>
  <v-dialog :model-value="true" max-width="620" @update:model-value="emit('close')">
    <v-card class="dialog-card">
      <DialogHead title="Change a reading" @close="emit('close')" />
      <label class="labelled"><span>Read on</span><input v-model="when" class="plain-input" type="datetime-local" :max="latest" /></label>
      <QuickLineField v-model="text" :system="system" :parsed="parsed" @submit="keep(made())" />
      <p class="says small" aria-live="polite">
        <span v-if="problem" class="problem">{{ problem }}</span><template v-else>{{ parsed.spelled }}</template>
      </p>
      <PhotoRow :system-id="system.id" :reading-id="reading.id" :photos="photos" @change="photos = $event" />
      <label class="counts"><input v-model="counts" type="checkbox" /> Count this reading</label>
      <DoubtList v-if="doubts.length > 0" :doubts="doubts" @answer="answer" />
      <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
      <div class="row end">
        <button class="button danger" type="button" @click="emit('remove')">Remove it</button>
        <button class="button primary" type="button" :disabled="problem !== null" @click="keep(made())">Save</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.end { display: flex; justify-content: space-between; align-items: center; }
.says { min-height: 20px; line-height: 1.35; }
.problem { color: var(--bad); font-weight: 550; }
.counts { display: flex; gap: 8px; align-items: center; font-size: 14.5px; }
.counts input { width: 18px; height: 18px; accent-color: var(--action); }
@media (max-width: 860px) { .button { min-height: 44px; } .counts { min-height: 44px; } }
</style>
