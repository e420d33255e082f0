<script setup lang="ts">
import { membraneStage } from '@yes-clear/core/file';
import type { StageKind } from '@yes-clear/core/stage';
import { onKeyStroke } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { columnsOf } from '../descent/drawing';
import FindingCard from '../kit/FindingCard.vue';
import { useNotice } from '../kit/useNotice';
import { useKey } from '../kit/useKeys';
import { useOpenSystem } from '../system/openSystem';
import LensTabs from './LensTabs.vue';
import { trainTitle } from '@yes-clear/core/advice';
import TrainPicture from './picture/TrainPicture.vue';
import AddStage from './stage/AddStage.vue';
import StandsDialog from './StandsDialog.vue';
import TrainSide from './TrainSide.vue';
import { useTrainEdits } from './useTrainEdits';
import { provideWorkbench } from './useWorkbench';

/** Train, a workbench: the descent stands, one lens at a time is worked under it. */
const current = useOpenSystem();
const { system, error } = current;
const edits = useTrainEdits(current);
const notice = useNotice();
const router = useRouter();
const bench = provideWorkbench();
const { drawn, report, input, lens, lensStage } = bench;

/** A long train takes the whole width: what is said of it goes under it. */
const LONGEST_BESIDE = 10;
const long = computed(() => input.value !== null && columnsOf(input.value) > LONGEST_BESIDE);
const title = computed(() => (drawn.value && report.value ? trainTitle(drawn.value, report.value) : 'Train'));

const add = (kind: StageKind, variant: string | null): void => bench.select(edits.add(kind, variant));
function remove(id: string): void {
  edits.remove(id);
  if (bench.selected.value === id) bench.select(null);
  notice.say('Stage removed. Ctrl+Z brings it back.');
}
function moreWater(): void {
  bench.open('membrane');
  bench.watering.value = true;
}
useKey('m', moreWater);
const compare = (): void => void router.push({ name: 'options' });
useKey('o', compare);
/** Open at once for what was just said to stand. */
const standing = ref(useRoute().query['ask'] === 'stands');
/** Esc closes the fields of a stage, from within them too; an open menu or dialog comes first. */
onKeyStroke('Escape', () => {
  const id = bench.selected.value;
  if (id === null || document.querySelector('.v-overlay--active')) return;
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  bench.select(null);
});
</script>

<template>
  <div v-if="system" class="work" :class="{ 'is-long': long }">
    <main>
      <div class="page-head">
        <h1>{{ title }}</h1>
        <button v-if="membraneStage(system.train.stages)" class="button" type="button" @click="moreWater">More water <kbd>M</kbd></button>
        <button class="button" type="button" @click="compare">Options <kbd>O</kbd></button>
        <AddStage @add="add" />
      </div>
      <div v-if="error" class="stack">
        <FindingCard :finding="{ severity: 'bad', title: 'This train cannot be solved', why: error.message }" />
        <div v-if="system.train.stages.length > 0" class="sheet panel row">
          <h3>Stages</h3>
          <button
            v-for="s in system.train.stages"
            :key="s.id"
            type="button"
            class="button small"
            :class="{ primary: bench.selected.value === s.id }"
            @click="bench.select(s.id)"
          >
            {{ s.name }}
          </button>
        </div>
      </div>
      <template v-if="report && input">
        <TrainPicture :narrow="long" @move="edits.move" @remove="remove" />
        <div class="bench">
          <section class="sheet lens">
            <LensTabs />
            <div v-if="lens && (lens.kind === null || lensStage)" id="lens" role="tabpanel" :aria-labelledby="`lens-${lens.id}`">
              <component :is="lens.panel" :key="lens.id" v-bind="lens.kind === null ? {} : { stage: lensStage }" />
            </div>
          </section>
          <section v-if="long" class="under" aria-label="Chosen stage and findings">
            <TrainSide :beside="false" @remove="remove" />
          </section>
        </div>
      </template>
      <StandsDialog v-model="standing" />
    </main>
    <aside v-if="!long">
      <TrainSide beside @remove="remove" />
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.page-head { margin-bottom: 10px; }
.bench { margin-top: 10px; display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr); }
.lens { min-height: 260px; min-width: 0; }
.is-long { grid-template-columns: minmax(0, 1fr) !important; }
/* The fields stay beside the picture while a lens is scrolled. */
@media (min-width: 861px) { aside { position: sticky; top: var(--header); max-height: calc(100vh - var(--header)); overflow-y: auto; } }
@media (min-width: 861px) { .is-long .bench { grid-template-columns: minmax(0, 1fr) 326px; align-items: start; } }
</style>
