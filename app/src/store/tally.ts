import { liveQuery } from 'dexie';
import { database } from './database';

/** How much was kept here, written beside the database: so that a store that lost something is found out. */
interface Tally {
  readonly systems: number;
  readonly readings: number;
  readonly at: string;
}
export interface Lost {
  readonly was: Tally;
  readonly systems: number;
  readonly readings: number;
}

const KEY = 'yes-clear:tally';
const counted = async (): Promise<Omit<Tally, 'at'>> => ({
  systems: await database.systems.count(),
  readings: await database.readings.count(),
});

function lastTally(): Tally | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null') as Tally | null;
  } catch {
    return null;
  }
}

/** Compares what is here with what was here; from then on keeps count. */
export async function lostSince(): Promise<Lost | null> {
  const was = lastTally();
  const now = await counted();
  liveQuery(counted).subscribe({
    next: (count) => {
      try {
        localStorage.setItem(KEY, JSON.stringify({ ...count, at: new Date().toISOString() } satisfies Tally));
      } catch {
        // Without it a loss is not found out; nothing else rests on it.
      }
    },
    error: () => undefined,
  });
  return was && (now.systems < was.systems || now.readings < was.readings) ? { was, ...now } : null;
}
