<script setup lang="ts">
import { focusMenu } from '../../../kit/focusMenu';
import { idFor } from '../../../store/newId';
import { GOAL_IDS, GOAL_ROWS } from '@yes-clear/core/goal';
import type { Branch } from '@yes-clear/core/file';
import { newStage, STAGE_KINDS, stageKind, type StageKind } from '@yes-clear/core/stage';
import { formatQuantity } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import NameField from '../../../kit/NameField.vue';
import QuantityField from '../../../kit/QuantityField.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useWorkbench } from '../../useWorkbench';
import { isHardnessAssumed } from '@yes-clear/core/water';
import { useTrainEdits } from '../../useTrainEdits';

/** The uses taken off a counter: each with its own goal, stages and findings. */
const bench = useWorkbench();
const current = useOpenSystem();
/** Hardness and alkalinity that follow from what nobody measured of the tap stand with a tilde. */
const guess = computed(() => {
  const origins = current.water.value?.ok ? current.water.value.value.origins : null;
  return origins && (isHardnessAssumed(origins) || origins.alkalinity === 'assumed') ? '~' : '';
});
const edits = useTrainEdits(current);
const { system, solved } = current;
/** Fields hold what is entered, figures what was solved last. */
const reports = computed(() =>
  (system.value?.train.branches ?? []).flatMap((branch) => {
    const found = solved.value?.report.branches.find((report) => report.branch.id === branch.id);
    return found ? [{ ...found, branch }] : [];
  }),
);
const units = computed(() => current.units.value);

const GOALS = GOAL_IDS.filter((id) => GOAL_ROWS[id].family === 'beverage' || GOAL_ROWS[id].family === 'drinking').map((id) => ({
  value: id,
  title: GOAL_ROWS[id].label,
}));
const places = computed(() => [
  { value: 'tap', title: 'Tap' },
  ...(system.value?.train.stages ?? []).map((stage) => ({ value: stage.id, title: stage.name })),
]);
const KINDS = STAGE_KINDS.map(stageKind).filter(({ inUses }) => inUses);
const change = (id: string, changes: Partial<Branch>): void =>
  edits.branches(`branch ${id} ${Object.keys(changes).join()}`, (list) =>
    list.map((branch) => (branch.id === id ? { ...branch, ...changes } : branch)),
  );
function add(): void {
  const last = system.value?.train.stages.at(-1)?.id ?? 'tap';
  const id = idFor('use');
  edits.branches('use added', (list) => [
    ...list,
    {
      id,
      name: `Use ${list.length + 1}`,
      after: last,
      goal: { id: 'espresso', school: null },
      litresPerDay: 50,
      drawLPerH: 60,
      stages: [],
    },
  ]);
}
function addStage(branch: Branch, kind: StageKind): void {
  const stage = newStage(kind, idFor(kind));
  change(branch.id, { stages: [...branch.stages, stage] });
  bench.select(stage.id);
}
const hard = (mgL: number): string => formatQuantity(Math.max(0, mgL), 'hardnessMgL', units.value).text;
</script>

<template>
  <section v-if="system" class="panel uses" aria-label="Uses">
    <div class="headed">
      <h2>Uses of their own</h2>
      <p class="muted small">Espresso, brew, ice and ovens want different water; each is judged by its own limits.</p>
      <button v-if="system.train.branches.length < 8" type="button" class="button" @click="add">Add a use</button>
    </div>
    <div v-if="reports.length > 0" class="cards">
      <article v-for="{ branch, stations, findings } in reports" :key="branch.id" class="use" :aria-label="branch.name">
        <header>
          <NameField
            class="plain-input name"
            label="Name of the use"
            :maxlength="40"
            :model-value="branch.name"
            @update:model-value="change(branch.id, { name: $event })"
          />
          <button
            type="button"
            class="button small danger"
            :aria-label="`Remove ${branch.name}`"
            @click="edits.branches('use removed', (list) => list.filter((one) => one.id !== branch.id))"
          >
            Remove
          </button>
        </header>
        <p class="water">
          {{ guess }}{{ hard(stations.at(-1)!.state.hardnessMgL) }} hardness, {{ guess
          }}{{ hard(stations.at(-1)!.state.alkalinityMgL) }} alkalinity, pH
          {{ stations.at(-1)!.state.pH.toFixed(1) }}
        </p>
        <div class="row">
          <v-select
            :items="GOALS"
            :model-value="branch.goal.id"
            :aria-label="`Goal of ${branch.name}`"
            @update:model-value="change(branch.id, { goal: { id: $event, school: null } })"
          />
          <v-select
            :items="places"
            :model-value="branch.after"
            :aria-label="`Where ${branch.name} leaves`"
            @update:model-value="change(branch.id, { after: $event })"
          />
        </div>
        <QuantityField
          label="Needed a day"
          look="row"
          dimension="volumeL"
          :units="units"
          :model-value="branch.litresPerDay"
          @update:model-value="$event !== null && change(branch.id, { litresPerDay: $event })"
        />
        <QuantityField
          label="Drawn at"
          look="row"
          dimension="flowLPerH"
          :low="0.1"
          :units="units"
          :model-value="branch.drawLPerH"
          @update:model-value="$event !== null && change(branch.id, { drawLPerH: $event })"
        />
        <div class="chips">
          <button
            v-for="stage in branch.stages"
            :key="stage.id"
            type="button"
            class="button small"
            :class="{ primary: bench.selected.value === stage.id }"
            @click="bench.select(stage.id)"
          >
            {{ stage.name }}
          </button>
          <v-menu @update:model-value="focusMenu">
            <template #activator="{ props: activator }"
              ><button type="button" class="button small plain" v-bind="activator">+ stage</button></template
            >
            <v-list><v-list-item v-for="kind in KINDS" :key="kind.kind" :title="kind.label" @click="addStage(branch, kind.kind)" /></v-list>
          </v-menu>
        </div>
        <FindingCard v-for="finding in findings" :key="finding.id" :finding="finding" />
      </article>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.uses { display: grid; gap: 12px; }
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { flex: 1 1 240px; margin: 0; }
.cards { display: grid; grid-template-columns: repeat(auto-fill, minmax(330px, 1fr)); gap: 14px; }
.use { border: 1px solid var(--line); border-radius: 12px; padding: 10px 12px 12px; display: grid; gap: 8px; align-content: start; }
.use header { display: flex; gap: 8px; align-items: center; }
.name { font-weight: 700; flex: 1; min-width: 0; min-height: 32px; }
.water { margin: 0; font-size: 14px; font-weight: 600; }
.row { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; }
.chips { display: flex; gap: 6px; flex-wrap: wrap; }
@media (max-width: 500px) { .cards { grid-template-columns: minmax(0, 1fr); } }
</style>
