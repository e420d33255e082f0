<script setup lang="ts">
import { useNow } from '@vueuse/core';
import { format, differenceInCalendarDays } from 'date-fns';
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import HeaderBar from '../shell/HeaderBar.vue';
import { useNotice } from '../shell/useNotice';
import { useQuickReading } from '../shell/useQuickReading';
import { useKey } from '../shell/useShortcuts';
import { readFact } from '../store/database';
import { loadDemo, removeDemo } from '../store/demo';
import { allRecords, removeSystem, useLive } from '../store/systems';
import { exportEverything, exportSystem, importFile } from '../store/transfer';
import RoundRow from './RoundRow.vue';
import { GROUPS, roundOf } from './useRounds';
import type { FileError } from '@yes-clear/core/file';

/** Rounds: every system, the urgent ones first; or, on a first visit, what this is. */
const NewSystem = defineAsyncComponent(() => import('./NewSystem.vue'));
const QuickReading = defineAsyncComponent(() => import('../shell/QuickReading.vue'));
const quick = useQuickReading();
const notice = useNotice();
const clock = useNow({ interval: 60_000 });
const records = useLive<Awaited<ReturnType<typeof allRecords>> | null>(allRecords, null);
const lastBackup = useLive(() => readFact('lastBackupAt'), null);
const rounds = computed(() => (records.value ?? []).map((record) => roundOf(record, clock.value.toISOString())));
const groups = computed(() => GROUPS.map((group) => ({ ...group, rounds: rounds.value.filter((round) => round.urgency === group.key) })).filter((group) => group.rounds.length > 0));
const sites = computed(() => new Set(rounds.value.map((round) => round.site)).size);
const hasDemo = computed(() => rounds.value.some((round) => round.demo));
const due = computed(() =>
  rounds.value
    .flatMap((round) => round.due.map((item) => ({ ...item, id: round.id })))
    .filter((item) => differenceInCalendarDays(new Date(item.at), clock.value) <= 30)
    .sort((a, b) => a.at.localeCompare(b.at)),
);
const dueDay = (at: string): string => (differenceInCalendarDays(new Date(at), clock.value) < 0 ? 'overdue' : format(new Date(at), 'd MMM'));

const creating = ref(false);
const trouble = ref<FileError | null>(null);
const doomed = ref<{ id: string; name: string } | null>(null);
const picker = useTemplateRef<HTMLInputElement>('picker');
async function open(event: Event): Promise<void> {
  const target = event.target as HTMLInputElement;
  const file = target.files?.[0];
  target.value = '';
  if (!file) return;
  const outcome = await importFile(file);
  trouble.value = outcome.ok ? null : outcome.error;
  if (outcome.ok) notice.say(outcome.records.length === 1 ? `Opened ${outcome.records[0]!.system.name}.` : `Opened ${outcome.records.length} systems.`);
}
async function removeNow(): Promise<void> {
  if (doomed.value) await removeSystem(doomed.value.id);
  doomed.value = null;
}
const backupSays = computed(() => {
  if (!lastBackup.value) return 'No backup file saved yet.';
  const days = differenceInCalendarDays(clock.value, new Date(lastBackup.value));
  return `Last backup file: ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`}.`;
});
useKey('n', () => (creating.value = true));
useKey('r', () => quick.start(null));
document.title = 'Yes Clear';
</script>

<template>
  <div>
    <HeaderBar
      title="Rounds"
      :subtitle="rounds.length === 0 ? 'Nothing kept here yet' : `${rounds.length} ${rounds.length === 1 ? 'system' : 'systems'} · ${sites} ${sites === 1 ? 'site' : 'sites'}`"
    >
      <template #tools>
        <button v-if="rounds.length > 0" class="button read" type="button" @click="quick.start(null)">
          <span class="long">Quick reading</span><span class="short">Read</span> <kbd>R</kbd>
        </button>
        <button class="button primary" type="button" @click="creating = true">
          <span>New<span class="long"> system</span></span> <kbd>N</kbd>
        </button>
      </template>
    </HeaderBar>
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

    <section v-if="records && rounds.length === 0" class="first">
      <h1>From the tap to a logged reading.</h1>
      <p>
        Yes Clear works out reverse-osmosis and deionization systems for the people who build and look after them: what a water becomes,
        stage by stage, and when each part is spent. Everything is computed and kept in this browser, with or without a signal.
      </p>
      <div class="ways">
        <button class="button primary" type="button" @click="creating = true">New system from a template</button>
        <button class="button" type="button" @click="picker?.click()">Open a file</button>
        <button class="button" type="button" @click="loadDemo()">Load the demo</button>
      </div>
    </section>

    <div v-else-if="records" class="work">
      <main>
        <section v-for="group in groups" :key="group.key" class="stack group" :aria-label="group.label">
          <h3>{{ group.label }}</h3>
          <RoundRow
            v-for="round in group.rounds"
            :key="round.id"
            :round="round"
            @save="exportSystem(round.id)"
            @remove="doomed = { id: round.id, name: round.name }"
          />
        </section>
      </main>
      <aside class="side">
        <section>
          <h2>Next 30 days</h2>
          <ol v-if="due.length > 0" class="due">
            <li v-for="item in due" :key="item.id + item.says">
              <span :class="{ late: dueDay(item.at) === 'overdue' }">{{ dueDay(item.at) }}</span><RouterLink
                :to="{ name: 'log', params: { id: item.id } }"
                >{{ item.says }}</RouterLink
              >
            </li>
          </ol>
          <p v-else class="muted small">Nothing falls due.</p>
        </section>
        <section class="keep small">
          <p class="muted">Everything is kept in this browser. {{ backupSays }}</p>
          <div class="row">
            <button class="button small" type="button" @click="exportEverything()">Save everything</button>
            <button class="button small" type="button" @click="picker?.click()">Open a file</button>
            <button v-if="hasDemo" class="button small" type="button" @click="removeDemo()">Remove the demo</button>
            <button v-else class="button small" type="button" @click="loadDemo()">Load the demo</button>
          </div>
        </section>
      </aside>
    </div>

    <v-dialog :model-value="doomed !== null" max-width="420" @update:model-value="doomed = null">
      <v-card class="confirm">
        <h1>Remove {{ doomed?.name }}?</h1>
        <p>The system and all its readings leave this browser. Save it as a file first if it may be wanted again.</p>
        <div class="row end">
          <button class="button" type="button" @click="doomed = null">Keep it</button
          ><button class="button danger" type="button" @click="removeNow">Remove</button>
        </div>
      </v-card>
    </v-dialog>
    <NewSystem v-if="creating" v-model="creating" />
    <QuickReading v-if="quick.open" />
  </div>
</template>

<style scoped>
.group + .group { margin-top: 18px; }
.group h3 { padding-left: 2px; }
.side { display: flex; flex-direction: column; justify-content: space-between; gap: 28px; }
.due { list-style: none; margin: 10px 0 0; padding: 0; }
.due li { display: grid; grid-template-columns: 66px 1fr; gap: 6px; padding: 8px 0; border-top: 1px solid var(--line); font-size: 13.8px; }
.due span { color: var(--muted); font-weight: 600; }
.due .late { color: var(--bad); }
.due a { color: inherit; text-decoration: none; }
.due a:hover { text-decoration: underline; }
.keep { display: grid; gap: 10px; }
.keep .row { gap: 6px; }
.first { max-width: 640px; margin: 12vh auto 0; padding: 0 20px; display: grid; gap: 18px; }
.first h1 { font-size: 30px; }
.first p { font-size: 17px; line-height: 1.5; }
.ways { display: flex; gap: 10px; flex-wrap: wrap; }
.trouble { margin: 14px 20px 0; padding: 12px 14px; border-left: 4px solid var(--bad); display: flex; gap: 16px; justify-content: space-between; align-items: flex-start; }
.trouble ul { margin: 6px 0; padding-left: 18px; font-size: 13.5px; }
.trouble code { font-family: var(--typed); font-size: 13px; overflow-wrap: anywhere; }
.confirm { padding: 18px 20px; display: grid; gap: 12px; }
.end { justify-content: flex-end; }
.short { display: none; }
@media (max-width: 860px) { .long, .button kbd { display: none; } .short { display: inline; } .button.primary, .read { min-height: 42px; } .work { padding-bottom: 12px !important; } }
</style>
