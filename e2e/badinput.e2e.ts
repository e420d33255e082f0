import { expect, test } from './test';
import { DEMO, enter, field, openDemo, openRounds } from './steps';

const CORAL = 'demo-coral-nursery';
const noNaN = /NaN|Infinity|undefined/;

test('a hardness the conductivity cannot hold is named, and stays to be mended', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await enter(page, 'Total hardness', '600');
  const card = page.getByTestId('water-error');
  await expect(card).toContainText(
    /Hardness 600 and alkalinity 151 .* at least \d+ µS\/cm \(hardness alone \d+\) in any water, even one all magnesium and sulfate; 612 was entered/,
  );
  await expect(field(page, 'Total hardness')).toHaveValue('600');
  await expect(page.locator('body')).not.toHaveText(noNaN);
  await enter(page, 'Total hardness', '214');
  await expect(card).toBeHidden();
});

test('zero pressure makes nothing and says so', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await page.getByRole('radio', { name: 'Supply' }).click();
  await enter(page, 'Line pressure', '0');
  await page.keyboard.press('3');
  await expect(page.getByText(/The membrane makes 0.gal\/day/)).toBeVisible();
  await expect(page.locator('body')).not.toHaveText(noNaN);
});

test('negative volumes and unknown units are refused at the field, and what was typed stays', async ({ page }) => {
  await openDemo(page, CORAL, 'build');
  await page.getByRole('button', { name: 'Measure waste and product' }).first().click();
  await enter(page, 'Waste', '-890');
  await expect(page.getByRole('alert')).toContainText('Waste is -890; accepted is 0 to');
  await expect(field(page, 'Waste')).toHaveValue('-890');
  await enter(page, 'Waste', '3 buckets');
  await expect(page.getByRole('alert')).toContainText('“buckets” is not a unit known here');
  await enter(page, 'Waste', '1,500 ml');
  await expect(page.getByRole('alert')).toContainText('can mean 1500 or 1.5');
  await enter(page, 'Waste', '900');
  await enter(page, 'Product', '0');
  await expect(page.getByText('Product is 0: without product there is no ratio.', { exact: false })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save and go to trim' })).toBeDisabled();
});

test('a quick line with a slip is not saved and not lost', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const line = page.getByLabel('Quick reading');
  await line.fill('311 10 0 59furlong');
  await expect(page.getByText('furlong is not a unit known here', { exact: false })).toBeVisible();
  await line.press('Enter');
  await expect(line).toHaveValue('311 10 0 59furlong');
});

test('a broken and a foreign file change nothing and say why', async ({ page }) => {
  await openRounds(page);
  const open = (text: string) =>
    page.getByTestId('file').setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await open('{"format":"yes-clear","version":1,');
  await expect(page.getByRole('alert')).toContainText('breaks off or is not JSON');
  await open('{"rows":[1,2,3]}');
  await expect(page.getByRole('alert')).toContainText('not a Yes Clear file');
  await open('{"format":"yes-clear","version":1,"savedAt":"2026-11-23T10:00:00Z","records":[{"system":{"id":7},"readings":[]}]}');
  await expect(page.getByRole('alert')).toContainText('records[0].system.id is 7; accepted is a string');
  await expect(page.getByRole('article')).toHaveCount(DEMO);
});
