<script setup lang="ts">
import { COST_LINES, COST_WORDS, type CostLine } from '@yes-clear/core/ledger';
import { costUnit, formatQuantity, inSentence, L_PER_US_GALLON, moneyText, THIN, words } from '@yes-clear/core/quantity';
import { useElementSize } from '@vueuse/core';
import { scaleLog } from 'd3-scale';
import { computed, toRaw, useTemplateRef } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useAnswer } from '../../../worker/useAnswer';

/** Resin alone, or a membrane first: where the two cost the same over tap strength and weekly litres, and this job on it. */
const current = useOpenSystem();
const { system, tapState, solved } = current;
const units = computed(() => current.units.value);
const say = computed(() => words(units.value));
const { answer: routes } = useAnswer('routes', () => (solved.value ? { system: solved.value.system, use: toRaw(solved.value.use) } : null));
const litres = computed(() => routes.value?.litresPerWeek ?? 0);
const currency = computed(() => system.value?.prices.currency ?? '');

const PPM = [20, 1000] as const;
/** Volumes are told in the unit of the system; the scale reaches past the job. */
const perUnit = computed(() => (units.value.volume === 'gal' ? L_PER_US_GALLON : 1));
const per = computed(() => costUnit(units.value));
const TENS = [10, 100, 1000, 10_000, 100_000, 1_000_000, 10_000_000];
const most = computed(() => TENS.find((amount) => amount >= Math.max(10_000, (1.3 * litres.value) / perUnit.value)) ?? 1e8);
const span = computed(() => [10 * perUnit.value, most.value * perUnit.value] as const);
const volumes = computed(() => TENS.filter((amount) => amount <= most.value).map((amount) => amount * perUnit.value));
/** Drawn at its own size, so that its figures stay legible on a phone. */
const { width } = useElementSize(useTemplateRef<HTMLElement>('picture'));
const W = computed(() => Math.max(280, width.value || 470));
const H = 250;
const px = computed(() =>
  scaleLog()
    .domain(PPM)
    .range([78, W.value - 10])
    .clamp(true),
);
const py = computed(() =>
  scaleLog()
    .domain(span.value)
    .range([H - 44, 12])
    .clamp(true),
);
const ppmNow = computed(() => (tapState.value ? tapState.value.ec25UScm * units.value.ppmFactor : null));
const curve = computed(() => {
  const now = ppmNow.value;
  if (!now) return [];
  // What lies beyond the picture is drawn at its edge.
  return (routes.value?.curve ?? []).map(([factor, at]) => [px.value(factor * now), py.value(at)] as const);
});
const line = computed(() => curve.value.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' '));
const area = computed(() => {
  const last = curve.value.at(-1);
  return last && curve.value.length > 1
    ? `${line.value} L${last[0].toFixed(1)} ${py.value(span.value[1])} L${curve.value[0]![0].toFixed(1)} ${py.value(span.value[1])} Z`
    : '';
});
const point = computed(() => (ppmNow.value && litres.value > 0 ? { x: px.value(ppmNow.value), y: py.value(litres.value) } : null));
/** In the corner where the membrane pays, or under the job where that stands there. */
const sideY = computed(() => {
  const corner = py.value(span.value[1]) + 20;
  const inTheWay = point.value && point.value.x > W.value - 260 && point.value.y < corner + 24;
  return inTheWay ? point.value!.y + 34 : corner;
});
const strengthText = (ppm: number): string =>
  units.value.strength === 'ppm' ? String(ppm) : String(Math.round(ppm / units.value.ppmFactor));
const litresText = (value: number): string => formatQuantity(value, 'volumeL', units.value).text;

const money = (perM3: number): string => moneyText((perM3 * per.value.litres) / 1000, currency.value);
const lines = computed((): readonly CostLine[] =>
  COST_LINES.filter((one) => [routes.value?.alone, routes.value?.first].some((way) => (way?.lines[one] ?? 0) > 0)),
);
const bars = computed(() => {
  if (!routes.value) return [];
  const { alone, first, own } = routes.value;
  const widest = Math.max(alone.totalPerM3, first.totalPerM3);
  const pieces = (cost: typeof alone) =>
    lines.value.flatMap((key) => {
      const amount = cost.lines[key] ?? 0;
      return amount > 0 ? [{ key, width: (100 * amount) / widest, text: `${COST_WORDS[key]} ${money(amount)}` }] : [];
    });
  return [
    { name: 'Resin alone', cost: alone, pieces: pieces(alone) },
    { name: own ? 'This membrane first' : 'A usual membrane first', cost: first, pieces: pieces(first) },
  ];
});
const verdict = computed(() => {
  const found = routes.value;
  if (!found || litres.value <= 0 || !ppmNow.value) return null;
  const cheaper = found.first.totalPerM3 < found.alone.totalPerM3;
  const week = (Math.abs(found.alone.totalPerM3 - found.first.totalPerM3) * litres.value) / 1000;
  const byStrength =
    typeof found.turnStrength === 'number'
      ? `At this volume it turns at about ${say.value.water((found.turnStrength * ppmNow.value) / units.value.ppmFactor)}.`
      : found.turnStrength === 'membrane'
        ? 'At this volume the membrane wins on any tap.'
        : 'At this volume resin alone wins on any tap.';
  const at = found.turnLPerWeek;
  return {
    severity: 'note' as const,
    title: `${cheaper ? 'Membrane first' : 'Resin alone'} saves ${moneyText(week, currency.value)} a week at ${litresText(litres.value)} a week`,
    why: `${at === null ? 'On this tap resin alone is always the cheaper.' : `On this tap it turns at about ${litresText(at)} a week.`} ${byStrength}`,
  };
});
const resinText = (each: number): string => (each < 10 ? each.toFixed(1) : String(Math.round(each)));
</script>

<template>
  <section v-if="system && routes" class="panel routes" aria-label="Resin or membrane first">
    <div class="headed">
      <h2>Resin alone, or a membrane first</h2>
      <p class="muted small">
        The same train with and without {{ routes.own ? 'its membrane' : 'a usual membrane' }}, buying and visits counted for both. Above
        the line the membrane pays.
      </p>
    </div>
    <div class="sides">
      <div ref="picture">
        <svg :viewBox="`0 0 ${W} ${H}`" role="img" aria-label="Litres a week at which both cost the same, over the strength of the tap">
          <path class="membrane" :d="area" />
          <g class="grid">
            <line
              v-for="ppm in [20, 50, 100, 200, 500, 1000]"
              :key="`x${ppm}`"
              :x1="px(ppm)"
              :x2="px(ppm)"
              :y1="py(span[1])"
              :y2="py(span[0])"
            />
            <line v-for="amount in volumes" :key="`y${amount}`" :x1="px(PPM[0])" :x2="px(PPM[1])" :y1="py(amount)" :y2="py(amount)" />
          </g>
          <text
            v-for="ppm in [20, 50, 100, 200, 1000]"
            :key="`tx${ppm}`"
            :x="px(ppm)"
            :y="H - 26"
            :text-anchor="ppm === PPM[1] ? 'end' : 'middle'"
            class="tick"
          >
            {{ strengthText(ppm) }}
          </text>
          <text :x="px(PPM[1])" :y="H - 6" text-anchor="end" class="tick">
            {{ units.strength === 'ppm' ? 'ppm' : 'µS/cm' }} at the tap, {{ units.volume === 'gal' ? 'gallons' : 'litres' }} a week upwards
          </text>
          <text
            v-for="amount in volumes.slice(1)"
            :key="`ty${amount}`"
            :x="px(PPM[0]) - 6"
            :y="py(amount) + 4.5"
            text-anchor="end"
            class="tick"
          >
            {{ litresText(amount) }}
          </text>
          <path class="turn" :d="line" />
          <text :x="px(PPM[1]) - 8" :y="sideY" text-anchor="end" class="side">membrane first</text>
          <text :x="px(PPM[0]) + 10" :y="py(span[0]) - 10" class="side">resin alone</text>
          <g v-if="point">
            <circle :cx="point.x" :cy="point.y" r="6.5" class="job" />
            <text
              :x="point.x > W - 120 ? point.x - 12 : point.x + 12"
              :y="point.y + 4.5"
              :text-anchor="point.x > W - 120 ? 'end' : 'start'"
              class="here"
            >
              this job
            </text>
          </g>
        </svg>
      </div>
      <div class="costs">
        <h3>{{ litresText(per.litres) }} of product</h3>
        <div v-for="bar in bars" :key="bar.name" class="route">
          <div class="names">
            <span>{{ bar.name }}</span><strong>{{ money(bar.cost.totalPerM3) }}</strong>
          </div>
          <div class="bar">
            <i v-for="piece in bar.pieces" :key="piece.key" :class="piece.key" :style="{ width: `${piece.width}%` }" :title="piece.text" />
          </div>
          <small class="muted">{{ resinText(bar.cost.resinLPerWeek) }}{{ THIN }}L of resin a week</small>
        </div>
        <p class="key">
          <span v-for="key in lines" :key="key"><i :class="key" /> {{ inSentence(COST_WORDS[key]) }}</span>
        </p>
        <FindingCard v-if="verdict" :finding="verdict" />
      </div>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.routes { display: grid; gap: 10px; }
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { margin: 0; }
.sides { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(260px, 1fr); gap: 20px; }
svg { display: block; width: 100%; height: auto; font-family: var(--digits); font-size: 13px; }
.grid line { stroke: var(--hair); }
.tick { fill: var(--muted); }
.membrane { fill: var(--goal); }
.turn { fill: none; stroke: var(--action); stroke-width: 2.4; }
.side { fill: var(--muted); font-weight: 620; }
.job { fill: var(--sheet); stroke: var(--ink); stroke-width: 3; }
.here { fill: var(--ink); font-weight: 700; }
.costs { display: grid; gap: 8px; align-content: start; }
h3 { margin: 0; font-size: 13.6px; }
.names { display: flex; justify-content: space-between; font-size: 14px; }
.bar { display: flex; height: 14px; border: 1px solid var(--ink); border-radius: 4px; overflow: hidden; background: var(--side); }
.key { display: flex; gap: 4px 16px; flex-wrap: wrap; margin: 0; font-size: 13px; color: var(--muted); }
.key i { display: inline-block; width: 10px; height: 10px; border-radius: 2px; border: 1px solid var(--ink); }
@media (max-width: 860px) { .sides { grid-template-columns: minmax(0, 1fr); } }
</style>

<style scoped src="./lines.css"></style>
