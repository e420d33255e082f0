import { appendFileSync, cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type BrowserContext } from '@playwright/test';
import { createServer } from '../../server/app';
import { enter, field, openRounds, phase, storedNotes } from '../steps';
import { DIST } from './places';

/** The server gone, built anew, or holding a newer version. */
const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';

/** The app's own server on a port of its own, over a copy of the build that can be changed under it. */
async function serverOf(dist: string): Promise<{ readonly origin: string; readonly server: Server }> {
  const server = createServer({ dist, demo: true }).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  return { origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server };
}
function copyOfBuild(): string {
  const dist = mkdtempSync(join(tmpdir(), 'yes-clear-dist-'));
  cpSync(DIST, dist, { recursive: true });
  return dist;
}
const gone = (server: Server): void => {
  server.closeAllConnections();
  server.close();
};

test.describe('the server and its versions', () => {
  /** A visit with a service worker, over a copy of the build. */
  async function visit(browser: { newContext: (options: object) => Promise<BrowserContext> }) {
    const dist = copyOfBuild();
    const { origin, server } = await serverOf(dist);
    const context = await browser.newContext({ serviceWorkers: 'allow', baseURL: origin, timezoneId: 'UTC', locale: 'en-GB' });
    return { dist, server, context, page: await context.newPage() };
  }
  test('a first visit that has said it works without a signal does, on pages never seen', async ({ browser }) => {
    const { server, context, page } = await visit(browser);
    await page.goto('/');
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 60_000 });
    gone(server);
    await page.getByRole('link', { name: 'Coral nursery make-up Tressimoor' }).click();
    await phase(page, 'Train');
    await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
    await phase(page, 'Build');
    await expect(page.getByRole('heading').first()).toBeVisible();
    await page.goto(`/system/${VAN}/log`);
    await page.getByLabel('Quick reading').fill('238 12 0 offline');
    await page.getByLabel('Quick reading').press('Enter');
    await expect.poll(() => storedNotes(page, VAN)).toContain('offline');
    await context.close();
  });
  test('a signal lost before the app was kept: pages not yet seen open all the same', async ({ browser }) => {
    const { origin, server } = await serverOf(copyOfBuild());
    const context = await browser.newContext({ serviceWorkers: 'block', baseURL: origin });
    const page = await context.newPage();
    await openRounds(page);
    await page.waitForLoadState('networkidle');
    gone(server);
    await page.getByRole('link', { name: 'Coral nursery make-up Tressimoor' }).click();
    for (const [name, heading] of [
      ['Goal', 'What the water is for'],
      ['Water', 'What comes out of the tap'],
    ] as const) {
      await phase(page, name);
      await expect(page.getByRole('heading', { name: heading })).toBeVisible();
    }
    await context.close();
  });
  test('a newer version in the middle of an edit tells, waits, and takes nothing with it', async ({ browser }) => {
    const { dist, server, context, page } = await visit(browser);
    await page.goto('/');
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 60_000 });
    // A page left while it loads can keep Chromium's old version busy for minutes, and a newer one waits for that.
    await page.waitForLoadState('networkidle');
    await page.goto(`/system/${CORAL}/water`);
    await enter(page, 'pH', '7.25');
    const second = await context.newPage();
    await second.goto(`/system/${CORAL}/log`);
    await second.getByLabel('Quick reading').fill('311 9');
    appendFileSync(join(dist, 'sw.js'), '\n// a newer version\n');
    await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())?.update()));
    const newer = page.getByTestId('newer');
    await expect(newer).toContainText('A newer Yes Clear is here. It waits until you say so');
    await enter(page, 'pH', '7.35');
    await expect(page.getByRole('banner')).toContainText(/saved \d\d/);
    await newer.getByRole('button', { name: 'Use it now' }).click();
    await expect(newer).toBeHidden();
    await expect(field(page, 'pH')).toHaveValue('7.35');
    // The other tab is told, and not reloaded under a hand.
    await expect(second.getByTestId('newer')).toContainText('Another tab has gone over to it');
    await expect(second.getByLabel('Quick reading')).toHaveValue('311 9');
    gone(server);
    await context.close();
  });
  test('built anew under an open tab: the next page opens, or says why not and how to go on', async ({ browser }) => {
    const dist = copyOfBuild();
    const { origin, server } = await serverOf(dist);
    const context = await browser.newContext({ serviceWorkers: 'block', baseURL: origin });
    const page = await context.newPage();
    await page.addInitScript(() => {
      // As on a machine that never comes to rest: no page is loaded ahead.
      window.requestIdleCallback = () => 0;
    });
    await openRounds(page);
    for (const name of readdirSync(join(dist, 'assets'))) if (name.startsWith('GoalPage')) rmSync(join(dist, 'assets', name));
    await page.getByRole('link', { name: 'Coral nursery make-up Tressimoor' }).click();
    await expect(page.getByRole('banner').getByText('Coral nursery make-up')).toBeVisible();
    await phase(page, 'Goal');
    await expect(page.getByText('This page could not be loaded')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Reload' })).toBeVisible();
    gone(server);
    await context.close();
  });
});
