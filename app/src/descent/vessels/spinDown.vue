<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/** A mesh in a clear bowl: what it caught lies at the bottom, the drain valve hangs under it. */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const middle = computed(() => props.vessel.box.x + props.vessel.box.width / 2);
const bottom = computed(() => props.vessel.box.y + props.vessel.box.height);
</script>

<template>
  <line v-if="!small" class="drain" :x1="middle" :x2="middle" :y1="bottom" :y2="bottom + 7" />
  <CartridgeShape :vessel="vessel" :small="small" housing="#eef3f1" />
  <rect
    v-if="!small"
    :x="inside.x"
    :y="inside.y + inside.height * (1 - 0.45 * vessel.fill)"
    :width="inside.width"
    :height="inside.height * 0.45 * vessel.fill"
    fill="#a4683c"
    rx="2"
  />
  <path
    v-if="!small"
    class="mesh"
    :d="`M${middle - 4} ${inside.y} V${inside.y + inside.height * 0.8} M${middle + 4} ${inside.y} V${inside.y + inside.height * 0.8}`"
  />
</template>

<!-- prettier-ignore -->
<style scoped>
.drain { stroke: var(--vessel-line, #1b2b2d); stroke-width: 5; }
.mesh { stroke: #7d8c8a; stroke-width: 2; stroke-dasharray: 1.6 2; fill: none; }
</style>
