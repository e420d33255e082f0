import { expect, test, type Page } from './test';
import { loggerFile, openDemo, storedRecords } from './steps';

/** Records of meters: a logger's file, figures over the air, and what the log makes of them. */
const CORAL = 'demo-coral-nursery';
const DAY = 86_400_000;

const bringIn = async (page: Page, buffer: Buffer, name = 'logger.csv'): Promise<void> => {
  await page.getByRole('button', { name: 'Bring in', exact: true }).click();
  await page.getByLabel('Readings file').setInputFiles({ name, mimeType: 'text/csv', buffer });
};
const panel = (page: Page) => page.getByRole('region', { name: 'Meters on the air' });
const table = (page: Page) => page.getByRole('region', { name: 'Readings' });

test('a logger’s file is brought in whole, counts by the day, is looked into by the hour, and is taken back', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const from = Math.floor(Date.now() / DAY) * DAY - 40 * DAY;
  await bringIn(page, loggerFile(30 * 1440, from));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('A meter’s record, about 4');
  await dialog.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(page.getByText(/43.200 rows of 30 days brought in\./)).toBeVisible();
  await expect(panel(page).getByRole('row')).toContainText(/logger\.csv.*43.200 rows/);
  expect(await storedRecords(page, CORAL)).toEqual([
    {
      name: 'logger.csv',
      days: 30,
      figures: 5 * 43_200,
      counted: { 'probe:probe-tap': 308, 'probe:probe-membrane': 7, 'probe:probe-resin-2': 0, productLPerH: 14.6 },
    },
  ]);
  // A day is told by what was read while water was made, and stands among what was typed.
  await table(page).getByLabel('Find readings').fill('recorded');
  const first = table(page).getByRole('row').nth(1);
  await expect(first).toContainText('recorded');
  await expect(first.getByRole('cell').nth(2)).toHaveText('7');
  await expect(first.getByRole('button')).toHaveCount(0);
  // The chart, looked at closely, shows hours.
  const chart = page.getByRole('group', { name: /^Conductivity at each probe/ });
  await chart.focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('+');
  await expect(page.getByRole('button', { name: 'Show all', exact: true })).toBeVisible();
  // The same file again brings nothing.
  await bringIn(page, loggerFile(30 * 1440, from));
  await dialog.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(dialog.getByRole('alert')).toContainText('All of it is here already.');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await panel(page).getByRole('button', { name: 'Remove logger.csv' }).click();
  await expect(panel(page).getByRole('row')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel(page).getByRole('row')).toHaveCount(1);
});

test('rows that cannot be read are named, and a file of nothing else brings nothing', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const good = loggerFile(400, Date.now() - 30 * DAY).toString();
  await bringIn(page, Buffer.from(good.replace(/,308,/, ',wet,').replace('\n', '\nnonsense,1,2,3,4,5\n')));
  await page.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(
    page.getByText(/400 rows of \d days? brought in\. 1 row was not understood and left out; the first: line 2, “nonsense”/),
  ).toBeVisible();
  await bringIn(page, Buffer.from(['time,tap', ...Array.from({ length: 300 }, (_, i) => `day ${i},300`)].join('\n')));
  await expect(page.getByRole('dialog')).toContainText(/300 (lines|rows) are not understood/);
});

test('sensor figures in a file are taken like any table', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const pack = Array.from({ length: 300 }, (_, i) => ({
    ...(i === 0 ? { bn: 'rig:', bt: Math.floor((Date.now() - 20 * DAY) / 1000) } : {}),
    n: 'tap',
    u: 'S/m',
    v: 0.0622,
    t: i * 60,
  }));
  await bringIn(page, Buffer.from(JSON.stringify(pack)), 'rig.json');
  await expect(page.getByRole('dialog')).toContainText('A meter’s record, 300 rows');
  await page.getByRole('button', { name: 'Bring in the record' }).click();
  await expect(page.getByText(/300 rows of \d days?/)).toBeVisible();
  expect((await storedRecords(page, CORAL))[0]!.counted['probe:probe-tap']).toBe(311);
});

test('meters are paired, seen live, counted in the log, and let go', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await page.getByRole('button', { name: 'Pair meters' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Simulated bench: made-up figures, to try this out.');
  // A meter of water’s temperature is no probe.
  await expect(dialog.getByLabel('Water temperature stands for').getByRole('option')).toHaveText(['not paired', 'Temperature']);
  await dialog.getByLabel('Tap, in-line meter stands for').selectOption('Tap');
  // Two meters do not stand at one probe.
  await dialog.getByLabel('After membrane, in-line meter stands for').selectOption('Tap');
  await expect(dialog.getByLabel('Tap, in-line meter stands for')).toHaveValue('');
  await dialog.getByLabel('Tap, in-line meter stands for').selectOption('Tap');
  await dialog.getByLabel('After membrane, in-line meter stands for').selectOption('After membrane');
  await dialog.getByLabel('Water temperature stands for').selectOption('Temperature');
  await dialog.getByLabel('Line pressure stands for').selectOption('Pressure');
  await dialog.getByRole('button', { name: 'Pair', exact: true }).click();
  // One of them may be silent for a while: the bench has its dropouts.
  await expect(
    panel(page)
      .locator('dd')
      .filter({ hasText: /\d\d:\d\d/ }),
  ).not.toHaveCount(0, { timeout: 40_000 });
  await expect
    .poll(async () => (await storedRecords(page, CORAL)).map(({ name, figures }) => [name, figures > 0]), { timeout: 20_000 })
    .toEqual([['Over the air', true]]);
  await page.getByRole('button', { name: 'Change pairing' }).click();
  for (const name of ['Tap, in-line meter', 'After membrane, in-line meter', 'Water temperature', 'Line pressure'])
    await dialog.getByLabel(`${name} stands for`).selectOption('');
  await dialog.getByRole('button', { name: 'Pair', exact: true }).click();
  await expect(page.getByText('No meter is paired any more.')).toBeVisible();
  await expect(panel(page).locator('dd')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel(page).locator('dd')).toHaveCount(4);
});
