import type { System } from '@yes-clear/core/file';
import { expect, test, type Locator, type Page } from './test';
import { choose, enter, firstVisit, lens, phase } from './steps';

/**
 * Eight jobs of people who own a thing, each from blank, by clicks alone, in units of their own. Every field, click and
 * choice is one action; their number may fall, never grow.
 */
class Hand {
  actions = 0;
  constructor(readonly page: Page) {}
  async click(target: Locator): Promise<void> {
    this.actions += 1;
    await target.click();
  }
  async type(label: string, text: string): Promise<void> {
    this.actions += 1;
    await enter(this.page, label, text);
  }
  async choose(label: string | RegExp, option: string | RegExp): Promise<void> {
    this.actions += 1;
    await choose(this.page, label as string, option);
  }
  async lens(name: string): Promise<void> {
    this.actions += 1;
    await lens(this.page, name);
  }
  async to(name: string): Promise<void> {
    this.actions += 1;
    await phase(this.page, name);
  }
  async press(key: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.press(key);
  }
  /** A new system: name, units, template, how it came to be, create. */
  async start(name: string, template: RegExp, units: string, stands: 'New' | 'Stands already' = 'New'): Promise<void> {
    const { page } = this;
    await firstVisit(page);
    await this.press('n');
    this.actions += 1;
    await page.getByLabel('Name', { exact: true }).fill(name);
    await this.click(page.getByRole('radiogroup', { name: 'Units' }).getByRole('radio', { name: units }));
    await this.click(page.getByRole('radio', { name: template }));
    if (stands !== 'New') await this.click(page.getByRole('radio', { name: stands }));
    await this.click(page.getByRole('button', { name: /^Create and/ }));
  }
  /** A stage out of the list of what can be added. */
  async add(label: string): Promise<void> {
    await this.click(this.page.getByRole('button', { name: /^Add stage/ }));
    await this.click(
      this.page.locator('.v-list-item', { has: this.page.locator('.v-list-item-title', { hasText: new RegExp(`^${label}$`) }) }),
    );
  }
  /** A line logged, and the reading it made. */
  async log(line: string): Promise<void> {
    const field = this.page.getByLabel('Quick reading').first();
    this.actions += 1;
    await field.fill(line);
    await this.press('Enter');
  }
}

/** The system as the database of this browser holds it, and its readings. */
const kept = (
  page: Page,
): Promise<{ system: System; readings: { values: { shown: number }[]; meterL: number | null; also: { value: number }[] }[] }> =>
  page.evaluate(
    () =>
      new Promise((done) => {
        const open = indexedDB.open('yes-clear');
        open.onsuccess = () => {
          const from = open.result.transaction(['systems', 'readings']);
          const [systems, readings] = [from.objectStore('systems').getAll(), from.objectStore('readings').getAll()];
          from.oncomplete = () =>
            done({ system: systems.result[0].system, readings: readings.result.sort((a, b) => a.at.localeCompare(b.at)) });
        };
      }),
  );
const probeRows = (page: Page): Locator => page.getByRole('region', { name: 'Probes' }).locator('.entry:not(.head)');

test('a second membrane on a unit that hangs there: an upgrade, no hand-over of skipped steps', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Home', /Household unit/, 'ppm · psi · °F · gal', 'Stands already');
  const asked = page.getByRole('dialog');
  await asked.getByLabel('Stands since').fill('2024-03-01');
  await asked.getByLabel('Membrane', { exact: true }).fill('2024-03-01');
  hand.actions += 2;
  await hand.click(asked.getByRole('button', { name: 'This is how it stands' }));
  // What stands and runs is read next; what nobody dated is asked for, not passed over.
  await expect(page.getByText('3 parts have no day')).toBeVisible();
  await expect(page.getByLabel('Since when is sediment in? Not known.')).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('stands since March 2024');
  await hand.log('310 12 0 58psi 60F');
  await expect.poll(async () => (await kept(page)).readings.length).toBe(1);
  await hand.to('Train');
  await hand.click(page.getByRole('button', { name: /^Membrane, stage/ }));
  await hand.choose('Arrangement', 'Two in series on the waste');
  await hand.to('Build');
  await expect(page.getByText(/The train was changed since: membrane built otherwise/)).toBeVisible();
  await hand.click(page.getByRole('button', { name: 'Begin the upgrade' }));
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const { system } = await kept(page);
  expect(system.build.works).toMatchObject([{ kind: 'upgrade', deviations: [] }]);
  expect(hand.actions).toBeLessThanOrEqual(17);
});

test('a breeder’s first unit with one meter: one number is a reading', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Discus', /breeder/, 'µS/cm · bar · °C · L');
  await hand.to('Train');
  await hand.lens('Probes');
  await expect(probeRows(page)).toHaveCount(2);
  await hand.click(page.getByRole('button', { name: 'Remove Tap', exact: true }));
  await expect(probeRows(page)).toHaveCount(1);
  await hand.to('Log');
  await hand.log('14');
  await expect.poll(async () => (await kept(page)).readings.map(({ values }) => values.map(({ shown }) => shown))).toEqual([[14]]);
  await expect(page.getByText(/^After membrane reads 14|14.µS\/cm/).first()).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(11);
});

test('one pen carried about while a bed is rinsed: nothing to be fitted, three places to read', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Pole', /Household unit/, 'ppm · bar · °C · L');
  await hand.to('Train');
  await hand.lens('Probes');
  await hand.choose('Meter of Tap', 'New: Pen, ppm');
  await hand.choose('Meter of After membrane', /^Pen, carried/);
  await hand.choose('Meter of After resin', /^Pen, carried/);
  await hand.choose('Place of another probe', 'Waste of membrane');
  await expect(probeRows(page)).toHaveCount(4);
  const { system } = await kept(page);
  const pen = system.instruments.find(({ carried }) => carried)!;
  expect(system.train.probes.map(({ instrumentId }) => instrumentId === pen.id)).toEqual([true, true, true, true]);
  // A pen is a tool, not a part of the unit, and nobody fits its probes.
  await hand.to('Build');
  await expect(page.getByText(/Fit \d probes|Fit the probe/)).toHaveCount(0);
  await hand.click(page.getByRole('radio', { name: 'Parts' }));
  await expect(page.getByRole('table').getByText('Probe in its tee')).toHaveCount(0);
  expect(hand.actions).toBeLessThanOrEqual(15);
});

test('a cartridge by its box, and a meter that counts down', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Bar', /Espresso machine/, 'µS/cm · bar · °C · L', 'Stands already');
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Close' }));
  await hand.click(page.getByRole('button', { name: /^Cartridge, stage/ }));
  await hand.click(page.getByText('More', { exact: true }));
  await hand.type('Box: litres', '5500');
  await hand.type('at a carbonate hardness of', '10 °dH');
  await hand.lens('Probes');
  await hand.click(page.getByRole('radio', { name: 'Counts down' }));
  await hand.type('Set to', '5500');
  await hand.to('Log');
  await hand.log('480 120 5070L');
  await expect.poll(async () => (await kept(page)).readings.length).toBe(1);
  await hand.log('481 121 4800L');
  // It counts down: less than before is no slip.
  await expect(page.getByRole('alert', { name: 'Before it counts' })).toHaveCount(0);
  await expect.poll(async () => (await kept(page)).readings.map(({ meterL }) => meterL)).toEqual([5070, 4800]);
  await hand.log('481 121 5100L');
  await expect(page.getByRole('alert', { name: 'Before it counts' })).toContainText('counts down');
  expect(hand.actions).toBeLessThanOrEqual(22);
});

test('a counter set by what its cartridge prints: settings typed once, set by a press', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Corner', /Espresso machine/, 'µS/cm · bar · °C · L', 'Stands already');
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Close' }));
  await hand.click(page.getByRole('button', { name: /^Cartridge, stage/ }));
  await hand.lens('Cartridge');
  const own = page.getByRole('region', { name: 'Settings as printed' });
  for (const [setting, past] of [
    ['A', '10'],
    ['B', '30'],
    ['C', '55 %'],
  ] as const) {
    hand.actions += 3;
    await own.getByLabel('Setting on the dial').fill(setting);
    await own.getByLabel('Share past it at this setting').fill(past);
    await own.getByRole('button', { name: 'Add' }).click();
  }
  await hand.click(own.getByRole('button', { name: 'B', exact: true }));
  await expect(own.getByRole('button', { name: 'B', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const { system } = await kept(page);
  const cartridge = system.train.stages.find(({ kind }) => kind === 'decarboniser');
  expect(cartridge).toMatchObject({
    bypass: 0.3,
    settings: [
      { label: 'A', bypass: 0.1 },
      { label: 'B', bypass: 0.3 },
      { label: 'C', bypass: 0.55 },
    ],
  });
  // A share that cannot be says what can.
  await own.getByLabel('Setting on the dial').fill('D');
  await own.getByLabel('Share past it at this setting').fill('140');
  await own.getByRole('button', { name: 'Add' }).click();
  await expect(own.getByRole('alert')).toContainText('0 to 100');
  expect(hand.actions).toBeLessThanOrEqual(22);
  // Its table by hardness: a row that names a setting sets it by a press; one without a hardness is refused.
  const row = async (upTo: string, setting: string, litres: string): Promise<void> => {
    await own.getByLabel('Hardness up to which the row holds').fill(upTo);
    await own.getByLabel('Setting the table says').fill(setting);
    await own.getByLabel('Litres the table prints').fill(litres);
    await own.getByRole('button', { name: 'Keep this row' }).click();
  };
  await row('', 'C', '2000');
  await expect(own.getByRole('alert').last()).toContainText('Hardness');
  await row('1000', 'C', '2000');
  await own.getByRole('button', { name: 'Set C' }).click();
  await expect(own.getByRole('button', { name: 'C', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(own).toContainText('the table says C, 2000');
  const after = (await kept(page)).system.train.stages.find(({ kind }) => kind === 'decarboniser');
  expect(after).toMatchObject({ bypass: 0.55, table: [{ hardnessMgL: 1000, label: 'C', litres: 2000 }] });
});

test('a skid with three gauges more and a cell in its recycle', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Skid', /Laboratory skid/, 'µS/cm · bar · °C · L');
  await hand.to('Train');
  await hand.lens('Probes');
  for (const place of ['Line pressure', 'Concentrate', 'Distribution', 'Recycle flow']) await hand.choose('Place of another gauge', place);
  await hand.choose('Place of another probe', /^Feed of .*, recycle mixed in$/);
  await hand.choose(/^Meter of Feed of/, 'New: Conductivity cell, µS/cm');
  await hand.click(page.getByRole('button', { name: /^Feed of .* earlier in the line$/ }));
  const row = probeRows(page).nth(2);
  await expect(row).toContainText('3rd');
  // The mixture is stronger than the tap: what comes back brings its salt along.
  const expected = Number((await row.locator('b').innerText()).replace(/[^\d.]/g, ''));
  within(expected, 500, 1400);
  await hand.to('Log');
  await hand.log('480 9 700 0.07 7.2bar 3.4bar 5.1bar 0.4bar 900 L/h 700 L/h 1130 L/h');
  await expect.poll(async () => (await kept(page)).readings[0]?.also.map(({ value }) => value)).toEqual([3.4, 5.1, 0.4, 1130]);
  await expect(page.getByRole('columnheader', { name: /Concentrate bar/ })).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(24);
});

test('a boat with a lift pump: its own rise, no hazard; the high-pressure pump first is one', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Boat', /atermaker/, 'µS/cm · bar · °C · L');
  await hand.to('Train');
  await hand.add('Lift pump');
  await expect(page.getByRole('button', { name: /^Lift pump, stage 1 of/ })).toBeVisible();
  await expect(page.getByText(/such housings hold/)).toHaveCount(0);
  await hand.lens('Probes');
  await hand.choose('Place of another gauge', 'After filters');
  const filters = page
    .getByRole('region', { name: 'Gauges and flow meters' })
    .locator('.entry', { has: page.getByLabel('Place of After filters') });
  const bar = Number((await filters.locator('b').innerText()).replace(/[^\d.]/g, ''));
  within(bar, 0.5, 4);
  // The pump of the membrane, moved ahead of its filters.
  await hand.click(page.getByRole('button', { name: /^High-pressure pump, stage/ }));
  for (let i = 0; i < 2; i++) await hand.click(page.getByRole('button', { name: 'Move one place towards the tap' }));
  await expect(page.getByText(/such housings hold/).first()).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(18);
});

test('a cart on wheels is bolted, not screwed to studs', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Cart', /Cart with pump/, 'ppm · psi · °F · gal');
  await hand.to('Build');
  await hand.click(page.getByRole('radio', { name: 'Parts' }));
  hand.actions += 1;
  await page.getByLabel('Where it hangs').selectOption({ label: 'On a cart with wheels' });
  await expect(page.getByRole('main')).toContainText('lock nuts');
  await expect(page.getByRole('main')).not.toContainText(/studs/i);
  await hand.click(page.getByRole('radio', { name: 'Runbook' }));
  await expect(page.getByText('Bolted through the cart with lock nuts')).toBeVisible();
  await expect(page.getByText(/studs/i)).toHaveCount(0);
  expect(hand.actions).toBeLessThanOrEqual(10);
});

test('a second resin takes the probe of the product along: “150 4 2” judges 2', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Reef', /Household unit/, 'ppm · psi · °F · gal');
  await hand.to('Train');
  await hand.add('Resin');
  await hand.lens('Probes');
  await expect(page.getByLabel('Name of probe 3')).toHaveValue('After resin 2');
  await hand.to('Log');
  await hand.log('150 4 2');
  await expect.poll(async () => (await kept(page)).readings.length).toBe(1);
  await expect(page.getByText(/2.ppm/).first()).toBeVisible();
  await expect(page.getByText(/^Product reads 2\.0.ppm, the goal is at most/).first()).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(13);
});

test('a probe is placed by pressing on a tube, and moved along', async ({ page }) => {
  const hand = new Hand(page);
  await hand.start('Reef', /Household unit/, 'µS/cm · bar · °C · L');
  await hand.to('Train');
  await expect(page.locator('path.tube').first()).toBeAttached();
  const tube = (await page.locator('path.tube').nth(3).boundingBox())!;
  hand.actions += 1;
  await page.mouse.click(tube.x + tube.width / 2, tube.y + tube.height / 2);
  const card = page.getByRole('dialog', { name: 'New probe here' });
  await expect(card).toContainText('added as 4th number');
  await hand.click(card.getByRole('button', { name: 'Place probe' }));
  expect((await kept(page)).system.train.probes).toHaveLength(4);
  // The ring of a probe opens it.
  await page.getByRole('button', { name: 'Probe 4' }).press('Enter');
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Remove' }));
  expect((await kept(page)).system.train.probes).toHaveLength(3);
});

function within(value: number, low: number, high: number): void {
  expect(value).toBeGreaterThanOrEqual(low);
  expect(value).toBeLessThanOrEqual(high);
}
