import { readDocument, type SystemRecord } from '@yes-clear/core/file';
import { strengthLimit } from '@yes-clear/core/goal';
import { trackResin } from '@yes-clear/core/log';
import { solveTrain, tapWater } from '@yes-clear/core/train';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { annotationsOf, logTicks, timeTicks, namedApart } from '../kit/chart/house';
import { probeChart, resinChart } from './useLogSeries';

const NOW = '2026-11-23T10:00:00Z';
let record: SystemRecord;
beforeAll(() => {
  // The colours come from the style sheet; the figures do not.
  vi.stubGlobal('document', { documentElement: {} });
  vi.stubGlobal('getComputedStyle', () => ({ getPropertyValue: () => '#123456' }));
  const outcome = readDocument(readFileSync(new URL('../../../demo/tressimoor-coral-nursery.yesclear.json', import.meta.url), 'utf8'));
  if (!outcome.ok) throw new Error(outcome.error.message);
  record = outcome.records[0]!;
});

afterAll(() => vi.unstubAllGlobals());

describe('charts of the log', () => {
  it('draw each probe in µS/cm; a meter at 0 stands at half its step', () => {
    const { series, low, high, band } = probeChart(
      record.system,
      record.readings,
      strengthLimit(record.system.goal, record.system.units.ppmFactor),
    );
    expect(series.map((line) => line.label)).toEqual(['tap', 'after membrane', 'after resin']);
    expect(series[0]!.points.at(-1)!.y).toBe(598);
    expect(series[2]!.points.at(-1)!.y).toBe(1);
    expect(band).toEqual({ from: low, to: 2 });
    expect(Math.log10(high / low) % 1).toBeCloseTo(0, 9);
  });
  it('draw the resin down to today and a fan to its end', () => {
    const water = tapWater(record.system.source, record.system.instruments);
    const solved = water.ok ? solveTrain(record.system.train, record.system.source, water.value.water) : water;
    if (!solved.ok) throw new Error(solved.error.message);
    const tracking = trackResin(record.system, record.readings, solved.value, NOW)!;
    const { series, from, until } = resinChart(tracking, NOW);
    expect(series.map((line) => line.label)).toEqual(['at most', 'at least', 'Resin left', 'late', 'early', 'Expected']);
    const today = Date.parse(NOW);
    expect(from).toBeLessThan(Date.parse(tracking.fittedAt));
    expect(until).toBeGreaterThan(today + tracking.daysLeft!.p90 * 86_400_000);
    // Both edges of the fan run over the same moments and end at zero.
    expect(series[3]!.points.map((p) => p.x)).toEqual(series[4]!.points.map((p) => p.x));
    expect([series[3]!.points.at(-1)!.y, series[4]!.points.at(-1)!.y]).toEqual([0, 0]);
    series[3]!.points.forEach((point, i) => expect(point.y).toBeGreaterThanOrEqual(series[4]!.points[i]!.y));
  });
});

describe('the house style', () => {
  it('ticks decades and first days of months', () => {
    expect(logTicks(0.1, 1000).map((tick) => tick.value)).toEqual([0.1, 1, 10, 100, 1000]);
    const ticks = timeTicks(Date.parse('2026-04-10T00:00:00Z'), Date.parse('2026-07-02T00:00:00Z'));
    expect(ticks.map((tick) => new Date(tick.value).toISOString().slice(0, 10))).toEqual(['2026-05-01', '2026-06-01', '2026-07-01']);
    expect(timeTicks(Date.parse('2026-04-10T00:00:00Z'), Date.parse('2026-04-12T00:00:00Z'), 5).map(({ text }) => text)).toEqual([
      '10 Apr',
      '12:00',
      '11 Apr',
      '12:00',
      '12 Apr',
    ]);
  });
  it('names of moments that would touch give way to the newest', () => {
    const marks = [0, 50, 52, 55, 90].map((at) => ({ at, text: `m${at}` }));
    expect(namedApart(marks, 0, 100).map(({ at, text }) => [at, text])).toEqual([
      [0, 'm0'],
      [50, ''],
      [52, ''],
      [55, 'm55'],
      [90, 'm90'],
    ]);
  });
  it('keeps a band inside the axis', () => {
    const colours = { ink: '', muted: '', hair: '', goal: '', bad: '', action: '', resin: '', font: { family: '', size: 13 } };
    expect(annotationsOf(colours, 0.1, 1000, { from: 0, to: 5000 }, null)).toMatchObject({ band: { yMin: 0.1, yMax: 1000 } });
    expect(annotationsOf(colours, 0.1, 1000, null, null)).toEqual({});
  });
});
