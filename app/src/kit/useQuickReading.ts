import type { Reading } from '@yes-clear/core/file';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** A line on the page that takes readings of one system. */
interface Line {
  readonly systemId: string;
  readonly focus: () => void;
}

/** Whether the quick reading stands open, and for which system; null lets the person choose. */
export const useQuickReading = defineStore('quickReading', () => {
  const open = ref(false);
  const systemId = ref<string | null>(null);
  /** The reading logged last in this visit, which its page answers. */
  const last = shallowRef<Reading | null>(null);
  const line = shallowRef<Line | null>(null);
  /** What was typed before the line stood there to take it. */
  let ahead: string | null = null;
  function hold(event: KeyboardEvent): void {
    const isText = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
    const at = document.activeElement;
    const isElsewhere = at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement || at instanceof HTMLSelectElement;
    // A space presses the button it stands on.
    if (!open.value || ahead === null || !isText || isElsewhere || (event.key === ' ' && at instanceof HTMLButtonElement)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    ahead += event.key;
  }
  function start(id: string | null): void {
    systemId.value = id;
    open.value = true;
    if (ahead === null) window.addEventListener('keydown', hold, true);
    ahead = '';
  }
  /** The line stands there: it takes what was typed meanwhile, and every key from now on. */
  function takeTyped(): string {
    const typed = ahead ?? '';
    window.removeEventListener('keydown', hold, true);
    ahead = null;
    return typed;
  }
  /** Where a line of that system stands on the page, it takes the typing; nothing is laid over it. */
  function startTyping(id: string | null): void {
    if (line.value && line.value.systemId === id) line.value.focus();
    else start(id);
  }
  /** A page's own line, for as long as it stands there. */
  function offer(one: Line): () => void {
    line.value = one;
    return () => {
      if (line.value === one) line.value = null;
    };
  }
  return { open, systemId, last, takeTyped, start, startTyping, offer };
});
