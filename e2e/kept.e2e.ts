import { readFile, writeFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { DEMO, enter, fillDisk, field, openDemo, openRounds, phase, removeDemo, storedNotes, storedSystem, lens } from './steps';

/** Nothing lost, nothing in the wrong place. */
const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';

/** A reading as each of them usually gives: nothing in it is asked about. */
const USUAL: Readonly<Record<string, string>> = { [CORAL]: '299 8 0', [VAN]: '245 14 0' };

/** An edit and a reading in the system that stands open, and proof of where they went. */
async function workIn(page: Page, id: string, name: string, mark: string): Promise<void> {
  await expect(page.getByRole('banner').getByText(name)).toBeVisible();
  await phase(page, 'Water');
  await enter(page, 'Water temperature', '13.7 C');
  await phase(page, 'Log');
  await expect(page.getByText('What the log says')).toBeVisible();
  const line = page.getByLabel('Quick reading');
  await line.fill(`${USUAL[id]} ${mark}`);
  await line.press('Enter');
  await expect(line).toHaveValue('');
  await expect.poll(() => storedNotes(page, id)).toContain(mark);
  await expect
    .poll(async () => (await storedSystem(page, id))!.source.samples.some((one) => Math.abs(one.temperatureC - 13.7) < 0.01))
    .toBe(true);
}
/** What the other system must not have got. */
async function untouched(page: Page, id: string, mark: string, before: string): Promise<void> {
  expect(await storedNotes(page, id)).not.toContain(mark);
  expect(JSON.stringify(await storedSystem(page, id))).toBe(before);
}

test.describe('the open system follows the address', () => {
  const opened = async (page: Page): Promise<string> => {
    await openDemo(page, CORAL, 'log');
    await expect(page.getByRole('banner').getByText('Coral nursery make-up')).toBeVisible();
    return JSON.stringify(await storedSystem(page, CORAL));
  };
  test('by Ctrl+K', async ({ page }) => {
    const before = await opened(page);
    await page.keyboard.press('Control+k');
    await page.getByLabel('Go to').fill('van tank log');
    await page.keyboard.press('Enter');
    await workIn(page, VAN, 'Van tank', 'byKey');
    await untouched(page, CORAL, 'byKey', before);
  });
  test('by a link', async ({ page }) => {
    const before = await opened(page);
    // As a link in a message would: the address changes and the app stays.
    await page.evaluate((to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: null }));
    }, `/system/${VAN}/log`);
    await workIn(page, VAN, 'Van tank', 'byLink');
    await untouched(page, CORAL, 'byLink', before);
  });
  test('by back and forward, with findings and rail of the right one', async ({ page }) => {
    const before = await opened(page);
    await page.keyboard.press('Control+k');
    await page.getByLabel('Go to').fill('van tank log');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('banner').getByText('Van tank')).toBeVisible();
    const van = JSON.stringify(await storedSystem(page, VAN));
    await page.goBack();
    await expect(page.getByRole('banner').getByText('Coral nursery make-up')).toBeVisible();
    await expect(page.getByRole('heading', { name: /^Row of 2 resin beds left/ })).toBeVisible();
    await page.goForward();
    await expect(page.getByRole('heading', { name: /^Resin left/ })).toBeVisible();
    await expect(page.getByRole('heading', { name: /^Row of 2 resin beds left/ })).toHaveCount(0);
    await page.goBack();
    await workIn(page, CORAL, 'Coral nursery make-up', 'back');
    await untouched(page, VAN, 'back', van);
    expect(JSON.stringify(await storedSystem(page, CORAL))).not.toBe(before);
  });
});

test.describe('saved means saved', () => {
  test('a full disk is told in words; what was typed stays, and is kept once there is room', async ({ page }) => {
    await openDemo(page, CORAL, 'water');
    await expect(field(page, 'pH')).toHaveValue('7.7');
    await fillDisk(page, true);
    await enter(page, 'pH', '7.3');
    const trouble = page.getByTestId('trouble');
    await expect(trouble).toContainText(/Not saved \(pH\): the browser’s storage is full\. Free some space/);
    await expect(page.getByRole('banner')).toContainText('not saved');
    await expect(field(page, 'pH')).toHaveValue('7.3');
    expect((await storedSystem(page, CORAL))!.source.samples.at(-1)!.kit.pH).toBe(7.7);
    // All of it goes into a file meanwhile, the unsaved edit too.
    const [download] = await Promise.all([page.waitForEvent('download'), trouble.getByRole('button', { name: 'Save everything' }).click()]);
    const saved = JSON.parse(await readFile((await download.path())!, 'utf8')) as {
      records: { system: { id: string; source: { samples: { kit: { pH: number } }[] } } }[];
    };
    expect(saved.records).toHaveLength(DEMO);
    expect(saved.records.find(({ system }) => system.id === CORAL)!.system.source.samples.at(-1)!.kit.pH).toBe(7.3);
    await fillDisk(page, false);
    await trouble.getByRole('button', { name: 'Try again' }).click();
    await expect(trouble).toBeHidden();
    await expect(page.getByRole('banner')).toContainText(/saved \d\d:\d\d/);
    expect((await storedSystem(page, CORAL))!.source.samples.at(-1)!.kit.pH).toBe(7.3);
  });
  test('a reading the store refuses stays in the line', async ({ page }) => {
    await openDemo(page, CORAL, 'log');
    await fillDisk(page, true);
    const line = page.getByLabel('Quick reading');
    await line.fill('311 10 0 once');
    await line.press('Enter');
    await expect(page.getByTestId('trouble')).toContainText('Not saved (the reading)');
    await expect(line).toHaveValue('311 10 0 once');
    await fillDisk(page, false);
    await line.press('Enter');
    await expect(line).toHaveValue('');
    await expect(page.getByTestId('trouble')).toBeHidden();
    expect((await storedNotes(page, CORAL)).filter((note) => note === 'once')).toHaveLength(1);
  });
  test('a new system the store refuses says so, and the form keeps what was typed', async ({ page }) => {
    await openRounds(page);
    await fillDisk(page, true);
    await page.getByRole('button', { name: 'New system' }).click();
    await page.getByLabel('Name').fill('Mine');
    await page.getByRole('button', { name: 'Create and enter its water' }).click();
    await expect(page.getByRole('dialog').getByRole('alert')).toContainText('Not saved: the browser’s storage is full');
    await expect(page.getByLabel('Name')).toHaveValue('Mine');
    await fillDisk(page, false);
    await page.getByRole('button', { name: 'Create and enter its water' }).click();
    await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
  });
  test('pressed twice, one system and one reading come of it', async ({ page }) => {
    await openRounds(page);
    await page.getByRole('button', { name: 'New system' }).click();
    await page.getByLabel('Name').fill('Twice');
    await page.getByRole('button', { name: 'Create and enter its water' }).evaluate((button: HTMLButtonElement) => {
      button.click();
      button.click();
    });
    await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
    await phase(page, 'Log');
    await page.getByLabel('Quick reading').fill('300 6 0');
    await page.getByRole('button', { name: /^Log it/ }).evaluate((button: HTMLButtonElement) => {
      button.click();
      button.click();
    });
    await expect(page.getByRole('row')).toHaveCount(2);
    await page.goto('/');
    await expect(page.getByRole('article')).toHaveCount(DEMO + 1);
  });
});

test.describe('opening a file never destroys', () => {
  /** Saves the demonstration, then logs one more reading that only this browser has. */
  async function olderFile(page: Page): Promise<string> {
    await openRounds(page);
    await page.getByRole('button', { name: 'More for Coral nursery make-up' }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByText('Save as file').click()]);
    await openDemo(page, CORAL, 'log');
    const line = page.getByLabel('Quick reading');
    await line.fill('305 7 0 newer');
    await line.press('Enter');
    await expect(line).toHaveValue('');
    await openRounds(page);
    return (await download.path())!;
  }
  test('an older backup asks, names what only this browser has, and merging keeps it', async ({ page }) => {
    const path = await olderFile(page);
    await page.getByTestId('file').setInputFiles(path);
    const question = page.getByRole('article', { name: 'Coral nursery make-up' });
    await expect(question).toContainText('1 reading only here');
    await expect(question).toContainText('All readings of both: 36 readings.');
    await question.getByRole('radio', { name: 'Replace' }).click();
    await expect(question).toContainText('1 reading that only this browser has will be gone.');
    await question.getByRole('radio', { name: 'Merge' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByText('Opened Coral nursery make-up.')).toBeVisible();
    expect(await storedNotes(page, CORAL)).toContain('newer');
    expect(await storedNotes(page, CORAL)).toHaveLength(36);
  });
  test('a reading changed on two devices: both are shown, the one changed last stands, and either can be taken', async ({ page }, info) => {
    const path = await olderFile(page);
    const file = JSON.parse(await readFile(path, 'utf8')) as { records: { readings: Record<string, unknown>[] }[] };
    const [first, second] = file.records[0]!.readings.slice(-2);
    Object.assign(first!, { note: 'changed on the van', editedAt: new Date().toISOString() });
    Object.assign(second!, { note: 'changed there too', editedAt: '2020-01-01T08:00:00Z' });
    const other = info.outputPath('van.yesclear.json');
    await writeFile(other, JSON.stringify(file));
    await page.getByTestId('file').setInputFiles(other);
    const question = page.getByRole('article', { name: 'Coral nursery make-up' });
    await expect(question).toContainText('2 readings not the same in both');
    const pairs = question.getByRole('list', { name: 'Readings that differ' }).getByRole('listitem');
    await expect(pairs).toHaveCount(2);
    await expect(pairs.first()).toContainText('changed on the van');
    await expect(pairs.first().getByRole('radio', { name: 'File' })).toBeChecked();
    await pairs.nth(1).getByRole('radio', { name: 'Both' }).click();
    await expect(question).toContainText('All readings of both: 37 readings.');
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByText('Opened Coral nursery make-up.')).toBeVisible();
    const notes = await storedNotes(page, CORAL);
    expect(notes).toHaveLength(37);
    for (const note of ['changed on the van', 'changed there too', 'newer']) expect(notes.filter((one) => one === note)).toHaveLength(1);
  });
  test('what was removed stays removed, and a visit written down twice is asked about, unanswered until somebody says', async ({
    page,
  }, info) => {
    const path = await olderFile(page);
    const file = JSON.parse(await readFile(path, 'utf8')) as {
      records: { system: { removed: unknown[] }; readings: Record<string, unknown>[] }[];
    };
    const [record] = file.records;
    const gone = record!.readings.at(-1)!;
    record!.system.removed.push({ of: 'readings', id: gone['id'], at: new Date().toISOString(), gone: true });
    record!.readings.pop();
    // The colleague wrote the same visit down, twenty minutes later, a ppm apart.
    const at = new Date(Date.now() - 20 * 60_000).toISOString();
    const values = (record!.readings.at(-1)!['values'] as { probeId: string }[]).map((one, i) => ({ ...one, shown: [306, 7, 0][i] }));
    record!.readings.push({ ...gone, id: 'colleague', at, values, note: 'by the colleague', pressureBar: null, temperatureC: null, productLPerH: null, wasteLPerH: null, meterL: null, also: [], photos: [] }); // prettier-ignore
    const other = info.outputPath('colleague.yesclear.json');
    await writeFile(other, JSON.stringify(file));
    await page.getByTestId('file').setInputFiles(other);
    const question = page.getByRole('article', { name: 'Coral nursery make-up' });
    await expect(question).toContainText('1 reading removed in one of them');
    await expect(question).toContainText('Written down twice?');
    const visit = question.getByRole('radiogroup', { name: /^Visit of/ });
    for (const radio of await visit.getByRole('radio').all()) await expect(radio).not.toBeChecked();
    await visit.getByRole('radio', { name: 'Count this browser’s' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByText('Opened Coral nursery make-up.')).toBeVisible();
    const notes = await storedNotes(page, CORAL);
    // 35 and the newer one, less the removed, and the colleague's, which stands struck out.
    expect(notes).toHaveLength(36);
    expect(notes).toContain('by the colleague');
    await openDemo(page, CORAL, 'log');
    await expect(page.getByRole('row', { name: /by the colleague/ })).toHaveClass(/struck|off|out/);
  });
  test('replaced, what made way comes back by Undo', async ({ page }) => {
    const path = await olderFile(page);
    await page.getByTestId('file').setInputFiles(path);
    await page.getByRole('article', { name: 'Coral nursery make-up' }).getByRole('radio', { name: 'Replace' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect.poll(() => storedNotes(page, CORAL)).toHaveLength(35);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Undone: Coral nursery make-up opened.')).toBeVisible();
    expect(await storedNotes(page, CORAL)).toContain('newer');
  });
  test('kept beside, it is another system with readings of its own', async ({ page }) => {
    const path = await olderFile(page);
    await page.getByTestId('file').setInputFiles(path);
    await page.getByRole('article', { name: 'Coral nursery make-up' }).getByRole('radio', { name: 'Keep both' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByRole('main').getByRole('link', { name: /Coral nursery make-up \(file\)/ })).toBeVisible();
    expect(await storedNotes(page, CORAL)).toHaveLength(36);
  });
  test('a file of what is here already says so and changes nothing', async ({ page }) => {
    await openRounds(page);
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save everything' }).click()]);
    await page.getByTestId('file').setInputFiles((await download.path())!);
    await expect(page.getByText('Everything in this file is here already.')).toBeVisible();
  });
  test('a reading of the year 1 is asked about', async ({ page }) => {
    await openRounds(page);
    await page.getByRole('button', { name: 'More for Van tank' }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByText('Save as file').click()]);
    const text = await readFile((await download.path())!, 'utf8');
    const data = JSON.parse(text) as { records: { system: { id: string }; readings: { id: string; systemId: string; at: string }[] }[] };
    const [record] = data.records;
    record!.system.id = 'elsewhere';
    record!.readings.forEach((reading, i) => Object.assign(reading, { id: `x${i}`, systemId: 'elsewhere' }));
    record!.readings[0]!.at = '0001-01-01T08:00:00Z';
    await page
      .getByTestId('file')
      .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(data)) });
    await expect(page.getByRole('dialog')).toContainText('1 date outside 1990 to 2100');
    await expect(page.getByRole('dialog')).toContainText('Reading 1 is dated 0001-01-01');
    await page.getByRole('radio', { name: 'Open them as they are' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByText('Opened Van tank.')).toBeVisible();
    await page.goto('/system/elsewhere/log');
    await expect(page.getByRole('row').first()).toBeVisible();
    await expect(page.locator('body')).not.toHaveText(/NaN|Infinity|undefined/);
  });
});

test('undo takes back just what was done, names it, works by touch and outlives a reload', async ({ page, context }) => {
  await openDemo(page, CORAL, 'water');
  await enter(page, 'Water temperature', '63 F');
  await expect(page.getByRole('banner')).toContainText('saved');
  const other = await context.newPage();
  await openDemo(other, CORAL, 'water');
  await enter(other, 'pH', '7.1');
  await expect(other.getByRole('banner')).toContainText('saved');
  await expect(field(page, 'pH')).toHaveValue('7.1');
  await page.reload();
  await expect(field(page, 'Water temperature')).toHaveValue('63');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: temperature.')).toBeVisible();
  await expect(field(page, 'Water temperature')).not.toHaveValue('63');
  await expect(field(page, 'pH')).toHaveValue('7.1');
  await phase(page, 'Log');
  const before = await storedNotes(page, CORAL);
  await page
    .getByRole('button', { name: /^Change the reading/ })
    .first()
    .press('Enter');
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect.poll(async () => (await storedNotes(page, CORAL)).length).toBe(before.length - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await storedNotes(page, CORAL)).length).toBe(before.length);
});

test('half a quick line waits where it was typed', async ({ page }) => {
  await openDemo(page, CORAL, 'log');
  await page.getByLabel('Quick reading').fill('311 10 ');
  await phase(page, 'Train');
  await phase(page, 'Log');
  await expect(page.getByLabel('Quick reading')).toHaveValue('311 10 ');
  await page.reload();
  await expect(page.getByLabel('Quick reading')).toHaveValue('311 10 ');
  await page.goto(`/system/${VAN}/log`);
  await expect(page.getByLabel('Quick reading')).toHaveValue('');
});

test('a system removed in another tab takes no more edits, and can be brought back', async ({ page, context }) => {
  await openDemo(page, VAN, 'water');
  const other = await context.newPage();
  await other.goto('/');
  await other.getByRole('button', { name: 'More for Van tank' }).click();
  await other.getByText('Remove from this browser').click();
  await other.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByText('This system was removed in another tab.')).toBeVisible();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('heading', { name: 'What comes out of the tap' })).toBeVisible();
  expect((await storedNotes(page, VAN)).length).toBeGreaterThan(20);
});

test('a value no file could hold is not taken, and says why', async ({ page }) => {
  await openDemo(page, CORAL, 'water');
  await enter(page, 'Nitrate, as NO₃', '300000');
  await expect(page.getByRole('alert').first()).toContainText('Nitrate, as NO₃ is 300000; accepted is 0 to 20000');
  await openRounds(page);
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save everything' }).click()]);
  await removeDemo(page);
  await expect(page.getByRole('article')).toHaveCount(0);
  await page.getByTestId('file').setInputFiles((await download.path())!);
  await expect(page.getByRole('article')).toHaveCount(DEMO);
});

test('a recycle valve opened wide, or shut to a hair, holds no page up', async ({ page }) => {
  await openDemo(page, 'demo-lab-skid', 'train');
  await page.getByRole('button', { name: /^Array 2:2, stage/ }).click();
  await page.getByText('Recycle, bypass, ageing').click();
  for (const kv of ['100', '0.0001', '5']) {
    await enter(page, 'Recycle valve Kv', kv);
    await expect(page.getByRole('banner')).toContainText('saved');
    await lens(page, 'Pressure');
    await lens(page, 'Ledger');
  }
  await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
});
