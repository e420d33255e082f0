import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { DEMO, openRounds, storeMany } from '../steps';

/** A hundred thousand readings, a hundred systems, and one that was spoiled. */
const VAN = 'demo-van-tank';
const noNaN = /NaN|Infinity|undefined/;

test.describe('odd amounts', () => {
  test('100,000 readings of one system: Log opens, draws and takes one more', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await storeMany(page, 1, 100_000);
    await page.goto('/system/many-0/log');
    await expect(page.getByText('What the log says')).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('button', { name: /Show/ })).toBeVisible({ timeout: 30_000 });
    await page.getByLabel('Quick reading').fill('311 9 0 onemore');
    await page.getByLabel('Quick reading').press('Enter');
    await expect(page.getByRole('cell', { name: /onemore/ })).toBeVisible({ timeout: 30_000 });
    await expect(page.locator('body')).not.toHaveText(noNaN);
  });
  test('106 systems: Rounds has every name at once, and each stands where it belongs soon after', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await storeMany(page, 100, 200);
    await page.goto('/');
    await expect(page.getByRole('article')).toHaveCount(DEMO + 100);
    await expect(page.getByText('Being worked out')).toHaveCount(0, { timeout: 60_000 });
  });
});

test('a system whose store was spoiled breaks no page: the reason stands there, and everything can be saved', async ({ context }) => {
  const page = await context.newPage();
  await openRounds(page);
  await page.evaluate(
    (id) =>
      new Promise<void>((done) => {
        const open = indexedDB.open('yes-clear');
        open.onsuccess = () => {
          const change = open.result.transaction('systems', 'readwrite');
          const store = change.objectStore('systems');
          store.get(id).onsuccess = (event) => {
            const row = (event.target as IDBRequest).result as { revision: number; system: object };
            store.put({ ...row, revision: row.revision + 1, system: { ...row.system, train: { stages: null } } });
          };
          change.oncomplete = () => {
            open.result.close();
            done();
          };
        };
      }),
    VAN,
  );
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(DEMO);
  await expect(page.getByText('Cannot be computed')).toBeVisible();
  for (const path of ['water', 'goal', 'train', 'build', 'log']) {
    await page.goto(`/system/${VAN}/${path}`);
    await expect(
      page.getByText(/This page stopped working|could not be worked out|cannot be solved|Cannot be computed|What /).first(),
    ).toBeVisible();
    await expect(page.locator('body')).not.toHaveText(noNaN);
  }
  await page.goto(`/system/${VAN}/train`);
  await expect(page.getByRole('heading', { name: 'This page stopped working' })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save everything to a file' }).click(),
  ]);
  expect(JSON.parse(readFileSync((await download.path())!, 'utf8')).records).toHaveLength(DEMO);
  await expect(page.getByText(/Saved, but records\[\d\]\.system\.train/)).toBeVisible();
});
