import { systemFromTemplate } from '@yes-clear/core/template';
import { type Dimension, GALLON_UNITS, METRIC_UNITS, type UnitPreference } from '@yes-clear/core/quantity';
import { describe, expect, it, vi } from 'vitest';
import { nextTick, ref } from 'vue';
import { useQuantityInput } from './useQuantityInput';
import { useQuickLine } from './useQuickLine';

const metric = METRIC_UNITS;
const trade: UnitPreference = { ...GALLON_UNITS, hardness: '°dH' };

function field(start: number | null, dimension: Dimension, options: { optional?: boolean; high?: number; unit?: string } = {}) {
  const value = ref<number | null>(start);
  const units = ref(metric);
  const input = useQuantityInput({
    value: () => value.value,
    dimension: () => dimension,
    label: () => 'Field',
    units: () => units.value,
    unit: () => options.unit,
    high: () => options.high,
    optional: () => options.optional ?? false,
    changed: (next) => (value.value = next),
  });
  return { value, units, input };
}

describe('a quantity field', () => {
  it('understands other units while typing and shows its own on leaving', async () => {
    const { value, input } = field(4, 'pressureBar');
    input.typed('60 psi');
    expect(value.value).toBeCloseTo(4.1369, 4);
    await nextTick();
    expect(input.text.value).toBe('60 psi');
    input.left();
    expect(input.text.value).toBe('4.137');
    expect(input.hint.value.replace(/\s/g, ' ')).toBe('60 psi');
  });
  it('keeps what cannot be understood, says why, and lets the last good value count', () => {
    const { value, input } = field(4, 'pressureBar');
    input.typed('sixty');
    input.left();
    expect(input.text.value).toBe('sixty');
    expect(input.error.value).toContain('Field: “sixty” does not begin with a number');
    expect(value.value).toBe(4);
    input.typed('5');
    input.left();
    expect([input.error.value, value.value, input.text.value]).toEqual([null, 5, '5']);
  });
  it('may be left empty only where that means something', () => {
    const optional = field(7, 'ph', { optional: true });
    optional.input.typed('');
    expect([optional.value.value, optional.input.error.value]).toEqual([null, null]);
    const needed = field(7, 'ph');
    needed.input.typed(' ');
    expect(needed.value.value).toBe(7);
    expect(needed.input.error.value).toContain('is empty');
  });
  it('holds to narrower limits than its dimension', () => {
    const { value, input } = field(0.2, 'fraction', { high: 0.95, unit: '%' });
    input.typed('96');
    expect(input.error.value).toContain('accepted is 0 to 95 %');
    expect(value.value).toBe(0.2);
  });
  it('follows a change of units without touching the value', async () => {
    const { value, units, input } = field(4, 'pressureBar');
    units.value = trade;
    await nextTick();
    expect([input.symbol.value, input.text.value, value.value]).toEqual(['psi', '58.02', 4]);
  });
  it('follows an undo of its value, but not while the hand is in it', async () => {
    const { value, input } = field(4, 'pressureBar');
    value.value = 3;
    await nextTick();
    expect(input.text.value).toBe('3');
    input.typed('3.5');
    value.value = 2;
    await nextTick();
    expect(input.text.value).toBe('3.5');
  });
});

describe('a quick line', () => {
  const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
  it('makes a reading of the system, now, once nothing is wrong', () => {
    vi.useFakeTimers({ now: new Date('2026-11-23T08:10:00Z') });
    const line = useQuickLine(() => system);
    line.text.value = '311 10 0 59furlong';
    expect(line.make()).toBeNull();
    line.text.value = '311 10 0 59psi';
    const reading = line.make()!;
    expect([reading.systemId, reading.at, reading.values.length]).toEqual(['s', '2026-11-23T08:10:00.000Z', 3]);
    line.clear();
    expect(line.text.value).toBe('');
    vi.useRealTimers();
  });
  it('is nothing without a system', () => {
    const line = useQuickLine(() => null);
    expect([line.parsed.value, line.make()]).toEqual([null, null]);
  });
});
