<script setup lang="ts">
import { STAGE_KINDS, stageKind, type FindingAction, type StageKind } from '@yes-clear/core/stage';
import { formatQuantity, costUnit, moneyText, words } from '@yes-clear/core/quantity';
import { mounting, trainSentence, tunable, standingAt } from '@yes-clear/core/advice';
import { polishedStation, wasteToProduct } from '@yes-clear/core/train';
import { allStages, membraneStage } from '@yes-clear/core/file';
import { GOAL_ROWS } from '@yes-clear/core/goal';
import { useElementSize, useWindowSize } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import DescentPicture from '../descent/DescentPicture.vue';
import { branchColumns } from '../descent/drawing';
import { descentInput } from '../descent/useDescentInput';
import FindingCard from '../kit/FindingCard.vue';
import FindingsList from '../kit/FindingsList.vue';
import { useNotice } from '../kit/useNotice';
import { useKey } from '../kit/useKeys';
import { useOpenSystem } from '../system/openSystem';
import Segments from '../kit/Segments.vue';
import PricesPanel from './PricesPanel.vue';
import BranchesPanel from './BranchesPanel.vue';
import BypassPanel from './BypassPanel.vue';
import ColumnPanel from './ColumnPanel.vue';
import LoopPanel from './LoopPanel.vue';
import MoreWater from './MoreWater.vue';
import RoutesPanel from './RoutesPanel.vue';
import SeasonStrip from './SeasonStrip.vue';
import TunePanel from './TunePanel.vue';
import StageInspector from './StageInspector.vue';
import StationLedger from './StationLedger.vue';
import { useTrainEdits } from './useTrainEdits';

/** Train: the descent, its ledger, and what it does. */
const current = useOpenSystem();
const { system, readings, error } = current;
const edits = useTrainEdits(current);
const notice = useNotice();
const selected = ref<string | null>(null);
const adding = ref(false);

const tracking = computed(() => current.solved.value?.tracking ?? null);
const solved = computed(() => current.solved.value?.report ?? null);
/** What was solved and what is drawn are one: an edit is drawn once its answer is there, in the units chosen now. */
const drawn = computed(() => current.solved.value && { ...current.solved.value.system, units: current.units.value });
const input = computed(() =>
  drawn.value && solved.value ? descentInput(drawn.value, solved.value, readings.value, tracking.value) : null,
);
const stage = computed(() =>
  system.value ? (allStages(system.value.train).find((candidate) => candidate.id === selected.value) ?? null) : null,
);
const index = computed(() => system.value?.train.stages.findIndex((candidate) => candidate.id === selected.value) ?? -1);

const host = useTemplateRef<HTMLElement>('host');
const { width } = useElementSize(host);
const LEFT = 116;
const columns = computed(() => (drawn.value?.train.stages.length ?? 0) + 1 + (input.value ? branchColumns(input.value) : 0));
/** Room a column's words need, and the least it can do with when the findings have made way for a long train. */
const COLUMN = 94;
const NARROW_COLUMN = 64;
/** A long train takes the whole width: its findings go under it. */
const wide = computed(() => columns.value > LONGEST_BESIDE);
const LONGEST_BESIDE = 10;
/** Columns share the width there is; below the least, the picture scrolls sideways. */
const columnWidth = computed(() =>
  Math.max(wide.value ? NARROW_COLUMN : COLUMN, Math.floor((Math.max(300, width.value) - LEFT - 2) / columns.value)),
);

/** Where the fields do not stand beside the picture they are brought into sight. */
const { width: windowWidth } = useWindowSize();
const fields = useTemplateRef<HTMLElement>('fields');
watch(selected, async (id) => {
  if (id === null || (!wide.value && windowWidth.value > FOLDS_PX)) return;
  await nextTick();
  fields.value?.querySelector('.inspector')?.scrollIntoView({ block: 'nearest' });
});
/** Width at which the findings fold under the work (shell/style.css). */
const FOLDS_PX = 860;

const title = computed(() => {
  if (!drawn.value || !solved.value) return 'Train';
  const say = words(drawn.value.units);
  const { solved: train } = solved.value;
  if (train.unit?.noProduction) return 'Nothing comes through this train';
  const from = train.stations[0]!.state.ec25UScm;
  const to = polishedStation(train).state.ec25UScm;
  const count = drawn.value.train.stages.length;
  return `From ${say.water(from)} to ${say.water(to)} in ${count} ${count === 1 ? 'stage' : 'stages'}`;
});

const foot = computed<readonly (readonly [string, string])[]>(() => {
  if (!drawn.value || !solved.value) return [];
  const units = drawn.value.units;
  const { solved: train, demandLPerDay, runHoursPerDay, resin, energyKWhPerM3, cost } = solved.value;
  const weight = mounting(drawn.value.train.stages);
  const say = words(units);
  const per = costUnit(units);
  const ratio = wasteToProduct(train);
  // With a blend or a second pass the membrane's own ratio, told beside its waste, is another.
  const ofUnit = say.ratio(train.unit?.wasteToProduct ?? 0);
  const hours = runHoursPerDay === null || runHoursPerDay > 24 ? null : say.hours(runHoursPerDay);
  return [
    [say.perDay(train.productLPerH * 24), 'made'],
    ...(ratio ? [[say.ratio(ratio), say.ratio(ratio) === ofUnit ? 'waste to product' : 'waste to product in all'] as const] : []),
    [say.perDay(demandLPerDay), 'needed'],
    ...(hours ? [[hours, 'run a day'] as const] : []),
    ...(energyKWhPerM3 === null ? [] : [[`${energyKWhPerM3.toFixed(energyKWhPerM3 < 10 ? 1 : 0)}\u202fkWh/m³`, 'for the pump'] as const]),
    ...(cost === null ? [] : [[moneyText((cost.total * per.litres) / 1000, drawn.value.prices.currency), `for ${per.label}`] as const]),
    [
      `${weight.wetKg >= 10 ? Math.round(weight.wetKg) : weight.wetKg.toFixed(1)}\u202fkg`,
      `wet on ${weight.wallM.toFixed(1)}\u202fm of wall`,
    ],
    ...(resin?.throughput.until.kind === 'litres'
      ? [[formatQuantity(resin.throughput.until.litres, 'volumeL', units).text, 'from new resin'] as const]
      : []),
  ];
});

/** The selected cartridge with its bypass, where it stands: in the train, or in a branch of it. */
const dial = computed(() => {
  if (stage.value?.kind !== 'decarboniser' || !solved.value || !drawn.value) return null;
  const at = standingAt(drawn.value, solved.value, stage.value.id);
  return (
    at && { stage: stage.value, before: at.before, litresPerDay: at.litresPerDay, goal: { id: at.goal.id, school: at.goal.school ?? null } }
  );
});
const beverage = computed(
  () => system.value !== null && (GOAL_ROWS[system.value.goal.id].family === 'beverage' || system.value.train.branches.length > 0),
);
const polishing = computed(() => system.value?.train.stages.some((one) => one.kind === 'resin') ?? false);
const watering = ref(false);
/** Pump and valve before and behind a membrane: what can be tuned by hand. */
const skid = computed(() =>
  system.value ? tunable(system.value) !== null && system.value.train.stages.some((s) => s.kind === 'membrane' && s.valve) : false,
);
/** What the height of the picture stands for. */
const HEIGHTS = [
  { value: 'strength', title: 'Conductivity' },
  { value: 'pressure', title: 'Pressure' },
] as const;
const height = ref<'strength' | 'pressure'>('strength');
const KINDS = STAGE_KINDS.map(stageKind);
function add(kind: StageKind): void {
  selected.value = edits.add(kind);
  adding.value = false;
}
function remove(id: string): void {
  edits.remove(id);
  if (selected.value === id) selected.value = null;
  notice.say('Stage removed. Ctrl+Z brings it back.');
}
function mend(action: FindingAction): void {
  const stopped = edits.mend(action);
  if (stopped) notice.say(stopped);
}
useKey('a', () => (adding.value = true));
useKey('m', () => (watering.value = true));
</script>

<template>
  <div v-if="system" class="work" :class="{ 'is-long': wide }">
    <main>
      <div class="page-head">
        <h1>{{ title }}</h1>
        <Segments v-model="height" label="What the height shows" :choices="HEIGHTS" />
        <button v-if="membraneStage(system.train.stages)" class="button" type="button" @click="watering = true">
          More water <kbd>M</kbd>
        </button>
        <v-menu v-model="adding" location="bottom end">
          <template #activator="{ props: activator }"
            ><button class="button primary" type="button" v-bind="activator">Add stage <kbd>A</kbd></button></template
          >
          <v-list>
            <v-list-item
              v-for="choice in KINDS"
              :key="choice.kind"
              :title="choice.label"
              :subtitle="choice.says"
              @click="add(choice.kind)"
            />
          </v-list>
        </v-menu>
      </div>
      <div ref="host">
        <div v-if="error" class="stack">
          <FindingCard :finding="{ severity: 'bad', title: 'This train cannot be solved', why: error.message }" />
        </div>
        <template v-if="solved && input">
          <div class="sheet scroller">
            <DescentPicture
              :input="{ ...input, height }"
              size="large"
              :sentence="drawn ? trainSentence(solved.solved, drawn.units) : ''"
              :selected="selected"
              :column-width="columnWidth"
              :left="LEFT"
              @select="selected = $event"
              @move="(id, by) => edits.move(id, by)"
              @remove="remove"
            />
            <StationLedger
              v-if="drawn"
              :system="drawn"
              :solved="solved.solved"
              :left="LEFT"
              :column-width="columnWidth"
              :selected="selected"
              @select="selected = $event"
              @order="edits.order"
            />
          </div>
          <dl class="sheet foot">
            <div v-for="[figure, says] in foot" :key="says">
              <dt>{{ figure }}</dt>
              <dd>{{ says }}</dd>
            </div>
          </dl>
        </template>
        <div v-if="error && system.train.stages.length > 0" class="sheet panel chips">
          <h3>Stages</h3>
          <button
            v-for="s in system.train.stages"
            :key="s.id"
            type="button"
            class="button small"
            :class="{ primary: selected === s.id }"
            @click="selected = s.id"
          >
            {{ s.name }}
          </button>
        </div>
      </div>
    </main>
    <MoreWater v-model="watering" />
    <aside ref="fields" class="stack">
      <StageInspector
        v-if="stage"
        :key="stage.id"
        :stage="stage"
        :system="system"
        :report="solved"
        :first="index <= 0"
        :last="index < 0 || index === system.train.stages.length - 1"
        @change="edits.change"
        @line-pressure="(bar) => current.edit('line pressure', (s) => ({ ...s, source: { ...s.source, linePressureBar: bar } }))"
        @move="edits.move(stage.id, $event)"
        @remove="remove(stage.id)"
        @close="selected = null"
      />
      <FindingsList v-if="solved" title="What this train does" :findings="solved.findings" @mend="mend" />
      <p class="small muted">Membranes must never see chlorine or hot water. Plumbing to the mains follows your local code.</p>
    </aside>
    <section v-if="solved && input" class="panels" aria-label="More of this train">
      <ColumnPanel v-if="stage?.kind === 'resin'" :stage="stage" />
      <BypassPanel
        v-if="dial"
        :key="dial.stage.id"
        :stage="dial.stage"
        :before="dial.before"
        :litres-per-day="dial.litresPerDay"
        :goal="dial.goal"
        @change="edits.change({ ...dial.stage, ...$event }, 'dial')"
      />
      <BranchesPanel v-if="beverage" :selected="selected" @select="selected = $event" />
      <LoopPanel />
      <TunePanel v-if="skid" />
      <SeasonStrip />
      <RoutesPanel v-if="polishing" />
      <PricesPanel />
    </section>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
/* What is said of the train stands beside it, or under it where it is long; the panels come after. */
.work { grid-template-rows: auto 1fr; }
.work > main { padding-bottom: 0; }
.work > aside { grid-column: 2; grid-row: 1 / span 2; }
.panels { padding: 0 14px 28px 20px; min-width: 0; }
.is-long { grid-template-columns: minmax(0, 1fr) !important; grid-template-rows: auto auto 1fr; }
.is-long > aside { grid-column: 1; grid-row: 2; border: 1px solid var(--line); border-width: 1px 0; margin-top: 14px; padding: 14px 14px 16px 20px; }
.is-long > aside :deep(.stack) { grid-template-columns: repeat(auto-fill, minmax(290px, 1fr)); }
.is-long > aside :deep(.inspector) { max-width: 460px; }
.is-long > aside :deep(.stack > h2) { grid-column: 1 / -1; }
@media (max-width: 860px) { .panels { padding: 0 12px 24px; } }
.scroller { overflow-x: auto; }
.scroller :deep(.ledger) { border-top: 1px solid var(--line); }
.foot { display: flex; justify-content: space-between; flex-wrap: wrap; gap: 6px 18px; margin: 12px 0 0; padding: 10px 14px; }
.foot div { display: flex; gap: 6px; align-items: baseline; }
.foot dt { font-weight: 720; font-size: 15.5px; }
.foot dd { margin: 0; color: var(--muted); font-size: 13.3px; }
.chips { margin-top: 12px; display: flex; gap: 8px; flex-wrap: wrap; align-items: center; }
</style>
