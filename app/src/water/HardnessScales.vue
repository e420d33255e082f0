<script setup lang="ts">
import { GOAL_ROWS } from '@yes-clear/core/goal';
import { formatIn, type HardnessUnit } from '@yes-clear/core/quantity';
import { HARDNESS_SCALES, hardnessParts, hardnessWord, type HardnessSchool } from '@yes-clear/core/water';
import { computed } from 'vue';
import { useOpenSystem } from '../system/openSystem';

/** One hardness in every scale it may be asked for in. */
const props = defineProps<{
  hardnessMgL: number;
  alkalinityMgL: number;
  /** Which of the two nobody measured. */ assumed: { hardness: boolean; alkalinity: boolean };
}>();
const SCALES = ['mg/L CaCO₃', '°dH', 'gpg', '°fH', '°e', 'mmol/L'];
const kinds = computed(() => {
  const { temporary, permanent } = hardnessParts(props.hardnessMgL, props.alkalinityMgL);
  return [
    { label: 'Total hardness', value: props.hardnessMgL, assumed: props.assumed.hardness },
    { label: 'Temporary, goes with boiling', value: temporary, assumed: props.assumed.hardness || props.assumed.alkalinity },
    { label: 'Permanent', value: permanent, assumed: props.assumed.hardness || props.assumed.alkalinity },
    { label: 'Alkalinity', value: props.alkalinityMgL, assumed: props.assumed.alkalinity },
  ];
});
const current = useOpenSystem();
const school = computed<HardnessSchool>(() =>
  current.system.value && GOAL_ROWS[current.system.value.goal.id].family === 'beverage' ? 'beverage' : 'usgs',
);
const word = computed(() => {
  const said = hardnessWord(props.hardnessMgL, school.value);
  return said[0]!.toUpperCase() + said.slice(1);
});
const shown = computed(() => current.units.value.hardness);
/** Two digits are all an assumed figure has. */
const figure = ({ value, assumed }: { value: number; assumed: boolean }, scale: string): string =>
  assumed ? `~${formatIn(Number(value.toPrecision(2)), 'hardnessMgL', scale).number}` : formatIn(value, 'hardnessMgL', scale).number;
const show = (hardness: HardnessUnit): void => current.edit('hardness unit', (s) => ({ ...s, units: { ...s.units, hardness } }));
/** Scales the whole app can be set to; the others are for looking up. */
const SHOWN_IN: readonly string[] = ['mg/L CaCO₃', '°dH', 'gpg', '°fH'];
</script>

<template>
  <div class="scroll">
    <table class="figures">
      <thead>
        <tr>
          <th>{{ word }} on the {{ HARDNESS_SCALES[school] }}</th>
          <th v-for="scale in SCALES" :key="scale">
            <button
              v-if="SHOWN_IN.includes(scale)"
              type="button"
              class="scale"
              :aria-pressed="scale === shown"
              :title="`Show hardness in ${scale} everywhere`"
              @click="show(scale as HardnessUnit)"
            >
              {{ scale }}
            </button>
            <template v-else>{{ scale }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in kinds" :key="kind.label">
          <td>{{ kind.label }}{{ kind.assumed ? ', assumed' : '' }}</td>
          <td v-for="scale in SCALES" :key="scale">{{ figure(kind, scale) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroll { overflow-x: auto; }
th:first-child { font-size: 14px; }
.scale { border: 1px solid var(--line); border-radius: 7px; background: transparent; color: inherit; font: inherit; padding: 2px 8px; cursor: pointer; }
.scale[aria-pressed='true'] { background: var(--action); border-color: var(--action); color: var(--on-action); }
</style>
