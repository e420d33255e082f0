import { readFile } from 'node:fs/promises';
import ICAL from 'ical.js';
import { expect, test, type Page } from './test';
import { enter, expectAccessible, openDemo, openRounds, storedSystem } from './steps';
import { pdfText } from './pdf';

/** Choosing among trains, and the years ahead. */
async function search(page: Page, id: string): Promise<void> {
  await page.goto(`/system/${id}/train/options`);
  await expect(page.getByRole('heading', { name: /trains tried$/ })).toBeVisible({ timeout: 60_000 });
}
const cell = (page: Page, row: string, column: number) =>
  page
    .getByRole('row', { name: new RegExp(`^${row}`) })
    .getByRole('cell')
    .nth(column);

test('options are searched, questioned, used and taken back', async ({ page }) => {
  await openDemo(page, 'demo-coral-nursery', 'train');
  const before = await storedSystem(page, 'demo-coral-nursery');
  await page.keyboard.press('o');
  await expect(page.getByRole('heading', { name: /trains tried$/ })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { level: 1, name: 'Two small membranes with a booster' })).toBeVisible();
  const why = page.getByRole('heading', { name: /a year dearer than the cheapest, and sturdier$/ });
  await expect(why).toBeVisible();
  // Every train tried would do, or broke a rule that is counted.
  const numbers = (await page.getByRole('region', { name: 'Trains tried' }).innerText()).replaceAll('\u202f', '');
  const tried = Number(/(\d+) trains tried/.exec(numbers)![1]);
  const would = Number(/(\d+) would do/.exec(numbers)![1]);
  const pruned = [...numbers.matchAll(/^(\d+)$/gm)].reduce((sum, [, count]) => sum + Number(count), 0);
  expect(would + pruned).toBe(tried);
  await expect(page.getByText('No other route would do anywhere near')).toBeVisible({ timeout: 60_000 });
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Why not…?' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toContainText('This is the one to take');
  await dialog.getByLabel('Tank').selectOption({ label: '15.9 gal' });
  await expect(dialog.getByRole('status')).toContainText('Tank too small for one draw');
  await expect(dialog.getByRole('status')).toContainText('31.7 gal are drawn at once');
  await dialog.getByLabel('Tank').selectOption({ label: '52.8 gal' });
  await dialog.getByLabel('Resin').selectOption({ label: '0.6\u202fL' });
  await expect(dialog.getByRole('status')).toContainText(/Resin changed too often|better in everything|costs more/);
  await page.getByRole('button', { name: 'Close' }).click();

  await page.getByRole('button', { name: 'Use this train' }).click();
  await expect(page.getByText('The chosen train stands in Train.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Booster, stage/ })).toBeVisible();
  await expect
    .poll(async () => (await storedSystem(page, 'demo-coral-nursery'))!.train.stages.map(({ id }) => id))
    .toEqual(['sediment', 'carbon-1', 'carbon-2', 'pump', 'membrane', 'resin', 'silica', 'tank']);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedSystem(page, 'demo-coral-nursery'))!.train.stages).toEqual(before!.train.stages);
});

test('what the site allows leaves nothing, and the page says what would let one in', async ({ page }) => {
  await search(page, 'demo-coral-nursery');
  await enter(page, 'Visits a year, at most', '3');
  await expect(page.getByRole('heading', { level: 1, name: 'No train would do' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: /of them a year would have to be put up with/ })).toBeVisible();
  await enter(page, 'Visits a year, at most', '');
  await expect(page.getByRole('heading', { level: 1, name: 'Two small membranes with a booster' })).toBeVisible({ timeout: 60_000 });
  // What cannot be is refused at its field, and what stood there stays.
  await enter(page, 'Years to count', '0');
  await expect(page.getByText(/Years to count is 0; accepted is 0\.25 to 30/)).toBeVisible();
  await page.getByRole('button', { name: 'Prices of this job' }).click();
  await page.getByRole('dialog').getByLabel('Booster pump').fill('9000');
  await page.getByRole('dialog').getByLabel('Booster pump').blur();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /with a booster/ })).toHaveCount(0, { timeout: 60_000 });
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { level: 1, name: /with a booster/ })).toHaveCount(1, { timeout: 60_000 });
  await page.getByRole('button', { name: 'What to try' }).click();
  await page.getByRole('group', { name: 'Booster' }).getByRole('button', { name: 'yes' }).click();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /with a booster/ })).toHaveCount(0, { timeout: 60_000 });
});

test('a bought set stands beside what is built, by its own figures', async ({ page }) => {
  await search(page, 'demo-watermaker');
  await page.getByRole('button', { name: 'A bought set' }).click();
  await page.getByRole('button', { name: 'Add a set' }).click();
  for (const [label, text] of [
    ['Price', '9000'],
    ['Parts, a year', '300'],
    ['Energy, kWh a m³ (Wh a litre)', '3.5'],
  ] as const) {
    await page.getByRole('dialog').getByLabel(label, { exact: true }).fill(text);
    await page.getByRole('dialog').getByLabel(label, { exact: true }).blur();
  }
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('columnheader', { name: 'Bought' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('row', { name: /^To buy/ })).toContainText('9000');
  await expect(page.getByRole('row', { name: /^Power.*Wh/ })).toContainText('3.5\u202fWh');
  await expect(cell(page, 'To buy', 0)).toHaveText('stands');
});

test('a slider is pulled, the year follows; its calendar and the offer with both pages are read back', async ({ page }) => {
  await openRounds(page);
  await page.goto('/system/demo-van-tank/log');
  await page.getByRole('link', { name: /^Year ahead/ }).click();
  const title = page.getByRole('heading', { level: 1, name: /^The year ahead: \d+ visits, \d+/ });
  await expect(title).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: /in 8 of 10 cases$/ })).toBeVisible({ timeout: 60_000 });
  await expectAccessible(page);
  const cost = async (): Promise<number> => Number(/visits, (\d+)/.exec(await title.innerText())![1]);
  const usual = await cost();
  const use = page.getByRole('slider', { name: 'Use' });
  await use.fill('1.5');
  await expect.poll(cost).toBeGreaterThan(1.2 * usual);
  await expect(page.getByText('This is what if: nothing of it is kept.')).toBeVisible();
  await page.getByRole('button', { name: 'As usual again' }).click();
  await expect.poll(cost).toBe(usual);
  await page.getByLabel('One change comes late').selectOption({ label: 'Resin' });
  await page.getByLabel('Late by').selectOption({ label: 'by 8 weeks' });
  await expect(page.getByRole('heading', { level: 1, name: /\d+ days above/ })).toBeVisible();
  await page.getByLabel('One change comes late').selectOption({ label: 'none' });
  await expect(page.getByRole('heading', { level: 1, name: /never above/ })).toBeVisible();

  const visits = Number(/(\d+) visits/.exec(await title.innerText())![1]);
  const [calendar] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as calendar' }).click()]);
  const parsed = new ICAL.Component(ICAL.parse(await readFile((await calendar.path())!, 'utf8')));
  const events = parsed.getAllSubcomponents('vevent');
  expect(events).toHaveLength(visits);
  expect(String(events[0]!.getFirstPropertyValue('uid'))).toBe('demo-van-tank.visit-1@yes-clear');
  expect(String(events[0]!.getFirstPropertyValue('summary'))).toContain('Van tank: ');

  await page.getByRole('button', { name: 'Offer as PDF' }).click();
  await expect(page.getByLabel('with the year ahead')).toBeChecked();
  await page.getByLabel('with what it was chosen among').check();
  const [offer] = await Promise.all([
    page.waitForEvent('download', { timeout: 90_000 }),
    page.getByRole('button', { name: 'Offer as PDF' }).click(),
  ]);
  const text = await pdfText(await readFile((await offer.path())!));
  expect(text).toContain('What it was chosen among');
  expect(text).toMatch(/trains were solved on this water, \d+ would do\./);
  expect(text).toMatch(/The year ahead: \d+ visits?/);
  expect(text).toContain('What is changed');
  expect(text).toContain('All together');
});

test('the van’s year adds every system up, and a train has its year as a lens', async ({ page }) => {
  await openRounds(page);
  await page.getByRole('link', { name: 'The van’s year' }).click();
  await expect(page.getByRole('heading', { name: /^\d+ stops, \d+.h of work in twelve months$/ })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/systems run through their year/)).toHaveCount(0, { timeout: 60_000 });
  const months = page.getByRole('table', { name: 'Months' }).getByRole('row');
  await expect(months).toHaveCount(13);
  await expect(page.getByRole('table', { name: 'Months' })).toContainText('Veldrastix Panes: Van tank');
  await expect(page.getByRole('table', { name: 'Months' })).toContainText(/L of (colour )?mixed bed/);
  await expectAccessible(page);
  await openDemo(page, 'demo-espresso-bar', 'train');
  await page.getByRole('tab', { name: 'Year ahead' }).click();
  await expect(page.getByRole('heading', { name: /^The year ahead: \d+ visits/ })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('As if it were all new today.')).toBeVisible();
});
