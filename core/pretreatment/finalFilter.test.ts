import { describe, expect, it } from 'vitest';
import { expectWithin } from '../testing/close';
import {
  blockedAtLitres,
  bubblePointBar,
  finalFilterLitres,
  finalFilterLossBar,
  holdLeakMlPerMin,
  ultrafilterFluxLmh,
} from './finalFilter';

// Check values of the handbook's chapter on further kinds, section 5.
describe('a sub-micron cartridge', () => {
  const clean = { bar: 0.07, atLPerH: 600 };
  it('N39: its loss at another flow, in the cold, used by half and by four fifths', () => {
    expectWithin(finalFilterLossBar(clean, 400, 10, 0), 0.06811, 0.005);
    expectWithin(finalFilterLossBar(clean, 400, 10, 0.5), 0.2724, 0.005);
    expectWithin(finalFilterLossBar(clean, 400, 10, 0.8), 1.703, 0.005);
  });
  it('N40: litres until 1.0 and 0.5 bar', () => {
    expectWithin(finalFilterLitres(100_000, 0.07, 1), 73_542, 0.002);
    expectWithin(finalFilterLitres(100_000, 0.07, 0.5), 62_583, 0.002);
    expect(finalFilterLitres(100_000, 2, 1)).toBe(0);
  });
  it('N41: what it can pass, from two readings', () => {
    expectWithin(blockedAtLitres({ litres: 20_000, times: 1.4 }, { litres: 38_000, times: 2 })!, 130_200, 0.002);
    expect(blockedAtLitres({ litres: 1, times: 2 }, { litres: 2, times: 1.5 })).toBeNull();
  });
  it('N42: bubble points; a pressure hold', () => {
    expectWithin(bubblePointBar(3.3, 0.2, 0.1), 6.6, 0.003);
    expectWithin(bubblePointBar(3.3, 0.2, 0.45), 1.467, 0.003);
    expectWithin(holdLeakMlPerMin(20, 5, 2), 7.895, 0.003);
  });
  it('N43: flux of a hollow fibre, clean and fouled', () => {
    expectWithin(ultrafilterFluxLmh(150, 0.8, 10), 82.22, 0.005);
    expectWithin(ultrafilterFluxLmh(150, 0.8, 10, 0.5), 54.82, 0.005);
  });
});
