import { bytesOfText, textOfBytes, type Beside, type PackedPhoto, type PackedRecording, type SystemRecord } from '@yes-clear/core/file';
import { joinedBlock, joinedDays, packedFigures, recordedDays, unpackedBlock, type Channel, type Samples } from '@yes-clear/core/recording';
import { database, type BlockRow, type EditPart, type RecordingRow } from './database';
import { newId } from './newId';
import { asFineAsKept } from './recordings';
import { oneRecord } from './systems';
import { DoesNotFit } from './whyNotKept';

/** What is kept beside a system's readings, on its way into a file and out of it. */

/** A system with everything that is kept of it. */
export async function wholeRecord(id: string): Promise<SystemRecord | null> {
  const record = await oneRecord(id);
  return record && withBeside(record);
}

export async function withBeside(record: SystemRecord): Promise<SystemRecord> {
  const systemId = record.system.id;
  const [rows, photos] = await Promise.all([
    database.recordings.where('systemId').equals(systemId).toArray(),
    database.photos.where('systemId').equals(systemId).toArray(),
  ]);
  if (rows.length === 0 && photos.length === 0) return record;
  const beside: Beside = { recordings: [], photos: [] };
  for (const row of rows) beside.recordings.push(await packedRecording(row));
  for (const { id, readingId, takenAt, picture } of photos)
    beside.photos.push({
      id,
      readingId,
      takenAt,
      type: picture.type || 'image/jpeg',
      data: textOfBytes(new Uint8Array(await picture.arrayBuffer())),
    });
  return { ...record, beside };
}

async function packedRecording({ id, name, from, addedAt, rows, instruments }: RecordingRow): Promise<PackedRecording> {
  const blocks = await database.blocks.where('recordingId').equals(id).toArray();
  return {
    id,
    name,
    from,
    addedAt,
    rows,
    instruments: { ...instruments },
    blocks: blocks.map((block) => ({ channel: block.channel, tier: block.tier, startMs: block.startMs, data: packedFigures(block) })),
  };
}

/**
 * Writes what records of a file have beside them, each into the system it belongs to; nothing that is here is taken away.
 *
 * @returns what lets the records count, to be done in one go with the systems, and how many pictures came
 */
export async function restored(records: readonly SystemRecord[]): Promise<{ readonly parts: EditPart[]; readonly photos: number }> {
  const parts: EditPart[] = [];
  let photos = 0;
  for (const { system, beside } of records) {
    for (const recording of beside?.recordings ?? []) {
      const part = await restoredRecording(system.id, recording);
      if (part) parts.push(part);
    }
    for (const photo of beside?.photos ?? []) if (await restorePhoto(system.id, photo)) photos += 1;
  }
  return { parts, photos };
}

async function restorePhoto(systemId: string, { id, readingId, takenAt, type, data }: PackedPhoto): Promise<boolean> {
  if (await database.photos.get(id)) return false;
  await database.photos.put({ id, systemId, readingId, takenAt, picture: new Blob([bytesOfText(data)], { type }) });
  return true;
}

async function restoredRecording(systemId: string, packed: PackedRecording): Promise<EditPart | null> {
  const known = await database.recordings.get(packed.id);
  const isOther = known !== undefined && known.systemId !== systemId;
  const id = isOther ? newId() : packed.id;
  const before = isOther ? null : (known ?? null);
  const blocks = packed.blocks.map(({ channel, tier, startMs, data }): BlockRow => {
    const block = unpackedBlock(tier, startMs, data);
    if (!block.ok) throw new DoesNotFit(`the record “${packed.name}”: ${block.error.message}`);
    return { ...block.value, recordingId: id, channel: channel as Channel };
  });
  let changed = before === null;
  for (const block of blocks) {
    const there = await database.blocks.get([id, block.channel, block.tier, block.startMs]);
    const joined = there ? { ...block, ...joinedBlock(there, block) } : block;
    if (there && joined.at.length === there.at.length) continue;
    changed = true;
    await database.blocks.put(joined);
  }
  if (!changed) return null;
  const channels = [...new Set(blocks.map(({ channel }) => channel))];
  const samples = new Map<Channel, Samples>(
    channels.map((channel) => [channel, asFineAsKept(blocks.filter((block) => block.channel === channel))]),
  );
  const { name, from, addedAt, rows, instruments } = packed;
  const after: RecordingRow = {
    id,
    systemId,
    name,
    from,
    addedAt,
    rows: Math.max(rows, before?.rows ?? 0),
    instruments: { ...instruments, ...before?.instruments },
    channels: [...new Set([...(before?.channels ?? []), ...channels])],
    days: joinedDays(recordedDays(samples), before?.days ?? []),
  };
  return { kind: 'recording', before, after };
}
