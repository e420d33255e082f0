<script setup lang="ts">
import { computed, type Component } from 'vue';
import CartridgeShape from './CartridgeShape.vue';
import type { Vessel } from './drawing';

/** One vessel, drawn by its kind: the drawing of that name in `vessels/`, or a plain cartridge where there is none. */
const props = defineProps<{ vessel: Vessel; small: boolean; selected: boolean }>();
const DRAWINGS: Readonly<Record<string, Component>> = import.meta.glob('./vessels/*.vue', { eager: true, import: 'default' });
const drawing = computed(() => DRAWINGS[`./vessels/${props.vessel.kind}.vue`]);
</script>

<template>
  <g class="vessel" :class="{ dry: vessel.dry, selected }">
    <component :is="drawing" v-if="drawing" :vessel="vessel" :small="small" />
    <CartridgeShape v-else :vessel="vessel" :small="small" housing="#f7f2e5" />
  </g>
</template>

<!-- prettier-ignore -->
<style scoped>
.vessel :deep(.body) { stroke: var(--vessel-line, #1b2b2d); stroke-width: 2; }
.selected :deep(.body), .selected :deep(.walls) { stroke: var(--action); stroke-width: 3.4; }
.dry { opacity: 0.38; }
:root[data-theme='dark'] .vessel { --vessel-line: #0a1110; }
</style>
