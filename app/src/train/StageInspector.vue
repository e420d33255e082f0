<script setup lang="ts">
import type { Source, Stage, System } from '@yes-clear/core/file';
import type { TrainReport } from '@yes-clear/core/train';
import { computed } from 'vue';
import DayField from '../kit/DayField.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import { stageFacts } from './stageFacts';
import type { QuantitySpec } from './fieldSpec';
import { stageFields } from './stageFields';

/** The fields of the selected stage, and the few figures that belong to it alone. */
const props = defineProps<{ stage: Stage; system: System; report: TrainReport | null; first: boolean; last: boolean }>();
const emit = defineEmits<{
  change: [changes: Partial<Stage>];
  source: [changes: Partial<Source>];
  move: [by: number];
  remove: [];
  close: [];
}>();

const ahead = computed(() => {
  const { stages } = props.system.train;
  return stages.slice(
    0,
    Math.max(
      0,
      stages.findIndex(({ id }) => id === props.stage.id),
    ),
  );
});
const fields = computed(() => stageFields(props.stage, props.system.source, props.report?.solved.unit ?? null, ahead.value));
const plain = computed(() => fields.value.quantities.filter((spec) => !spec.advanced));
const advanced = computed(() => fields.value.quantities.filter((spec) => spec.advanced));
const facts = computed(() => (props.report ? stageFacts(props.stage, props.report, props.system.units) : []));
const set = (changes: object): void => emit('change', changes as Partial<Stage>);
function write(spec: QuantitySpec, value: number | null): void {
  const change: ReturnType<QuantitySpec['change']> | undefined = value === null ? spec.optional?.clear : spec.change(value);
  if (!change) return;
  if ('source' in change) emit('source', change.source);
  else emit('change', change.stage);
}
/** What the field needs of a spec. */
const look = ({ label, dimension, unit, low, high, optional }: QuantitySpec) => ({
  label,
  dimension,
  unit,
  low,
  high,
  optional: Boolean(optional),
  empty: optional?.empty,
});
/** What the folded fields are about. */
const FOLDED: Partial<Record<Stage['kind'], string>> = { membrane: 'Recycle, bypass, ageing', tank: 'Float' };
</script>

<template>
  <section class="sheet inspector" :aria-label="stage.name">
    <div class="head">
      <NameField
        class="title"
        label="Name of the stage"
        :maxlength="40"
        :model-value="stage.name"
        @update:model-value="set({ name: $event })"
      />
      <button class="button small plain" type="button" @click="emit('close')">Close</button>
    </div>
    <div class="fields">
      <v-select
        v-for="spec in fields.choices"
        :key="spec.label"
        :items="spec.items"
        :model-value="spec.value"
        :aria-label="spec.label"
        @update:model-value="set(spec.change($event))"
      />
      <QuantityField
        v-for="spec in plain"
        :key="spec.label"
        look="row"
        v-bind="look(spec)"
        :units="system.units"
        :model-value="spec.value"
        @update:model-value="write(spec, $event)"
      />
      <details v-if="advanced.length > 0">
        <summary>{{ FOLDED[stage.kind] ?? 'More' }}</summary>
        <QuantityField
          v-for="spec in advanced"
          :key="spec.label"
          look="row"
          v-bind="look(spec)"
          :units="system.units"
          :model-value="spec.value"
          @update:model-value="write(spec, $event)"
        />
      </details>
      <DayField
        v-if="'fittedOn' in stage"
        class="date"
        label="Fitted on"
        optional
        :model-value="stage.fittedOn"
        @update:model-value="set({ fittedOn: $event })"
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
.facts { display: grid; grid-template-columns: 1fr auto; gap: 4px 10px; margin: 10px 0 0; padding-top: 9px; border-top: 1px solid var(--hair); font-size: 13.4px; }
dt { color: var(--muted); }
dd { margin: 0; text-align: right; font-weight: 600; }
.actions { display: flex; gap: 6px; margin-top: 12px; flex-wrap: wrap; }
</style>
