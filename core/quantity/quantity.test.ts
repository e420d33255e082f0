import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectWithin, value } from '../testing/close';
import { DIMENSIONS, dimensionSpec, fromCanonical, toCanonical, unitBySymbol, type Dimension } from './units';
import { formatForEditing, formatQuantity, formatStrength, roundForReading } from './format';
import {
  GALLON_UNITS,
  METRIC_UNITS,
  UNIT_CHOICES,
  UNIT_PRESETS,
  hintUnit,
  presetOf,
  shownUnit,
  withPreset,
  type Measured,
  type UnitPreference,
} from './preference';
import { unitDoubt } from './meant';
import { parseQuantity } from './parse';
import { readNumber } from './number';

const trade: UnitPreference = { ...GALLON_UNITS, hardness: '°dH' };
const metric = METRIC_UNITS;
const parsed = (text: string, dimension: Dimension, defaultUnit?: string): number =>
  value(parseQuantity(text, dimension, defaultUnit ? { defaultUnit } : {})).value;

describe('typed quantities', () => {
  // Exact unit definitions: international yard and pound agreement 1959; US and imperial gallons.
  it.each<[string, Dimension, number]>([
    ['61 psi', 'pressureBar', 61 * 0.06894757293168],
    ['4,2 bar', 'pressureBar', 4.2],
    ['400kPa', 'pressureBar', 4],
    ['1 1/4 cup', 'volumeL', 1.25 * 0.2365882365],
    ['¾ cup', 'volumeL', 0.75 * 0.2365882365],
    ['5 us cups', 'volumeL', 1.1829411825],
    ['330 ml', 'volumeL', 0.33],
    ['0,33 l', 'volumeL', 0.33],
    ['1 metric cup', 'volumeL', 0.25],
    ['2 fl. oz.', 'volumeL', 2 * 0.0295735295625],
    ['7 dH', 'hardnessMgL', 7 * 17.848],
    ['12 gpg', 'hardnessMgL', 12 * 17.1181],
    ['21 °fH', 'hardnessMgL', 210],
    ['10 °e', 'hardnessMgL', 142.538],
    ['55 F', 'temperatureC', 12.7778],
    ['−1.5 °C', 'temperatureC', Number.NaN],
    ['75 gpd', 'flowLPerH', 11.8294],
    ['1.2 mS/cm', 'conductivityUScm', 1200],
    ['18.18 MΩ·cm', 'conductivityUScm', 0.055006],
    ['310 ppm', 'conductivityUScm', 620],
    ['1.234,5 l', 'volumeL', 1234.5],
    ['35 000', 'conductivityUScm', 35_000],
    ['35\u202f000 µS/cm', 'conductivityUScm', 35_000],
    ['1 250,5 l', 'volumeL', 1250.5],
    ['1-3/8 cups', 'volumeL', 1.375 * 0.2365882365],
    ['1⅜ cups', 'volumeL', 1.375 * 0.2365882365],
    ['1/4 cup', 'volumeL', 0.25 * 0.2365882365],
    ['1.2m3', 'volumeL', 1200],
    ['12 grains/gal', 'hardnessMgL', 12 * 17.1181],
    ['4,3', 'pressureBar', 4.3],
    ['380 ppm', 'conductivityUScm', 760],
    ['7 g/L', 'concentrationMgL', 7000],
    ['4.137', 'pressureBar', 4.137],
    ['1,234.5 l', 'volumeL', 1234.5],
  ])('%s as %s', (text, dimension, expected) => {
    const outcome = parseQuantity(text, dimension);
    if (Number.isNaN(expected)) expect(outcome.ok).toBe(false);
    else expectWithin(value(outcome).value, expected, 5e-5, text);
  });

  it('takes a plain number in the unit of its field', () => {
    expect(parsed('60', 'pressureBar', 'psi')).toBeCloseTo(4.13685, 4);
    expect(parsed('60', 'pressureBar')).toBe(60);
  });

  it.each([
    ['', 'is empty'],
    ['abc', 'does not begin with a number'],
    ['5 furlongs', 'is not a unit known here'],
    ['-3 bar', 'accepted is 0 to 100 bar'],
    ['5000 psi', 'accepted is 0 to 1450 psi'],
    ['1,500 bar', 'can mean 1500 or 1.5'],
    ['35.000', 'can mean 35000 or 35'],
    ['1.500 bar', 'can mean 1500 or 1.5'],
    ['1.2.3 bar', 'does not begin with a number'],
  ])('refuses “%s” naming the field and what is accepted', (text, part) => {
    const outcome = parseQuantity(text, 'pressureBar', { field: 'Line pressure' });
    expect(outcome.ok).toBe(false);
    if (!outcome.ok) {
      expect(outcome.error.field).toBe('Line pressure');
      expect(outcome.error.value).toBe(text);
      expect(outcome.error.message).toContain('Line pressure');
      expect(outcome.error.message).toContain(part);
    }
  });

  it('refuses a resistivity of zero, which has no conductivity', () => {
    expect(parseQuantity('0 MΩ·cm', 'conductivityUScm').ok).toBe(false);
  });

  it('reads mixed fractions and keeps what follows', () => {
    expect(readNumber('1 1/2 cup')).toEqual({ kind: 'number', value: 1.5, rest: ' cup' });
    expect(readNumber('1/0')).toEqual({ kind: 'none' });
  });

  it('never throws on any text, and never yields NaN', () => {
    const dimensions = Object.keys(DIMENSIONS) as Dimension[];
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.stringMatching(/^[-+0-9 ,./½¼]{0,8} ?[a-zA-Zµ°/³·]{0,8}$/)),
        fc.constantFrom(...dimensions),
        (text, dimension) => {
          const outcome = parseQuantity(text, dimension);
          if (outcome.ok) expect(Number.isFinite(outcome.value.value)).toBe(true);
          else expect(outcome.error.message.length).toBeGreaterThan(0);
          expect(JSON.parse(JSON.stringify(outcome))).toEqual(outcome);
        },
      ),
      { numRuns: 3000 },
    );
  });

  it('round-trips what it formats for editing, within the digits shown', () => {
    const cases = (Object.keys(DIMENSIONS) as Dimension[]).flatMap((dimension) =>
      dimensionSpec(dimension)
        .units.filter((unit) => unit.symbol !== '')
        .map((unit) => ({ dimension, symbol: unit.symbol })),
    );
    fc.assert(
      fc.property(fc.constantFrom(...cases), fc.double({ min: 0.002, max: 0.98, noNaN: true }), ({ dimension, symbol }, share) => {
        const spec = dimensionSpec(dimension);
        const stored = spec.low + share * (spec.high - spec.low);
        const unit = spec.units.find((candidate) => candidate.symbol === symbol)!;
        const again = parseQuantity(`${formatForEditing(stored, dimension, symbol)} ${symbol}`, dimension);
        expectWithin(fromCanonical(value(again).value, unit), fromCanonical(stored, unit), 6e-4, symbol);
      }),
    );
  });
});

describe('units of the water chapter', () => {
  // Rows 1–5: from molar masses and the definitions of grain, gallon and pound-force.
  it.each<[number, Dimension, string, number]>([
    [250, 'hardnessMgL', '°dH', 14.007],
    [250, 'hardnessMgL', '°fH', 25],
    [250, 'hardnessMgL', '°e', 17.539],
    [250, 'hardnessMgL', 'gpg', 14.604],
    [250, 'hardnessMgL', 'mmol/L', 2.4978],
    [250, 'hardnessMgL', 'meq/L', 4.9957],
    [11.8294, 'flowLPerH', 'gal/day', 75],
    [5, 'temperatureC', '°F', 41],
  ])('%s as %s in %s is %s', (stored, dimension, symbol, expected) => {
    const unit = dimensionSpec(dimension).units.find((candidate) => candidate.symbol === symbol)!;
    expectWithin(fromCanonical(stored, unit), expected, 1e-3);
  });
});

describe('formatted quantities', () => {
  it.each<[number, Dimension, string, string]>([
    [4.2058, 'pressureBar', '61 psi', '4.21 bar'],
    [620, 'conductivityUScm', '310 ppm', '620 µS/cm'],
    [0.0877, 'conductivityUScm', '0 ppm', '0.088 µS/cm'],
    [12, 'temperatureC', '54 °F', '12 °C'],
    [178.48, 'hardnessMgL', '10 °dH', '178 mg/L CaCO₃'],
    [0.186, 'fraction', '18.6 %', '18.6 %'],
  ])('%s %s is %s or %s', (stored, dimension, inTrade, inMetric) => {
    const thin = (text: string): string => text.replaceAll('\u202f', ' ');
    expect(thin(formatQuantity(stored, dimension, trade).text)).toBe(inTrade);
    expect(thin(formatQuantity(stored, dimension, metric).text)).toBe(inMetric);
  });

  it('shows no NaN', () => {
    expect(formatQuantity(Number.NaN, 'pressureBar', metric).text).toBe('–');
    expect(formatForEditing(Number.NaN, 'pressureBar', 'bar')).toBe('');
  });

  it.each([
    [0, '0'],
    [0.0877, '0.088'],
    [9.96, '10'],
    [12.34, '12.3'],
    [123.4, '123'],
    [12345, '12\u202f300'],
    [-3.456, '-3.5'],
  ])('rounds %s to %s', (number, text) => {
    expect(roundForReading(number)).toBe(text);
  });
});

// Section 15 of the handbook's water chapter, from exact definitions and molar masses.
describe('check values of units', () => {
  const inUnit = (value: number, dimension: Dimension, symbol: string): number => {
    const unit = unitBySymbol(dimension, symbol)!;
    return toCanonical(value, unit);
  };
  it('1–2: one degree of each hardness scale in mg/L as CaCO3', () => {
    for (const [symbol, mgL] of [
      ['°dH', 17.848],
      ['°fH', 10],
      ['gpg', 17.1181],
      ['°e', 14.2538],
    ] as const)
      expect(Math.abs(inUnit(1, 'hardnessMgL', symbol) - mgL)).toBeLessThan(0.002);
  });
  it('3: 250 mg/L as CaCO3 in every scale', () => {
    for (const [symbol, shown] of [
      ['°dH', 14.007],
      ['°fH', 25],
      ['°e', 17.539],
      ['gpg', 14.604],
      ['mmol/L', 2.4978],
      ['meq/L', 4.9957],
    ] as const)
      expect(Math.abs(250 / inUnit(1, 'hardnessMgL', symbol) / shown - 1), symbol).toBeLessThan(1e-3);
  });
  it('5: flow, pressure, temperature, volume and resistivity', () => {
    const rows = [
      [inUnit(75, 'flowLPerH', 'gal/day'), 11.8294],
      [inUnit(60, 'pressureBar', 'psi'), 4.13685],
      [inUnit(41, 'temperatureC', '°F'), 5],
      [inUnit(5, 'volumeL', 'cup') * 1000, 1182.94],
      [inUnit(18.18, 'conductivityUScm', 'MΩ·cm'), 0.05501],
    ] as const;
    for (const [got, expected] of rows) expect(Math.abs(got / expected - 1)).toBeLessThan(5e-4);
  });
});

describe('which unit was meant', () => {
  const lines = { low: 1.5, high: 8.5, holder: 'Lines have' };
  const asked = (typed: string, unit = 'bar') => unitDoubt(typed, 'pressureBar', unit, lines);
  it('is asked where a figure would be usual in another', () => {
    expect(asked('60')).toEqual({ says: '60 bar? Lines have 1.5 to 8.5\u202fbar.', choices: ['60 psi'] });
    expect(asked('4', 'psi')?.choices).toEqual(['4 bar', '4 atm']);
    expect(asked('400')?.choices).toEqual(['400 kPa']);
  });
  it('is not asked of a usual figure, of one with its unit, of one usual in none, or of no figure', () => {
    for (const typed of ['4', '4,2', '60 bar', '60 psi', '2000', '', 'soft']) expect(asked(typed)).toBeNull();
  });
  it('is asked of a temperature', () =>
    expect(unitDoubt('59', 'temperatureC', '°C', { low: 1, high: 35, holder: 'Cold water is at' })?.choices).toEqual(['59 °F']));
});

describe('units each for itself', () => {
  it('a preset is known by its units, and leaves hardness and the meter alone', () => {
    for (const { key } of UNIT_PRESETS) expect(presetOf(withPreset({ ...METRIC_UNITS, hardness: 'gpg', ppmFactor: 0.7 }, key))).toBe(key);
    expect(withPreset({ ...METRIC_UNITS, hardness: 'gpg', ppmFactor: 0.7 }, 'gallons')).toMatchObject({
      hardness: 'gpg',
      ppmFactor: 0.7,
      pressure: 'psi',
    });
    expect(presetOf({ ...METRIC_UNITS, pressure: 'psi' })).toBeNull();
  });
  it('every unit that can be chosen is one a field understands, and is shown in it', () => {
    const of = {
      strength: 'conductivityUScm',
      pressure: 'pressureBar',
      temperature: 'temperatureC',
      volume: 'volumeL',
      flow: 'flowLPerH',
      length: 'lengthMm',
      hardness: 'hardnessMgL',
    } as const;
    for (const [measured, dimension] of Object.entries(of))
      for (const unit of UNIT_CHOICES[measured as Measured]) {
        expect(unitBySymbol(dimension, unit)?.symbol).toBe(unit);
        const shown = shownUnit(dimension, { ...METRIC_UNITS, [measured]: unit });
        // Fields and columns stay in one unit; only a water purer than 1 µS/cm is told in MΩ·cm.
        expect(shown).toBe(unit === 'MΩ·cm' ? 'µS/cm' : unit);
      }
  });
  it('pressure in psi beside litres and degrees of Celsius', () => {
    const mixed: UnitPreference = { ...METRIC_UNITS, pressure: 'psi' };
    expect(formatQuantity(4.2058, 'pressureBar', mixed).text).toBe('61\u202fpsi');
    expect(formatQuantity(10, 'volumeL', mixed).text).toBe('10\u202fL');
    expect(hintUnit('pressureBar', mixed)).toBe('bar');
  });
  it('a water is told in MΩ·cm where it is purer than 1 µS/cm and that was chosen', () => {
    const pure: UnitPreference = { ...METRIC_UNITS, strength: 'MΩ·cm' };
    // The reciprocal; 18.2 MΩ·cm is pure water at 25 °C (0.0550 µS/cm, Light et al. 2005).
    expect(formatStrength(0.05499, pure).text).toBe('18.2\u202fMΩ·cm');
    expect(formatStrength(9.4, pure).text).toBe('9.4\u202fµS/cm');
    expect(formatStrength(0.05499, METRIC_UNITS).text).toBe('0.055\u202fµS/cm');
  });
});
