<script setup lang="ts">
import { formatQuantity, roundForReading, type UnitPreference } from '@yes-clear/core/quantity';
import {
  calciteState,
  HARDNESS_PER_MG,
  langelierByHand,
  percentOfSaturation,
  ryznarIndex,
  saturation,
  settleWater,
  actedCalciteIndex,
  type Mineral,
  type Water,
} from '@yes-clear/core/water';
import { computed } from 'vue';

/** How near this water is to dropping lime as it is warmed in a closed vessel, and how near to the other scales. */
const props = defineProps<{ water: Water; units: UnitPreference; /** Lime or alkalinity were not measured. */ assumed: boolean }>();
/** From assumed ions an index is known to a tenth at best. */
const signed = (value: number): string => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(props.assumed ? 1 : 2)}`;

const two = (value: number): number => (props.assumed ? Number(value.toPrecision(2)) : value);

const columns = computed(() =>
  [...new Set([props.water.temperatureC, 60, 95, 125])].map((t) => {
    const state = calciteState(props.water, t);
    return { t, title: formatQuantity(t, 'temperatureC', props.units).text, state: state.ok ? state.value : null };
  }),
);
const rows = computed(() => [
  { label: 'Calcite index', cells: columns.value.map(({ state }) => (state ? signed(state.saturationIndex) : '–')) },
  {
    label: 'Lime that would fall, mg/L',
    cells: columns.value.map(({ state }) => (state ? roundForReading(two(Math.max(0, state.precipitationMgL))) : '–')),
  },
  { label: 'pH in a closed vessel', cells: columns.value.map(({ state }) => (state ? state.pH.toFixed(props.assumed ? 1 : 2) : '–')) },
]);
/** Other scales as it comes, in per cent of saturation; what is not in the water is not listed. */
const others = computed(() => {
  const indices = saturation(props.water, props.water.temperatureC);
  if (!indices.ok) return [];
  const names: readonly (readonly [Mineral, string])[] = [
    ['gypsum', 'Gypsum'],
    ['barite', 'Barite'],
    ['celestite', 'Celestite'],
    ['fluorite', 'Fluorite'],
    ['silica', 'Silica'],
  ];
  return names.flatMap(([mineral, label]) => {
    const index = indices.value[mineral];
    return index === null ? [] : [{ label, text: `${roundForReading(percentOfSaturation(index))}\u202f%` }];
  });
});
/** The indices people know from hand sums. */
const indices = computed(() => {
  const { water } = props;
  const state = settleWater(water);
  const here = columns.value[0]?.state;
  if (!state.ok || !here) return [];
  const byHand = langelierByHand({
    pH: state.value.pH,
    tdsMgL: state.value.tdsMgL,
    temperatureC: water.temperatureC,
    calciumHardnessMgL: water.mgL.Ca * HARDNESS_PER_MG.Ca,
    alkalinityMgL: water.alkalinityMgL,
  });
  const acted = actedCalciteIndex(water, water.temperatureC);
  return [
    { label: 'Ryznar', text: ryznarIndex(here.pH, here.saturationIndex).toFixed(1) },
    ...(byHand.ok ? [{ label: 'Langelier by hand', text: signed(byHand.value) }] : []),
    ...(acted.ok && Math.abs(acted.value - here.saturationIndex) > 0.005
      ? [{ label: 'Index acted on, by the constants of the sea', text: signed(acted.value) }]
      : []),
  ];
});
</script>

<template>
  <div class="scroll">
    <table class="figures">
      <thead>
        <tr>
          <th>Lime, as it is warmed{{ assumed ? ', from assumed ions' : '' }}</th>
          <th v-for="(column, i) in columns" :key="column.t">{{ i === 0 ? `as it comes, ${column.title}` : column.title }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.label">
          <td>{{ row.label }}</td>
          <td v-for="(cell, i) in row.cells" :key="i">{{ assumed && cell !== '–' ? `~${cell}` : cell }}</td>
        </tr>
      </tbody>
    </table>
    <p class="others">
      <span v-for="one in others" :key="one.label"
        >{{ one.label }} <b>{{ assumed ? '~' : '' }}{{ one.text }}</b> of saturation</span
      >
      <span v-for="one in indices" :key="one.label"
        >{{ one.label }} <b>{{ assumed ? '~' : '' }}{{ one.text }}</b></span
      >
    </p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroll { overflow-x: auto; }
th:first-child { font-size: 14px; }
.others { display: flex; flex-wrap: wrap; gap: 4px 22px; padding: 9px 14px; border-top: 1px solid var(--hair); font-size: 13.6px; color: var(--muted); }
.others b { color: var(--ink); font-weight: 650; }
</style>
