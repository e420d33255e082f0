<script setup lang="ts">
import type { TubeLine } from '@yes-clear/core/commission';
import type { System } from '@yes-clear/core/file';
import { computed } from 'vue';
import { flowDrawing } from './drawing/picture';
import { svgVNode } from './drawing/svgNode';

/** The flow drawing with every port in its true place; a line's label is pressed to say how long it is. */
const props = defineProps<{ system: System; lines: readonly TubeLine[]; chosen: string | null }>();
const emit = defineEmits<{ choose: [lineId: string] }>();
const drawn = computed(() => flowDrawing(props.system, props.lines, props.chosen));
const picture = computed(() => drawn.value.svg);
const width = computed(() => drawn.value.drawing.w);
const Picture = (): ReturnType<typeof svgVNode> => svgVNode(picture.value);
function pressed(event: Event): void {
  const line = (event.target as Element).closest('[data-line]')?.getAttribute('data-line');
  if (line) {
    event.preventDefault();
    emit('choose', line);
  }
}
</script>

<template>
  <div
    class="drawing"
    :style="{ '--least': `${Math.round(0.9 * width)}px` }"
    @click="pressed"
    @keydown.enter="pressed"
    @keydown.space="pressed"
  >
    <Picture />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
/* A drawing is paper: it keeps its colours in the dark. */
.drawing { overflow-x: auto; background: #fffdf8; border-radius: 11px; padding: 8px; }
.drawing :deep(svg) { display: block; margin: 0 auto; height: auto; max-width: 100%; min-width: var(--least); font-family: var(--digits); }
.drawing :deep(.line-label) { cursor: pointer; }
.drawing :deep(.line-label:hover rect), .drawing :deep(.line-label:focus-visible rect) { fill: #e2ecec; stroke: #0c5460; }
.drawing :deep(.line-label:focus) { outline: none; }
@media print { .drawing { overflow: visible; } .drawing :deep(svg) { min-width: 0; } }
</style>
