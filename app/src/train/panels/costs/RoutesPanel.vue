<script setup lang="ts">
import {
  atStrength,
  breakevenFactor,
  breakevenLPerWeek,
  fixedPerWeek,
  ionicLoad,
  ionMeqL,
  membraneFirst,
  PLACEHOLDER_ROUTE,
  resinAlone,
  resinPerLitre,
  throughMembrane,
  type MembraneRoute,
  type RouteCost,
  type RouteWater,
} from '@yes-clear/core/exchange';
import type { WaterCost } from '@yes-clear/core/advice';
import { demandLPerWeek, productDemand } from '@yes-clear/core/goal';
import { formatQuantity, L_PER_US_GALLON, THIN, costUnit, moneyText, words } from '@yes-clear/core/quantity';
import { useElementSize } from '@vueuse/core';
import { scaleLog } from 'd3-scale';
import { computed, useTemplateRef } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import { useOpenSystem } from '../../../system/openSystem';

/** Resin alone, or a membrane first: where the two cost the same over tap strength and weekly litres, and this job on it. */
const current = useOpenSystem();
const { system, water, tapState, solved } = current;
const units = computed(() => current.units.value);
const say = computed(() => words(units.value));
const tap = computed<RouteWater | null>(() => {
  if (!water.value?.ok) return null;
  const { water: feed } = water.value.value;
  const load = ionicLoad(feed);
  const silicaMeqL = ionMeqL(feed, 'SiO2');
  return { seenMeqL: load.cationMeqL, co2MeqL: Math.max(0, load.weakAcidMeqL - silicaMeqL), silicaMeqL };
});
/** The membrane of this train where it has one; the usual one where it has none. */
const route = computed<MembraneRoute>(() => {
  const unit = solved.value?.report.solved.unit ?? null;
  const energy = solved.value?.report.energyKWhPerM3 ?? null;
  return unit && unit.rejection !== null && unit.recovery > 0
    ? { ...PLACEHOLDER_ROUTE, passage: 1 - unit.rejection, recovery: unit.recovery, energyKWhPerM3: energy ?? 0 }
    : PLACEHOLDER_ROUTE;
});
const ownMembrane = computed(() => (solved.value?.report.solved.unit ?? null) !== null);
const litres = computed(() => (system.value ? demandLPerWeek(productDemand(system.value.goal)) : 0));
const prices = computed(() => system.value?.prices ?? null);

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
  const [t, now, p] = [tap.value, ppmNow.value, prices.value];
  if (!t || !now || !p) return [];
  return Array.from({ length: 61 }, (_, k) => PPM[0] * (PPM[1] / PPM[0]) ** (k / 60)).flatMap((ppm) => {
    const at = breakevenLPerWeek(atStrength(t, ppm / now), route.value, p);
    return at === null ? [] : [[px.value(ppm), py.value(at)] as const];
  });
});
const line = computed(() => curve.value.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' '));
const area = computed(() =>
  curve.value.length > 1
    ? `${line.value} L${px.value(PPM[1])} ${py.value(span.value[1])} L${curve.value[0]![0]} ${py.value(span.value[1])} Z`
    : '',
);
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

const costs = computed(() => {
  const [t, p] = [tap.value, prices.value];
  if (!t || !p) return null;
  const fixed = litres.value > 0 ? fixedPerWeek(p) / litres.value : 0;
  const alone = resinAlone(t, p);
  const first = membraneFirst(t, route.value, p);
  const per1000 = (cost: RouteCost, unit: number) => ({
    resin: per.value.litres * cost.resin,
    water: per.value.litres * (cost.water + cost.sewer + cost.power),
    unit: per.value.litres * unit,
    total: per.value.litres * (cost.total + unit),
  });
  // The membrane of this train costs what the train costs: one price, told above as well.
  const own = solved.value?.report.cost ?? null;
  const ofTrain = (cost: WaterCost) => ({
    resin: (per.value.litres * cost.resin) / 1000,
    water: (per.value.litres * (cost.water + cost.sewer + cost.power)) / 1000,
    unit: (per.value.litres * (cost.unit + cost.parts)) / 1000,
    total: (per.value.litres * cost.total) / 1000,
  });
  return {
    alone: per1000(alone, 0),
    first: ownMembrane.value && own ? ofTrain(own) : per1000(first, fixed),
    resinWeek: { alone: litres.value * resinPerLitre(t), first: litres.value * resinPerLitre(throughMembrane(t, route.value)) },
  };
});
const money = (amount: number): string => moneyText(amount, prices.value?.currency ?? '');
const verdict = computed(() => {
  const [t, p, c] = [tap.value, prices.value, costs.value];
  if (!t || !p || !c || litres.value <= 0 || !ppmNow.value) return null;
  const cheaper = c.first.total < c.alone.total;
  const week = (Math.abs(c.alone.total - c.first.total) * litres.value) / per.value.litres;
  const at = breakevenLPerWeek(t, route.value, p);
  const turn = breakevenFactor(t, route.value, p, litres.value, [0.02, 20]);
  const byStrength =
    turn.kind === 'at'
      ? `At this volume it turns at ${say.value.water((turn.factor * ppmNow.value) / units.value.ppmFactor)}.`
      : turn.kind === 'membrane'
        ? 'At this volume the membrane wins on any tap.'
        : 'At this volume resin alone wins on any tap.';
  return {
    severity: 'note' as const,
    title: `${cheaper ? 'Membrane first' : 'Resin alone'} saves ${money(week)} a week at ${litresText(litres.value)} a week`,
    // Where the turn is only estimated and lies on the other side of this job, it is not told.
    why:
      cheaper === (at !== null && litres.value > at)
        ? `${at === null ? 'On this tap resin alone is always the cheaper.' : `On this tap it turns at about ${litresText(at)} a week.`} ${byStrength}`
        : 'The two are close here: by the estimate of the picture it would be the other.',
  };
});
const bars = computed(() => {
  if (!costs.value) return [];
  const most = Math.max(costs.value.alone.total, costs.value.first.total);
  const pieces = (cost: { resin: number; water: number; unit: number }) =>
    (['resin', 'water', 'unit'] as const).map((key) => ({ key, width: (100 * cost[key]) / most, text: money(cost[key]) }));
  return [
    { name: 'Resin alone', cost: costs.value.alone, pieces: pieces(costs.value.alone), resin: costs.value.resinWeek.alone },
    {
      name: ownMembrane.value ? 'This membrane first' : 'A usual membrane first',
      cost: costs.value.first,
      pieces: pieces(costs.value.first),
      resin: costs.value.resinWeek.first,
    },
  ];
});
const NAMES = { resin: 'resin', water: 'water, sewer, power', unit: 'the unit and its cartridges' } as const;
</script>

<template>
  <section v-if="system && tap" class="panel routes" aria-label="Resin or membrane first">
    <div class="headed">
      <h2>Resin alone, or a membrane first</h2>
      <p class="muted small">By the prices of this job. Above the line the membrane pays.</p>
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
            <span>{{ bar.name }}</span><strong>{{ money(bar.cost.total) }}</strong>
          </div>
          <div class="bar">
            <i
              v-for="piece in bar.pieces"
              :key="piece.key"
              :class="piece.key"
              :style="{ width: `${piece.width}%` }"
              :title="`${NAMES[piece.key]} ${piece.text}`"
            />
          </div>
          <small class="muted">{{ bar.resin < 10 ? bar.resin.toFixed(1) : Math.round(bar.resin) }}{{ THIN }}L of resin a week</small>
        </div>
        <p class="key">
          <span v-for="(name, key) in NAMES" :key="key"><i :class="key" /> {{ name }}</span>
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
i.resin { background: #2d5f8e; }
i.water { background: #9db7ba; }
i.unit { background: #cdb8c9; }
.key { display: flex; gap: 4px 16px; flex-wrap: wrap; margin: 0; font-size: 13px; color: var(--muted); }
.key i { display: inline-block; width: 10px; height: 10px; border-radius: 2px; border: 1px solid var(--ink); }
@media (max-width: 860px) { .sides { grid-template-columns: minmax(0, 1fr); } }
</style>
