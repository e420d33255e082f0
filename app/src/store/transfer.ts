import {
  alike,
  compareRecords,
  copyOf,
  envelope,
  FILE_ENDING,
  fileText,
  isLikelyDate,
  mergeRecords,
  withLinked,
  withPlainId,
  type FileError,
  type FileIssue,
  type MergeChoices,
  type RecordComparison,
  type SystemPart,
  type SystemRecord,
} from '@yes-clear/core/file';
import { database, writeFact } from './database';
import { download, plainName } from './download';
import { fileFormat } from './fileFormat';
import { newId } from './newId';
import { whileWriting } from './recordingRows';
import { allRecords, oneRecord, storeRecords } from './systems';

/** What packs and unpacks records of meters and pictures: fetched with the first file. */
const beside = (): Promise<typeof import('./beside')> => import('./beside');

/** A system's file is named by its title. */
export const fileName = (title: string): string => `${plainName(title)}${FILE_ENDING}`;

/** What is said of a file that was written although it cannot be opened as it is; null when all is well. */
const unfitSays = (issues: readonly FileIssue[]): string | null =>
  issues.length === 0
    ? null
    : `Saved, but ${issues[0]!.path} is ${issues[0]!.value}; accepted is ${issues[0]!.expected}${issues.length > 1 ? ` (and ${issues.length - 1} more)` : ''}. Mend it here and save again: as it is the file cannot be opened.`;

/** Writes records into a file the browser keeps; returns what is wrong with it, if anything. */
export async function saveRecords(title: string, records: readonly SystemRecord[], now: string): Promise<string | null> {
  const format = await fileFormat().catch(() => null);
  // What checks a file may be out of reach, with no signal before it was fetched; saving never waits for it.
  const { text, issues } = format ? format.saveDocument(records, now) : { text: fileText(envelope(records, now)), issues: [] };
  download(fileName(title), new Blob([text], { type: 'application/json' }));
  return format ? unfitSays(issues) : 'Saved to a file, unchecked: what checks it could not be loaded.';
}

export async function exportSystem(id: string): Promise<string | null> {
  const record = await (await beside()).wholeRecord(id);
  return record ? saveRecords(`${record.system.site} ${record.system.name}`, [record], new Date().toISOString()) : null;
}

/** Some systems in one file, to be taken along and merged again; returns what is wrong with it, if anything. */
export async function exportSystems(ids: readonly string[], title: string): Promise<string | null> {
  const records = (await Promise.all(ids.map((await beside()).wholeRecord))).filter((record) => record !== null);
  return records.length === 0 ? 'There is nothing to save.' : saveRecords(title, records, new Date().toISOString());
}

/** Everything kept here in one file, with what is typed and not kept yet in place of what is. */
export async function exportEverything(unsaved: readonly SystemRecord[] = []): Promise<string | null> {
  const newer = new Map(unsaved.map((record) => [record.system.id, record]));
  const stored = await allRecords().catch(() => [] as SystemRecord[]);
  const records = [...stored.map((record) => newer.get(record.system.id) ?? record)];
  for (const [i, record] of records.entries())
    records[i] = await beside()
      .then(({ withBeside }) => withBeside(record))
      .catch(() => record);
  for (const record of unsaved) if (!stored.some(({ system }) => system.id === record.system.id)) records.push(record);
  if (records.length === 0) return 'There is nothing here to save.';
  const now = new Date().toISOString();
  const says = await saveRecords(`yes clear everything ${now.slice(0, 10)}`, records, now);
  await writeFact('lastBackupAt', now).catch(() => undefined);
  return says;
}

/** A system of a file that is here already, beside what is here. */
export interface Clash {
  readonly there: SystemRecord;
  readonly here: SystemRecord;
  readonly compared: RecordComparison;
}
export type ClashChoice = 'merge' | 'replace' | 'both' | 'leave';

/** What a file would bring, before anything is written. */
export interface ImportPlan {
  readonly fresh: readonly SystemRecord[];
  readonly clashes: readonly Clash[];
  /** Systems of which the file says just what is here. */
  readonly known: readonly SystemRecord[];
  /** Dates in years in which nothing here can have happened. */
  readonly odd: readonly FileIssue[];
}
export type ImportOutcome = { readonly ok: true; readonly plan: ImportPlan } | { readonly ok: false; readonly error: FileError };

/** Reads a file and sets it beside what is here; a file that is not wholly understood goes no further. */
export async function readImport(file: Blob): Promise<ImportOutcome> {
  const { readDocument, unlikelyDates } = await fileFormat();
  const outcome = readDocument(await file.text());
  if (!outcome.ok) return outcome;
  const fresh: SystemRecord[] = [];
  const known: SystemRecord[] = [];
  const clashes: Clash[] = [];
  for (const found of outcome.records) {
    const there = await withFreeReadings(withPlainId(found, newId));
    const here = await oneRecord(there.system.id);
    const compared = here && compareRecords(here, there);
    if (!here || !compared) fresh.push(there);
    else if (alike(compared)) known.push(there);
    else clashes.push({ there, here, compared });
  }
  return { ok: true, plan: { fresh, clashes, known, odd: outcome.records.flatMap(unlikelyDates) } };
}

/** A record whose readings take no other system's away: an id that is borne there gets another here. */
async function withFreeReadings(record: SystemRecord): Promise<SystemRecord> {
  const stored = await database.readings.bulkGet(record.readings.map(({ id }) => id));
  const taken = new Set(stored.flatMap((one) => (one && one.systemId !== record.system.id ? [one.id] : [])));
  if (taken.size === 0) return record;
  return { ...record, readings: record.readings.map((reading) => (taken.has(reading.id) ? { ...reading, id: newId() } : reading)) };
}

/** What was done with a file, and what of either side is not in the result. */
export interface ImportDone {
  /** Records of meters and pictures that came with it. */
  readonly beside: number;
  readonly opened: readonly SystemRecord[];
  readonly left: readonly { readonly name: string; readonly from: 'here' | 'there'; readonly parts: readonly SystemPart[] }[];
}

/** Stores what a file brings, as one thing that can be taken back. */
export async function carryOutImport(
  { fresh, clashes, known }: ImportPlan,
  choose: (clash: Clash) => ClashChoice,
  oddReadings: 'keep' | 'leave',
  said: MergeChoices = {},
): Promise<ImportDone> {
  const likely = (record: SystemRecord): SystemRecord =>
    oddReadings === 'keep' ? record : { ...record, readings: record.readings.filter(({ at }) => isLikelyDate(at)) };
  const left: ImportDone['left'][number][] = [];
  const records = fresh.map(likely);
  /** What a file has beside a system that is merged into the one here. */
  const taken: SystemRecord[] = [];
  for (const clash of clashes) {
    const there = likely(clash.there);
    const choice = choose(clash);
    if (choice === 'replace') records.push(there);
    if (choice === 'both') records.push({ ...copyOf(there, newId), beside: there.beside });
    if (choice === 'merge') {
      const merged = mergeRecords(clash.here, there, said);
      records.push(merged.record);
      taken.push({ ...there, system: merged.record.system });
      if (merged.left.length > 0) left.push({ name: clash.here.system.name, from: merged.from, parts: merged.left });
    }
  }
  const brought = [...records, ...known, ...taken];
  const came = await whileWriting(async () => {
    const { parts, photos } = await (await beside()).restored(brought);
    const label = records.length === 1 ? `${records[0]!.system.name} opened` : `${records.length} systems opened`;
    if (records.length > 0 || parts.length > 0) await storeRecords(records, label, parts);
    return parts.length + photos;
  });
  return { opened: records, left, beside: came };
}

/** What a link carries, beside what is here: nothing is kept before somebody says so. */
export interface LinkPlan {
  readonly there: SystemRecord;
  readonly here: SystemRecord | null;
  readonly differs: boolean;
}
export type LinkOutcome = { readonly ok: true; readonly plan: LinkPlan } | { readonly ok: false; readonly message: string };

/** Reads the part of an address behind `#`. */
export async function readLink(text: string): Promise<LinkOutcome> {
  const { fileFromLink, readDocument } = await fileFormat();
  const file = fileFromLink(text);
  if (!file.ok) return { ok: false, message: file.error.message };
  const read = readDocument(file.value);
  if (!read.ok) return { ok: false, message: read.error.message };
  const there = withPlainId(read.records[0]!, newId);
  const here = (await oneRecord(there.system.id)) ?? null;
  const differs =
    here !== null &&
    compareRecords({ ...here, readings: [] }, { ...there, system: withLinked(here.system, there.system) }).parts.length > 0;
  return { ok: true, plan: { there, here, differs } };
}

/** Keeps what a link carries: as it is, beside the one that is here, or its design taken into that. Returns the id to open. */
export async function keepLink({ there, here }: LinkPlan, how: 'new' | 'both' | 'take'): Promise<string> {
  const record: SystemRecord =
    how === 'take' && here ? { ...here, system: withLinked(here.system, there.system) } : how === 'both' ? copyOf(there, newId) : there;
  await storeRecords([record], `${record.system.name} opened`);
  return record.system.id;
}
