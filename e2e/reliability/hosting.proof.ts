import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { createServer as createHttps, get } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test } from '@playwright/test';
import { CHROMIUM } from '../../playwright.config';
import { createServer } from '../../server/app';
import { certificatesFor } from '../../server/certificates';
import { nginxExample } from '../../server/nginx';
import { DEMO, storedNotes } from '../steps';
import { DIST, ROOT } from './places';

/** A phone over https, and a static host by the example shipped. */
const VAN = 'demo-van-tank';

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
    await expect
      .poll(() =>
        fetch(`http://127.0.0.2:${port + 1}/yes-clear-root.crt`).then(
          (answer) => answer.status,
          () => 0,
        ),
      )
      .toBe(200);
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
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
      serviceWorkers: 'allow',
    });
    const page = await context.newPage();
    await page.goto(`https://127.0.0.2:${port}/`);
    await expect(page.getByText('Works without a signal.')).toBeVisible({ timeout: 30_000 });
    const ended = new Promise((done) => child!.once('exit', done));
    child.kill('SIGTERM');
    await ended;
    await page.goto(`https://127.0.0.2:${port}/system/${VAN}/log`);
    await page.getByLabel('Quick reading').fill('238 12 0 onthephone');
    await page.getByRole('button', { name: /^Log it/ }).click();
    await expect.poll(() => storedNotes(page, VAN)).toContain('onthephone');
    await expect(page.getByText('onthephone')).toBeVisible();
    await browser.close();
  });
  test('one that does not is told so plainly, and works in the page', async () => {
    const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] });
    const folder = mkdtempSync(join(tmpdir(), 'yes-clear-ca-'));
    const { key, cert } = await certificatesFor(['127.0.0.3'], folder, 'bench');
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
    const ask = (path: string): Promise<{ status: number; headers: Record<string, unknown> }> =>
      new Promise((done) =>
        get({ host: '127.0.0.4', port, path, ca: root, headers: { 'accept-encoding': 'gzip' } }, (answer) => {
          answer.resume();
          done({ status: answer.statusCode ?? 0, headers: answer.headers });
        }).on('error', () => done({ status: 0, headers: {} })),
      );
    await expect.poll(async () => (await ask('/')).status).toBe(200);
    const asset = readdirSync(join(DIST, 'assets')).find((name) => name.endsWith('.js'))!;
    for (const [path, kept] of [
      ['/', 'no-cache'],
      ['/system/x/train', 'no-cache'],
      ['/sw.js', 'no-cache'],
      [`/assets/${asset}`, 'public, max-age=31536000, immutable'],
    ] as const) {
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
