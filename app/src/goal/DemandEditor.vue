<script setup lang="ts">
import { short, WEEKDAYS } from '../time/dates';
import { idFor } from '../store/newId';
import { wasteSays } from '@yes-clear/core/advice';
import { tankVolumeL } from '@yes-clear/core/file';
import {
  type Demand,
  demandLPerDay,
  fillTimeH,
  hourlyDrawL,
  largestDrawL,
  batchL,
  needLPerDay,
  spokenNeed,
  productDemand,
  productionForTankLPerDay,
  scaledDemand,
  smallestTankL,
  tankWeek,
} from '@yes-clear/core/goal';
import { formatQuantity, words } from '@yes-clear/core/quantity';
import { mdiPlus } from '@mdi/js';
import { computed, defineAsyncComponent } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import AtOnceDraws from './AtOnceDraws.vue';
import DemandBars from './DemandBars.vue';
import OverTheYear from './OverTheYear.vue';
import { useGoal } from './useGoal';

/** How much, on which day and at what hour; and what tank and output that asks for. */
const LineChart = defineAsyncComponent(() => import('../kit/chart/LineChart.vue'));
const { current, goal, set, setDemand } = useGoal();
const units = computed(() => current.units.value);
const demand = computed(() => goal.value!.demand);
const say = computed(() => words(units.value));
const litres = (value: number): string => formatQuantity(value, 'volumeL', units.value).text;
const DAYS = WEEKDAYS.map(short);
const HOURS = Array.from({ length: 24 }, (_, hour) => String(hour).padStart(2, '0'));

const total = computed(() => spokenNeed(demand.value, demandLPerDay(demand.value)));
const setTotal = (value: number | null): void => {
  if (value !== null) set('demand', { demand: scaledDemand(demand.value, 7 * needLPerDay(demand.value, value)) });
};
/** As it is spoken of, the need stays the same litres when hours or cup are set. */
const COUNTED = { day: 'Water needed', week: 'Water needed', hour: 'Water an hour', cups: 'Cups a day' } as const;
const setCounted = (changes: Partial<Pick<Demand, 'hoursPerDay' | 'cupL'>>): void => {
  const next = { ...demand.value, ...changes };
  set('demand', { demand: scaledDemand(next, 7 * needLPerDay(next, total.value)) });
};
const mostDay = computed(() => Math.max(...demand.value.dayL, 1) * 1.25);
const stepDay = computed(() => 10 ** Math.floor(Math.log10(mostDay.value / 8)));
const setDay = (i: number, value: number): void =>
  setDemand('litres by day', { dayL: demand.value.dayL.map((old, k) => (k === i ? value : old)) });
/** Hours as litres of an average day, for the words at each bar; dragged in their own shares. */
const hourSum = computed(() => demand.value.hourShare.reduce((sum, share) => sum + share, 0));
const evenL = computed(() => demand.value.dayL.reduce((sum, day) => sum + day, 0) / 7);
const mostHour = computed(() => Math.max(...demand.value.hourShare, 1) * 1.25);
const setHour = (i: number, value: number): void =>
  setDemand('litres by hour', { hourShare: demand.value.hourShare.map((old, k) => (k === i ? Math.min(1000, value) : old)) });
const sayHour = (share: number): string =>
  hourSum.value > 0 ? `${litres((evenL.value * share) / hourSum.value)} of an average day` : 'even';

const addBatch = (): void =>
  setDemand('batch', {
    batches: [...demand.value.batches, { id: idFor('batch'), name: 'Fill a drum', weekday: 4, hour: 18, count: 1, litres: 200 }],
  });
const setBatch = (id: string, changes: Partial<Demand['batches'][number]>): void =>
  setDemand('batch', { batches: demand.value.batches.map((batch) => (batch.id === id ? { ...batch, ...changes } : batch)) });
const removeBatch = (id: string): void => setDemand('batch removed', { batches: demand.value.batches.filter((batch) => batch.id !== id) });

const madeLPerDay = computed(() => (current.solved.value?.report.solved.productLPerH ?? 0) * 24);
const tankL = computed(() => tankVolumeL(current.system.value?.train.stages ?? []));
/** What the train and its tank have to do with: tap blended back is neither made nor stored. */
const product = computed(() => productDemand(goal.value!));
const smallest = computed(() => smallestTankL(product.value, madeLPerDay.value));
/** The tank the chart follows: the train's, or the smallest that would do. */
const drawnTank = computed(() => (tankL.value > 0 ? tankL.value : (smallest.value ?? largestDrawL(product.value))));
const week = computed(() => tankWeek(product.value, madeLPerDay.value, drawnTank.value));
const enough = computed(() => (tankL.value > 0 ? productionForTankLPerDay(product.value, tankL.value) : null));
const busiest = computed(() => {
  const byDay = DAYS.map(
    (_, i) => demand.value.dayL[i]! + demand.value.batches.reduce((sum, batch) => (batch.weekday === i ? sum + batchL(batch) : sum), 0),
  );
  const most = Math.max(...byDay);
  return most > 1.3 * demandLPerDay(demand.value) ? `${WEEKDAYS[byDay.indexOf(most)]} takes ${litres(most)}. ` : '';
});
const wasted = computed(() => {
  const { system, solved } = current;
  return system.value && solved.value ? wasteSays(system.value, solved.value.report) : null;
});
/** How long what is taken at once takes to make, today and in the cold. */
const batchHours = computed(() => {
  const winter = current.solved.value?.report.winter;
  return product.value.batches.flatMap((batch) => {
    const [today, cold] = [madeLPerDay.value, winter?.productLPerDay ?? null].map((made) =>
      made === null ? null : fillTimeH(batchL(batch), made),
    );
    if (today === null || today === undefined || batchL(batch) <= 0) return [];
    const inCold = cold && winter ? `, ${say.value.hours(cold)} at ${say.value.of(winter.temperatureC, 'temperatureC')}` : '';
    return [
      `${batch.name === '' ? 'What is taken at once' : batch.name}: ${litres(batchL(batch))} of product takes ${say.value.hours(today)} today${inCold}.`,
    ];
  });
});
/** The outcome in words, each with its number. */
const outcome = computed(() => {
  const used = demandLPerDay(demand.value);
  const need = demandLPerDay(product.value);
  const made = madeLPerDay.value;
  if (used === 0) return ['Nothing is needed yet.'];
  const blended = need < used ? ` Of it ${litres(need)} a day is product, ${litres(used - need)} tap.` : '';
  const first = `${litres(used)} a day on average, ${litres(7 * used)} a week.${blended} ${busiest.value}Most at once: ${litres(largestDrawL(demand.value))}.`;
  if (made === 0) return [first, 'The train makes nothing as it stands.'];
  if (smallest.value === null)
    return [first, `The train makes ${litres(made)} a day: ${litres(need - made)} too little, whatever the tank.`];
  const fill = fillTimeH(drawnTank.value, made);
  const times =
    tankL.value > 0
      ? `This train's ${litres(tankL.value)} ${tankL.value >= smallest.value ? 'is enough' : 'is too small'}`
      : 'This train has no tank';
  return [
    first,
    `The train makes ${litres(made)} a day. The smallest tank that never runs dry: ${litres(smallest.value)}. ${times}${fill === null ? '' : `; from empty it fills in ${say.value.hours(fill)}`}.`,
    ...batchHours.value,
    ...(wasted.value ? [wasted.value] : []),
    ...(enough.value !== null && enough.value < 0.9 * made ? [`With this tank ${litres(enough.value)} a day would be enough.`] : []),
  ];
});
const series = computed(() => [
  {
    label: 'Tank',
    colour: '#33535a',
    points: week.value.points.map((point) => ({ x: point.hour, y: point.levelL })),
    endText: `lowest ${litres(week.value.lowestL)}`,
    width: 2,
  },
]);
const marks = DAYS.map((text, i) => ({ value: 24 * i, text }));
const drawsAtAll = computed(() => hourlyDrawL(demand.value).some((draw) => draw > 0) || demand.value.batches.length > 0);
</script>

<template>
  <section v-if="goal" class="sheet panel demand" aria-label="How much">
    <div class="head">
      <h2>How much</h2>
      <QuantityField
        class="total"
        :label="COUNTED[demand.per]"
        :dimension="demand.per === 'cups' ? 'count' : demand.per === 'hour' ? 'flowLPerH' : 'volumeL'"
        :units="units"
        :model-value="total"
        @update:model-value="setTotal"
      />
      <Segments
        label="Needed per"
        :choices="[
          { value: 'day', title: 'a day' },
          { value: 'week', title: 'a week' },
          { value: 'hour', title: 'an hour' },
          { value: 'cups', title: 'in cups' },
        ]"
        :model-value="demand.per"
        @update:model-value="setDemand('needed per', { per: $event })"
      />
      <QuantityField
        v-if="demand.per === 'hour'"
        class="total"
        label="Hours a day it is drawn"
        dimension="count"
        unit=""
        :low="0.25"
        :high="24"
        :units="units"
        :model-value="demand.hoursPerDay"
        @update:model-value="$event !== null && setCounted({ hoursPerDay: $event })"
      />
      <QuantityField
        v-else-if="demand.per === 'cups'"
        class="total"
        label="One cup takes"
        dimension="volumeL"
        unit="mL"
        :low="0.01"
        :high="5"
        :units="units"
        :model-value="demand.cupL"
        @update:model-value="$event !== null && setCounted({ cupL: $event })"
      />
    </div>
    <div class="editors">
      <div>
        <h3>Drawn evenly through each day</h3>
        <DemandBars
          label="Litres by day"
          :values="demand.dayL"
          :names="DAYS"
          :spoken="WEEKDAYS"
          :most="mostDay"
          :step="stepDay"
          :say="(value) => litres(value)"
          @set="setDay"
        />
        <div class="typed-days">
          <QuantityField
            v-for="(day, i) in WEEKDAYS"
            :key="day"
            class="bare"
            :label="day"
            dimension="volumeL"
            :units="units"
            :model-value="demand.dayL[i]!"
            @update:model-value="$event !== null && setDay(i, $event)"
          />
        </div>
      </div>
      <div>
        <h3>At what hour</h3>
        <DemandBars
          label="Share by hour"
          :values="demand.hourShare"
          :names="HOURS"
          :spoken="HOURS.map((hour) => `${hour}:00`)"
          :most="mostHour"
          :step="mostHour / 20"
          :say="sayHour"
          :every="6"
          @set="setHour"
        />
        <p class="muted small">Drag along to draw a day.</p>
      </div>
    </div>
    <div class="batches">
      <h3>Taken at once</h3>
      <div v-for="batch in demand.batches" :key="batch.id" class="batch">
        <NameField
          class="plain-input"
          label="What for"
          may-be-empty
          :maxlength="60"
          :model-value="batch.name"
          @update:model-value="setBatch(batch.id, { name: $event })"
        />
        <QuantityField
          class="bare"
          label="How many barrels"
          dimension="count"
          :low="1"
          :high="1000"
          :units="units"
          :model-value="batch.count"
          @update:model-value="$event !== null && setBatch(batch.id, { count: Math.round($event) })"
        />
        <span>of</span>
        <QuantityField
          class="bare"
          label="Litres in one"
          dimension="volumeL"
          :units="units"
          :model-value="batch.litres"
          @update:model-value="$event !== null && setBatch(batch.id, { litres: $event })"
        />
        <span>every</span>
        <v-select
          :items="WEEKDAYS.map((title, value) => ({ title, value }))"
          :model-value="batch.weekday"
          aria-label="Weekday"
          @update:model-value="(weekday: number) => setBatch(batch.id, { weekday })"
        />
        <span>at</span>
        <v-select
          :items="HOURS.map((hour, value) => ({ title: `${hour}:00`, value }))"
          :model-value="batch.hour"
          aria-label="Hour"
          @update:model-value="(hour: number) => setBatch(batch.id, { hour })"
        />
        <button class="button small plain danger" type="button" :aria-label="`Remove ${batch.name}`" @click="removeBatch(batch.id)">
          Remove
        </button>
      </div>
      <button class="button small" type="button" :disabled="demand.batches.length >= 40" @click="addBatch">
        <AppIcon :path="mdiPlus" :size="16" />Add a batch
      </button>
    </div>
    <AtOnceDraws />
    <OverTheYear />
    <div class="outcome" data-testid="demand-outcome">
      <p v-for="sentence in outcome" :key="sentence">{{ sentence }}</p>
    </div>
    <template v-if="drawsAtAll && madeLPerDay > 0">
      <h3>The {{ tankL > 0 ? 'tank' : 'smallest tank' }} through the week</h3>
      <LineChart
        label="Level of the tank over a week"
        scale="linear"
        :series="series"
        :low="0"
        :high="Math.max(1, drawnTank)"
        :from="0"
        :until="168"
        :marks="marks"
        :format="(value: number) => litres(value)"
      />
    </template>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.demand { display: grid; gap: 14px; }
.head { display: flex; gap: 10px 16px; align-items: flex-end; flex-wrap: wrap; }
.head h2 { flex: 1 1 120px; align-self: center; }
.total { width: 180px; }
.head :deep(.segments) { margin-bottom: 19px; }
.editors { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr); gap: 22px; }
h3 { margin-bottom: 6px; }
.typed-days { display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 3px; }
.typed-days :deep(.box) { padding: 0 5px; min-height: 30px; border-radius: 7px; }
.typed-days :deep(.unit) { display: none; }
.typed-days :deep(input) { font-size: 13.3px; text-align: center; }
.bare :deep(label) { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.bare :deep(.says:not([role])) { display: none; }
.batches { display: grid; gap: 8px; justify-items: start; }
.batch { display: grid; grid-template-columns: minmax(0, 170px) 74px auto 120px auto 140px auto 104px auto; gap: 8px; align-items: center; }
.outcome { display: grid; gap: 4px; font-size: 15px; border-top: 1px solid var(--hair); padding-top: 12px; }
.outcome p:first-child { font-weight: 650; }
@media (max-width: 1000px) { .editors { grid-template-columns: 1fr; } }
@media (max-width: 760px) { .batch { grid-template-columns: 1fr 1fr; } .batch span { display: none; } }
</style>
