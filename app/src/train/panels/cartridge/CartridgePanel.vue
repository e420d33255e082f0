<script setup lang="ts">
import { standingAt } from '@yes-clear/core/advice';
import type { StageOf } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useTrainEdits } from '../../useTrainEdits';
import { useWorkbench } from '../../useWorkbench';
import BypassPanel from './BypassPanel.vue';

/** A cartridge with its bypass, where it stands: in the train, or in a use of it. */
const props = defineProps<{ stage: StageOf<'decarboniser'> }>();
const edits = useTrainEdits(useOpenSystem());
const { drawn, report } = useWorkbench();
const standing = computed(() => (drawn.value && report.value ? standingAt(drawn.value, report.value, props.stage.id) : null));
</script>

<template>
  <BypassPanel
    v-if="standing"
    :key="stage.id"
    :stage="stage"
    :before="standing.before"
    :litres-per-day="standing.litresPerDay"
    :goal="{ id: standing.goal.id, school: standing.goal.school ?? null }"
    @change="edits.change({ ...stage, ...$event }, 'dial')"
  />
  <p v-else class="panel muted">No water reaches this cartridge.</p>
</template>
