import type { SystemRecord } from '@yes-clear/core/file';
import { database, readFact, writeFact } from './database';
import { removeSystems, storeRecords } from './systems';
import { shiftedRecord } from './shift';

/**
 * The demonstration's files; each is a chunk of its own, fetched only when asked for. They are our own and of the
 * present version, which a test holds them to, so that the first visit need not fetch what checks files.
 */
const FILES = import.meta.glob<string>('../../../demo/*.yesclear.json', { query: '?raw', import: 'default' });

/** Loads the demonstration with its last reading a few hours old, whatever day it is. */
export async function loadDemo(now = new Date()): Promise<void> {
  const texts = await Promise.all(Object.values(FILES).map((load) => load()));
  const records: SystemRecord[] = [];
  for (const text of texts) {
    const demo = JSON.parse(text) as { readonly savedAt: string; readonly records: readonly SystemRecord[] };
    records.push(...demo.records.map((record) => shiftedRecord(record, demo.savedAt, now)));
  }
  await storeRecords(records, 'demo loaded');
  await writeFact('demoOffered', now.toISOString());
}

/** Takes the demonstration away, as one thing that can be taken back, and leaves every other system alone. */
export async function removeDemo(): Promise<void> {
  const demo = (await database.systems.toArray()).filter((row) => row.system.demo);
  await removeSystems(
    demo.map((row) => row.id),
    'demo removed',
  );
}

/** On the very first start, when the server says so, the demonstration is there already. */
export async function offerDemoOnce(): Promise<void> {
  const wanted = document.querySelector('meta[name="yes-clear-demo"]')?.getAttribute('content') === 'on';
  if (!wanted || (await readFact('demoOffered')) !== null) return;
  if ((await database.systems.count()) > 0) return;
  await loadDemo();
}
