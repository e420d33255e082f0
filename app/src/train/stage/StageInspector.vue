<script setup lang="ts">
import { aroundOf, stageFacts, type TrainReport } from '@yes-clear/core/advice';
import type { System } from '@yes-clear/core/file';
import { kindOf, type FieldWrite, type Stage, type StageQuantity } from '@yes-clear/core/stage';
import { computed } from 'vue';
import DayField from '../../kit/DayField.vue';
import NameField from '../../kit/NameField.vue';
import QuantityField from '../../kit/QuantityField.vue';
import { changeOf, fieldOf } from '../stageField';

/** The fields of the selected stage, and the few figures that belong to it alone. */
const props = defineProps<{ stage: Stage; system: System; report: TrainReport | null; first: boolean; last: boolean }>();
const emit = defineEmits<{
  /** The stage as it then is, and what was changed of it. */
  change: [stage: Stage, what: string];
  linePressure: [bar: number];
  move: [by: number];
  remove: [];
  close: [];
}>();

const kind = computed(() => kindOf(props.stage));
const fields = computed(() => kind.value.fields(props.stage, aroundOf(props.stage, props.system, props.report)));
const plain = computed(() => fields.value.quantities.filter((asked) => !asked.folded));
/** What is folded away, heading by heading. */
const folds = computed(() => {
  const headingOf = (of: boolean | string | undefined): string => (typeof of === 'string' ? of : kind.value.folded);
  const away = fields.value.quantities.filter((asked) => asked.folded);
  const texts = fields.value.texts ?? [];
  const titles = [...new Set([...texts, ...away].map(({ folded }) => headingOf(folded)))];
  return titles.map((title) => ({
    title,
    texts: texts.filter(({ folded }) => folded === title),
    quantities: away.filter(({ folded }) => headingOf(folded) === title),
  }));
});
const facts = computed(() => (props.report ? stageFacts(props.stage, props.report, props.system.units) : []));
function write(what: string, change: FieldWrite<Stage> | undefined): void {
  if (!change) return;
  if ('stage' in change) emit('change', change.stage, what);
  else emit('linePressure', change.linePressureBar);
}
const typed = (asked: StageQuantity<Stage>, value: number | null): void => write(asked.label, changeOf(asked, value));
</script>

<template>
  <section class="sheet inspector" :aria-label="stage.name">
    <div class="head">
      <NameField
        class="title"
        label="Name of the stage"
        :maxlength="40"
        :model-value="stage.name"
        @update:model-value="emit('change', { ...stage, name: $event }, 'name')"
      />
      <button class="button small plain" type="button" @click="emit('close')">Close</button>
    </div>
    <div class="fields">
      <v-select
        v-for="asked in fields.choices"
        :key="asked.label"
        :items="asked.items"
        :model-value="asked.value"
        :aria-label="asked.label"
        @update:model-value="write(asked.label, asked.write($event))"
      />
      <QuantityField
        v-for="asked in plain"
        :key="asked.label"
        look="row"
        v-bind="fieldOf(asked)"
        :units="system.units"
        :model-value="asked.value"
        @confirm="typed(asked, asked.value)"
        @update:model-value="typed(asked, $event)"
      />
      <details v-for="fold in folds" :key="fold.title">
        <summary>{{ fold.title }}</summary>
        <label v-for="asked in fold.texts" :key="asked.label" class="date"
          ><span>{{ asked.label }}</span
          ><NameField
            class="words"
            :label="asked.label"
            :maxlength="80"
            may-be-empty
            :model-value="asked.value"
            @update:model-value="write(asked.label, asked.write($event))"
        /></label>
        <QuantityField
          v-for="asked in fold.quantities"
          :key="asked.label"
          look="row"
          v-bind="fieldOf(asked)"
          :units="system.units"
          :model-value="asked.value"
          @confirm="typed(asked, asked.value)"
          @update:model-value="typed(asked, $event)"
        />
      </details>
      <DayField
        v-if="'fittedOn' in stage"
        class="date"
        label="Fitted on"
        optional
        :model-value="stage.fittedOn"
        @update:model-value="emit('change', { ...stage, fittedOn: $event }, 'fitted')"
      />
    </div>
    <dl v-if="facts.length > 0" class="facts">
      <template v-for="[name, figure] in facts" :key="name">
        <dt>{{ name }}</dt>
        <dd>{{ figure }}</dd>
      </template>
    </dl>
    <div class="actions">
      <button class="button small" type="button" :disabled="first" aria-label="Move one place towards the tap" @click="emit('move', -1)">
        ← Earlier
      </button>
      <button class="button small" type="button" :disabled="last" aria-label="Move one place away from the tap" @click="emit('move', 1)">
        Later →
      </button>
      <button class="button small danger" type="button" @click="emit('remove')">Remove</button>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.inspector { padding: 10px 12px 12px; }
.head { display: flex; justify-content: space-between; align-items: center; gap: 8px; margin-bottom: 8px; }
.title { flex: 1; min-width: 0; font: 700 15px var(--digits); border: 1px solid transparent; background: transparent; color: var(--ink); border-radius: 7px; padding: 3px 6px; margin-left: -6px; }
.title:hover, .title:focus { border-color: var(--line); outline: none; background: var(--sheet); }
.fields { display: grid; gap: 6px; }
details summary { cursor: pointer; color: var(--muted); font-size: 13.3px; font-weight: 600; padding: 3px 0; }
details .quantity { margin-top: 5px; }
.date { display: grid; grid-template-columns: minmax(0, 1fr) 132px; align-items: center; font-size: 13.6px; color: var(--muted); }
.date :deep(input) { font: 500 13px var(--digits); border: 1px solid var(--line); border-radius: 8px; background: var(--sheet); color: var(--ink); min-height: 30px; padding: 0 6px; width: 100%; }

.words { box-sizing: border-box; min-width: 0; font: 500 13px var(--digits); border: 1px solid var(--line); border-radius: 8px; background: var(--sheet); color: var(--ink); min-height: 30px; padding: 0 6px; width: 100%; }
.facts { display: grid; grid-template-columns: 1fr auto; gap: 4px 10px; margin: 10px 0 0; padding-top: 9px; border-top: 1px solid var(--hair); font-size: 13.4px; }
dt { color: var(--muted); }
dd { margin: 0; text-align: right; font-weight: 600; }
.actions { display: flex; gap: 6px; margin-top: 12px; flex-wrap: wrap; }
</style>
