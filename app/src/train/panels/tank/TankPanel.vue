<script setup lang="ts">
import { lastTank } from '@yes-clear/core/file';
import { words } from '@yes-clear/core/quantity';
import { newLoop } from '@yes-clear/core/template';
import type { StageOf } from '@yes-clear/core/stage';
import { computed } from 'vue';
import FigureLine from '../../../kit/FigureLine.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useWorkbench } from '../../useWorkbench';
import LoopPanel from './LoopPanel.vue';
import TankLevels from './TankLevels.vue';

/** A tank: its float and what it carries, or the loop that circulates behind it. */
const props = defineProps<{ stage: StageOf<'tank'> }>();
const current = useOpenSystem();
const { system } = current;
const { drawn, report } = useWorkbench();
const last = computed(() => (system.value ? lastTank(system.value.train.stages)?.id === props.stage.id : false));
const say = computed(() => words(current.units.value));
const litres = (value: number): string => say.value.of(value, 'volumeL');
const figures = computed<readonly (readonly [string, string])[]>(() => {
  const facts = report.value;
  if (!facts || !last.value) return [];
  const float = facts.float?.ok ? facts.float.value : null;
  const bladder = facts.bladder?.ok ? facts.bladder.value : null;
  return [
    ...(float
      ? ([
          [float.startsPerDay.toFixed(1), 'starts a day'],
          [say.value.hours(float.runHoursPerDay), 'run a day'],
          [litres(float.lowestL), 'in it at the lowest'],
        ] as const)
      : []),
    ...(bladder
      ? ([
          [litres(bladder.heldL), 'can be drawn'],
          [say.value.hours(bladder.hours), 'to fill it'],
        ] as const)
      : []),
    ...(facts.smallestTankL === null ? [] : [[litres(facts.smallestTankL), 'in store is what the week needs'] as const]),
  ];
});
/** A polisher behind the tank is what a loop leads the water back through. */
const polished = computed(() => {
  const stages = system.value?.train.stages ?? [];
  return stages.slice(stages.findIndex(({ id }) => id === props.stage.id) + 1).some(({ kind }) => kind === 'resin');
});
const loop = (on: boolean): void =>
  current.edit(on ? 'loop added' : 'loop removed', (s) => ({ ...s, train: { ...s.train, loop: on ? newLoop() : null } }));
</script>

<template>
  <div v-if="system && drawn">
    <LoopPanel v-if="last && system.train.loop" @remove="loop(false)" />
    <section v-else class="panel still" aria-label="Tank">
      <TankLevels :tank="stage" :units="drawn.units" />
      <div class="says">
        <FigureLine :figures="figures" />
        <p v-if="!last" class="muted">It stands within the train: the float of the last tank is what starts and stops the unit.</p>
        <template v-else-if="polished">
          <p class="muted">
            Water that stands loses its purity within hours. A pump that leads it round and back through the polisher keeps it.
          </p>
          <button type="button" class="button" @click="loop(true)">Let it circulate</button>
        </template>
      </div>
    </section>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.still { display: grid; grid-template-columns: 220px minmax(0, 1fr); gap: 22px; align-items: center; }
.says { display: grid; gap: 12px; justify-items: start; }
@media (max-width: 620px) { .still { grid-template-columns: minmax(0, 1fr); } }
</style>
