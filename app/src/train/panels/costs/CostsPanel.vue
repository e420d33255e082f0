<script setup lang="ts">
import { costUnit, moneyText } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { hasKind } from '../../lens';
import { useWorkbench } from '../../useWorkbench';
import PricesPanel from './PricesPanel.vue';
import RoutesPanel from './RoutesPanel.vue';

/** What the water costs, what that is made of, and whether resin alone would be cheaper. */
const { drawn, report } = useWorkbench();
const polishing = computed(() => drawn.value !== null && hasKind('resin')(drawn.value));
const per = computed(() => (drawn.value ? costUnit(drawn.value.units) : null));
const NAMES = {
  water: 'water',
  sewer: 'sewer',
  power: 'power',
  resin: 'resin',
  parts: 'cartridges and salt',
  unit: 'the membrane unit',
} as const;
type Part = keyof typeof NAMES;
const cost = computed(() => report.value?.cost ?? null);
const money = (amountPerM3: number): string =>
  moneyText((amountPerM3 * (per.value?.litres ?? 1000)) / 1000, drawn.value?.prices.currency ?? '');
const parts = computed(() => (Object.keys(NAMES) as Part[]).filter((part) => (cost.value?.[part] ?? 0) > 0));
</script>

<template>
  <div v-if="drawn" class="costs">
    <section v-if="cost && per" class="panel made" aria-label="What it costs">
      <h3>{{ per.label }} of product</h3>
      <p class="total">{{ money(cost.total) }}</p>
      <div class="bar" aria-hidden="true">
        <i v-for="part in parts" :key="part" :class="part" :style="{ width: `${(100 * cost[part]) / cost.total}%` }" />
      </div>
      <ul>
        <li v-for="part in parts" :key="part">
          <i :class="part" /> {{ NAMES[part] }} <strong>{{ money(cost[part]) }}</strong>
        </li>
      </ul>
    </section>
    <PricesPanel />
    <RoutesPanel v-if="polishing" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.made { display: grid; grid-template-columns: auto auto minmax(80px, 1fr) auto; gap: 4px 14px; align-items: baseline; }
.total { font-weight: 720; font-size: 15.5px; }
.bar { display: flex; height: 12px; border: 1px solid var(--ink); border-radius: 4px; overflow: hidden; }
.bar i { border-right: 1px solid var(--ink); }
.bar i:last-child { border-right: 0; }
ul { list-style: none; display: flex; gap: 2px 16px; margin: 0; padding: 0; flex-wrap: wrap; font-size: 13.6px; color: var(--muted); }
li strong { color: var(--ink); }
li i { display: inline-block; width: 10px; height: 10px; border: 1px solid var(--ink); border-radius: 2px; }
i.water { background: #9db7ba; }
i.sewer { background: #c9bfa8; }
i.power { background: #e3c15f; }
i.resin { background: var(--resin-fresh); }
i.parts { background: #8fa98a; }
i.unit { background: #cdb8c9; }
@media (max-width: 860px) { .made { grid-template-columns: 1fr auto; } .bar, ul { grid-column: 1 / -1; } }
</style>
