<script setup lang="ts">
import { inSentence } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { useOpenSystem } from '../system/openSystem';
import KnownColumn from './KnownColumn.vue';
import NextCheck from './NextCheck.vue';
import RankingList from './RankingList.vue';
import RemedyColumn from './RemedyColumn.vue';
import { faultName } from '../kit/faultText';
import { useFaultSearch } from './useFaultSearch';

/** From what was read to what is wrong: the ranking, the check that tells most, and what is to be done. */
const open = useOpenSystem();
const { system } = open;
const search = useFaultSearch(open);
const { found, problem, progress, cancelled } = search;
const title = computed(() => {
  const now = found.value;
  if (!now) return 'What is wrong?';
  if (now.decision === 'nothingFits') return 'No cause fits what was read';
  if (now.decision === 'readAgain') return 'One reading does not go with the others';
  return now.lead === 'healthy' ? 'Nothing is wrong that meters can see' : `Most likely: ${inSentence(faultName(now.lead))}`;
});
</script>

<template>
  <div v-if="system" class="search">
    <aside class="known">
      <h2>What we know</h2>
      <KnownColumn v-if="found" :search="search" :found="found" :units="system.units" />
    </aside>
    <main>
      <h1>{{ title }}</h1>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="progress !== null && !found" class="sheet wait" role="status">
        <p>Working out what every cause would show of this system…</p>
        <progress :value="progress" max="1" aria-label="Causes worked out"></progress>
        <button class="button small" type="button" @click="search.stop">Stop</button>
      </div>
      <div v-if="cancelled" class="sheet wait">
        <p>Stopped. Nothing you entered is lost.</p>
        <button class="button small" type="button" @click="search.again">Go on</button>
      </div>
      <template v-if="found">
        <RankingList :found="found" />
        <NextCheck :search="search" :found="found" :units="system.units" />
      </template>
    </main>
    <aside class="do">
      <RemedyColumn v-if="found" :search="search" :found="found" :system="system" />
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.search { display: grid; grid-template-columns: 300px minmax(0, 1fr) 326px; min-height: calc(100vh - var(--header)); }
main { padding: 16px 20px 28px; display: grid; gap: 14px; align-content: start; min-width: 0; }
aside { background: var(--side); padding: 16px 16px 28px; display: grid; gap: 10px; align-content: start; }
.known { border-right: 1px solid var(--line); }
.do { border-left: 1px solid var(--line); }
h1 { font-size: 21px; }
.wait { padding: 14px 16px; display: grid; gap: 10px; justify-items: start; }
progress { width: 100%; height: 8px; accent-color: var(--action); }
.problem { color: var(--bad); font-weight: 550; }
@media (max-width: 1120px) { .search { grid-template-columns: 270px minmax(0, 1fr); } .do { grid-column: 1 / -1; border-left: 0; border-top: 1px solid var(--line); } }
@media (max-width: 860px) {
  .search { grid-template-columns: minmax(0, 1fr); }
  main { order: -1; padding: 12px; }
  .known { border-right: 0; border-top: 1px solid var(--line); }
  aside { padding: 14px 12px 24px; }
  /* What is to be done comes before what is known; the phases stand over the foot. */
  .do { order: 0; padding-bottom: 24px; }
  .known { order: 1; padding-bottom: 90px; }
}
</style>
