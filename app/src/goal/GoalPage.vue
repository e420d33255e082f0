<script setup lang="ts">
import { GOAL_IDS, GOAL_ROWS } from '@yes-clear/core/goal';
import { computed } from 'vue';
import Segments from '../kit/Segments.vue';
import FindingsList from '../kit/FindingsList.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import DemandEditor from './DemandEditor.vue';
import GoalLimits from './GoalLimits.vue';
import PreparePanel from './PreparePanel.vue';
import { FAMILIES, useGoal } from './useGoal';

/** Goal: what the water is for, the limits that follow, what is put to it, and how much is needed. */
const { current, goal, choose } = useGoal();
const { system, solved } = current;
const families = FAMILIES.map(({ family, title }) => ({ title, ids: GOAL_IDS.filter((id) => GOAL_ROWS[id].family === family) }));
const ABOUT = ['goal', 'prepare', 'demand', 'tank', 'winter'];
const findings = computed(() => solved.value?.report.findings.filter((finding) => ABOUT.includes(finding.id)) ?? []);
</script>

<template>
  <div v-if="system && goal" class="work">
    <main class="stack">
      <div class="page-head"><h1>What the water is for</h1></div>
      <section class="sheet panel goals" aria-label="Goal">
        <div v-for="group in families" :key="group.title" class="family">
          <span class="muted small">{{ group.title }}</span>
          <Segments
            look="chips"
            :label="`Goal, ${group.title}`"
            :choices="group.ids.map((value) => ({ value, title: GOAL_ROWS[value].label }))"
            :model-value="goal.id"
            @update:model-value="choose"
          />
        </div>
        <p class="says">{{ GOAL_ROWS[goal.id].says }}</p>
      </section>
      <GoalLimits />
      <PreparePanel />
      <DemandEditor />
    </main>
    <aside>
      <TrainStrip />
      <FindingsList title="Against this goal" :findings="findings" />
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.goals { display: flex; flex-wrap: wrap; gap: 10px 28px; }
.family { display: grid; gap: 4px; align-content: start; }
.says { flex: 1 0 100%; border-top: 1px solid var(--hair); padding-top: 10px; font-size: 14.5px; }
</style>
