import { CHAPTER_ROWS } from '../testing/chapterRows';
import odex from 'odex';
import { describe, expect, it } from 'vitest';
import { findRoot } from '../numeric';
import { BAR_PER_PSI } from '../quantity';
import { expectWithin, value } from '../testing/close';
import { CLEAN, marchElement, marchSetup } from './march';
import { channelOf, channelState, feedFluid } from './channel';
import type { ElementClass } from './classes';
import { permeabilityOf, sodiumChloride } from './derive';
import { saltFactor, waterFactor } from './temperature';

/**
 * The element model integrated a second time by a general ODE package (odex: Gragg–Bulirsch–Stoer, Hairer & Wanner)
 * in the continuous limit, with the local balance solved by bracketing for the single salt. Shares with the march
 * only the channel correlations and the temperature factors.
 */
function integrateElement(
  id: ElementClass,
  feedLPerH: number,
  mgL: number,
  feedBar: number,
  temperatureC: number,
): { permeateLPerH: number; permeateMgL: number } {
  const row = CHAPTER_ROWS[id];
  const { aLmhPerBar, bLmh } = value(permeabilityOf(row, 'astmD4516'));
  const a = aLmhPerBar * waterFactor(temperatureC);
  const b = bLmh * saltFactor(temperatureC);
  const channel = channelOf(row);
  const fluid = feedFluid(temperatureC);
  const osmotic = (c: number): number => (0.2654 * c * (temperatureC + 273.15)) / (1000 - c / 1000) / 100;
  /** Flux and permeate strength at a bulk concentration, pressure and transfer coefficient. */
  const local = (c: number, bar: number, k: number): { J: number; cp: number } => {
    const at = (J: number): { beta: number; cp: number } => {
      const beta = Math.exp(J / k);
      return { beta, cp: (b * beta * c) / (J + b * beta) };
    };
    const root = findRoot(
      (J) => {
        const { beta, cp } = at(J);
        return J - a * (bar - osmotic(cp + (c - cp) * beta) + osmotic(cp));
      },
      1e-12,
      a * bar,
      1e-13,
    )!;
    return { J: root.x, cp: at(root.x).cp };
  };
  const solver = new odex.Solver(3);
  solver.absoluteTolerance = 1e-10;
  solver.relativeTolerance = 1e-10;
  const end = solver.solve(
    (_area: number, [q, m, bar]: number[]) => {
      const c = m! / q!;
      const state = channelState(channel, fluid, q!, c);
      const { J, cp } = local(c, bar!, state.transferLmh);
      return [-J, -J * cp, -state.lossBar / row.areaM2];
    },
    0,
    [feedLPerH, feedLPerH * mgL, feedBar],
    row.areaM2,
  ).y as number[];
  const permeateLPerH = feedLPerH - end[0]!;
  return { permeateLPerH, permeateMgL: (feedLPerH * mgL - end[1]!) / permeateLPerH };
}

describe('the march against a general ODE package', () => {
  it.each<[ElementClass, number, number, number, number]>([
    ['household75', 60, 250, 60 * BAR_PER_PSI, 25],
    ['household75', 25, 500, 60 * BAR_PER_PSI, 12],
    ['household200', 120, 400, 4.5, 18],
    ['in4Low', 1500, 1000, 8, 15],
    ['in4Usual', 2000, 3000, 15, 25],
    ['in25Sea', 1000, 35_000, 55, 25],
    ['in25Sea', 600, 38_000, 60, 30],
  ])('%s, %s L/h of %s mg/L at %s bar and %s °C', (id, feedLPerH, mgL, bar, t) => {
    const feed = sodiumChloride(mgL);
    const setup = marchSetup(CHAPTER_ROWS[id], value(permeabilityOf(CHAPTER_ROWS[id], 'astmD4516')), CLEAN, feed, t, 'astmD4516');
    const march = marchElement(setup, feedLPerH, feed.mmolL, bar, 0)!;
    const reference = integrateElement(id, feedLPerH, mgL, bar, t);
    expectWithin(march.permeateLPerH, reference.permeateLPerH, 4e-4, 'flow');
    expectWithin((march.permeateMmolH[0]! / march.permeateLPerH) * 58.443, reference.permeateMgL, 4e-4, 'strength');
  });
  it('squeezed to a trickle, the salt stops it: the waste comes to rest near the line pressure', () => {
    const feed = sodiumChloride(250);
    const setup = marchSetup(
      CHAPTER_ROWS.household75,
      value(permeabilityOf(CHAPTER_ROWS.household75, 'astmD4516')),
      CLEAN,
      feed,
      25,
      'astmD4516',
    );
    const march = marchElement(setup, 8, feed.mmolL, 5, 0)!;
    const wasteMgL = march.concentrateMmolL[0]! * 58.443;
    expect(wasteMgL).toBeGreaterThan(3000);
    expect((0.2654 * wasteMgL * 298.15) / (1000 - wasteMgL / 1000) / 100).toBeLessThan(5);
  });
});
