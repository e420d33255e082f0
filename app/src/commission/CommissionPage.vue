<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import Segments from '../kit/Segments.vue';
import { useOpenSystem } from '../system/openSystem';
import RunbookView from './runbook/RunbookView.vue';
import StepList from './runbook/StepList.vue';
import { provideRunbook } from './runbook/useRunbook';

/** Build: the runbook made from this train, what it is built of, and its papers. */
const PartsView = defineAsyncComponent(() => import('./parts/PartsView.vue'));
const PapersView = defineAsyncComponent(() => import('./papers/PapersView.vue'));
const VIEWS = [
  { value: 'runbook', title: 'Runbook' },
  { value: 'parts', title: 'Parts' },
  { value: 'papers', title: 'Papers' },
] as const;
type View = (typeof VIEWS)[number]['value'];

const route = useRoute();
const router = useRouter();
const { system } = useOpenSystem();
const book = provideRunbook();
/** The address keeps which of the three is open. */
const view = computed<View>(() => VIEWS.find(({ value }) => value === route.query['view'])?.value ?? 'runbook');
const open = (next: View): void => void router.replace({ query: next === 'runbook' ? {} : { view: next } });
</script>

<template>
  <div v-if="system" class="work" :class="{ 'with-list': view === 'runbook' }">
    <nav aria-label="Build" :class="{ above: view !== 'runbook' }">
      <Segments label="Build" :choices="VIEWS" :model-value="view" @update:model-value="open" />
      <StepList v-if="view === 'runbook' && !book.idle.value" class="steps">
        <button v-if="book.work.value" class="link" type="button" @click="book.giveUp()">Take this work off the list</button>
        <button v-else class="link" type="button" @click="book.standsAlready()">It stands already: nothing to put into service</button>
      </StepList>
    </nav>
    <RunbookView v-if="view === 'runbook'" />
    <PartsView v-else-if="view === 'parts'" />
    <PapersView v-else />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.steps { margin-top: 14px; }
.above { grid-column: 1 / -1; padding: 14px 20px 0; }
.work:not(.with-list) { align-content: start; }
.link { border: 0; background: transparent; color: var(--muted); font: inherit; font-size: 13.3px; text-decoration: underline; cursor: pointer; padding: 14px 8px; }
@media (max-width: 860px) { .above { padding: 12px; } }
</style>
