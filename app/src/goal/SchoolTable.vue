<script setup lang="ts">
import { type LimitQuantity, LIMIT_LABELS, type Limit, type LimitCheck, type School, limitText } from '@yes-clear/core/goal';
import type { UnitPreference } from '@yes-clear/core/quantity';
import { computed } from 'vue';

/** The schools of one goal side by side: where they agree, and where they do not. */
const props = defineProps<{ schools: readonly School[]; chosen: string; units: UnitPreference; tap: readonly LimitCheck[] }>();
defineEmits<{ choose: [id: string] }>();
const quantities = computed(() => [...new Set(props.schools.flatMap((school) => school.limits.map((limit) => limit.quantity)))]);
const of = (school: School, quantity: LimitQuantity): Limit | undefined => school.limits.find((limit) => limit.quantity === quantity);
function text(limit: Limit | undefined): string {
  if (!limit) return '–';
  const show = (value: number): string => limitText(limit.quantity, value, props.units);
  if (limit.low !== null && limit.high !== null) return `${show(limit.low)} – ${show(limit.high)}`;
  return limit.high !== null ? `≤ ${show(limit.high)}` : `≥ ${show(limit.low ?? 0)}`;
}
/** Whether the schools ask for different things of a quantity. */
const differs = (quantity: LimitQuantity): boolean => new Set(props.schools.map((school) => text(of(school, quantity)))).size > 1;
</script>

<template>
  <section class="sheet schools" aria-label="Schools side by side">
    <table class="figures">
      <thead>
        <tr>
          <th>Schools side by side</th>
          <th v-for="school in schools" :key="school.id" :class="{ chosen: school.id === chosen }">
            <button type="button" class="pick" role="radio" :aria-checked="school.id === chosen" @click="$emit('choose', school.id)">
              {{ school.label }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="quantity in quantities" :key="quantity" :class="{ same: !differs(quantity) }">
          <td>{{ LIMIT_LABELS[quantity] }}</td>
          <td v-for="school in schools" :key="school.id" :class="{ chosen: school.id === chosen }">{{ text(of(school, quantity)) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.schools { overflow-x: auto; padding: 4px 0; }
.pick { border: 1px solid var(--line); border-radius: 8px; background: var(--sheet); color: var(--ink); font: inherit; font-weight: 650; font-size: 13.3px; padding: 4px 9px; cursor: pointer; }
.pick[aria-checked='true'] { background: var(--action); border-color: var(--action); color: var(--on-action); }
td.chosen { background: var(--goal); font-weight: 650; }
.same td { color: var(--muted); }
</style>
