import { expect, test } from '@playwright/test';
import { choose, enter, field, ledgerRow, openDemo } from './steps';

const LAB = 'demo-lab-skid';
const BOAT = 'demo-watermaker';
const noNaN = /NaN|Infinity|undefined/;

test('a household unit grows by More water: second element, one larger restrictor, and back', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /^New system( N)?$/ }).click();
  await page.getByLabel('Name').fill('Growing');
  await page.getByRole('radio', { name: /Household unit/ }).click();
  await page.getByRole('button', { name: 'Create and enter its water' }).click();
  await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
  await page.keyboard.press('3');
  const made = page.locator('.foot dt').first();
  const litres = async (): Promise<number> => Number.parseFloat((await made.innerText()).replace(/\u202f/g, ''));
  await expect(made).toContainText('L/day');
  const before = await litres();
  await page.keyboard.press('m');
  const row = page.getByRole('row', { name: /Second element on the waste/ });
  await expect(row).toContainText('The old restrictor comes out');
  await expect(page.getByRole('row', { name: /Longer hours/ })).toContainText('time is not what lacks');
  await row.getByRole('button', { name: 'Do this' }).click();
  await expect.poll(litres).toBeGreaterThan(1.85 * before);
  await page.keyboard.press('Control+z');
  await expect.poll(litres).toBe(before);
  await page.keyboard.press('m');
  await page
    .getByRole('row', { name: /Booster pump/ })
    .getByRole('button', { name: 'Do this' })
    .click();
  await expect(page.getByRole('button', { name: /^Booster pump, stage 3/ })).toBeVisible();
  await expect.poll(litres).toBeGreaterThan(1.2 * before);
});

test('a skid is tuned: by hand each valve moves the others, and it sets itself to targets', async ({ page }) => {
  await openDemo(page, LAB, 'train');
  const tune = page.getByRole('region', { name: 'Tune' });
  await expect(tune).toContainText(/A meter at the pump reads the mixture, 7\d\d.µS\/cm, not the tap/);
  const drain = tune.getByRole('figure', { name: /^To the drain/ });
  const before = await drain.innerText();
  await tune.getByRole('slider', { name: 'Pump throttle' }).fill('1');
  await expect(drain).not.toHaveText(before);
  await enter(page, 'Product wanted', '800');
  await enter(page, 'Recovery wanted', '55');
  await enter(page, 'Recycle wanted', '1300');
  await tune.getByRole('button', { name: 'Set it for me' }).click();
  await expect(tune.getByRole('figure', { name: /^Product 800/ })).toBeVisible();
  await expect(tune.getByRole('figure', { name: /^Recovery 55/ })).toBeVisible();
  await enter(page, 'Product wanted', '9000');
  await tune.getByRole('button', { name: 'Set it for me' }).click();
  await expect(tune.getByRole('alert')).toContainText('This pump reaches');
  await expect(page.locator('body')).not.toHaveText(noNaN);
});

test('a watermaker raised in pressure makes more and purer water, and says when its relief valve would open', async ({ page }) => {
  await openDemo(page, BOAT, 'train');
  await page.getByRole('button', { name: /^Membrane, stage/ }).click();
  const flow = async (): Promise<number> => Number((await ledgerRow(page, 'Flow L/h'))[4]);
  const ec = async (): Promise<number> => Number((await ledgerRow(page, 'EC µS/cm'))[4]);
  const [litres, strength] = [await flow(), await ec()];
  await enter(page, 'Pressure at the valve', '62 bar');
  await expect.poll(flow).toBeGreaterThan(1.15 * litres);
  expect(await ec()).toBeLessThan(strength);
  await enter(page, 'Pressure at the valve', '68');
  await expect(page.getByText('above its relief valve of 65 bar')).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.getByRole('radio', { name: 'Pressure', exact: true }).click();
  await expect(page.locator('.descent.large .axis')).toContainText('60 bar');
});

test('stages take arrays, valves, recycle and bypass, each with its own fields', async ({ page }) => {
  await openDemo(page, LAB, 'train');
  await page.getByRole('button', { name: /^Array 2:2, stage/ }).click();
  await enter(page, 'Rank 2, vessels', '1');
  await expect(field(page, 'Rank 2, vessels')).toHaveValue('1');
  await page.getByText('Recycle, bypass, ageing').click();
  await enter(page, 'Feed led past the membrane', '20');
  const product = async (): Promise<number> => Number((await ledgerRow(page, 'EC µS/cm'))[4]);
  await expect.poll(product).toBeGreaterThan(80);
  await choose(page, 'Waste control', 'Waste through a needle valve');
  await expect(field(page, 'Opening Kv, m³/h')).toBeVisible();
  await expect(page.getByRole('region', { name: 'The year' })).toContainText('Waste to product');
  await expect(page.locator('body')).not.toHaveText(noNaN);
});
