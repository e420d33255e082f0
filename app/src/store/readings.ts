import { readingIssue, type Reading } from '@yes-clear/core/file';
import Dexie from 'dexie';
import { database } from './database';
import { commit } from './edits';
import { DoesNotFit } from './whyNotKept';

/** Keeps a reading, undoable; one that could not be opened from a file again is refused. */
export async function logReading(reading: Reading): Promise<void> {
  const issue = readingIssue(reading);
  if (issue) throw new DoesNotFit(`${issue.path} is ${issue.value}; accepted is ${issue.expected}`);
  await commit('reading logged', [{ kind: 'reading', before: null, after: reading }]);
}

/** Takes a reading away, undoable. */
export const removeReading = (reading: Reading): Promise<void> =>
  commit('reading removed', [{ kind: 'reading', before: reading, after: null }]);

/** Readings about a moment: what a new one is held against before it counts. */
export async function readingsAround(systemId: string, at: string): Promise<Reading[]> {
  const [before, after] = await Promise.all([
    database.readings
      .where('[systemId+at]')
      .between([systemId, Dexie.minKey], [systemId, at], true, true)
      .reverse()
      .limit(AROUND)
      .toArray(),
    database.readings.where('[systemId+at]').between([systemId, at], [systemId, Dexie.maxKey], false, true).limit(AROUND).toArray(),
  ]);
  return [...before.reverse(), ...after];
}
const AROUND = 40;

/** Writes a reading as it is now, with when that was, undoable. */
export async function changeReading(before: Reading, changed: Reading, label = 'reading changed'): Promise<void> {
  const after = { ...changed, editedAt: new Date().toISOString() };
  const issue = readingIssue(after);
  if (issue) throw new DoesNotFit(`${issue.path} is ${issue.value}; accepted is ${issue.expected}`);
  await commit(label, [{ kind: 'reading', before, after }]);
}

/** Keeps many readings as one thing that can be taken back; one that does not fit stops all of them, named. */
export async function bringInReadings(readings: readonly Reading[]): Promise<void> {
  for (const reading of readings) {
    const issue = readingIssue(reading);
    if (issue) throw new DoesNotFit(`${issue.path} is ${issue.value}; accepted is ${issue.expected}`);
  }
  await commit(
    `${readings.length} readings brought in`,
    readings.map((after) => ({ kind: 'reading', before: null, after })),
  );
}
