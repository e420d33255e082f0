import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading } from '../file';
import { GALLON_UNITS, METRIC_UNITS } from '../quantity';
import { systemFromTemplate } from '../template';
import { edited, lineOf } from './lineOf';
import { parseQuickLine } from './quickline';

const system = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const { probes } = system.train;
const parse = (line: string) => parseQuickLine(line, system);
const plain: Reading = {
  id: 'r',
  systemId: 's',
  at: '2026-06-01T08:00:00Z',
  values: [
    { probeId: probes[0]!.id, instrumentId: 'meter', shown: 311 },
    { probeId: probes[2]!.id, instrumentId: 'meter', shown: 0 },
  ],
  pressureBar: 4.0678,
  temperatureC: 11.25,
  productLPerH: 24.6,
  wasteLPerH: 90.123456,
  meterL: 5230.4,
  ...NOTHING_SAID,
  note: 'filter changed',
};

describe('a reading as a line', () => {
  it('reads as it would be typed', () =>
    expect(lineOf(plain, { ...system, units: METRIC_UNITS })).toBe('311 - 0 4.07bar 11.3C 410/1502mL 5230L filter changed'));
  it('edited without a change, it keeps every digit it had', () => {
    const line = lineOf(plain, { ...system, units: METRIC_UNITS });
    expect(edited(plain, parse(line).reading, parse(line).reading, system.instruments)).toEqual(plain);
  });
  it('one figure typed anew changes alone', () => {
    const line = lineOf(plain, { ...system, units: METRIC_UNITS });
    const after = edited(plain, parse(line).reading, parse(line.replace('4.07bar', '4.5bar')).reading, system.instruments);
    expect(after).toEqual({ ...plain, pressureBar: 4.5 });
  });
  it('a second meter stays; a figure typed anew is no longer confirmed', () => {
    const second = { probeId: probes[0]!.id, instrumentId: 'meter', shown: 300 };
    const reading = { ...plain, values: [...plain.values, second], confirmed: [`probe:${probes[0]!.id}`, 'meterL'] };
    const line = lineOf(reading, { ...system, units: METRIC_UNITS });
    const after = edited(reading, parse(line).reading, parse(line.replace('311', '301')).reading, system.instruments);
    expect(after.values.map(({ shown }) => shown)).toEqual([301, 0, 300]);
    expect(after.confirmed).toEqual(['meterL']);
  });
  it('further gauges and flow meters follow the first of their kind, in the order of the system', () => {
    const gauges = [
      { id: 'c', name: 'Concentrate', at: 'concentrate' },
      { id: 'r', name: 'Recycle flow', at: 'recycle' },
      { id: 'd', name: 'Distribution', at: 'distribution' },
      { id: 'l', name: 'Loop flow', at: 'loop' },
    ] as const;
    const skid = { ...system, train: { ...system.train, gauges: [...gauges] } };
    const read = parseQuickLine('311 12bar 9bar 3bar 410/1500ml 1200 L/h 900 L/h', skid);
    expect(read.problem).toBeNull();
    expect(read.reading).toMatchObject({ pressureBar: 12, productLPerH: 24.6 });
    const also = [
      { gaugeId: 'c', value: 9 },
      { gaugeId: 'd', value: 3 },
      { gaugeId: 'r', value: 1200 },
      { gaugeId: 'l', value: 900 },
    ];
    expect(read.reading.also).toEqual(also);
    expect(read.spelled).toContain('concentrate 9');
    // What was passed over holds its place.
    const gap = { ...plain, pressureBar: null, also: [also[1]!, also[3]!] };
    const line = lineOf(gap, { ...skid, units: METRIC_UNITS });
    expect(line).toContain('-bar -bar 3.00bar');
    expect(parseQuickLine(line, skid).reading.also).toEqual(gap.also);
    expect(edited(gap, parseQuickLine(line, skid).reading, parseQuickLine(line, skid).reading, system.instruments)).toEqual(gap);
  });
  it('a second pressure without a second gauge is told, not dropped', () =>
    expect(parse('311 4bar 5bar').problem).toContain('Place another gauge'));
  it('any reading can be typed again from its line, in any units', () => {
    const maybe = (max: number) => fc.option(fc.double({ min: 0.5, max, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 2000 }), { maxLength: 3 }),
        maybe(60),
        maybe(35),
        maybe(500),
        maybe(500),
        maybe(90_000),
        fc.constantFrom('', 'pre-filter brown', 'after a flush'),
        fc.constantFrom(METRIC_UNITS, GALLON_UNITS),
        (shown, pressureBar, temperatureC, productLPerH, wasteLPerH, meterL, note, units) => {
          const values = shown.map((value, i) => ({ probeId: probes[i]!.id, instrumentId: 'meter', shown: value }));
          const reading: Reading = { ...plain, values, pressureBar, temperatureC, productLPerH, wasteLPerH, meterL, note };
          const line = lineOf(reading, { ...system, units });
          const read = parse(line);
          if (values.length > 0 || [pressureBar, temperatureC, productLPerH, wasteLPerH, meterL].some((one) => one !== null))
            expect(read.problem, line).toBeNull();
          expect(read.reading.note).toBe(note);
          expect(edited(reading, read.reading, read.reading, system.instruments), line).toEqual(reading);
        },
      ),
      { numRuns: 400 },
    );
  });
});
