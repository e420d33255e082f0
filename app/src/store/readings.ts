import type { Reading } from '@yes-clear/core/file';
import { database } from './database';
import { useHistory } from './history';

/** Keeps a reading at once, undoable. */
export async function logReading(reading: Reading): Promise<void> {
  await database.readings.put(reading);
  useHistory().record({
    kind: 'reading',
    systemId: reading.systemId,
    label: 'reading logged',
    before: null,
    after: reading,
    at: Date.now(),
  });
}

/** Takes a reading away, undoable. */
export async function removeReading(reading: Reading): Promise<void> {
  await database.readings.delete(reading.id);
  useHistory().record({
    kind: 'reading',
    systemId: reading.systemId,
    label: 'reading removed',
    before: reading,
    after: null,
    at: Date.now(),
  });
}
