<script setup lang="ts">
import { awaySince } from '@yes-clear/core/file';
import { raisedBy, type FindingAction } from '@yes-clear/core/stage';
import { useWindowSize } from '@vueuse/core';
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import FindingsList from '../kit/FindingsList.vue';
import { useNotice } from '../kit/useNotice';
import { useOpenSystem } from '../system/openSystem';
import StageInspector from './stage/StageInspector.vue';
import { useTrainEdits } from './useTrainEdits';
import { useWorkbench } from './useWorkbench';

/** The fields of the chosen stage, and what the train does. */
const props = defineProps<{ beside: boolean }>();
const emit = defineEmits<{ remove: [id: string] }>();
const current = useOpenSystem();
const edits = useTrainEdits(current);
const notice = useNotice();
const bench = useWorkbench();
const { stage, selected, report } = bench;
const { system } = current;
const away = computed(() => system.value !== null && awaySince(system.value) !== null);
const index = computed(() => system.value?.train.stages.findIndex(({ id }) => id === selected.value) ?? -1);
function mend(action: FindingAction): void {
  const [before, was] = [current.solved.value?.report.findings ?? [], current.system.value];
  const stopped = edits.mend(action);
  if (stopped) return notice.say(stopped);
  // What mends one thing may bring up another: that is said as soon as it is worked out.
  const stop = watch(current.solved, (solved) => {
    if (!solved || solved.system === was) return;
    stop();
    const raises = raisedBy(before, solved.report.findings);
    if (raises.length > 0) notice.say(`Done. It raises: ${raises.map(({ title }) => title).join('; ')}.`);
  });
}
const setLine = (bar: number): void => current.edit('line pressure', (s) => ({ ...s, source: { ...s.source, linePressureBar: bar } }));

/** Width at which the findings fold under the work (shell/style.css). */
const FOLDS_PX = 860;
/** Where the fields do not stand beside the picture they are brought into sight. */
const { width } = useWindowSize();
const fields = useTemplateRef<HTMLElement>('fields');
watch(selected, async (id) => {
  if (id === null || (props.beside && width.value > FOLDS_PX)) return;
  await nextTick();
  fields.value?.querySelector('.inspector')?.scrollIntoView({ block: 'nearest' });
});
</script>

<template>
  <div v-if="system" ref="fields" class="stack side">
    <StageInspector
      v-if="stage"
      :key="stage.id"
      :stage="stage"
      :system="system"
      :report="report"
      :first="index <= 0"
      :last="index < 0 || index === system.train.stages.length - 1"
      @change="edits.change"
      @line-pressure="setLine"
      @move="edits.move(stage.id, $event)"
      @remove="emit('remove', stage.id)"
      @close="bench.select(null)"
    />
    <FindingsList v-if="report" title="What this train does" :findings="report.findings" :open="3" @mend="mend" />
    <p class="small">
      <RouterLink :to="{ name: 'build' }">{{ away ? 'Bring it back into service' : 'Put it away for weeks or a winter' }}</RouterLink>
    </p>
    <p class="small muted">Membranes must never see chlorine or hot water. Plumbing to the mains follows your local code.</p>
  </div>
</template>
