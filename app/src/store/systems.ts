import type { Reading, System, SystemRecord } from '@yes-clear/core/file';
import { liveQuery } from 'dexie';
import { onScopeDispose, shallowRef, type ShallowRef } from 'vue';
import { database, type SystemRow } from './database';

/** Subscribes a ref to a database query for as long as the component lives. */
export function useLive<T>(query: () => Promise<T> | T, initial: T): ShallowRef<T> {
  const result = shallowRef(initial);
  const subscription = liveQuery(query).subscribe({ next: (value) => (result.value = value) });
  onScopeDispose(() => subscription.unsubscribe());
  return result;
}

/** All systems with their readings, oldest system first. */
export async function allRecords(): Promise<SystemRecord[]> {
  const [rows, readings] = await Promise.all([database.systems.toArray(), database.readings.toArray()]);
  const bySystem = new Map<string, Reading[]>();
  for (const reading of readings.sort((a, b) => a.at.localeCompare(b.at))) {
    const own = bySystem.get(reading.systemId);
    if (own) own.push(reading);
    else bySystem.set(reading.systemId, [reading]);
  }
  return rows
    .map((row) => ({ system: row.system, readings: bySystem.get(row.id) ?? [] }))
    .sort((a, b) => a.system.createdAt.localeCompare(b.system.createdAt));
}

/** One system with its readings, or null. */
export async function oneRecord(id: string): Promise<SystemRecord | null> {
  const row = await database.systems.get(id);
  if (!row) return null;
  const readings = await database.readings.where('systemId').equals(id).sortBy('at');
  return { system: row.system, readings };
}

/** Writes a change of a system on top of whatever is stored now, so that two tabs never undo each other. */
export async function writeSystem(id: string, change: (system: System) => System): Promise<SystemRow | null> {
  return database.transaction('rw', database.systems, async () => {
    const row = await database.systems.get(id);
    if (!row) return null;
    const next: SystemRow = { id, revision: row.revision + 1, system: change(row.system) };
    await database.systems.put(next);
    return next;
  });
}

export async function addSystem(system: System): Promise<void> {
  await database.systems.add({ id: system.id, revision: 1, system });
}

export async function removeSystem(id: string): Promise<void> {
  await database.transaction('rw', database.systems, database.readings, async () => {
    await database.systems.delete(id);
    await database.readings.where('systemId').equals(id).delete();
  });
}

/** Stores records, replacing systems of the same id and their readings. */
export async function storeRecords(records: readonly SystemRecord[]): Promise<void> {
  await database.transaction('rw', database.systems, database.readings, async () => {
    for (const { system, readings } of records) {
      const before = await database.systems.get(system.id);
      await database.systems.put({ id: system.id, revision: (before?.revision ?? 0) + 1, system });
      await database.readings.where('systemId').equals(system.id).delete();
      await database.readings.bulkPut([...readings] as Reading[]);
    }
  });
}
