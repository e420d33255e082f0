import { readFile } from 'node:fs/promises';
import { pdfText } from './pdf';
import { expect, test } from '@playwright/test';
import {
  DEMO,
  removeDemo,
  enter,
  field,
  firstVisit,
  ledgerRow,
  openDemo,
  openRounds,
  phase,
  expectAccessible,
  allFindings,
  choose,
  lens,
} from './steps';

const CORAL = 'demo-coral-nursery';

test('the demonstration is there at first start, goes and comes without touching other systems', async ({ page }) => {
  await openRounds(page);
  await page.getByRole('button', { name: 'New system' }).click();
  await page.getByLabel('Name').fill('Mine');
  await page.getByRole('button', { name: 'Create and enter its water' }).click();
  await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
  await page.goto('/');
  await removeDemo(page);
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.reload();
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('button', { name: 'Load the demo' }).click();
  await expect(page.getByRole('article')).toHaveCount(DEMO + 1);
});

test('every edit is kept at once: a killed tab loses nothing', async ({ page, context }) => {
  await openDemo(page, CORAL, 'train');
  await page.getByRole('button', { name: /^Membrane ×2, stage/ }).click();
  const before = await page.locator('.foot dt').nth(1).innerText();
  await enter(page, 'Restrictor length', '18.5');
  await expect(page.locator('.foot dt').nth(1)).not.toHaveText(before);
  const ratio = await page.locator('.foot dt').nth(1).innerText();
  await page.close({ runBeforeUnload: false });
  const later = await context.newPage();
  await later.goto(`/system/${CORAL}/train`);
  await expect(later.locator('.foot dt').nth(1)).toHaveText(ratio);
});

test('undo and redo any edit, readings too', async ({ page }) => {
  await openDemo(page, CORAL, 'train');
  const stages = page.locator('.ledger .stage');
  await expect(stages).toHaveCount(7);
  await page.getByRole('button', { name: /^Carbon 2, stage/ }).focus();
  await page.keyboard.press('Delete');
  await expect(stages).toHaveCount(6);
  await page.keyboard.press('Control+z');
  await expect(stages).toHaveCount(7);
  await page.keyboard.press('Control+Shift+z');
  await expect(stages).toHaveCount(6);
  await page.keyboard.press('Control+z');
  await expect(stages).toHaveCount(7);
});

test('stages are added, moved by keyboard and dragged; the ledger follows', async ({ page }) => {
  await openDemo(page, CORAL, 'train');
  await page.keyboard.press('a');
  await page.getByText('Keeps dirt from everything after it').click();
  const heads = page.locator('.ledger .stage');
  await expect(heads).toHaveCount(8);
  await expect(page.getByRole('region', { name: 'Sediment 2' })).toBeVisible();
  await page.getByRole('button', { name: /^Sediment 2, stage/ }).focus();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(heads.nth(2)).toHaveText('Sediment 2');
  await expect(async () => {
    await heads.filter({ hasText: 'Sediment 2' }).dragTo(heads.nth(0), { targetPosition: { x: 8, y: 12 } });
    await expect(heads.nth(0)).toHaveText('Sediment 2', { timeout: 1500 });
  }).toPass();
  await expect.poll(async () => (await ledgerRow(page, 'TDS ppm')).length).toBe(9);
});

test('switching units changes what is shown and nothing that is stored', async ({ page }) => {
  await openDemo(page, CORAL, 'train');
  const before = await ledgerRow(page, /^Pressure/);
  await page.keyboard.press('u');
  await expect(page.getByRole('rowheader', { name: 'Pressure bar' })).toBeVisible();
  await expect(page.getByRole('rowheader', { name: 'TDS ppm' })).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByRole('rowheader', { name: 'EC µS/cm' })).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByRole('rowheader', { name: 'Pressure psi' })).toBeVisible();
  await expect.poll(() => ledgerRow(page, /^Pressure/)).toEqual(before);
});

test('a finding mends what it found', async ({ page }) => {
  await openDemo(page, CORAL, 'train');
  await page.getByRole('button', { name: /^Membrane ×2, stage/ }).click();
  await enter(page, 'Restrictor bore', '1.15 mm');
  await expect(page.getByText(/below 3 : 1/)).toBeVisible();
  const button = page.getByRole('button', { name: /Set restrictor for 4/ });
  await expect(button).toBeVisible();
  await button.click();
  await expect(page.locator('.foot')).toContainText(/4\.0.:.1/);
  await page.getByRole('button', { name: /^Sediment, stage/ }).focus();
  await page.keyboard.press('Alt+ArrowRight');
  await allFindings(page);
  await expect(page.getByText(/^Carbon 1 meets .* before any sediment filter$/)).toBeVisible();
  await page.getByRole('button', { name: 'Put sediment first' }).click();
  await lens(page, 'Ledger');
  await expect(page.locator('.ledger .stage').first()).toHaveText('Sediment');
});

test('quick reading by big keys on a phone', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'log');
  await page.getByRole('button', { name: 'Read', exact: false }).first().click();
  for (const key of ['3', '0', '5']) await page.getByRole('button', { name: key, exact: true }).click();
  await page.getByRole('button', { name: /After membrane/ }).click();
  await page.getByRole('button', { name: '7', exact: true }).click();
  await page.getByRole('button', { name: /After resin/ }).click();
  await page.getByRole('button', { name: '0', exact: true }).click();
  await expect(page.getByLabel('Quick reading').first()).toBeVisible();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Log it/ })
    .click();
  await expect(page.getByText('Logged for Coral nursery make-up.')).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);
  await context.close();
});

test('the shortcuts and going anywhere', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Shortcuts' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Shortcuts' })).toBeHidden();
  await page.keyboard.press('Control+k');
  await page.getByLabel('Go to').fill('van log');
  await page.getByLabel('Go to').press('Enter');
  await expect(page).toHaveURL(/demo-van-tank\/log/);
});

test('two tabs do not undo each other', async ({ page, context }) => {
  await openDemo(page, CORAL, 'water');
  const other = await context.newPage();
  await other.goto(`/system/${CORAL}/goal`);
  await expect(other.getByRole('heading', { name: 'What the water is for' })).toBeVisible();
  await enter(page, 'pH', '7.4');
  await enter(other, 'Water needed', '20 gal');
  await page.reload();
  await expect(field(page, 'pH')).toHaveValue('7.4');
  await phase(page, 'Goal');
  await expect(field(page, 'Water needed')).toHaveValue('20');
});

// Train is looked at with its panels open, beside the exchange. Some pages share a browser: starting one takes longer than looking.
for (const pages of [
  [
    ['Rounds', '/'],
    ['Water', `/system/${CORAL}/water`],
    ['Goal', `/system/${CORAL}/goal`],
  ],
  [
    ['Build', `/system/${CORAL}/build`],
    ['Build between two pieces of work', '/system/demo-lab-skid/build'],
    ['Parts', `/system/${CORAL}/build?view=parts`],
  ],
  [
    ['Papers', `/system/${CORAL}/build?view=papers`],
    ['A link', '/open#anything'],
    ['Log', `/system/${CORAL}/log`],
  ],
] as const)
  test(`${pages.map(([name]) => name).join(', ')} can be used without seeing or a mouse (WCAG A and AA)`, async ({ page }) => {
    for (const [name, path] of pages)
      await test.step(name, async () => {
        await page.goto(path);
        await expect(page.getByRole('heading').first()).toBeVisible();
        await expectAccessible(page);
      });
  });

test('the first visit says what this is and offers three ways in', async ({ page }) => {
  await firstVisit(page);
  for (const name of ['Keep it as a system', 'Start from a template', 'Open a file', 'Load the demo'])
    await expect(page.getByRole('button', { name })).toBeVisible();
});

test('two answers give a solved train, drawn as they are typed, and one button keeps it', async ({ page }) => {
  await firstVisit(page);
  const sight = page.getByRole('region', { name: 'The train that fits' });
  await expect(sight).toContainText('Nobody measured this tap');
  await enter(page, 'At the tap', '306');
  await expect(sight.getByRole('heading', { name: /^From 306.ppm to 0.ppm in 5 stages/ })).toBeVisible();
  await expect(sight).not.toContainText('Nobody measured');
  await enter(page, 'At the tap', '-3');
  await expect(page.getByRole('alert')).toContainText('At the tap');
  await enter(page, 'At the tap', '306');
  await choose(page, 'What the water is for', 'Window cleaning');
  await expect(sight).toContainText('Membrane, resin and a van tank');
  await enter(page, 'At the tap', '40');
  await expect(sight).toContainText('Resin vessel only');
  await page.getByRole('radio', { name: 'I don’t know' }).click();
  await choose(page, 'Kind of supply', 'Chalk or limestone well');
  await expect(sight).toContainText('chalk or limestone well');
  await page.getByRole('button', { name: 'Keep it as a system' }).click();
  await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
  await phase(page, 'Water');
  await expect(page.getByRole('radio', { name: 'Nothing yet' })).toBeChecked();
  await expect(page.getByText('Nothing of this water was measured: 0 figures')).toBeVisible();
});

test('works without a network once it has been here', async ({ browser }) => {
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'train');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // The worker takes its copy of the app before it says it is active; let it finish.
  const kept = async (): Promise<number> =>
    page.evaluate(async () => {
      const caught = await Promise.all((await caches.keys()).map((key) => caches.open(key)));
      return (await Promise.all(caught.map((cache) => cache.keys()))).flat().length;
    });
  await expect.poll(kept).toBeGreaterThan(30);
  await context.setOffline(true);
  await page.goto(`/system/${CORAL}/log`);
  await page.getByLabel('Quick reading').fill('305 7 0');
  await page.getByLabel('Quick reading').press('Enter');
  await expect(page.getByRole('cell', { name: '305' }).first()).toBeVisible();
  // A paper needs its fonts: they are kept too.
  await page.goto(`/system/${CORAL}/build?view=papers`);
  const [paper] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Customer card as PDF' }).click()]);
  expect(await pdfText(await readFile((await paper.path())!))).toContain('What to read');
  await context.close();
});

test('everything is saved to one file and comes back from it', async ({ page }) => {
  await openRounds(page);
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save everything' }).click()]);
  await expect(page.getByText('Last backup file: today.')).toBeVisible();
  await removeDemo(page);
  await expect(page.getByRole('article')).toHaveCount(0);
  await page.getByTestId('file').setInputFiles((await download.path())!);
  await expect(page.getByText(`Opened ${DEMO} systems.`)).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(DEMO);
});

test('on a phone the units switch together or one by one', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'train');
  await page.getByRole('button', { name: 'Units: ppm · psi' }).click();
  const units = page.getByRole('dialog', { name: 'Units' });
  await units.getByRole('radio', { name: 'µS/cm · bar · °C · L' }).click();
  await expect(page.getByRole('rowheader', { name: 'Pressure bar' })).toBeVisible();
  await expect(page.getByRole('rowheader', { name: 'Flow L/h' })).toBeVisible();
  await units.getByRole('radiogroup', { name: 'Pressure' }).getByRole('radio', { name: 'psi' }).click();
  await expect(page.getByRole('rowheader', { name: 'Pressure psi' })).toBeVisible();
  await expect(page.getByRole('rowheader', { name: 'Flow L/h' })).toBeVisible();
  await context.close();
});
