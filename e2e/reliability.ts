import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { appendFileSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test';
import { CHROMIUM } from '../playwright.config';
import { createServer } from '../server/app';
import { nginxExample } from '../server/nginx';
import { certificatesFor } from '../server/certificates';
import { crash, DEMO, enter, field, openDemo, openRounds, phase, storedNotes, storedSystem, storeMany } from './steps';

const CORAL = 'demo-coral-nursery';
const VAN = 'demo-van-tank';
const ROOT = fileURLToPath(new URL('..', import.meta.url));
const DIST = join(ROOT, 'app/dist');
const noNaN = /NaN|Infinity|undefined/;

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

test.describe('a tab killed so long after typing', () => {
  for (const ms of [0, 50, 200, 1000])
    test(`${ms} ms: the figure, the name and half a line are there again`, async ({ context }) => {
      // Three times each: a race is not proved by one start.
      for (const [temperature, name] of [
        ['61', 'Carbon A'],
        ['62', 'Carbon B'],
        ['63', 'Carbon C'],
      ] as const) {
        const page = await context.newPage();
        await openDemo(page, CORAL, 'train');
        await page.getByRole('button', { name: /^Carbon.* 2|^Carbon [AB], stage/ }).last().click();
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
  for (const mark of marks) {
    const page = await context.newPage();
    await openDemo(page, VAN, 'log');
    const line = page.getByLabel('Quick reading');
    await line.fill(`200 5 0 ${mark}`);
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
  await Promise.all([one, two].map(async (page) => {
    for (const [at, label, text] of fields) if (at === page) await enter(page, label, text);
  }));
  for (const page of [one, two]) for (const [, label, text] of fields) await expect(field(page, label)).toHaveValue(text);
  await one.reload();
  for (const [, label, text] of fields) await expect(field(one, label)).toHaveValue(text);
});

/** Opens the database from a page that is not the app, made with what a later version might hold where there is none, and says what is in it. */
const held = (page: Page, version?: number): Promise<string> =>
  page.evaluate(
    (at) =>
      new Promise<string>((done, failed) => {
        const open = indexedDB.open('yes-clear', at);
        open.onupgradeneeded = () => {
          if (!open.result.objectStoreNames.contains('systems'))
            open.result.createObjectStore('systems', { keyPath: 'id' }).put({ id: 'later', shape: 'of a later version' });
        };
        open.onerror = () => failed(open.error);
        open.onsuccess = () => {
          const all = open.result.transaction('systems').objectStore('systems').getAll();
          all.onsuccess = () => {
            done(JSON.stringify([open.result.version, all.result]));
            open.result.close();
          };
        };
      }),
    version,
  );

test.describe('stores of other versions', () => {
  test('a newer database is named, not read, not written, and nothing is called empty', async ({ context }) => {
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    const before = await held(outside, 990);
    const page = await context.newPage();
    await page.goto('/');
    await expect(page.getByTestId('trouble')).toContainText('a newer Yes Clear has been at work in this browser');
    await expect(page.getByText('Nothing kept here yet')).toHaveCount(0);
    await expect(page.getByText('From the tap to a logged reading')).toHaveCount(0);
    await page.goto(`/system/${CORAL}/log`);
    await expect(page.getByTestId('trouble')).toContainText('Reload this page to get it; nothing was overwritten.');
    expect(await held(outside)).toBe(before);
  });
  test('an old tab beside a new version stops writing, says so, and saves what it shows', async ({ context }) => {
    const page = await context.newPage();
    await openDemo(page, CORAL, 'water');
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    const before = await held(outside, 990);
    await expect(page.getByTestId('trouble')).toContainText('a newer Yes Clear has been at work');
    await enter(page, 'pH', '7.1');
    await expect(field(page, 'pH')).toHaveValue('7.1');
    expect(await held(outside)).toBe(before);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByTestId('trouble').getByRole('button', { name: 'Save everything' }).click(),
    ]);
    expect(readFileSync((await download.path())!, 'utf8')).toContain('"pH": 7.1');
  });
  test('held up by an older tab it says which hand is needed, and goes on by itself', async ({ context }) => {
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    await outside.evaluate(
      () =>
        new Promise<void>((done) => {
          const open = indexedDB.open('yes-clear', 10);
          open.onupgradeneeded = () => void open.result.createObjectStore('systems', { keyPath: 'id' });
          open.onsuccess = () => {
            (window as unknown as { held: IDBDatabase }).held = open.result;
            done();
          };
        }),
    );
    const page = await context.newPage();
    await page.goto('/');
    await expect(page.getByTestId('trouble')).toContainText('another tab holds an older Yes Clear open');
    await outside.evaluate(() => (window as unknown as { held: IDBDatabase }).held.close());
    await expect(page.getByTestId('trouble')).toBeHidden();
    await expect(page.getByRole('heading', { name: 'From the tap to a logged reading.' }).or(page.getByRole('article').first())).toBeVisible();
  });
  test('without any storage it says so, on Rounds and on a deep page', async ({ context }) => {
    const page = await context.newPage();
    await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
    for (const path of ['/', `/system/${CORAL}/train`]) {
      await page.goto(path);
      await expect(page.getByTestId('trouble')).toContainText('this browser offers no storage');
      await expect(page.getByText('Nothing kept here yet')).toHaveCount(0);
    }
  });
  test('a store that lost its systems is found out at the next start, with what could be read back', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await page.close();
    const outside = await context.newPage();
    await outside.goto('/mark.svg');
    await outside.evaluate(
      (id) =>
        new Promise<void>((done) => {
          const open = indexedDB.open('yes-clear');
          open.onsuccess = () => {
            const change = open.result.transaction('systems', 'readwrite');
            change.objectStore('systems').delete(id);
            change.oncomplete = () => {
              open.result.close();
              done();
            };
          };
        }),
      VAN,
    );
    const later = await context.newPage();
    await later.goto('/');
    await expect(later.getByRole('alert')).toContainText(`Of ${DEMO} systems`);
    await expect(later.getByRole('alert')).toContainText(`${DEMO - 1} and`);
    await expect(later.getByRole('alert')).toContainText('could be read back');
  });
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
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 30_000 });
    gone(server);
    await page.getByRole('link', { name: 'Coral nursery make-up Skerrow' }).click();
    await phase(page, 'Train');
    await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
    await phase(page, 'Build');
    await expect(page.getByRole('heading').first()).toBeVisible();
    await page.goto(`/system/${VAN}/log`);
    await page.getByLabel('Quick reading').fill('205 7 0 offline');
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
    await page.getByRole('link', { name: 'Coral nursery make-up Skerrow' }).click();
    for (const [name, heading] of [['Goal', 'What the water is for'], ['Water', 'What comes out of the tap']] as const) {
      await phase(page, name);
      await expect(page.getByRole('heading', { name: heading })).toBeVisible();
    }
    await context.close();
  });
  test('a newer version in the middle of an edit tells, waits, and takes nothing with it', async ({ browser }) => {
    const { dist, server, context, page } = await visit(browser);
    await page.goto('/');
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 30_000 });
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
    await page.getByRole('link', { name: 'Coral nursery make-up Skerrow' }).click();
    await expect(page.getByRole('banner').getByText('Coral nursery make-up')).toBeVisible();
    await phase(page, 'Goal');
    await expect(page.getByText('This page could not be loaded')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Reload' })).toBeVisible();
    gone(server);
    await context.close();
  });
});

test.describe('odd amounts', () => {
  test('100,000 readings of one system: Log opens, draws and takes one more', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await storeMany(page, 1, 100_000);
    await page.goto('/system/many-0/log');
    await expect(page.getByText('What the log says')).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('button', { name: /Show/ })).toBeVisible({ timeout: 30_000 });
    await page.getByLabel('Quick reading').fill('311 9 0 onemore');
    await page.getByLabel('Quick reading').press('Enter');
    await expect(page.getByRole('cell', { name: /onemore/ })).toBeVisible({ timeout: 30_000 });
    await expect(page.locator('body')).not.toHaveText(noNaN);
  });
  test('106 systems: Rounds has every name at once, and each stands where it belongs soon after', async ({ context }) => {
    const page = await context.newPage();
    await openRounds(page);
    await storeMany(page, 100, 200);
    await page.goto('/');
    await expect(page.getByRole('article')).toHaveCount(DEMO + 100);
    await expect(page.getByText('Being worked out')).toHaveCount(0, { timeout: 60_000 });
  });
});

test('a system whose store was spoiled breaks no page: the reason stands there, and everything can be saved', async ({ context }) => {
  const page = await context.newPage();
  await openRounds(page);
  await page.evaluate(
    (id) =>
      new Promise<void>((done) => {
        const open = indexedDB.open('yes-clear');
        open.onsuccess = () => {
          const change = open.result.transaction('systems', 'readwrite');
          const store = change.objectStore('systems');
          store.get(id).onsuccess = (event) => {
            const row = (event.target as IDBRequest).result as { revision: number; system: object };
            store.put({ ...row, revision: row.revision + 1, system: { ...row.system, train: { stages: null } } });
          };
          change.oncomplete = () => {
            open.result.close();
            done();
          };
        };
      }),
    VAN,
  );
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(DEMO);
  await expect(page.getByText('Cannot be computed')).toBeVisible();
  for (const path of ['water', 'goal', 'train', 'build', 'log']) {
    await page.goto(`/system/${VAN}/${path}`);
    await expect(page.getByText(/This page stopped working|could not be worked out|cannot be solved|Cannot be computed|What /).first()).toBeVisible();
    await expect(page.locator('body')).not.toHaveText(noNaN);
  }
  await page.goto(`/system/${VAN}/train`);
  await expect(page.getByRole('heading', { name: 'This page stopped working' })).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save everything to a file' }).click()]);
  expect(JSON.parse(readFileSync((await download.path())!, 'utf8')).records).toHaveLength(DEMO);
  await expect(page.getByText(/Saved, but records\[\d\]\.system\.train/)).toBeVisible();
});

test.describe('a phone that trusts the root', () => {
  let child: ChildProcess | null = null;
  test.afterEach(() => child?.kill('SIGTERM'));
  test('loads the app over https from another address, loses the server, and logs a reading', async () => {
    const home = mkdtempSync(join(tmpdir(), 'yes-clear-home-'));
    const certificates = join(home, 'certificates');
    const port = 4781;
    child = spawn(process.execPath, ['--import', 'tsx', join(ROOT, 'server/main.ts')], {
      env: { ...process.env, PORT: String(port), HOST: '127.0.0.2', HTTPS: 'on', YES_CLEAR_CERTIFICATES: certificates },
      stdio: 'ignore',
    });
    await expect.poll(() => existsSync(join(certificates, 'root.crt')), { timeout: 20_000 }).toBe(true);
    // The root is fetched and trusted as a person would: from the plain page, into the device's own list.
    await expect.poll(() => fetch(`http://127.0.0.2:${port + 1}/yes-clear-root.crt`).then((answer) => answer.status, () => 0)).toBe(200);
    writeFileSync(join(home, 'root.crt'), await (await fetch(`http://127.0.0.2:${port + 1}/yes-clear-root.crt`)).text());
    const list = join(home, '.pki/nssdb');
    mkdirSync(list, { recursive: true });
    execFileSync('certutil', ['-d', `sql:${list}`, '-N', '--empty-password']);
    execFileSync('certutil', ['-d', `sql:${list}`, '-A', '-t', 'C,,', '-n', 'yes-clear', '-i', join(home, 'root.crt')]);
    const browser = await chromium.launch({
      executablePath: CHROMIUM,
      args: ['--no-sandbox', '--disable-gpu'],
      env: { ...(process.env as Record<string, string>), HOME: home },
    });
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, serviceWorkers: 'allow' });
    const page = await context.newPage();
    await page.goto(`https://127.0.0.2:${port}/`);
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 30_000 });
    const ended = new Promise((done) => child!.once('exit', done));
    child.kill('SIGTERM');
    await ended;
    await page.goto(`https://127.0.0.2:${port}/system/${VAN}/log`);
    await page.getByLabel('Quick reading').fill('208 6 0 onthephone');
    await page.getByRole('button', { name: /^Log it/ }).click();
    await expect.poll(() => storedNotes(page, VAN)).toContain('onthephone');
    await expect(page.getByText('onthephone')).toBeVisible();
    await browser.close();
  });
  test('one that does not is told so plainly, and works in the page', async () => {
    const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] });
    const folder = mkdtempSync(join(tmpdir(), 'yes-clear-ca-'));
    const { key, cert } = await certificatesFor(['127.0.0.3'], folder, 'bench');
    const { createServer: createHttps } = await import('node:https');
    const server = createHttps({ key, cert }, createServer({ dist: DIST, demo: true, hosts: ['127.0.0.3'] })).listen(0, '127.0.0.3');
    await new Promise((ready) => server.once('listening', ready));
    const context = await browser.newContext({ ignoreHTTPSErrors: false });
    const page = await context.newPage();
    const at = `https://127.0.0.3:${(server.address() as AddressInfo).port}/`;
    await expect(page.goto(at)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
    const anyway = await (await browser.newContext({ ignoreHTTPSErrors: true })).newPage();
    await anyway.goto(at);
    await expect(anyway.getByRole('article')).toHaveCount(DEMO);
    server.closeAllConnections();
    server.close();
    await browser.close();
  });
});

test('behind nginx with https, by the example shipped, it is served with the same headers and opens deep pages', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yes-clear-nginx-'));
  const { key, cert, root } = await certificatesFor(['127.0.0.4'], join(folder, 'ca'), 'bench');
  writeFileSync(join(folder, 'key.pem'), key, { mode: 0o600 });
  writeFileSync(join(folder, 'cert.pem'), cert);
  const port = 4791;
  const site = nginxExample()
    .replace('ADDRESS:443', `127.0.0.4:${port}`)
    .replace('NAME', '127.0.0.4')
    .replace('CERTIFICATE', join(folder, 'cert.pem'))
    .replace('KEY', join(folder, 'key.pem'))
    .replace('FOLDER', DIST);
  writeFileSync(
    join(folder, 'nginx.conf'),
    `daemon off; worker_processes 1; pid ${folder}/pid; error_log ${folder}/error.log;${process.getuid?.() === 0 ? ' user root;' : ''}
events {} http { include /etc/nginx/mime.types; access_log off; client_body_temp_path ${folder}/a; proxy_temp_path ${folder}/b; fastcgi_temp_path ${folder}/c; uwsgi_temp_path ${folder}/d; scgi_temp_path ${folder}/e; ${site} }`,
  );
  const nginx = spawn('nginx', ['-c', join(folder, 'nginx.conf'), '-e', join(folder, 'error.log')], { stdio: 'ignore' });
  try {
    const { get } = await import('node:https');
    const ask = (path: string): Promise<{ status: number; headers: Record<string, unknown> }> =>
      new Promise((done) =>
        get({ host: '127.0.0.4', port, path, ca: root, headers: { 'accept-encoding': 'gzip' } }, (answer) => {
          answer.resume();
          done({ status: answer.statusCode ?? 0, headers: answer.headers });
        }).on('error', () => done({ status: 0, headers: {} })),
      );
    await expect.poll(async () => (await ask('/')).status).toBe(200);
    const asset = readdirSync(join(DIST, 'assets')).find((name) => name.endsWith('.js'))!;
    for (const [path, kept] of [['/', 'no-cache'], ['/system/x/train', 'no-cache'], ['/sw.js', 'no-cache'], [`/assets/${asset}`, 'public, max-age=31536000, immutable']] as const) {
      const { status, headers } = await ask(path);
      expect([path, status, headers['cache-control']]).toEqual([path, 200, kept]);
      expect(headers['content-security-policy']).toContain("script-src 'self'");
      expect(headers['x-content-type-options']).toBe('nosniff');
    }
    expect((await ask(`/assets/${asset}`)).headers['content-encoding']).toBe('gzip');
    expect((await ask('/assets/none.js')).status).toBe(404);
    expect((await ask('/api/supply')).status).toBe(404);
  } finally {
    nginx.kill('SIGTERM');
  }
});
