<script setup lang="ts">
import { usedSays } from '@yes-clear/core/advice';
import { computed, useTemplateRef } from 'vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useScrolledTogether } from '../../useScrolledTogether';
import { useTrainEdits } from '../../useTrainEdits';
import { useWorkbench } from '../../useWorkbench';
import StationLedger from './StationLedger.vue';

/** The stations in figures, each column under its stage in the picture. */
const current = useOpenSystem();
const edits = useTrainEdits(current);
const origins = computed(() => (current.water.value?.ok ? current.water.value.value.origins : null));
const estimated = computed(() => {
  const ids = (current.solved.value?.estimated ?? []).map(({ stageId }) => stageId);
  return (current.system.value?.train.stages ?? []).filter(({ id }) => ids.includes(id)).map(({ name }) => name);
});
const bench = useWorkbench();
const { drawn, report } = bench;
const host = useTemplateRef<HTMLElement>('host');
useScrolledTogether(host, bench.scrolled);
</script>

<template>
  <div ref="host" class="scroller">
    <StationLedger
      v-if="drawn && report"
      :system="drawn"
      :solved="report.solved"
      :origins="origins"
      :estimated="estimated"
      :used="usedSays(drawn, report)"
      :left="bench.left"
      :column-width="bench.columnWidth.value"
      :selected="bench.selected.value"
      @select="bench.select"
      @order="edits.order"
    />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroller { overflow-x: auto; padding-bottom: 6px; }
</style>
