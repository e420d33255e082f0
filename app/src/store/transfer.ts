import { FILE_ENDING, readDocument, writeDocument, type FileError, type SystemRecord } from '@yes-clear/core/file';
import { writeFact } from './database';
import { allRecords, oneRecord, storeRecords } from './systems';

/** Hands a text to the browser as a file to keep. */
function download(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  URL.revokeObjectURL(url);
}

/** A file name of a title: lower case, hyphens. */
export function fileName(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return `${plain === '' ? 'system' : plain}${FILE_ENDING}`;
}

export async function exportSystem(id: string): Promise<void> {
  const record = await oneRecord(id);
  if (record) download(fileName(`${record.system.site} ${record.system.name}`), writeDocument([record], new Date().toISOString()));
}

export async function exportEverything(): Promise<void> {
  const records = await allRecords();
  if (records.length === 0) return;
  const now = new Date().toISOString();
  download(fileName(`yes clear everything ${now.slice(0, 10)}`), writeDocument(records, now));
  await writeFact('lastBackupAt', now);
}

export type ImportOutcome =
  { readonly ok: true; readonly records: readonly SystemRecord[] } | { readonly ok: false; readonly error: FileError };

/** Reads a file and stores what it holds; a file that is not wholly understood changes nothing. */
export async function importFile(file: File): Promise<ImportOutcome> {
  const outcome = readDocument(await file.text());
  if (!outcome.ok) return outcome;
  await storeRecords(outcome.records);
  return { ok: true, records: outcome.records };
}
