<script setup lang="ts">
import {
  LIMIT_QUANTITIES,
  type LimitQuantity,
  checkLimits,
  GOAL_ROWS,
  goalLimits,
  limitedValue,
  productLPerDay,
  LIMIT_LABELS,
  schoolOf,
} from '@yes-clear/core/goal';
import { CREW_LIMITS, crewRows, equalsInPpm } from '@yes-clear/core/advice';
import { costUnit, moneyText, roundForReading, words } from '@yes-clear/core/quantity';
import { productStation } from '@yes-clear/core/train';
import { computed, ref } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import LimitRow from './LimitRow.vue';
import SchoolTable from './SchoolTable.vue';
import { useGoal } from './useGoal';

/** The limits of the goal as bands, each held against today's tap and against what is used. */
const { current, goal, set, setLimit } = useGoal();
const { solved, tapState, water } = current;
const units = computed(() => current.units.value);
const row = computed(() => (goal.value ? GOAL_ROWS[goal.value.id] : null));
const limits = computed(() => (goal.value ? goalLimits(goal.value, units.value.ppmFactor) : []));
const tapChecks = computed(() =>
  water.value?.ok && tapState.value ? checkLimits(limits.value, water.value.value.water, tapState.value, water.value.value) : [],
);
const usedChecks = computed(() => solved.value?.report.checks ?? []);
const usedEc = computed(() => (solved.value ? productStation(solved.value.report.solved).state.ec25UScm : 1));
const school = computed(() => (goal.value ? schoolOf(goal.value) : null));
/** Our own sets, side by side; figures of standards and associations are a place to start from. */
const own = computed(() => row.value?.schools.filter(({ kind, id }) => kind === 'own' || id === school.value?.id) ?? []);
const starts = computed(() =>
  (row.value?.schools ?? []).filter(({ kind }) => kind !== 'kept').map(({ id, label }) => ({ value: id, title: label })),
);
const startFrom = (id: string): void => set('school', { school: id, ownLimits: [] });
/** Some crews change resin only when as much comes out as goes in. */
const equals = computed(() => {
  const { system } = current;
  const report = solved.value?.report;
  const ppm = system.value && report ? equalsInPpm(system.value, report) : null;
  return ppm !== null && ppm > Math.max(...CREW_LIMITS) && ppm <= 1000 ? ppm : null;
});
/** The limits crews argue about, side by side in litres and money. */
const crew = computed(() => {
  const report = solved.value?.report;
  if (!report || !current.system.value || row.value?.ppmSchools.length === 0) return null;
  const own = goal.value?.crewLimitPpm ?? null;
  const limits: number[] = [...CREW_LIMITS];
  for (const more of [own, equals.value]) if (more !== null && !limits.includes(more)) limits.push(more);
  return crewRows(
    current.system.value,
    report,
    limits.sort((a, b) => a - b),
  );
});
const say = computed(() => words(units.value));
const per = computed(() => costUnit(units.value));
const money = (amount: number): string => moneyText(amount, current.system.value?.prices.currency ?? '');
const editing = ref(false);
const free = computed(() =>
  LIMIT_QUANTITIES.filter((quantity) => !limits.value.some((limit) => limit.quantity === quantity)).map((value) => ({
    value,
    title: LIMIT_LABELS[value],
  })),
);
const isOwn = (quantity: LimitQuantity): boolean => goal.value?.ownLimits.some((own) => own.quantity === quantity) ?? false;
function addLimit(quantity: LimitQuantity): void {
  const tap = water.value?.ok && tapState.value ? limitedValue(quantity, water.value.value.water, tapState.value) : 1;
  // Starts where the tap stands, so that the band is in sight.
  setLimit(quantity, { low: null, high: quantity === 'pH' ? 8 : Number(Math.max(tap, 0.01).toPrecision(2)) });
  editing.value = true;
}
</script>

<template>
  <template v-if="goal && row">
    <section v-if="row.ppmSchools.length > 0" class="sheet panel crew">
      <div>
        <h2>This crew's own limit</h2>
        <p class="muted small">
          What the meter may read at the brush before something is changed. Every ppm left in the water is left on the glass.
        </p>
      </div>
      <div class="row">
        <button
          v-for="one in row.ppmSchools"
          :key="one.ppm"
          type="button"
          class="button small"
          :class="{ primary: goal.crewLimitPpm === one.ppm }"
          @click="set('crew limit', { crewLimitPpm: one.ppm })"
        >
          {{ one.label }}
        </button>
        <button
          v-if="equals !== null"
          type="button"
          class="button small"
          :class="{ primary: goal.crewLimitPpm === equals }"
          @click="set('crew limit', { crewLimitPpm: equals })"
        >
          Out equals in, {{ equals }} ppm
        </button>
        <QuantityField
          class="own"
          look="column"
          label="Own limit, ppm"
          dimension="count"
          :high="1000"
          :units="units"
          :model-value="goal.crewLimitPpm"
          @update:model-value="set('crew limit', { crewLimitPpm: $event })"
        />
      </div>
      <table v-if="crew" class="crew-table" aria-label="What the crews’ limits come to">
        <thead>
          <tr>
            <th scope="col">Changed at</th>
            <th scope="col">New resin lasts</th>
            <th scope="col">Resin, {{ per.label }}</th>
            <th scope="col">Resin, a week</th>
            <th scope="col">Left on a square metre</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in crew" :key="one.ppm" :class="{ on: one.ppm === goal.crewLimitPpm }">
            <th scope="row">{{ one.ppm }} ppm{{ one.ppm === equals ? ', out equals in' : '' }}</th>
            <td>{{ one.litres === null ? 'always: it never reads more' : say.about(one.litres, 'volumeL') }}</td>
            <td>{{ money((one.resinPerM3 * per.litres) / 1000) }}</td>
            <td>{{ money(one.resinPerWeek) }}</td>
            <td>{{ roundForReading(one.filmMgPerM2.mean) }} mg, at worst {{ roundForReading(one.filmMgPerM2.worst) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="crew" class="muted small">
        Resin of this train as one row, by the first estimate of its fronts. Some 30 mL of water stay on a square metre after the last rinse
        (our estimate); what dries is mostly silica, which leaves the resin before a meter moves.
      </p>
    </section>
    <section class="sheet limits">
      <div class="head">
        <h2>{{ own.length > 1 || school?.kind === 'copy' ? `${row.label}: ${school?.label}` : row.label }}</h2>
        <div class="key" aria-hidden="true">
          <span><i class="band" />asked for</span><span><i class="tap" />tap today</span
          ><span><i class="used" />{{ goal.prepare.how === 'none' ? 'this train leaves' : 'as it is used' }}</span>
        </div>
        <button class="button small" type="button" :aria-pressed="editing" @click="editing = !editing">
          {{ editing ? 'Done' : 'Edit limits' }}
        </button>
      </div>
      <div role="table" aria-label="Limits of the goal">
        <div class="columns muted small" role="row">
          <span role="columnheader">Limit</span><span role="columnheader">Goal</span
          ><span role="columnheader" class="scale">Scale, dashed where by decades</span><span role="columnheader" class="right">Tap</span
          ><span role="columnheader" class="right">{{ goal.prepare.how === 'none' ? 'Train leaves' : 'As used' }}</span>
        </div>
        <LimitRow
          v-for="limit in limits"
          :key="limit.quantity"
          :limit="limit"
          :tap="tapChecks.find((check) => check.limit.quantity === limit.quantity)"
          :used="usedChecks.find((check) => check.limit.quantity === limit.quantity)"
          :units="units"
          :tap-ec="tapState?.ec25UScm ?? 100"
          :litres-per-day="productLPerDay(goal)"
          :used-ec="usedEc"
          :editing="editing"
          :own="isOwn(limit.quantity)"
          @set="setLimit"
        />
      </div>
      <p v-if="limits.length === 0" class="empty muted">
        {{
          goal.id === 'steamOven'
            ? 'What the oven bears is on its own sheet: type it from there.'
            : 'No limit is set yet. Add the first one below.'
        }}
      </p>
      <p v-if="school && school.unseen.length > 0" class="unseen">
        Also asked for, and for a laboratory to tell: {{ school.unseen.join('; ') }}.
      </p>
      <div v-if="editing || limits.length === 0" class="more">
        <v-select
          v-if="starts.length > 1"
          :items="starts"
          label="Start from…"
          aria-label="Start from…"
          :model-value="school?.id ?? null"
          @update:model-value="(id) => id && startFrom(id)"
        />
        <v-select
          :items="free"
          label="Add a limit"
          aria-label="Add a limit"
          :model-value="null"
          @update:model-value="(quantity) => quantity && addLimit(quantity)"
        />
      </div>
    </section>
    <SchoolTable v-if="own.length > 1" :schools="own" :chosen="school?.id ?? ''" :units="units" :tap="tapChecks" @choose="startFrom" />
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.crew { display: grid; gap: 10px; }
.crew .row { align-items: flex-end; }
.own { width: 150px; }
.head { display: flex; align-items: center; gap: 8px 18px; padding: 10px 14px 6px; flex-wrap: wrap; }
.head h2 { flex: 1 1 auto; }
.key { display: flex; gap: 14px; font-size: 13px; color: var(--muted); }
.key span { display: flex; align-items: center; gap: 6px; }
.key i { width: 11px; height: 11px; border: 1.6px solid var(--ink); display: inline-block; }
.key .band { width: 20px; border-radius: 4px; background: var(--goal); border: 1px solid var(--good); }
.key .tap { transform: rotate(45deg); width: 9px; height: 9px; }
.key .used { border-radius: 50%; }
.crew-table { grid-column: 1 / -1; width: 100%; border-collapse: collapse; font-size: 14px; }
.crew-table th, .crew-table td { text-align: right; padding: 5px 8px; border-top: 1px solid var(--hair); font-weight: 450; }
.crew-table thead th { color: var(--muted); font-size: 13px; }
.crew-table th:first-child { text-align: left; font-weight: 650; }
.crew-table .on { background: var(--select); }
.columns { display: grid; grid-template-columns: 160px 168px minmax(110px, 1fr) 104px 118px; gap: 14px; padding: 2px 14px 5px; }
.right { text-align: right; }
.unseen, .empty { padding: 10px 14px; border-top: 1px solid var(--hair); font-size: 13.6px; }
.more { padding: 6px 14px 12px; max-width: 320px; }
@media (max-width: 1180px) { .columns { grid-template-columns: 140px 140px minmax(80px, 1fr) 80px 96px; gap: 10px; } }
@media (max-width: 860px) { .columns { display: none; } }
</style>
