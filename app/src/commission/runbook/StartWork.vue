<script setup lang="ts">
import { WORK_LABELS } from '@yes-clear/core/commission';
import { awaySince, isBeingDescribed, stoodBefore } from '@yes-clear/core/file';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { dayOfYear } from '../../time/dates';
import { inSentence, listed } from '@yes-clear/core/quantity';
import { useRunbook } from './useRunbook';

/** Between two pieces of work: what was done last, and what can be begun. */
const book = useRunbook();
/** Whoever comes from a fault has the part in hand. */
const wanted = useRoute().query['part'];
const part = ref(typeof wanted === 'string' && book.changeable.value.some(({ id }) => id === wanted) ? wanted : '');
const over = computed(() => (book.system.value?.build.works ?? []).filter(({ endedAt }) => endedAt !== null).toReversed());
const nameOf = (id: string | null): string => {
  const stage = book.changeable.value.find((one) => one.id === id);
  return stage ? `: ${inSentence(stage.name)}` : '';
};
const changes = computed(() => {
  const change = book.change.value;
  if (!change) return '';
  const names = (list: readonly { readonly name: string }[], word: string): string[] =>
    list.length === 0 ? [] : [`${listed(list.map(({ name }) => inSentence(name)))} ${word}`];
  return [
    ...names(change.removed, 'out'),
    ...names(change.added, 'in'),
    ...names(
      change.rebuilt.map(({ after }) => after),
      'built otherwise',
    ),
    ...names(change.moved, 'moved'),
  ].join('; ');
});
const described = computed(() => book.system.value !== null && isBeingDescribed(book.system.value));
const away = computed(() => (book.system.value ? awaySince(book.system.value) : null));
const stored = computed(() => away.value !== null);
const title = computed(() => {
  if (stored.value) return 'It is put away';
  return over.value.length === 0 && book.system.value && stoodBefore(book.system.value)
    ? 'It stands already'
    : 'It stands as it was handed over';
});
const since = computed(() => {
  const build = book.system.value?.build;
  if (away.value !== null) return `Put away on ${dayOfYear(away.value)}. `;
  if (build?.stands.since && over.value.length === 0) return `Since ${dayOfYear(`${build.stands.since}T12:00:00Z`)}. `;
  return build?.commissioned && over.value.length > 0 ? `Since ${dayOfYear(build.commissioned.at)}. ` : '';
});
</script>

<template>
  <div class="stack begin">
    <h1 class="title">{{ title }}</h1>
    <p class="muted">{{ since }}What is begun here gets its own steps, made from the train as it is now.</p>
    <section v-if="described" class="sheet panel offer">
      <h3>Is it described as it stands?</h3>
      <p>Set stages, labels and probes on Train as they are there. What is changed after that is an upgrade, with steps of its own.</p>
      <div class="row">
        <button class="button primary" type="button" @click="book.takeAsItStands()">This is how it stands</button>
        <RouterLink class="button" :to="{ name: 'train', query: { ask: 'stands' } }">Describe it on Train</RouterLink>
      </div>
    </section>
    <section v-if="book.canUpgrade.value" class="sheet panel offer">
      <h3>The train was changed since: {{ changes }}</h3>
      <p>The upgrade takes out, moves and adds just that, and sets what it touches anew.</p>
      <button class="button primary" type="button" @click="book.start('upgrade', null)">Begin the upgrade</button>
    </section>
    <section class="sheet panel offer">
      <h3>Change a part</h3>
      <p>The old one out, the new one in, flushed and read.</p>
      <div class="row">
        <select v-model="part" aria-label="Part to change">
          <option value="" disabled>Which part?</option>
          <option v-for="stage in book.changeable.value" :key="stage.id" :value="stage.id">{{ stage.name }}</option>
        </select>
        <button class="button" type="button" :disabled="part === ''" @click="book.start('partChange', part)">Begin the change</button>
      </div>
    </section>
    <section class="sheet panel offer">
      <h3>{{ stored ? 'Bring it back' : 'Put it away' }}</h3>
      <p>
        {{
          stored
            ? 'What preserved it is flushed away before resin goes back.'
            : 'For a winter, or weeks without use: resin aside, the membrane preserved, everything closed.'
        }}
      </p>
      <div class="row">
        <button class="button" :class="{ primary: stored }" type="button" @click="book.start(stored ? 'bringBack' : 'putAway', null)">
          {{ stored ? 'Begin bringing it back' : 'Begin putting it away' }}
        </button>
        <button class="link" type="button" @click="book.start(stored ? 'putAway' : 'bringBack', null)">
          {{ stored ? 'Put it away again' : 'It was put away: bring it back' }}
        </button>
      </div>
    </section>
    <section v-if="over.length > 0" class="past">
      <h3>Done so far</h3>
      <ul>
        <li v-for="one in over" :key="one.id">
          <b>{{ WORK_LABELS[one.kind] }}{{ nameOf(one.stageId) }}</b
          >{{ ' ' }}
          <span class="muted">
            {{ one.endedAt === null ? '' : dayOfYear(one.endedAt) }} · {{ one.done.length }} steps, {{ one.measured.length }} figures{{
              one.deviations.length === 0 ? '' : `, ${one.deviations.length} left out or taken as they were`
            }}</span
          >
        </li>
      </ul>
    </section>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.begin { max-width: 720px; gap: 14px; }
.title { font-size: 24px; }
.offer { padding: 12px 16px; display: grid; gap: 8px; justify-items: start; }
select { font: 450 15px var(--digits); padding: 9px 12px; border: 1px solid var(--line); border-radius: 9px; background: var(--paper); color: var(--ink); min-height: 44px; }
.past ul { list-style: none; margin: 6px 0 0; padding: 0; display: grid; gap: 6px; }
.link { border: 0; background: transparent; color: var(--action); font: inherit; text-decoration: underline; cursor: pointer; padding: 10px 4px; }
@media (max-width: 860px) { .button { min-height: 48px; } }
</style>
