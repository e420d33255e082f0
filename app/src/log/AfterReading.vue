<script setup lang="ts">
import type { Reading } from '@yes-clear/core/file';
import { isOnRecord, readWork, WORK_WORDS, workedOn, type WorkRead } from '@yes-clear/core/log';
import { inSentence } from '@yes-clear/core/quantity';
import { useMediaQuery } from '@vueuse/core';
import { computed } from 'vue';
import FindingCard from '../kit/FindingCard.vue';
import { useOpenSystem } from '../system/openSystem';
import { localClock } from '../time/localClock';

/** The answer to the reading logged last: what it means and what to do, and work its note tells of, to be written down. */
const props = defineProps<{ reading: Reading }>();
defineEmits<{ work: [work: WorkRead] }>();
const current = useOpenSystem();
/** Beside the line the column of findings answers; where there is no room for it, this does. */
const isNarrow = useMediaQuery('(max-width: 860px)');
const here = computed(() => current.readings.value.some(({ id }) => id === props.reading.id));
/** What the log says once this reading is in it; null while it is being worked out. */
const findings = computed(() => (current.upToDate.value ? (current.solved.value?.logFindings ?? null) : null));
const MOST = 2;
const told = computed(() => findings.value?.filter(({ severity }) => severity === 'bad' || severity === 'mind').slice(0, MOST) ?? []);
/** Where nothing is amiss the newest thing the log says stands in its place. */
const calm = computed(() => findings.value?.find(({ severity }) => severity === 'good' || severity === 'note') ?? null);
const works = computed((): readonly (WorkRead & { readonly says: string })[] => {
  const system = current.system.value;
  if (!system || props.reading.note === '') return [];
  const clock = localClock(new Date(props.reading.at), system.units.temperature === '°F');
  return readWork(system, props.reading.note, clock)
    .filter((one) => !isOnRecord(system, { ...one, doneAt: one.at ?? props.reading.at }))
    .map((one) => ({ ...one, at: one.at ?? props.reading.at, says: `${inSentence(workedOn(system, one))}, ${WORK_WORDS[one.work]}` }));
});
</script>

<template>
  <section v-if="here && (isNarrow || works.length > 0)" class="sheet after" aria-label="What this reading says">
    <button v-for="work in works" :key="work.text" type="button" class="button" @click="$emit('work', work)">
      Write down: {{ work.says }}
    </button>
    <div v-if="isNarrow" class="answer" role="status">
      <p v-if="findings === null" class="muted small">Working out what it says…</p>
      <template v-else>
        <FindingCard v-for="finding in told" :key="finding.id" :finding="finding" />
        <FindingCard v-if="told.length === 0 && calm" :finding="calm" />
        <p v-else-if="told.length === 0" class="small">Nothing to do by this reading.</p>
      </template>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.after { padding: 10px 12px; display: grid; gap: 8px; justify-items: start; }
.after > .button { min-height: 44px; text-align: left; white-space: normal; }
.answer { display: grid; gap: 8px; width: 100%; }
</style>
