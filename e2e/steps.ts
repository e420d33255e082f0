import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';

/** What a person does in the interface, in the trade's words. */

/** A field by its label. */
export const field = (page: Page, label: string): Locator => page.getByLabel(label, { exact: true }).first();

/** Types into a field and leaves it. */
export async function enter(page: Page, label: string, text: string): Promise<void> {
  await field(page, label).fill(text);
  await field(page, label).blur();
}

/** A browser that has never been here and starts without the demonstration. */
export async function firstVisit(page: Page): Promise<void> {
  await page.addInitScript(() => {
    // Taken before the app reads it: as if the server had not offered the demonstration.
    new MutationObserver(() => document.querySelector('meta[name="yes-clear-demo"]')?.setAttribute('content', 'off')).observe(document, {
      childList: true,
      subtree: true,
    });
  });
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'From the tap to a logged reading.' })).toBeVisible();
}

/** Opens the demonstration's system at a phase. */
export async function openDemo(page: Page, id: string, phase: string): Promise<void> {
  await page.goto(`/system/${id}/${phase}`);
  await expect(page.getByRole('main').first()).toBeVisible();
  if (phase === 'train') await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
}

/** A row of the ledger as the figures it shows. */
export async function ledgerRow(page: Page, label: string | RegExp): Promise<string[]> {
  const row = page.getByRole('row').filter({ has: page.getByRole('rowheader', { name: label }) });
  return row.getByRole('cell').allInnerTexts();
}

export const phase = (page: Page, name: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name }).click();

/** Picks from a list by its label; the field around the combobox is what a finger hits. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.locator('.v-field', { has: page.getByRole('combobox', { name: label }) }).click();
  await page.getByRole('option', { name: option }).click();
}

/** Systems of the demonstration. */
export const DEMO = 6;

/** The page can be used without seeing or a mouse, as far as a machine can tell: WCAG A and AA. */
export async function expectAccessible(page: Page): Promise<void> {
  const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
  const told = found.violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes
        .slice(0, 3)
        .map((node) => node.target.join(' '))
        .join(' | ')}`,
  );
  expect(told).toEqual([]);
}
