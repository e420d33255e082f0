import type { System } from '@yes-clear/core/file';
import { takeRecording, type Column, type Refused, type TextTable } from '@yes-clear/core/log';
import { writeRecording, type Written } from '../store/recordings';
import { localClock } from '../time/localClock';
import { runInSlices } from './slices';

/** A file of a meter, and how its columns are taken. */
export interface MeterFile {
  readonly id: string;
  readonly system: System;
  readonly name: string;
  readonly file: Blob;
  readonly head: Pick<TextTable, 'heads' | 'delimiter'>;
  readonly columns: readonly Column[];
  readonly at: string;
}

/** What became of a file: its row, ready to be kept, and what of it was not taken. */
export interface BroughtIn extends Written {
  readonly refused: readonly Refused[];
  readonly refusedCount: number;
}

/** Share of the work that reading the text is; the rest is writing. */
const READING = 0.6;

/** Reads a file of a meter and writes its figures; null when cancelled, and then nothing of it stays. */
export async function bringIn(
  { id, system, name, file, head, columns, at }: MeterFile,
  progress: (share: number) => void,
  cancelled: () => boolean,
): Promise<BroughtIn | null> {
  const clock = localClock(new Date(at), system.units.temperature === '°F');
  const taken = await runInSlices(takeRecording(system, await file.text(), head, columns, clock), {
    progress: (share) => progress(READING * share),
    cancelled,
    pause: () => new Promise((done) => setTimeout(done)),
    now: () => performance.now(),
  });
  if (!taken) return null;
  const { channels, refused, refusedCount } = taken;
  if (channels.size === 0) return { row: null, twice: 0, refused, refusedCount };
  const written = await writeRecording(
    { id, system, name, addedAt: at, channels },
    (share) => progress(READING + (1 - READING) * share),
    cancelled,
  );
  return written && { ...written, refused, refusedCount };
}
