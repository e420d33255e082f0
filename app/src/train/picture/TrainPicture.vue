<script setup lang="ts">
import { trainSentence, footLine } from '@yes-clear/core/advice';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef, watchEffect } from 'vue';
import { branchColumns } from '../../descent/drawing';
import DescentPicture from '../../descent/DescentPicture.vue';
import { useScrolledTogether } from '../useScrolledTogether';
import { useWorkbench } from '../useWorkbench';

/** The descent and its foot line: what stands while a lens is worked. */
const props = defineProps<{ narrow: boolean }>();
defineEmits<{ move: [id: string, by: number]; remove: [id: string] }>();
const bench = useWorkbench();
const { drawn, report, input, left } = bench;

const host = useTemplateRef<HTMLElement>('host');
useScrolledTogether(host, bench.scrolled);
const { width } = useElementSize(host);
/** Room a column's words need, and the least it can do with when the findings have made way for a long train. */
const COLUMN = 94;
const NARROW_COLUMN = 64;
const columns = computed(() => (drawn.value?.train.stages.length ?? 0) + 1 + (input.value ? branchColumns(input.value) : 0));
/** Columns share the width there is; below the least, the picture scrolls sideways. */
watchEffect(() => {
  const share = Math.floor((Math.max(300, width.value) - left - 2) / columns.value);
  bench.columnWidth.value = Math.max(props.narrow ? NARROW_COLUMN : COLUMN, share);
});
const foot = computed(() => (drawn.value && report.value ? footLine(drawn.value, report.value) : []));
const sentence = computed(() => (drawn.value && report.value ? trainSentence(report.value.solved, drawn.value.units) : ''));
</script>

<template>
  <div class="stand">
    <div ref="host" class="sheet scroller">
      <DescentPicture
        v-if="input"
        :input="input"
        size="large"
        :sentence="sentence"
        :selected="bench.selected.value"
        :column-width="bench.columnWidth.value"
        :left="left"
        @select="bench.select"
        @move="(id, by) => $emit('move', id, by)"
        @remove="$emit('remove', $event)"
      />
    </div>
    <dl class="sheet foot">
      <div v-for="[figure, says] in foot" :key="says">
        <dt>{{ figure }}</dt>
        <dd>{{ says }}</dd>
      </div>
    </dl>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroller { overflow-x: auto; overflow-y: hidden; }
.foot { display: flex; justify-content: space-between; flex-wrap: wrap; gap: 4px 12px; margin: 10px 0 0; padding: 8px 14px; }
.foot div { display: flex; gap: 5px; align-items: baseline; }
.foot dt { font-weight: 720; font-size: 15px; }
.foot dd { margin: 0; color: var(--muted); font-size: 13px; }
/* On a desk the picture never leaves the screen: what is under it slides beneath. */
@media (min-width: 861px) and (min-height: 640px) {
  .stand { position: sticky; top: var(--header); z-index: 5; background: var(--paper); padding: 8px 0; margin: -8px 0; }
}
</style>
