import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { database, openDatabase } from './database';
import { whyNotKept, type NotKept } from './whyNotKept';

/** Whether this browser's store can be used; where it cannot, why, and what to do. */
export const useStoreState = defineStore('storeState', () => {
  const trouble = shallowRef<NotKept | null>(null);
  let isReady = (): void => undefined;
  /** Resolved once the store can be asked; a page waits for it, however long another tab holds it up. */
  const ready = new Promise<void>((done) => (isReady = done));
  /** Once another version has taken over, nothing makes this page good again but a reload. */
  let final = false;

  function fails(error: unknown): void {
    if (!final) trouble.value = whyNotKept(error);
  }
  function works(): void {
    if (!final) trouble.value = null;
  }
  function watchOver(): void {
    database.on('versionchange', () => {
      // A newer tab wants to bring the stores up: this one lets go, and writes nothing of the old shape any more.
      database.close({ disableAutoOpen: true });
      final = true;
      trouble.value = whyNotKept(Object.assign(new Error(), { name: 'NewerDatabase' }));
      return false;
    });
    database.on('blocked', () => {
      trouble.value = {
        reason: 'another tab holds an older Yes Clear open',
        remedy: 'Close the other tabs of Yes Clear, or reload them; this one goes on by itself.',
      };
    });
  }
  /** Opens the store; true once it can be used. */
  async function open(): Promise<boolean> {
    watchOver();
    try {
      await openDatabase();
      works();
      isReady();
      return true;
    } catch (error) {
      fails(error);
      return false;
    }
  }
  return { trouble, ready, open, fails, works };
});
