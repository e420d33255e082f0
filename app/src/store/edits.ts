import {
  applyChanges,
  changesBetween,
  joined,
  removalsAfter,
  saysTheSame,
  takenBack,
  withEdit,
  withRemovals,
  type Change,
  type Reading,
  type System,
} from '@yes-clear/core/file';
import { database, type EditPart, type EditRow, type RecordingRow } from './database';
import { openTabs, tabId } from './tab';
import { SystemGone } from './whyNotKept';

/** Every write of systems and readings goes through here, in one transaction with what takes it back. */

/** Typing in one field is one edit while the pauses are shorter than this, ms. */
const ONE_EDIT_MS = 1500;
/** Edits of all tabs that can be taken back. */
const DEPTH = 300;

const STORES = [database.systems, database.readings, database.recordings, database.edits] as const;

/** What stood where a hand reached and was left, for another had been there. */
export interface Done {
  readonly label: string;
  readonly missed: number;
}

/** Does what a person did, and remembers how to take it back. */
export async function commit(label: string, parts: readonly EditPart[], at = Date.now()): Promise<void> {
  await database.transaction('rw', [...STORES], async () => {
    const asItStands = await withStored(parts);
    await carryOut(asItStands, { ...DO, at });
    await remember(label, asItStands, at);
  });
}

/** Parts that take readings away, of what stands: taken back, it comes back with what another tab had changed of it. */
async function withStored(parts: readonly EditPart[]): Promise<readonly EditPart[]> {
  const goes = parts.flatMap((part) => (part.kind === 'reading' && part.before && !part.after ? [part.before.id] : []));
  if (goes.length === 0) return parts;
  const stored = new Map((await database.readings.bulkGet(goes)).flatMap((one) => (one ? [[one.id, one] as const] : [])));
  return parts.map((part) =>
    part.kind === 'reading' && part.before && !part.after ? { ...part, before: stored.get(part.before.id) ?? part.before } : part,
  );
}

async function remember(label: string, parts: readonly EditPart[], at: number): Promise<void> {
  const tab = tabId();
  await database.edits.where({ tab, undone: 1 }).delete();
  const last = await database.edits.where({ tab, undone: 0 }).last();
  const typedOn = last && last.label === label && at - last.at < ONE_EDIT_MS ? continued(last.parts, parts) : null;
  if (last && typedOn) await database.edits.put({ ...last, at, parts: typedOn });
  else {
    await database.edits.add({ tab, label, at, undone: 0, parts } as unknown as EditRow);
    const count = await database.edits.count();
    if (count > DEPTH)
      await database.edits
        .orderBy('seq')
        .limit(count - DEPTH)
        .delete();
  }
}

/** Two edits of one field of one system as one; null where they are something else. */
function continued(before: readonly EditPart[], after: readonly EditPart[]): EditPart[] | null {
  const [a, b] = [before[0], after[0]];
  if (before.length !== 1 || after.length !== 1 || a?.kind !== 'changed' || b?.kind !== 'changed' || a.systemId !== b.systemId) return null;
  return [{ ...a, changes: joined(a.changes, b.changes) }];
}

/** How parts are carried out. */
interface Way {
  readonly at: number;
  /** What becomes of a place that another hand changed meanwhile: an edit overwrites it, taking one back leaves it. */
  readonly missed: 'overwrite' | 'leave';
  /** Whether what goes was removed by a person, so that no copy brings it back; not so where its coming is taken back. */
  readonly removes: boolean;
}
const DO: Omit<Way, 'at'> = { missed: 'overwrite', removes: true };
const UNDO: Omit<Way, 'at'> = { missed: 'leave', removes: false };
const REDO: Omit<Way, 'at'> = { missed: 'leave', removes: true };

/**
 * Carries out parts: what leaves first, then systems, then readings that come; returns how many places were left because
 * another hand had been there.
 */
async function carryOut(parts: readonly EditPart[], way: Way): Promise<number> {
  const readings = parts.filter((part): part is ReadingPart => part.kind === 'reading');
  let left = await takeReadings(
    readings.flatMap(({ before, after }) => (before && !after ? [before] : [])),
    way,
  );
  for (const part of parts) {
    if (part.kind === 'changed') left += await changeSystem(part.systemId, part.changes, way);
    if (part.kind === 'system') left += await putSystem(part.before, part.after, way);
    if (part.kind === 'recording') left += await putRecording(part.before, part.after);
  }
  left += await putReadings(
    readings.filter(({ after }) => after !== null),
    way,
  );
  return left;
}

/** A recording comes and goes by its row; its blocks stay until nothing can bring it back. */
async function putRecording(before: RecordingRow | null, after: RecordingRow | null): Promise<number> {
  const here = await counted([(after ?? before)!.systemId]);
  if (after && here.size === 0) return 1;
  await (after ? database.recordings.put(after) : database.recordings.delete(before!.id));
  return 0;
}

type ReadingPart = Extract<EditPart, { kind: 'reading' }>;

const asInstant = (at: number): string => new Date(at).toISOString();

async function changeSystem(id: string, changes: readonly Change[], { at, missed, removes }: Way): Promise<number> {
  const row = await database.systems.get(id);
  if (!row) throw new SystemGone('The system is not here any more.');
  const applied = applyChanges(row.system, changes, missed);
  const system = { ...withRemovals(row.system, applied.state, asInstant(at), removes), updatedAt: asInstant(at) };
  await database.systems.put({ id, revision: row.revision + 1, system });
  return applied.missed.length;
}

async function putSystem(before: System | null, after: System | null, { at, missed, removes }: Way): Promise<number> {
  if (!after) {
    const id = before!.id;
    // Readings that came in meanwhile keep their system.
    if (missed === 'leave' && (await database.readings.where('systemId').equals(id).count()) > 0) return 1;
    await database.systems.delete(id);
    return 0;
  }
  const row = await database.systems.get(after.id);
  await database.systems.put({
    id: after.id, // A system that comes back is newer than any state of it that was seen before.
    revision: (row?.revision ?? Date.now()) + 1,
    system: row ? withRemovals(row.system, after, asInstant(at), removes) : after,
  });
  return 0;
}

/** Takes readings away; one that another hand changed since stays where an edit is only taken back. */
async function takeReadings(readings: readonly Reading[], { at, missed, removes }: Way): Promise<number> {
  if (readings.length === 0) return 0;
  const here = missed === 'leave' ? await database.readings.bulkGet(readings.map(({ id }) => id)) : [];
  const goes = readings.filter((reading, i) => !here[i] || saysTheSame(reading, here[i]));
  await database.readings.bulkDelete(goes.map(({ id }) => id));
  await counted(
    readings.map(({ systemId }) => systemId),
    { went: removes ? goes : [], came: [], at },
  );
  return readings.length - goes.length;
}

/** Writes readings on top of what stands: one that is here is changed figure by figure. */
async function putReadings(parts: readonly ReadingPart[], { at, missed }: Way): Promise<number> {
  if (parts.length === 0) return 0;
  const stored = await database.readings.bulkGet(parts.map(({ after }) => after!.id));
  let left = 0;
  const come = parts.flatMap(({ before, after }, i): Reading[] => {
    const now = stored[i];
    if (before && now) {
      const edited = withEdit(now, { before, after: after!, at: asInstant(at) }, missed);
      left += edited.missed.length;
      return [edited.state];
    }
    // What was removed elsewhere is not brought back by taking an edit of it back, nor overwritten by doing one again.
    const isElsewhere = missed === 'leave' && (before ? !now : now !== undefined && !saysTheSame(now, after!));
    if (isElsewhere) left += 1;
    return isElsewhere ? [] : [after!];
  });
  const here = await counted(
    come.map(({ systemId }) => systemId),
    { went: [], came: come, at },
  );
  const homeless = come.filter(({ systemId }) => !here.has(systemId));
  if (homeless.length > 0 && missed === 'overwrite') throw new SystemGone('The system is not here any more.');
  await database.readings.bulkPut(come.filter(({ systemId }) => here.has(systemId)));
  return left + homeless.length;
}

/**
 * Counts the systems on whose readings changed, so that what rests on them is worked out anew, with the last word on
 * readings that went and came back; returns those that are here.
 */
async function counted(
  ids: readonly string[],
  moved: { readonly went: readonly Reading[]; readonly came: readonly Reading[]; readonly at: number } = { went: [], came: [], at: 0 },
): Promise<Set<string>> {
  const rows = (await database.systems.bulkGet([...new Set(ids)])).filter((row) => row !== undefined);
  const of = (readings: readonly Reading[], systemId: string): { of: 'readings'; id: string }[] =>
    readings.filter((reading) => reading.systemId === systemId).map(({ id }) => ({ of: 'readings', id }));
  const removed = ({ id, system }: (typeof rows)[number]): System['removed'] =>
    moved.went.length === 0 && system.removed.length === 0
      ? system.removed
      : removalsAfter(system.removed, { went: of(moved.went, id), came: of(moved.came, id), at: asInstant(moved.at) });
  await database.systems.bulkPut(
    rows.map((row) => ({ ...row, revision: row.revision + 1, system: { ...row.system, removed: removed(row) } })),
  );
  return new Set(rows.map(({ id }) => id));
}

const reversed = (part: EditPart): EditPart => {
  if (part.kind === 'changed') return { ...part, changes: takenBack(part.changes) };
  return { ...part, before: part.after, after: part.before } as EditPart;
};

/** Takes the last thing this tab did back, or does it again; null when there is nothing. */
async function move(way: 'undo' | 'redo'): Promise<Done | null> {
  return database.transaction('rw', [...STORES], async () => {
    const rows = database.edits.where({ tab: tabId(), undone: way === 'undo' ? 0 : 1 });
    const row = await (way === 'undo' ? rows.last() : rows.first());
    if (!row) return null;
    const parts = way === 'undo' ? [...row.parts].reverse().map(reversed) : row.parts;
    const missed = await carryOut(parts, { ...(way === 'undo' ? UNDO : REDO), at: Date.now() });
    await database.edits.put({ ...row, undone: way === 'undo' ? 1 : 0 });
    return { label: row.label, missed };
  });
}

export const undo = (): Promise<Done | null> => move('undo');
export const redo = (): Promise<Done | null> => move('redo');

/** Labels of what could be taken back and done again now. */
export async function nextSteps(): Promise<{ readonly undo: string | null; readonly redo: string | null }> {
  const tab = tabId();
  const [last, next] = await Promise.all([
    database.edits.where({ tab, undone: 0 }).last(),
    database.edits.where({ tab, undone: 1 }).first(),
  ]);
  return { undo: last?.label ?? null, redo: next?.label ?? null };
}

/** Edits of tabs that are gone become this one's: closing a tab does not take undo away. */
export async function adoptEdits(): Promise<void> {
  const open = await openTabs();
  if (!open) return;
  await database.edits.filter((row) => !open.has(row.tab)).modify({ tab: tabId() });
}

/** The part of an edit that changes a system from one state to another. */
export const changedPart = (before: System, after: System): EditPart => ({
  kind: 'changed',
  systemId: before.id,
  changes: changesBetween(before, after).filter(({ at }) => at[0] !== 'updatedAt' && at[0] !== 'removed'),
});
