import { expect, test } from './test';
import { field, openDemo, openRounds, phase } from './steps';

/** The whole of it by keys, and nothing wider than a phone. */
const CORAL = 'demo-coral-nursery';
const PHASES = ['Water', 'Goal', 'Train', 'Build', 'Log', 'Faults'];

test('a new system by keys alone: name, template by arrows, then straight into its first field', async ({ page }) => {
  await openRounds(page);
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'New system' })).toBeVisible();
  await page.keyboard.type('By keys');
  const cards = page.getByRole('radiogroup', { name: 'Starting train' });
  await cards.getByRole('radio', { checked: true }).focus();
  const first = await cards.getByRole('radio', { checked: true }).innerText();
  await page.keyboard.press('ArrowDown');
  await expect(cards.getByRole('radio', { checked: true })).toBeFocused();
  await expect(cards.getByRole('radio', { checked: true })).not.toHaveText(first);
  await page.keyboard.press('ArrowUp');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
  await expect(field(page, 'Meter reading')).toBeFocused();
});

test('menus take the focus and give it back; Esc closes the fields of a stage', async ({ page }) => {
  await openDemo(page, CORAL, 'train');
  const units = page.getByRole('button', { name: /^Units:/ });
  await units.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Units' }).locator(':focus')).toHaveRole('radio');
  await page.keyboard.press('Escape');
  await expect(units).toBeFocused();
  const add = page.getByRole('button', { name: 'Add stage' });
  await add.press('Enter');
  await expect(page.locator('.v-list-item:focus')).toContainText('Sediment filter');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Membrane ×2, stage/ }).click();
  await expect(field(page, 'Restrictor length')).toBeVisible();
  await field(page, 'Restrictor length').focus();
  await page.keyboard.press('Escape');
  await expect(field(page, 'Restrictor length')).toHaveCount(0);
});

test('no page of any demo system is wider than a phone', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  const wide: string[] = [];
  for (const id of [CORAL, 'demo-lab-skid', 'demo-ice-counter'])
    for (const [i, name] of PHASES.entries()) {
      if (i === 0) await openDemo(page, id, name.toLowerCase());
      else await phase(page, name);
      await expect(page).toHaveURL(new RegExp(`/${name.toLowerCase()}$`));
      await expect(page.locator('h1, h2').first()).toBeVisible();
      const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      if (over > 0) wide.push(`${id} ${name}: ${over} px`);
    }
  expect(wide).toEqual([]);
  await context.close();
});
