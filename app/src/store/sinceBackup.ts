import { database, readFact } from './database';

/** What was done here since the last backup file: what a lost device would take along. */
export interface SinceBackup {
  /** Instant of the last backup; null where none was saved. */
  readonly at: string | null;
  readonly readings: number;
  /** Systems that were changed, or hold anything where none was saved. */
  readonly systems: number;
}

/**
 * What was done since the last backup, by the record of edits; all that is here where none was saved. Reads no system
 * and no reading.
 *
 * @param but systems that are no loss: the demonstration's
 */
export async function sinceBackup(but: ReadonlySet<string>): Promise<SinceBackup> {
  const at = await readFact('lastBackupAt');
  return { at, ...(at === null ? await allHere(but) : await editedSince(Date.parse(at), but)) };
}

async function allHere(but: ReadonlySet<string>): Promise<Omit<SinceBackup, 'at'>> {
  const [ids, all, ...others] = await Promise.all([
    database.systems.toCollection().primaryKeys(),
    database.readings.count(),
    ...[...but].map((id) => database.readings.where('systemId').equals(id).count()),
  ]);
  return { readings: others.reduce((left, count) => left - count, all), systems: ids.filter((id) => !but.has(id)).length };
}

async function editedSince(since: number, but: ReadonlySet<string>): Promise<Omit<SinceBackup, 'at'>> {
  const rows = await database.edits.filter((row) => row.at > since && row.undone === 0).toArray();
  const readings = new Set<string>();
  const changed = new Set<string>();
  for (const part of rows.flatMap((row) => row.parts)) {
    if (part.kind === 'changed') changed.add(part.systemId);
    else if (part.kind === 'system') changed.add((part.after ?? part.before)!.id);
    else {
      const { id, systemId } = (part.after ?? part.before)!;
      if (part.kind === 'recording') changed.add(systemId);
      else if (!but.has(systemId)) readings.add(id);
    }
  }
  return { readings: readings.size, systems: [...changed].filter((id) => !but.has(id)).length };
}
