import { database, readFact } from './database';

/** What was done here since the last backup file: what a lost device would take along. */
export interface SinceBackup {
  /** Instant of the last backup; null where none was saved. */
  readonly at: string | null;
  readonly readings: number;
  /** Systems of which something was changed. */
  readonly systems: number;
}

/** Counts what was done since the last backup, by the record of edits; what belongs to the demonstration is no loss. */
export async function sinceBackup(): Promise<SinceBackup> {
  const at = await readFact('lastBackupAt');
  const demo = new Set(await database.systems.filter(({ system }) => system.demo).primaryKeys());
  if (at === null) {
    const readings = await database.readings.filter(({ systemId }) => !demo.has(systemId)).count();
    return { at, readings, systems: (await database.systems.count()) - demo.size };
  }
  const since = Date.parse(at);
  const rows = await database.edits.filter((row) => row.at > since && row.undone === 0).toArray();
  const parts = rows.flatMap((row) => row.parts);
  const readings = new Set(
    parts.flatMap((part) =>
      part.kind === 'reading' && !demo.has((part.after ?? part.before)!.systemId) ? [(part.after ?? part.before)!.id] : [],
    ),
  );
  const systems = new Set(
    parts.flatMap((part) => (part.kind === 'changed' ? [part.systemId] : part.kind === 'system' ? [(part.after ?? part.before)!.id] : [])),
  );
  return { at, readings: readings.size, systems: [...systems].filter((id) => !demo.has(id)).length };
}
