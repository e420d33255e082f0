import { expect, test, type Page } from './test';
import { choose, expectAccessible, openRounds } from './steps';

/** The practice bench: one exercise solved well by keys alone, one badly by touch, and free play by its number. */
const bench = async (page: Page, exercise: string, seed: number): Promise<void> => {
  await page.goto(`/practice/${exercise}/${seed}`);
  await expect(page.getByRole('heading', { name: 'Turn a valve, or take a tool' })).toBeVisible({ timeout: 60_000 });
};
const last = (page: Page) => page.getByRole('status').filter({ hasText: /\S/ }).first();
const found = (page: Page) => page.getByRole('list', { name: 'What you have found' }).getByRole('listitem');

/** Walks by the tab key to what is called so, and presses Enter on it. */
async function press(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 120; i++) {
    const focused = await page.evaluate(() => {
      const at = document.activeElement;
      return at?.getAttribute('aria-label') ?? (at as HTMLElement | null)?.innerText ?? '';
    });
    if (name.test(focused.trim())) return page.keyboard.press('Enter');
    await page.keyboard.press('Tab');
  }
  throw new Error(`The tab key does not reach ${name.source}.`);
}

test('an exercise solved well, by keys alone', async ({ page }) => {
  await openRounds(page);
  await press(page, /^To the practice bench$/);
  await expect(page.getByRole('heading', { name: 'Find the fault, where nothing floods.' })).toBeVisible();
  await expect(page.getByRole('link', { name: /customer|“/ })).toHaveCount(18);
  await press(page, /^5\s+Saltier at the same output: why\?/);
  await expect(last(page)).toContainText('It reads saltier since the move.', { timeout: 60_000 });
  await press(page, /^Read the probes/);
  await expect(found(page)).toHaveCount(2);
  await expect(found(page).last()).toContainText(/1:30.*µS/s);
  await press(page, /^Jug under the waste/);
  await expect(last(page)).toContainText(/^waste: \d+.mL\/min/);
  await press(page, /^Name the cause$/);
  const dialog = page.getByRole('dialog', { name: 'Name the cause' });
  await expect(dialog).toBeVisible();
  await press(page, /^It is$/);
  await page.keyboard.type('Restrictor too long', { delay: 20 });
  await expect(dialog).toContainText('Restrictor too long, kinked or blocked');
  await press(page, /^Name it$/);
  const outcome = page.getByRole('region', { name: 'How it went' });
  await expect(outcome).toContainText('You named it.');
  await expect(outcome).toContainText('Hidden was: Restrictor too long, kinked or blocked');
  await expect(outcome).toContainText(/(9\d|100) of 100/);
  await expect(outcome).toContainText('Where the strength is up and the product unchanged, measure the waste.');
  await expect(outcome.getByRole('row').filter({ hasText: 'from here what was hidden led' })).toHaveCount(1);
  await expect(page.getByRole('img', { name: /the shortest way ends at/ })).toBeVisible();
  await expectAccessible(page);
  // The record of it, and of how sure one was.
  await press(page, /^All exercises$/);
  await expect(page.getByRole('link', { name: /Saltier at the same output/ })).toContainText(/(9\d|100) of 100/);
  await expect(page.getByText('1 of 1', { exact: true })).toBeVisible();
  await expect(page.getByText(/you were\s*80.% sure/)).toBeVisible();
  await expectAccessible(page);
});

test('an exercise solved badly, by touch: harm is told first', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await bench(page, '11', 3);
  await page.getByRole('button', { name: /^Open the housing and look/ }).tap();
  const harm = page.getByRole('alert').filter({ hasText: 'A housing was opened under pressure.' });
  await expect(harm).toContainText('Shut the feed, let the pressure out');
  // The feed was shut in the spray: nothing can be read until it is opened, and no time passes.
  const clock = await page.locator('.clock').innerText();
  await page.getByRole('button', { name: /^Read the probes/ }).tap();
  await expect(last(page)).toHaveText('No water runs: open the feed first.');
  expect(await page.locator('.clock').innerText()).toBe(clock);
  // Turned in the picture as well as beside it: the two are one.
  await page.getByRole('radiogroup', { name: 'Feed' }).getByRole('radio', { name: 'open' }).tap();
  await expect(page.getByRole('button', { name: 'Valve: feed open' })).toBeAttached();
  await page.getByRole('button', { name: /^Read the probes/ }).tap();
  await expect(last(page)).toContainText(/µS/);
  await page.getByText('Fit a part, or put something right').tap();
  await page.getByRole('button', { name: /^New membrane/ }).tap();
  await expect(page.locator('.clock')).toContainText('90');
  // A reload goes on where it stood.
  await page.reload();
  await expect(found(page)).toHaveCount(5, { timeout: 60_000 });
  await expect(page.locator('.clock')).toContainText('90');
  await page.getByRole('button', { name: /^Name/ }).tap();
  await choose(page, 'It is', 'Cold water');
  await page.getByRole('button', { name: 'Name it' }).tap();
  const outcome = page.getByRole('region', { name: 'How it went' });
  await expect(outcome).toContainText('It was something else.');
  await expect(outcome).toContainText('0 of 100');
  await expect(outcome).toContainText('Bought before it was sure to help: new membrane.');
  // Harm stands before everything else.
  expect((await outcome.innerText()).startsWith('A housing was opened under pressure.')).toBe(true);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expect(page.locator('body')).not.toHaveText(/NaN|undefined|Infinity/);
  await context.close();
});

test('free play: the same number is the same rig; a hint costs five minutes; a valve turns in the picture', async ({ page }) => {
  await page.goto('/practice');
  await page.getByLabel('Number of the rig').fill('4o2');
  await expect(page.getByText('“4o2” is no number of a rig; accepted is 0 to 999999999.')).toBeVisible();
  await page.getByLabel('Number of the rig').fill('402');
  await page.getByRole('button', { name: 'Household unit' }).click();
  await expect(page).toHaveURL(/free-household\/402$/);
  await expect(page.getByText(/^Free play · /)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: /^Read the probes/ }).click();
  await expect(found(page)).toHaveCount(2);
  const first = await found(page).last().innerText();
  await page.getByRole('button', { name: 'Hint' }).click();
  await expect(last(page)).toContainText('Hint: ');
  await expect(page.locator('.clock')).toContainText(/^7/);
  await page.getByRole('button', { name: 'Valve: line on' }).press('Enter');
  await expect(page.getByRole('radiogroup', { name: 'Product line' }).getByRole('radio', { name: 'off' })).toBeChecked();
  await page.getByRole('button', { name: /^Read the probes/ }).click();
  await expect(last(page)).toHaveText('The product line is off: nothing reaches the resin. Put it on again first.');
  // Another rig, and the first one again.
  await bench(page, 'free-household', 403);
  await page.getByRole('button', { name: /^Read the probes/ }).click();
  await expect(found(page)).toHaveCount(2);
  expect(await found(page).last().innerText()).not.toBe(first);
  await bench(page, 'free-household', 402);
  await expect(found(page)).toHaveCount(1);
  await page.getByRole('button', { name: /^Read the probes/ }).click();
  await expect.poll(() => found(page).last().innerText()).toBe(first);
  await page.goto('/practice/99/1');
  await expect(page.getByRole('alert')).toContainText('There is no exercise “99”; accepted is 1 to 18');
});
