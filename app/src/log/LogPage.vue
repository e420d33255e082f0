<script setup lang="ts">
import { atStart, DAY_MS, dayOfNear, DAYS_PER_MONTH, inSentence, percent as percentOf, THIN, words } from '@yes-clear/core/quantity';
import { shortDay } from '../time/dates';
import { stoodBefore, isLikelyDate, type Reading } from '@yes-clear/core/file';
import { readingsCsv, rowName, shareBand, type WorkRead } from '@yes-clear/core/log';
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef } from 'vue';
import LineChart from '../kit/chart/LineChart.vue';
import { useRouter } from 'vue-router';
import { useKey } from '../kit/useKeys';
import FindingsList from '../kit/FindingsList.vue';
import AfterReading from './AfterReading.vue';
import QuickLineField from '../kit/QuickLineField.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useLogging } from '../kit/useLogging';
import { useQuickReading } from '../kit/useQuickReading';
import DoubtList from '../kit/DoubtList.vue';
import { useNotice } from '../kit/useNotice';
import { useOpenSystem } from '../system/openSystem';
import { useAfterFrame } from '../kit/useAfterFrame';
import { useUndo } from '../kit/useUndo';
import { removeReading } from '../store/readings';
import { useSaving } from '../store/saving';
import ImportReadings from './ImportReadings.vue';
import { download, plainName } from '../store/download';
import { calendarOf } from '../time/localClock';
import PartChange from './PartChange.vue';
import ReadingEditor from './ReadingEditor.vue';
import ReadingTable from './ReadingTable.vue';
import CourseChart from './CourseChart.vue';
import WorkPanel from './WorkPanel.vue';
import { courseChart, probeChart, resinChart, usedChart, workMarks } from './useLogSeries';
import { useTimeWindow } from '../kit/chart/useTimeWindow';
import { useRecorded } from './useRecorded';
import UpkeepPanel from './UpkeepPanel.vue';
import MetersPanel from './MetersPanel.vue';

/** Log: a line a reading, three charts, and what they say. */
const current = useOpenSystem();
const router = useRouter();
useKey('y', () => void router.push({ name: 'year' }));
const { system, readings, solved, now } = current;
const tracking = computed(() => solved.value?.tracking ?? null);
const notice = useNotice();
const logging = useLogging(() => system.value);
const { text, parsed, busy, doubts } = logging;
const quick = useQuickReading();
const field = useTemplateRef<InstanceType<typeof QuickLineField>>('field');
onScopeDispose(quick.offer({ systemId: current.id, focus: () => field.value?.focus() }));
/** The reading logged last on this page, which the page answers. */
const last = computed(() => (quick.last?.systemId === current.id ? quick.last : null));
async function log(): Promise<void> {
  quick.last = (await logging.submit()) ?? quick.last;
}
async function answered(...args: Parameters<typeof logging.answer>): Promise<void> {
  quick.last = (await logging.answer(...args)) ?? quick.last;
}

const saving = useSaving();
const undo = useUndo();
/** The reading that is being changed, and the part work is being written down on. */
const editing = shallowRef<Reading | null>(null);
const working = ref<string | true | null>(null);
/** Work told of beside a reading, offered to be written down. */
const offered = shallowRef<WorkRead | null>(null);
function offer(work: WorkRead): void {
  offered.value = work;
  working.value = work.stageId ? `stage:${work.stageId}` : work.instrumentId ? `meter:${work.instrumentId}` : true;
}
function closeWork(): void {
  offered.value = null;
  working.value = null;
}
async function remove(reading: Reading): Promise<void> {
  editing.value = null;
  const kept = await saving.keep('removing the reading', () => removeReading(reading));
  if (kept.ok) notice.say('Reading removed.', undo);
}
const bringing = ref(false);
/** The log as a table for a spreadsheet. */
function saveTable(): void {
  const current = system.value;
  if (!current) return;
  const csv = readingsCsv(current, readings.value, calendarOf);
  download(`${plainName(`${current.site} ${current.name} readings`)}.csv`, new Blob([csv], { type: 'text/csv' }));
}
function changed(): void {
  editing.value = null;
  notice.say('Reading changed.', undo);
}
/** Readings that can be drawn: of years in which they can have been taken, and not struck out. */
const dated = computed(() => readings.value.filter(({ at, counts }) => counts && isLikelyDate(at)));
const from = computed(() => (dated.value[0] ? Date.parse(dated.value[0].at) - 3 * DAY_MS : 0));
const today = computed(() => Date.parse(now.value));
const membrane = computed(() => solved.value?.membrane ?? null);

const output = computed(() => (membrane.value ? courseChart(membrane.value, 'water', today.value) : null));
const salt = computed(() => (membrane.value ? courseChart(membrane.value, 'salt', today.value) : null));
const used = computed(() => (solved.value && !output.value && system.value ? usedChart(dated.value, system.value) : null));
const resin = computed(() => (tracking.value ? resinChart(tracking.value, now.value) : null));
const moments = computed(() => (system.value ? workMarks(system.value) : []));
const outliers = computed(
  () => new Set((membrane.value?.points ?? []).filter(({ outlier }) => outlier.water || outlier.salt).map(({ readingId }) => readingId)),
);
const against = computed(() => (membrane.value?.reference.from === 'handOver' ? 'of the hand-over' : 'of the first readings'));
/** What stands below the first chart is made once that one is seen. */
const below = useAfterFrame(() => readings.value.length > 0);
/** The log's time, shown by every chart together: from the first reading to two months ahead. */
const AHEAD_DAYS = 60;
const time = useTimeWindow(() => ({ from: from.value, until: today.value + AHEAD_DAYS * DAY_MS }));
const { recordings, traces } = useRecorded(current.id, time);
const probes = computed(() =>
  system.value && dated.value.length > 0
    ? probeChart(system.value, dated.value, solved.value?.report.strength ?? null, traces.value)
    : null,
);
const courseProps = computed(() => ({ from: from.value, today: today.value, window: time, work: moments.value }));
const span = computed(() => {
  const days = (today.value - from.value) / DAY_MS;
  return days > 62 ? `${Math.round(days / DAYS_PER_MONTH)} months` : `${Math.round(days)} days`;
});
const left = computed(() => {
  const t = tracking.value;
  if (!t) return '';
  const share = `${percentOf(t.remaining.p50)} (${shareBand(t.remaining)})`;
  if (!t.daysLeft) return share;
  const day = (days: number): string => dayOfNear(new Date(today.value + days * DAY_MS).toISOString(), now.value);
  return `${share} · spent between ${day(t.daysLeft.p10)} and ${day(t.daysLeft.p90)}`;
});
const micro = (value: number): string => `${value}`;
/** Warmth that outputs are brought to. */
const reference = computed(() => words(system.value!.units).of(25, 'temperatureC'));
const percent = (value: number): string => `${Math.round(value * 10) / 10}${THIN}%`;
const volume = (value: number): string => `${Number(value.toPrecision(3))}`;
</script>

<template>
  <div v-if="system && parsed" class="work">
    <main class="stack">
      <h1 class="hidden">Log</h1>
      <form class="sheet line" @submit.prevent="log">
        <span class="today">{{ parsed.at ? shortDay(parsed.at) : 'Now' }}</span>
        <QuickLineField ref="field" v-model="text" :system="system" :parsed="parsed" @submit="log" />
        <p class="says small" aria-live="polite">
          <span v-if="text && parsed.problem" class="problem">{{ parsed.problem }}</span>
          <template v-else-if="text">{{ parsed.spelled }}</template>
          <span v-else class="muted"
            >{{ system.train.probes.map((probe) => inSentence(probe.name)).join(', ') }}, then pressure, temperature, product/waste a
            minute, litres on the meter</span
          >
        </p>
        <button class="button keys" type="button" @click="quick.start(system.id)">Keypad</button>
        <button class="button primary" type="submit" :disabled="parsed.problem !== null || busy || doubts.length > 0">
          Log it <kbd>↵</kbd>
        </button>
        <DoubtList v-if="doubts.length > 0" class="doubts" :doubts="doubts" @answer="answered" />
      </form>
      <AfterReading v-if="last" :key="last.id" :reading="last" @work="offer" />
      <template v-if="readings.length > 0">
        <section v-if="probes" class="sheet panel">
          <div class="over">
            <h2>
              Water at each probe <span>µS/cm, log scale · {{ span }}</span>
            </h2>
            <button v-if="time.zoomed.value" type="button" class="button small" @click="time.reset">Show all</button>
          </div>
          <LineChart
            :series="probes.series"
            scale="log"
            :low="probes.low"
            :high="probes.high"
            :band="probes.band"
            :from="from"
            :until="today + DAY_MS"
            :window="time"
            :moments="moments"
            :today="today"
            today-text=""
            :format="micro"
            label="Conductivity at each probe over time"
          />
        </section>
        <section v-if="below && (output || salt)" class="sheet panel pair" :class="{ two: output && salt }">
          <CourseChart v-if="output" v-bind="courseProps" :course="output" :limit="85" label="Membrane output over time">
            Membrane output, at {{ reference }} and design pressure
            <span data-testid="output">{{ output.says }} {{ against }} · clean or replace below 85{{ THIN }}%</span>
          </CourseChart>
          <CourseChart v-if="salt" v-bind="courseProps" :course="salt" :limit="115" label="Salt through the membrane over time">
            Salt through it <span data-testid="salt">{{ salt.says }} {{ against }} · inspect above 115{{ THIN }}%</span>
          </CourseChart>
        </section>
        <section v-else-if="below && used" class="sheet panel">
          <h2>
            Water used a day <span>{{ system.units.volume }}, by the product meter</span>
          </h2>
          <LineChart
            :series="used.series"
            scale="linear"
            :low="0"
            :high="used.high"
            :from="from"
            :until="today + DAY_MS"
            :window="time"
            :format="volume"
            label="Water used a day over time"
          />
        </section>
        <section v-if="below && resin && tracking" class="sheet panel">
          <h2>
            {{ atStart(rowName(tracking)) }} left <span data-testid="resin-left">{{ left }}</span>
          </h2>
          <LineChart
            :series="resin.series"
            scale="linear"
            :low="0"
            :high="100"
            :today="today"
            :from="resin.from"
            :until="resin.until"
            :window="time"
            :format="percent"
            :label="`Resin left: ${left}`"
          />
        </section>
        <MetersPanel v-if="below" :recordings="recordings" />
        <UpkeepPanel v-if="below" />
        <WorkPanel v-if="below" @write="working = true" />
        <ReadingTable
          v-if="below"
          :system="system"
          :readings="readings"
          :outliers="outliers"
          @edit="editing = $event"
          @bring-in="bringing = true"
          @save="saveTable"
        />
      </template>
      <template v-else>
        <section class="sheet panel empty">
          <h2>No readings yet</h2>
          <p class="muted">Type the first one above, or bring in what stands on paper or in a spreadsheet.</p>
          <button type="button" class="button" @click="bringing = true">Bring in readings</button>
        </section>
        <UpkeepPanel v-if="system && stoodBefore(system)" />
        <MetersPanel :recordings="recordings" />
      </template>
    </main>
    <ReadingEditor
      v-if="editing"
      :key="editing.id"
      :system="system"
      :reading="editing"
      @close="editing = null"
      @saved="changed"
      @remove="editing && remove(editing)"
    />
    <ImportReadings v-if="bringing" :system="system" :readings="readings" @close="bringing = false" />
    <PartChange v-if="working" :on="working === true ? null : working" :offered="offered" @close="closeWork" />
    <aside>
      <TrainStrip />
      <RouterLink class="button ahead" :to="{ name: 'year' }">Year ahead <kbd>Y</kbd></RouterLink>
      <FindingsList title="What the log says" :findings="solved?.logFindings ?? []" />
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.ahead { margin-bottom: 14px; }
.hidden { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.line { display: grid; grid-template-columns: auto minmax(200px, 1.1fr) minmax(160px, 1fr) auto; gap: 6px 14px; align-items: center; padding: 8px 12px 8px 14px; }
.today { color: var(--muted); font-weight: 650; }
.says { line-height: 1.35; }
.keys { display: none; }
.doubts { grid-column: 1 / -1; padding: 6px 0; }
.problem { color: var(--bad); font-weight: 550; }
.empty { display: grid; gap: 8px; justify-items: start; }
.over { display: flex; justify-content: space-between; align-items: center; gap: 12px; min-height: 30px; }
.pair.two { display: grid; grid-template-columns: minmax(0, 3fr) minmax(0, 2fr); gap: 14px; }
h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 8px; }
@media (max-width: 1000px) { .line { grid-template-columns: auto 1fr auto; } .says { grid-column: 1 / -1; order: 4; } }
@media (max-width: 1000px) { .pair.two { grid-template-columns: minmax(0, 1fr); } }
@media (max-width: 860px) { .keys { display: inline-flex; justify-self: start; } .line .button { min-height: 44px; } .line kbd, .today { display: none; } .line { grid-template-columns: 1fr auto; } .line :deep(.quick) { grid-column: 1 / -1; } h2 span { display: block; padding: 0; } }
</style>
