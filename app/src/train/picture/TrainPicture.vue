<script setup lang="ts">
import { trainSentence, footLine } from '@yes-clear/core/advice';
import { useElementSize } from '@vueuse/core';
import { placeKey, type Place } from '@yes-clear/core/file';
import { computed, ref, shallowRef, useTemplateRef, watchEffect } from 'vue';
import { columnsOf } from '../../descent/drawing';
import DescentPicture from '../../descent/DescentPicture.vue';
import FigureLine from '../../kit/FigureLine.vue';
import { useScrolledTogether } from '../useScrolledTogether';
import { useWorkbench } from '../useWorkbench';
import ProbeCard from './ProbeCard.vue';

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
/** Columns share the width there is; below the least, the picture scrolls sideways. */
watchEffect(() => {
  if (!input.value) return;
  const share = Math.floor((Math.max(300, width.value) - left - 2) / columnsOf(input.value));
  bench.columnWidth.value = Math.max(props.narrow ? NARROW_COLUMN : COLUMN, share);
});
const open = ref(false);
const pressed = shallowRef<{ readonly place: Place; readonly probeId: string | null } | null>(null);
const at = ref<[number, number]>([0, 0]);
/** A tube or a probe was pressed: what can be done there opens at the finger. */
function press(place: Place, probeId: string | null, point: readonly [number, number]): void {
  pressed.value = { place, probeId };
  at.value = [point[0], point[1]];
  open.value = true;
}
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
        placing
        @select="bench.select"
        @move="(id, by) => $emit('move', id, by)"
        @remove="$emit('remove', $event)"
        @press="press"
      />
    </div>
    <v-menu v-model="open" :target="at" :close-on-content-click="false" location="bottom">
      <ProbeCard v-if="pressed" :key="`${pressed.probeId ?? ''} ${placeKey(pressed.place)}`" v-bind="pressed" @done="open = false" />
    </v-menu>
    <FigureLine class="sheet foot" :figures="foot" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroller { overflow-x: auto; overflow-y: hidden; }
.foot { justify-content: space-between; column-gap: 12px; margin-top: 10px; padding: 8px 14px; }
/* On a desk the picture never leaves the screen: what is under it slides beneath. */
@media (min-width: 861px) and (min-height: 640px) {
  .stand { position: sticky; top: var(--header); z-index: 5; background: var(--paper); padding: 8px 0; margin: -8px 0; }
}
</style>
