import { defineStore } from 'pinia';
import { ref } from 'vue';
import { Workbox } from 'workbox-window';

/** How often an open tab asks whether there is a newer version, ms. */
const ASK_EVERY_MS = 3_600_000;

/** Whether the app is kept on this device, and whether a newer one waits. */
export const useOffline = defineStore('offline', () => {
  /** 'insecure': this address cannot keep the app (no https); 'refused' by the browser; 'not yet': on its way; 'kept': works without a signal. */
  const kept = ref<'insecure' | 'refused' | 'not yet' | 'kept'>('not yet');
  /** A newer version is there and waits for a word; or another tab has gone over to it already. */
  const newer = ref<'none' | 'waits' | 'took over'>('none');
  let worker: Workbox | null = null;
  /** The newer one was asked to take over: the browser lets it once the old one has finished what it is at, in seconds or in minutes. */
  const asked = ref(false);

  /** Has the browser keep the app, and watches for newer versions; a newer one takes over when it is asked to, never by itself. */
  function begin(): void {
    if (!('serviceWorker' in navigator) || !window.isSecureContext) {
      kept.value = window.isSecureContext ? 'refused' : 'insecure';
      return;
    }
    if (import.meta.env.DEV) return;
    // Where nothing kept the app before, what takes over is the first version and not a newer one.
    const first = navigator.serviceWorker.controller === null;
    if (!first) kept.value = 'kept';
    worker = new Workbox('/sw.js');
    worker.addEventListener('activated', () => (kept.value = 'kept'));
    worker.addEventListener('waiting', () => (newer.value = 'waits'));
    worker.addEventListener('controlling', ({ isUpdate, isExternal }) => {
      if (asked.value) location.reload();
      else if (!first && (isUpdate || isExternal)) newer.value = 'took over';
    });
    worker.register().catch(() => {
      if (kept.value !== 'kept') kept.value = 'refused';
    });
    const ask = (): void => void worker?.update().catch(() => undefined);
    setInterval(ask, ASK_EVERY_MS);
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') ask();
    });
  }
  /** Goes over to the newer version; what is typed is kept by the pages. */
  function adopt(): void {
    if (asked.value) return;
    if (newer.value !== 'waits') {
      location.reload();
      return;
    }
    asked.value = true;
    worker?.messageSkipWaiting();
  }
  return { kept, newer, asked, begin, adopt };
});
