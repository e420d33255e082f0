<script setup lang="ts">
import { daysBetween } from '../time/dates';
import { computed } from 'vue';
import { useNotice } from '../kit/useNotice';
import { useOffline } from '../kit/useOffline';
import { readFact } from '../store/database';
import { useLive } from '../store/live';
import { useStartUp } from '../store/startUp';
import { exportEverything } from '../store/transfer';

/** Where everything is kept, for how long the browser promises it, and the ways in and out. */
defineProps<{ hasDemo: boolean }>();
const emit = defineEmits<{ open: []; loadDemo: []; removeDemo: [] }>();
const notice = useNotice();
const startUp = useStartUp();
const offline = useOffline();
const lastBackup = useLive(() => readFact('lastBackupAt'), null);
const backupSays = computed(() => {
  if (!lastBackup.value) return 'No backup file saved yet.';
  const days = daysBetween(lastBackup.value, new Date());
  return `Last backup file: ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`}.`;
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
    <div class="row">
      <button class="button small" type="button" @click="save">Save everything</button>
      <button class="button small" type="button" @click="emit('open')">Open a file</button>
      <button v-if="hasDemo" class="button small" type="button" @click="emit('removeDemo')">Remove the demo</button>
      <button v-else class="button small" type="button" @click="emit('loadDemo')">Load the demo</button>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.keep { display: grid; gap: 10px; }
.keep .row { gap: 6px; }
</style>
