import { readingIssue, type Reading } from '@yes-clear/core/file';
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
