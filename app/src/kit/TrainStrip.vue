<script setup lang="ts">
import { trainSentence } from '@yes-clear/core/train';
import { computed } from 'vue';
import DescentPicture from '../descent/DescentPicture.vue';
import { descentInput } from '../descent/useDescentInput';
import { useCurrentSystem } from '../store/current';

/** The descent as a strip at the head of the findings, in every phase but its own. */
const { system, report, readings, tracking } = useCurrentSystem();
const input = computed(() => (system.value && report.value?.ok ? descentInput(system.value, report.value.value, readings.value, tracking.value) : null));
const sentence = computed(() => (system.value && report.value?.ok ? trainSentence(report.value.value.solved, system.value.units) : ''));
</script>

<template>
  <div v-if="input" class="sheet train-strip"><DescentPicture :input="input" size="strip" :sentence="sentence" /></div>
</template>

<style scoped>
.train-strip { padding: 4px 10px; margin-bottom: 14px; overflow: hidden; }
</style>
