<script setup lang="ts">
import { computed } from 'vue';
import { radiusOf, type Drawn } from './drawn';

/** Pressure vessels, coloured from the water they are fed to the water they let through, one beside the other. */
const props = defineProps<Drawn>();
const id = computed(() => `water-${props.vessel.stageId.replace(/[^a-z0-9]/gi, '')}-${props.small ? 's' : 'l'}`);
const box = computed(() => props.vessel.box);
/** Its vessels, or the one it is. */
const tubes = computed(() => props.vessel.tubes ?? [{ box: box.value, joints: [] }]);
</script>

<template>
  <defs>
    <linearGradient :id="id" gradientUnits="userSpaceOnUse" x1="0" :y1="box.y" x2="0" :y2="box.y + box.height">
      <stop offset="0.08" :stop-color="vessel.from" /><stop offset="0.92" :stop-color="vessel.to" />
    </linearGradient>
  </defs>
  <template v-for="(tube, k) in tubes" :key="k">
    <rect
      class="body"
      :x="tube.box.x"
      :y="tube.box.y"
      :width="tube.box.width"
      :height="tube.box.height"
      :rx="Math.min(radiusOf(props), tube.box.width / 2.4)"
      :fill="`url(#${id})`"
    />
    <line
      class="skin"
      :x1="tube.box.x + tube.box.width / 2"
      :x2="tube.box.x + tube.box.width / 2"
      :y1="tube.box.y + 9"
      :y2="tube.box.y + tube.box.height - 9"
    />
    <line
      v-for="joint in tube.joints"
      :key="joint"
      class="joint"
      :x1="tube.box.x"
      :x2="tube.box.x + tube.box.width"
      :y1="joint"
      :y2="joint"
    />
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.joint { stroke: var(--vessel-line, #1b2b2d); stroke-width: 2; }
.skin { stroke: #fff; stroke-width: 2.4; stroke-dasharray: 3 4.5; opacity: 0.9; }
</style>
