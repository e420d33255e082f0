import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { database, openDatabase } from './database';
import { supplyReport, supplyZones } from './supply';

const REPORT = {
  zone: 'a1',
  name: 'Example zone',
  period: { from: '2026-01-01', to: '2026-06-30' },
  rows: [{ parameter: 'Calcium', unit: 'mg/l', mean: '55' }],
};
const answer = (body: unknown, status = 200): void => {
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })));
};
const gone = (): void => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')));
};

describe('the supplier', () => {
  beforeEach(async () => {
    await openDatabase();
    await database.supply.clear();
  });
  afterEach(() => vi.unstubAllGlobals());

  it('a report fetched is kept, and given out again without a connection', async () => {
    answer(REPORT);
    expect(await supplyReport('a1', new Date('2026-11-23T10:00:00Z'))).toEqual({ ok: true, report: REPORT, keptFrom: null });
    gone();
    expect(await supplyReport('a1')).toEqual({ ok: true, report: REPORT, keptFrom: '2026-11-23T10:00:00.000Z' });
    expect(await supplyZones()).toEqual({ zones: [{ zone: 'a1', name: 'Example zone' }], offline: 'there is no connection' });
  });
  it('says what is wrong when nothing was kept', async () => {
    gone();
    const outcome = await supplyReport('a1');
    expect(outcome.ok ? '' : outcome.message).toMatch(/cannot be reached: there is no connection\. No report of this zone was kept/);
    answer({ message: 'no' }, 500);
    const failed = await supplyReport('a1');
    expect(failed.ok ? '' : failed.message).toContain('it answered 500');
  });
  it('does not keep an answer that is not as documented', async () => {
    answer({ ...REPORT, rows: 'none' });
    const outcome = await supplyReport('a1');
    expect(outcome.ok ? '' : outcome.message).toContain('rows is not as documented');
    expect(await database.supply.count()).toBe(0);
  });
});
