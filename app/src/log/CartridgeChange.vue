<script setup lang="ts">
import { dayOfYear } from '../time/dates';
import { idFor } from '../store/newId';
import type { Cartridge } from '@yes-clear/core/file';
import { cartridgeChanged, lagStage } from '@yes-clear/core/log';
import { THIN, inSentence } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { useOpenSystem } from '../system/openSystem';

/** The change of a resin cartridge: what ended it, what comes in its place, and what the ones before have told. */
const current = useOpenSystem();
const { system, now } = current;
const tracking = computed(() => current.solved.value?.tracking ?? null);
const notice = useNotice();
const ENDED = [
  { value: 'breakthrough', title: 'It had broken through' },
  { value: 'removedBefore', title: 'Taken out before' },
] as const;
const ended = ref<Cartridge['ended']>('breakthrough');
const lag = computed(() => (system.value ? lagStage(system.value) : null));
const name = computed(() => tracking.value?.name ?? '');
function change(how: 'renew' | 'moveUp'): void {
  const seen = tracking.value;
  if (!seen) return;
  const id = idFor('cartridge');
  const day = now.value.slice(0, 10);
  current.edit('cartridge changed', (s) => cartridgeChanged(s, seen, { how, ended: ended.value, day, id }));
  notice.say(
    how === 'moveUp'
      ? `${lag.value?.name ?? ''} moved up, new resin behind it. Ctrl+Z takes it back.`
      : `${name.value} has new resin. Ctrl+Z takes it back.`,
  );
}
const learned = computed(() => {
  const t = tracking.value;
  if (!t) return '';
  const sure = `${t.capacityEq.toPrecision(3)}${THIN}eq ± ${Math.round(100 * t.capacitySd)}${THIN}%`;
  return t.learnedFrom === 0
    ? `Capacity ${sure}, from its class alone`
    : `Capacity ${sure}, learned from ${t.learnedFrom === 1 ? 'the one before' : `${t.learnedFrom} before it`}`;
});
const day = (text: string | null): string => (text ? dayOfYear(text) : '–');
const history = computed(() => [...(system.value?.cartridges ?? [])].reverse());
</script>

<template>
  <section v-if="system && tracking" class="sheet panel change" aria-label="Cartridge change">
    <div class="row">
      <h2>
        Change {{ inSentence(name) }} <span>{{ learned }}</span>
      </h2>
      <Segments v-model="ended" label="How it ended" :choices="ENDED" />
      <button v-if="lag" type="button" class="button primary" @click="change('moveUp')">
        Move {{ inSentence(lag.name) }} up, new behind it
      </button>
      <button type="button" class="button" @click="change('renew')">New resin in it</button>
    </div>
    <p class="small muted">
      Keep resin out of preservative, and rinse it to the drain until the meter reads 0.
      {{ lag ? 'The new one never goes first: what the old lead lets go of, the second catches.' : '' }}
    </p>
    <table v-if="history.length > 0" class="figures" aria-label="Cartridges before">
      <thead>
        <tr>
          <th>Cartridge</th>
          <th>Fitted</th>
          <th>Out</th>
          <th>Took up</th>
          <th>Side</th>
          <th>Ended</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="old in history" :key="old.id">
          <td>{{ old.name }}</td>
          <td>{{ day(old.fittedOn) }}</td>
          <td>{{ day(old.removedOn) }}</td>
          <td>{{ old.loadEq.toPrecision(3) }}{{ THIN }}eq</td>
          <td>{{ old.side }}</td>
          <td>{{ old.ended === 'breakthrough' ? 'broke through' : 'before it broke through' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.change { display: grid; gap: 8px; }
.row { display: flex; gap: 8px 12px; flex-wrap: wrap; align-items: center; }
.row h2 { flex: 1 1 100%; }
h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 8px; }
@media (max-width: 860px) { .row .button { min-height: 44px; } h2 span { display: block; padding: 0; } }
</style>
