import { readSenml, type Heard } from '@yes-clear/core/recording';
import { config } from 'zod';
import { caught, keepCaught, SETTLE_MS, settleAir, watchListeners, type Caught, type Listener } from '../store/air';
import { openDatabase, readFact } from '../store/database';
import { AIR_CHANNEL, METERS_STREAM, type AirNews } from './air';

/**
 * Listens to the meters on the air, beside every page: one tab at a time holds the connection and writes; all of them
 * are told what was heard.
 */
config({ jitless: true });

const news = new BroadcastChannel(AIR_CHANNEL);
const tell = (what: AirNews): void => news.postMessage(what);

/** From one write to the next, ms, and from a lost connection to the next try. */
const KEEP_MS = 2000;
const AGAIN_MS = 3000;
/** After the store refused something, ms. */
const FULL_AGAIN_MS = 30_000;

let by: ReadonlyMap<string, readonly Listener[]> = new Map();
let waiting: Caught[] = [];
let heardUpTo: number | null = null;
let source: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
let keeping = false;

function hear(event: MessageEvent<string>): void {
  let heard: readonly Heard[];
  try {
    const read = readSenml(JSON.parse(event.data), Date.now());
    if (!read.ok) {
      tell({ kind: 'state', state: 'garbled', says: read.error.message });
      return;
    }
    heard = read.value;
  } catch {
    tell({ kind: 'state', state: 'garbled', says: 'What the meters sent is no JSON.' });
    return;
  }
  const own = caught(heard, by);
  waiting.push(...own);
  const id = Number(event.lastEventId);
  if (Number.isFinite(id) && event.lastEventId !== '') heardUpTo = id;
  if (own.length > 0) tell({ kind: 'heard', figures: newestOf(own) });
  tell({ kind: 'state', state: 'listening', says: '' });
}

/** Of each channel the last figure: what a page shows. */
const newestOf = (figures: readonly Caught[]): Caught[] => [
  ...new Map(figures.map((one) => [`${one.systemId} ${one.channel}`, one])).values(),
];

async function keep(): Promise<void> {
  if (keeping || (waiting.length === 0 && heardUpTo === null)) return;
  keeping = true;
  const figures = waiting;
  const upTo = heardUpTo;
  waiting = [];
  try {
    if (upTo !== null && figures.length > 0) await keepCaught(figures, upTo);
  } catch (error) {
    // What could not be kept is asked of the meters again, from where the last that was kept ends.
    waiting = [];
    heardUpTo = await lastKept();
    source?.close();
    source = null;
    again = setTimeout(connect, FULL_AGAIN_MS);
    tell({ kind: 'state', state: 'full', says: error instanceof Error ? error.message : String(error) });
  } finally {
    keeping = false;
  }
}

function connect(): void {
  clearTimeout(again);
  again = undefined;
  source?.close();
  source = null;
  if (by.size === 0) return;
  source = new EventSource(heardUpTo === null ? METERS_STREAM : `${METERS_STREAM}?after=${heardUpTo}`);
  source.addEventListener('senml', hear);
  source.addEventListener('gap', (event: MessageEvent<string>) =>
    tell({ kind: 'gap', ...(JSON.parse(event.data) as { from: number; until: number }) }),
  );
  source.addEventListener('open', () => tell({ kind: 'state', state: 'listening', says: '' }));
  source.addEventListener('error', () => {
    source?.close();
    source = null;
    tell({ kind: 'state', state: 'lost', says: '' });
    again = setTimeout(connect, AGAIN_MS);
  });
}

async function lastKept(): Promise<number | null> {
  const last = await readFact('heardUpTo').catch(() => null);
  return last === null ? null : Number(last);
}

/** Holds the connection for as long as this tab lives. */
async function holdOn(): Promise<void> {
  heardUpTo = await lastKept();
  setInterval(() => void keep(), KEEP_MS);
  setInterval(() => void keep().then(() => settleAir(Date.now()).catch(() => undefined)), SETTLE_MS);
  watchListeners((now) => {
    const [before, names] = [[...by.keys()].sort().join(' '), [...now.keys()].sort().join(' ')];
    by = now;
    if (before !== names || (source === null && again === undefined)) connect();
  });
  await settleAir(Date.now()).catch(() => undefined);
  await new Promise<never>(() => undefined);
}

void openDatabase().then(() => ('locks' in navigator ? navigator.locks.request('yes-clear-listening', holdOn) : holdOn()));
