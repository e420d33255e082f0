import { asItWas, FILE_VERSIONS, type Change, type Reading, type System } from '@yes-clear/core/file';
import type { Block, Channel, RecordedDay } from '@yes-clear/core/recording';
import type { SupplyReport } from '@yes-clear/core/report';
import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie';
import type { Round } from './round';

/** A system as stored: the document, and a number that grows with every write to it or its readings. */
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

/** A picture taken with a reading, scaled down. */
export interface PhotoRow {
  readonly id: string;
  readonly systemId: string;
  readonly readingId: string;
  readonly takenAt: string;
  readonly picture: Blob;
}

/** What meters gave without anybody typing it: a file of a logger, or what came over the air. Its figures are in blocks. */
export interface RecordingRow {
  readonly id: string;
  readonly systemId: string;
  /** Name of the file, or of where it was heard. */
  readonly name: string;
  readonly from: 'file' | 'air';
  readonly addedAt: string;
  /** The instrument that stood at each probe, by probe. */
  readonly instruments: Readonly<Record<string, string>>;
  readonly channels: readonly Channel[];
  /** Rows of the file, or figures heard so far. */
  readonly rows: number;
  /** What the log counts with. */
  readonly days: readonly RecordedDay[];
  /** The earliest instant that came in after its day was counted, ms: from there days are counted anew. */
  readonly lateMs?: number;
}

/** A stretch of a recording, packed. */
export interface BlockRow extends Block {
  readonly recordingId: string;
  readonly channel: Channel;
}

/** How far a gateway of meters was heard, by its name: ids of one say nothing of another's. */
export type HeardUpTo = `heardUpTo ${string}`;

/** Small facts about this browser, not about any system. */
export interface FactRow {
  readonly key: 'demoOffered' | 'lastBackupAt' | 'confirmedCauses' | HeardUpTo;
  readonly value: string;
}

/** One thing a person did, with what is needed to take it back. */
export interface EditRow {
  readonly seq: number;
  /** The tab it was done in: each takes back its own. */
  readonly tab: string;
  readonly label: string;
  readonly at: number;
  readonly undone: 0 | 1;
  readonly parts: readonly EditPart[];
}

export type EditPart =
  | { readonly kind: 'changed'; readonly systemId: string; readonly changes: readonly Change[] }
  | { readonly kind: 'system'; readonly before: System | null; readonly after: System | null }
  | { readonly kind: 'reading'; readonly before: Reading | null; readonly after: Reading | null }
  | { readonly kind: 'recording'; readonly before: RecordingRow | null; readonly after: RecordingRow | null };

/** How a system stood when it was last worked out, and what that rests on. */
export interface RoundRow {
  readonly id: string;
  /** Revision of the system and the hour it was worked out for. */
  readonly key: string;
  readonly round: Round;
}

/** What a version of the database brought: stores, or another shape of what is kept in them. */
interface DatabaseStep {
  readonly stores?: Readonly<Record<string, string>>;
  /** Version of the file whose shape the rows have from here on. */
  readonly file?: number;
}

/** Every version of the database so far; its number is its place in this list. What was once in use is never changed. */
const STEPS: readonly DatabaseStep[] = [
  { stores: { systems: 'id', readings: 'id, systemId, [systemId+at]', facts: 'key' } },
  { stores: { supply: 'zone' }, file: 2 },
  { file: 3 },
  { stores: { systems: 'id, [id+revision]', edits: '++seq, [tab+undone]', rounds: 'id' } },
  { file: 4 },
  { file: 5 },
  { stores: { photos: 'id, systemId' }, file: 6 },
  { stores: { recordings: 'id, systemId', blocks: '[recordingId+channel+tier+startMs], recordingId' }, file: 7 },
  { file: 8 },
  { file: 9 },
  { file: 10 },
  { file: 11 },
  { file: 12 },
  { file: 13 },
];

/** The version of the stores. An older one in the browser is brought up; a newer one is left alone. */
export const DATABASE_VERSION = STEPS.length;
/** Version of the file whose shape the rows have. */
export const DATABASE_SHAPE = STEPS.reduce((shape, { file }) => file ?? shape, 1);
export const DATABASE_NAME = 'yes-clear';

/** Everything kept in this browser. Waits for `openDatabase`: it is looked at before it is touched. */
export const database = new Dexie(DATABASE_NAME, { autoOpen: false }) as Dexie & {
  systems: EntityTable<SystemRow, 'id'>;
  readings: EntityTable<Reading, 'id'>;
  facts: Table<FactRow, FactRow['key']>;
  supply: EntityTable<SupplyRow, 'zone'>;
  edits: EntityTable<EditRow, 'seq'>;
  rounds: EntityTable<RoundRow, 'id'>;
  photos: EntityTable<PhotoRow, 'id'>;
  recordings: EntityTable<RecordingRow, 'id'>;
  blocks: Table<BlockRow, [string, string, string, number]>;
};

/** Rows of the shape before a version of the file, brought up to it; what could only be taken back in the old shape is let go. */
async function reshape(upgrade: Transaction, file: number, stores: readonly string[]): Promise<void> {
  const change = FILE_VERSIONS.find(({ version }) => version === file);
  if (!change) throw new Error(`There is no version ${file} of the file.`);
  if (change.system === asItWas && change.reading === asItWas) return;
  await upgrade
    .table('systems')
    .toCollection()
    .modify((row: { system: unknown }) => {
      row.system = change.system(row.system);
    });
  await upgrade
    .table('readings')
    .toCollection()
    .modify((row: unknown, held: { value: unknown }) => {
      held.value = change.reading(row);
    });
  for (const name of ['edits', 'rounds']) if (stores.includes(name)) await upgrade.table(name).clear();
}

STEPS.forEach(({ stores, file }, i) => {
  const version = database.version(i + 1);
  if (stores) version.stores(stores);
  const before = STEPS.slice(0, i).flatMap((step) => Object.keys(step.stores ?? {}));
  if (file !== undefined) version.upgrade((upgrade) => reshape(upgrade, file, before));
});

/** What was written by a newer Yes Clear is neither read nor written by this one. */
export class NewerDatabase extends Error {
  override readonly name = 'NewerDatabase';
}

/**
 * Opens the database, unless a newer Yes Clear wrote it: Dexie alone would open it without a word and add to it what it
 * misses.
 */
export async function openDatabase(): Promise<void> {
  const known = typeof indexedDB !== 'undefined' && 'databases' in indexedDB ? await indexedDB.databases() : [];
  const native = known.find(({ name }) => name === DATABASE_NAME)?.version ?? 0;
  const version = Math.floor(native / 10);
  if (version > DATABASE_VERSION)
    throw new NewerDatabase(`Its stores are of version ${version}; this one knows up to ${DATABASE_VERSION}.`);
  // A full disk can leave a database without a single store; there is nothing in it to lose, and Dexie cannot open it.
  if (native > 0 && (await storeNames()).length === 0) await Dexie.delete(DATABASE_NAME);
  await database.open();
}

/** Names of the stores the browser holds under our name. */
function storeNames(): Promise<readonly string[]> {
  return new Promise((done, failed) => {
    const open = indexedDB.open(DATABASE_NAME);
    open.onerror = () => failed(open.error ?? new Error('The database cannot be opened.'));
    open.onsuccess = () => {
      const names = [...open.result.objectStoreNames];
      open.result.close();
      done(names);
    };
  });
}

/** Ids and revisions of all systems: what there is to watch where whole systems are read only once one has changed. */
export const systemRevisions = (): Promise<[id: string, revision: number][]> =>
  database.systems.orderBy('[id+revision]').keys() as unknown as Promise<[string, number][]>;

export async function readFact(key: FactRow['key']): Promise<string | null> {
  return (await database.facts.get(key))?.value ?? null;
}

export async function writeFact(key: FactRow['key'], value: string): Promise<void> {
  await database.facts.put({ key, value });
}
