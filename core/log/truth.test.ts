import { describe, expect, it } from 'vitest';
import { KEPT, keptTally } from '../testing/seededKeepers';
import { resinTally, tally } from '../testing/seededLogs';

/** Logs lived through with the solver, so that the truth is known; `npm run calibration` takes 200 of them. */
describe('the log tells the truth', () => {
  const found = tally(Array.from({ length: 36 }, (_, i) => 3000 + i));
  it('the membrane’s output and salt lie within their stated 80 % band in about four logs of five', () => {
    expect(found.waterOf).toBe(36);
    for (const share of [found.waterInside / found.waterOf, found.saltInside / found.saltOf]) {
      expect(share).toBeGreaterThanOrEqual(0.66);
      expect(share).toBeLessThan(1);
    }
  });
  it('the band is no wider than it has to be: half of what is looked for', () => expect(found.meanSd).toBeLessThan(0.05));
  it('at most one false step is told a system and year, and most true ones are found', () => {
    expect(found.falseAlarms / found.years).toBeLessThan(1);
    expect(found.jumps).toBeGreaterThan(4);
    expect(found.jumpsFound / found.jumps).toBeGreaterThan(0.7);
  });
  it('the day a resin is spent lies within its forecast about as often as it says', () => {
    const resin = resinTally(Array.from({ length: 300 }, (_, i) => 8000 + i));
    expect(resin.cartridges).toBeGreaterThan(60);
    expect(resin.inside / resin.cartridges).toBeGreaterThan(0.7);
    expect(resin.inside / resin.cartridges).toBeLessThan(0.95);
  });
  it.each(KEPT)('%s, kept by people who change late, forget to write and answer wrongly, still holds its bands', (of) => {
    const { forecasts, leftInside, datesOf, datesInside } = keptTally(of, Array.from({ length: 80 }, (_, i) => 400 + i)); // prettier-ignore
    expect(forecasts).toBe(80);
    expect(leftInside / forecasts).toBeGreaterThan(0.6);
    expect(datesInside / datesOf).toBeGreaterThan(0.65);
    expect(leftInside / forecasts).toBeLessThan(0.95);
  });
});
