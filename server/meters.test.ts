import { mkdtemp, writeFile } from 'node:fs/promises';
import { createServer as createHttp } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { readSenml, type Heard } from '@yes-clear/core/recording';
import { benchAt, TICK_MS } from './bench/bench';
import { SENSORS } from './bench/sensors';
import { litresAt, runningAt } from './bench/rig';
import { createServer } from './app';
import { gatewayRoutes } from './meters';

let dist = '';
beforeAll(async () => {
  dist = await mkdtemp(join(tmpdir(), 'yes-clear-'));
  await writeFile(join(dist, 'index.html'), '');
});
const closing: (() => void)[] = [];
afterEach(() => closing.splice(0).forEach((close) => close()));
async function started(meters: string | null = null): Promise<string> {
  const listening = createServer({ dist, demo: false, meters }).listen(0, '127.0.0.1');
  await new Promise((ready) => listening.once('listening', ready));
  closing.push(() => {
    listening.closeAllConnections();
    listening.close();
  });
  return `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
}

interface Event {
  readonly id: number;
  readonly name: string;
  readonly data: unknown;
}
/** Events of a stream until there are so many. */
async function events(address: string, count: number, headers: Record<string, string> = {}): Promise<Event[]> {
  const stop = new AbortController();
  const response = await fetch(address, { headers, signal: stop.signal });
  expect(response.headers.get('content-type')).toContain('text/event-stream');
  const found: Event[] = [];
  let text = '';
  for await (const chunk of response.body!.pipeThrough(new TextDecoderStream())) {
    text += chunk;
    for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
      const lines = new Map(
        text
          .slice(0, end)
          .split('\n')
          .map((line) => [line.slice(0, line.indexOf(':')), line.slice(line.indexOf(':') + 2)]),
      );
      text = text.slice(end + 2);
      if (lines.has('event')) found.push({ id: Number(lines.get('id')), name: lines.get('event')!, data: JSON.parse(lines.get('data')!) });
    }
    if (found.length >= count) break;
  }
  stop.abort();
  return found.slice(0, count);
}
const figures = (found: readonly Event[]): Heard[] =>
  found.flatMap(({ data }) => {
    const read = readSenml(data, Date.now());
    if (!read.ok) throw new Error(read.error.message);
    return [...read.value.heard];
  });

describe('the simulated bench', () => {
  const noon = Date.UTC(2026, 6, 15, 14);
  const at = (ms: number, name: string, faults: Parameters<typeof benchAt>[1] = []): number | undefined =>
    benchAt(ms, faults).find(({ n }) => n === `bench:house:${name}`)?.v;
  /** Of an hour of looks the middle: what one meter says but for its scatter. */
  const middle = (from: number, name: string, faults: Parameters<typeof benchAt>[1] = []): number => {
    const all = Array.from({ length: 60 }, (_, i) => at(from + i * TICK_MS, name, faults)).filter((one) => one !== undefined);
    return all.sort((a, b) => a - b)[all.length >> 1]!;
  };
  it('says the same of a moment whenever it is asked', () => {
    expect(benchAt(noon)).toEqual(benchAt(noon));
    expect(benchAt(noon)).not.toEqual(benchAt(noon + TICK_MS));
  });
  it('makes water as the solver has it: warm water more, and the membrane holds salt back', () => {
    const [summer, winter] = [middle(noon, 'product'), middle(Date.UTC(2026, 1, 10, 14), 'product')];
    expect(runningAt(noon).running).toBe(true);
    expect(summer / winter).toBeGreaterThan(1.15);
    expect(1 - middle(noon, 'membrane') / middle(noon, 'tap')).toBeGreaterThan(0.96);
  });
  it('lets salt creep through at rest, and the meter stands still', () => {
    const night = Date.UTC(2026, 6, 15, 4);
    expect(runningAt(night).running).toBe(false);
    expect(middle(night, 'membrane') / middle(noon, 'membrane')).toBeGreaterThan(3);
    expect(at(night, 'product')).toBe(0);
    expect(litresAt(night + 3_600_000)).toBe(litresAt(night));
    // In an hour of a run as many litres as its flow has.
    expect((litresAt(noon + 1_800_000) - litresAt(noon)) / 0.5 / (middle(noon, 'product') * 3.6e6)).toBeCloseTo(1, 1);
  });
  it('has faults that show where they would', () => {
    const set = (fault: Parameters<typeof benchAt>[1] extends readonly (infer F)[] | undefined ? F : never) => [fault];
    const fault = (name: string, sensor: string | null = null) => set({ fault: name, sensor, sinceMs: 0 } as never);
    expect(middle(noon, 'membrane', fault('membraneHole')) / middle(noon, 'membrane')).toBeGreaterThan(2.2);
    expect(middle(noon, 'product', fault('filterClogged')) / middle(noon, 'product')).toBeLessThan(0.85);
    expect(middle(noon, 'resin', fault('resinSpent')) / middle(noon, 'resin')).toBeGreaterThan(10);
    expect(middle(noon, 'tap', fault('meterHigh', 'bench:house:tap')) / middle(noon, 'tap')).toBeCloseTo(4 / 3, 2);
    expect(at(noon, 'tap', fault('silent', 'bench:house:tap'))).toBeUndefined();
    expect(middle(noon, 'product', fault('waterOff'))).toBe(0);
  });
});

describe('meters on the air', () => {
  it('are listed with their units', async () => {
    const listed = (await (await fetch(`${await started()}/api/meters`)).json()) as { simulated: boolean; sensors: unknown[] };
    expect([listed.simulated, listed.sensors]).toEqual([true, JSON.parse(JSON.stringify(SENSORS))]);
  });
  it('are streamed, and a browser that was away is given all it missed, once', async () => {
    const origin = await started();
    const from = Math.floor(Date.now() / TICK_MS) * TICK_MS - 100 * TICK_MS;
    const found = await events(`${origin}/api/meters/stream?after=${from}`, 2);
    const times = [...new Set(figures(found).map(({ atMs }) => atMs))];
    expect(times.slice(0, 100)).toEqual(Array.from({ length: 100 }, (_, i) => from + (i + 1) * TICK_MS));
    expect(found[1]!.id).toBe(times.at(-1));
    // The browser's own word goes before the address.
    const [resumed] = await events(`${origin}/api/meters/stream?after=${from}`, 1, { 'Last-Event-ID': String(from + 50 * TICK_MS) });
    expect(figures([resumed!])[0]!.atMs).toBe(from + 51 * TICK_MS);
  });
  it('say what they have forgotten', async () => {
    const [gap, first] = await events(`${await started()}/api/meters/stream?after=1000`, 2);
    expect(gap).toMatchObject({ name: 'gap', data: { from: 1000 } });
    expect(figures([first!])[0]!.atMs - (gap!.data as { until: number }).until).toBeLessThanOrEqual(2 * TICK_MS);
  });
  it('of another server are handed on', async () => {
    const gateway = await started();
    const origin = await started(`${gateway}/api/meters/`);
    expect(await (await fetch(`${origin}/api/meters`)).json()).toMatchObject({ name: 'Simulated bench' });
    const from = Math.floor(Date.now() / TICK_MS) * TICK_MS - 3 * TICK_MS;
    expect(figures(await events(`${origin}/api/meters/stream?after=${from}`, 1)).at(-1)!.atMs).toBe(from + 3 * TICK_MS);
    closing.shift()!();
    const away = await fetch(`${origin}/api/meters`);
    expect([away.status, ((await away.json()) as { message: string }).message]).toEqual([502, expect.stringContaining('do not answer')]);
  });
  it('of a gateway that hangs are given up: before it answers, and in the midst of its stream', async () => {
    const gateway = createHttp((request, response) => {
      if (request.url !== '/stream') return;
      response.writeHead(200, { 'Content-Type': 'text/event-stream' });
      response.write('id: 1\nevent: senml\ndata: []\n\n');
    }).listen(0, '127.0.0.1');
    await new Promise((ready) => gateway.once('listening', ready));
    closing.push(() => gateway.closeAllConnections());
    const app = express().use(gatewayRoutes(`http://127.0.0.1:${(gateway.address() as AddressInfo).port}`, { answers: 2000, silent: 800 }));
    const listening = app.listen(0, '127.0.0.1');
    await new Promise((ready) => listening.once('listening', ready));
    closing.push(() => listening.closeAllConnections());
    const origin = `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
    const late = await fetch(`${origin}/`);
    expect([late.status, await late.text()]).toEqual([502, expect.stringContaining('do not answer')]);
    const text = await (await fetch(`${origin}/stream`)).text();
    expect(text).toContain('event: senml');
    expect(text).toContain('event: beat');
  });
  it('take faults, and say which are known', async () => {
    const origin = await started();
    const post = async (body: unknown): Promise<[number, string]> => {
      const answer = await fetch(`${origin}/api/meters/faults`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      return [answer.status, await answer.text()];
    };
    expect((await post({ fault: 'silent', sensor: 'bench:house:tap' }))[0]).toBe(200);
    expect(await post({ fault: 'silent' })).toEqual([400, expect.stringContaining('a sensor with meterHigh, frozen and silent')]);
    expect(await post({ fault: 'silent', sensor: 'nobody' })).toEqual([400, expect.stringContaining('bench:house:tap')]);
    expect(await post({ fault: 'flood' })).toEqual([400, expect.stringContaining('filterClogged')]);
    const [look] = await events(`${origin}/api/meters/stream`, 1);
    expect(figures([look!]).some(({ name }) => name === 'bench:house:tap')).toBe(false);
    await fetch(`${origin}/api/meters/faults`, { method: 'DELETE' });
    expect(((await (await fetch(`${origin}/api/meters/faults`)).json()) as { set: unknown[] }).set).toEqual([]);
  });
});
