import { newId } from './newId';

/** Which tab this is: each takes back its own edits, and those of tabs that are gone. Outlives a reload. */
const KEY = 'yes-clear:tab';
const LOCK = 'yes-clear-tab-';
let id = newId();

export const tabId = (): string => id;

/** Holds a lock for as long as the tab lives; false where another tab holds it, as after "duplicate tab". */
const hold = (name: string): Promise<boolean> =>
  new Promise((told) => {
    void navigator.locks.request(LOCK + name, { ifAvailable: true }, (lock) => {
      told(lock !== null);
      return lock === null ? undefined : new Promise<never>(() => undefined);
    });
  });

/** Takes up the id this tab had before a reload, or a new one. */
export async function settleTab(): Promise<void> {
  try {
    const before = sessionStorage.getItem(KEY);
    // Without https there are no locks: then a duplicated tab shares its undo with the one it came from.
    const mine = before !== null && (!('locks' in navigator) || (await hold(before)));
    if (mine) id = before;
    else if ('locks' in navigator) await hold(id);
    sessionStorage.setItem(KEY, id);
  } catch {
    // No session storage: the id lasts as long as the page.
  }
}

/** Tabs that are open now; null where the browser does not tell. */
export async function openTabs(): Promise<ReadonlySet<string> | null> {
  if (!('locks' in navigator)) return null;
  const { held } = await navigator.locks.query();
  return new Set([id, ...(held ?? []).flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : []))]);
}
