import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { PNG } from 'pngjs';
import { enter, firstVisit } from './steps';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
const CORAL = '/system/demo-coral-nursery';
const VAN = '/system/demo-van-tank';
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** Characters a page shows at the least, and the share of one colour from which a picture is empty. */
const LEAST_TEXT = 200;
const EMPTY = 0.97;

/** Waits until a page shows something, and shows the same a moment later. */
async function settled(page: Page): Promise<void> {
  const main = page.locator('main');
  let before = '';
  await expect
    .poll(
      async () => {
        const text = await main.first().innerText();
        const stands = text === before && text.length >= LEAST_TEXT;
        before = text;
        return stands;
      },
      { timeout: 30_000, intervals: [400] },
    )
    .toBe(true);
}

/** A picture of nearly one colour shows nothing: it is refused. */
function refuseEmpty(path: string): void {
  const { data } = PNG.sync.read(readFileSync(path));
  const counts = new Map<number, number>();
  for (let i = 0; i < data.length; i += 16) {
    const colour = data.readUInt32BE(i);
    counts.set(colour, (counts.get(colour) ?? 0) + 1);
  }
  expect(Math.max(...counts.values()) / (data.length / 16), `${path} is empty`).toBeLessThan(EMPTY);
}

/** Opens the demonstration on its own day, lets it settle, and keeps the picture. */
async function shoot(page: Page, name: string, path: string, size: typeof DESK, before?: () => Promise<void>): Promise<void> {
  await page.setViewportSize(size);
  await page.clock.setFixedTime(new Date('2026-11-23T10:00:00Z'));
  await page.goto('/');
  await expect(page.getByRole('article').first()).toBeVisible();
  if (path !== '/') await page.goto(path);
  await settled(page);
  await expect(page.getByText('Being worked out…')).toHaveCount(0);
  await before?.();
  await settled(page);
  await page.screenshot({ path: `${FOLDER}${name}.png`, animations: 'disabled' });
  refuseEmpty(`${FOLDER}${name}.png`);
}

const jugs = (page: Page) => async (): Promise<void> => {
  await enter(page, 'Waste', '3 3/4 cup');
  await enter(page, 'Product', '330 ml');
  await expect(page.getByRole('heading', { name: /Restrictor: cut/ })).toBeVisible();
};

test('rounds', ({ page }) => shoot(page, 'rounds', '/', DESK));
test('water', ({ page }) => shoot(page, 'water', `${CORAL}/water`, DESK));
test('first visit', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 980 });
  await page.clock.setFixedTime(new Date('2026-11-23T10:00:00Z'));
  await firstVisit(page);
  await enter(page, 'At the tap', '306');
  await expect(page.getByRole('heading', { name: /^From 306/ })).toBeVisible();
  await page.waitForTimeout(500);
  await page.screenshot({ path: `${FOLDER}first-visit.png`, animations: 'disabled' });
});
/** Solved: what the train leaves stands beside each limit. */
const judged = (page: Page) => (): Promise<void> =>
  expect(page.getByRole('region', { name: 'Against this goal' }).locator('.finding').first()).toBeVisible();
test('goal', ({ page }) => shoot(page, 'goal', `${CORAL}/goal`, DESK, judged(page)));
test('train', ({ page }) => shoot(page, 'train', `${CORAL}/train`, DESK));
test('resin', ({ page }) =>
  shoot(page, 'train-resin', `${VAN}/train`, { width: 1280, height: 1130 }, async () => {
    await page.getByRole('button', { name: /^Resin, stage/ }).click();
    await expect(page.getByRole('region', { name: 'Life of this resin' }).locator('output')).toBeVisible();
    const time = page.getByRole('slider', { name: 'Litres passed' });
    await time.fill(String(0.62 * Number(await time.getAttribute('max'))));
  }));
test('build', ({ page }) => shoot(page, 'build', `${CORAL}/build`, DESK, jugs(page)));
test('parts', ({ page }) => shoot(page, 'build-parts', `${CORAL}/build?view=parts`, { width: 1280, height: 1000 }));
test('log', ({ page }) =>
  shoot(page, 'log', `${CORAL}/log`, DESK, () => page.getByLabel('Quick reading').fill('311 10 0 59psi 11C 410/1500ml')));
test('build on a phone', ({ page }) => shoot(page, 'phone-build', `${CORAL}/build`, PHONE, jugs(page)));
const searched = (page: Page) => (): Promise<void> => page.getByRole('region', { name: 'What to do next' }).waitFor();
test('faults', ({ page }) => shoot(page, 'faults', `${VAN}/faults`, DESK, searched(page)));
test('faults on a phone', ({ page }) => shoot(page, 'phone-faults', `${VAN}/faults`, PHONE, searched(page)));
const atTheRig = (page: Page) => async (): Promise<void> => {
  for (const tool of [/^Read the probes/, /^Gauge/, /^Thermometer/, /^Jug under the product/, /^Each element alone/]) {
    await page.getByRole('button', { name: tool }).click({ timeout: 60_000 });
    await page.waitForTimeout(900);
  }
  await page.evaluate(() => window.scrollTo({ top: 0 }));
};
test('practice', ({ page }) => shoot(page, 'practice', '/practice/11/1', DESK, atTheRig(page)));
const probesOnce = (page: Page) => async (): Promise<void> => {
  await page.getByRole('button', { name: /^Read the probes/ }).click({ timeout: 60_000 });
  await page.waitForTimeout(900);
};
test('practice on a phone', ({ page }) => shoot(page, 'phone-practice', '/practice/5/1', PHONE, probesOnce(page)));
test('log on a phone', ({ page }) => shoot(page, 'phone-log', `${CORAL}/log`, PHONE));
const chosen = (page: Page) => async (): Promise<void> => {
  await page.getByRole('heading', { name: /trains tried$/ }).waitFor({ timeout: 60_000 });
  await page.getByText(/To a fifth and to five times|No other route would do/).waitFor({ timeout: 90_000 });
};
test('options', ({ page }) => shoot(page, 'options', `${VAN}/train/options`, DESK, chosen(page)));
test('options on a phone', ({ page }) => shoot(page, 'phone-options', `${CORAL}/train/options`, PHONE, chosen(page)));
const run = (page: Page) => (): Promise<void> => page.getByRole('heading', { name: /in 8 of 10 cases$/ }).waitFor({ timeout: 60_000 });
test('year', ({ page }) => shoot(page, 'year', `${VAN}/log/year`, DESK, run(page)));
test('year on a phone', ({ page }) => shoot(page, 'phone-year', `${CORAL}/log/year`, PHONE, run(page)));
