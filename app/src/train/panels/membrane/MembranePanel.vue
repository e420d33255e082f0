<script setup lang="ts">
import { samplePorts, tunable } from '@yes-clear/core/advice';
import { computed, ref, watch } from 'vue';
import Segments from '../../../kit/Segments.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useWorkbench } from '../../useWorkbench';
import MoreWater from './MoreWater.vue';
import PortsPanel from './PortsPanel.vue';
import TunePanel from './TunePanel.vue';
import WasteTarget from './WasteTarget.vue';

/** The membrane: its valves where they can be tuned by hand, and the ways to more water. */
defineProps<{ stage: object }>();
const { system, solved } = useOpenSystem();
const bench = useWorkbench();
const skid = computed(() => system.value !== null && tunable(system.value) !== null);
const ported = computed(
  () => system.value !== null && solved.value !== null && samplePorts(system.value, solved.value.report.solved).length > 0,
);
type Way = 'tune' | 'water' | 'ports';
const ways = computed(() => [
  ...(skid.value ? [{ value: 'tune' as const, title: 'Tune' }] : []),
  { value: 'water' as const, title: 'More water' },
  ...(ported.value ? [{ value: 'ports' as const, title: 'Sample ports' }] : []),
]);
const atPorts = ref(false);
watch(bench.watering, (asked) => asked && (atPorts.value = false));
const way = computed<Way>({
  get: () => (atPorts.value && ported.value ? 'ports' : bench.watering.value || !skid.value ? 'water' : 'tune'),
  set: (next) => {
    atPorts.value = next === 'ports';
    bench.watering.value = next === 'water';
  },
});
</script>

<template>
  <div class="panel membrane">
    <Segments v-if="ways.length > 1" v-model="way" label="What to do with the membrane" :choices="ways" />
    <WasteTarget />
    <TunePanel v-if="way === 'tune'" />
    <PortsPanel v-else-if="way === 'ports'" />
    <MoreWater v-else />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.membrane { display: grid; gap: 10px; justify-items: start; grid-template-columns: minmax(0, 1fr); }
.membrane > :deep(section) { width: 100%; }
</style>
