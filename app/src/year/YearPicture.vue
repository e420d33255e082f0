<script setup lang="ts">
import type { CostLine } from '@yes-clear/core/ledger';
import { BROUGHT_LINES, costLineWord, MONTH_DAYS, RUNNING_LINES, type Outlook, type YearBands } from '@yes-clear/core/year';
import { DAY_MS, formatQuantity, moneyText, PPM_PER_USCM, words, type UnitPreference } from '@yes-clear/core/quantity';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { timeTicks } from '../kit/chart/house';
import { roundTop } from '../kit/chart/round';
import { dayOfYear } from '../time/dates';

/** The years as lanes under one another: quality, output against need, changes with the visits that bundle them, cost by month. */
const props = defineProps<{ outlook: Outlook; bands: YearBands | null; units: UnitPreference; currency: string }>();
const host = useTemplateRef<HTMLElement>('host');
const { width: measured } = useElementSize(host);
const width = computed(() => Math.max(300, measured.value || 900));
const narrow = computed(() => width.value < 560);
const LEFT = computed(() => (narrow.value ? 8 : 130));
const RIGHT = 10;
const plot = computed(() => width.value - LEFT.value - RIGHT);
const x = (day: number): number => LEFT.value + (day / props.outlook.days) * plot.value;
const say = computed(() => words(props.units));

/** Height of the words over a lane where there is no room beside it. */
const HEAD = computed(() => (narrow.value ? 20 : 0));
const QUALITY = computed(() => ({ top: 8 + HEAD.value, height: 92 }));
const MADE = computed(() => ({ top: QUALITY.value.top + QUALITY.value.height + 22 + HEAD.value, height: 78 }));
const lanes = computed(() => {
  const changed = new Set(props.outlook.run.events.flatMap(({ parts }) => parts));
  return props.outlook.names.filter(([id]) => changed.has(id) || props.outlook.names.length <= 8);
});
const LANE = computed(() => (narrow.value ? 44 : 32));
const changesTop = computed(() => MADE.value.top + MADE.value.height + 40);
const visitsFoot = computed(() => changesTop.value + lanes.value.length * LANE.value);
const COST = computed(() => ({ top: visitsFoot.value + 42 + HEAD.value, height: 96 }));
const height = computed(() => COST.value.top + COST.value.height + 26);

/** A line through one figure a day; a year is drawn by the day, more by the few. */
function path(values: ArrayLike<number>, y: (value: number) => number): string {
  const step = Math.max(1, Math.round(props.outlook.days / 730));
  let text = '';
  for (let day = 0; day < props.outlook.days; day += step)
    text += `${text === '' ? 'M' : 'L'}${x(day + 0.5).toFixed(1)} ${y(values[day]!).toFixed(1)}`;
  return text;
}
const qualityTop = computed(() => {
  const { run, goal } = props.outlook;
  return roundTop(Math.max(1.15 * run.worstPpm, 1.25 * (goal.highPpm ?? goal.lowPpm ?? 0)));
});
const qualityY = (ppm: number): number => QUALITY.value.top + QUALITY.value.height * (1 - Math.min(1, ppm / qualityTop.value));
/** What the goal allows, from its lower side to its upper; nothing where it says nothing of strength. */
const band = computed(() => {
  const { highPpm, lowPpm } = props.outlook.goal;
  if (highPpm === null && lowPpm === null) return null;
  const top = highPpm === null ? QUALITY.value.top : qualityY(highPpm);
  const water = (ppm: number): string => say.value.water(ppm / PPM_PER_USCM);
  const says = highPpm === null ? `at least ${water(lowPpm!)}` : lowPpm === null ? water(highPpm) : `${water(lowPpm)} to ${water(highPpm)}`;
  return { top, height: qualityY(lowPpm ?? 0) - top, says: `goal, ${says}` };
});
const madeTop = computed(() => roundTop(Math.max(...props.outlook.run.couldMakeL, 1.1 * meanNeed.value)));
const madeY = (litres: number): number => MADE.value.top + MADE.value.height * (1 - Math.min(1, litres / madeTop.value));
/** Need of a day as the mean of its week: the tank evens the week out. */
const meanNeed = computed(() => props.outlook.needL.reduce((sum, litres) => sum + litres, 0) / props.outlook.days);
const area = computed(() => `${path(props.outlook.run.couldMakeL, madeY)}L${x(props.outlook.days)} ${madeY(0)}L${x(0)} ${madeY(0)}Z`);

const ticks = computed(() =>
  timeTicks(props.outlook.startMs, props.outlook.startMs + props.outlook.days * DAY_MS, Math.max(3, Math.floor(plot.value / 58))),
);
const dayOf = (ms: number): number => (ms - props.outlook.startMs) / DAY_MS;

const laneY = (place: number): number => changesTop.value + place * LANE.value + (narrow.value ? 26 : 8);
interface Mark {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly from: number | null;
  readonly to: number | null;
  readonly says: string;
}
const marks = computed((): Mark[] =>
  lanes.value.flatMap(([id, name], place) => {
    const bands = (props.bands?.dates ?? []).filter(({ part }) => part === id).toSorted((a, b) => a.p50 - b.p50);
    const days = props.outlook.run.events.filter(({ parts }) => parts.includes(id)).map(({ day }) => day);
    // A band that runs into the one before tells nothing apart: only the first of them is drawn.
    let drawnTo = -Infinity;
    return days.map((day, k): Mark => {
      const band = props.outlook.days <= 400 ? bands[k] : undefined;
      const told = band && band.p90 - band.p10 >= 4 && band.p10 > drawnTo ? band : null;
      if (told) drawnTo = told.p90;
      return {
        key: `${id} ${k}`,
        x: x(day),
        y: laneY(place),
        from: told ? x(told.p10) : null,
        to: told ? x(Math.min(props.outlook.days, told.p90)) : null,
        says: `${name}, ${dayOfYear(props.outlook.startMs + day * DAY_MS)}${told ? `, in 8 of 10 cases ${dayOfYear(props.outlook.startMs + told.p10 * DAY_MS)} to ${dayOfYear(props.outlook.startMs + told.p90 * DAY_MS)}` : ''}`,
      };
    });
  }),
);
const visits = computed(() => props.outlook.run.events.map(({ day }) => x(day)));
/** Visits are named where there is room for the word. */
const namesVisits = computed(() => visits.value.every((at, i) => i === 0 || at - visits.value[i - 1]! > 34));

/** What is stacked in a month's bar: what is bought, and what runs. */
const sumOf = (month: Outlook['run']['monthly'][number], lines: readonly CostLine[]): number =>
  lines.reduce((sum, line) => sum + month[line], 0);
const months = computed(() => {
  const { monthly } = props.outlook.run;
  // More than a year is drawn by quarters.
  const step = monthly.length > 13 ? 3 : 1;
  return Array.from({ length: Math.ceil(monthly.length / step) }, (_, k) => {
    const some = monthly.slice(k * step, k * step + step);
    const bought = some.reduce((sum, month) => sum + sumOf(month, BROUGHT_LINES), 0);
    const runs = some.reduce((sum, month) => sum + sumOf(month, RUNNING_LINES), 0);
    const lines = [...BROUGHT_LINES, ...RUNNING_LINES].flatMap((line) => {
      const amount = some.reduce((sum, month) => sum + month[line], 0);
      return amount >= 0.5 ? [`${costLineWord(line)} ${moneyText(amount, props.currency)}`] : [];
    });
    return { bought, runs, from: k * step, step, says: lines.join(', ') };
  });
});
const costTop = computed(() => Math.max(1, ...months.value.map(({ bought, runs }) => bought + runs)));
const costH = (amount: number): number => (amount / costTop.value) * (COST.value.height - 18);
const barX = (from: number): number => x(Math.min(props.outlook.days, from * MONTH_DAYS));
const barWidth = computed(() => Math.max(3, (plot.value / props.outlook.days) * MONTH_DAYS * (months.value[0]?.step ?? 1) * 0.64));
const namesBars = computed(() => barWidth.value > 24);
</script>

<template>
  <div ref="host" class="year">
    <svg :width="width" :height="height" role="img" :aria-label="`${outlook.run.visits} visits in ${outlook.days} days`">
      <g class="grid">
        <line
          v-for="tick in ticks"
          :key="tick.value"
          :x1="x(dayOf(tick.value))"
          :x2="x(dayOf(tick.value))"
          :y1="QUALITY.top"
          :y2="COST.top + COST.height"
        />
      </g>

      <text class="lane" :x="narrow ? LEFT : 14" :y="narrow ? QUALITY.top - 6 : QUALITY.top + 14">Product</text>
      <text v-if="!narrow" class="unit" x="14" :y="QUALITY.top + 31">0 to {{ say.water(qualityTop / PPM_PER_USCM) }}</text>
      <rect v-if="band" class="goal" :x="LEFT" :width="plot" :y="band.top" :height="band.height" />
      <text v-if="band" class="goal-text" :x="LEFT + 6" :y="band.top + 15">{{ band.says }}</text>
      <path class="quality" :d="path(outlook.run.qualityPpm, qualityY)" />
      <line class="foot" :x1="LEFT" :x2="LEFT + plot" :y1="qualityY(0)" :y2="qualityY(0)" />

      <text class="lane" :x="narrow ? LEFT : 14" :y="narrow ? MADE.top - 6 : MADE.top + 14">Could make a day</text>
      <text v-if="!narrow" class="unit" x="14" :y="MADE.top + 31">0 to {{ formatQuantity(madeTop, 'volumeL', units).text }}</text>
      <path class="area" :d="area" />
      <path class="made" :d="path(outlook.run.couldMakeL, madeY)" />
      <line class="need" :x1="LEFT" :x2="LEFT + plot" :y1="madeY(meanNeed)" :y2="madeY(meanNeed)" />
      <text class="need-text" :x="LEFT + plot - 4" :y="madeY(meanNeed) - 5">needed, {{ say.perDay(meanNeed) }}</text>

      <text class="lane" :x="narrow ? LEFT : 14" :y="changesTop - 12">Changes</text>
      <line v-for="(at, i) in visits" :key="i" class="visit" :x1="at" :x2="at" :y1="changesTop - 6" :y2="visitsFoot" />
      <g v-for="([id, name], place) in lanes" :key="id">
        <text class="part" :x="narrow ? LEFT : 14" :y="narrow ? laneY(place) - 12 : laneY(place) + 4">
          {{ name.length > 16 && !narrow ? `${name.slice(0, 15)}…` : name }}
        </text>
        <line class="track" :x1="LEFT" :x2="LEFT + plot" :y1="laneY(place)" :y2="laneY(place)" />
      </g>
      <g v-for="mark in marks" :key="mark.key" class="change">
        <title>{{ mark.says }}</title>
        <rect
          v-if="mark.from !== null"
          class="band"
          :x="mark.from"
          :width="Math.max(2, mark.to! - mark.from)"
          :y="mark.y - 7"
          height="14"
          rx="7"
        />
        <circle :cx="mark.x" :cy="mark.y" r="6" />
      </g>
      <template v-if="namesVisits">
        <text v-for="(at, i) in visits" :key="`v${i}`" class="visit-text" :x="at" :y="visitsFoot + 14">visit</text>
      </template>
      <text v-else class="visit-text start" :x="LEFT" :y="visitsFoot + 14">dotted: a visit</text>

      <text class="lane" :x="narrow ? LEFT : 14" :y="narrow ? COST.top - 6 : COST.top + 14">Cost</text>
      <text v-if="!narrow" class="unit" x="14" :y="COST.top + 31">
        {{ currency }} a {{ (months[0]?.step ?? 1) > 1 ? 'quarter' : 'month' }}
      </text>
      <g v-for="month in months" :key="month.from">
        <title>{{ month.says }}</title>
        <rect
          class="runs"
          :x="barX(month.from) + 4"
          :width="barWidth"
          :y="COST.top + COST.height - costH(month.runs)"
          :height="costH(month.runs)"
          rx="2"
        />
        <rect
          class="bought"
          :x="barX(month.from) + 4"
          :width="barWidth"
          :y="COST.top + COST.height - costH(month.runs + month.bought)"
          :height="costH(month.bought)"
          rx="2"
        />
        <text
          v-if="namesBars"
          class="amount"
          :x="barX(month.from) + 4 + barWidth / 2"
          :y="COST.top + COST.height - costH(month.runs + month.bought) - 5"
        >
          {{ Math.round(month.runs + month.bought) }}
        </text>
      </g>
      <line class="foot" :x1="LEFT" :x2="LEFT + plot" :y1="COST.top + COST.height" :y2="COST.top + COST.height" />
      <text v-for="tick in ticks" :key="`t${tick.value}`" class="tick" :x="x(dayOf(tick.value)) + 3" :y="COST.top + COST.height + 18">
        {{ tick.text }}
      </text>
    </svg>
    <p class="key small muted">
      <span class="swatch bought"></span> parts, resin and visits <span class="swatch runs"></span> water, drain and power
    </p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.year { min-width: 0; }
svg { display: block; }
text { font-family: var(--digits); font-size: 13px; fill: var(--ink); }
.grid line { stroke: var(--hair); }
.lane { font-weight: 700; }
.unit, .tick { fill: var(--muted); }
.goal { fill: var(--goal); }
.goal-text { fill: var(--good); font-weight: 600; }
.quality { fill: none; stroke: var(--resin); stroke-width: 2; }
.made { fill: none; stroke: var(--good); stroke-width: 2; }
.area { fill: var(--goal); opacity: 0.6; }
.need { stroke: var(--ink); stroke-dasharray: 5 4; }
.need-text { text-anchor: end; paint-order: stroke; stroke: var(--sheet); stroke-width: 4px; }
.track { stroke: var(--line); stroke-width: 3; }
.visit { stroke: var(--action); stroke-dasharray: 2 4; stroke-width: 1.5; }
.visit-text { fill: var(--action); font-weight: 650; text-anchor: middle; }
.visit-text.start { text-anchor: start; }
.change circle { fill: var(--resin); }
.change .band { fill: var(--resin); opacity: 0.22; }
.bought { fill: var(--resin); }
.runs { fill: color-mix(in srgb, var(--action) 40%, var(--sheet)); }
.amount { text-anchor: middle; }
.foot { stroke: var(--muted); }
.key { padding: 4px 14px 10px; }
.swatch { display: inline-block; width: 12px; height: 12px; border-radius: 3px; margin: 0 4px -1px 10px; }
.swatch.bought { background: var(--resin); }
.swatch.runs { background: color-mix(in srgb, var(--action) 40%, var(--sheet)); }
</style>
