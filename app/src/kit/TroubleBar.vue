<script setup lang="ts">
import { computed } from 'vue';
import { useNotice } from './useNotice';
import { useSaving } from '../store/saving';
import { useStoreState } from '../store/storeState';
import { exportEverything } from '../store/transfer';
import { useOffline } from './useOffline';

/** What stands in the way of keeping things, and what to do about it; and a newer version that waits. */
const saving = useSaving();
const store = useStoreState();
const offline = useOffline();
const notice = useNotice();
const trouble = computed(() => {
  if (store.trouble) return { title: `What is kept in this browser cannot be used: ${store.trouble.reason}.`, says: store.trouble.remedy };
  if (saving.failed) return { title: `Not saved (${saving.failed.what}): ${saving.failed.reason}.`, says: saving.failed.remedy };
  return null;
});
const reload = (): void => location.reload();
async function save(): Promise<void> {
  notice.say((await exportEverything(saving.unsaved())) ?? 'Saved to a file.');
}
</script>

<template>
  <div v-if="trouble" class="bar bad" role="alert" data-testid="trouble">
    <p>
      <strong>{{ trouble.title }}</strong> {{ trouble.says }}
    </p>
    <div class="row">
      <button v-if="saving.failed && !store.trouble" class="button small" type="button" @click="saving.again()">Try again</button>
      <button v-if="store.trouble" class="button small" type="button" @click="reload">Reload</button>
      <button class="button small" type="button" @click="save">Save everything to a file</button>
      <button v-if="saving.failed && !store.trouble" class="button small plain" type="button" @click="saving.failed = null">Close</button>
    </div>
  </div>
  <div v-else-if="offline.newer !== 'none'" class="bar" role="status" data-testid="newer">
    <p>
      <strong>A newer Yes Clear is here.</strong>
      {{
        offline.newer === 'waits'
          ? offline.asked
            ? 'It takes over as soon as the old one has finished, at the latest when all its tabs are closed; what is typed is kept.'
            : 'It waits until you say so; what is typed is kept.'
          : 'Another tab has gone over to it: reload this one when it suits you.'
      }}
    </p>
    <div class="row">
      <button class="button small" type="button" :disabled="offline.asked" @click="offline.adopt()">
        {{ offline.newer === 'waits' ? 'Use it now' : 'Reload' }}
      </button>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.bar { position: sticky; top: var(--header); z-index: 19; display: flex; gap: 8px 16px; align-items: center; justify-content: space-between; flex-wrap: wrap; padding: 8px 20px; background: var(--select); border-bottom: 1px solid var(--line); font-size: 14px; line-height: 1.4; }
.bar.bad { background: color-mix(in srgb, var(--bad) 12%, var(--sheet)); border-bottom-color: var(--bad); }
.bar p { flex: 1 1 320px; }
.row { gap: 6px; }
@media (max-width: 860px) { .bar { padding: 8px 12px; } .bar .button { min-height: 40px; } }
</style>
