<script setup lang="ts">
import { WORK_WORDS } from '@yes-clear/core/log';
import { DAYS_PER_MONTH, THIN, words } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import { dayOfYear, daysBetween } from '../time/dates';
import { useOpenSystem } from '../system/openSystem';

/** Work done on parts and meters, newest first, and what cartridges thrown away have told of the next. */
defineEmits<{ write: [] }>();
const { system, solved } = useOpenSystem();
const all = ref(false);
const FIRST = 5;
const services = computed(() => [...(system.value?.services ?? [])].reverse());
const shown = computed(() => (all.value ? services.value : services.value.slice(0, FIRST)));
const WHY = { due: 'due', spent: 'spent', early: 'before it was spent', broken: 'broken', other: '' } as const;
const lived = (fittedOn: string | null, at: string): string => {
  if (fittedOn === null) return '';
  const days = daysBetween(fittedOn, at);
  return days > 90 ? `${Math.round(days / DAYS_PER_MONTH)} months` : `${days} days`;
};
const litres = (passedL: number | null): string =>
  passedL === null || !system.value ? '' : words(system.value.units).about(passedL, 'volumeL');
const cartridges = computed(() => [...(system.value?.cartridges ?? [])].reverse());
const learned = computed(() => {
  const t = solved.value?.tracking;
  if (!t) return '';
  const sure = `${t.capacityEq.toPrecision(2)}${THIN}eq ± ${Math.round(100 * t.capacitySd)}${THIN}%`;
  return t.learnedFrom === 0
    ? `${t.name} holds ${sure} by its class alone`
    : `${t.name} holds ${sure}, learned from ${t.learnedFrom === 1 ? 'the one before' : `${t.learnedFrom} before it`}`;
});
</script>

<template>
  <section v-if="system" class="sheet panel work-done" aria-label="Work on parts">
    <div class="head">
      <h2>
        Work on parts <span v-if="learned">{{ learned }}</span>
      </h2>
      <button type="button" class="button small" @click="$emit('write')">Write down work</button>
    </div>
    <p v-if="services.length === 0 && cartridges.length === 0" class="small muted">
      Nothing written down yet. A filter changed, a membrane cleaned, a meter’s battery: what is written down here is what the charts may
      jump at.
    </p>
    <div v-if="services.length > 0" class="scroll">
      <table class="figures" aria-label="Work done">
        <tbody>
          <tr v-for="service in shown" :key="service.id">
            <td>{{ dayOfYear(service.at) }}</td>
            <td>{{ service.name }}</td>
            <td class="what">{{ [WORK_WORDS[service.work], WHY[service.why], service.note].filter(Boolean).join(' · ') }}</td>
            <td>{{ lived(service.fittedOn, service.at) }}</td>
            <td>{{ litres(service.passedL) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="services.length > FIRST" type="button" class="button small plain" @click="all = !all">
      {{ all ? 'Show fewer' : `Show all ${services.length}` }}
    </button>
    <div v-if="cartridges.length > 0" class="scroll">
      <table class="figures" aria-label="Cartridges before">
        <thead>
          <tr>
            <th>Resin before</th>
            <th>In for</th>
            <th>Took up</th>
            <th>Side</th>
            <th>Ended</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="old in cartridges" :key="old.id">
            <td>{{ old.name }}, out {{ dayOfYear(old.removedOn) }}</td>
            <td>{{ lived(old.fittedOn, old.removedOn) }}</td>
            <td>{{ old.loadEq.toPrecision(2) }}{{ THIN }}eq</td>
            <td>{{ old.side }}</td>
            <td>{{ old.ended === 'breakthrough' ? 'broke through' : 'before it broke through' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.work-done { display: grid; gap: 8px; }
.head { display: flex; justify-content: space-between; gap: 12px; align-items: center; }
h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 8px; }
.scroll { overflow-x: auto; }
.what { white-space: normal; text-align: left; min-width: 140px; }
@media (max-width: 860px) { .button { min-height: 42px; } h2 span { display: block; padding: 0; } }
</style>
