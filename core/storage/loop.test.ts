import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, failure, value } from '../testing/close';
import { balanced, openToAir, settleWater, solutesMgL } from '../water';
import {
  CARBON_G_PER_MOL,
  gasTransferLPerH,
  loopAtRest,
  loopTimeH,
  loopWater,
  loopWeek,
  organicLeft,
  polisherDays,
  resistivityMOhmCm,
  startsPerDay,
  timeOn,
  uvDoseMJPerCm2,
  velocityMPerS,
  type Loop,
} from './loop';

const sample: Loop = {
  volumeL: 100,
  loopLPerH: 600,
  makeUp: { saltUmolL: 100, carbonUmolL: 200 },
  leak: { saltUmolL: 0.01, carbonUmolL: 0.02 },
  floor: { saltUmolL: 0.05, carbonUmolL: 0.02 },
  surfaceM2: 0.2,
  ventFilter: false,
};

// Check values of the exchange chapter, sections 10 and 12, computed independently.
describe('a recirculated loop', () => {
  it('42: the sample at rest', () => {
    const { tank, outlet } = value(loopAtRest(sample, 20));
    expectWithin(tank.saltUmolL, 3.415, 0.005);
    expectWithin(tank.carbonUmolL, 6.908, 0.005);
    expectWithin(outlet.saltUmolL, 0.0841, 0.005);
    expectWithin(outlet.carbonUmolL, 0.1582, 0.005);
    expectWithin(value(resistivityMOhmCm(outlet)), 11.4, 0.03);
    expectWithin(value(settleWater(loopWater(tank))).ec25UScm, 1.04, 0.03);
  });
  it('43: without draw from 200 to 20 in 26 minutes', () => {
    expectWithin(timeOn({ perHour: (600 * 0.99) / 100, restUmolL: 5 }, 200, 20)! * 60, 25.9, 0.005);
  });
  it('a level below its rest is never reached, and said so', () => {
    expect(value(loopTimeH(sample, 20, 'saltUmolL', 200, 1))).toBeNull();
    expect(value(loopTimeH(sample, 20, 'saltUmolL', 200, 4))).toBeGreaterThan(0.5);
  });
  it('40 and 41: pure water is 0.055 µS/cm; open to air pH 5.60 and 0.99 (ASTM D1125 practice; common practice)', () => {
    expectWithin(value(resistivityMOhmCm({ saltUmolL: 0, carbonUmolL: 0 })), 18.15, 0.01);
    const open = value(settleWater(value(openToAir(loopWater({ saltUmolL: 0, carbonUmolL: 0 })))));
    expectNear(open.pH, 5.6, 0.03);
    expectWithin(open.ec25UScm, 0.99, 0.03);
  });
  it('0.2 m² of surface take 7.2 L/h', () => expectWithin(gasTransferLPerH(0.2), 7.2, 1e-9));
  it('a vent filter and a smaller surface make it purer', () => {
    const carbon = (loop: Loop): number => value(loopAtRest(loop, 5)).tank.carbonUmolL;
    expect(carbon({ ...sample, ventFilter: true })).toBeLessThan(carbon(sample));
    expect(carbon({ ...sample, surfaceM2: 0 })).toBeLessThan(carbon(sample));
  });
  it('45: UV dose and velocity', () => {
    expectWithin(uvDoseMJPerCm2(10, 0.6, 600), 36, 1e-3);
    expectWithin(velocityMPerS(600, 16), 0.829, 1e-3);
    expectWithin(velocityMPerS(600, 10), 2.12, 5e-3);
  });
  it('N44: 10 µg/L of carbon turned wholly into CO2, and what a lamp of 185 nm leaves at other flows (chapter on kinds)', () => {
    const umol = 10 / CARBON_G_PER_MOL;
    expectWithin(umol, 0.8326, 0.005);
    const state = value(settleWater(balanced(solutesMgL({}), umol / 1000, 25)));
    expectWithin(1 / state.ec25UScm, 5.653, 0.03);
    expectWithin(organicLeft(0.5, 600, 300), 0.25, 0.005);
    expectWithin(organicLeft(0.5, 600, 1200), 0.7071, 0.005);
  });
  it('starts a day: 200 L, 20 L/h, 100 L between 60 and 90 %', () => {
    expectWithin(value(startsPerDay(200, 20, 100, 0.6, 0.9)), 3.9, 0.01);
    expect(failure(startsPerDay(500, 20, 100, 0.6, 0.9)).message).toContain('cannot keep up');
  });
  it('a polisher of 7 L lasts 22 days on permeate', () => {
    // The chapter's 0.3 mmol/h from the air: an empty tank takes it through 0.58 m² at 14.3 µmol/L.
    const open = { ...sample, surfaceM2: 0.2 * (300 / (7.2 * 14.3)) };
    expectWithin(polisherDays(open, 20, { saltUmolL: 0, carbonUmolL: 0 }, 7 * 0.6 * 0.8)!, 22, 0.02);
  });
  it('a steady week ends where the sample rests', () => {
    const week = value(loopWeek(sample, { startShare: 0.89, stopShare: 0.9, productionLPerH: 20.2 }, new Array<number>(168).fill(20)));
    const { tank } = value(loopAtRest({ ...sample, volumeL: 89.5 }, 20));
    expectWithin(week.at(-1)!.tank.saltUmolL, tank.saltUmolL, 0.1);
  });
  it('mass is kept through a week of draws: what came in left or is there', () => {
    const closed: Loop = { ...sample, leak: { saltUmolL: 1, carbonUmolL: 1 }, floor: { saltUmolL: 0, carbonUmolL: 0 }, surfaceM2: 0 };
    const draws = Array.from({ length: 168 }, (_, hour) => (hour % 24 > 7 && hour % 24 < 18 ? 30 : 0));
    const week = value(loopWeek(closed, { startShare: 0.6, stopShare: 0.9, productionLPerH: 20 }, draws));
    // A polisher that does nothing leaves make-up water everywhere.
    for (const moment of week) expectWithin(moment.outlet.saltUmolL, 100, 1e-6);
  });
  it('draws more than flows round starve the outlets; more than is made empties it', () => {
    expect(failure(loopAtRest(sample, 700)).field).toBe('drawLPerH');
    expect(
      failure(loopWeek(sample, { startShare: 0.6, stopShare: 0.9, productionLPerH: 5 }, new Array<number>(168).fill(20))).message,
    ).toContain('cannot keep up');
  });
});
