import 'fake-indexeddb/auto';
import { systemSchema } from '@yes-clear/core/file';
import Dexie from 'dexie';
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { database } from './database';
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
  await database.open();
  const record = await oneRecord(system.id);
  expect(systemSchema.parse(record?.system)).toEqual(record?.system);
  expect(record?.system.source.samples[0]?.reading).toBe(system.source.sample.reading);
  expect(record?.readings).toHaveLength(2);
});
