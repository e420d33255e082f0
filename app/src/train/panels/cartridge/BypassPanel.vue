<script setup lang="ts">
import { neighbourSettings } from '@yes-clear/core/exchange';
import { goalLimits, STEAM_BOILER_C, type GoalAsked } from '@yes-clear/core/goal';
import {
  boxFields,
  cartridgeCapacity,
  cartridgeLife,
  dialBlend,
  dialLitres,
  hardnessFor,
  type DialBlend,
  type StageOf,
  type WaterAt,
} from '@yes-clear/core/stage';
import { formatQuantity, grouped, listed, THIN, toCanonical, unitBySymbol, inSentence, words } from '@yes-clear/core/quantity';
import { useElementSize } from '@vueuse/core';
import { computed, ref, toRaw, useTemplateRef } from 'vue';
import { LABELS_APART_PX } from '../../../kit/chart/house';
import { roundMarks, spread } from '../../../kit/chart/round';
import QuantityField from '../../../kit/QuantityField.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { changeOf, fieldOf } from '../../stageField';
import { useRaised } from '../../useRaised';
import DialAxes from './DialAxes.vue';
import DialSettings from './DialSettings.vue';
import { useAnswer } from '../../../worker/useAnswer';

/** The dial of a cartridge with a bypass: what it blends, what scales at boiler heat, how long it lasts. */
const props = defineProps<{ stage: StageOf<'decarboniser'>; before: WaterAt; litresPerDay: number; goal: GoalAsked }>();
const emit = defineEmits<{ change: [changes: Partial<StageOf<'decarboniser'>>] }>();
const current = useOpenSystem();
const units = computed(() => current.units.value);
const say = computed(() => words(units.value));
const hard = (mgL: number): string => formatQuantity(Math.max(0, mgL), 'hardnessMgL', units.value).text;

const blendAt = (bypass: number): DialBlend | null => dialBlend(props.stage, props.before, bypass);
const here = computed(() => blendAt(props.stage.bypass));
const life = computed(() => cartridgeLife({ stage: props.stage, before: props.before, litresPerDay: props.litresPerDay }));

/** Ranges the goal asks for, drawn behind the curves. */
const limits = computed(() => goalLimits(props.goal, units.value.ppmFactor));
const range = (quantity: 'alkalinityMgL' | 'hardnessMgL') => limits.value.find((limit) => limit.quantity === quantity);

/** Drawn at its own size, so that its figures stay legible on a phone; the names stand in a margin at the right. */
const NAMES = 102;
const { width } = useElementSize(useTemplateRef<HTMLElement>('picture'));
const W = computed(() => Math.max(280, width.value || 460) - NAMES);
const H = 200;
/** Beyond it the litres grow without end. */
const MOST_BYPASS = 0.9;
const STEPS = Array.from({ length: 41 }, (_, k) => k / 40);
const top = computed(() => Math.max(60, props.before.state.hardnessMgL, props.before.state.alkalinityMgL) * 1.08);
/** Room for the figures up the side, of hardness as of litres. */
const LEFT = 54;
const x = (bypass: number): number => LEFT + bypass * (W.value - LEFT - 12);
const y = (mgL: number): number => 12 + (1 - Math.max(0, mgL) / top.value) * (H - 40);
/** The whole travel of the dial, worked out beside the page; it does not depend on where the dial stands. */
const { answer: blends } = useAnswer('blends', () => ({ stage: { ...props.stage, bypass: 0 }, before: props.before, bypasses: STEPS }));
const curve = (of: 'hardness' | 'alkalinity' | 'scale'): string =>
  (blends.value ?? []).map((blend, k) => `${k === 0 ? 'M' : 'L'}${x(STEPS[k]!).toFixed(1)} ${y(blend?.[of] ?? 0).toFixed(1)}`).join(' ');
const LINES = [
  { of: 'hardness', label: 'hardness', look: 'hardness' },
  { of: 'alkalinity', label: 'alkalinity', look: 'alkalinity' },
  { of: 'scale', label: 'lime', look: 'scale' },
] as const;
/** A line's name; lime at the heat of a boiler. */
const lineLabel = ({ of, label }: Pick<(typeof LINES)[number], 'of' | 'label'>): string =>
  of === 'scale' ? `${label} at ${formatQuantity(STEAM_BOILER_C, 'temperatureC', units.value).text}` : label;
const curves = computed(() => {
  const ends = LINES.map((line) => ({ ...line, d: curve(line.of), y: y(blends.value?.at(-1)?.[line.of] ?? 0) }));
  const levels = spread(
    ends.map((line) => line.y),
    LABELS_APART_PX,
  );
  return ends.map((line, i) => ({ ...line, y: levels[i]! }));
});
const bands = computed(() =>
  (
    [
      ['hardnessMgL', 'hardness'],
      ['alkalinityMgL', 'alkalinity'],
    ] as const
  ).flatMap(([quantity, name]) => {
    const limit = range(quantity);
    if (!limit || (limit.high === null && limit.low === null)) return [];
    const [from, to] = [limit.low ?? 0, Math.min(limit.high ?? top.value, top.value)];
    const text =
      limit.high === null
        ? `at least ${hard(from)}`
        : limit.low === null
          ? `at most ${hard(limit.high)}`
          : `${hard(from)} to ${hard(limit.high)}`;
    return [{ quantity, look: name, y: y(to), height: Math.max(0, y(from) - y(to)), text: `${name} ${text}` }];
  }),
);

/** Round marks up the side, in the unit hardness is spoken of. */
const ticks = computed(() => {
  const unit = unitBySymbol('hardnessMgL', units.value.hardness);
  const perUnit = unit ? toCanonical(1, unit) : 1;
  return roundMarks(top.value / perUnit, 4).map((value) => ({ y: y(value * perUnit), text: String(value) }));
});
const settings = computed(() => neighbourSettings(props.stage.settings, props.stage.bypass));
const between = computed(() => {
  const { lower, higher } = settings.value;
  if (!lower || !higher) return null;
  const text = (setting: { label: string; bypass: number }): string => {
    const blend = blendAt(setting.bypass);
    return `${setting.label}: ${blend ? hard(blend.alkalinity) : ''}`;
  };
  return lower.bypass === higher.bypass
    ? `On the dial ${lower.label}.`
    : `On the dial between ${text(lower)} and ${text(higher)} of alkalinity. The lower protects from scale, the higher keeps taste and capacity.`;
});

/** The share at which every limit of the goal is met, all that is drawn behind it with it; found beside the page by the judge of every page. */
const { answer: met } = useAnswer('dial', () => {
  const [now, water] = [current.solved.value, current.water.value];
  return now && water?.ok
    ? { system: toRaw(now.system), solved: toRaw(now.report.solved), stageId: props.stage.id, tap: toRaw(water.value) }
    : null;
});
const wanted = computed(() => (met.value?.missed.length === 0 ? Math.round(100 * met.value.share) / 100 : null));
/** Where it stands, the goal is met: nothing is proposed. */
const meetsNow = computed(
  () => met.value !== null && props.stage.bypass >= met.value.from - 0.005 && props.stage.bypass <= met.value.to + 0.005,
);
const why = computed(() => {
  const missed = met.value?.missed ?? [];
  return missed.length === 0 ? null : `No setting meets the whole goal: ${listed(missed.map(({ limit }) => inSentence(limit.label)))}.`;
});
const raised = useRaised(current);
/** What the dial there would raise: said beside the proposal. */
const raises = computed(() => {
  const bypass = wanted.value;
  if (bypass === null) return [];
  return raised((stages) => stages.map((one) => (one.id === props.stage.id ? { ...props.stage, bypass } : one)));
});
const setByGoal = (): void => {
  if (wanted.value !== null) emit('change', { bypass: wanted.value });
};
const box = computed(() => boxFields(props.stage));
function setBox(asked: (typeof box.value)[number], value: number | null): void {
  const change = changeOf(asked, value);
  if (change && 'stage' in change) emit('change', change.stage);
}
const lastsText = computed(() => {
  const of = `${other.value === null ? 'This water' : 'A water'} of ${hard(carbonate.value)} of carbonate hardness`;
  const here = lasts.value?.here;
  const text = here
    ? `${say.value.about(here.low, 'volumeL')} to ${say.value.about(here.high, 'volumeL')} where the dial stands`
    : 'nothing uses it up';
  return `${of}, ${units.value.volume} upwards: ${text}. ${capacity.value.assumed ? 'Of a usual resin, until its box is typed.' : 'By what its box prints.'}`;
});
const set = (event: Event): void => emit('change', { bypass: Number((event.target as HTMLInputElement).value) });

/** Carbonate hardness the litres are drawn for: this water's, until another is asked for. */
const other = ref<number | null>(null);
const carbonate = computed(() => other.value ?? Math.min(props.before.state.alkalinityMgL, props.before.state.hardnessMgL));
/** The hardness asked about, also as box and table speak of it. */
const asked = computed(() => ({
  carbonateMgL: carbonate.value,
  totalMgL: other.value ?? props.before.state.hardnessMgL,
  spokenMgL: other.value ?? hardnessFor(props.stage, props.before),
}));
const capacity = computed(() => cartridgeCapacity(props.stage, asked.value.spokenMgL));
const LASTS_H = 150;
const lasts = computed(() => {
  const found = dialLitres(
    props.stage,
    asked.value,
    STEPS.filter((bypass) => bypass <= MOST_BYPASS),
  ).flatMap(({ bypass, litres }) => (litres ? [{ bypass, ...litres }] : []));
  const most = found.at(-1)?.high ?? 0;
  if (!(most > 0)) return null;
  // In proportion up to 90 %: the last steps of the dial would press everything else to the foot.
  const yL = (litres: number): number => 12 + (1 - litres / (most * 1.04)) * (LASTS_H - 40);
  const line = (of: 'low' | 'middle' | 'high', back = false): string =>
    (back ? found.toReversed() : found)
      .map((one, k) => `${k === 0 && !back ? 'M' : 'L'}${x(one.bypass).toFixed(1)} ${yL(one[of]).toFixed(1)}`)
      .join(' ');
  const unit = unitBySymbol('volumeL', units.value.volume);
  const perUnit = unit ? toCanonical(1, unit) : 1;
  const here = dialLitres(props.stage, asked.value, [props.stage.bypass])[0]!.litres;
  return {
    band: `${line('high')} ${line('low', true)} Z`,
    middle: line('middle'),
    ticks: roundMarks(most / perUnit, 3).map((value) => ({ y: yL(value * perUnit), text: grouped(value) })),
    foot: yL(0),
    here: here && props.stage.bypass <= MOST_BYPASS ? { y: yL(here.middle), ...here } : null,
  };
});
</script>

<template>
  <section class="panel dial" aria-label="What the bypass does">
    <div class="headed">
      <h2>Bypass of {{ inSentence(stage.name) }}</h2>
      <p class="muted small">How much of the water goes past the lane, and what that makes of it.</p>
      <button v-if="wanted !== null && !meetsNow" type="button" class="button" @click="setByGoal">
        Set it to {{ Math.round(100 * wanted) }}{{ THIN }}%, which meets the goal
      </button>
      <p v-if="why" class="small raises">{{ why }}</p>
      <p v-if="raises.length > 0" class="small raises">That raises: {{ raises.map(({ title }) => title).join('; ') }}.</p>
    </div>
    <div class="sides">
      <div ref="picture">
        <svg
          :viewBox="`0 0 ${W + NAMES} ${H}`"
          role="img"
          :aria-label="`Hardness, alkalinity and lime over the bypass; now ${Math.round(100 * stage.bypass)} %`"
        >
          <rect
            v-for="band in bands"
            :key="band.quantity"
            class="band"
            :class="band.look"
            :x="x(0)"
            :y="band.y"
            :width="x(1) - x(0)"
            :height="band.height"
          />
          <DialAxes :x="x" :foot="y(0)" :bottom="H - 8" :ticks="ticks" />
          <g v-for="line in curves" :key="line.of">
            <path :d="line.d" :class="line.look" />
            <text :x="x(1) + 6" :y="line.y + 4.5" :class="line.look">{{ lineLabel(line) }}</text>
          </g>
          <line class="now" :x1="x(stage.bypass)" :x2="x(stage.bypass)" :y1="6" :y2="y(0)" />
          <template v-if="here">
            <circle class="hardness" :cx="x(stage.bypass)" :cy="y(here.hardness)" r="4.5" />
            <circle class="alkalinity" :cx="x(stage.bypass)" :cy="y(here.alkalinity)" r="4.5" />
          </template>
        </svg>
        <label class="slide">
          <span>Bypass</span>
          <input type="range" min="0" max="1" step="0.01" :value="stage.bypass" aria-label="Bypass dial" @input="set" />
          <strong>{{ Math.round(100 * stage.bypass) }}{{ THIN }}%</strong>
        </label>
        <p class="small muted">
          {{ units.hardness }} upwards; the bands are what the goal asks:
          {{ bands.length > 0 ? listed(bands.map(({ text }) => text)) : 'nothing of hardness or alkalinity' }}. {{ between }}
        </p>
      </div>
      <dl v-if="here" class="facts">
        <dt>Hardness</dt>
        <dd>{{ hard(here.hardness) }}</dd>
        <dt>Alkalinity</dt>
        <dd>{{ hard(here.alkalinity) }}</dd>
        <dt>pH, before CO₂ leaves</dt>
        <dd>{{ here.pH?.toFixed(1) ?? '–' }}</dd>
        <dt>Lime at {{ say.of(STEAM_BOILER_C, 'temperatureC') }}</dt>
        <dd>{{ say.mgL(here.scale) }}</dd>
        <template v-if="life">
          <dt>Lasts</dt>
          <dd>{{ life.litres === null ? 'as long as it stands' : say.of(life.litres, 'volumeL') }}</dd>
          <template v-if="life.presetL !== null">
            <dt>{{ stage.litresMeter ? 'Enter in its litres meter' : 'Change it after' }}</dt>
            <dd class="big">{{ say.of(life.presetL, 'volumeL') }}</dd>
          </template>
          <dt>Or at</dt>
          <dd>{{ life.by === 'capacity' ? `${life.months.toFixed(1)} months, by capacity` : '12 months, before its capacity' }}</dd>
        </template>
      </dl>
    </div>
    <div class="sides">
      <div>
        <h3>How long it lasts along the dial</h3>
        <svg v-if="lasts" :viewBox="`0 0 ${W + NAMES} ${LASTS_H}`" role="img" :aria-label="lastsText">
          <path class="doubt" :d="lasts.band" />
          <DialAxes :x="x" :foot="lasts.foot" :bottom="LASTS_H - 8" :ticks="lasts.ticks" />
          <path class="lasts" :d="lasts.middle" />
          <circle v-if="lasts.here" class="lasts" :cx="x(stage.bypass)" :cy="lasts.here.y" r="4.5" />
        </svg>
        <p class="small muted">{{ lastsText }}</p>
        <QuantityField
          label="Drawn for another carbonate hardness"
          dimension="hardnessMgL"
          :low="1"
          :high="2000"
          :units="units"
          optional
          empty="this water"
          :model-value="other"
          @update:model-value="other = $event"
        />
      </div>
      <div class="box">
        <h3>What its box prints</h3>
        <QuantityField
          v-for="one in box"
          :key="one.label"
          v-bind="fieldOf(one)"
          :units="units"
          :model-value="one.value"
          @update:model-value="setBox(one, $event)"
        />
        <DialSettings :stage="stage" :hardness-mg-l="hardnessFor(stage, before)" />
      </div>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.raises { flex: 1 0 100%; margin: 0; color: var(--warning); }
.dial { display: grid; gap: 10px; }
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { flex: 1 1 220px; margin: 0; }
.sides { display: grid; grid-template-columns: minmax(0, 1fr) 318px; gap: 22px; align-items: start; }
.box { display: grid; gap: 10px; align-content: start; }
h3 { margin: 0; font-size: 14px; }
.lasts { stroke: var(--action); }
.doubt { fill: var(--action); fill-opacity: 0.12; stroke: none; }
svg { display: block; width: 100%; height: auto; font-family: var(--digits); font-size: 13px; }
path { fill: none; stroke-width: 2.4; }
path.hardness, circle.hardness { stroke: #3c3a66; }
path.alkalinity, circle.alkalinity { stroke: #8e3d8e; }
path.scale { stroke: var(--bad); stroke-dasharray: 5 4; }
circle { fill: var(--sheet); stroke-width: 2.4; }
text.hardness { fill: #3c3a66; }
text.alkalinity { fill: #8e3d8e; }
text.scale { fill: var(--bad); }
:root[data-theme='dark'] text.hardness { fill: #b3b0e0; }
:root[data-theme='dark'] text.alkalinity { fill: #d69ad6; }
:root[data-theme='dark'] path.hardness { stroke: #b3b0e0; }
:root[data-theme='dark'] path.alkalinity { stroke: #d69ad6; }
.band { fill: var(--goal); }
.band.hardness { fill: #3c3a66; fill-opacity: 0.09; }
.band.alkalinity { fill: #8e3d8e; fill-opacity: 0.1; }
.now { stroke: var(--ink); stroke-width: 1.4; }
.slide { display: grid; grid-template-columns: auto minmax(0, 1fr) 52px; gap: 12px; align-items: center; font-size: 14px; }
.slide input { accent-color: var(--action); width: 100%; }
.facts { display: grid; grid-template-columns: 1fr auto; gap: 6px 12px; margin: 0; font-size: 14px; align-items: baseline; }
dt { color: var(--muted); }
dd { margin: 0; font-weight: 650; text-align: right; }
.big { font-size: 18px; }
summary { cursor: pointer; font-size: 13.6px; font-weight: 600; color: var(--muted); }
@media (max-width: 860px) { .sides { grid-template-columns: minmax(0, 1fr); } }
</style>
