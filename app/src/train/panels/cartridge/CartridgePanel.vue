<script setup lang="ts">
import { standingAt } from '@yes-clear/core/life';
import { plainGoal, type GoalAsked } from '@yes-clear/core/goal';
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
/** Of the train's own, with what the job itself asks; of a use, its own. */
const goal = computed((): GoalAsked => {
  const own = drawn.value?.train.stages.some(({ id }) => id === props.stage.id);
  return own ? drawn.value!.goal : plainGoal(standing.value!.goal);
});
</script>

<template>
  <BypassPanel
    v-if="standing"
    :key="stage.id"
    :stage="stage"
    :before="standing.before"
    :litres-per-day="standing.litresPerDay"
    :goal="goal"
    @change="edits.change({ ...stage, ...$event }, 'dial')"
  />
  <p v-else class="panel muted">No water reaches this cartridge.</p>
</template>
