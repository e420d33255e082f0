import { timeOfDay } from '../time/dates';
import type { FileIssue, SystemRecord } from '@yes-clear/core/file';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { DoesNotFit, whyNotKept, type NotKept } from './whyNotKept';

export type Kept<T> = { readonly ok: true; readonly value: T } | ({ readonly ok: false } & NotKept);

/** A page with edits of its own on their way. */
export interface Holder {
  /** What it shows that is not kept yet. */
  readonly unsaved: () => SystemRecord | null;
  readonly again: () => Promise<void>;
}

/** What the page says of saving, from the writes' own outcome: nothing is called saved before it is. */
export const useSaving = defineStore('saving', () => {
  const pending = ref(0);
  const savedAt = ref<number | null>(null);
  const failed = shallowRef<(NotKept & { readonly what: string }) | null>(null);
  let holders: readonly Holder[] = [];
  const hold = (holder: Holder): void => void (holders = [...holders, holder]);
  const letGo = (holder: Holder): void => void (holders = holders.filter((one) => one !== holder));
  /** What is on screens and not kept yet. */
  const unsaved = (): SystemRecord[] => holders.flatMap((holder) => holder.unsaved() ?? []);
  /** Tries again whatever waits to be kept. */
  async function again(): Promise<void> {
    failed.value = null;
    for (const holder of holders) await holder.again();
  }

  /** Carries out a write and tells of it; what was written is named as a person would: "the reading". */
  async function keep<T>(what: string, write: () => Promise<T>): Promise<Kept<T>> {
    pending.value += 1;
    try {
      const value = await write();
      savedAt.value = Date.now();
      failed.value = null;
      return { ok: true, value };
    } catch (error) {
      const why = whyNotKept(error);
      failed.value = { ...why, what };
      console.error(`Not saved: ${what}.`, error);
      return { ok: false, ...why };
    } finally {
      pending.value -= 1;
    }
  }

  /** What does not fit the model is not kept, and said: the same bounds hold for field, store and file. */
  function refuse(what: string, issue: FileIssue): void {
    failed.value = { what, ...whyNotKept(new DoesNotFit(`${issue.path} is ${issue.value}; accepted is ${issue.expected}`)) };
  }

  /** In the header: saving, saved at, not saved; null before the first write. */
  const says = computed(() => {
    if (failed.value) return 'not saved';
    if (pending.value > 0) return 'saving';
    return savedAt.value === null ? null : `saved ${timeOfDay(savedAt.value)}`;
  });
  return { keep, refuse, says, failed, hold, letGo, unsaved, again, savedAt };
});
