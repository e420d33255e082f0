import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canRead, figureOf, plainFigure, readSenml, type Heard } from './senml';

const NOW = Date.UTC(2026, 10, 28, 12);
const heard = (data: unknown): readonly Heard[] => {
  const read = readSenml(data, NOW);
  if (!read.ok) throw new Error(read.error.message);
  return read.value.heard;
};
const refused = (data: unknown): string => {
  const read = readSenml(data, NOW);
  return read.ok ? 'taken' : read.error.message;
};

describe('a pack of sensor figures (RFC 8428; its examples recalled)', () => {
  it('of one figure: section 5.1.1', () => {
    expect(heard([{ n: 'urn:dev:ow:10e2073a01080063', u: 'Cel', v: 23.1 }])).toEqual([
      { name: 'urn:dev:ow:10e2073a01080063', unit: 'Cel', atMs: NOW, value: 23.1, sum: null },
    ]);
  });
  it('of several with a base name, time and unit: section 5.1.2, resolved as in 5.1.4', () => {
    const figures = heard([
      { bn: 'urn:dev:ow:10e2073a0108006:', bt: 1.276020076001e9, bu: 'A', bver: 5, n: 'voltage', u: 'V', v: 120.1 },
      { n: 'current', t: -5, v: 1.2 },
      { n: 'current', t: -4, v: 1.3 },
      { n: 'current', v: 1.7 },
    ]);
    expect(figures.map(({ name, unit, atMs, value }) => [name, unit, atMs, value])).toEqual([
      ['urn:dev:ow:10e2073a0108006:voltage', 'V', 1276020076001, 120.1],
      ['urn:dev:ow:10e2073a0108006:current', 'A', 1276020071001, 1.2],
      ['urn:dev:ow:10e2073a0108006:current', 'A', 1276020072001, 1.3],
      ['urn:dev:ow:10e2073a0108006:current', 'A', 1276020076001, 1.7],
    ]);
  });
  it('counts small times from now, and adds base values and sums', () => {
    expect(heard([{ bn: 'a:', bv: 10, bs: 100, n: 'x', u: 'l', v: 2, s: 5, t: -60 }])).toEqual([
      { name: 'a:x', unit: 'l', atMs: NOW - 60_000, value: 12, sum: 105 },
    ]);
  });
  it('leaves out what is no figure: a text, a switch, bytes, a base alone', () => {
    expect(heard([{ bn: 'a' }, { n: '1', vs: 'open' }, { n: '2', vb: true }, { n: '3', vd: 'aGk' }])).toEqual([]);
  });
  it('refuses what it must not guess, naming record and field', () => {
    expect(refused({ n: 'a', v: 1 })).toContain('a list of records');
    expect(refused([{ n: 'a', v: 'wet' }])).toMatch(/record 1, “v” is wet/);
    expect(
      refused([
        { n: 'a', v: 1 },
        { n: 'b', v: 2, calibrated_: true },
      ]),
    ).toMatch(/record 2, “calibrated_”/);
    expect(refused([{ n: 'a', v: 1, bver: 11 }])).toMatch(/“bver” is 11/);
    expect(refused([{ v: 1 }])).toMatch(/the name is missing/);
    expect(refused([{ n: '<b>tap</b>', v: 1 }])).toMatch(/the name is <b>/);
    expect(refused([{ n: 'a', v: null }])).toMatch(/record 1, “v”/);
  });
  it('leaves out a figure whose time cannot be, by name and reason, and keeps the rest', () => {
    const seconds = NOW / 1000;
    const read = readSenml(
      [
        { n: 'ms', t: seconds * 1e3, v: 1 },
        { n: 'us', t: seconds * 1e6, v: 1 },
        { n: 'ns', t: seconds * 1e9, v: 1 },
        { n: 'ahead', t: seconds + 90 * 86_400, v: 1 },
        { n: 'old', t: 315_532_800, v: 1 },
        { n: 'never', t: -1e15, v: 1 },
        { n: 'two-days', t: seconds + 2 * 86_400, v: 1 },
        { n: 'good', v: 2 },
      ],
      NOW,
    );
    if (!read.ok) throw new Error(read.error.message);
    expect(read.value.heard.map(({ name }) => name)).toEqual(['two-days', 'good']);
    expect(read.value.mistimed.map(({ says }) => /: (.+?)\. Accepted/.exec(says)![1])).toEqual([
      'counted in milliseconds',
      'counted in microseconds',
      'counted in nanoseconds',
      'ahead of this device’s clock by more than a month',
      'before 1990',
      'before 1990',
    ]);
    expect(read.value.mistimed[0]!.says).toContain('“ms” sends a time of 1795867200000');
  });
  it('never falls over, whatever is sent, and never gives a figure that is none', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (data) => {
        const read = readSenml(data, NOW);
        if (read.ok)
          for (const { value, atMs } of read.value.heard)
            expect([value === null || Number.isFinite(value), Number.isFinite(atMs)]).toEqual([true, true]);
        else expect(read.error.message.length).toBeGreaterThan(20);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('a figure in a reading', () => {
  const meter = { scale: { kind: 'factor', factor: 0.5 } } as const;
  const one = (unit: string, value: number, sum: number | null = null) => ({ unit, value, sum });
  it('is turned into what the instrument would have shown', () => {
    // 0.0622 S/m are 622 µS/cm, 311 ppm on a scale of 0.5.
    expect(figureOf(one('S/m', 0.0622), 'probe', meter)).toBeCloseTo(311, 9);
    expect(figureOf(one('uS/cm', 622), 'probe', { scale: { kind: 'conductivity' } })).toBeCloseTo(622, 9);
    expect(figureOf(one('ppm', 311), 'probe', meter)).toBe(311);
    expect(figureOf(one('ppm', 311), 'probe', { scale: { kind: 'conductivity' } })).toBeNull();
  });
  it('comes in bar, °C, L/h and L', () => {
    expect(figureOf(one('Pa', 405_000), 'pressure', null)).toBeCloseTo(4.05, 12);
    expect(figureOf(one('hPa', 4050), 'pressure', null)).toBeCloseTo(4.05, 12);
    expect(figureOf(one('K', 284.15), 'temperature', null)).toBeCloseTo(11, 9);
    expect(figureOf(one('m3/s', 1e-6), 'product', null)).toBeCloseTo(3.6, 12);
    expect(figureOf(one('l/s', 0.001), 'waste', null)).toBeCloseTo(3.6, 12);
    expect(figureOf(one('m3', 1.25), 'meter', null)).toBeCloseTo(1250, 9);
    // A flow that is added up is a total: 2 m³ have passed.
    expect(figureOf(one('m3/s', 1e-6, 2), 'meter', null)).toBeCloseTo(2000, 9);
    expect(figureOf(one('m3/s', 1e-6), 'meter', null)).toBeNull();
  });
  it('is nothing where it is another quantity', () => {
    expect(figureOf(one('Cel', 11), 'pressure', null)).toBeNull();
    expect(figureOf(one('V', 3), 'probe', meter)).toBeNull();
    expect(canRead('S/m')).toEqual(['probe']);
    expect(canRead('m3/s')).toEqual(['product', 'waste', 'meter']);
    expect(canRead('lux')).toEqual([]);
  });
  it('is shown in a unit people know', () => {
    expect(plainFigure({ unit: 'S/m', value: 0.0622 })).toEqual({ value: 622, unit: 'µS/cm' });
    expect(plainFigure({ unit: 'lux', value: 1 })).toBeNull();
  });
});
