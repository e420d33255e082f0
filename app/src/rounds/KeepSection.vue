<script setup lang="ts">
import { daysBetween } from '../time/dates';
import { computed } from 'vue';
import { useNotice } from '../kit/useNotice';
import { useOffline } from '../kit/useOffline';
import { sinceBackup } from '../store/sinceBackup';
import { useLive } from '../store/live';
import { useStartUp } from '../store/startUp';
import { exportEverything } from '../store/transfer';

/** Where everything is kept, for how long the browser promises it, and the ways in and out. */
const props = defineProps<{ demoIds: ReadonlySet<string> }>();
const emit = defineEmits<{ open: []; loadDemo: []; removeDemo: [] }>();
const notice = useNotice();
const startUp = useStartUp();
const offline = useOffline();
/** What would be gone with this device; what belongs to the demonstration is no loss. */
const since = useLive(() => sinceBackup(props.demoIds), null);
const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;
/** It in words; nothing where all of it is in a file. */
const atRiskSays = computed(() => {
  const { readings, systems } = since.value ?? { readings: 0, systems: 0 };
  return [
    ...(readings > 0 ? [counted(readings, 'reading', 'readings')] : []),
    ...(systems > 0 ? [`what was changed in ${counted(systems, 'system', 'systems')}`] : []),
  ].join(' and ');
});
const backupSays = computed(() => {
  if (!since.value) return '';
  if (since.value.at === null) return 'No backup file saved yet.';
  const days = daysBetween(since.value.at, new Date());
  return `Last backup file: ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`}.`;
});
/** A backup is asked for once so much lies outside of it, or so long. */
const ASK_READINGS = 20;
const ASK_DAYS = 14;
const remind = computed(() => {
  if (!since.value || atRiskSays.value === '') return false;
  const { at, readings } = since.value;
  return readings >= ASK_READINGS || (at !== null && daysBetween(at, new Date()) >= ASK_DAYS);
});
/** The browser's own answer on whether it will keep the store when space runs short. */
const promised = computed(() =>
  startUp.persistent === null
    ? ''
    : startUp.persistent
      ? 'The browser has promised not to clear it.'
      : 'The browser may clear it when space runs short: save a file now and then.',
);
const offlineSays = computed(
  () =>
    ({
      kept: 'Works without a signal.',
      'not yet': 'Being kept for use without a signal; not there yet.',
      insecure: 'This address has no https, so the app itself cannot be kept for use without a signal.',
      refused: 'The browser does not let the app itself be kept for use without a signal.',
    })[offline.kept],
);
async function save(): Promise<void> {
  const says = await exportEverything();
  if (says) notice.say(says);
}
</script>

<template>
  <section class="keep small">
    <p class="muted">Everything is kept in this browser. {{ promised }} {{ offlineSays }} {{ backupSays }}</p>
    <p v-if="atRiskSays" :class="{ remind }">If this device were lost today: {{ atRiskSays }}.</p>
    <div class="row">
      <button class="button small" type="button" @click="save">Save everything</button>
      <button class="button small" type="button" @click="emit('open')">Open a file</button>
      <button v-if="demoIds.size > 0" class="button small" type="button" @click="emit('removeDemo')">Remove the demo</button>
      <button v-else class="button small" type="button" @click="emit('loadDemo')">Load the demo</button>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.remind { color: var(--warning); font-weight: 600; }
.keep { display: grid; gap: 10px; }
.keep .row { gap: 6px; }
</style>
