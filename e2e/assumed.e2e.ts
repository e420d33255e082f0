import { expect, test } from './test';
import { firstVisit, ledgerRow, phase } from './steps';

/**
 * On a system made from each template and not touched nobody has measured anything: no figure that rests on an assumption
 * stands without its mark, and none of it is a fact.
 */
test('every template, untouched: what nobody measured is marked wherever it stands', async ({ page }) => {
  test.setTimeout(240_000);
  await firstVisit(page);
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'New system' })).toBeVisible();
  const names = await page.getByRole('radiogroup', { name: 'Starting train' }).getByRole('radio').locator('strong').allInnerTexts();
  expect(names.length).toBeGreaterThanOrEqual(11);
  await page.keyboard.press('Escape');
  for (const [i, name] of names.entries()) {
    await test.step(name, async () => {
      if (i > 0) await page.getByRole('link', { name: 'Yes Clear, to Rounds' }).click();
      await expect(
        page
          .getByRole('button', { name: /^New( system)?( N)?$/ })
          .or(page.getByRole('heading', { name: 'From the tap to a logged reading.' }))
          .first(),
      ).toBeVisible();
      await page.keyboard.press('n');
      await page.getByLabel('Name', { exact: true }).fill(`Untouched ${i}`);
      await page.getByRole('radiogroup', { name: 'Starting train' }).getByRole('radio').nth(i).click();
      await page.getByRole('button', { name: 'Create and enter its water' }).click();
      await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
      const sea = /[Ss]eawater|[Ww]atermaker/.test(name);

      // Water: each prefilled figure asks to be looked at, and what follows says so.
      await expect(page.getByText('Assumed, not looked at.')).toHaveCount(2);
      await expect(page.getByText('Nothing of this water was measured: the reading is assumed')).toBeVisible();
      for (const text of await page.getByLabel('Dissolved solids by every name').locator('dd').allInnerTexts()) expect(text).toMatch(/^~/);
      if (!sea) {
        await expect(page.getByRole('cell', { name: 'Total hardness, assumed' })).toBeVisible();
        await expect(page.getByText('Lime, as it is warmed, from assumed ions')).toBeVisible();
      }
      await page.getByRole('radio', { name: 'Supply' }).click();
      await expect(page.getByText('Assumed, not looked at.').first()).toBeVisible();

      // Goal: a limit met or missed by an assumed figure shows its doubt.
      await phase(page, 'Goal');
      await expect(page.getByRole('heading', { name: 'What the water is for' })).toBeVisible();
      const rows = page
        .getByRole('row')
        .filter({ has: page.getByRole('rowheader', { name: /^(Silica|Nitrate|Phosphate|Chloride|Alkalinity|Sodium|Boron|Fluoride)/ }) });
      for (const row of await rows.all()) if (!sea) expect(await row.innerText()).toMatch(/±|–|not tested/);

      // Train: the title, the picture and every row of the ledger.
      await phase(page, 'Train');
      await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
      await expect(page.getByRole('heading', { level: 1 })).toContainText('From an assumed');
      for (const label of [/^(TDS|EC)/, ...(sea ? [] : [/^Hardness/]), /^pH/, /^Silica/, /^Chlorine/])
        for (const cell of await ledgerRow(page, label)) expect(`${name} ${String(label)} ${cell}`).toMatch(/ (~.+|0|–)$/);
      await expect(page.getByText(/Nothing was measured at the tap/)).toBeVisible();

      // A phase stands open as long as nobody looked.
      await expect(page.getByRole('link', { name: /1 Water needs attention/ })).toBeVisible();
    });
  }
});
