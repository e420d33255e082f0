import { database, type RecordingRow } from './database';
import { commit } from './edits';

/** Recordings by their rows: kept, taken away, and cleared of what was never finished. Knows nothing of their figures. */

export const dropBlocks = (recordingId: string): Promise<number> => database.blocks.where('recordingId').equals(recordingId).delete();

/** Lets a recording whose blocks are written count, undoable. */
export const keepRecording = (row: RecordingRow): Promise<void> =>
  commit(`${row.name} brought in`, [{ kind: 'recording', before: null, after: row }]);

/** Takes a recording away, undoable. */
export const removeRecording = (row: RecordingRow): Promise<void> =>
  commit(`${row.name} removed`, [{ kind: 'recording', before: row, after: null }]);

const WRITING = 'yes-clear-recording';
/** Holds what is being written from being cleared away by another tab that starts meanwhile. */
export function whileWriting<T>(work: () => Promise<T>): Promise<T> {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return work();
  return navigator.locks.request(WRITING, { mode: 'shared' }, work);
}

/** Clears away blocks of recordings that were never finished, or that nothing can bring back any more. */
export async function clearOrphans(): Promise<void> {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return;
  await navigator.locks.request(WRITING, { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    const ids = (await database.blocks.orderBy('recordingId').uniqueKeys()) as string[];
    if (ids.length === 0) return;
    const kept = new Set<string>(await database.recordings.toCollection().primaryKeys());
    const edits = await database.edits.toArray();
    for (const part of edits.flatMap(({ parts }) => parts)) if (part.kind === 'recording') kept.add((part.after ?? part.before)!.id);
    for (const id of ids) if (!kept.has(id)) await dropBlocks(id);
  });
}

/** Recordings of a system, the newest first. */
export async function recordingsOf(systemId: string): Promise<RecordingRow[]> {
  const rows = await database.recordings.where('systemId').equals(systemId).toArray();
  return rows.sort((a, b) => b.addedAt.localeCompare(a.addedAt));
}
