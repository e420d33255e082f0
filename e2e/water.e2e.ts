import { expect, test, type Page } from '@playwright/test';
import { choose, enter, field, openDemo, phase } from './steps';

const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';
const noNaN = /NaN|Infinity|undefined/;

const REPORT = [
  'Determinand;Unit;Result',
  'Calcium;mg/l;105',
  'Magnesium;µg/L;5100',
  'Natrium;mg/l;12,2',
  'Potassium;mg/l;2,0',
  'Alkalinity;mg/l as CaCO3;234',
  'Chloride;mg/l;22',
  'Sulphate;mg/l;25',
  'Nitrate as N;mg/l;5,65',
  'Ammonium;mg/l;<0,05',
  'Conductivity at 25 °C;mS/m;59,0',
  'pH;;7,4',
  'Colour;Hazen;<2',
  'Glow;candela;3',
].join('\n');

const way = (page: Page, name: string): Promise<void> => page.getByRole('radio', { name, exact: true }).click();
const composition = (page: Page, ion: string) => page.locator('.label', { hasText: ion }).locator('small');
const paste = (page: Page, text: string): Promise<void> => field(page, 'Report').fill(text);

test('a report pasted with mixed units is shown row by row, and counts only once it is taken', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  await expect(composition(page, 'Sodium')).not.toHaveText(/^12\.2/);
  await way(page, 'Report');
  // Nothing is lost by switching: the reading is there when one comes back.
  await expect(page.getByTestId('water-error')).toContainText('at least one is needed');
  await paste(page, REPORT);
  const row = (name: RegExp) => page.getByRole('table', { name: 'Rows of the report' }).getByRole('row', { name });
  await expect(row(/Magnesium/)).toContainText('Magnesium 5.1 mg/L, from µg/L');
  await expect(row(/Nitrate/)).toContainText('Nitrate 25.01 mg/L as NO₃, stated as N');
  await expect(row(/Ammonium/)).toContainText('Ammonium below 0.03882 mg/L as N');
  await expect(row(/Conductivity/)).toContainText('Conductivity 590 µS/cm at 25 °C, from mS/m');
  await expect(row(/Colour/)).toContainText('nothing here depends on it');
  await expect(row(/Glow/)).toContainText('not known here');
  await expect(page.getByTestId('water-error')).toBeVisible();
  await page.getByRole('button', { name: 'Take these 11 figures' }).click();
  await expect(composition(page, 'Sodium')).toHaveText(/^12\.2/);
  await expect(page.getByRole('heading', { name: /The report agrees with itself: charges within/ })).toBeVisible();
  await way(page, 'One reading');
  await expect(field(page, 'Meter reading')).toHaveValue('244');
  await way(page, 'Report');
  await expect(field(page, 'Report')).toHaveValue(REPORT);
  await page.reload();
  await expect(page.getByText(/In use.*11 figures/)).toBeVisible();
});

test('a report that contradicts itself says by how much, and is closed on request', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Report');
  await paste(page, REPORT.replace('Natrium;mg/l;12,2', 'Natrium;mg/l;1,2'));
  await page.getByRole('button', { name: /^Take these/ }).click();
  const balance = page.getByRole('article').filter({ hasText: 'contradicts itself' });
  await expect(balance.getByRole('heading')).toHaveText(/charges miss by −[34]\.\d.%/);
  await balance.getByRole('button', { name: 'Close on sodium' }).click();
  await expect(composition(page, 'Sodium')).toHaveText(/^1[0-3]( ±|\.\d)/);
  await page.keyboard.press('Control+z');
  await expect(composition(page, 'Sodium')).toHaveText(/^1\.2/);
});

test('drops are counted with the space bar, and a double sample is offered', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await page.getByRole('button', { name: 'Count drops' }).nth(1).click();
  await page.getByRole('radio', { name: '5 mL', exact: true }).click();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Space');
  const dialog = page.getByRole('dialog');
  await expect(page.getByTestId('drop-result')).toHaveText(/^53\.4.mg\/L/);
  await expect(dialog).toContainText(/10.mL would halve the step to 8\.9/);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Space');
  await page.keyboard.press('Backspace');
  await expect(page.getByTestId('drop-result')).toHaveText(/^142.mg\/L/);
  await page.getByRole('button', { name: 'Take this figure' }).click();
  await expect(field(page, 'Alkalinity')).toHaveValue('142.4');
  await expect(page.getByText(/8 drops in 5 mL, ±/)).toBeVisible();
});

test('a zone of the supplier is fetched, kept, and there without a connection', async ({ page, context }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Report');
  await page.getByRole('button', { name: 'Ask the supplier' }).click();
  await choose(page, 'Zone', /Quill Down/);
  await expect(page.getByText(/Quill Down.*fetched and kept/)).toBeVisible();
  await page.getByRole('button', { name: /^Take these/ }).click();
  await expect(composition(page, 'Sodium')).toHaveText(/^12\.2/);

  await context.setOffline(true);
  await page.getByRole('button', { name: 'New sample' }).click();
  await choose(page, 'Zone', /Hollow Fell/);
  const error = page.getByTestId('report-error');
  await expect(error).toContainText('The supplier cannot be reached: there is no connection. No report of this zone was kept');
  await choose(page, 'Zone', /Quill Down/);
  await expect(page.getByText(/Quill Down.*as kept on/)).toBeVisible();
  await expect(field(page, 'Report')).toHaveValue(/Hardness \(Clark\)/);
  await context.setOffline(false);
});

test('with the server gone from the start, the supplier is said to be gone and pasting goes on', async ({ page, context }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Report');
  await paste(page, 'Calcium 55 mg/l');
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Ask the supplier' }).click();
  await expect(page.getByTestId('report-error')).toContainText('Nothing was kept from earlier; paste the report instead');
  await expect(field(page, 'Report')).toHaveValue('Calcium 55 mg/l');
  await context.setOffline(false);
});

test('meters in one glass: scale is told from error, and the correction counts from then on', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await way(page, 'Meters');
  const row = (name: RegExp) => page.getByRole('table', { name: 'Meters in the same glass' }).getByRole('row', { name });
  await expect(row(/In-line meter/)).toContainText(/Agrees: −1\.\d.% in conductivity\. Its figure differs by −50.% because its scale does/);
  await expect(row(/Pen in the salt room/)).toContainText('error, not scale');
  // A pen entered on the wrong scale.
  await enter(page, 'Pen in the salt room in glass 1', '305');
  await enter(page, 'Pen in the salt room in glass 2', '10.3');
  await expect(row(/Pen in the salt room/)).toContainText('it would agree as “ppm, factor 0.5”');
  await row(/Pen in the salt room/)
    .getByRole('button', { name: 'Set that scale' })
    .click();
  await expect(row(/Pen in the salt room/)).toContainText('Agrees');
  // An in-line meter that reads a quarter high: corrected, the tap is a fifth weaker.
  await enter(page, 'In-line meter in glass 1', '381');
  await enter(page, 'In-line meter in glass 2', '12.9');
  await row(/In-line meter/)
    .getByRole('button', { name: /Correct it: gain 1\.2/ })
    .click();
  await way(page, 'Sample');
  await expect(page.getByText(/ppm; 4\d\d.µS\/cm at 25 °C/)).toBeVisible();
});

test('another goal, and the water means something else', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  const findings = page.getByRole('region', { name: 'What this water means' });
  await expect(findings).toContainText('ammonia nitrogen after carbon');
  await phase(page, 'Goal');
  await page.getByRole('radio', { name: 'Espresso machine' }).click();
  await expect(page.getByRole('row', { name: /Lime in a steam boiler/ })).toContainText('at most 10');
  await phase(page, 'Water');
  await expect(findings).toContainText(/of lime at 257.°F, up to .* where it steams/);
  await expect(findings).toContainText('Ryznar index');
  await expect(findings).not.toContainText('ammonia nitrogen');
  await expect(page.getByText('Moderately hard on the beverage trade’s scale')).toBeVisible();
});

test('goal: our own limits side by side, a standard to start from, limits of this job, minerals put back', async ({ page }) => {
  await openDemo(page, CORAL, 'goal');
  await page.getByRole('radio', { name: 'Laboratory' }).click();
  const limits = page.getByRole('table', { name: 'Limits of the goal' });
  await expect(limits.getByRole('row', { name: /Conductivity/ })).toContainText('at most 1.0');
  await page.getByRole('radio', { name: 'Fine analysis' }).click();
  await expect(limits.getByRole('row', { name: /Conductivity/ })).toContainText('at most 0.1');
  await page.getByRole('button', { name: 'Edit limits' }).click();
  await choose(page, 'Start from…', 'ASTM III');
  await expect(limits.getByRole('row', { name: /Silica/ })).toContainText('500');
  await expect(limits.getByRole('row', { name: /Silica/ })).toContainText('from memory; check your copy');
  await enter(page, 'Silica, at most', '0.2 mg/L');
  await expect(limits.getByRole('row', { name: /Silica/ })).toContainText('this crew');
  await page.keyboard.press('Control+z');
  await expect(limits.getByRole('row', { name: /Silica/ })).not.toContainText('this crew');

  await page.getByRole('radio', { name: 'Freshwater community tank' }).click();
  await expect(limits.getByRole('row', { name: /^Hardness/ })).toContainText('too little');
  await page.getByRole('radio', { name: 'Minerals back' }).click();
  await enter(page, 'Hardness wanted', '120');
  await enter(page, 'Alkalinity wanted', '90');
  await expect(limits.getByRole('row', { name: /^Hardness/ })).toContainText('to spare');
  await expect(page.getByRole('heading', { name: /CaCl₂·2H₂O/ })).toBeVisible();
  await page.getByRole('radio', { name: 'Reef tank, salt mixed in' }).click();
  await expect(page.getByRole('heading', { name: /Salt mix: (39|40)\.\d.g for each litre/ })).toBeVisible();
});

test('goal: the week is dragged, typed and moved by keys, and the tank answers', async ({ page }) => {
  await openDemo(page, VAN, 'goal');
  const outcome = page.getByTestId('demand-outcome');
  await expect(outcome).toContainText(/200.L a day on average, 1400.L a week/);
  await enter(page, 'Sunday', '600 L');
  await expect(outcome).toContainText(/2000.L a week\. Sunday takes 600.L/);
  await page.getByRole('slider', { name: 'Litres by day, Sunday' }).focus();
  const before = await field(page, 'Sunday').inputValue();
  await page.keyboard.press('ArrowUp');
  await expect(field(page, 'Sunday')).not.toHaveValue(before);
  // All of the bar in sight, with room for what the outcome says below it.
  const monday = page.getByRole('slider', { name: 'Litres by day, Monday' });
  await monday.evaluate((bar) => bar.scrollIntoView({ block: 'center' }));
  const box = (await monday.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await field(page, 'Monday').inputValue())).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Add a batch' }).click();
  await enter(page, 'Litres in one', '3000');
  await expect(outcome).toContainText(/too little, whatever the tank|is too small/);
  await expect(page.locator('body')).not.toHaveText(noNaN);
});

test('bad reports: unknown columns, waste water, five megabytes; each is said and nothing is lost', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Report');
  const error = page.getByTestId('report-error');
  await paste(page, 'Alpha,Beta,Gamma\n1,2,3\n4,5,6');
  await expect(error).toContainText('Nothing in this text is known here (it begins “Alpha,Beta,Gamma”)');
  await paste(page, 'BOD 12 mg/l\nCOD 40 mg/l\nChloride 90 mg/l');
  await expect(error).toContainText('This is a report on waste water: it lists BOD');
  await expect(page.getByRole('button', { name: 'Take this figure' })).toBeDisabled();
  await paste(page, 'Calcium 55 mg/l\nSodium 1,234 mg/l');
  await expect(page.getByRole('row', { name: /Sodium/ })).toContainText('can mean 1234 or 1.234');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Calcium 55 mg/l\n'.repeat(330_000));
    document
      .querySelector('textarea')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(error).toContainText('This text has 5.3 million characters; a report of one water has at most 100 thousand');
  await expect(field(page, 'Report')).toHaveValue('Calcium 55 mg/l\nSodium 1,234 mg/l');
});

test('a report of another kind of water is named as such', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Report');
  await paste(
    page,
    'Calcium 420 mg/l\nMagnesium 1300 mg/l\nSodium 11000 mg/l\nPotassium 400 mg/l\nAlkalinity 125 mg/l\nChloride 19800 mg/l\nSulfate 2770 mg/l\nConductivity 51800 µS/cm\npH 8.1',
  );
  await page.getByRole('button', { name: /^Take these/ }).click();
  const kind = page.getByRole('article').filter({ hasText: 'speaks of seawater' });
  await kind.getByRole('button', { name: 'Take it as seawater' }).click();
  await expect(kind).toBeHidden();
  await expect(page.getByRole('combobox', { name: 'Kind of supply' })).toBeVisible();
});

test('a second water is blended in, and contradictory figures of it are named', async ({ page }) => {
  await openDemo(page, VAN, 'water');
  await way(page, 'Supply');
  await page.getByRole('button', { name: 'Blend a second water in' }).click();
  await enter(page, 'Its share', '50');
  await expect(page.getByText(/50.% yard tap and 50.% rain barrel at 20.µS\/cm make 2\d\d.µS\/cm/)).toBeVisible();
  await enter(page, 'Its hardness', '500');
  await expect(page.getByText(/Rain barrel cannot be computed/)).toBeVisible();
  await enter(page, 'Its hardness', '');
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.getByRole('button', { name: 'Blend a second water in' })).toBeVisible();
});
