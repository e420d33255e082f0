import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { crash, DEMO, enter, field, openDemo, openRounds, phase, storedNotes, storedSystem } from '../steps';

/** Tabs that die, and tabs side by side: what was typed and logged is there again. */
const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';

test.describe('a tab killed so long after typing', () => {
  for (const ms of [0, 200])
    test(`${ms} ms: the figure, the name and half a line are there again`, async ({ context }) => {
      // Three times each: a race is not proved by one start.
      for (const [temperature, name] of [
        ['61', 'Carbon A'],
        ['62', 'Carbon B'],
        ['63', 'Carbon C'],
      ] as const) {
        const page = await context.newPage();
        await openDemo(page, CORAL, 'train');
        await page
          .getByRole('button', { name: /^Carbon.* 2|^Carbon [AB], stage/ })
          .last()
          .click();
        await field(page, 'Name of the stage').fill(name);
        if (ms > 0) await page.waitForTimeout(ms);
        await crash(page);
        await page.close();

        const second = await context.newPage();
        await openDemo(second, CORAL, 'water');
        await field(second, 'Water temperature').fill(temperature);
        if (ms > 0) await second.waitForTimeout(ms);
        await crash(second);
        await second.close();

        const third = await context.newPage();
        await openDemo(third, CORAL, 'log');
        await third.getByLabel('Quick reading').fill(`3${temperature} 10`);
        if (ms > 0) await third.waitForTimeout(ms);
        await crash(third);
        await third.close();

        const later = await context.newPage();
        await openDemo(later, CORAL, 'water');
        await expect(field(later, 'Water temperature')).toHaveValue(temperature);
        await expect.poll(async () => (await storedSystem(later, CORAL))!.train.stages.map((stage) => stage.name)).toContain(name);
        await phase(later, 'Log');
        await expect(later.getByLabel('Quick reading')).toHaveValue(`3${temperature} 10`);
        await later.close();
      }
    });
});

test('logged readings outlive the tab killed at once', async ({ context }) => {
  const marks = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];
  for (const [i, mark] of marks.entries()) {
    const page = await context.newPage();
    await openDemo(page, VAN, 'log');
    const line = page.getByLabel('Quick reading');
    await line.fill(`${232 + i} 12 0 ${mark}`);
    await line.press('Enter');
    // The line empties when the reading is kept, and not before.
    await expect(line).toHaveValue('');
    await crash(page);
    await page.close();
  }
  const later = await context.newPage();
  await openDemo(later, VAN, 'log');
  expect(await storedNotes(later, VAN)).toEqual(expect.arrayContaining(marks));
});

test('two tabs on one system, both typing: every figure of both is kept', async ({ context }) => {
  const [one, two] = [await context.newPage(), await context.newPage()];
  await openDemo(one, CORAL, 'water');
  await openDemo(two, CORAL, 'water');
  const fields: [Page, string, string][] = [
    [one, 'Water temperature', '57'],
    [two, 'pH', '7.2'],
    [one, 'Total hardness', '199'],
    [two, 'Alkalinity', '140'],
    [one, 'Nitrate, as NO₃', '7'],
    [two, 'Silica, as SiO₂', '5'],
  ];
  await Promise.all(
    [one, two].map(async (page) => {
      for (const [at, label, text] of fields) if (at === page) await enter(page, label, text);
    }),
  );
  for (const page of [one, two]) for (const [, label, text] of fields) await expect(field(page, label)).toHaveValue(text);
  await one.reload();
  for (const [, label, text] of fields) await expect(field(one, label)).toHaveValue(text);
});

test('an import cut short is all there or not at all', async ({ context }) => {
  const maker = await context.newPage();
  await openRounds(maker);
  await maker.getByRole('button', { name: 'More for Van tank' }).click();
  const [download] = await Promise.all([maker.waitForEvent('download'), maker.getByText('Save as file').click()]);
  const data = JSON.parse(readFileSync((await download.path())!, 'utf8')) as {
    records: { system: { id: string }; readings: { id: string; systemId: string }[] }[];
  };
  const [record] = data.records;
  const one = record!.readings[0]!;
  record!.system.id = 'big';
  record!.readings = Array.from({ length: 6000 }, (_, i) => ({ ...one, id: `big-${i}`, systemId: 'big' }));
  const buffer = Buffer.from(JSON.stringify(data));
  await maker.close();
  let whole = 0;
  for (const ms of [40, 150, 400, 3000]) {
    const page = await context.newPage();
    await openRounds(page, DEMO + (whole > 0 ? 1 : 0));
    await page.getByTestId('file').setInputFiles({ name: 'big.json', mimeType: 'application/json', buffer });
    await page.waitForTimeout(ms);
    await crash(page);
    await page.close();
    const later = await context.newPage();
    await later.goto('/');
    await expect(later.getByRole('article').first()).toBeVisible();
    whole = (await storedNotes(later, 'big')).length;
    expect([0, 6000]).toContain(whole);
    expect((await storedSystem(later, 'big')) !== null).toBe(whole > 0);
    await later.close();
  }
});
