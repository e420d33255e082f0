<script setup lang="ts">
import { AS_USUAL, outlookFindings, outlookTitle } from '@yes-clear/core/year';
import { DAY_MS } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import FindingCard from '../kit/FindingCard.vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { download, plainName } from '../store/download';
import { useOpenSystem } from '../system/openSystem';
import WhatIfSliders from './WhatIfSliders.vue';
import YearPicture from './YearPicture.vue';
import { USUAL_WEEKS, useYear, YEARS, type YearState, type Years } from './useYear';

/** The coming years of one system: as its log has it today, or as if it were new. */
const props = defineProps<{ state: YearState; beside: boolean }>();
const open = useOpenSystem();
const { system } = open;
const router = useRouter();
const notice = useNotice();
const year = useYear(open, () => props.state);
const { outlook, bands, problem, working } = year;
const CHOICES = YEARS.map((value) => ({ value: String(value), title: value === 1 ? '1 year' : String(value) }));
const title = computed(() =>
  outlook.value && system.value ? outlookTitle(outlook.value, system.value.units, system.value.prices.currency) : 'The year ahead',
);
const findings = computed(() =>
  outlook.value && system.value
    ? outlookFindings(
        outlook.value,
        bands.value,
        year.narrows.value,
        system.value.units,
        system.value.prices.currency,
        system.value.train.stages.some((stage) => stage.kind === 'tank'),
      )
    : [],
);
const moved = computed(
  () =>
    JSON.stringify(year.whatIf.value) !== JSON.stringify(AS_USUAL) || year.missed.value !== null || year.bundleWeeks.value !== USUAL_WEEKS,
);
async function saveCalendar(): Promise<void> {
  const [now, current] = [outlook.value, system.value];
  if (!now || !current) return;
  const { visitsCalendar } = await import('../kit/calendar');
  const names = new Map(now.names);
  const text = visitsCalendar(
    current.id,
    current.site,
    now.run.events.map(({ day, parts }) => ({
      at: new Date(now.startMs + day * DAY_MS).toISOString(),
      says: `${current.name}: ${parts.map((part) => names.get(part) ?? part).join(', ')}`,
    })),
    new Date(),
  );
  download(`${plainName(`${current.site} ${current.name} year ahead`)}.ics`, new Blob([text], { type: 'text/calendar' }));
  notice.say(`${now.run.visits} visits saved as a calendar file.`);
}
const offer = (): void => void router.push({ name: 'build', query: { view: 'papers', with: 'year' } });
</script>

<template>
  <div v-if="system" class="ahead" :class="{ 'is-beside': beside }">
    <div class="main">
      <div class="page-head">
        <component :is="beside ? 'h1' : 'h2'">{{ title }}</component>
        <Segments
          label="Years"
          :choices="CHOICES"
          :model-value="String(year.years.value)"
          @update:model-value="year.years.value = Number($event) as Years"
        />
        <label class="visits"><input v-model="year.countVisits.value" type="checkbox" /> count visits</label>
        <button class="button" type="button" :disabled="!outlook" @click="saveCalendar">Save as calendar</button>
        <button class="button primary" type="button" :disabled="!outlook" @click="offer">Offer as PDF</button>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <template v-if="outlook">
        <WhatIfSliders
          :year="year"
          :outlook="outlook"
          :resin-price="system.prices.resinPerL"
          :currency="system.prices.currency"
          :units="system.units"
        />
        <div class="sheet picture">
          <YearPicture :outlook="outlook" :bands="bands" :units="system.units" :currency="system.prices.currency" />
        </div>
        <p class="small muted">
          {{ state === 'today' ? 'From today, with what the log says each part has behind it.' : 'As if it were all new today.' }} Each day
          as its middle; no morning cold, no dips of pressure.
          <template v-if="moved"
            >This is what if: nothing of it is kept.
            <button class="link" type="button" @click="year.asUsual">As usual again</button></template
          >
        </p>
      </template>
    </div>
    <component :is="beside ? 'aside' : 'section'" class="brings" aria-label="What the year brings">
      <h2>What the year brings</h2>
      <p v-if="working !== null" class="small muted" role="status">
        How sure it is, is being worked out… {{ Math.round(100 * working) }}&thinsp;%
      </p>
      <FindingCard v-for="finding in findings" :key="finding.id" :finding="finding" />
    </component>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.ahead { display: grid; gap: 12px; }
.is-beside { grid-template-columns: minmax(0, 1fr) 326px; gap: 0; min-height: calc(100vh - var(--header)); }
.main { display: grid; gap: 10px; align-content: start; min-width: 0; }
.is-beside .main { padding: 14px 14px 28px 20px; }
.page-head { margin-bottom: 0; }
.page-head h2 { flex: 1 1 220px; font-size: 16px; }
.visits { display: flex; align-items: center; gap: 6px; font-size: 13.6px; color: var(--muted); min-height: 32px; }
.visits input { accent-color: var(--action); width: 18px; height: 18px; }
.picture { padding: 10px 6px 0; min-width: 0; overflow: hidden; }
.brings { display: grid; gap: 10px; align-content: start; }
.is-beside .brings { background: var(--side); border-left: 1px solid var(--line); padding: 14px 16px 28px; }
.problem { color: var(--bad); font-weight: 550; }
.link { border: 0; background: transparent; font: inherit; color: var(--action); text-decoration: underline; cursor: pointer; padding: 0; }
@media (max-width: 860px) {
  .is-beside { grid-template-columns: minmax(0, 1fr); }
  .is-beside .main { padding: 12px 12px 18px; }
  .is-beside .brings { border-left: 0; border-top: 1px solid var(--line); padding: 14px 12px 90px; }
}
</style>
