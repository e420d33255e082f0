<script setup lang="ts">
import { DAYS_PER_MONTH, inSentence, THIN } from '@yes-clear/core/quantity';
import { longDay, shortDay } from '../time/dates';
import { isLikelyDate, type Reading } from '@yes-clear/core/file';
import { DAY_MS } from '@yes-clear/core/log';
import { computed, defineAsyncComponent } from 'vue';
import FindingsList from '../kit/FindingsList.vue';
import QuickLineField from '../kit/QuickLineField.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useLogging } from '../kit/useLogging';
import { useQuickReading } from '../kit/useQuickReading';
import DoubtList from '../kit/DoubtList.vue';
import { useNotice } from '../kit/useNotice';
import { useOpenSystem } from '../system/openSystem';
import { useHistory } from '../store/history';
import { removeReading } from '../store/readings';
import { useSaving } from '../store/saving';
import CartridgeChange from './CartridgeChange.vue';
import ReadingTable from './ReadingTable.vue';
import { probeChart, removalChart, resinChart } from './useLogSeries';

/** Log: a line a reading, three charts, and what they say. */
const LineChart = defineAsyncComponent(() => import('../kit/chart/LineChart.vue'));
const current = useOpenSystem();
const { system, readings, solved, now } = current;
const tracking = computed(() => solved.value?.tracking ?? null);
const notice = useNotice();
const logging = useLogging(() => system.value);
const { text, parsed, busy, doubts } = logging;
const quick = useQuickReading();

const saving = useSaving();
const history = useHistory();
async function remove(reading: Reading): Promise<void> {
  const kept = await saving.keep('removing the reading', () => removeReading(reading));
  if (kept.ok) notice.say('Reading removed.', { label: 'Undo', run: () => void history.undo().then((says) => notice.say(says)) });
}
/** Readings that can be drawn: of years in which they can have been taken. */
const dated = computed(() => readings.value.filter(({ at }) => isLikelyDate(at)));
const from = computed(() => (dated.value[0] ? Date.parse(dated.value[0].at) - 3 * DAY_MS : 0));
const today = computed(() => Date.parse(now.value));
const probes = computed(() => (system.value && dated.value.length > 0 ? probeChart(system.value, dated.value) : null));
const removal = computed(() => (system.value && dated.value.length > 0 ? removalChart(system.value, dated.value) : null));
const resin = computed(() => (tracking.value ? resinChart(tracking.value, now.value) : null));
const span = computed(() => {
  const days = (today.value - from.value) / DAY_MS;
  return days > 62 ? `${Math.round(days / DAYS_PER_MONTH)} months` : `${Math.round(days)} days`;
});
const left = computed(() => {
  const t = tracking.value;
  if (!t) return '';
  const spread = Math.round(50 * (t.remaining.p90 - t.remaining.p10));
  const share = `${Math.round(100 * t.remaining.p50)}${THIN}% ± ${spread}`;
  if (!t.daysLeft) return share;
  const day = (days: number): string => longDay(today.value + days * DAY_MS);
  return `${share} · spent between ${day(t.daysLeft.p10)} and ${day(t.daysLeft.p90)}`;
});
const micro = (value: number): string => `${value}`;
const percent = (value: number): string => `${Math.round(value * 10) / 10}${THIN}%`;
</script>

<template>
  <div v-if="system && parsed" class="work">
    <main class="stack">
      <h1 class="hidden">Log</h1>
      <form class="sheet line" @submit.prevent="logging.submit">
        <span class="today">{{ parsed.at ? shortDay(parsed.at) : 'Now' }}</span>
        <QuickLineField v-model="text" :system="system" :parsed="parsed" @submit="logging.submit" />
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
        <DoubtList v-if="doubts.length > 0" class="doubts" :doubts="doubts" @answer="logging.answer" />
      </form>
      <template v-if="readings.length > 0">
        <section v-if="probes" class="sheet panel">
          <h2>
            Water at each probe <span>µS/cm, log scale · {{ span }}</span>
          </h2>
          <LineChart
            :series="probes.series"
            scale="log"
            :low="probes.low"
            :high="probes.high"
            :band="probes.band"
            :from="from"
            :until="today + DAY_MS"
            :format="micro"
            label="Conductivity at each probe over time"
          />
        </section>
        <section v-if="removal && removal.series.length > 0" class="sheet panel">
          <h2>Salt removed by the membrane <span>from the probes before and after it · about 98 % is good</span></h2>
          <LineChart
            :series="removal.series"
            scale="linear"
            :low="removal.low"
            :high="100"
            :from="from"
            :until="today + DAY_MS"
            :format="percent"
            label="Salt removed over time"
          />
        </section>
        <section v-if="resin && tracking" class="sheet panel">
          <h2>
            {{ tracking.name }} left <span data-testid="resin-left">{{ left }}</span>
          </h2>
          <LineChart
            :series="resin.series"
            scale="linear"
            :low="0"
            :high="100"
            :today="today"
            :from="resin.from"
            :until="resin.until"
            :format="percent"
            :label="`Resin left: ${left}`"
          />
        </section>
        <CartridgeChange />
        <ReadingTable :system="system" :readings="readings" @remove="remove" />
      </template>
    </main>
    <aside>
      <TrainStrip />
      <FindingsList title="What the log says" :findings="solved?.logFindings ?? []" />
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.hidden { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.line { display: grid; grid-template-columns: auto minmax(200px, 1.1fr) minmax(160px, 1fr) auto; gap: 6px 14px; align-items: center; padding: 8px 12px 8px 14px; }
.today { color: var(--muted); font-weight: 650; }
.says { line-height: 1.35; }
.keys { display: none; }
.doubts { grid-column: 1 / -1; padding: 6px 0; }
.problem { color: var(--bad); font-weight: 550; }
h2 span { font-weight: 450; font-size: 13.3px; color: var(--muted); padding-left: 8px; }
@media (max-width: 1000px) { .line { grid-template-columns: auto 1fr auto; } .says { grid-column: 1 / -1; order: 4; } }
@media (max-width: 860px) { .keys { display: inline-flex; } .line .button { min-height: 44px; } .line kbd, .today { display: none; } .line { grid-template-columns: 1fr auto auto; } h2 span { display: block; padding: 0; } }
</style>
