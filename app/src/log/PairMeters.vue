<script setup lang="ts">
import { SENSOR_READS, type Sensor } from '@yes-clear/core/file';
import { canRead, FIGURE_OF, FIGURES, proposedPairs } from '@yes-clear/core/recording';
import { computed, ref, shallowRef } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import { newId } from '../store/newId';
import { useOpenSystem } from '../system/openSystem';
import { whatIsOnAir, type OnAir, type WhatIsOnAir } from '../worker/air';

/** Which meter on the air stands at which probe, or for which figure of a reading. */
const emit = defineEmits<{ close: [] }>();
const current = useOpenSystem();
const notice = useNotice();
const undo = useUndo();
const air = shallowRef<WhatIsOnAir | null>(null);
const refusal = ref('');
void whatIsOnAir().then((found) => {
  if (found.ok) air.value = found.value;
  else refusal.value = found.error.message;
});

const NONE = '';
/** What a meter stands for, as a field has it. */
const choiceOf = (reads: Sensor['reads'], probeId: string | null): string => (reads === 'probe' ? `probe:${probeId}` : reads);
/** What each name is taken for, as it stands in its field. */
const taken = ref<Record<string, string>>(
  Object.fromEntries((current.system.value?.sensors ?? []).map(({ sensor, reads, probeId }) => [sensor, choiceOf(reads, probeId)])),
);
/** Meters the server names, and those paired before that it does not. */
const meters = computed((): readonly OnAir[] => {
  const known = air.value?.sensors ?? [];
  const others = Object.keys(taken.value).filter((name) => taken.value[name] !== NONE && !known.some((one) => one.name === name));
  return [...known, ...others.map((name) => ({ name, title: 'Not heard here', unit: '' }))];
});
const choices = (unit: string): readonly { readonly value: string; readonly title: string }[] => {
  const reads = unit === '' ? SENSOR_READS : canRead(unit);
  return reads.flatMap((one) =>
    one === 'probe'
      ? (current.system.value?.train.probes ?? []).map(({ id, name }) => ({ value: `probe:${id}`, title: name }))
      : [{ value: one, title: FIGURES[FIGURE_OF[one]].name }],
  );
};
/** A probe or a figure is read by one meter: the one named last. */
function take(sensor: string, value: string): void {
  const others = Object.entries(taken.value).map(([name, was]) => [name, was === value ? NONE : was]);
  taken.value = { ...Object.fromEntries(others), [sensor]: value };
}
/** What names and units propose, as the fields would have it; and of that what stands for nobody yet. */
const proposed = computed((): readonly (readonly [string, string])[] =>
  current.system.value && air.value
    ? [...proposedPairs(current.system.value, air.value.sensors)].map(([name, { reads, probeId }]) => [name, choiceOf(reads, probeId)])
    : [],
);
const proposals = computed(() => {
  const used = new Set(Object.values(taken.value));
  return proposed.value.filter(([name, value]) => (taken.value[name] ?? NONE) === NONE && !used.has(value));
});
const takeProposals = (): void => proposals.value.forEach(([name, value]) => take(name, value));
function pair(): void {
  const before = current.system.value?.sensors ?? [];
  const sensors = Object.entries(taken.value)
    .filter(([, value]) => value !== NONE)
    .map(([sensor, value]): Sensor => {
      const probeId = value.startsWith('probe:') ? value.slice('probe:'.length) : null;
      const reads = probeId === null ? (value as Sensor['reads']) : 'probe';
      const known = before.find((one) => one.sensor === sensor && one.reads === reads && one.probeId === probeId);
      return known ?? { id: newId(), sensor, reads, probeId };
    });
  current.edit('meters paired', (system) => ({ ...system, sensors }));
  notice.say(
    sensors.length === 0 ? 'No meter is paired any more.' : `${sensors.length} ${sensors.length === 1 ? 'meter' : 'meters'} paired.`,
    undo,
  );
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="640" scrollable @update:model-value="emit('close')">
    <v-card class="dialog-card">
      <DialogHead title="Pair meters" @close="emit('close')" />
      <p v-if="air" class="small muted">
        {{ air.name }}{{ air.simulated ? ': made-up figures, to try this out' : '' }}. A meter that is paired is recorded for as long as Yes
        Clear is open in any tab; what it says meanwhile is fetched when the meters still have it.
      </p>
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <button v-if="proposals.length > 0" class="button" type="button" @click="takeProposals">
        Fill in {{ proposals.length }} by their names
      </button>
      <p v-if="air?.refused" class="small muted">Last left out: {{ air.refused }}</p>
      <ul v-if="meters.length > 0" aria-label="Meters on the air">
        <li v-for="meter in meters" :key="meter.name">
          <span
            ><strong>{{ meter.title }}</strong
            ><small>{{ meter.name }}{{ meter.unit ? ` · ${meter.unit}` : '' }}</small></span
          >
          <select
            :value="taken[meter.name] ?? NONE"
            :aria-label="`${meter.title} stands for`"
            @change="take(meter.name, ($event.target as HTMLSelectElement).value)"
          >
            <option :value="NONE">not paired</option>
            <option v-for="choice in choices(meter.unit)" :key="choice.value" :value="choice.value">{{ choice.title }}</option>
          </select>
        </li>
      </ul>
      <p v-else-if="!refusal" class="muted">Asking…</p>
      <button v-if="meters.length > 0" class="button primary" type="button" @click="pair">Pair</button>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
p { margin: 0; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 6px 0; border-top: 1px solid var(--line); }
li:first-child { border-top: 0; }
small { display: block; color: var(--muted); font-size: 13px; overflow-wrap: anywhere; }
select { font: inherit; font-weight: 550; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); border-radius: 7px; padding: 4px 6px; min-height: 40px; min-width: 150px; max-width: 46%; }
.problem { color: var(--bad); font-weight: 550; }
.button.primary { justify-content: center; min-height: 44px; }
</style>
