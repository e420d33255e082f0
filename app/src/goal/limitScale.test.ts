import type { Limit } from '@yes-clear/core/goal';
import { describe, expect, it } from 'vitest';
import { limitScale } from './limitScale';

const limit = (change: Partial<Limit>): Limit => ({
  quantity: 'silicaMgL',
  label: '',
  low: null,
  high: 0.1,
  origin: '',
  because: '',
  meterSees: false,
  judged: 'asUsed',
  ...change,
});

describe('the scale of a limit', () => {
  it('is in proportion where tap and goal lie within a decade', () => {
    const scale = limitScale(limit({ quantity: 'hardnessMgL', low: 50, high: 175 }), [250]);
    expect(scale.kind).toBe('linear');
    expect(scale.place(125) - scale.place(0)).toBeCloseTo(scale.place(250) - scale.place(125), 9);
    expect(scale.place(250)).toBeLessThan(1);
  });
  it('goes by decades where the tap is a hundred times the goal, and still shows zero and the band', () => {
    const scale = limitScale(limit({}), [9, 0]);
    expect(scale.kind).toBe('log');
    expect(scale.place(0)).toBe(0);
    expect(scale.from).toBe(0);
    expect(scale.to).toBeGreaterThan(0.2);
    expect(scale.to).toBeLessThan(0.8);
    expect(scale.place(9)).toBeGreaterThan(scale.to);
  });
  it('runs from 4 to 10 for pH and never leaves the paper', () => {
    const scale = limitScale(limit({ quantity: 'pH', low: 5, high: 6.8 }), [12]);
    expect([scale.from, scale.place(12), scale.place(2)]).toEqual([1 / 6, 1, 0]);
  });
  it('an open end reaches the edge', () => {
    const scale = limitScale(limit({ quantity: 'ec25UScm', low: 30, high: null }), [400]);
    expect(scale.to).toBe(1);
    expect(scale.from).toBeGreaterThan(0);
  });
});
