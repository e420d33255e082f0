/** Half a million readings of one system: how soon they are brought in, how soon the log stands, and how it is moved about. */
import { DAY_MS } from '../core/quantity';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { loggerFile } from '../e2e/steps';
import { median, type Row } from './benchKit';

const ROWS = 500_000;
const CORAL = 'demo-coral-nursery';
const CHART = '[aria-label^="Conductivity at each probe"]';

/** From the press of the button to the word that it is kept, ms. */
async function broughtIn(page: Page, file: string): Promise<number> {
  await page.getByRole('button', { name: 'Bring in', exact: true }).click();
  await page.getByLabel('Readings file').setInputFiles(file);
  const start = page.getByRole('button', { name: 'Bring in the record' });
  await start.waitFor();
  const from = performance.now();
  await start.click();
  await page.getByText(/rows of \d+ days brought in/).waitFor({ timeout: 120_000 });
  return performance.now() - from;
}

/** Runs in the page: presses a key on the chart and waits for the frame in which it was drawn anew. */
const MOVE = (keys: readonly string[]): string => `(async () => {
  const chart = document.querySelector('.chart${CHART}');
  chart.focus();
  const times = [];
  for (const key of ${JSON.stringify(keys)}) {
    const start = performance.now();
    chart.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
    times.push(performance.now() - start);
    await new Promise((done) => setTimeout(done, 80));
  }
  return times;
})()`;
const moved = async (page: Page, keys: readonly string[]): Promise<number> => median((await page.evaluate(MOVE(keys))) as number[]);
const repeated = (keys: readonly string[], times: number): string[] => Array.from({ length: times }, () => keys).flat();

/** From the address to the first chart, ms. */
async function firstChart(page: Page, origin: string): Promise<number> {
  const from = performance.now();
  await page.goto(`${origin}/system/${CORAL}/log`);
  await page.waitForFunction((chart) => (document.querySelector<HTMLCanvasElement>(`canvas${chart}`)?.width ?? 0) > 100, CHART);
  return performance.now() - from;
}

export async function recordsRows(browser: Browser, origin: string): Promise<Row[]> {
  const file = join(mkdtempSync(join(tmpdir(), 'yes-clear-')), 'logger.csv');
  writeFileSync(file, loggerFile(ROWS, Date.now() - 360 * DAY_MS));
  const times: number[] = [];
  for (let i = 0; ; i++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
    const page = await context.newPage();
    await firstChart(page, origin);
    times.push(await broughtIn(page, file));
    if (i < 2) {
      await context.close();
      continue;
    }
    const opened: number[] = [];
    for (let k = 0; k < 5; k++) {
      opened.push(await firstChart(page, origin));
      await page.waitForTimeout(1500);
    }
    const wide = await moved(page, [...repeated(['+'], 3), ...repeated(['ArrowLeft', 'ArrowRight'], 15)]);
    await moved(page, repeated(['+'], 5));
    await page.waitForTimeout(1500);
    const close = await moved(page, repeated(['ArrowLeft', 'ArrowRight', 'ArrowLeft', '+', '-'], 8));
    const memory = await page.evaluate(
      () => (performance as unknown as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize ?? 0,
    );
    await context.close();
    return [
      {
        what: '500,000 readings of one system brought in',
        median: median(times) / 1000,
        unit: 's',
        limit: 10,
        note: 'a logger’s file, five figures a minute for 347 days; read and written by the worker, with progress, 3 runs',
      },
      {
        what: 'Log with them opened to its first chart',
        median: median(opened),
        unit: 'ms',
        limit: 500,
        note: 'from the address, 5 times',
      },
      { what: 'Its charts panned, a frame', median: wide, unit: 'ms', limit: 50, note: 'all three by the key, days of months shown' },
      { what: 'The same looked at closely', median: close, unit: 'ms', limit: 50, note: 'panned and zoomed over minutes of weeks' },
      {
        what: 'Memory of that page',
        median: memory / 1e6,
        unit: 'MB',
        limit: 150,
        note: 'JavaScript heap; the record stays in the database',
      },
    ];
  }
}
