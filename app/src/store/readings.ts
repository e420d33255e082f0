import type { Reading } from '@yes-clear/core/file';
import { database } from './database';
import { useHistory } from './history';

/** Writes down an edit of a reading before it is carried out: who undoes at once must find it. */
function recorded(label: string, before: Reading | null, after: Reading | null): void {
  const systemId = (before ?? after)!.systemId;
  useHistory().record({ kind: 'reading', systemId, label, before, after, at: Date.now() });
}

/** Keeps a reading at once, undoable. */
export async function logReading(reading: Reading): Promise<void> {
  recorded('reading logged', null, reading);
  await database.readings.put(reading);
}

/** Takes a reading away, undoable. */
export async function removeReading(reading: Reading): Promise<void> {
  recorded('reading removed', reading, null);
  await database.readings.delete(reading.id);
}
