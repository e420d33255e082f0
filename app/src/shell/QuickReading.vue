<script setup lang="ts">
import { inSentence } from '@yes-clear/core/quantity';
import { shownUnitOf } from '@yes-clear/core/log';
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import type { System } from '@yes-clear/core/file';
import Segments from '../kit/Segments.vue';
import QuickLineField from '../kit/QuickLineField.vue';
import { useQuickLine } from '../kit/useQuickLine';
import { database } from '../store/database';
import { logReading } from '../store/readings';
import { useSaving } from '../store/saving';
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
const { text, parsed, make, clear } = useQuickLine(() => system.value);
const field = useTemplateRef<InstanceType<typeof QuickLineField>>('field');
watch(
  [() => quick.open, rows],
  ([open]) => {
    if (!open) return;
    chosen.value ??= quick.systemId ?? (rows.value.length === 1 ? (rows.value[0]?.id ?? null) : null);
    void nextTick(() => field.value?.focus());
  },
  { immediate: true },
);

/** The pad writes the first numbers of the line, one a probe; what follows them is kept. */
const at = ref(0);
const parts = computed(() => text.value.split(' '));
const probes = computed(() => system.value?.train.probes.slice(0, 3) ?? []);
function press(key: string): void {
  const next = [...parts.value];
  while (next.length < probes.value.length) next.push('');
  const now = next[at.value] ?? '';
  next[at.value] = key === '⌫' ? now.slice(0, -1) : now + key;
  text.value = next.join(' ');
}
const unitOf = (instrumentId: string): string => {
  const instrument = system.value?.instruments.find((candidate) => candidate.id === instrumentId);
  return instrument ? shownUnitOf(instrument) : '';
};

const saving = useSaving();
const busy = ref(false);
/** Why the store did not take it; what was typed stays in the line. */
const refused = ref<string | null>(null);
async function save(): Promise<void> {
  const reading = busy.value ? null : make();
  if (!reading || !system.value) return;
  busy.value = true;
  const kept = await saving.keep('the reading', () => logReading(reading));
  busy.value = false;
  refused.value = kept.ok ? null : `Not saved: ${kept.reason}. ${kept.remedy}`;
  if (!kept.ok) return;
  notice.say(`Logged for ${system.value.name}.`);
  clear();
  at.value = 0;
  quick.open = false;
}
</script>

<template>
  <v-dialog v-model="quick.open" max-width="600">
    <v-card class="quick-card">
      <div class="head">
        <h1>Quick reading</h1>
        <button class="button small" type="button" @click="quick.open = false">Close</button>
      </div>
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
        <div class="pads">
          <div class="probes">
            <button v-for="(probe, i) in probes" :key="probe.id" type="button" class="probe" :class="{ on: at === i }" @click="at = i">
              <span>{{ probe.name }}</span><strong>{{ parts[i] || '–' }}</strong
              ><span>{{ unitOf(probe.instrumentId) }}</span>
            </button>
          </div>
          <div class="keys">
            <button
              v-for="key in ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0', '⌫']"
              :key="key"
              type="button"
              :aria-label="key === '⌫' ? 'delete' : key"
              @click="press(key)"
            >
              {{ key }}
            </button>
          </div>
        </div>
        <button class="button primary log" type="button" :disabled="parsed.problem !== null || busy" @click="save">
          Log it <kbd>↵</kbd>
        </button>
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
      </template>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.quick-card { padding: 16px 18px 18px; display: grid; gap: 12px; }
.head { display: flex; justify-content: space-between; align-items: center; }
.spelled { min-height: 42px; font-size: 14px; }
.problem { color: var(--bad); font-weight: 550; }
.pads { display: none; gap: 10px; }
.probes { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; }
.probe { display: grid; justify-items: center; border: 1px solid var(--line); border-radius: 11px; background: var(--sheet); padding: 8px 4px; font: inherit; font-size: 13px; color: var(--muted); }
.probe strong { font-size: 26px; color: var(--ink); line-height: 1.2; }
.probe.on { border: 2px solid var(--action); padding: 7px 3px; }
.keys { display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px; }
.keys button { height: 52px; border: 1px solid var(--line); border-radius: 11px; background: var(--paper); font: 600 22px var(--digits); color: var(--ink); touch-action: manipulation; }
.log { justify-content: center; min-height: 46px; }
@media (max-width: 860px), (pointer: coarse) { .pads { display: grid; } }
</style>
