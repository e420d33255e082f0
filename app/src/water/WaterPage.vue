<script setup lang="ts">
import { currentSample, withSample } from '@yes-clear/core/file';
import { seasonSpan } from '@yes-clear/core/train';
import { waterMeaning } from '@yes-clear/core/advice';
import type { FindingAction } from '@yes-clear/core/stage';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import FindingsList from '../kit/FindingsList.vue';
import Segments from '../kit/Segments.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useOpenSystem } from '../system/openSystem';
import MetersPart from './MetersPart.vue';
import SamplePart from './SamplePart.vue';
import SourcePart from './SourcePart.vue';

/** Water: what comes out of the tap, completed to one consistent water, and what it means for the goal. */
const current = useOpenSystem();
const { system, water, solved } = current;
const PARTS = [
  { value: 'sample', title: 'Sample' },
  { value: 'source', title: 'Supply' },
  { value: 'meters', title: 'Meters' },
] as const;
const part = ref<(typeof PARTS)[number]['value']>('sample');

const findings = computed(() =>
  system.value && water.value?.ok
    ? waterMeaning(
        system.value,
        water.value.value,
        solved.value?.report.solved ?? null,
        seasonSpan(system.value.source, system.value.instruments),
      )
    : [],
);
/** A system just made is entered at once: the first field has the focus. */
const fields = useTemplateRef<HTMLElement>('fields');
const fresh = (history.state as { fresh?: boolean } | null)?.fresh === true;
if (fresh) history.replaceState({ ...(history.state as object), fresh: false }, '');
watch(
  fields,
  async (there) => {
    if (!there || !fresh) return;
    await nextTick();
    there.querySelector<HTMLInputElement>('input[type=text]')?.focus();
  },
  { once: true, flush: 'post' },
);
function mend(action: FindingAction): void {
  if (action.do === 'setCharacter')
    current.edit('kind of supply', (s) => ({ ...s, source: withSample(s.source, { character: action.character }) }));
  if (action.do === 'closeBalance')
    current.edit('charge balance', (s) => ({
      ...s,
      source: withSample(s.source, { report: { ...currentSample(s.source).report, closeBalance: action.close } }),
    }));
}
</script>

<template>
  <div v-if="system" class="work">
    <main ref="fields" class="stack">
      <div class="page-head">
        <h1>What comes out of the tap</h1>
        <Segments v-model="part" label="Part of the page" :choices="PARTS" />
      </div>
      <SamplePart v-if="part === 'sample'" />
      <SourcePart v-else-if="part === 'source'" />
      <MetersPart v-else />
    </main>
    <aside>
      <TrainStrip />
      <FindingsList v-if="findings.length > 0" title="What this water means" :findings="findings" @mend="mend" />
    </aside>
  </div>
</template>
