import { expect, test } from './test';
import { choose, enter, field, ledgerRow, openDemo, phase } from './steps';

const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';

test('water: the meter’s scale, the kind of supply and the hardness unit each do their own thing', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  const strength = page.getByRole('article').filter({ hasText: 'dissolved' }).getByRole('heading');
  await expect(strength).toHaveText(/^488.µS\/cm/);

  await choose(page, 'Meter scale', 'ppm, factor 0.7');
  // The same 244 ppm on a 0.7 scale is a weaker water.
  await expect(strength).toHaveText(/^349.µS\/cm/);
  await page.keyboard.press('Control+z');
  await expect(strength).toHaveText(/^488.µS\/cm/);

  const calcium = page.getByText('Calcium').locator('small');
  await expect(calcium).toHaveText(/^[1-9]/);
  const chalk = Number.parseFloat(await calcium.innerText());
  await choose(page, 'Kind of supply', /Softened/);
  await expect.poll(async () => Number.parseFloat(await calcium.innerText())).toBeLessThan(chalk / 20);

  await expect(page.getByRole('columnheader', { name: '°dH' })).toBeVisible();
  await page.getByRole('button', { name: 'gpg' }).click();
  await page.getByRole('radio', { name: 'Test kit' }).click();
  await enter(page, 'Total hardness', '2');
  await expect(field(page, 'Total hardness')).toHaveValue('2');
  await phase(page, 'Train');
  await expect(page.getByRole('rowheader', { name: 'Hardness gpg' })).toBeVisible();
  await expect.poll(async () => (await ledgerRow(page, 'Hardness gpg'))[0]).toBe('2.0');
});

test('goal: another goal and the crew’s own limit change the findings', async ({ page }) => {
  await openDemo(page, VAN, 'goal');
  await expect(page.getByRole('row', { name: /Conductivity/ })).toContainText('at most 11');
  await page.getByRole('button', { name: 'Strictly 0 at the brush' }).click();
  await expect(page.getByRole('row', { name: /Conductivity/ })).toContainText('at most 1.0');
  await page.getByRole('radio', { name: /Soft-water breeding/ }).click();
  await expect(page.getByText(/Conductivity 0\.0\d+.µS\/cm, the goal is at least 20.µS\/cm/)).toBeVisible();
  await page.getByRole('radio', { name: 'a day' }).click();
  await enter(page, 'Water needed', '5000');
  await expect(page.getByText(/the need is 5000.L\/day/)).toBeVisible();
});

test('build: the runbook is kept step by step, and the caution stands above the work on a phone', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'build');
  await page.getByRole('button', { name: /^Change membrane ×2/ }).click();
  await page.getByRole('button', { name: 'Leak check at full pressure' }).click();
  await expect(page.getByRole('heading', { name: 'Leak check at full pressure' })).toBeVisible();
  const caution = page.getByRole('article').filter({ hasText: 'Stay with it' }).first();
  await expect(caution).toBeVisible();
  const work = page.getByRole('button', { name: 'Do it again' });
  expect((await caution.boundingBox())!.y).toBeLessThan((await work.boundingBox())!.y);
  await work.click();
  await expect(page.getByRole('button', { name: /^Change membrane ×2 9 of 20/ })).toBeVisible();
  await page.getByRole('button', { name: 'Done, next step' }).click();
  // Nobody started its timer: that is asked for as any blank is.
  await expect(page.getByText('10 min: the timer was not started.')).toBeVisible();
  await page.getByRole('button', { name: 'Timed by another clock' }).click();
  await page.getByRole('button', { name: 'Go on', exact: true }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Change membrane ×2 10 of 20/ })).toBeVisible();
  await context.close();
});

test('build: what is in the jugs survives a killed tab', async ({ page, context }) => {
  await openDemo(page, CORAL, 'build');
  await enter(page, 'Waste', '1.2 L');
  await enter(page, 'Product', '0,3 l');
  await expect(page.getByTestId('ratio')).toHaveText('4.0 : 1');
  await page.close({ runBeforeUnload: false });
  const later = await context.newPage();
  await later.goto(`/system/${CORAL}/build`);
  await expect(later.getByTestId('ratio')).toHaveText('4.0 : 1');
});

test('log: a reading is removed and brought back, and the charts follow', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const rows = page.getByRole('region', { name: 'Readings' }).getByRole('row');
  await expect(rows).toHaveCount(13);
  const newest = await rows.nth(1).innerText();
  await page
    .getByRole('button', { name: /^Change the reading/ })
    .first()
    .press('Enter');
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(rows.nth(1)).not.toHaveText(newest);
  await page.keyboard.press('Control+z');
  await expect.poll(() => rows.nth(1).innerText()).toBe(newest);
  // By key: the charts above are still being drawn anew, and a button that moves under the pointer is not pressed.
  await page.getByRole('button', { name: 'Show all 35' }).press('Enter');
  await expect(rows).toHaveCount(36);
});
