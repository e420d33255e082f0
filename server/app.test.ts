import { mkdtemp, writeFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readReport, readSupplyReport, supplyText, supplyZonesSchema } from '@yes-clear/core/report';
import { completeWater, settleWater, standardChecks, type PartialAnalysis } from '@yes-clear/core/water';
import { createServer } from './app';

describe('the server', () => {
  let origin = '';
  let close = (): void => undefined;
  beforeAll(async () => {
    const dist = await mkdtemp(join(tmpdir(), 'yes-clear-'));
    await writeFile(join(dist, 'index.html'), '<meta name="yes-clear-demo" content="off" />');
    await writeFile(join(dist, 'app.js'), 'export {};');
    const listening = createServer({ dist, demo: true }).listen(0, '127.0.0.1');
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
  it('hands out made-up supply reports that are read whole and agree with themselves', async () => {
    const { zones } = supplyZonesSchema.parse(JSON.parse((await get('/api/supply'))[1]));
    expect(zones.length).toBeGreaterThanOrEqual(3);
    for (const { zone } of zones) {
      const report = readSupplyReport(JSON.parse((await get(`/api/supply/${zone}`))[1]));
      if (!report.ok) throw new Error(report.error.message);
      const read = readReport(supplyText(report.value));
      if (!read.ok) throw new Error(read.error.message);
      expect(
        read.value.rows.filter((row) => !['taken', 'notUsed'].includes(row.fate)),
        zone,
      ).toEqual([]);
      const values = Object.fromEntries(
        read.value.rows.flatMap((row) => (row.value && !row.value.below ? [[row.value.quantity, row.value.value]] : [])),
      );
      const { ec25UScm, hardnessMgL, alkalinityMgL, pH, ...mgL } = values;
      const analysis = { character: 'municipal', temperatureC: 12, ec25UScm, hardnessMgL, alkalinityMgL, pH, mgL } as PartialAnalysis;
      const completed = completeWater(analysis);
      if (!completed.ok) throw new Error(completed.error.message);
      expect(completed.value.rung, zone).toBe('report');
      const { water } = completed.value;
      const state = settleWater(water);
      const checks = standardChecks(water.mgL, water.alkalinityMgL, { ec25UScm }, state.ok ? state.value.ec25UScm : 0);
      expect(
        checks.filter((check) => !check.passed),
        zone,
      ).toEqual([]);
    }
  });
  it('says so when there is no such zone', async () => {
    const [status, body] = await get('/api/supply/nowhere');
    expect(status).toBe(404);
    expect(body).toContain('There is no zone “nowhere”. Zones: hollow-fell');
  });
  it('serves files, and says so when there is none', async () => {
    expect((await get('/app.js'))[0]).toBe(200);
    expect((await get('/missing.js'))[0]).toBe(404);
  });
});
