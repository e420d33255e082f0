<script setup lang="ts">
import { awaySince } from '@yes-clear/core/file';
import { WORK_WORDS } from '@yes-clear/core/log';
import { FOUR_IN_FIVE_SD } from '@yes-clear/core/numeric';
import { DAY_MS, DAYS_PER_MONTH, THIN, words } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import { dayOfYear, daysBetween } from '../time/dates';
import { useOpenSystem } from '../system/openSystem';

/** Work done on parts and meters, newest first, and what cartridges thrown away have told of the next. */
defineEmits<{ write: [] }>();
const { system, solved } = useOpenSystem();
const away = computed(() => system.value !== null && awaySince(system.value) !== null);
const all = ref(false);
const FIRST = 5;
const services = computed(() => [...(system.value?.services ?? [])].reverse());
const shown = computed(() => (all.value ? services.value : services.value.slice(0, FIRST)));
const WHY = { due: 'due', spent: 'spent', early: 'before it was spent', broken: 'broken', other: '', notSaid: '' } as const;
const lived = (fittedOn: string | null, at: string): string => {
  if (fittedOn === null) return '';
  const days = daysBetween(fittedOn, at);
  return days > 90 ? `${Math.round(days / DAYS_PER_MONTH)} months` : `${days} days`;
};
const litres = (passedL: number | null): string =>
  passedL === null || !system.value ? '' : words(system.value.units).about(passedL, 'volumeL');
const cartridges = computed(() => [...(system.value?.cartridges ?? [])].reverse());
/** What one bed takes up until the goal, and what that rests on. */
const learned = computed(() => {
  const t = solved.value?.tracking;
  if (!t) return '';
  const beds = t.beds.length;
  const each = beds > 1 ? `A bed of ${t.name}` : t.name;
  const sure = `${(t.capacityEq / beds).toPrecision(2)}${THIN}eq ± ${Math.round(100 * FOUR_IN_FIVE_SD * t.capacitySd)}${THIN}%`;
  const from =
    t.learnedFrom === 0 ? 'by its class alone' : `learned from ${t.learnedFrom === 1 ? 'the one before' : `${t.learnedFrom} before it`}`;
  return `${each} takes up ${sure} until the goal, ${from}`;
});
/** What each change of resin taught, worked out from the readings before it. */
const lessons = computed(() =>
  (solved.value?.tracking?.history.spans ?? [])
    .filter(({ endedBy, taught }) => endedBy !== null && taught !== null)
    .map(({ fromMs, toMs, taught, crossing, endedBy }) => ({
      key: toMs,
      days: Math.round((toMs - fromMs) / DAY_MS),
      out: new Date(toMs).toISOString(),
      took: taught!.loadEq,
      ended:
        taught!.kind === 'breakthrough'
          ? crossing
            ? `passed the goal by ${dayOfYear(new Date(crossing.pastMs).toISOString())}`
            : 'by its colour'
          : 'still clean when last read',
      written: endedBy!.serviceId !== null,
    }))
    .reverse(),
);
</script>

<template>
  <section v-if="system" class="sheet panel work-done" aria-label="Work on parts">
    <div class="head">
      <h2>
        Work on parts <span v-if="learned">{{ learned }}</span>
      </h2>
      <span class="row">
        <RouterLink class="small" :to="{ name: 'build' }">{{ away ? 'Bring it back' : 'Put it away' }}</RouterLink>
        <button type="button" class="button small" @click="$emit('write')">Write down work</button>
      </span>
    </div>
    <p v-if="services.length === 0 && cartridges.length === 0" class="small muted">
      No work written down yet. Charts may step where work was done: a filter changed, a membrane cleaned.
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
    <div v-if="lessons.length > 0" class="scroll">
      <table class="figures" aria-label="What each change of resin taught">
        <thead>
          <tr>
            <th>Resin out</th>
            <th>In for</th>
            <th>Load per bed</th>
            <th>Ended</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in lessons" :key="one.key">
            <td>{{ dayOfYear(one.out) }}</td>
            <td>{{ one.days }}{{ THIN }}days</td>
            <td>{{ one.took.toPrecision(2) }}{{ THIN }}eq</td>
            <td class="what">{{ one.ended }}{{ one.written ? '' : '; change not written down' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="cartridges.length > 0" class="scroll">
      <table class="figures" aria-label="Cartridges before this log">
        <thead>
          <tr>
            <th>Before this log</th>
            <th>In for</th>
            <th>Load</th>
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
