<script setup lang="ts">
import { inSentence } from '@yes-clear/core/quantity';
import { addDays, parseISO } from 'date-fns';
import { computed, nextTick, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue';
import type { Reading, System } from '@yes-clear/core/file';
import { dayField, daysBetween, shortDay } from '../time/dates';
import DialogHead from '../kit/DialogHead.vue';
import DoubtList from '../kit/DoubtList.vue';
import ReadingPad from '../kit/ReadingPad.vue';
import { useLogging } from '../kit/useLogging';
import { usePad } from '../kit/usePad';
import Segments from '../kit/Segments.vue';
import QuickLineField from '../kit/QuickLineField.vue';
import { database } from '../store/database';
import { useSystemHeads } from '../store/heads';
import { useNotice } from '../kit/useNotice';
import { useQuickReading } from '../kit/useQuickReading';

/** A reading from anywhere: one typed line, or big keys for a wet thumb. */
const quick = useQuickReading();
const notice = useNotice();
const heads = useSystemHeads();
const rows = computed(() => heads.value ?? []);
const chosen = ref<string | null>(quick.systemId);
const system = shallowRef<System | null>(null);
watch(
  [chosen, heads],
  async ([id, known]) => {
    const row = id === null || known === null ? undefined : await database.systems.get(id);
    if (chosen.value === id) system.value = row?.system ?? null;
  },
  { immediate: true },
);
const { text, parsed, busy, doubts, refused, submit, answer } = useLogging(() => system.value);
const pad = usePad(() => system.value, text, parsed);
const field = useTemplateRef<InstanceType<typeof QuickLineField>>('field');
watch(
  [() => quick.open, rows],
  ([open]) => {
    if (!open) return;
    chosen.value ??= quick.systemId ?? (rows.value.length === 1 ? (rows.value[0]?.id ?? null) : null);
  },
  { immediate: true },
);

// The line takes the typing as soon as it stands there; the dialog itself takes the focus a moment later.
watch([field, () => quick.open], async ([line, open]) => {
  if (!line || !open) return;
  await nextTick();
  line.focus();
  text.value += quick.takeTyped();
  requestAnimationFrame(() => line.focus());
});
onScopeDispose(quick.takeTyped);
const today = computed(() => dayField(new Date()));
/** The day logged before, while readings of a paper record are typed in. */
let before: string | null = null;
const paper = computed(() => parsed.value?.at !== null && parsed.value?.at !== undefined);
async function done(reading: Reading | null): Promise<void> {
  if (!reading || !system.value) return;
  quick.last = reading;
  const day = dayField(reading.at);
  if (day === today.value) {
    notice.say(`Logged for ${system.value.name}.`);
    quick.open = false;
    return;
  }
  // A reading of another day is one of many: the next is proposed, as far on as the last two lay apart.
  notice.say(`${shortDay(reading.at)} logged for ${system.value.name}.`);
  const stride = before === null ? USUAL_STRIDE : Math.max(1, daysBetween(before, day));
  before = day;
  const next = dayField(addDays(parseISO(day), stride));
  pad.startOn(next < today.value ? next : '');
}
/** A week: how far readings on paper usually lie apart (common practice). */
const USUAL_STRIDE = 7;
const save = async (): Promise<void> => done(await submit());
</script>

<template>
  <v-dialog v-model="quick.open" max-width="600">
    <v-card class="quick-card">
      <DialogHead title="Quick reading" @close="quick.open = false" />
      <p v-if="heads && rows.length === 0" class="muted">There is no system yet. Make one first, then its readings have a place.</p>
      <Segments
        v-else
        look="chips"
        label="System"
        :choices="rows.map((head) => ({ value: head.id, title: head.name }))"
        :model-value="chosen"
        @update:model-value="chosen = $event"
      />
      <template v-if="system && parsed">
        <QuickLineField ref="field" v-model="text" :system="system" :parsed="parsed" @submit="save" />
        <p class="spelled" aria-live="polite">
          <span v-if="text && parsed.problem" class="problem">{{ parsed.problem }}</span>
          <template v-else-if="text">{{ parsed.spelled }}</template>
          <span v-else class="muted"
            >{{ system.train.probes.map((probe) => inSentence(probe.name)).join(', then ') }}; then pressure, temperature, product/waste a
            minute.</span
          >
        </p>
        <DoubtList v-if="doubts.length > 0" :doubts="doubts" @answer="async (doubt, how) => done(await answer(doubt, how))" />
        <template v-else>
          <ReadingPad
            class="pad"
            :fields="pad.fields.value"
            :at="pad.at.value"
            :values="pad.values.value"
            :today="today"
            @select="pad.at.value = $event"
            @press="pad.press"
            @next="pad.next"
            @day="pad.setDay($event === today ? '' : $event)"
          />
          <button class="button primary log" type="button" :disabled="parsed.problem !== null || busy" @click="save">
            {{ paper ? 'Log it, then the next' : 'Log it' }} <kbd>↵</kbd>
          </button>
        </template>
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
      </template>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.quick-card { padding: 16px 18px 18px; display: grid; gap: 12px; }
.spelled { min-height: 42px; font-size: 14px; }
.problem { color: var(--bad); font-weight: 550; }
.pad { display: none; }
.log { justify-content: center; min-height: 46px; }
@media (max-width: 860px), (pointer: coarse) { .pad { display: grid; } .spelled { min-height: 0; } .quick-card { padding: 12px 12px 14px; gap: 9px; } }
</style>
