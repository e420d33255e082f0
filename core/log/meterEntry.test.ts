import { describe, expect, it } from 'vitest';
import type { MeterScale } from '../water';
import { meterEntry, shownUnitOf } from './meterEntry';

const meter = (scale: MeterScale) => ({ scale });
const PPM = meter({ kind: 'factor', factor: 0.5 });
const MICRO = meter({ kind: 'conductivity' });
const SALT = meter({ kind: 'salinity' });
const shown = (text: string, on: ReturnType<typeof meter>): number | string => {
  const entry = meterEntry(text, on, 'Tap');
  return entry.ok ? entry.value : entry.error.message;
};

describe('what a meter showed, as people type it', () => {
  it.each([
    ['380', PPM, 380],
    ['380 ppm', PPM, 380],
    ['35 000', PPM, 35_000],
    ['35 000 ppm', PPM, 35_000],
    ['4,3', MICRO, 4.3],
    ['700 mg/L', PPM, 700],
    ['380 ppm', MICRO, 760],
    ['612 µS', PPM, 306],
    ['1.2 mS/cm', MICRO, 1200],
    ['18.2 MΩ·cm', MICRO, 1 / 18.2],
    ['35 ppt', SALT, 35],
    ['35', SALT, 35],
  ])('%s', (text, on, wanted) => expect(shown(text, on)).toBeCloseTo(wanted, 6));

  it('a salinity on a meter of µS/cm: sea water of 35 conducts 53.06 mS/cm at 25 °C (UNESCO 1981)', () => {
    expect(shown('35 g/kg', MICRO)).toBeCloseTo(53_065, -2);
    expect(shown('53065 µS/cm', SALT)).toBeCloseTo(35, 2);
  });
  it('grams in a litre are a salinity: 36 g/L of sea water weigh 1.026 kg', () => {
    expect(shown('36 g/L', MICRO)).toBeCloseTo(Number(shown('35.0877 g/kg', MICRO)), -1);
    expect(shown('36 g/L', MICRO)).toBeLessThan(54_000);
  });
  it('what it cannot be is told, with what is accepted', () => {
    expect(shown('35.000', PPM)).toMatch(/35000 or 35/);
    expect(shown('80 psu', SALT)).toBe(80);
    expect(shown('80 psu', MICRO)).toMatch(/ends at 75 g\/kg/);
    expect(shown('5 bar', PPM)).toMatch(/“bar” is not a unit a meter shows/);
    expect(shown('soft', PPM)).toMatch(/does not begin with a number/);
    expect(shown('-3', PPM)).toMatch(/Tap is -3; accepted is 0 to 200000/);
  });
  it('names its own unit', () => expect([PPM, MICRO, SALT].map(shownUnitOf)).toEqual(['ppm', 'µS/cm', 'g/kg']));
});
