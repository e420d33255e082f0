<script setup lang="ts">
import {
  type CompletedWater,
  type Origin,
  type Solute,
  BALANCE_CHARGE,
  CACO3_G_PER_EQ,
  HCO3_PER_ALKALINITY,
  MOLAR_MASS,
} from '@yes-clear/core/water';
import { withDoubt } from '@yes-clear/core/quantity';
import { computed } from 'vue';

/** Cations to the left, anions to the right, in meq/L on one scale; how sure each is shows in its fill. */
const props = defineProps<{ completed: CompletedWater }>();

interface Bar {
  readonly label: string;
  readonly meq: number;
  readonly mgL: number;
  readonly plusMinus: number;
  readonly origin: Origin;
}
const NAMES: readonly (readonly [Solute, string])[] = [
  ['Ca', 'Calcium'],
  ['Mg', 'Magnesium'],
  ['Na', 'Sodium'],
  ['K', 'Potassium'],
  ['NH4N', 'Ammonium'],
  ['Sr', 'Strontium'],
  ['Cl', 'Chloride'],
  ['SO4', 'Sulfate'],
  ['NO3', 'Nitrate'],
  ['F', 'Fluoride'],
];
const bars = computed(() => {
  const { water, origins, plusMinusMgL } = props.completed;
  const of = (sign: 1 | -1): Bar[] =>
    NAMES.filter(([solute]) => sign * BALANCE_CHARGE[solute] > 0)
      .map(([solute, label]) => ({
        label,
        meq: (sign * BALANCE_CHARGE[solute] * water.mgL[solute]) / MOLAR_MASS[solute],
        mgL: water.mgL[solute],
        plusMinus: plusMinusMgL[solute],
        origin: origins[solute],
      }))
      .filter((bar) => bar.meq > 0.0005);
  const bicarbonate: Bar = {
    label: 'Bicarbonate',
    meq: Math.max(0, water.alkalinityMgL / CACO3_G_PER_EQ),
    mgL: Math.max(0, water.alkalinityMgL) * HCO3_PER_ALKALINITY,
    plusMinus: plusMinusMgL.alkalinity * HCO3_PER_ALKALINITY,
    origin: origins.alkalinity,
  };
  return { cation: of(1), anion: [bicarbonate, ...of(-1)] };
});
const most = computed(() => Math.max(...bars.value.cation.map((b) => b.meq), ...bars.value.anion.map((b) => b.meq), 1e-6));
const rows = computed(() =>
  Array.from(
    { length: Math.max(bars.value.cation.length, bars.value.anion.length) },
    (_, i) => [bars.value.cation[i], bars.value.anion[i]] as const,
  ),
);
const sums = computed(
  () => [bars.value.cation, bars.value.anion].map((side) => side.reduce((sum, bar) => sum + bar.meq, 0)) as [number, number],
);
const width = (bar: Bar): string => `${Math.max(0.6, (100 * bar.meq) / most.value)}%`;
const figure = (value: number): string => (value >= 100 ? value.toFixed(0) : value >= 1 ? value.toFixed(1) : value.toFixed(2));
const SAYS: Record<Origin, string> = {
  measured: 'measured',
  derived: 'follows from what was measured',
  assumed: 'assumed from the kind of supply',
};
</script>

<template>
  <figure class="bars" aria-label="Composition in milliequivalents per litre">
    <div class="heads">
      <strong
        >Cations <span>{{ sums[0].toFixed(2) }} meq/L</span></strong
      ><strong
        >Anions <span>{{ sums[1].toFixed(2) }} meq/L</span></strong
      >
    </div>
    <div v-for="(pair, i) in rows" :key="i" class="pair">
      <div v-for="(bar, side) in pair" :key="side" class="half" :class="side === 0 ? 'left' : 'right'">
        <template v-if="bar">
          <span class="label"
            >{{ bar.label }}<small>{{ bar.plusMinus > 0 ? withDoubt(bar.mgL, bar.plusMinus) : figure(bar.mgL) }} mg/L</small></span
          >
          <span class="space"
            ><i
              :class="bar.origin"
              :style="{ width: width(bar) }"
              :title="`${bar.label} ${bar.meq.toFixed(2)} meq/L, ${SAYS[bar.origin]}`"
            /><em>{{ bar.meq.toFixed(2) }}</em></span
          >
        </template>
      </div>
    </div>
    <figcaption>
      <span v-for="(says, origin) in SAYS" :key="origin"><i :class="origin" />{{ says }}</span>
    </figcaption>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.bars { margin: 0; display: grid; gap: 5px; }
.heads { display: grid; grid-template-columns: 1fr 1fr; font-size: 14px; padding-bottom: 4px; }
.heads strong:first-child { text-align: right; padding-right: 10px; }
.heads strong:last-child { padding-left: 10px; }
.heads span { font-weight: 450; color: var(--muted); }
.pair { display: grid; grid-template-columns: 1fr 1fr; }
.half { display: grid; grid-template-columns: 128px 1fr; align-items: center; gap: 8px; min-height: 27px; padding: 0 8px; }
.half.left { border-right: 1.5px solid var(--ink); }
.half.right { grid-template-columns: 1fr 132px; }
.half.right .label { order: 2; }
.label { display: grid; font-size: 13.6px; font-weight: 600; line-height: 1.15; }
.label small { font-size: 13px; font-weight: 450; color: var(--muted); }
.space { display: flex; align-items: center; gap: 6px; min-width: 0; }
.left .space { flex-direction: row-reverse; }
.space i { height: 18px; }
.space em { font-style: normal; font-size: 13px; color: var(--muted); }
.left i { margin-right: -8px; border-right-width: 0 !important; }
.right i { margin-left: -8px; border-left-width: 0 !important; }
i { display: inline-block; box-sizing: border-box; border: 1.5px solid #33535a; }
i.measured { background: #33535a; }
i.derived { background: repeating-linear-gradient(135deg, #33535a 0 3px, #b9cbcb 3px 7px); }
i.assumed { background: color-mix(in srgb, #b9cbcb 40%, var(--sheet)); border-style: dashed; border-color: #6c8587; }
figcaption { display: flex; flex-wrap: wrap; gap: 4px 16px; font-size: 13px; color: var(--muted); padding-top: 8px; justify-content: center; }
figcaption i { width: 20px; height: 11px; margin-right: 6px; }
:root[data-theme='dark'] i { border-color: #9db7ba; }
:root[data-theme='dark'] i.measured { background: #9db7ba; }
@media (max-width: 600px) { .half, .half.right { grid-template-columns: 1fr; gap: 0; padding: 2px 8px; } .half.right .label { order: 0; } .left .label { text-align: right; } }
</style>
