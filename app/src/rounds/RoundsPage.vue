<script setup lang="ts">
import { dayAndTime } from '../time/dates';
import { useLocalStorage, useNow } from '@vueuse/core';
import { computed, defineAsyncComponent, ref, shallowRef, useTemplateRef, watch } from 'vue';
import HeaderBar from '../kit/HeaderBar.vue';
import TimerStrip from '../kit/TimerStrip.vue';
import TroubleBar from '../kit/TroubleBar.vue';
import { useNotice } from '../kit/useNotice';
import { useQuickReading } from '../kit/useQuickReading';
import { useKey } from '../kit/useKeys';
import { loadDemo, removeDemo } from '../store/demo';
import { useUndo } from '../kit/useUndo';
import { useSaving } from '../store/saving';
import { useStartUp } from '../store/startUp';
import { removeSystems } from '../store/systems';
import { carryOutImport, exportSystem, readImport, type ClashChoice, type ImportPlan } from '../store/transfer';
import ConfirmDialog from './ConfirmDialog.vue';
import KeepSection from './KeepSection.vue';
import RoundRow from './RoundRow.vue';
import { importSays } from './importSays';
import DueList from './DueList.vue';
import LoadList from './LoadList.vue';
import Segments from '../kit/Segments.vue';
import { download } from '../store/download';
import { useDue } from './useDue';
import { GROUPS, useRounds, type RoundLine } from './useRounds';
import type { FileError, MergeChoices } from '@yes-clear/core/file';

/** Rounds: every system, the urgent ones first; or, on a first visit, what this is. */
const FirstVisit = defineAsyncComponent(() => import('./FirstVisit.vue'));
const NewSystem = defineAsyncComponent(() => import('./NewSystem.vue'));
const ImportQuestion = defineAsyncComponent(() => import('./ImportQuestion.vue'));
const quick = useQuickReading();
const notice = useNotice();
const saving = useSaving();
const undoAction = useUndo();
const startUp = useStartUp();
const clock = useNow({ interval: 60_000 });
const { lines, loaded } = useRounds(clock);
/** Ways to look at the same systems. */
const VIEWS = [
  { value: 'urgency', title: 'By urgency' },
  { value: 'site', title: 'By site' },
  { value: 'date', title: 'By date' },
  { value: 'load', title: 'To load' },
] as const;
const view = useLocalStorage<(typeof VIEWS)[number]['value']>('yes-clear:rounds-view', 'urgency');
/** Headings and rows as they follow one another. */
const entries = computed(() => {
  const groups =
    view.value === 'site'
      ? [...new Set(lines.value.map(({ site }) => site))]
          .sort()
          .map((site) => ({ key: site, label: site, of: (line: RoundLine) => line.site === site }))
      : GROUPS.map(({ key, label }) => ({ key, label, of: (line: RoundLine) => (line.round?.urgency ?? 'unknown') === key }));
  return groups.flatMap((group) => {
    const rows = lines.value.filter(group.of).map((line) => ({ key: line.id, label: null, line }));
    return rows.length > 0 ? [{ key: `group ${group.key}`, label: group.label, line: null }, ...rows] : [];
  });
});
const sites = computed(() => new Set(lines.value.map((line) => line.site)).size);
/** Nothing is kept here: on a start that found nothing, or once the last system was removed. */
const hadSome = ref(false);
watch(
  () => lines.value.length > 0,
  (some) => (hadSome.value ||= some),
);
const isEmpty = computed(() => loaded.value && lines.value.length === 0 && (startUp.found === 0 || hadSome.value));
const demoIds = computed(() => new Set(lines.value.filter(({ demo }) => demo).map(({ id }) => id)));
const subtitle = computed(() => {
  if (!loaded.value) return 'Reading what is kept in this browser';
  if (lines.value.length === 0) return 'Nothing kept here yet';
  return `${lines.value.length} ${lines.value.length === 1 ? 'system' : 'systems'} · ${sites.value} ${sites.value === 1 ? 'site' : 'sites'}`;
});
/** Days ahead that are listed, and how many of what falls due then. */
const AHEAD_DAYS = 30;
const LISTED = 14;
const due = useDue(lines, clock, ref(AHEAD_DAYS));
const listed = computed(() => due.value.slice(0, LISTED));
async function saveCalendar(): Promise<void> {
  const { calendarText } = await import('../kit/calendar');
  const text = calendarText(
    due.value.map((item) => ({ systemId: item.systemId, site: item.site, due: item })),
    new Date(),
  );
  download('yes-clear-rounds.ics', new Blob([text], { type: 'text/calendar' }));
}

const creating = ref(false);
const trouble = ref<FileError | null>(null);
const picker = useTemplateRef<HTMLInputElement>('picker');
/** A file that was read and waits for an answer. */
const asking = shallowRef<ImportPlan | null>(null);
async function open(event: Event): Promise<void> {
  const target = event.target as HTMLInputElement;
  const file = target.files?.[0];
  target.value = '';
  if (!file) return;
  const read = await saving.keep('opening the file', () => readImport(file));
  if (!read.ok) return;
  trouble.value = read.value.ok ? null : read.value.error;
  if (!read.value.ok) return;
  const { plan } = read.value;
  if (plan.clashes.length > 0 || plan.odd.length > 0) asking.value = plan;
  else await carryOut(plan, new Map(), 'keep');
}
async function carryOut(
  plan: ImportPlan,
  choices: ReadonlyMap<string, ClashChoice>,
  odd: 'keep' | 'leave',
  said?: MergeChoices,
): Promise<void> {
  const kept = await saving.keep('opening the file', () =>
    carryOutImport(plan, ({ here }) => choices.get(here.system.id) ?? 'leave', odd, said),
  );
  asking.value = null;
  if (kept.ok) notice.say(importSays(plan, kept.value), kept.value.opened.length > 0 ? undoAction : null);
}

const doomed = ref<{ id: string; name: string } | null>(null);
async function removeNow(): Promise<void> {
  const system = doomed.value;
  doomed.value = null;
  if (!system) return;
  const kept = await saving.keep('removing the system', () => removeSystems([system.id]));
  if (kept.ok) notice.say(`${system.name} removed.`, undoAction);
}
const doom = ({ id, name }: RoundLine): void => void (doomed.value = { id, name });
const demoDoomed = ref(false);
async function removeDemoNow(): Promise<void> {
  demoDoomed.value = false;
  const kept = await saving.keep('removing the demo', () => removeDemo());
  if (kept.ok) notice.say('Demo removed.', undoAction);
}
const putDemo = (): Promise<unknown> => saving.keep('the demo', () => loadDemo());
async function saveSystem(id: string): Promise<void> {
  const says = await exportSystem(id);
  if (says) notice.say(says);
}
useKey('n', () => (creating.value = true));
useKey('r', () => quick.start(null));
document.title = 'Yes Clear';
</script>

<template>
  <div>
    <HeaderBar title="Rounds" :subtitle="subtitle">
      <template #tools>
        <button v-if="lines.length > 0" class="button read" type="button" @click="quick.start(null)">
          <span class="long">Quick reading</span><span class="short">Read</span> <kbd>R</kbd>
        </button>
        <button class="button primary" type="button" @click="creating = true">
          <span>New<span class="long"> system</span></span> <kbd>N</kbd>
        </button>
      </template>
    </HeaderBar>
    <TroubleBar />
    <TimerStrip />
    <input ref="picker" type="file" accept=".json,application/json" hidden aria-label="Open a file" data-testid="file" @change="open" />
    <div v-if="trouble" class="trouble sheet" role="alert">
      <div>
        <strong>{{ trouble.message }}</strong>
        <ul v-if="trouble.issues.length > 1">
          <li v-for="issue in trouble.issues.slice(0, 6)" :key="issue.path + issue.expected">
            <code>{{ issue.path }}</code> is {{ issue.value }}; accepted is {{ issue.expected }}
          </li>
        </ul>
        <p class="muted small">Nothing was changed.</p>
      </div>
      <button class="button small" type="button" @click="trouble = null">Close</button>
    </div>

    <div v-if="startUp.lost" class="trouble sheet" role="alert">
      <div>
        <strong
          >Of {{ startUp.lost.was.systems }} systems and {{ startUp.lost.was.readings }} readings kept here on
          {{ dayAndTime(startUp.lost.was.at) }}, {{ startUp.lost.systems }} and {{ startUp.lost.readings }} could be read back.</strong
        >
        <p class="small">
          The browser’s store was damaged or cleared. Open your last backup file: it is merged with what is here, and nothing that is here
          is lost by it.
        </p>
      </div>
      <div class="row">
        <button class="button small" type="button" @click="picker?.click()">Open a file</button>
        <button class="button small" type="button" @click="startUp.lost = null">Close</button>
      </div>
    </div>

    <FirstVisit v-if="isEmpty" @template="creating = true" @open="picker?.click()" @demo="putDemo" />

    <div v-else-if="loaded" class="work">
      <main>
        <!-- One list for all groups: a row that goes to another group is the same row, with its menu if that stands open. -->
        <div v-if="lines.length > 1" class="views"><Segments v-model="view" label="Rounds" :choices="VIEWS" /></div>
        <DueList v-if="view === 'date'" :items="due" />
        <LoadList v-else-if="view === 'load'" :items="due" />
        <div v-else class="stack">
          <template v-for="entry in entries" :key="entry.key">
            <h3 v-if="entry.label !== null" class="group">{{ entry.label }}</h3>
            <RoundRow v-else-if="entry.line" :line="entry.line" @save="saveSystem" @remove="doom" />
          </template>
        </div>
      </main>
      <aside class="side">
        <section>
          <h2>Next 30 days</h2>
          <ol v-if="listed.length > 0" class="due">
            <li v-for="item in listed" :key="item.systemId + item.id">
              <span :class="{ late: item.late }">{{ item.day }}</span><RouterLink :to="{ name: 'log', params: { id: item.systemId } }">{{
                item.says
              }}</RouterLink>
            </li>
          </ol>
          <p v-else class="muted small">Nothing falls due.</p>
          <p v-if="due.length > listed.length" class="muted small more">and {{ due.length - listed.length }} more</p>
          <div v-if="due.length > 0" class="row tools">
            <button type="button" class="button small" @click="saveCalendar">Save as calendar file</button>
            <RouterLink class="button small" :to="{ name: 'visit' }">Visit sheet</RouterLink>
            <RouterLink class="button small" :to="{ name: 'van-year' }">The van’s year</RouterLink>
          </div>
        </section>
        <section>
          <h2>Practice</h2>
          <p class="muted small practise">Find what is hidden in a simulated rig, where nothing floods.</p>
          <RouterLink class="button small" :to="{ name: 'practice' }">To the practice bench</RouterLink>
        </section>
        <KeepSection
          :key="demoIds.size"
          :demo-ids="demoIds"
          @open="picker?.click()"
          @load-demo="putDemo"
          @remove-demo="demoDoomed = true"
        />
      </aside>
    </div>

    <ConfirmDialog v-if="doomed" :title="`Remove ${doomed.name}?`" verb="Remove" @cancel="doomed = null" @confirm="removeNow">
      The system and all its readings leave this browser. Save it as a file first if it may be wanted again.
    </ConfirmDialog>
    <ConfirmDialog v-if="demoDoomed" title="Remove the demo?" verb="Remove" @cancel="demoDoomed = false" @confirm="removeDemoNow">
      Its systems leave this browser with everything you tried on them. Systems of your own stay.
    </ConfirmDialog>
    <ImportQuestion
      v-if="asking"
      :plan="asking"
      @carry-out="(choices, odd, said) => asking && carryOut(asking, choices, odd, said)"
      @cancel="asking = null"
    />
    <NewSystem v-if="creating" v-model="creating" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.group { padding-left: 2px; }
.group:not(:first-child) { margin-top: 6px; }
.views { margin-bottom: 12px; overflow-x: auto; }
.tools { gap: 6px; padding-top: 10px; flex-wrap: wrap; }
.side { display: flex; flex-direction: column; justify-content: space-between; gap: 28px; }
.due { list-style: none; margin: 10px 0 0; padding: 0; }
.more { padding-top: 8px; }
.practise { padding: 4px 0 8px; }
.due li { display: grid; grid-template-columns: 66px 1fr; gap: 6px; padding: 8px 0; border-top: 1px solid var(--line); font-size: 13.8px; }
.due span { color: var(--muted); font-weight: 600; }
.due .late { color: var(--bad); }
.due a { color: inherit; text-decoration: none; }
.due a:hover { text-decoration: underline; }
.trouble { margin: 14px 20px 0; padding: 12px 14px; border-left: 4px solid var(--bad); display: flex; gap: 16px; justify-content: space-between; align-items: flex-start; }
.trouble ul { margin: 6px 0; padding-left: 18px; font-size: 13.5px; }
.trouble code { font-family: var(--typed); font-size: 13px; overflow-wrap: anywhere; }
.short { display: none; }
@media (max-width: 860px) { .long, .button kbd { display: none; } .short { display: inline; } .button.primary, .read { min-height: 42px; } .work { padding-bottom: 12px !important; } }
</style>
