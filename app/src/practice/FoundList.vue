<script setup lang="ts">
import { HARMS, KIND_WORDS, type KindId } from '@yes-clear/core/fault';
import { inSentence, type UnitPreference } from '@yes-clear/core/quantity';
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import { readingText } from '../kit/faultText';
import type { PracticeView } from '../worker/practiceBench';
import { clockText, entryText } from './say';

/** What was found on the bench, by the clock: the customer's words, the sheet of the hand-over, and everything done since. */
const props = defineProps<{ view: PracticeView; units: UnitPreference }>();
const sheet = computed(() =>
  Object.entries(props.view.handOver ?? {}).map(([kind, value]) => ({
    label: inSentence(KIND_WORDS[kind as KindId].label),
    figure: readingText(kind as KindId, value, props.units),
  })),
);
const rows = computed(() =>
  props.view.entries.map((entry) => ({
    at: clockText(entry.at),
    harm: entry.harm.map((id) => HARMS[id].title).join(' '),
    ...entryText(entry, props.view.exercise.system, props.view.exercise.asked, props.units),
  })),
);
const list = useTemplateRef<HTMLElement>('list');
// What was found last is in sight.
watch(
  () => rows.value.length,
  () => void nextTick(() => list.value?.scrollTo({ top: list.value.scrollHeight })),
  { immediate: true },
);
</script>

<template>
  <section class="found">
    <h2>What you have found</h2>
    <details v-if="sheet.length > 0" class="sheet-of">
      <summary>When it was handed over</summary>
      <dl>
        <div v-for="one in sheet" :key="one.label">
          <dt>{{ one.label }}</dt>
          <dd>{{ one.figure }}</dd>
        </div>
      </dl>
    </details>
    <p v-else class="muted small">There is no sheet from a hand-over.</p>
    <ol ref="list" tabindex="0" aria-label="What you have found">
      <li class="said">
        <span class="typed">0:00</span><span>Customer: “{{ view.exercise.customer }}”</span>
      </li>
      <li v-for="(row, i) in rows" :key="i">
        <span class="typed">{{ row.at }}</span><span>{{ row.label }}</span
        ><strong v-if="row.figure">{{ row.figure }}</strong
        ><em v-if="row.harm">{{ row.harm }}</em>
      </li>
    </ol>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.found { display: grid; gap: 8px; }
ol { list-style: none; margin: 0; padding: 0; max-height: 340px; overflow-y: auto; }
li { display: grid; grid-template-columns: 44px minmax(0, 1fr) minmax(0, max-content); gap: 2px 8px; padding: 7px 0; border-top: 1px solid var(--line); font-size: 14px; }
li strong { text-align: right; max-width: 150px; }
.said { grid-template-columns: 44px minmax(0, 1fr); }
li em { grid-column: 2 / -1; color: var(--bad); font-style: normal; font-weight: 600; }
.typed { color: var(--muted); font-size: 13px; }
summary { cursor: pointer; font-weight: 600; color: var(--muted); font-size: 13.5px; }
dl { margin: 6px 0 0; display: grid; gap: 3px; font-size: 13.8px; }
dl div { display: flex; justify-content: space-between; gap: 10px; }
dd { margin: 0; font-weight: 650; }
</style>
