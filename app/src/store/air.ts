import { DAY_MS } from '@yes-clear/core/quantity';
import { same, type Instrument, type Sensor, type System } from '@yes-clear/core/file';
import {
  blocksOf,
  blockEnd,
  canBe,
  channelOf,
  figureOf,
  instrumentAt,
  instrumentsAt,
  joinedBlock,
  joinedDays,
  ordered,
  recordedDays,
  rolledUp,
  type Channel,
  type Heard,
  type Samples,
} from '@yes-clear/core/recording';
import { liveQuery } from 'dexie';
import { database, systemRevisions, type BlockRow, type HeardUpTo, type RecordingRow } from './database';
import { asFineAsKept, blocksIn } from './recordings';

/** What comes over the air, kept as it comes: everything for a day, one figure a minute for a month, one an hour for ever. */

/** From one settling of what was heard to the next, ms. */
export const SETTLE_MS = 60_000;
const EVERY_FOR_MS = DAY_MS;
const MINUTES_FOR_MS = 31 * DAY_MS;

/** Where a meter's figures go in a system. */
export interface Listener {
  readonly systemId: string;
  readonly channel: Channel;
  readonly reads: Sensor['reads'];
  readonly instrument: Instrument | null;
}

/** What a system listens to, by the name it is sent under. */
function listenersOf(system: System): (readonly [string, Listener])[] {
  return system.sensors.flatMap((sensor) => {
    const channel = channelOf(system, sensor);
    if (channel === null) return [];
    return [[sensor.sensor, { systemId: system.id, channel, reads: sensor.reads, instrument: instrumentAt(system, channel) }]];
  });
}

/**
 * Who listens to which name, of all systems here, told anew when that may have changed. Watches ids and revisions, and
 * reads only systems that changed.
 */
export function watchListeners(next: (by: ReadonlyMap<string, readonly Listener[]>) => void): void {
  const known = new Map<string, { readonly revision: number; readonly own: (readonly [string, Listener])[] }>();
  let last = Promise.resolve();
  async function catchUp(pairs: readonly (readonly [string, number])[]): Promise<void> {
    const here = new Map(pairs);
    for (const id of known.keys()) if (!here.has(id)) known.delete(id);
    const changed = pairs.flatMap(([id, revision]) => (known.get(id)?.revision === revision ? [] : [id]));
    for (const row of await database.systems.bulkGet(changed))
      if (row) known.set(row.id, { revision: row.revision, own: listenersOf(row.system) });
    next(
      new Map(
        [
          ...grouped(
            [...known.values()].flatMap(({ own }) => own),
            ([name]) => name,
          ),
        ].map(([name, own]) => [name, own.map(([, listener]) => listener)]),
      ),
    );
  }
  liveQuery(systemRevisions).subscribe({
    next: (pairs) => void (last = last.then(() => catchUp(pairs)).catch(() => undefined)),
    error: () => undefined,
  });
}

/** A figure on its way into a system's recording. */
export interface Caught {
  readonly systemId: string;
  readonly channel: Channel;
  readonly atMs: number;
  readonly value: number;
}

/** What of the figures heard somebody listens to. */
export function caught(heard: readonly Heard[], by: ReadonlyMap<string, readonly Listener[]>): Caught[] {
  return heard.flatMap((one) =>
    (by.get(one.name) ?? []).flatMap(({ systemId, channel, reads, instrument }) => {
      const value = figureOf(one, reads, instrument);
      return value !== null && canBe(channel, value) ? [{ systemId, channel, atMs: one.atMs, value }] : [];
    }),
  );
}

/** The recording of what a system's meters say over the air: one a system, the same on every device. */
export const airId = (systemId: string): string => `air-${systemId}`;

export const heardUpToKey = (gateway: string): HeardUpTo => `heardUpTo ${gateway}`;

/** Keeps figures and how far a gateway was heard, in one: after a break it goes on just there. */
export async function keepCaught(figures: readonly Caught[], gateway: string, heardUpTo: number): Promise<void> {
  await database.transaction('rw', [database.systems, database.recordings, database.blocks, database.facts], async () => {
    for (const [systemId, own] of grouped(figures, ({ systemId }) => systemId)) {
      const row = await database.systems.get(systemId);
      if (!row) continue;
      const channels = grouped(own, ({ channel }) => channel);
      const earliestMs = own.reduce((least, { atMs }) => Math.min(least, atMs), Infinity);
      await keepRow(row.system, [...channels.keys()], earliestMs);
      for (const [channel, list] of channels) {
        const samples = ordered(
          list.map(({ atMs }) => atMs),
          list.map(({ value }) => value),
        );
        for (const block of blocksOf('every', samples)) await putBlock({ ...block, recordingId: airId(systemId), channel });
      }
    }
    await database.facts.put({ key: heardUpToKey(gateway), value: String(heardUpTo) });
  });
}

function grouped<T, K>(list: readonly T[], by: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of list) {
    const key = by(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}

async function keepRow(system: System, channels: readonly Channel[], earliestMs: number): Promise<void> {
  const id = airId(system.id);
  const known = await database.recordings.get(id);
  const lateMs = known ? lateOf(known, earliestMs) : undefined;
  if (known && known.lateMs === lateMs && channels.every((channel) => known.channels.includes(channel))) return;
  const all = [...new Set([...(known?.channels ?? []), ...channels])];
  const fresh: RecordingRow = {
    id,
    systemId: system.id,
    name: 'Over the air',
    from: 'air',
    addedAt: new Date(earliestMs).toISOString(),
    rows: 0,
    days: [],
    ...known,
    ...(lateMs === undefined ? {} : { lateMs }),
    channels: all,
    instruments: { ...instrumentsAt(system, all), ...known?.instruments },
  };
  await database.recordings.put(fresh);
}

/** From when on days must be counted anew: what comes late belongs to the day it was read on. */
function lateOf({ days, lateMs }: RecordingRow, earliestMs: number): number | undefined {
  const last = days.at(-1);
  if (!last || earliestMs >= last.day * DAY_MS) return lateMs;
  return Math.min(lateMs ?? Infinity, earliestMs);
}

async function putBlock(block: BlockRow): Promise<void> {
  const there = await database.blocks.get([block.recordingId, block.channel, block.tier, block.startMs]);
  await database.blocks.put(there ? { ...block, ...joinedBlock(there, block) } : block);
}

/** Once a minute: the days of what was heard are counted anew, and what is old is kept more coarsely. */
export async function settleAir(now: number): Promise<void> {
  const rows = await database.recordings.filter(({ from }) => from === 'air').toArray();
  for (const { id } of rows)
    await database.transaction('rw', [database.recordings, database.blocks], async () => {
      const row = await database.recordings.get(id);
      if (!row) return;
      // Days that may have grown since they were counted last: those behind the last one counted, and itself; and those
      // of what came late.
      const last = row.days.at(-1) ? row.days.at(-1)!.day * DAY_MS : 0;
      const from = Math.min(last, Math.floor((row.lateMs ?? Infinity) / DAY_MS) * DAY_MS);
      const channels = new Map<Channel, Samples>();
      for (const channel of row.channels) channels.set(channel, asFineAsKept(await blocksIn(id, channel, from, now + DAY_MS)));
      const days = recordedDays(channels, usualFlow(row.days)).filter(({ day }) => day * DAY_MS >= from);
      // Nothing new heard: nobody who rests on the days is told of them again.
      const before = row.days.filter(({ day }) => day * DAY_MS >= from);
      if (row.lateMs !== undefined || (days.length > 0 && !same(days, before))) {
        const joined = joinedDays(row.days, days);
        const { lateMs: _, ...counted } = row;
        await database.recordings.put({ ...counted, days: joined, rows: joined.reduce((sum, { count }) => sum + count, 0) });
      }
      for (const channel of row.channels) {
        await coarsen(id, channel, 'every', 'minute', now - EVERY_FOR_MS);
        await coarsen(id, channel, 'minute', 'hour', now - MINUTES_FOR_MS);
      }
    });
}

/** What flows while the unit runs, by the days counted so far, L/h; 0 where none is. */
const usualFlow = (days: RecordingRow['days']): number =>
  days.reduce((most, { figures }) => Math.max(most, figures.find(([channel]) => channel === 'productLPerH')?.[1] ?? 0), 0);

async function coarsen(
  recordingId: string,
  channel: Channel,
  from: 'every' | 'minute',
  to: 'minute' | 'hour',
  beforeMs: number,
): Promise<void> {
  const old = (
    await database.blocks
      .where('[recordingId+channel+tier+startMs]')
      .between([recordingId, channel, from, 0], [recordingId, channel, from, beforeMs])
      .toArray()
  ).filter((block) => blockEnd(block) <= beforeMs);
  for (const block of rolledUp(old, to, channel === 'meterL')) await putBlock({ ...block, recordingId, channel });
  await database.blocks.bulkDelete(old.map(({ tier, startMs }) => [recordingId, channel, tier, startMs]));
}
