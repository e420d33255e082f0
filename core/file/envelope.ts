import type { SystemRecord } from './record';
import { FILE_VERSION } from './versions';

export const FILE_FORMAT = 'yes-clear';
export const FILE_ENDING = '.yesclear.json';

/** A file as it is written, whatever it holds. */
export interface Envelope {
  readonly format: string;
  readonly version: number;
  readonly savedAt: string;
  readonly records: readonly SystemRecord[];
}

/** A file's marks round what it holds; nothing of it is checked here. */
export const envelope = (records: readonly SystemRecord[], savedAt: string): Envelope => ({
  format: FILE_FORMAT,
  version: FILE_VERSION,
  savedAt,
  records,
});

/** Data as the text of a file. */
export const fileText = (data: unknown): string => `${JSON.stringify(data, null, 1)}\n`;
