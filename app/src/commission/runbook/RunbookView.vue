<script setup lang="ts">
import { useWakeLock } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, watch } from 'vue';
import FindingCard from '../../kit/FindingCard.vue';
import TrainStrip from '../../kit/TrainStrip.vue';
import { useTimers } from '../../kit/useTimers';
import { useOpenSystem } from '../../system/openSystem';
import StartWork from './StartWork.vue';
import StepWork from './StepWork.vue';
import { useRunbook } from './useRunbook';

/** The work under way: the step in the middle, its cautions beside it; between two of them, what can be begun. */
const { id } = useOpenSystem();
const book = useRunbook();
/** On site the hands are wet: the screen stays on while a step is open. */
const wake = useWakeLock();
const hold = (): void => void wake.request('screen').catch(() => undefined);
onMounted(hold);
onBeforeUnmount(() => void wake.release().catch(() => undefined));
const { timers } = useTimers();
const waits = computed(() => timers.value.filter(({ systemId, told }) => systemId === id && !told).length);
watch(waits, hold);
watch(
  () => book.step.value?.id,
  () => window.scrollTo({ top: 0 }),
);
</script>

<template>
  <main>
    <StartWork v-if="book.idle.value" />
    <StepWork v-else-if="book.step.value" :step="book.step.value" />
    <p v-else class="muted">This train has no stage yet: draw one in Train, and the work follows from it.</p>
  </main>
  <aside class="stack">
    <TrainStrip />
    <section v-if="!book.idle.value && book.step.value && book.step.value.cautions.length > 0" class="stack beside">
      <h2>Mind this here</h2>
      <FindingCard
        v-for="caution in book.step.value.cautions"
        :key="caution.title"
        :finding="{ severity: 'mind', title: caution.title, why: caution.text }"
      />
    </section>
    <p class="small muted">Work on mains plumbing and mains-voltage pumps belongs to licensed trades where local codes say so.</p>
  </aside>
</template>

<!-- prettier-ignore -->
<style scoped>
@media (max-width: 860px) { .beside { display: none; } }
</style>
