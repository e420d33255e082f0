/** Rounds with two hundred systems: how soon it stands, and whether one of them or work elsewhere holds it up. */
import type { Browser, Page } from '@playwright/test';
import { storeMany } from '../e2e/steps';
import { median, type Row } from './benchKit';

const SYSTEMS = 194;
const READINGS_EACH = 100;

/** From the address to every name on the screen, ms. */
async function standing(page: Page, origin: string, count: number): Promise<number> {
  const start = performance.now();
  await page.goto(origin);
  await page.waitForFunction((many) => document.querySelectorAll('article').length === many, count);
  return performance.now() - start;
}
const settled = (page: Page): Promise<unknown> =>
  page.getByText('Being worked out').first().waitFor({ state: 'detached', timeout: 120_000 });

/** Spoils one system so that it cannot be solved: its water contradicts itself. */
const spoil = (page: Page, id: string): Promise<void> =>
  page.evaluate(
    (key) =>
      new Promise<void>((done) => {
        const open = indexedDB.open('yes-clear');
        open.onsuccess = () => {
          const change = open.result.transaction('systems', 'readwrite');
          const store = change.objectStore('systems');
          store.get(key).onsuccess = (event) => {
            const row = (event.target as IDBRequest).result as { revision: number; system: { source: { samples: { kit: object }[] } } };
            const samples = row.system.source.samples.map((sample) => ({ ...sample, kit: { ...sample.kit, hardnessMgL: 9000 } }));
            store.put({ ...row, revision: row.revision + 1, system: { ...row.system, source: { ...row.system.source, samples } } });
          };
          change.oncomplete = () => {
            open.result.close();
            done();
          };
        };
      }),
    id,
  );

/** Runs in the page: notes how long each turn took to come round. */
const WATCH = `(() => {
  window.held = [];
  let last = performance.now();
  (function tick() {
    const now = performance.now();
    window.held.push(now - last);
    last = now;
    setTimeout(tick, 0);
  })();
})()`;

/** The longest the page was held while something was edited in another tab, ms. */
async function heldUp(page: Page, edit: () => Promise<void>): Promise<number> {
  await page.evaluate(WATCH);
  await edit();
  await page.waitForTimeout(800);
  return page.evaluate(() => Math.max(...(window as unknown as { held: number[] }).held.slice(5)));
}

export async function roundsRows(browser: Browser, origin: string): Promise<Row[]> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(origin);
  await page.getByRole('article').first().waitFor();
  await storeMany(page, SYSTEMS, READINGS_EACH);
  const count = SYSTEMS + (await page.getByRole('article').count()) - (await page.getByText(/^Many \d/).count());
  await standing(page, origin, count);
  await settled(page);
  const times: number[] = [];
  const times1: number[] = [];
  for (let i = 0; i < 5; i++) times.push(await standing(page, origin, count));
  const held: number[] = [];
  const other = await context.newPage();
  await other.goto(`${origin}/system/many-7/water`);
  const field = other.getByLabel('Water temperature', { exact: true });
  for (const text of ['51', '52', '53', '54', '55'])
    held.push(
      await heldUp(page, async () => {
        await field.fill(text);
        await field.blur();
      }),
    );
  await other.close();
  await spoil(page, 'many-3');
  for (let i = 0; i < 5; i++) times1.push(await standing(page, origin, count));
  await context.close();
  return [
    {
      what: `Rounds with ${count} systems and ${SYSTEMS * READINGS_EACH} readings stands`,
      median: median(times),
      unit: 'ms',
      limit: 1000,
      note: 'from the address to every name on the screen, with how each stood last',
    },
    {
      what: 'The same with one system that cannot be solved',
      median: median(times1) / median(times),
      unit: 'times',
      limit: 1.3,
      note: 'against without; its row says why',
    },
    {
      what: 'An edit in another tab holds that Rounds for',
      median: median(held),
      unit: 'ms',
      limit: 50,
      note: 'the longest stretch in which nothing else could happen, 5 edits',
    },
  ];
}
