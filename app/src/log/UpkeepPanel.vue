<script setup lang="ts">
import { stoodBefore, systemSchema, undatedStages, withFittedOn, type Task } from '@yes-clear/core/file';
import { dueOf, serviced, upkeepRows, type UpkeepRow } from '@yes-clear/core/log';
import { inSentence, words } from '@yes-clear/core/quantity';
import { computed, shallowRef } from 'vue';
import DayField from '../kit/DayField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { useOpenSystem } from '../system/openSystem';
import { longDayOfYear } from '../time/dates';
import { newId } from '../store/newId';
import RuleEditor from './RuleEditor.vue';
import TaskEditor from './TaskEditor.vue';

/** What is due on this system, when and why then; each date's rule can be set otherwise, with a reason. */
const current = useOpenSystem();
const { system, solved, now } = current;
/** Parts nobody dated on a system that runs: asked for here, for without a day nothing of them falls due. */
const undated = computed(() => {
  const one = system.value;
  return one && (stoodBefore(one) || one.build.commissioned || current.readings.value.length > 0) ? undatedStages(one) : [];
});
function fitted(id: string, day: string | null): void {
  if (day !== null) current.edit(`stage ${id} fitted`, (s) => withFittedOn(s, id, day));
}
const setOrderDays = (days: number | null): void =>
  current.edit('days to order', (s) => ({ ...s, orderDays: days === null ? null : Math.round(days) }));
const editing = shallowRef<UpkeepRow | null>(null);
const tasking = shallowRef<Task | 'new' | null>(null);
const atUse = computed(() => (system.value?.tasks ?? []).filter(({ everyDays }) => everyDays === null));
function taskDone(task: Task): void {
  const done = {
    id: newId(),
    at: new Date().toISOString(),
    stageId: task.stageId,
    instrumentId: null,
    taskId: task.id,
    work: 'task',
    why: 'due',
    note: '',
  } as const;
  current.edit('task done', (s) => serviced(s, done, solved.value?.use ?? {}));
}
const due = computed(() => {
  const [current, today] = [system.value, solved.value];
  if (!current || !today) return [];
  return dueOf(current, today, now.value).sort((a, b) => (a.at < b.at ? -1 : 1));
});
const rows = computed(() => (system.value && solved.value ? upkeepRows(system.value, solved.value.report) : []));
/** What a rule says, in words: every 182 days, or after 12,000 L. */
function ruleSays({ days, litres, rule }: UpkeepRow): string {
  const [d, l] = rule ? [rule.days, rule.litres] : [days, litres];
  const volume = l === null || !system.value ? '' : words(system.value.units).about(l, 'volumeL');
  const parts = [d === null ? '' : `${Math.round(d)} days`, volume].filter((one) => one !== '');
  return parts.length === 0 ? 'by what is read' : `after ${parts.join(' or ')}`;
}
const list = computed(() =>
  due.value.map((item) => ({
    item,
    row: rows.value.find(({ dueId }) => dueId === item.id) ?? null,
    task: system.value?.tasks.find(({ id }) => `task-${id}` === item.id) ?? null,
    late: item.at < now.value,
  })),
);
</script>

<template>
  <section v-if="system" class="sheet panel upkeep" aria-label="Upkeep">
    <div class="head">
      <h2>Upkeep</h2>
      <button type="button" class="button small" @click="tasking = 'new'">Add a task</button>
    </div>
    <QuantityField
      class="order"
      label="Days from ordering parts to having them"
      dimension="count"
      optional
      empty="not said"
      :of="systemSchema.shape.orderDays"
      :units="system.units"
      :model-value="system.orderDays"
      @update:model-value="setOrderDays"
    />
    <ul v-if="undated.length > 0" class="ask" aria-label="Days that are not known">
      <li v-for="stage in undated" :key="stage.id">
        <DayField
          class="since"
          :label="`Since when is ${inSentence(stage.name)} in? Not known.`"
          optional
          :model-value="null"
          @update:model-value="fitted(stage.id, $event)"
        />
      </li>
    </ul>
    <ul>
      <li v-for="{ item, row, task, late } in list" :key="item.id">
        <span class="when" :class="{ late }">{{ longDayOfYear(item.at) }}</span>
        <span class="what"
          ><strong>{{ item.what }}</strong
          ><small
            >{{ item.because
            }}<template v-if="item.orderBy"
              >; <b :class="{ late: item.orderBy < now }">order by {{ longDayOfYear(item.orderBy) }}</b></template
            ></small
          ></span
        >
        <button
          v-if="row"
          type="button"
          class="button small plain"
          :aria-label="`Rule for ${row.says} ${inSentence(row.name)}: ${ruleSays(row)}`"
          @click="editing = row"
        >
          {{ ruleSays(row) }}
        </button>
        <span v-else-if="task" class="own">
          <button type="button" class="button small" :aria-label="`${item.what} is done`" @click="taskDone(task)">Done</button>
          <button type="button" class="button small plain" :aria-label="`Change the task ${item.what}`" @click="tasking = task">
            Change
          </button>
        </span>
      </li>
    </ul>
    <ul v-if="atUse.length > 0" aria-label="At every use">
      <li v-for="task in atUse" :key="task.id">
        <span class="when">at every use</span
        ><span class="what"
          ><strong>{{ task.says }}</strong></span
        >
        <button type="button" class="button small plain" :aria-label="`Change the task ${task.says}`" @click="tasking = task">
          Change
        </button>
      </li>
    </ul>
    <TaskEditor v-if="tasking !== null" :task="tasking === 'new' ? null : tasking" @close="tasking = null" />
    <RuleEditor v-if="editing" :row="editing" @close="editing = null" />
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.upkeep { display: grid; gap: 6px; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: 150px minmax(0, 1fr) auto; gap: 4px 14px; align-items: baseline; padding: 6px 0; border-top: 1px solid var(--line); }
li:first-child { border-top: 0; }

.ask { border-left: 4px solid var(--warning); padding-left: 12px; }
.ask li { display: block; }
.since { display: grid; grid-template-columns: minmax(0, 1fr) 170px; gap: 10px; align-items: center; }
.order { max-width: 420px; }
.head { display: flex; justify-content: space-between; align-items: center; gap: 10px; }
.own { display: flex; gap: 6px; }
.when { font-variant-numeric: tabular-nums; }
.late { color: var(--bad); font-weight: 650; }
.what strong { display: block; font-weight: 600; }
.what strong::first-letter { text-transform: uppercase; }
small { color: var(--muted); font-size: 13.3px; }
@media (max-width: 860px) { li { grid-template-columns: 1fr auto; } .what { grid-row: 2; grid-column: 1 / -1; } .button { min-height: 42px; } }
</style>
