<script setup lang="ts">
import { tapIsAssumed, type System } from '@yes-clear/core/file';
import { formatQuantity, listed, roundForReading, shownUnit, type Dimension, atStart } from '@yes-clear/core/quantity';
import { figureDoubts } from '@yes-clear/core/advice';
import type { SolvedTrain, Station } from '@yes-clear/core/train';
import { isHardnessAssumed, type CompletedWater, type Solute } from '@yes-clear/core/water';
import { computed, ref } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';

/** The stations in figures, each column under its stage; a column's head can be dragged to another place. */
const props = defineProps<{
  system: System;
  solved: SolvedTrain;
  /** How sure each figure of the tap is. */
  origins: CompletedWater['origins'] | null;
  /** The water as it is used, where the product is blended; null where it is used as it comes. */
  used: string | null;
  /** Names of the resins whose outlet is a first estimate yet. */
  estimated: readonly string[];
  left: number;
  columnWidth: number;
  selected: string | null;
}>();
const emit = defineEmits<{ select: [stageId: string]; order: [ids: string[]] }>();

interface Row {
  readonly label: string;
  readonly cell: (station: Station) => string;
}

const unit = (dimension: Dimension): string => shownUnit(dimension, props.system.units);
const show = (value: number, dimension: Dimension): string => formatQuantity(value, dimension, props.system.units).number;
const rows = computed<Row[]>(() => [
  { label: `Flow ${unit('flowLPerH')}`, cell: (s) => show(s.flowLPerH, 'flowLPerH') },
  { label: `Pressure ${unit('pressureBar')}`, cell: (s) => show(s.pressureBar, 'pressureBar') },
  props.system.units.strength === 'ppm'
    ? { label: 'TDS ppm', cell: (s) => marked(show(s.state.ec25UScm, 'conductivityUScm'), wholly.value) }
    : { label: 'EC µS/cm', cell: (s) => marked(roundForReading(s.state.ec25UScm), wholly.value) },
  {
    label: `Hardness ${unit('hardnessMgL').replace(' CaCO₃', '')}`,
    cell: (s) =>
      s.state.hardnessMgL < 0.2
        ? '0'
        : isAssumed('Ca') || isAssumed('Mg')
          ? `~${show(Number(s.state.hardnessMgL.toPrecision(2)), 'hardnessMgL')}`
          : show(s.state.hardnessMgL, 'hardnessMgL'),
  },
  { label: 'pH', cell: (s) => pHText(s) },
  { label: 'Silica mg/L', cell: (s) => about(s.water.mgL.SiO2, 'SiO2') },
  { label: 'Chlorine mg/L', cell: (s) => marked(small(s.water.mgL.chlorine + s.water.mgL.chloramine), isAssumed('chlorine')) },
]);
/** Nothing of the tap was measured. */
const wholly = computed(() => tapIsAssumed(props.system.source));
/** A figure that rests on an assumption stands with a tilde. */
const marked = (text: string, assumed: boolean): string => (assumed && text !== '0' ? `~${text}` : text);
/** Below what anybody measures, zero reads better than a string of noughts. */
const small = (mgL: number): string => (mgL < 0.005 ? '0' : mgL.toFixed(mgL < 10 ? 2 : 1));

/** What stands in the ledger and was not measured, in a sentence's first words. */
const unmeasured = computed(() => {
  const names = [
    ...(props.origins && isHardnessAssumed(props.origins) ? ['hardness'] : []),
    ...(props.origins?.pH === 'assumed' ? ['pH'] : []),
    ...(isAssumed('SiO2') ? ['silica'] : []),
    ...(isAssumed('chlorine') ? ['chlorine'] : []),
  ];
  const said = listed(names);
  return said === '' ? '' : `${atStart(said)} ${names.length > 1 ? 'were' : 'was'}`;
});
/** What is said of figures whose doubt is larger than their digits, each once. */
const doubts = computed(() => figureDoubts(props.solved));
const footnotes = computed(() => [
  ...(props.used ? [props.used] : []),
  ...(props.estimated.length > 0 ? [`${props.estimated.join(' and ')}: first estimate, the column is being run.`] : []),
  ...new Set(doubts.value.map(({ says }) => says)),
  ...(wholly.value
    ? ['Nothing was measured at the tap: figures with ~ follow from an assumed reading.']
    : unmeasured.value.length > 0
      ? [`${unmeasured.value} not measured at the tap: figures with ~ follow from what is usual in such a supply.`]
      : []),
]);
const isAssumed = (solute: Solute): boolean => props.origins?.[solute] === 'assumed';
/** A figure that rests on what nobody measured. */
const about = (mgL: number, solute: Solute): string => {
  const text = small(mgL);
  return isAssumed(solute) && text !== '0' ? `~${Number(mgL.toPrecision(2))}` : text;
};
/** A pH with no more digits than its doubt allows. */
function pHText({ after, state }: Station): string {
  const doubt = doubts.value.find((one) => one.after === after && one.figure === 'pH');
  return doubt ? `~${state.pH.toFixed(0)}` : marked(state.pH.toFixed(1), props.origins?.pH === 'assumed');
}

const stationOf = computed(
  () =>
    new Map(
      [...props.solved.stations, ...props.solved.branches.flatMap((branch) => branch.stations.slice(1))].map((station) => [
        station.after,
        station,
      ]),
    ),
);
/** Columns of the branches: their stages, or the use itself where it has none. */
const taken = computed(() =>
  props.system.train.branches.flatMap((branch) =>
    branch.stages.length > 0
      ? branch.stages.map((stage) => ({ id: stage.id, name: stage.name, at: stage.id }))
      : [{ id: branch.id, name: branch.name, at: branch.after }],
  ),
);
/** Every column behind the tap, and the station whose figures stand in it. */
const places = computed(() => [...props.system.train.stages.map((stage) => ({ id: stage.id, at: stage.id })), ...taken.value]);
const columns = computed(() => `${props.left}px repeat(${places.value.length + 1}, ${props.columnWidth}px)`);
const order = computed({
  get: () => props.system.train.stages.map((stage) => ({ id: stage.id, name: stage.name })),
  set: (next) =>
    emit(
      'order',
      next.map((stage) => stage.id),
    ),
});
const dragging = ref(false);
</script>

<template>
  <div class="ledger" role="table" aria-label="Stations">
    <div class="line head" role="row" :style="{ gridTemplateColumns: columns }">
      <span role="columnheader" class="name"></span>
      <span role="columnheader">Tap</span>
      <VueDraggable
        v-model="order"
        class="stages"
        :animation="150"
        :style="{ gridColumn: `3 / span ${system.train.stages.length}` }"
        @start="dragging = true"
        @end="dragging = false"
      >
        <button
          v-for="stage in order"
          :key="stage.id"
          type="button"
          role="columnheader"
          class="stage"
          :class="{ on: selected === stage.id }"
          :style="{ width: `${columnWidth}px` }"
          :title="`${stage.name}: click to open, drag to move`"
          @click="emit('select', stage.id)"
        >
          {{ stage.name }}
        </button>
      </VueDraggable>
      <button
        v-for="place in taken"
        :key="place.id"
        type="button"
        role="columnheader"
        class="stage"
        :class="{ on: selected === place.id }"
        @click="emit('select', place.id)"
      >
        {{ place.name }}
      </button>
    </div>
    <div v-for="row in rows" :key="row.label" class="line" role="row" :style="{ gridTemplateColumns: columns }">
      <span role="rowheader" class="name">{{ row.label }}</span>
      <span role="cell">{{ row.cell(solved.stations[0]!) }}</span>
      <span
        v-for="place in places"
        :key="place.id"
        role="cell"
        :class="{
          on: selected === place.id,
          none: !stationOf.has(place.at),
          zero: stationOf.has(place.at) && row.cell(stationOf.get(place.at)!) === '0',
        }"
        >{{ stationOf.has(place.at) ? row.cell(stationOf.get(place.at)!) : '–' }}</span
      >
    </div>
    <p v-for="note in footnotes" :key="note" class="footnote">{{ note }}</p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.ledger { width: max-content; min-width: 100%; }
.line { display: grid; align-items: stretch; }
.line + .line { border-top: 1px solid var(--hair); }
span, .stage { display: flex; align-items: center; justify-content: center; padding: 4.5px 2px; font-size: 14px; }
.name { justify-content: flex-start; padding-left: 14px; font-size: 13.3px; font-weight: 600; color: var(--muted); position: sticky; left: 0; background: var(--sheet); z-index: 2; }
.head span, .stage { font-weight: 680; font-size: 13.4px; min-height: 34px; }
.stages { display: flex; }
.stage { border: 0; background: transparent; color: var(--ink); font-family: inherit; cursor: grab; text-align: center; line-height: 1.15; }
.stage:hover { background: color-mix(in srgb, var(--action) 7%, transparent); }
.footnote { position: sticky; left: 0; width: max-content; max-width: 900px; padding: 5px 14px; border-top: 1px solid var(--hair); font-size: 13px; color: var(--muted); }
.on { background: var(--select); }
.zero, .none { color: var(--muted); opacity: 0.75; }
</style>
