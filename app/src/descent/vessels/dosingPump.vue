<script setup lang="ts">
import { computed } from 'vue';
import type { Drawn } from './drawn';

/** A small pump over the tank it doses from, and the drop that falls. */
const props = defineProps<Drawn>();
const tank = computed(() => {
  const { x, y, width, height } = props.vessel.box;
  return { x, y: y + height * 0.55, width, height: height * 0.45 };
});
const centre = computed(() => ({
  x: props.vessel.box.x + props.vessel.box.width / 2,
  y: props.vessel.box.y + props.vessel.box.height * 0.3,
}));
const drop = computed(() => `M${centre.value.x} ${centre.value.y - 5} q5 7 0 10 q-5 -3 0 -10`);
</script>

<template>
  <rect class="body" :x="tank.x" :y="tank.y" :width="tank.width" :height="tank.height" :rx="small ? 2 : 5" fill="#e8eef2" />
  <circle class="body" :cx="centre.x" :cy="centre.y" :r="Math.min(vessel.box.width, vessel.box.height * 0.5) / 2" fill="#f7f2e5" />
  <path v-if="!small" class="drop" :d="drop" />
</template>

<!-- prettier-ignore -->
<style scoped>
.drop { fill: #2f7f93; }
</style>
