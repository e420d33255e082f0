import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { CHARACTER_ROWS } from './characters';
import { completeWater } from './completion';
import { practicalSalinity, salinityFrom, seaConductivityMScm, seaSalinityOf } from './salinity';
import { eachSolute, solutesMgL } from './solutes';

/** UNESCO's practical salinity scale of 1978; the check value 34.996 is published with its coefficients (recalled). */
describe('practical salinity (C11)', () => {
  it('is 35 where the standard sea water conducts 42.914 mS/cm at 15 °C', () => expectNear(practicalSalinity(42.914, 15), 35, 0.005));
  it('is 34.996 at 53.065 mS/cm and 25 °C', () => expectNear(practicalSalinity(53.065, 25), 34.996, 0.01));
  it.each([
    [35, 10, 38.09],
    [35, 15, 42.918],
    [35, 25, 53.071],
    [5, 25, 8.96],
    [40, 15, 48.339],
  ])('sea water of %d at %d °C conducts %d mS/cm', (S, t, expected) => expectNear(seaConductivityMScm(S, t), expected, 0.005));
  it('there and back is the same', () => {
    for (const S of [2, 10, 35, 42, 70])
      for (const t of [0, 12, 35]) expectWithin(practicalSalinity(seaConductivityMScm(S, t), t), S, 1e-7);
  });
  it('C13: a pen with 2 %/°C that shows 53.65 mS/cm stands in 35.00 at 15 °C, and in 35.43 at 25 °C', () => {
    expectNear(practicalSalinity(53.65 * (1 + 0.02 * (15 - 25)), 15), 35, 0.02);
    expectNear(practicalSalinity(53.65, 25), 35.43, 0.02);
  });
  it('says what it does not speak for', () => {
    const of = (uScm: number, t: number): string => {
      const found = salinityFrom(uScm, t);
      return found.ok ? found.value.toFixed(2) : found.error.message;
    };
    expect(of(53_071, 25)).toBe('35.00');
    expect(of(500, 25)).toBe('500 µS/cm at 25 °C is no sea water of salinity 2 to 75.');
    expect(of(53_071, 40)).toBe('Salinity is defined from 0 to 35 °C; the water has 40 °C.');
  });
});

describe('which water is sea water', () => {
  const sea = solutesMgL(CHARACTER_ROWS.seawater.mgL);
  const times = (factor: number) => eachSolute((s) => sea[s] * factor);
  it('the listed one is, with 35', () => expectNear(seaSalinityOf(sea)!, 35, 0.05));
  it('its brine and its dilution are', () => {
    expect(seaSalinityOf(times(1.8))).toBeGreaterThan(58);
    expectNear(seaSalinityOf(times(0.2))!, 7.15, 0.1);
  });
  it('a brackish well is not, nor sea water a tenth of whose sodium is missing', () => {
    expect(seaSalinityOf(solutesMgL(CHARACTER_ROWS.brackish.mgL))).toBeNull();
    expect(seaSalinityOf({ ...sea, Na: 0.88 * sea.Na })).toBeNull();
    expect(seaSalinityOf(times(0.02))).toBeNull();
  });
});

describe('sea water by one reading', () => {
  const sea = value(completeWater({ character: 'seawater', temperatureC: 20, ec25UScm: 53_065, ec25Doubt: 0.03 }));
  it('its salts follow from salinity: calcium 412 mg/kg at 35, within the reading (Millero 2008)', () => {
    // 411.7 mg/kg of water of density 1.0233 at 25 °C.
    expectWithin(sea.water.mgL.Ca, 411.7 * 1.0233, 0.02);
    expect(sea.plusMinusMgL.Ca / sea.water.mgL.Ca).toBeCloseTo(Math.hypot(0.03, 0.01), 6);
    expect([sea.origins.Ca, sea.origins.B, sea.origins.alkalinity, sea.origins.SiO2]).toEqual(['derived', 'derived', 'derived', 'assumed']);
  });
  it('a fresh water is as open as it was', () => {
    const fresh = value(completeWater({ character: 'municipal', temperatureC: 20, ec25UScm: 600, ec25Doubt: 0.03 }));
    expect(fresh.origins.Ca).toBe('assumed');
    expect(fresh.plusMinusMgL.Ca / fresh.water.mgL.Ca).toBeGreaterThan(0.15);
  });
});
