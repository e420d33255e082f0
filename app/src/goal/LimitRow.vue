<script setup lang="ts">
import { assumedText, untested, type LimitQuantity, type Limit, type LimitCheck, dimensionOf, limitText } from '@yes-clear/core/goal';
import { limeGramsAYear, massText } from '@yes-clear/core/advice';
import type { UnitPreference } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { waterColour } from '../descent/waterColour';
import QuantityField from '../kit/QuantityField.vue';
import { limitScale } from './limitScale';

/** One limit on its own scale: the band that is asked for, the tap of today, and what the train leaves. */
const props = defineProps<{
  limit: Limit;
  /** The tap untreated, and what is used. */
  tap: LimitCheck | undefined;
  used: LimitCheck | undefined;
  units: UnitPreference;
  tapEc: number;
  litresPerDay: number;
  usedEc: number;
  editing: boolean;
  own: boolean;
}>();
const emit = defineEmits<{ set: [quantity: LimitQuantity, limit: { low: number | null; high: number | null } | null] }>();
const show = (value: number): string => limitText(props.limit.quantity, value, props.units);
/** What is known: a figure nobody measured says so, with its doubt. */
const known = (check: LimitCheck): string =>
  untested(check)
    ? 'not tested'
    : check.assumed
      ? assumedText(props.limit.quantity, check.value, check.assumed.plusMinus, props.units)
      : show(check.value);
/** Lime in a boiler is felt by the year: how much of it there will be. */
function aYear(check: LimitCheck | undefined): string {
  if (props.limit.quantity !== 'boilerScaleMgL' || !check || untested(check)) return '';
  const grams = limeGramsAYear(check.value, props.litresPerDay);
  return grams >= 1 ? `about ${massText(grams)} a year` : '';
}
const values = computed(() => [props.tap?.value, props.used?.value].filter((value): value is number => value !== undefined));
const scale = computed(() => limitScale(props.limit, values.value));
const percent = (place: number): string => `${(100 * place).toFixed(2)}%`;
const range = computed(() => {
  const { low, high } = props.limit;
  if (low !== null && low > 0 && high !== null) return `${show(low)} to ${show(high)}`;
  if (high !== null) return `at most ${show(high)}`;
  return low !== null ? `at least ${show(low)}` : 'no bound set';
});
/** Room left, or what is missing, in the limit's own unit. */
const margin = computed(() => {
  const { used } = props;
  if (!used || !Number.isFinite(used.margin)) return '';
  return used.side === null
    ? `${show(Math.max(0, used.margin))} to spare`
    : `${show(-used.margin)} ${used.side === 'high' ? 'too much' : 'too little'}`;
});
const SIDES = [
  { side: 'low', says: 'at least' },
  { side: 'high', says: 'at most' },
] as const;
const set = (side: 'low' | 'high', value: number | null): void =>
  emit('set', props.limit.quantity, { low: props.limit.low, high: props.limit.high, [side]: value });
</script>

<template>
  <div class="limit" role="row">
    <div class="name" role="rowheader">
      {{ limit.label }}<small>{{ limit.because }}</small>
    </div>
    <div class="goal" role="cell">
      {{ range }}<small>{{ limit.origin }}{{ limit.meterSees ? '' : ' · no meter sees it' }}</small>
    </div>
    <div class="paper" role="cell">
      <div class="line" :class="scale.kind">
        <i class="band" :style="{ left: percent(scale.from), width: percent(Math.max(0.012, scale.to - scale.from)) }" />
        <i
          v-if="tap"
          class="tap"
          :style="{ left: percent(scale.place(tap.value)), background: waterColour(tapEc) }"
          :title="`Tap ${show(tap.value)}`"
        />
        <i
          v-if="used"
          class="used"
          :class="{ missed: used.verdict === 'missed' }"
          :style="{ left: percent(scale.place(used.value)), background: waterColour(usedEc) }"
          :title="`Used ${show(used.value)}`"
        />
      </div>
    </div>
    <div class="now" role="cell">
      <span class="muted">{{ tap ? known(tap) : '–' }}</span><small v-if="tap?.assumed && !untested(tap)">assumed</small
      ><small v-if="aYear(tap)">{{ aYear(tap) }}</small>
    </div>
    <div class="now" role="cell" :class="used?.verdict === 'unknown' ? 'unsure' : (used?.verdict ?? '')">
      {{ used ? known(used) : '–'
      }}<small>{{
        used && untested(used) ? '' : used?.verdict === 'unknown' ? 'assumed: not known' : used?.assumed ? `assumed, ${margin}` : margin
      }}</small
      ><small v-if="aYear(used)">{{ aYear(used) }}</small>
    </div>
    <div v-if="editing" class="edit" role="cell">
      <QuantityField
        v-for="{ side, says } in SIDES"
        :key="side"
        :label="`${limit.label}, ${says}`"
        :dimension="dimensionOf(limit.quantity)"
        v-bind="limit.quantity === 'ec25UScm' ? { unit: 'µS/cm' } : {}"
        optional
        empty="no bound"
        :high="300000"
        :units="units"
        :model-value="limit[side]"
        @update:model-value="set(side, $event)"
      />
      <button v-if="own" class="button small" type="button" @click="emit('set', limit.quantity, null)">Take mine off</button>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.limit { display: grid; grid-template-columns: 160px 168px minmax(110px, 1fr) 104px 118px; gap: 4px 14px; align-items: center; padding: 8px 14px; border-top: 1px solid var(--hair); }
small { display: block; font-size: 13px; font-weight: 450; color: var(--muted); line-height: 1.25; }
.name { font-weight: 650; }
.goal { font-size: 14.3px; }
.now { text-align: right; font-size: 14.3px; }
.met { color: var(--good); font-weight: 650; }
.missed { color: var(--bad); font-weight: 700; }
.now span, .unsure { white-space: nowrap; }
.unsure { color: var(--warning); font-weight: 650; }
.now small { font-weight: 450; }
.line { position: relative; height: 26px; }
.line::before { content: ''; position: absolute; left: 0; right: 0; top: 12.5px; border-top: 1px solid var(--line); }
.line.log::before { border-top-style: dashed; }
.band { position: absolute; top: 3px; height: 20px; background: var(--goal); border: 1px solid var(--good); border-radius: 5px; }
.tap, .used { position: absolute; top: 50%; width: 13px; height: 13px; margin: -6.5px 0 0 -6.5px; border-radius: 50%; border: 1.8px solid var(--ink); }
.tap { border-radius: 2px; transform: rotate(45deg); width: 11px; height: 11px; margin: -5.5px 0 0 -5.5px; }
.used.missed { box-shadow: 0 0 0 3px color-mix(in srgb, var(--bad) 45%, transparent); }
.edit { grid-column: 1 / -1; display: grid; grid-template-columns: repeat(2, minmax(0, 220px)) auto; gap: 10px; align-items: start; padding-bottom: 6px; }
.edit .button { margin-top: 24px; }
@media (max-width: 1180px) { .limit { grid-template-columns: 140px 140px minmax(80px, 1fr) 80px 96px; gap: 4px 10px; } }
@media (max-width: 860px) {
  .limit { grid-template-columns: 1fr 1fr; }
  .paper { grid-column: 1 / -1; }
  .now { text-align: left; }
}
</style>
