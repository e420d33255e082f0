import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { DEMO, enter, field, openDemo, openRounds } from '../steps';

/** Databases of other versions, none at all, and one that lost something. */
const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';

/** Opens the database from a page that is not the app, made with what a later version might hold where there is none, and says what is in it. */
const held = (page: Page, version?: number): Promise<string> =>
  page.evaluate(
    (at) =>
      new Promise<string>((done, failed) => {
        const open = indexedDB.open('yes-clear', at);
        open.onupgradeneeded = () => {
          if (!open.result.objectStoreNames.contains('systems'))
            open.result.createObjectStore('systems', { keyPath: 'id' }).put({ id: 'later', shape: 'of a later version' });
        };
        open.onerror = () => failed(open.error);
        open.onsuccess = () => {
          const all = open.result.transaction('systems').objectStore('systems').getAll();
          all.onsuccess = () => {
            done(JSON.stringify([open.result.version, all.result]));
            open.result.close();
          };
        };
      }),
    version,
  );

test.describe('stores of other versions', () => {
  test('a newer database is named, not read, not written, and nothing is called empty', async ({ context }) => {
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    const before = await held(outside, 990);
    const page = await context.newPage();
    await page.goto('/');
    await expect(page.getByTestId('trouble')).toContainText('a newer Yes Clear has been at work in this browser');
    await expect(page.getByText('Nothing kept here yet')).toHaveCount(0);
    await expect(page.getByText('From the tap to a logged reading')).toHaveCount(0);
    await page.goto(`/system/${CORAL}/log`);
    await expect(page.getByTestId('trouble')).toContainText('Reload this page to get it; nothing was overwritten.');
    expect(await held(outside)).toBe(before);
  });
  test('an old tab beside a new version stops writing, says so, and saves what it shows', async ({ context }) => {
    const page = await context.newPage();
    await openDemo(page, CORAL, 'water');
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    const before = await held(outside, 990);
    await expect(page.getByTestId('trouble')).toContainText('a newer Yes Clear has been at work');
    await enter(page, 'pH', '7.1');
    await expect(field(page, 'pH')).toHaveValue('7.1');
    expect(await held(outside)).toBe(before);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByTestId('trouble').getByRole('button', { name: 'Save everything' }).click(),
    ]);
    expect(readFileSync((await download.path())!, 'utf8')).toContain('"pH": 7.1');
  });
  test('held up by an older tab it says which hand is needed, and goes on by itself', async ({ context }) => {
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    await outside.evaluate(
      () =>
        new Promise<void>((done) => {
          const open = indexedDB.open('yes-clear', 10);
          open.onupgradeneeded = () => void open.result.createObjectStore('systems', { keyPath: 'id' });
          open.onsuccess = () => {
            (window as unknown as { held: IDBDatabase }).held = open.result;
            done();
          };
        }),
    );
    const page = await context.newPage();
    await page.goto('/');
    await expect(page.getByTestId('trouble')).toContainText('another tab holds an older Yes Clear open');
    await outside.evaluate(() => (window as unknown as { held: IDBDatabase }).held.close());
    await expect(page.getByTestId('trouble')).toBeHidden();
    await expect(
      page.getByRole('heading', { name: 'From the tap to a logged reading.' }).or(page.getByRole('article').first()),
    ).toBeVisible();
  });
  test('without any storage it says so, on Rounds and on a deep page', async ({ context }) => {
    const page = await context.newPage();
    await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
    for (const path of ['/', `/system/${CORAL}/train`]) {
      await page.goto(path);
      await expect(page.getByTestId('trouble')).toContainText('this browser offers no storage');
      await expect(page.getByText('Nothing kept here yet')).toHaveCount(0);
    }
  });
  test('a store that lost its systems is found out at the next start, with what could be read back', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await page.close();
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    await outside.evaluate(
      (id) =>
        new Promise<void>((done) => {
          const open = indexedDB.open('yes-clear');
          open.onsuccess = () => {
            const change = open.result.transaction('systems', 'readwrite');
            change.objectStore('systems').delete(id);
            change.oncomplete = () => {
              open.result.close();
              done();
            };
          };
        }),
      VAN,
    );
    const later = await context.newPage();
    await later.goto('/');
    await expect(later.getByRole('alert')).toContainText(`Of ${DEMO} systems`);
    await expect(later.getByRole('alert')).toContainText(`${DEMO - 1} and`);
    await expect(later.getByRole('alert')).toContainText('could be read back');
  });
  test('a database left without any stores by a full disk is found out, said, and works again', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await page.close();
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    await outside.evaluate(
      () =>
        new Promise<void>((done, failed) => {
          const drop = indexedDB.deleteDatabase('yes-clear');
          drop.onerror = () => failed(drop.error);
          drop.onsuccess = () => {
            const open = indexedDB.open('yes-clear', 40);
            open.onsuccess = () => {
              open.result.close();
              done();
            };
          };
        }),
    );
    const later = await context.newPage();
    await later.goto('/');
    await expect(later.getByText(`Of ${DEMO} systems`)).toBeVisible();
    await expect(later.getByText('could be read back')).toBeVisible();
    await later.getByRole('button', { name: 'New system' }).first().click();
    await later.getByLabel('Name').fill('After the loss');
    await later.getByRole('button', { name: 'Create and enter its water' }).click();
    await expect(later.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
    await later.goto('/');
    await expect(later.getByText('After the loss')).toBeVisible();
  });
});
