import { describe, expect, it } from 'vitest';
import { balanced, solutesMgL, type Water } from '../water';
import { firstThrough } from './ions';

const water = (mgL: Parameters<typeof solutesMgL>[0], carbonMmolL = 0): Water => balanced(solutesMgL(mgL), carbonMmolL, 15);

describe('the ion a side lets through first', () => {
  it('is the one held most weakly: sodium before calcium, silica before chloride (order of the selectivity tables)', () => {
    const permeate = water({ Na: 2, Ca: 1, Cl: 3, SO4: 1, SiO2: 0.3 }, 0.02);
    expect([firstThrough(permeate, 'cation'), firstThrough(permeate, 'anion')]).toEqual(['sodium', 'silica']);
  });
  it('is carbon dioxide where there is next to no silica', () => {
    expect(firstThrough(water({ Cl: 3, SiO2: 0.001 }, 0.1), 'anion')).toBe('carbon dioxide');
  });
  it('is not one of which there is a trace', () => {
    expect(firstThrough(water({ Na: 0.01, Ca: 20, Cl: 30 }), 'cation')).toBe('calcium');
  });
  it('is none in a water that brings nothing', () => {
    expect(firstThrough(water({ Na: 2 }), 'anion')).toBeNull();
  });
});
