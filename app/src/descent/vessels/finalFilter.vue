<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/** A pleated skin: fine upright folds, darker as its pores fill. */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const FOLDS = 5;
const folds = computed(() => {
  const { x, y, width, height } = inside.value;
  return Array.from({ length: FOLDS }, (_, i) => {
    const at = x + (width * (i + 1)) / (FOLDS + 1);
    return `M${at} ${y} V${y + height}`;
  }).join(' ');
});
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f4f1ea" />
  <path v-if="!small" class="fold" :d="folds" :stroke-opacity="0.35 + 0.6 * vessel.fill" />
</template>

<!-- prettier-ignore -->
<style scoped>
.fold { stroke: #4d6b74; stroke-width: 1.5; fill: none; }
</style>
