<script setup lang="ts">
import { formatQuantity, THIN, costUnit, moneyText, words } from '@yes-clear/core/quantity';
import type { WaterOption } from '@yes-clear/core/advice';
import { computed } from 'vue';
import { useNotice } from '../../../kit/useNotice';
import { useOpenSystem } from '../../../system/openSystem';
import { useAnswer } from '../../../worker/useAnswer';
import { useTrainEdits } from '../../useTrainEdits';

/** Ways to more water, each solved whole by the same solver; one of them is carried out with a click. */
const current = useOpenSystem();
const edits = useTrainEdits(current);
const notice = useNotice();
const { answer, working } = useAnswer('moreWater', () =>
  current.system.value ? { system: current.system.value, use: current.solved.value?.use ?? {} } : null,
);
const options = computed(() => answer.value ?? []);
const most = computed(() => Math.max(...options.value.map((option) => option.productLPerDay), 1));
const currency = computed(() => current.system.value?.prices.currency ?? '');
const units = computed(() => current.units.value);
const per = computed(() => costUnit(units.value));
const perDay = (litres: number): string => formatQuantity(litres, 'volumeL', units.value).text;
const ratio = (option: WaterOption): string => (option.wasteToProduct === null ? '–' : words(units.value).ratio(option.wasteToProduct));
const passage = (option: WaterOption): string => (option.saltPassage === null ? '–' : `${(100 * option.saltPassage).toFixed(1)}${THIN}%`);
const water = (option: WaterOption): string => words(units.value).water(option.productUScm);
const index = (option: WaterOption): string => (option.wasteIndex === null ? '–' : words(units.value).index(option.wasteIndex));
function apply(option: WaterOption): void {
  const { stages } = option;
  if (!stages) return;
  edits.stages('more water', () => [...stages]);
  notice.say(`${option.label}: done. Ctrl+Z takes it back.`);
}
</script>

<template>
  <section class="more" aria-label="More water">
    <p class="muted small">Each way to more water, solved on today's tap by the same solver as the train itself.</p>
    <p v-if="options.length === 0 && working" class="muted" role="status">Working out every way…</p>
    <p v-else-if="options.length === 0" class="muted">There is no membrane here that makes water: add one first.</p>
    <div v-else class="scroll">
      <table class="figures" aria-label="Ways to more water">
        <thead>
          <tr>
            <th>Way</th>
            <th class="bar">A day</th>
            <th>Waste : product</th>
            <th>Salt passes</th>
            <th>Product</th>
            <th>Waste index</th>
            <th>Parts</th>
            <th>For {{ per.label }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="option in options" :key="option.id" :class="{ against: option.against, now: option.id === 'asItIs' }">
            <td class="way">
              <strong>{{ option.label }}</strong>
              <small v-if="option.against" class="why">{{ option.against }}</small>
              <small v-else-if="option.mind">{{ option.mind }}</small>
              <small v-if="option.parts.length > 0 && !option.against">Parts: {{ option.parts.join(', ') }}</small>
            </td>
            <template v-if="option.possible">
              <td class="bar">
                <i :style="{ width: `${(100 * option.productLPerDay) / most}%` }" /><span>{{ perDay(option.productLPerDay) }}</span>
                <small v-if="option.id !== 'asItIs'">{{ option.times.toFixed(2) }} times</small>
              </td>
              <td>{{ ratio(option) }}</td>
              <td>{{ passage(option) }}</td>
              <td>{{ water(option) }}</td>
              <td>{{ index(option) }}</td>
              <td>{{ option.partsCost > 0 ? moneyText(option.partsCost, currency) : '–' }}</td>
              <td>{{ option.costPerM3 === null ? '–' : moneyText((option.costPerM3 * per.litres) / 1000, currency) }}</td>
            </template>
            <td v-else colspan="7"></td>
            <td>
              <button v-if="option.stages && !option.against" class="button small" type="button" @click="apply(option)">Do this</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.more { display: grid; gap: 8px; grid-template-columns: minmax(0, 1fr); }
.scroll { overflow: auto; }
.more table :is(th, td) { padding: 6px 7px; }
.more th { white-space: normal !important; vertical-align: bottom; }
.way { white-space: normal !important; min-width: 200px; }
.bar small { color: var(--muted); font-size: 13px; margin-left: 6px; }
.way small { display: block; font-size: 13px; color: var(--muted); line-height: 1.3; }
.way .why { color: var(--warning); }
.bar { text-align: left !important; min-width: 132px; }
.bar i { display: block; height: 9px; background: #9db7ba; border: 1px solid #33535a; border-radius: 3px; box-sizing: border-box; }
.bar span { font-weight: 650; }
.against td { color: var(--muted); }
.now { background: var(--side); }
</style>
