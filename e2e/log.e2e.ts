import { expect, test, type Page } from './test';
import { readFileSync } from 'node:fs';
import ICAL from 'ical.js';
import { expectAccessible, openDemo, phase, storedSystem } from './steps';

const CORAL = 'demo-coral-nursery';

/** The log as it is kept: dated, corrected, brought in, told; and the rounds that follow from it. */

/** Readings of a system as the database holds them, oldest first. */
const stored = (
  page: Page,
  id: string,
): Promise<{ at: string; shown: number[]; pressureBar: number | null; note: string; counts: boolean; confirmed: string[] }[]> =>
  page.evaluate(
    (systemId) =>
      new Promise((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onerror = () => failed(new Error('The database did not open.'));
        open.onsuccess = () => {
          const all = open.result.transaction('readings').objectStore('readings').getAll();
          all.onsuccess = () => {
            open.result.close();
            done(
              (
                all.result as {
                  systemId: string;
                  at: string;
                  values: { shown: number }[];
                  pressureBar: number | null;
                  note: string;
                  counts: boolean;
                  confirmed: string[];
                }[]
              )
                .filter((one) => one.systemId === systemId)
                .sort((a, b) => a.at.localeCompare(b.at))
                .map(({ at, values, pressureBar, note, counts, confirmed }) => ({
                  at,
                  shown: values.map(({ shown }) => shown),
                  pressureBar,
                  note,
                  counts,
                  confirmed,
                })),
            );
          };
        };
      }),
    id,
  );
const line = (page: Page) => page.getByLabel('Quick reading').first();

test('a reading of another day is typed with its day, and a slip is asked about before it counts', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const before = (await stored(page, CORAL)).length;
  await line(page).fill('12 Nov 3110 7 0 59psi after a flush');
  await expect(page.getByText(/^12 Nov · tap 3110.ppm/)).toBeVisible();
  await line(page).press('Enter');
  const asked = page.getByRole('alert', { name: 'Before it counts' });
  await expect(asked).toContainText(/3110.ppm/);
  expect(await stored(page, CORAL)).toHaveLength(before);
  await asked.getByRole('button', { name: /^311.ppm$/ }).click();
  await expect.poll(async () => (await stored(page, CORAL)).length).toBe(before + 1);
  const added = (await stored(page, CORAL)).find(({ note }) => note === 'after a flush')!;
  expect(added.shown).toEqual([311, 7, 0]);
  expect(added.at.slice(5, 10)).toBe('11-12');
  // The same again, insisted on.
  await line(page).fill('13 Nov 3110 7 0');
  await line(page).press('Enter');
  await asked.getByRole('button', { name: /^It is 3110/ }).click();
  await expect
    .poll(async () => (await stored(page, CORAL)).some(({ shown, confirmed }) => shown[0] === 3110 && confirmed.length === 1))
    .toBe(true);
});

test('a reading is changed, moved, struck out and taken back', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const rows = page.getByRole('region', { name: 'Readings' }).getByRole('row');
  await expect(rows).toHaveCount(13);
  const edit = page.getByRole('button', { name: /^Change the reading/ }).first();
  await edit.press('Enter');
  const dialog = page.getByRole('dialog');
  const text = dialog.getByLabel('Quick reading');
  await expect(text).toHaveValue(/psi.*gal/);
  await text.fill((await text.inputValue()).replace(/\d+psi/, '55psi'));
  await dialog.getByLabel('Count this reading').uncheck();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await expect(rows.nth(1)).toContainText('struck out');
  const newest = (await stored(page, CORAL)).at(-1)!;
  expect(newest.counts).toBe(false);
  expect(newest.pressureBar).toBeCloseTo(55 * 0.0689476, 3);
  await page.keyboard.press('Control+z');
  await expect(rows.nth(1)).not.toContainText('struck out');
  await page.getByLabel('Find readings').fill('pre-filter');
  await expect(rows).toHaveCount(3);
  await expect(rows.nth(1)).toContainText('pre-filter changed');
});

test('the table never leaves its sheet, and every row can be changed, at 1280 and 1024 px', async ({ page }) => {
  for (const width of [1280, 1024]) {
    await page.setViewportSize({ width, height: 800 });
    await openDemo(page, 'demo-lab-skid', 'log');
    const button = page.getByRole('button', { name: /^Change the reading/ }).first();
    const box = (await button.boundingBox())!;
    const sheet = (await page.getByRole('region', { name: 'Readings' }).boundingBox())!;
    expect(box.x + box.width).toBeLessThanOrEqual(sheet.x + sheet.width);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBeLessThanOrEqual(0);
  }
});

test('a year on paper is pasted: what is not understood is named by its line, what is here already left out', async ({ page }) => {
  await openDemo(page, 'demo-van-tank', 'log');
  const before = (await stored(page, 'demo-van-tank')).length;
  await page.getByRole('button', { name: 'Bring in' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Readings as text')
    .fill(
      'Date;Tap ppm;After membrane;Pressure bar;Note\n1.2.26;240;11;3,4;cold\n8.2.26;2430;11;3,5;\nsoon;240;11;3,4;\n15.2.26;239;12;3,4;',
    );
  await expect(dialog.getByText('3 readings 1 Feb 2026 to 15 Feb 2026.')).toBeVisible();
  await expect(dialog.getByText('line 4: “soon” is not read as a day.')).toBeVisible();
  await expect(dialog.getByText(/2430/).last()).toBeVisible();
  await expect(dialog.getByRole('radio', { name: 'As typed' })).toBeChecked();
  await dialog.getByRole('button', { name: 'Bring in 3 readings' }).click();
  await expect.poll(async () => (await stored(page, 'demo-van-tank')).length).toBe(before + 3);
  const [first, second] = await stored(page, 'demo-van-tank');
  expect(first).toMatchObject({ shown: [240, 11], pressureBar: 3.4, note: 'cold' });
  // Nothing is corrected unasked.
  expect(second!.shown).toEqual([2430, 11]);
  await page.getByRole('button', { name: 'Bring in' }).click();
  await dialog.getByLabel('Readings as text').fill('Date;Tap ppm;After membrane;Pressure bar;Note\n1.2.26;240;11;3,4;cold');
  await expect(dialog.getByText(/1 is here already and is left out/)).toBeVisible();
});

test('a keeper’s table brings its work along, by the heads it has, and a slip is corrected only where somebody says so', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openDemo(page, 'demo-van-tank', 'log');
  await page.getByRole('button', { name: 'Bring in' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Readings as text')
    .fill(
      'date,tap_ppm,membrane_ppm,product_ppm,line_bar,temp_c,product_ml_min,waste_ml_min,event,note\n' +
        '2026-01-05 08:00,240,13,0,3.4,8,2300,5200,,cold\n' +
        '2026-01-12 08:00,244,13,0,34,8,2310,5200,"resin changed 2026-01-10, used up",\n' +
        '2026-01-19 08:00,239,13,0,3.4,8,2290,5190,new filters,',
    );
  // Every head was understood: nothing is left to name.
  for (let column = 1; column <= 10; column++) await expect(dialog.getByLabel(`Column ${column} holds`)).not.toHaveValue('ignore');
  await expect(dialog.getByText('2 pieces of work to write down:')).toBeVisible();
  await expect(dialog.getByText('“resin changed 2026-01-10, used up”')).toBeVisible();
  await expect(dialog.getByText(/Pressure 34\.0\s*bar/)).toBeVisible();
  await dialog.getByRole('radio', { name: 'Correct' }).click();
  await dialog.getByRole('button', { name: 'Bring in 3 readings and 2 pieces of work' }).click();
  await expect.poll(async () => (await stored(page, 'demo-van-tank'))[1]!.pressureBar).toBe(3.4);
  const { services } = (await storedSystem(page, 'demo-van-tank'))!;
  expect(services.filter(({ at }) => at < '2026-01-20').map(({ stageId, why, at }) => [stageId, why, at.slice(0, 10)])).toEqual([
    ['resin', 'spent', '2026-01-10'],
    [expect.any(String), 'notSaid', '2026-01-19'],
  ]);
});

test('a phone: readings from paper by thumb, turn after turn, a part changed, the forecast read', async ({ browser }) => {
  test.setTimeout(120_000);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'log');
  const old = new Set((await stored(page, CORAL)).map(({ at }) => at));
  const before = old.size;
  await page.getByRole('button', { name: 'Keypad' }).click();
  const dialog = page.getByRole('dialog');
  const key = (name: string) => dialog.getByRole('button', { name, exact: true }).click();
  const type = async (text: string): Promise<void> => {
    for (const one of text) await key(one);
    await key('Next');
  };
  const daysAgo = (days: number): string => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
  await dialog.getByLabel('Read on').fill(daysAgo(364));
  // A year read every fortnight: the first two days are set, the others proposed.
  for (let turn = 0; turn < 26; turn++) {
    if (turn === 1) await dialog.getByLabel('Read on').fill(daysAgo(350));
    await type('310');
    await type('7');
    await type('0');
    await dialog.getByRole('button', { name: /^Log it/ }).click();
    await expect.poll(async () => (await stored(page, CORAL)).length).toBe(before + turn + 1);
    await expect(dialog.getByRole('button', { name: /^Tap/ })).toContainText('–');
  }
  // The demonstration's own readings of that year lie among them.
  const typed = (await stored(page, CORAL)).filter(({ at }) => !old.has(at));
  const days = typed.slice(0, 10).map(({ at }) => Date.parse(at) / 86_400_000);
  expect(days.slice(1).map((day, i) => Math.round(day - days[i]!))).toEqual(new Array<number>(9).fill(14));
  await dialog.getByRole('button', { name: 'Close' }).click();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: 'Write down work' }).click();
  await dialog.getByRole('radio', { name: 'Resin 1' }).click();
  await dialog.getByRole('radio', { name: 'New one fitted' }).click();
  await dialog.getByRole('radio', { name: 'It was spent' }).click();
  await dialog.getByRole('button', { name: /^Write down:/ }).click();
  await expect(page.getByTestId('resin-left')).toHaveText(
    /^(9\d|100).% \(\d+ to \d+.%\) · spent between \d+ \w+( \d+)? and \d+ \w+( \d+)?$/,
  );
  const work = page.getByRole('region', { name: 'Work on parts' });
  await expect(work).toContainText('new one fitted · spent');
  // Written down late: half a year ago the lead left and the next one moved up. What came after stays as it is.
  await page.getByRole('button', { name: 'Write down work' }).click();
  await dialog.getByRole('radio', { name: 'Resin 1' }).click();
  await dialog.getByRole('radio', { name: /moved up, new one last/ }).click();
  await dialog.getByLabel('On', { exact: true }).fill(daysAgo(180));
  await dialog.getByRole('button', { name: /^Write down:/ }).click();
  await expect(page.getByTestId('resin-left')).toHaveText(/^(9\d|100).% \(\d+ to \d+.%\) · spent between/);
  const { services, train } = (await storedSystem(page, CORAL))!;
  expect(services.filter(({ work: done }) => done === 'movedUp').map(({ at }) => at.slice(0, 10))).toContain(daysAgo(180));
  const lead = train.stages.find(({ name }) => name === 'Resin 1') as { fittedOn?: string } | undefined;
  expect(lead?.fittedOn).toBe(daysAgo(0));
  // And a table with its own column of events, the same thumb: the filter is dated by the row it stands in.
  await page.getByRole('button', { name: 'Bring in' }).click();
  await dialog
    .getByLabel('Readings as text')
    .fill(`date,tap_ppm,membrane_ppm,product_ppm,event\n${daysAgo(120)} 08:10,308,8,0,sediment changed\n${daysAgo(113)} 08:10,306,8,0,`);
  await dialog.getByRole('button', { name: 'Bring in 2 readings and 1 piece of work' }).click();
  await expect
    .poll(async () =>
      (await storedSystem(page, CORAL))!.services.filter(({ at }) => at.slice(0, 10) === daysAgo(120)).map(({ work: done }) => done),
    )
    .toEqual(['changed']);
  expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBeLessThanOrEqual(0);
  await context.close();
});

test('R takes the typing: into the page’s own line on the log, into the quick reading elsewhere', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await page.keyboard.press('r');
  await page.keyboard.type('301 8 0');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(line(page)).toHaveValue('301 8 0');
  await line(page).fill('');
  await phase(page, 'Water');
  await expect(page).toHaveURL(/water$/);
  await expect(line(page)).toHaveCount(0);
  await page.keyboard.press('r');
  // Typed at once, before the overlay has drawn its field.
  await page.keyboard.type('302 9 0');
  await expect(page.getByRole('dialog').getByLabel('Quick reading')).toHaveValue('302 9 0');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await stored(page, CORAL)).at(-1)!.shown).toEqual([302, 9, 0]);
});

test('on a phone a reading is answered right below its line, and work written beside it is offered', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await openDemo(page, CORAL, 'log');
  await line(page).fill('299 8 0 4bar 11C resin changed, spent');
  // All that is typed is seen.
  expect(await line(page).evaluate((field) => field.scrollWidth - field.clientWidth)).toBeLessThanOrEqual(0);
  await line(page).press('Enter');
  const answer = page.getByRole('region', { name: 'What this reading says' });
  await expect(answer.getByRole('status')).not.toContainText('Working out');
  await expect(answer.locator('.finding, p').first()).toBeVisible();
  await answer.getByRole('button', { name: /^Write down: resin 1, new one fitted/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('radio', { name: 'It was spent' })).toBeChecked();
  await dialog.getByRole('button', { name: /^Write down:/ }).click();
  await expect.poll(async () => (await storedSystem(page, CORAL))!.services.at(-1)).toMatchObject({ work: 'changed', why: 'spent' });
  await expect(answer.getByRole('button', { name: /^Write down/ })).toHaveCount(0);
  await context.close();
});

test('the charts of the log move together, by key too', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const chart = page.getByRole('group', { name: /^Conductivity at each probe over time/ });
  await chart.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('+');
  await expect(page.getByRole('button', { name: 'Show all', exact: true })).toBeVisible();
  await page.keyboard.press('0');
  await expect(page.getByRole('button', { name: 'Show all', exact: true })).toBeHidden();
  await expect(page.getByTestId('output')).toHaveText(/^\d+ ± \d+.% of the/);
  await expectAccessible(page);
});

test('rounds: by date, what to load, a calendar another reader takes, a sheet for the visit', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('radio', { name: 'By date' }).click();
  await expect(page.getByText('Flush membrane').first()).toBeVisible();
  await page.getByRole('radio', { name: 'To load' }).click();
  const load = page.getByRole('table', { name: 'To load' });
  await expect(load).toContainText('Sediment cartridge');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as calendar file' }).click()]);
  const calendar = new ICAL.Component(ICAL.parse(readFileSync(await file.path(), 'utf8')) as never);
  const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
  expect(events.length).toBeGreaterThan(4);
  expect(events.every(({ uid }) => uid.endsWith('@yes-clear'))).toBe(true);
  expect(events.map(({ summary }) => summary)).toContain('Watermaker: flush membrane');
  await page.getByRole('link', { name: 'Visit sheet' }).click();
  // What falls due within a fortnight goes with the season; within a month a part always does.
  await page.getByRole('radio', { name: '30 days' }).click();
  await expect(page.getByRole('heading', { name: 'To load' })).toBeVisible();
  await expect(page.getByText('Read today:').first()).toBeVisible();
  await expectAccessible(page);
});

test('what a lost device would take along is named, until it is in a file', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await page.goto('/');
  await expect(page.getByText('No backup file saved yet.')).toBeVisible();
  await expect(page.getByText(/If this device were lost today/)).toBeHidden();
  await page.getByRole('button', { name: 'New system' }).click();
  await page.getByLabel('Name').fill('Mine');
  await page.getByRole('button', { name: 'Create and enter its water' }).click();
  await phase(page, 'Log');
  await line(page).fill('300 9 0');
  await line(page).press('Enter');
  await expect(page.getByRole('region', { name: 'Readings' })).toBeVisible();
  await page.goto('/');
  await expect(page.getByText(/If this device were lost today: 1 reading and what was changed in 1 system\./)).toBeVisible();
  await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save everything' }).click()]);
  await expect(page.getByText(/If this device were lost today/)).toBeHidden();
});

test('a rule of upkeep is set otherwise with a reason, its date follows, and it is taken back', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  const upkeep = page.getByRole('region', { name: 'Upkeep' });
  const sediment = upkeep.getByRole('listitem').filter({ hasText: 'change sediment' });
  const before = await sediment.innerText();
  await sediment.getByRole('button', { name: /^Rule for change sediment: after 183 days/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Days').fill('0');
  await dialog.getByLabel('Days').blur();
  await expect(dialog).toContainText(/accepted is 1 to/);
  await dialog.getByLabel('Days').fill('60');
  await dialog.getByLabel('Why').fill('muddy after rain');
  await dialog.getByRole('button', { name: 'Set this rule' }).click();
  await expect(sediment).toContainText('60 days after it was fitted, by this system’s own rule: muddy after rain');
  await expect(sediment).not.toContainText(before.split('\n')[0]!);
  await sediment.getByRole('button', { name: /after 60 days/ }).click();
  await dialog.getByRole('button', { name: 'Back to the usual rule' }).click();
  await expect(sediment).toContainText(before.split('\n')[0]!);
});
