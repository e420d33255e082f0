<script setup lang="ts">
import { shownUnitOf } from '@yes-clear/core/log';
import { channelOf, FIGURES, instrumentAt, probeOf, type Channel, type Figure } from '@yes-clear/core/recording';
import { formatQuantity, grouped } from '@yes-clear/core/quantity';
import { useNow } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import type { RecordingRow } from '../store/database';
import { removeRecording } from '../store/recordingRows';
import { useSaving } from '../store/saving';
import { useOpenSystem } from '../system/openSystem';
import { dayOfYear, timeOfDay } from '../time/dates';
import { useAir } from '../worker/air';
import PairMeters from './PairMeters.vue';

/** Meters that report by themselves: what each says now, and the records there are. */
const props = defineProps<{ recordings: readonly RecordingRow[] }>();
const current = useOpenSystem();
const { system } = current;
const air = useAir(current.id);
const pairing = ref(false);
const clock = useNow({ interval: 1000 });

/** A figure of a channel as a person reads it. */
function said(channel: Channel, value: number): string {
  if (!system.value) return '';
  const instrument = instrumentAt(system.value, channel);
  if (probeOf(channel) !== null) return instrument ? `${Number(value.toPrecision(3))} ${shownUnitOf(instrument)}` : '';
  // No meter in the line is good to more than three figures; a total counts.
  const shown = channel === 'meterL' ? value : Number(value.toPrecision(3));
  return formatQuantity(shown, FIGURES[channel as Figure].dimension, system.value.units).text;
}
const SILENT_MS = 60_000;
/** Meters that are paired, in the order of the train, with what they said last. */
const paired = computed(() => {
  const now = system.value;
  if (!now) return [];
  return now.sensors.flatMap((sensor) => {
    const channel = channelOf(now, sensor);
    if (channel === null) return [];
    const probe = now.train.probes.find(({ id }) => id === probeOf(channel));
    const heard = air.figures.value.get(channel);
    const age = heard ? clock.value.getTime() - heard.atMs : null;
    return [
      {
        id: sensor.id,
        name: probe?.name ?? FIGURES[channel as Figure].name,
        value: heard ? said(channel, heard.value) : '–',
        silent: age === null || age > SILENT_MS,
        when: age === null ? 'not heard yet' : age <= SILENT_MS ? timeOfDay(heard!.atMs) : `silent since ${timeOfDay(heard!.atMs)}`,
      },
    ];
  });
});
const state = computed(() => {
  const now = air.state.value;
  if (now?.state === 'lost') return 'The meters do not answer; what they keep meanwhile is fetched when they are back.';
  if (now?.state === 'garbled') return now.says;
  if (now?.state === 'full') return `What they say cannot be kept: ${now.says}. It is tried again.`;
  const gap = air.gap.value;
  return gap
    ? `From ${dayOfYear(gap.from)}, ${timeOfDay(gap.from)} to ${dayOfYear(gap.until)}, ${timeOfDay(gap.until)} the meters have nothing any more.`
    : '';
});
const records = computed(() =>
  props.recordings
    .filter(({ days }) => days.length > 0)
    .map((row) => ({
      row,
      span: `${dayOfYear(row.days[0]!.at)} to ${dayOfYear(row.days.at(-1)!.at)}`,
      rows: grouped(row.rows),
    })),
);
const notice = useNotice();
const undo = useUndo();
const saving = useSaving();
async function remove(row: RecordingRow): Promise<void> {
  const kept = await saving.keep('removing the record', () => removeRecording(row));
  if (kept.ok) notice.say(`${row.name} removed.`, undo);
}
</script>

<template>
  <section v-if="system" class="sheet panel" aria-label="Meters on the air">
    <div class="head">
      <h2>
        Meters on the air
        <span v-if="paired.length === 0">in-line meters and gauges that report by themselves</span>
      </h2>
      <button type="button" class="button small" @click="pairing = true">
        {{ paired.length === 0 ? 'Pair meters' : 'Change pairing' }}
      </button>
    </div>
    <p v-if="state && paired.length > 0" class="state small" role="status">{{ state }}</p>
    <dl v-if="paired.length > 0">
      <div v-for="meter in paired" :key="meter.id" :class="{ silent: meter.silent }">
        <dt>{{ meter.name }}</dt>
        <dd>
          {{ meter.value }}<small>{{ meter.when }}</small>
        </dd>
      </div>
    </dl>
    <table v-if="records.length > 0" class="figures" aria-label="Records">
      <tbody>
        <tr v-for="{ row, span, rows } in records" :key="row.id">
          <td>{{ row.name }}</td>
          <td class="what">{{ span }}</td>
          <td>{{ rows }} {{ row.from === 'file' ? 'rows' : 'figures' }}</td>
          <td><button type="button" class="button small plain" :aria-label="`Remove ${row.name}`" @click="remove(row)">Remove</button></td>
        </tr>
      </tbody>
    </table>
    <PairMeters v-if="pairing" @close="pairing = false" />
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.panel { display: grid; gap: 8px; }
.head { display: flex; justify-content: space-between; gap: 12px; align-items: center; }
h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 8px; }
.state { color: var(--warning-ink, var(--ink)); font-weight: 550; margin: 0; }
dl { display: grid; grid-template-columns: repeat(auto-fill, minmax(124px, 1fr)); gap: 10px 16px; margin: 0; }
dt { font-size: 13px; color: var(--muted); }
dd { margin: 0; font-size: 17px; font-weight: 680; font-variant-numeric: tabular-nums; }
dd small { display: block; font-size: 13px; font-weight: 450; color: var(--muted); }
.silent dd { color: var(--muted); }
.what { white-space: normal; text-align: left; }
@media (max-width: 860px) { .button { min-height: 42px; } h2 span { display: block; padding: 0; } }
</style>
