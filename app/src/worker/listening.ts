import { DAY_MS } from '@yes-clear/core/quantity';
import { readSenml, type Heard } from '@yes-clear/core/recording';
import { config } from 'zod';
import { caught, heardUpToKey, keepCaught, SETTLE_MS, settleAir, watchListeners, type Caught, type Listener } from '../store/air';
import { openDatabase, readFact } from '../store/database';
import { AIR_CHANNEL, METERS_STREAM, whatIsOnAir, type AirNews } from './air';

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
/** A gateway that says nothing for so long is given up and asked again, ms. */
const HANGS_MS = 90_000;
/** After the store refused something, ms. */
const FULL_AGAIN_MS = 30_000;

let by: ReadonlyMap<string, readonly Listener[]> = new Map();
let waiting: Caught[] = [];
/** The gateway that is listened to, by its name, and how far it was heard. */
let gateway = '';
let heardUpTo: number | null = null;
let source: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
let keeping = false;
let watchdog: ReturnType<typeof setTimeout> | undefined;

/** Gives the gateway up when it is silent for too long: it may hang with its connection open. */
function watch(): void {
  clearTimeout(watchdog);
  watchdog = setTimeout(lost, HANGS_MS);
}

function hear(event: MessageEvent<string>): void {
  watch();
  let heard: readonly Heard[];
  let says: string;
  try {
    const read = readSenml(JSON.parse(event.data), Date.now());
    if (!read.ok) {
      tell({ kind: 'state', state: 'garbled', says: read.error.message });
      return;
    }
    heard = read.value.heard;
    says = read.value.mistimed[0]?.says ?? '';
  } catch {
    tell({ kind: 'state', state: 'garbled', says: 'What the meters sent is no JSON.' });
    return;
  }
  const own = caught(heard, by);
  waiting.push(...own);
  const id = Number(event.lastEventId);
  if (Number.isFinite(id) && event.lastEventId !== '') heardUpTo = id;
  if (own.length > 0) tell({ kind: 'heard', figures: newestOf(own) });
  tell({ kind: 'state', state: says ? 'garbled' : 'listening', says });
}

/** A stretch the gateway has nothing of any more; what is no stretch of time is nothing to tell. */
function gap(event: MessageEvent<string>): void {
  watch();
  try {
    const { from, until } = JSON.parse(event.data) as { from?: unknown; until?: unknown };
    if (typeof from === 'number' && typeof until === 'number' && from < until && until < Date.now() + DAY_MS)
      tell({ kind: 'gap', from, until });
  } catch {
    // Not a word of it can be read: nothing is known of a gap.
  }
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
    if (upTo !== null && figures.length > 0) await keepCaught(figures, gateway, upTo);
  } catch (error) {
    // What could not be kept is asked of the meters again, from where the last that was kept ends.
    waiting = [];
    heardUpTo = await lastKept();
    source?.close();
    source = null;
    clearTimeout(watchdog);
    again = setTimeout(() => void connect(), FULL_AGAIN_MS);
    tell({ kind: 'state', state: 'full', says: error instanceof Error ? error.message : String(error) });
  } finally {
    keeping = false;
  }
}

function lost(): void {
  clearTimeout(watchdog);
  source?.close();
  source = null;
  tell({ kind: 'state', state: 'lost', says: '' });
  clearTimeout(again);
  again = setTimeout(() => void connect(), AGAIN_MS);
}

/** The newest attempt to connect: an older one that answers late does nothing. */
let attempt = 0;
async function connect(): Promise<void> {
  clearTimeout(again);
  again = undefined;
  source?.close();
  source = null;
  const mine = (attempt += 1);
  if (by.size === 0) return;
  watch();
  // Ids of another gateway say nothing of this one's: it is asked for its name before it is asked to go on.
  const air = await whatIsOnAir();
  if (mine !== attempt) return;
  if (!air.ok) {
    lost();
    return;
  }
  if (air.value.name !== gateway) {
    await keep();
    gateway = air.value.name;
    heardUpTo = await lastKept();
    if (mine !== attempt) return;
  }
  source = new EventSource(heardUpTo === null ? METERS_STREAM : `${METERS_STREAM}?after=${heardUpTo}`);
  source.addEventListener('senml', hear);
  source.addEventListener('gap', gap);
  source.addEventListener('beat', watch);
  source.addEventListener('open', () => tell({ kind: 'state', state: 'listening', says: '' }));
  source.addEventListener('error', lost);
}

async function lastKept(): Promise<number | null> {
  const last = await readFact(heardUpToKey(gateway)).catch(() => null);
  return last === null ? null : Number(last);
}

/** Holds the connection for as long as this tab lives. */
async function holdOn(): Promise<void> {
  setInterval(() => void keep(), KEEP_MS);
  setInterval(() => void keep().then(() => settleAir(Date.now()).catch(() => undefined)), SETTLE_MS);
  watchListeners((now) => {
    const [before, names] = [[...by.keys()].sort().join(' '), [...now.keys()].sort().join(' ')];
    by = now;
    if (before !== names || (source === null && again === undefined)) void connect();
  });
  await settleAir(Date.now()).catch(() => undefined);
  await new Promise<never>(() => undefined);
}

void openDatabase().then(() => ('locks' in navigator ? navigator.locks.request('yes-clear-listening', holdOn) : holdOn()));
