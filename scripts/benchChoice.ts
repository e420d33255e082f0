/** Choosing among trains and the years ahead: every option of a van judged, years run by the day and by the hour, years run two hundred times. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Browser } from '@playwright/test';
import { build } from 'vite';
import { benchOf, candidateCount } from '../core/choice';
import { standing } from '../core/log';
import { runToEnd } from '../core/numeric';
import { DEMO_NOW, readDemo } from '../core/testing/demo';
import { tapWater } from '../core/train';
import { aheadOf, daysOfYears, PLAIN_POLICY, simulateYears, yearBands } from '../core/year';
import { median, must, time, type Row } from './benchKit';
import type { Asked } from './benchPart';

export function choiceRows(): Row[] {
  const { system, readings } = readDemo('veldrastix-van-tank');
  const tap = must(tapWater(system.source, system.instruments));
  const today = must(standing(system, readings, tap.water, DEMO_NOW, tap));
  const { plant } = must(aheadOf(system, today, tap.water, Date.parse(DEMO_NOW)));
  const FIVE = daysOfYears(5);
  return [
    {
      what: 'Five years by the day',
      median: time(() => must(simulateYears({ ...plant, tank: null }, FIVE)), 9),
      unit: 'ms',
      limit: 50,
      note: 'season, ageing, all parts, moving limit of the resin',
    },
    {
      what: 'The same with the tank by the hour',
      median: time(() => must(simulateYears(plant, FIVE)), 9),
      unit: 'ms',
      limit: 200,
      note: 'exact between events',
    },
    {
      what: 'A year run 256 times, with what is not known of it',
      median: time(() => must(runToEnd(yearBands(plant, 365, PLAIN_POLICY))), 2) / 1000,
      unit: 's',
      limit: 5,
      note: 'seven doubts, bands of cost and of every date',
    },
  ];
}

/** The worker's own code in one file, as the application's workers are built; its path. */
async function builtWorker(): Promise<string> {
  const outDir = mkdtempSync(join(tmpdir(), 'bench-'));
  const entry = fileURLToPath(new URL('./benchPart.ts', import.meta.url));
  await build({ configFile: false, logLevel: 'error', build: { ssr: entry, outDir }, ssr: { noExternal: true } });
  return join(outDir, 'benchPart.js');
}

/** Workers that stand ready, each asked for something; ms until the last has answered. */
async function answered(workers: readonly Worker[], asking: (place: number) => Asked): Promise<number> {
  const start = performance.now();
  await Promise.all(
    workers.map(
      (worker, place) =>
        new Promise<void>((done, failed) => {
          worker.removeAllListeners();
          worker.once('message', () => done());
          worker.once('error', failed);
          worker.postMessage(asking(place));
        }),
    ),
  );
  return performance.now() - start;
}

/** Runs before anything is counted: code is compiled in them. */
const WARMING = 3;

/** How long one worker searches a van's options, and how much sooner two have, once they stand. */
export async function searchRows(): Promise<Row[]> {
  const { system } = readDemo('veldrastix-van-tank');
  const options = candidateCount(must(benchOf(system)).spaces);
  const path = await builtWorker();
  const two = [0, 1].map(() => new Worker(path));
  const one = two.slice(0, 1);
  const search = (): Promise<number> => answered(one, () => ({ system }));
  const inParts = (some: readonly Worker[]): Promise<number> => answered(some, (part) => ({ system, part, parts: some.length }));
  for (let i = 0; i < WARMING; i++) await inParts(two);
  const times = { search: [] as number[], one: [] as number[], two: [] as number[] };
  // Turn about, so that a slow minute falls on all.
  for (let i = 0; i < 5; i++) {
    times.search.push(await search());
    times.one.push(await inParts(one));
    times.two.push(await inParts(two));
  }
  await Promise.all(two.map((worker) => worker.terminate()));
  return [
    {
      what: `Options of a van judged, ${options} of them`,
      median: median(times.search) / 1000,
      unit: 's',
      limit: 2,
      note: 'every membrane part solved on every ion, cold and warm, new and old; one worker, built as the application’s',
    },
    {
      what: 'The same on two workers against one',
      median: median(times.one) / median(times.two),
      unit: 'times',
      limit: null,
      note: 'faster, once they stand; at least 1.7 wanted',
    },
  ];
}

/** From the asking to the recommendation, as the page takes its own time, ms. */
async function searched(browser: Browser, origin: string): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.addInitScript(() => (window.requestIdleCallback = () => 0));
  await page.goto(origin);
  await page.getByRole('article').first().waitFor();
  await page.goto(`${origin}/system/demo-van-tank/train/options`);
  await page.getByText('trains tried').waitFor({ timeout: 120_000 });
  const found = Number(await page.locator('.options').getAttribute('data-took-ms'));
  await context.close();
  return found;
}

export async function choicePageRows(browser: Browser, origin: string): Promise<Row[]> {
  const took: number[] = [];
  for (let i = 0; i < 3; i++) took.push(await searched(browser, origin));
  return [
    {
      what: 'The options of that van, from the page to what it recommends',
      median: median(took) / 1000,
      unit: 's',
      limit: null,
      note: 'as many workers as the machine offers, their start counted',
    },
  ];
}
