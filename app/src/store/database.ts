import { systemFrom1, systemFrom2, type Reading, type System } from '@yes-clear/core/file';
import type { SupplyReport } from '@yes-clear/core/report';
import Dexie, { type EntityTable, type Table } from 'dexie';

/** A system as stored: the document, and a number that grows with every write so that tabs can tell. */
export interface SystemRow {
  readonly id: string;
  readonly revision: number;
  readonly system: System;
}

/** A supplier's report as last fetched, for where there is no signal. */
export interface SupplyRow {
  readonly zone: string;
  readonly fetchedAt: string;
  readonly report: SupplyReport;
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
  supply: EntityTable<SupplyRow, 'zone'>;
};

database.version(1).stores({
  systems: 'id',
  readings: 'id, systemId, [systemId+at]',
  facts: 'key',
});

database
  .version(2)
  .stores({ supply: 'zone' })
  .upgrade((upgrade) =>
    upgrade
      .table('systems')
      .toCollection()
      .modify((row: { system: unknown }) => {
        row.system = systemFrom1(row.system);
      }),
  );

database.version(3).upgrade((upgrade) =>
  upgrade
    .table('systems')
    .toCollection()
    .modify((row: { system: unknown }) => {
      row.system = systemFrom2(row.system);
    }),
);

export async function readFact(key: FactRow['key']): Promise<string | null> {
  return (await database.facts.get(key))?.value ?? null;
}

export async function writeFact(key: FactRow['key'], value: string): Promise<void> {
  await database.facts.put({ key, value });
}
