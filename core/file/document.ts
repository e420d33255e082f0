import { z } from 'zod';
import { besideSchema } from './beside';
import { FIRST_YEAR, isLikelyDate, LAST_YEAR } from './bounds';
import { envelope, FILE_FORMAT, fileText } from './envelope';
import type { SystemRecord } from './record';
import { FILE_VERSION, migrated } from './versions';
import { readingSchema, systemSchema, type Reading, type System } from './schema';
import { allStages } from './select';

const recordSchema = z.strictObject({ system: systemSchema, readings: z.array(readingSchema), beside: besideSchema.optional() });
const documentSchema = z.strictObject({
  format: z.literal(FILE_FORMAT),
  version: z.literal(FILE_VERSION),
  savedAt: z.iso.datetime({ offset: true }),
  records: z.array(recordSchema).min(1),
});

/** One thing wrong with a file: where, what stands there, what would be accepted. */
export interface FileIssue {
  /** JSON path, e.g. `records[0].system.source.linePressureBar`. */
  readonly path: string;
  readonly value: string;
  readonly expected: string;
}

export interface FileError {
  readonly message: string;
  readonly issues: readonly FileIssue[];
}

export type FileOutcome =
  | { readonly ok: true; readonly records: readonly SystemRecord[]; readonly savedAt: string }
  | { readonly ok: false; readonly error: FileError };

/**
 * The text of a file holding one system or many, keys in the order of the schema: the same records always
 * give the same text, whatever way they came.
 */
export function writeDocument(records: readonly SystemRecord[], savedAt: string): string {
  return fileText(documentSchema.parse(envelope(records, savedAt)));
}

/** What is saved when not all of it fits the model: the file is written all the same, and what does not fit is named. */
export interface SavedDocument {
  readonly text: string;
  readonly issues: readonly FileIssue[];
}

/** The text of a file, whatever the records hold: nothing that is kept may be held back from being saved. */
export function saveDocument(records: readonly SystemRecord[], savedAt: string): SavedDocument {
  const data = envelope(records, savedAt);
  const parsed = documentSchema.safeParse(data);
  return {
    text: fileText(parsed.success ? parsed.data : data),
    issues: parsed.success ? [] : parsed.error.issues.map((issue) => describe(issue, data)),
  };
}

/** Why a system cannot be kept as it is, or null when it can: the same bounds that a field and a file have. */
export function systemIssue(system: System): FileIssue | null {
  const parsed = systemSchema.safeParse(system);
  return parsed.success ? null : describe(parsed.error.issues[0]!, system);
}

/** Why a reading cannot be kept as it is, or null when it can. */
export function readingIssue(reading: Reading): FileIssue | null {
  const parsed = readingSchema.safeParse(reading);
  return parsed.success ? null : describe(parsed.error.issues[0]!, reading);
}

const refuse = (message: string, issues: readonly FileIssue[] = []): FileOutcome => ({ ok: false, error: { message, issues } });

/**
 * Reads a file: JSON, then the marks of a Yes Clear file, then an older version brought up, then every field, then the references between them.
 * Nothing is repaired or guessed; a file is taken whole or not at all.
 */
export function readDocument(text: string): FileOutcome {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    return refuse(`This is not a readable file: it breaks off or is not JSON (${reason}).`);
  }
  const foreign = foreignReason(data);
  if (foreign) return refuse(foreign);
  if (isDeeperThan(data, DEEPEST))
    return refuse(`This is not a Yes Clear file: it is nested more than ${DEEPEST} levels deep; its own files have about a dozen.`);
  data = migrated(data);
  const parsed = documentSchema.safeParse(data);
  if (!parsed.success) {
    const issues = parsed.error.issues.map((issue) => describe(issue, data));
    const first = issues[0];
    const more = issues.length > 1 ? ` and ${issues.length - 1} more` : '';
    return refuse(
      `This file has a value that cannot be used: ${first?.path} is ${first?.value}; accepted is ${first?.expected}${more}.`,
      issues,
    );
  }
  const broken = [
    ...sharedIds(parsed.data.records),
    ...parsed.data.records.flatMap((record, i) => brokenReferences(record, `records[${i}]`)),
  ];
  if (broken.length > 0) {
    return refuse(
      `This file points to something it does not hold: ${broken[0]!.path} is ${broken[0]!.value}; accepted is ${broken[0]!.expected}.`,
      broken,
    );
  }
  return { ok: true, records: parsed.data.records, savedAt: parsed.data.savedAt };
}

/** Levels no file of ours has; what is deeper was made to break a reader. */
const DEEPEST = 60;

/** Whether data is nested deeper than so many levels; looks level by level, so that no depth can exhaust it. */
function isDeeperThan(data: unknown, most: number): boolean {
  let level: unknown[] = [data];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((one) => (typeof one === 'object' && one !== null ? Object.values(one) : []));
  }
  return false;
}

/** Ids that must be told apart and are not: one of two would be lost on storing. */
function sharedIds(records: readonly SystemRecord[]): FileIssue[] {
  const issues: FileIssue[] = [];
  const apart = (list: readonly { readonly id: string }[], path: string, what: string, seen = new Set<string>()): void =>
    list.forEach(({ id }, i) => {
      if (seen.has(id)) issues.push({ path: `${path}[${i}].id`, value: show(id), expected: `an id that no other ${what} has` });
      seen.add(id);
    });
  apart(
    records.map(({ system }) => system),
    'records',
    'system',
  );
  const readings = new Set<string>();
  records.forEach(({ system, readings: own }, i) => {
    apart(own, `records[${i}].readings`, 'reading', readings);
    apart(system.instruments, `records[${i}].system.instruments`, 'meter');
    apart(system.train.probes, `records[${i}].system.train.probes`, 'probe');
    apart(system.train.branches, `records[${i}].system.train.branches`, 'branch');
    apart(system.cartridges, `records[${i}].system.cartridges`, 'cartridge');
    apart(system.services, `records[${i}].system.services`, 'service');
    apart(system.upkeep, `records[${i}].system.upkeep`, 'rule of upkeep');
    apart(system.sensors, `records[${i}].system.sensors`, 'meter on the air');
    apart(system.build.works, `records[${i}].system.build.works`, 'piece of work');
    apart(system.build.ownParts, `records[${i}].system.build.ownParts`, 'line of the parts list');
    apart(system.build.ratios, `records[${i}].system.build.ratios`, 'ratio');
    apart(system.goal.demand.batches, `records[${i}].system.goal.demand.batches`, 'batch');
    apart(system.comparison.glasses, `records[${i}].system.comparison.glasses`, 'glass');
  });
  return issues;
}

/** Days and instants of a record outside the years in which anything can have happened, with where they stand. */
export function unlikelyDates(record: SystemRecord): FileIssue[] {
  const found: FileIssue[] = [];
  const look = (data: unknown, path: string): void => {
    if (Array.isArray(data)) data.forEach((one, i) => look(one, `${path}[${i}]`));
    else if (typeof data === 'object' && data !== null)
      for (const [key, value] of Object.entries(data)) {
        if (typeof value === 'string' && DATE_KEYS.has(key) && !isLikelyDate(value))
          found.push({ path: `${path}.${key}`, value: show(value), expected: `a date from ${FIRST_YEAR} to ${LAST_YEAR}` });
        else look(value, `${path}.${key}`);
      }
  };
  look(record.system, 'system');
  look(record.readings, 'readings');
  return found;
}
const DATE_KEYS = new Set(['at', 'createdAt', 'updatedAt', 'takenOn', 'fittedOn', 'removedOn', 'calibratedOn']);

/** Why data is not a Yes Clear file of this version, or null when it is. */
function foreignReason(data: unknown): string | null {
  const marks = typeof data === 'object' && data !== null ? (data as Record<string, unknown>) : {};
  if (marks['format'] !== FILE_FORMAT)
    return `This is not a Yes Clear file: its format is ${show(marks['format'])}; accepted is "${FILE_FORMAT}".`;
  const version = marks['version'];
  if (typeof version === 'number' && version > FILE_VERSION) {
    return `This file was written by a newer Yes Clear (version ${version}); this one reads up to version ${FILE_VERSION}.`;
  }
  return null;
}

/** A JSON path as people write it: records[0].system.name. */
function pathText(path: readonly PropertyKey[]): string {
  return path.map((key, i) => (typeof key === 'number' ? `[${key}]` : i === 0 ? String(key) : `.${String(key)}`)).join('');
}

function show(value: unknown): string {
  if (value === undefined) return 'missing';
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

function describe(issue: z.core.$ZodIssue, data: unknown): FileIssue {
  const value = issue.path.reduce<unknown>(
    (at, key) => (typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined),
    data,
  );
  return { path: pathText(issue.path) || 'the file', value: show(value), expected: expectation(issue) };
}

/** What a field takes, in words. */
function expectation(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return `${/^[aeiou]/.test(issue.expected) ? 'an' : 'a'} ${issue.expected}`;
    case 'too_small':
      return `at least ${String(issue.minimum)}`;
    case 'too_big':
      return `at most ${String(issue.maximum)}`;
    case 'invalid_value':
      return `one of ${issue.values.map((v) => JSON.stringify(v)).join(', ')}`;
    case 'unrecognized_keys':
      return `no ${issue.keys.map((key) => `"${key}"`).join(', ')} here`;
    case 'invalid_format':
      return issue.format === 'date' ? 'a date such as 2026-11-23' : 'a time such as 2026-11-23T08:10:00Z';
    default:
      return issue.message;
  }
}

/** Names used in a record that nothing in it bears. */
function brokenReferences({ system, readings }: SystemRecord, at: string): FileIssue[] {
  const instruments = new Set(system.instruments.map((instrument) => instrument.id));
  const { train } = system;
  const stages = new Set(['tap', ...train.stages.map((stage) => stage.id)]);
  const all = allStages(train);
  const issues: FileIssue[] = [];
  const need = (known: boolean, path: string, value: string, expected: string): void => {
    if (!known) issues.push({ path: `${at}.${path}`, value: show(value), expected });
  };
  if (new Set(['tap', ...all.map((stage) => stage.id)]).size !== all.length + 1) {
    issues.push({ path: `${at}.system.train.stages`, value: 'the same id twice', expected: 'a different id for every stage' });
  }
  const { source } = system;
  need(
    source.samples.some((sample) => sample.id === source.sampleId),
    'system.source.sampleId',
    source.sampleId,
    'the id of one of its samples',
  );
  if (new Set(source.samples.map((sample) => sample.id)).size !== source.samples.length) {
    issues.push({ path: `${at}.system.source.samples`, value: 'the same id twice', expected: 'a different id for every sample' });
  }
  const sampled = [
    ...source.samples.map((sample, i) => ({ sample, path: `system.source.samples[${i}]` })),
    ...(source.second ? [{ sample: source.second.sample, path: 'system.source.second.sample' }] : []),
  ];
  for (const { sample, path } of sampled) {
    need(instruments.has(sample.instrumentId), `${path}.instrumentId`, sample.instrumentId, 'the id of an instrument in this file');
  }
  train.branches.forEach((branch, i) =>
    need(stages.has(branch.after), `system.train.branches[${i}].after`, branch.after, '"tap" or the id of a stage'),
  );
  system.train.probes.forEach((probe, i) => {
    need(stages.has(probe.after), `system.train.probes[${i}].after`, probe.after, '"tap" or the id of a stage');
    need(
      instruments.has(probe.instrumentId),
      `system.train.probes[${i}].instrumentId`,
      probe.instrumentId,
      'the id of an instrument in this file',
    );
  });
  readings.forEach((reading, i) => {
    need(reading.systemId === system.id, `readings[${i}].systemId`, reading.systemId, `"${system.id}"`);
    reading.values.forEach((value, k) => {
      need(
        instruments.has(value.instrumentId),
        `readings[${i}].values[${k}].instrumentId`,
        value.instrumentId,
        'the id of an instrument in this file',
      );
    });
  });
  return issues;
}
