import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading } from '../file';
import { METRIC_UNITS } from '../quantity';
import { systemFromTemplate } from '../template';
import { expectNear } from '../testing/close';
import { slipsOf } from './slips';

const made = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const system = { ...made, units: { ...METRIC_UNITS, strength: 'ppm' as const } };
const WEEK = 7 * 86_400_000;
const start = Date.parse('2026-06-01T08:00:00Z');
const reading = (week: number, shown: readonly number[], change: Partial<Reading> = {}): Reading => ({
  id: `r${week}`,
  systemId: 's',
  at: new Date(start + week * WEEK).toISOString(),
  values: shown.map((value, i) => ({ probeId: system.train.probes[i]!.id, instrumentId: 'meter', shown: value })),
  pressureBar: 4.1,
  temperatureC: 12,
  productLPerH: 8,
  wasteLPerH: 36,
  meterL: 1000 + 140 * week,
  ...NOTHING_SAID,
  ...change,
});
const log = [311, 305, 318, 309, 300, 314].map((tap, week) => reading(week, [tap, 6, 0]));
const plain = (text: string | undefined): string => (text ?? '').replaceAll('\u202f', ' ');
const asked = (shown: readonly number[], change: Partial<Reading> = {}) => slipsOf(system, reading(6, shown, change), log);
const [TAP, MEMBRANE, RESIN] = system.train.probes.map(({ id }) => `probe:${id}`);

describe('a figure that looks like a slip', () => {
  it('L39: a tap twice what is expected was typed in the other unit, one a quarter up has changed', () => {
    const about260 = [268, 251, 262, 247, 274, 258].map((tap, week) => reading(week, [tap, 6, 0]));
    const of = (tap: number) => slipsOf(system, reading(6, [tap, 6, 0]), about260).filter(({ field }) => field === TAP);
    const meant = (tap: number): number | undefined => of(tap)[0]?.probably?.reading.values[0]?.shown;
    expect([meant(520), meant(480)]).toEqual([260, 240]);
    expect([of(330), of(300)]).toEqual([[], []]);
  });
  it('one like those before it is not asked about', () => expect(asked([308, 6, 0])).toEqual([]));
  it.each<[string, readonly number[], Partial<Reading>, string | undefined, string]>([
    ['a digit twice', [3110, 6, 0], {}, TAP, '311 ppm'],
    ['a digit left out', [31, 6, 0], {}, TAP, '310 ppm'],
    ['two digits changed', [131, 6, 0], {}, TAP, '311 ppm'],
    ['a point left out', [308, 60, 0], {}, MEMBRANE, '6 ppm'],
    ['°F for °C', [308, 6, 0], { temperatureC: 54 }, 'temperatureC', '12.2 °C'],
    ['psi for bar', [308, 6, 0], { pressureBar: 59 }, 'pressureBar', '4.07 bar'],
    ['ten times the product', [308, 6, 0], { productLPerH: 82 }, 'productLPerH', '8.2 L/h'],
    ['a meter with a digit too few', [308, 6, 0], { meterL: 184 }, 'meterL', '1840 L'],
  ])('%s', (_, shown, change, field, probably) => {
    const doubts = asked(shown, change);
    expect(doubts.map((doubt) => doubt.field)).toEqual([field]);
    expect(plain(doubts[0]!.probably?.text).replace(',', '')).toBe(probably);
  });
  it('two probes in each other’s place are changed together', () => {
    const [doubt] = asked([6, 311, 0]);
    expect(plain(doubt!.says)).toContain('usually it is the other way round');
    expect(doubt!.probably!.reading.values.map(({ shown }) => shown)).toEqual([311, 6, 0]);
  });
  it('product and waste in each other’s place too', () => {
    const [doubt] = asked([308, 6, 0], { productLPerH: 36, wasteLPerH: 8 });
    expect(doubt!.probably!.reading).toMatchObject({ productLPerH: 8, wasteLPerH: 36 });
  });
  it('a water meter does not run backwards; the leading digits may have been left out', () => {
    const [doubt] = asked([308, 6, 0], { meterL: 52 });
    expect(plain(doubt!.says)).toContain('less than the');
    expect(doubt!.probably!.reading.meterL!).toBeGreaterThanOrEqual(1700);
  });
  it('a meter that leaps ahead is asked about', () =>
    expect(asked([308, 6, 0], { meterL: 17_400 }).map(({ field }) => field)).toEqual(['meterL']));
  it('what was confirmed is not asked about again, and the rest still is', () => {
    const doubts = asked([3110, 6, 0], { temperatureC: 54, confirmed: [TAP!] });
    expect(doubts.map(({ field }) => field)).toEqual(['temperatureC']);
  });
  it('the rise of a spent resin is news, not a slip', () => {
    expect(asked([308, 6, 3])).toEqual([]);
    expect(asked([308, 6, 12]).filter(({ field }) => field === RESIN)).toEqual([]);
  });
  it('a cold winter and a warm summer are asked about only beyond what the source ever has', () => {
    expect(asked([308, 6, 0], { temperatureC: 3 })).toEqual([]);
    expect(asked([308, 6, 0], { temperatureC: 19 })).toEqual([]);
    expect(asked([308, 6, 0], { temperatureC: 35 })).toHaveLength(1);
  });
  it('the same figures in the same hour are one reading', () => {
    const twice = slipsOf(system, { ...log[5]!, id: 'again' }, log);
    expect(twice.map(({ field }) => field)).toEqual(['at']);
  });
  it('before there is a log only what the plan knows is asked about', () => {
    // What the supply's year is planned to be is known from the start.
    expect(slipsOf(system, reading(0, [3110, 6, 0]), []).map(({ field }) => field)).toEqual([]);
    expect(slipsOf(system, reading(0, [300, 6, 0], { pressureBar: 59 }), []).map(({ field }) => field)).toEqual(['pressureBar']);
    expectNear(slipsOf(system, reading(0, [300, 6, 0], { pressureBar: 59 }), [])[0]!.probably!.reading.pressureBar!, 4.07, 0.01);
  });
});
