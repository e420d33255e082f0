<script setup lang="ts">
import { tunable } from '@yes-clear/core/advice';
import { computed } from 'vue';
import Segments from '../../../kit/Segments.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useWorkbench } from '../../useWorkbench';
import MoreWater from './MoreWater.vue';
import TunePanel from './TunePanel.vue';

/** The membrane: its valves where they can be tuned by hand, and the ways to more water. */
defineProps<{ stage: object }>();
const { system } = useOpenSystem();
const bench = useWorkbench();
const skid = computed(() => system.value !== null && tunable(system.value) !== null);
const WAYS = [
  { value: 'tune', title: 'Tune' },
  { value: 'water', title: 'More water' },
] as const;
const way = computed({
  get: () => (bench.watering.value || !skid.value ? 'water' : 'tune'),
  set: (next: 'tune' | 'water') => (bench.watering.value = next === 'water'),
});
</script>

<template>
  <div class="panel membrane">
    <Segments v-if="skid" v-model="way" label="What to do with the membrane" :choices="WAYS" />
    <TunePanel v-if="way === 'tune'" />
    <MoreWater v-else />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.membrane { display: grid; gap: 10px; justify-items: start; grid-template-columns: minmax(0, 1fr); }
.membrane > :deep(section) { width: 100%; }
</style>
