import type { Reading, System } from '@yes-clear/core/file';
import Dexie, { type EntityTable, type Table } from 'dexie';

/** A system as stored: the document, and a number that grows with every write so that tabs can tell. */
export interface SystemRow {
  readonly id: string;
  readonly revision: number;
  readonly system: System;
}

/** Small facts about this browser, not about any system. */
export interface FactRow {
  readonly key: 'demoOffered' | 'lastBackupAt';
  readonly value: string;
}

/** Everything kept in this browser. */
export const database = new Dexie('yes-clear') as Dexie & {
  systems: EntityTable<SystemRow, 'id'>;
  readings: EntityTable<Reading, 'id'>;
  facts: Table<FactRow, FactRow['key']>;
};

database.version(1).stores({
  systems: 'id',
  readings: 'id, systemId, [systemId+at]',
  facts: 'key',
});

export async function readFact(key: FactRow['key']): Promise<string | null> {
  return (await database.facts.get(key))?.value ?? null;
}

export async function writeFact(key: FactRow['key'], value: string): Promise<void> {
  await database.facts.put({ key, value });
}
