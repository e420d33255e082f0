import { mergeRecords, type Reading, type System, type SystemRecord } from '@yes-clear/core/file';
import { database, type EditPart } from './database';
import { commit } from './edits';

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

export const addSystem = (system: System): Promise<void> =>
  commit(`${system.name} made`, [{ kind: 'system', before: null, after: system }]);

const leaving = ({ system, readings }: SystemRecord): EditPart[] => [
  ...readings.map((reading): EditPart => ({ kind: 'reading', before: reading, after: null })),
  { kind: 'system', before: system, after: null },
];
/** Takes systems away with all their readings and recordings, undoable as one. */
export async function removeSystems(ids: readonly string[], label?: string): Promise<void> {
  const records = (await Promise.all(ids.map(oneRecord))).filter((record) => record !== null);
  const recordings = await database.recordings.where('systemId').anyOf(ids).toArray();
  const parts = [...recordings.map((before): EditPart => ({ kind: 'recording', before, after: null })), ...records.flatMap(leaving)];
  if (records.length > 0) await commit(label ?? `${records[0]!.system.name} removed`, parts);
}

/**
 * Puts systems in place with just the readings given, undoable as one; what stood here under the same id makes way.
 *
 * @param more what is done in the same go
 */
export async function storeRecords(records: readonly SystemRecord[], label: string, more: readonly EditPart[] = []): Promise<void> {
  const parts: EditPart[] = [];
  for (const record of records) {
    const here = await oneRecord(record.system.id);
    const kept = new Set(record.readings.map(({ id }) => id));
    const there = new Map(here?.readings.map((reading) => [reading.id, reading]));
    parts.push({ kind: 'system', before: here?.system ?? null, after: record.system });
    for (const reading of here?.readings ?? []) if (!kept.has(reading.id)) parts.push({ kind: 'reading', before: reading, after: null });
    for (const reading of record.readings) parts.push({ kind: 'reading', before: there.get(reading.id) ?? null, after: reading });
  }
  await commit(label, [...parts, ...more]);
}

/** A system that was removed elsewhere, put back as it was last seen here. */
export async function bringBack(record: SystemRecord): Promise<void> {
  const here = await oneRecord(record.system.id);
  await storeRecords([here ? mergeRecords(here, record).record : record], `${record.system.name} brought back`);
}
