import { spawn, type ChildProcess } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdir, mkdtemp, readFile, stat, writeFile } from 'node:fs/promises';
import { request as plain } from 'node:http';
import { get as secure } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createServer, PERMISSIONS } from './app';
import { certificatesFor } from './certificates';
import { contentSecurityHeader, nginxExample } from './nginx';
import { createTrustPage } from './trust';

const LONG = `export const text = '${'water '.repeat(4000)}';`;
let origin = '';
let port = 0;
let close = (): void => undefined;
async function built(): Promise<string> {
  const dist = await mkdtemp(join(tmpdir(), 'yes-clear-'));
  await mkdir(join(dist, 'assets'));
  await writeFile(join(dist, 'index.html'), '<meta name="yes-clear-demo" content="off" />');
  await writeFile(join(dist, 'sw.js'), '//');
  await writeFile(join(dist, 'assets/app-1a2b.js'), LONG);
  return dist;
}
beforeAll(async () => {
  const listening = createServer({ dist: await built(), demo: false, hosts: ['192.168.7.20', 'bench.local'] }).listen(0, '127.0.0.1');
  await new Promise((ready) => listening.once('listening', ready));
  port = (listening.address() as AddressInfo).port;
  origin = `http://127.0.0.1:${port}`;
  close = () => void listening.close();
});
afterAll(() => close());

/** Asks with a Host header of one's own, which `fetch` does not send. */
const asked = (path: string, host: string): Promise<number> =>
  new Promise((done, failed) => {
    const sent = plain({ host: '127.0.0.1', port, path, headers: { host } }, (answer) => {
      answer.resume();
      done(answer.statusCode ?? 0);
    });
    sent.on('error', failed);
    sent.end();
  });

describe('every answer', () => {
  it.each(['/', '/system/x/train', '/assets/app-1a2b.js', '/missing.js', '/api/supply', '/api/none'])(
    '%s bears the page’s policy',
    async (path) => {
      const { headers } = await fetch(origin + path);
      expect(headers.get('content-security-policy')!.replaceAll(';', '; ')).toBe(contentSecurityHeader());
      expect(headers.get('x-content-type-options')).toBe('nosniff');
      expect(headers.get('x-frame-options')).toBe('DENY');
      expect(headers.get('referrer-policy')).toBe('no-referrer');
      expect(headers.get('permissions-policy')).toBe(PERMISSIONS);
      expect(headers.get('x-powered-by')).toBeNull();
    },
  );
  it('makes no code out of text and stands in nobody’s frame', () => {
    expect(contentSecurityHeader()).toContain("default-src 'none'");
    expect(contentSecurityHeader()).toContain("script-src 'self';");
    expect(contentSecurityHeader()).toContain("frame-ancestors 'none'");
    expect(contentSecurityHeader()).not.toMatch(/unsafe-eval|\*|https?:/);
  });
});

describe('who is answered', () => {
  it.each([
    ['127.0.0.1:4173', 200],
    ['localhost', 200],
    ['[::1]:4173', 200],
    ['192.168.7.20:4173', 200],
    ['BENCH.local', 200],
    ['evil.example', 421],
    ['evil.example:4173', 421],
    ['127.0.0.1.evil.example', 421],
  ])('%s: %i', async (host, status) => expect(await asked('/', host)).toBe(status));
});

describe('keeping and squeezing', () => {
  it('a file named by its content is kept for a year, everything else is asked for again', async () => {
    const kept = async (path: string): Promise<string | null> => (await fetch(origin + path)).headers.get('cache-control');
    expect(await kept('/assets/app-1a2b.js')).toBe('public, max-age=31536000, immutable');
    for (const path of ['/', '/system/x/log', '/sw.js']) expect(await kept(path)).toBe('no-cache');
  });
  it('long texts are compressed', async () => {
    const answer = await fetch(`${origin}/assets/app-1a2b.js`, { headers: { 'accept-encoding': 'gzip' } });
    expect(answer.headers.get('content-encoding')).toBe('gzip');
    expect(await answer.text()).toBe(LONG);
  });
});

describe('what is wrong is said without anything of this machine', () => {
  it.each([
    ['/api/none', 404, /There is no GET \/api\/none here/],
    ['/api/supply/%E0%A4%A', 400, /cannot be read/],
    ['/%E0%A4%A', 400, /cannot be read/],
    ['/missing.js', 404, /nothing at this address/],
    ['/..%2f..%2fpackage.json', 404, /nothing at this address/],
  ])('%s', async (path, status, says) => {
    const answer = await fetch(origin + path);
    const body = await answer.text();
    expect([answer.status, body]).toEqual([status, expect.stringMatching(says)]);
    expect(body).not.toMatch(/node_modules|\/work|\/tmp|at .*\.ts/);
  });
  it('a missing build is named with what to do', async () => {
    const listening = createServer({ dist: join(tmpdir(), 'nowhere-at-all'), demo: false }).listen(0, '127.0.0.1');
    await new Promise((ready) => listening.once('listening', ready));
    const answer = await fetch(`http://127.0.0.1:${(listening.address() as AddressInfo).port}/`);
    expect([answer.status, await answer.text()]).toEqual([503, 'The app has not been built yet: run “npm run build”, then ask again.']);
    listening.close();
  });
});

describe('https with an authority of its own', () => {
  it('is made once; the server’s certificate is new each time and good for every name', async () => {
    const folder = join(await mkdtemp(join(tmpdir(), 'yes-clear-ca-')), 'kept');
    const first = await certificatesFor(['192.168.7.20', '127.0.0.1', 'bench.local'], folder, 'bench');
    const second = await certificatesFor(['10.0.0.4'], folder, 'bench');
    expect(second.root).toBe(first.root);
    const root = new X509Certificate(first.root);
    const leaf = new X509Certificate(first.cert);
    expect(root.ca).toBe(true);
    expect(leaf.verify(root.publicKey)).toBe(true);
    expect(new X509Certificate(second.cert).verify(root.publicKey)).toBe(true);
    expect([leaf.checkIP('192.168.7.20'), leaf.checkHost('bench.local'), leaf.checkIP('10.0.0.4')]).toEqual([
      '192.168.7.20',
      'bench.local',
      undefined,
    ]);
    // Phones refuse a server's certificate that runs longer than 825 days.
    expect((Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / 86_400_000).toBeLessThan(400);
    expect((await stat(join(folder, 'root.key'))).mode & 0o077).toBe(0);
    await writeFile(join(folder, 'root.crt'), 'spoiled');
    expect((await certificatesFor(['10.0.0.4'], folder, 'bench')).root).not.toBe(first.root);
  });
  it('the page that hands out the root says what it is for and links to the app', async () => {
    const listening = createTrustPage('ROOT', (host) => `https://${host}:4173`).listen(0, '127.0.0.1');
    await new Promise((ready) => listening.once('listening', ready));
    const at = `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
    const page = await (await fetch(at)).text();
    expect(page).toContain('https://127.0.0.1:4173');
    expect(page).toContain('browsers refuse service workers from a certificate they do not trust');
    const root = await fetch(`${at}/yes-clear-root.crt`);
    expect([root.headers.get('content-type'), await root.text()]).toEqual(['application/x-x509-ca-cert', 'ROOT']);
    expect((await fetch(`${at}/system/x`)).status).toBe(404);
    listening.close();
  });
  it('the example for a static host sends the same policy', () => {
    expect(nginxExample()).toContain(`Content-Security-Policy "${contentSecurityHeader()}"`);
    expect(nginxExample()).toContain('immutable');
  });
});

describe('the running server', () => {
  const MAIN = fileURLToPath(new URL('./main.ts', import.meta.url));
  const run = (env: Record<string, string>): ChildProcess =>
    spawn(process.execPath, ['--import', 'tsx', MAIN], { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  const output = (child: ChildProcess, until: RegExp): Promise<string> =>
    new Promise((done, failed) => {
      let text = '';
      const seen = (data: Buffer): void => {
        text += data.toString();
        if (until.test(text)) done(text);
      };
      child.stdout!.on('data', seen);
      child.stderr!.on('data', seen);
      child.once('exit', () => (until.test(text) ? done(text) : failed(new Error(text))));
    });
  const ended = (child: ChildProcess): Promise<number | null> => new Promise((done) => child.once('exit', done));

  it('ends at once and cleanly when it is asked to', async () => {
    const child = run({ PORT: String(port + 11) });
    await output(child, /Yes Clear is at http:\/\/127\.0\.0\.1/);
    const end = ended(child);
    child.kill('SIGTERM');
    expect(await end).toBe(0);
  });
  it('says which port is wrong or taken', async () => {
    expect(await output(run({ PORT: 'x' }), /PORT is/)).toContain('PORT is x; accepted is a whole number from 1 to 65534.');
    expect(await output(run({ PORT: String(port) }), /cannot be used/)).toContain(`Port ${port} cannot be used`);
  });
  it('serves the network by https, with an address, a code to scan and the root', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'yes-clear-ca-'));
    const child = run({ PORT: String(port + 21), HOST: '127.0.0.2', HTTPS: 'on', YES_CLEAR_CERTIFICATES: folder });
    const text = await output(child, /kept offline\./);
    expect(text).toContain(`https://127.0.0.2:${port + 21}`);
    expect(text).toMatch(/[█▀▄]{5}/);
    const ca = await readFile(join(folder, 'root.crt'), 'utf8');
    const status = await new Promise<number>((done, failed) => {
      secure({ host: '127.0.0.2', port: port + 21, path: '/api/supply', ca }, (answer) => {
        answer.resume();
        done(answer.statusCode ?? 0);
      }).on('error', failed);
    });
    expect(status).toBe(200);
    const end = ended(child);
    child.kill('SIGTERM');
    expect(await end).toBe(0);
  });
});
