<script setup lang="ts">
import { MONTHS, short } from '../../../time/dates';
import { formatQuantity, roundForReading, words } from '@yes-clear/core/quantity';
import { productLPerDay } from '@yes-clear/core/goal';
import { computed } from 'vue';
import { waterColour } from '../../../descent/waterColour';
import { useOpenSystem } from '../../../system/openSystem';
import { useAnswer } from '../../../worker/useAnswer';

/** The year in twelve columns: what the train makes each month, how clean, and at what ratio. */
const current = useOpenSystem();
const { answer } = useAnswer('seasons', () => current.system.value);
const months = computed(() => answer.value ?? []);
const units = computed(() => current.units.value);
const most = computed(() => Math.max(...months.value.map((month) => month.productLPerDay), need.value, 1));
const need = computed(() => (current.system.value ? productLPerDay(current.system.value.goal) : 0));
const NAMES = MONTHS.map(short);
const litres = (value: number): string => formatQuantity(value, 'volumeL', units.value).number;
const litreUnit = computed(() => formatQuantity(1, 'volumeL', units.value).unit);
const water = (ec: number | null): string =>
  ec === null ? '–' : units.value.strength === 'ppm' ? formatQuantity(ec, 'conductivityUScm', units.value).number : roundForReading(ec);
const waterUnit = computed(() => formatQuantity(1, 'conductivityUScm', units.value).unit);
const degrees = (t: number): string => formatQuantity(t, 'temperatureC', units.value).text;
const ratio = (value: number | null): string => (value === null ? '–' : words(units.value).ratio(value).split('\u202f')[0]!);
</script>

<template>
  <section v-if="months.length > 0" class="panel year" aria-label="The year">
    <div class="head row">
      <h2>Over the year</h2>
      <p class="muted small">From the supply's coldest and warmest water and its seasons. Line: the need.</p>
    </div>
    <div class="grid">
      <span class="name">Made, {{ litreUnit }}/day</span>
      <div v-for="month in months" :key="month.month" class="column" :title="`${NAMES[month.month]}: ${degrees(month.temperatureC)}`">
        <div class="paper">
          <i
            :style="{ height: `${(100 * month.productLPerDay) / most}%`, background: waterColour(month.permeateUScm ?? 100) }"
            :class="{ short: month.productLPerDay < need }"
          />
          <b :style="{ bottom: `${(100 * need) / most}%` }" />
        </div>
        <span>{{ litres(month.productLPerDay) }}</span>
      </div>
      <span class="name">Behind the membrane, {{ waterUnit }}</span>
      <span v-for="month in months" :key="`w${month.month}`" class="cell">{{ water(month.permeateUScm) }}</span>
      <span class="name">Waste to product</span>
      <span v-for="month in months" :key="`r${month.month}`" class="cell">{{ ratio(month.wasteToProduct) }}</span>
      <span class="name"></span>
      <span v-for="month in months" :key="`m${month.month}`" class="cell muted">{{ NAMES[month.month] }}</span>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.year { padding: 10px 14px 12px; overflow-x: auto; }
.head { align-items: baseline; margin-bottom: 6px; }
.grid { display: grid; grid-template-columns: 148px repeat(12, minmax(44px, 1fr)); gap: 4px 2px; align-items: end; min-width: 700px; }
.name { font-size: 13.3px; font-weight: 600; color: var(--muted); align-self: center; }
.column { display: grid; justify-items: center; gap: 2px; font-size: 13.3px; font-weight: 620; }
.paper { position: relative; height: 54px; width: 70%; border-bottom: 1.5px solid var(--ink); display: flex; align-items: flex-end; }
.paper i { width: 100%; border: 1px solid var(--ink); border-bottom: 0; border-radius: 3px 3px 0 0; }
.paper i.short { outline: 2px solid var(--bad); }
.paper b { position: absolute; left: -18%; right: -18%; border-top: 1.6px solid var(--ink); }
.cell { text-align: center; font-size: 13.6px; }
</style>
