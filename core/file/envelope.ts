import type { SystemRecord } from './record';
import { FILE_VERSION } from './versions';

export const FILE_FORMAT = 'yes-clear';
export const FILE_ENDING = '.yesclear.json';

/** A file's marks round what it holds; nothing of it is checked here. */
export const envelope = (records: readonly SystemRecord[], savedAt: string) => ({
  format: FILE_FORMAT,
  version: FILE_VERSION,
  savedAt,
  records,
});

/** Data as the text of a file. */
export const fileText = (data: unknown): string => `${JSON.stringify(data, null, 1)}\n`;
