<script setup lang="ts">
import { trainSentence } from '@yes-clear/core/advice';
import { computed } from 'vue';
import DescentPicture from '../descent/DescentPicture.vue';
import { descentInput } from '../descent/descentInput';
import { useOpenSystem } from '../system/openSystem';

/** The descent as a strip at the head of the findings, in every phase but its own. */
const { solved, readings } = useOpenSystem();
const input = computed(() => solved.value && descentInput(solved.value.system, solved.value.report, readings.value, solved.value.tracking));
const sentence = computed(() => (solved.value ? trainSentence(solved.value.report.solved, solved.value.system.units) : ''));
</script>

<template>
  <div v-if="input" class="sheet train-strip"><DescentPicture :input="input" size="strip" :sentence="sentence" /></div>
</template>

<!-- prettier-ignore -->
<style scoped>
.train-strip { padding: 4px 10px; margin-bottom: 14px; overflow: hidden; }
</style>
