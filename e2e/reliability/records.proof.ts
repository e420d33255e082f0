import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { benchAt, TICK_MS } from '../../server/bench/bench';
import { crash, fillWorkers, loggerFile, openDemo, storedInstants, storedNotes, storedRecords } from '../steps';
import { ROOT } from './places';

/** Records of meters when tabs die, disks fill up, servers go and clocks are wrong: nothing that was said to be saved is lost. */
const CORAL = 'demo-coral-nursery';
const DAY = 86_400_000;
const PRESSURE = 'bench:house:pressure';

async function choose(page: Page, rows: number): Promise<void> {
  await page.getByRole('button', { name: 'Bring in', exact: true }).click();
  await page
    .getByLabel('Readings file')
    .setInputFiles({ name: 'logger.csv', mimeType: 'text/csv', buffer: loggerFile(rows, Date.now() - 300 * DAY) });
  await expect(page.getByRole('button', { name: 'Bring in the record' })).toBeVisible();
}

test('a tab killed while a record is brought in: all of it or nothing, and nothing is left over', async ({ context }) => {
  let whole = false;
  for (const ms of [300, 900, 6000]) {
    const page = await context.newPage();
    await openDemo(page, CORAL, 'log');
    await choose(page, 200_000);
    await page.getByRole('button', { name: 'Bring in the record' }).click();
    await page.waitForTimeout(ms);
    await crash(page);
    await page.close();
    const later = await context.newPage();
    await openDemo(later, CORAL, 'log');
    await expect(later.getByRole('heading', { name: 'What the log says' })).toBeVisible();
    const records = await storedRecords(later, CORAL);
    if (records.length > 0) whole = true;
    // Its figures are whole, or cleared away by the next start.
    await expect.poll(async () => (await storedInstants(later, 'temperatureC')).at.length).toBe(records.length > 0 ? 200_000 : 0);
    await later.close();
    if (whole) break;
  }
  expect(whole).toBe(true);
});

test('a record stopped on the way leaves nothing behind', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await choose(page, 300_000);
  await page.getByRole('button', { name: 'Bring in the record' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Bring in the record' })).toBeVisible();
  expect([await storedRecords(page, CORAL), (await storedInstants(page, 'temperatureC')).blocks]).toEqual([[], 0]);
});

test('a full disk while a record is brought in is told, and what was there before stays', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await choose(page, 300_000);
  await fillWorkers(page, true);
  await page.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('storage is full', { timeout: 30_000 });
  expect(await storedRecords(page, CORAL)).toEqual([]);
  await fillWorkers(page, false);
  await page.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(page.getByText(/300.000 rows of \d+ days brought in/)).toBeVisible({ timeout: 30_000 });
  expect((await storedRecords(page, CORAL))[0]!.figures).toBe(5 * 300_000);
});

test.describe('under a live meter', () => {
  let child: ChildProcess | null = null;
  let port = 0;
  test.beforeAll(async () => {
    const free = createServer().listen(0, '127.0.0.1');
    await new Promise((ready) => free.once('listening', ready));
    port = (free.address() as AddressInfo).port;
    await new Promise((done) => free.close(done));
  });
  test.afterEach(() => child?.kill('SIGKILL'));
  const origin = (): string => `http://127.0.0.1:${port}`;
  async function serve(): Promise<void> {
    child = spawn(process.execPath, ['--import', 'tsx', join(ROOT, 'server/main.ts')], {
      env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', HTTPS: 'off' },
      stdio: 'ignore',
    });
    await expect
      .poll(
        () =>
          fetch(`${origin()}/api/meters`).then(
            ({ ok }) => ok,
            () => false,
          ),
        { timeout: 20_000 },
      )
      .toBe(true);
  }
  async function die(): Promise<void> {
    const ended = new Promise((done) => child!.once('exit', done));
    child!.kill('SIGKILL');
    await ended;
  }
  async function pair(page: Page): Promise<void> {
    await page.goto(`${origin()}/system/${CORAL}/log`);
    await page.getByRole('button', { name: 'Pair meters' }).click();
    await page.getByLabel('Line pressure stands for').selectOption('Pressure');
    await page.getByLabel('Product meter stands for').selectOption('Meter total');
    await page.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect.poll(async () => (await storedInstants(page, 'pressureBar')).at.length, { timeout: 45_000 }).toBeGreaterThan(0);
  }
  /** Every look of the bench from the first to the last that was kept, its dropouts left out. */
  const sent = (at: readonly number[]): number[] => {
    const looks: number[] = [];
    for (let ms = at[0]!; ms <= at.at(-1)!; ms += TICK_MS) if (benchAt(ms).some(({ n }) => n === PRESSURE)) looks.push(ms);
    return looks;
  };
  async function allThere(page: Page, atLeastUntil: number): Promise<void> {
    await expect
      .poll(async () => (await storedInstants(page, 'pressureBar')).at.at(-1), { timeout: 60_000 })
      .toBeGreaterThanOrEqual(atLeastUntil);
    const { at } = await storedInstants(page, 'pressureBar');
    expect(at).toEqual(sent(at));
  }

  test('the server killed and started again: what it sent meanwhile is fetched, and nothing is missing', async ({ context }) => {
    test.setTimeout(240_000);
    await serve();
    const page = await context.newPage();
    await pair(page);
    for (let round = 0; round < 2; round++) {
      await die();
      await expect(page.getByRole('region', { name: 'Meters on the air' }).getByRole('status')).toContainText('do not answer', {
        timeout: 30_000,
      });
      await page.waitForTimeout(12_000);
      const back = Date.now();
      await serve();
      await allThere(page, back + TICK_MS);
    }
    await expect(page.getByRole('region', { name: 'Meters on the air' }).getByRole('status')).toHaveCount(0);
  });

  test('the tab killed, and two tabs of which one goes: each look is kept once', async ({ context }) => {
    test.setTimeout(240_000);
    await serve();
    const first = await context.newPage();
    await pair(first);
    await crash(first);
    await first.close();
    await new Promise((done) => setTimeout(done, 12_000));
    const [one, two] = [await context.newPage(), await context.newPage()];
    for (const page of [one, two]) await page.goto(`${origin()}/system/${CORAL}/log`);
    await allThere(two, Date.now());
    // Both show what is heard, whichever of them listens.
    for (const page of [one, two])
      await expect(
        page
          .getByRole('region', { name: 'Meters on the air' })
          .locator('dd')
          .filter({ hasText: /\d\d:\d\d/ }),
      ).not.toHaveCount(0, { timeout: 30_000 });
    await one.close();
    await allThere(two, Date.now() + TICK_MS);
  });

  test('on a device whose clock is two days behind, figures bear the time of the meters, and a typed reading its own', async ({
    context,
  }) => {
    test.setTimeout(120_000);
    await serve();
    const page = await context.newPage();
    await page.clock.setFixedTime(Date.now() - 2 * DAY);
    await pair(page);
    const { at } = await storedInstants(page, 'pressureBar');
    expect(Math.abs(at.at(-1)! - Date.now())).toBeLessThan(60_000);
    await page.getByLabel('Quick reading').fill('300 7 0 behind');
    await page.getByLabel('Quick reading').press('Enter');
    await expect.poll(() => storedNotes(page, CORAL)).toContain('behind');
    await expect(page.locator('body')).not.toHaveText(/NaN|Invalid/);
  });
});
