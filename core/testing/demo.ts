import { readFileSync } from 'node:fs';
import { readDocument, type SystemRecord } from '../file';

/** The demonstration's systems, read from their files as anybody's would be. */
export const DEMO_FILES = [
  'frambleth-counter',
  'orbindle-lab-skid',
  'veldrastix-van-tank',
  'tressimoor-coral-nursery',
  'quonsle-espresso',
  'wibberjack-watermaker',
] as const;

export function readDemo(name: (typeof DEMO_FILES)[number]): SystemRecord {
  const read = readDocument(readFileSync(new URL(`../../demo/${name}.yesclear.json`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.error.message);
  return read.records[0]!;
}
/** A day on which the demonstration's logs end. */
export const DEMO_NOW = '2026-11-24T08:00:00Z';
