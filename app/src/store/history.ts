import type { Reading, System } from '@yes-clear/core/file';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { database } from './database';
import { changedKeys, restored } from './restore';

/** One thing a person did, with what is needed to take it back. */
export type Edit =
  | {
      readonly kind: 'system';
      readonly systemId: string;
      readonly label: string;
      readonly before: System;
      readonly after: System;
      readonly at: number;
    }
  | {
      readonly kind: 'reading';
      readonly systemId: string;
      readonly label: string;
      readonly before: Reading | null;
      readonly after: Reading | null;
      readonly at: number;
    };

/** Typing in one field is one edit while the pauses are shorter than this, ms. */
const ONE_EDIT_MS = 1500;
const DEPTH = 200;

/** Undo and redo for every edit of a system, in this tab. */
export const useHistory = defineStore('history', () => {
  // Shallow: the states go back to the database as they are, and it takes no proxies.
  const done = shallowRef<readonly Edit[]>([]);
  const undone = shallowRef<readonly Edit[]>([]);
  const lastSavedAt = ref<number | null>(null);

  function record(edit: Edit): void {
    lastSavedAt.value = edit.at;
    undone.value = [];
    const previous = done.value[done.value.length - 1];
    const continues =
      previous?.kind === 'system' &&
      edit.kind === 'system' &&
      previous.systemId === edit.systemId &&
      previous.label === edit.label &&
      edit.at - previous.at < ONE_EDIT_MS;
    if (continues) done.value = [...done.value.slice(0, -1), { ...edit, before: previous.before }];
    else done.value = [...done.value, edit].slice(-DEPTH);
  }

  /** Puts one side of an edit back; returns the label for the notice, or null when there was nothing. */
  async function move(from: typeof done, to: typeof undone, side: 'before' | 'after'): Promise<string | null> {
    const edit = from.value[from.value.length - 1];
    if (!edit) return null;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, edit];
    if (edit.kind === 'reading') {
      const target = edit[side];
      const other = edit.before ?? edit.after;
      if (target) await database.readings.put(target);
      else if (other) await database.readings.delete(other.id);
    } else {
      const target = edit[side];
      const keys = changedKeys(edit.before, edit.after);
      await database.transaction('rw', database.systems, async () => {
        const row = await database.systems.get(edit.systemId);
        // Only what this edit touched goes back: what another tab did meanwhile stays.
        if (row) await database.systems.put({ ...row, revision: row.revision + 1, system: restored(row.system, target, keys) });
      });
    }
    lastSavedAt.value = Date.now();
    return edit.label;
  }

  return {
    record,
    undo: () => move(done, undone, 'before'),
    redo: () => move(undone, done, 'after'),
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    lastSavedAt,
  };
});
