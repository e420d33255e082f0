import { mkdtemp, writeFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createServer } from './main';

describe('the server', () => {
  let origin = '';
  let close = (): void => undefined;
  beforeAll(async () => {
    const dist = await mkdtemp(join(tmpdir(), 'yes-clear-'));
    await writeFile(join(dist, 'index.html'), '<meta name="yes-clear-demo" content="off" />');
    await writeFile(join(dist, 'app.js'), 'export {};');
    const listening = createServer(dist, true).listen(0, '127.0.0.1');
    await new Promise((ready) => listening.once('listening', ready));
    origin = `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
    close = () => void listening.close();
  });
  afterAll(() => close());
  const get = async (path: string): Promise<[number, string]> => {
    const response = await fetch(origin + path);
    return [response.status, await response.text()];
  };
  it('asks the first visit to load the demonstration', async () => expect((await get('/'))[1]).toContain('content="on"'));
  it('answers a page of the app with the app', async () => expect((await get('/system/abc/train'))[1]).toContain('yes-clear-demo'));
  it('serves files, and says so when there is none', async () => {
    expect((await get('/app.js'))[0]).toBe(200);
    expect((await get('/missing.js'))[0]).toBe(404);
  });
});
