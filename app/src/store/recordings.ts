import type { Reading, System } from '@yes-clear/core/file';
import {
  between,
  blocksOf,
  blockStart,
  instrumentsAt,
  joinedSamples,
  NO_SAMPLES,
  readingOfDay,
  recordedDays,
  samplesOf,
  without,
  type Block,
  type Channel,
  type Samples,
  type Tier,
} from '@yes-clear/core/recording';
import { database, type BlockRow, type RecordingRow } from './database';
import { dropBlocks } from './recordingRows';

/** The finest first: where two tiers tell of a time, the finer stands. */
const TIERS: readonly Tier[] = ['kept', 'every', 'minute', 'hour'];

/** Days of a system's recordings as readings. */
export async function recordedReadings(systemId: string): Promise<Reading[]> {
  const rows = await database.recordings.where('systemId').equals(systemId).toArray();
  return rows.flatMap((row) => row.days.map((day) => readingOfDay({ id: systemId }, row.id, day, row.instruments)));
}

/** The log of a system: what was typed and, day by day, what was recorded, in order of time. */
export async function logOf(systemId: string): Promise<Reading[]> {
  const [typed, recorded] = await Promise.all([database.readings.where('systemId').equals(systemId).toArray(), recordedReadings(systemId)]);
  return together(typed, recorded);
}

/** What was typed and what was recorded, in order of time. */
export const together = (typed: readonly Reading[], recorded: readonly Reading[]): Reading[] =>
  [...typed, ...recorded].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));

/** Blocks of a channel of a recording that reach into a stretch of time, of all tiers. */
export async function blocksIn(recordingId: string, channel: Channel, fromMs: number, untilMs: number): Promise<BlockRow[]> {
  const found = await Promise.all(
    TIERS.map((tier) =>
      database.blocks
        .where('[recordingId+channel+tier+startMs]')
        .between([recordingId, channel, tier, blockStart(tier, fromMs)], [recordingId, channel, tier, untilMs], true, true)
        .toArray(),
    ),
  );
  return found.flat();
}

/** What a channel gave in a stretch of time, as finely as it is kept. */
export function asFineAsKept(blocks: readonly Block[]): Samples {
  return TIERS.map((tier) => samplesOf(blocks.filter((block) => block.tier === tier))).reduce((finer, coarser) => {
    // A coarser tier tells of the time before the finer begins.
    return joinedSamples(finer, between(coarser, -Infinity, finer.at[0] ?? Infinity));
  }, NO_SAMPLES);
}

/** A file of a meter on its way into the database. */
export interface RecordingDraft {
  readonly id: string;
  readonly system: System;
  readonly name: string;
  readonly addedAt: string;
  readonly channels: ReadonlyMap<Channel, Samples>;
}
export interface Written {
  /** Null where all of it was here already. */
  readonly row: RecordingRow | null;
  /** Rows that were here already. */
  readonly twice: number;
}

/** Blocks written at once. */
const BATCH = 24;

/**
 * Writes the blocks of a recording, without what other recordings of the system have already. Its row comes last, by
 * `keepRecording`: until then none of it counts, and what was cut off is cleared away at the next start.
 */
export async function writeRecording(
  { id, system, name, addedAt, channels }: RecordingDraft,
  progress: (share: number) => void,
  cancelled: () => boolean,
): Promise<Written | null> {
  const others = await database.recordings.where('systemId').equals(system.id).toArray();
  const fresh = new Map<Channel, Samples>();
  let most = 0;
  for (const [channel, samples] of channels) {
    most = Math.max(most, samples.at.length);
    const there = await Promise.all(
      others
        .filter((row) => row.channels.includes(channel))
        .map(async (row) => asFineAsKept(await blocksIn(row.id, channel, samples.at[0]!, samples.at.at(-1)!))),
    );
    const left = without(samples, there.reduce(joinedSamples, NO_SAMPLES));
    if (left.at.length > 0) fresh.set(channel, left);
  }
  const rows = Math.max(0, ...[...fresh.values()].map(({ at }) => at.length));
  if (fresh.size === 0) return { row: null, twice: most };
  const days = recordedDays(fresh);
  progress(0.3);
  const blocks = [...fresh].flatMap(([channel, samples]) =>
    blocksOf('kept', samples).map((block): BlockRow => ({ ...block, recordingId: id, channel })),
  );
  try {
    for (let i = 0; i < blocks.length; i += BATCH) {
      if (cancelled()) {
        await dropBlocks(id);
        return null;
      }
      await database.blocks.bulkPut(blocks.slice(i, i + BATCH));
      progress(0.3 + (0.7 * (i + BATCH)) / blocks.length);
    }
  } catch (error) {
    // On a full disk what is there already would only be in the way.
    await dropBlocks(id).catch(() => undefined);
    throw error;
  }
  const row: RecordingRow = {
    id,
    systemId: system.id,
    name,
    from: 'file',
    addedAt,
    instruments: instrumentsAt(system, [...fresh.keys()]),
    channels: [...fresh.keys()],
    rows,
    days,
  };
  return { row, twice: most - rows };
}
