<script setup lang="ts">
import { GOAL_IDS, type GoalId } from '@yes-clear/core/file';
import { demandLPerDay, GOAL_ROWS, goalLimits, type Limit } from '@yes-clear/core/goal';
import { formatIn, formatQuantity, type Dimension } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import FindingsList from '../kit/FindingsList.vue';
import QuantityField from '../kit/QuantityField.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useCurrentSystem } from '../store/current';

/** Goal: what the water is for, the limits that follow, and how much is needed. */
const current = useCurrentSystem();
const { system, report } = current;
const set = (label: string, changes: object): void => current.edit(label, (s) => ({ ...s, goal: { ...s.goal, ...changes } }));
const limits = computed(() => (system.value ? goalLimits(system.value.goal, system.value.units.ppmFactor) : []));
const checks = computed(() => new Map((report.value?.ok ? report.value.value.checks : []).map((check) => [check.limit.quantity, check])));
const findings = computed(() => (report.value?.ok ? report.value.value.findings.filter((finding) => ['goal', 'demand', 'winter'].includes(finding.id)) : []));

const DIMENSION: Record<Limit['quantity'], Dimension> = {
  ec25UScm: 'conductivityUScm', chlorineMgL: 'concentrationMgL', ammoniaMgL: 'concentrationMgL', nitrateMgL: 'concentrationMgL', phosphateMgL: 'concentrationMgL',
  silicaMgL: 'concentrationMgL', hardnessMgL: 'hardnessMgL', alkalinityMgL: 'alkalinityMgL', pH: 'ph',
};
/** Conductivity limits are so near zero that ppm would hide them. */
function show(value: number, quantity: Limit['quantity']): string {
  if (!system.value) return '';
  if (quantity === 'ec25UScm') return formatIn(value, 'conductivityUScm', 'µS/cm').text;
  if (quantity === 'pH') return value.toFixed(1);
  return formatQuantity(value, DIMENSION[quantity], system.value.units).text;
}
function range(limit: Limit): string {
  if (limit.low !== null && limit.low > 0 && limit.high !== null) return `${show(limit.low, limit.quantity)} to ${show(limit.high, limit.quantity)}`;
  return limit.high !== null ? `at most ${show(limit.high, limit.quantity)}` : `at least ${show(limit.low ?? 0, limit.quantity)}`;
}
function choose(id: GoalId): void {
  if (id !== system.value?.goal.id) set('goal', { id, crewLimitPpm: id === 'windowCleaning' ? 0 : null });
}
const perDay = computed(() => (system.value ? formatQuantity(demandLPerDay(system.value.goal), 'volumeL', system.value.units).text : ''));
</script>

<template>
  <div v-if="system" class="work">
    <main class="stack">
      <div class="page-head"><h1>What the water is for</h1></div>
      <div class="goals" role="radiogroup" aria-label="Goal">
        <button
          v-for="id in GOAL_IDS"
          :key="id"
          type="button"
          role="radio"
          class="sheet goal"
          :aria-checked="system.goal.id === id"
          @click="choose(id)"
        >
          <strong>{{ GOAL_ROWS[id].label }}</strong><span>{{ GOAL_ROWS[id].says }}</span>
        </button>
      </div>
      <section v-if="GOAL_ROWS[system.goal.id].schools.length > 0" class="sheet panel crew">
        <div>
          <h2>This crew's own limit</h2>
          <p class="muted small">
            What the meter may read at the brush before something is changed. Every ppm left in the water is left on the glass.
          </p>
        </div>
        <div class="row">
          <button
            v-for="school in GOAL_ROWS[system.goal.id].schools"
            :key="school.ppm"
            type="button"
            class="button small"
            :class="{ primary: system.goal.crewLimitPpm === school.ppm }"
            @click="set('crew limit', { crewLimitPpm: school.ppm })"
          >
            {{ school.label }}
          </button>
          <QuantityField
            class="own"
            look="column"
            label="Own limit, ppm"
            dimension="count"
            :high="100"
            :units="system.units"
            :model-value="system.goal.crewLimitPpm"
            @update:model-value="set('crew limit', { crewLimitPpm: $event })"
          />
        </div>
      </section>
      <section class="sheet limits">
        <table class="figures">
          <thead>
            <tr>
              <th>Limit</th>
              <th>Goal</th>
              <th>This train leaves</th>
              <th class="why">Why</th>
              <th class="why">From</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="limit in limits" :key="limit.quantity">
              <td>{{ limit.label }}<small v-if="!limit.meterSees">no meter sees it</small></td>
              <td>{{ range(limit) }}</td>
              <td :class="checks.get(limit.quantity)?.met === false ? 'missed' : 'met'">
                {{ checks.has(limit.quantity) ? show(checks.get(limit.quantity)!.value, limit.quantity) : '–' }}
              </td>
              <td class="why">{{ limit.because }}</td>
              <td class="why muted">{{ limit.origin }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <section class="sheet panel demand">
        <h2>How much</h2>
        <QuantityField
          label="Water needed"
          dimension="volumeL"
          :units="system.units"
          :model-value="system.goal.demandL"
          @update:model-value="$event !== null && set('demand', { demandL: $event })"
        />
        <div class="row" role="radiogroup" aria-label="Needed per">
          <button
            v-for="per in (['day', 'week'] as const)"
            :key="per"
            type="button"
            role="radio"
            class="button"
            :class="{ primary: system.goal.demandPer === per }"
            :aria-checked="system.goal.demandPer === per"
            @click="set('demand', { demandPer: per })"
          >
            a {{ per }}
          </button>
        </div>
        <p class="muted">{{ perDay }} a day on average.</p>
      </section>
    </main>
    <aside>
      <TrainStrip />
      <FindingsList title="Against this goal" :findings="findings" />
    </aside>
  </div>
</template>

<style scoped>
.goals { display: grid; grid-template-columns: repeat(3, 1fr); gap: 10px; }
.goal { display: grid; gap: 3px; align-content: start; text-align: left; padding: 12px 14px; font: inherit; color: inherit; cursor: pointer; }
.goal span { font-size: 13.3px; color: var(--muted); }
.goal[aria-checked='true'] { border-color: var(--action); box-shadow: inset 0 0 0 1px var(--action); background: var(--select); }
.crew { display: grid; gap: 10px; }
.crew .row { align-items: flex-end; }
.own { width: 150px; }
.limits { overflow-x: auto; }
.limits td:first-child { font-weight: 620; }
.limits small { display: block; font-size: 13px; font-weight: 450; color: var(--muted); }
.why { text-align: left !important; white-space: normal !important; }
.met { color: var(--good); font-weight: 650; }
.missed { color: var(--bad); font-weight: 700; }
.demand { display: flex; gap: 16px; align-items: center; flex-wrap: wrap; }
.demand .quantity { width: 190px; }
@media (max-width: 860px) { .goals { grid-template-columns: 1fr; } }
</style>
