import 'fake-indexeddb/auto';
import { FILE_VERSION, FILE_VERSIONS, systemSchema } from '@yes-clear/core/file';
import Dexie from 'dexie';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { database, DATABASE_SHAPE, openDatabase } from './database';
import { oneRecord } from './systems';

it('a browser that holds systems of version 1 finds them whole after the upgrade', async () => {
  const old = JSON.parse(readFileSync(new URL('../../../core/file/fixtures/version-1.yesclear.json', import.meta.url), 'utf8'));
  const { system, readings } = old.records[0];
  database.close();
  const before = new Dexie('yes-clear');
  before.version(1).stores({ systems: 'id', readings: 'id, systemId, [systemId+at]', facts: 'key' });
  await before.table('systems').add({ id: system.id, revision: 3, system });
  await before.table('readings').bulkAdd(readings);
  before.close();
  await openDatabase();
  const record = await oneRecord(system.id);
  expect(systemSchema.parse(record?.system)).toEqual(record?.system);
  expect(record?.system.source.samples[0]?.reading).toBe(system.source.sample.reading);
  expect(record?.readings).toHaveLength(2);
});

it('what a newer version wrote is neither opened nor added to', async () => {
  database.close();
  await Dexie.delete('yes-clear');
  const newer = new Dexie('yes-clear');
  newer.version(99).stores({ systems: 'id', later: 'id' });
  await newer.table('systems').add({ id: 'later', shape: 'unknown here' });
  newer.close();
  await expect(openDatabase()).rejects.toMatchObject({ name: 'NewerDatabase', message: /version 99; this one knows up to 4/ });
  const again = new Dexie('yes-clear');
  again.version(99).stores({ systems: 'id', later: 'id' });
  expect(await again.table('systems').toArray()).toEqual([{ id: 'later', shape: 'unknown here' }]);
  expect(again.backendDB().version).toBe(990);
  again.close();
});

it('a database that lost its stores, as a full disk leaves it, is given them again and can be written', async () => {
  database.close();
  await Dexie.delete('yes-clear');
  await new Promise<void>((done, failed) => {
    const open = indexedDB.open('yes-clear', 40);
    open.onsuccess = () => {
      open.result.close();
      done();
    };
    open.onerror = () => failed(open.error);
  });
  await openDatabase();
  expect(await database.systems.count()).toBe(0);
  await database.facts.put({ key: 'demoOffered', value: 'x' });
  expect(await database.facts.count()).toBe(1);
  database.close();
  await openDatabase();
  expect(await database.facts.count()).toBe(1);
});

describe('the list of versions', () => {
  it('the database keeps what the file writes', () => expect(DATABASE_SHAPE).toBe(FILE_VERSION));
  it('counts every version once, in order', () =>
    expect(FILE_VERSIONS.map(({ version }) => version)).toEqual(FILE_VERSIONS.map((_, i) => i + 2)));
});
