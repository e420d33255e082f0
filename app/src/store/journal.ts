import type { Change } from '@yes-clear/core/file';
import { openTabs, tabId } from './tab';

/**
 * What has been typed and is not in the database yet. Written in the same breath as the key press, so that a tab that
 * dies at once loses nothing; taken away when the database has it.
 */
export interface Typed {
  readonly systemId: string;
  readonly label: string;
  readonly changes: readonly Change[];
  readonly at: number;
}

const PREFIX = 'yes-clear:typed:';
let count = 0;

/** Writes an entry down; returns the way to take it away again. */
export function writeDown(entry: Typed): () => void {
  const key = `${PREFIX}${tabId()}:${entry.at}-${(count += 1)}`;
  try {
    localStorage.setItem(key, JSON.stringify(entry));
  } catch {
    // Full or forbidden: the database write is on its way all the same.
    return () => undefined;
  }
  return () => {
    try {
      localStorage.removeItem(key);
    } catch {
      // What could be written can be removed, unless storage was taken away meanwhile.
    }
  };
}

/** Without a word from the browser on open tabs, what is younger than this may still be on its way, ms. */
const UNDER_WAY_MS = 5000;

/** Entries left behind by tabs that are gone, oldest first, each with the way to take it away. */
export async function leftBehind(now: number): Promise<{ readonly entry: Typed; readonly done: () => void }[]> {
  try {
    const open = await openTabs();
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(PREFIX))
      .flatMap((key) => {
        const entry = JSON.parse(localStorage.getItem(key) ?? 'null') as Typed | null;
        const tab = key.slice(PREFIX.length).split(':')[0]!;
        const living = open ? open.has(tab) && tab !== tabId() : tab !== tabId() && now - (entry?.at ?? 0) < UNDER_WAY_MS;
        return entry && !living ? [{ entry, done: () => localStorage.removeItem(key) }] : [];
      })
      .sort((a, b) => a.entry.at - b.entry.at);
  } catch {
    return [];
  }
}
