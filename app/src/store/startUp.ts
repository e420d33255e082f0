import { applyChanges, same } from '@yes-clear/core/file';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { database } from './database';
import { offerDemoOnce } from './demo';
import { adoptEdits, changedPart, commit } from './edits';
import { leftBehind } from './journal';
import { clearOrphans } from './recordingRows';
import { useSaving } from './saving';
import { useStoreState } from './storeState';
import { settleTab } from './tab';
import { lostSince, type Lost } from './tally';

/** What happens once when the app starts, and what is to be said of it. */
export const useStartUp = defineStore('startUp', () => {
  /** What was kept here when last seen and is not here now; null when all is there. */
  const lost = shallowRef<Lost | null>(null);
  /** Systems kept here once all the start does of itself was done, the demonstration of a first start included; null before. */
  const found = ref<number | null>(null);
  /** Whether the browser has promised not to clear what is kept here; null where it does not say. */
  const persistent = ref<boolean | null>(null);

  async function begin(): Promise<void> {
    await settleTab();
    if (!(await useStoreState().open())) return;
    try {
      lost.value = await lostSince();
      await recover();
      await adoptEdits();
      await clearOrphans();
      await offerDemoOnce();
      found.value = await database.systems.count();
    } catch (error) {
      useStoreState().fails(error);
    }
    await askToPersist();
  }

  /** Keeps what a tab that died had written down; a place that has changed since stays, and what the store refuses waits for the next start. */
  async function recover(): Promise<void> {
    for (const { entry, done } of await leftBehind(Date.now())) {
      const row = await database.systems.get(entry.systemId);
      const caughtUp = row && applyChanges(row.system, entry.changes, 'leave').state;
      if (caughtUp && !same(caughtUp, row.system)) {
        const kept = await useSaving().keep(entry.label, () => commit(entry.label, [changedPart(row.system, caughtUp)]));
        if (!kept.ok) continue;
      }
      done();
    }
  }

  /** Asks the browser to keep the store for good; where nobody asks, it may be cleared when space runs short. */
  async function askToPersist(): Promise<void> {
    if (!('storage' in navigator) || !('persist' in navigator.storage)) return;
    try {
      persistent.value = (await navigator.storage.persisted()) || (await navigator.storage.persist());
    } catch {
      persistent.value = null;
    }
  }
  return { begin, lost, persistent, found };
});
