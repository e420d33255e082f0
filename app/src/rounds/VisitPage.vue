<script setup lang="ts">
import { useNow } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import HeaderBar from '../kit/HeaderBar.vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { exportSystems } from '../store/transfer';
import { dayOfYear, longDayOfYear } from '../time/dates';
import { countText } from '@yes-clear/core/stage';
import { toLoad, useDue } from './useDue';
import { useRounds } from './useRounds';

/** A sheet for the next visits: what to load, what to do at each system, and lines to write on; printed, or taken along as a file. */
const clock = useNow({ interval: 60_000 });
const { lines } = useRounds(clock);
const notice = useNotice();
const router = useRouter();
const DAYS = [
  { value: '7', title: '7 days' },
  { value: '14', title: '14 days' },
  { value: '30', title: '30 days' },
] as const;
const within = ref<'7' | '14' | '30'>('14');
const days = computed(() => Number(within.value));
const items = useDue(lines, clock, days);
const load = computed(() => toLoad(items.value));
const stops = computed(() =>
  lines.value.flatMap((line) => {
    const own = items.value.filter(({ systemId }) => systemId === line.id);
    const urgent = line.round?.urgency === 'now' ? line.round.finding : null;
    return own.length > 0 || urgent ? [{ line, own, urgent }] : [];
  }),
);
const print = (): void => window.print();
async function save(): Promise<void> {
  const says = await exportSystems(
    stops.value.map(({ line }) => line.id),
    `visit ${new Date().toISOString().slice(0, 10)}`,
  );
  notice.say(says ?? 'Visit file saved. Opened on the other device, and its file opened here again, both records become one.');
}
document.title = 'Visit sheet · Yes Clear';
</script>

<template>
  <div>
    <HeaderBar
      class="screen"
      title="Visit sheet"
      :subtitle="`${stops.length} ${stops.length === 1 ? 'system' : 'systems'} · ${dayOfYear(clock.getTime())}`"
    >
      <template #tools>
        <button class="button" type="button" @click="router.push({ name: 'rounds' })">Rounds</button>
        <button class="button" type="button" @click="save">Save visit file</button>
        <button class="button primary" type="button" @click="print">Print</button>
      </template>
    </HeaderBar>
    <main class="visit">
      <div class="screen days"><Segments v-model="within" label="Work of the next" :choices="DAYS" /></div>
      <h1>Visits, {{ longDayOfYear(clock.getTime()) }}</h1>
      <section v-if="load.length > 0" class="sheet block">
        <h2>To load</h2>
        <ul class="load">
          <li v-for="piece in load" :key="piece.part">
            <i class="box" /> {{ countText(piece) }}{{ piece.unit === 'piece' ? ' ×' : '' }} {{ piece.name }}
          </li>
        </ul>
      </section>
      <section v-for="stop in stops" :key="stop.line.id" class="sheet block">
        <h2>
          {{ stop.line.name }} <span>{{ stop.line.site }}</span>
        </h2>
        <p v-if="stop.urgent" class="urgent">{{ stop.urgent.title }}. {{ stop.urgent.why }}</p>
        <ul>
          <li v-for="item in stop.own" :key="item.id">
            <i class="box" /> <strong>{{ item.what }}</strong>
            <span class="muted">&nbsp;{{ item.late ? 'overdue' : `by ${item.day}` }} · {{ item.because }}</span>
          </li>
        </ul>
        <p v-if="stop.line.round?.newest" class="small muted">
          Last reading, {{ dayOfYear(stop.line.round.newest.at) }}: <code>{{ stop.line.round.newest.line }}</code>
        </p>
        <p class="write">Read today:</p>
        <p class="write">Done, left, to order:</p>
      </section>
      <p v-if="stops.length === 0" class="muted">No system asks for a visit within these days.</p>
      <p class="small muted">Local codes and licensed trades come first: water lines, mains electricity, pressure vessels.</p>
    </main>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.visit { max-width: 820px; margin: 0 auto; padding: 18px 20px 60px; display: grid; gap: 12px; }
h1 { font-size: 20px; }
h2 span { font-weight: 450; color: var(--muted); font-size: 14px; padding-left: 8px; }
.block { padding: 12px 16px; display: grid; gap: 8px; break-inside: avoid; }
ul { list-style: none; margin: 0; padding: 0; display: grid; gap: 5px; }
.load { grid-template-columns: 1fr 1fr; }
.box { display: inline-block; width: 12px; height: 12px; border: 1.4px solid var(--ink); border-radius: 2px; margin-right: 6px; }
li strong { display: inline-block; }
li strong::first-letter { text-transform: uppercase; }
p { margin: 0; }
.urgent { color: var(--bad); font-weight: 600; }
code { font-family: var(--typed); }
.write { border-bottom: 1px solid var(--muted); padding: 14px 0 2px; color: var(--muted); font-size: 13.3px; }
@media (max-width: 860px) { .load { grid-template-columns: 1fr; } }
@media print { .screen { display: none !important; } .visit { padding: 0; max-width: none; } .sheet { border-color: #999; } }
</style>
