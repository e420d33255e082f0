<script setup lang="ts">
import { COST_WORDS, perM3, RUNNING_COSTS, type CostLine } from '@yes-clear/core/ledger';
import { costUnit, inSentence, moneyText } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { useCountVisits } from '../../../kit/useCountVisits';
import { hasKind } from '../../lens';
import { useWorkbench } from '../../useWorkbench';
import PricesPanel from './PricesPanel.vue';
import RoutesPanel from './RoutesPanel.vue';

/** What the water costs, what that is made of, and whether resin alone would be cheaper. */
const { drawn, report } = useWorkbench();
const polishing = computed(() => drawn.value !== null && hasKind('resin')(drawn.value));
const per = computed(() => (drawn.value ? costUnit(drawn.value.units) : null));
const countVisits = useCountVisits();
const ledger = computed(() => report.value?.ledger ?? null);
const currency = computed(() => drawn.value?.prices.currency ?? '');
const money = (perYear: number): string =>
  ledger.value ? moneyText((perM3(perYear, ledger.value) * (per.value?.litres ?? 1000)) / 1000, currency.value) : '';
const lines = computed((): readonly CostLine[] =>
  (countVisits.value ? ([...RUNNING_COSTS, 'visits'] as const) : RUNNING_COSTS).filter((line) => (ledger.value?.lines[line] ?? 0) > 0),
);
const total = computed(() => (ledger.value ? ledger.value.running + (countVisits.value ? ledger.value.visits : 0) : 0));
</script>

<template>
  <div v-if="drawn" class="costs">
    <section v-if="ledger && per && total > 0" class="panel made" aria-label="What it costs">
      <h3>{{ per.label }} of product</h3>
      <p class="total">{{ money(total) }}</p>
      <div class="bar" aria-hidden="true">
        <i v-for="line in lines" :key="line" :class="line" :style="{ width: `${(100 * ledger.lines[line]!) / total}%` }" />
      </div>
      <p class="year">{{ moneyText(total, currency) }} a year</p>
      <ul>
        <li v-for="line in lines" :key="line">
          <i :class="line" /> {{ inSentence(COST_WORDS[line]) }} <strong>{{ money(ledger.lines[line]!) }}</strong>
        </li>
      </ul>
      <label v-if="ledger.visits > 0" class="visits">
        <input v-model="countVisits" type="checkbox" /> count visits, {{ ledger.visitsPerYear.toFixed(1) }} a year at
        {{ moneyText(ledger.visits / ledger.visitsPerYear, currency) }}
      </label>
    </section>
    <PricesPanel />
    <RoutesPanel v-if="polishing" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.made { display: grid; grid-template-columns: auto auto minmax(80px, 1fr) auto; gap: 4px 14px; align-items: baseline; }
.total { font-weight: 720; font-size: 15.5px; }
.year { color: var(--muted); font-size: 13.6px; }
.bar { display: flex; height: 12px; border: 1px solid var(--ink); border-radius: 4px; overflow: hidden; }
.bar i { border-right: 1px solid var(--ink); }
.bar i:last-child { border-right: 0; }
ul { grid-column: 1 / -1; list-style: none; display: flex; gap: 2px 16px; margin: 0; padding: 0; flex-wrap: wrap; font-size: 13.6px; color: var(--muted); }
.visits { grid-column: 1 / -1; font-size: 13.6px; color: var(--muted); display: flex; align-items: center; gap: 6px; min-height: 32px; }
.visits input { accent-color: var(--action); width: 18px; height: 18px; }
li strong { color: var(--ink); }
li i { display: inline-block; width: 10px; height: 10px; border: 1px solid var(--ink); border-radius: 2px; }
@media (max-width: 860px) { .made { grid-template-columns: 1fr auto; } .bar, .year { grid-column: 1 / -1; } }
</style>

<style scoped src="./lines.css"></style>
