import { describe, expect, it } from 'vitest';
import { expectWithin, value } from '../testing/close';
import { balanced, settleWater, solutesMgL } from '../water';
import {
  ampsFor,
  feedCountsUScm,
  hydrogenLPerH,
  LOADED,
  loadOf,
  mostAmps,
  mostHardnessMgL,
  ohms,
  regeneratesH,
  saltShare,
  STACK_FLOOR,
  stackLossBar,
  stackPasses,
  stackUnits,
  stackW,
  voltsFor,
  type StackLoad,
} from './electro';

/** Check values of the chapter on kinds, §3: by their row. */
const STACK = { cells: 24, nominalLPerH: 2300 };
/** N19: strong 0.07 meq/L as sodium chloride, carbon 0.12 mmol/L, silica 0.3, boron 0.05 mg/L. */
const LOAD: StackLoad = { strongMeqL: 0.07, carbonMeqL: 0.12, silicaMeqL: 0.3 / 60.084, boronMeqL: 0.05 / 10.811 };
const run = (amp: number, flow = 2300, temperatureC = 25) => {
  const share = saltShare(loadOf(LOAD), flow, amp, STACK);
  const units = stackUnits(flow, STACK, temperatureC);
  const passes = stackPasses(LOAD, share, units);
  const out = balanced(
    solutesMgL({
      Na: 0.07 * 22.99 * passes.strong + STACK_FLOOR.Na,
      Cl: 0.07 * 35.453 * passes.strong + STACK_FLOOR.Cl,
      SiO2: 0.3 * passes.silica + STACK_FLOOR.SiO2,
      B: 0.05 * passes.boron,
    }),
    0.12 * passes.carbon + STACK_FLOOR.carbonMmolL,
    25,
  );
  return { share, units, passes, out, ec: value(settleWater(out)).ec25UScm };
};

describe('electrodeionization', () => {
  it('N17: what a feed counts as, and that an equivalent counts 117 µS/cm either way (common practice)', () => {
    expectWithin(feedCountsUScm(8, 5, 0.5), 22.27, 0.001);
    expectWithin(feedCountsUScm(0, 44.01, 0), 117.1, 0.001);
    expectWithin(feedCountsUScm(0, 0, 60.084), 116.6, 0.001);
  });
  it('N18: current for a share of loading, and the share by the current', () => {
    expectWithin(ampsFor(LOADED.design, 0.2, 2300, STACK), 2.854, 0.002);
    expectWithin(saltShare(0.2, 2300, 1.5, STACK), 0.8562, 0.002);
    expectWithin(saltShare(0.2, 2300, 3, STACK), 0.4281, 0.002);
    expect(saltShare(0.2, 2300, 0, STACK)).toBe(Infinity);
    expect(saltShare(0, 2300, 0, STACK)).toBe(0);
  });
  it('N19: at 3 A: 16 MΩ·cm, silica 96 %, boron 92 % held', () => {
    const { share, units, passes, out, ec } = run(3);
    expectWithin(share, 0.4273, 0.01);
    expectWithin(units, 12, 1e-9);
    expectWithin(1000 * out.carbonMmolL, 0.04143, 0.01);
    expectWithin(1000 * out.mgL.SiO2, 10.65, 0.01);
    expectWithin(1000 * out.mgL.B, 3.671, 0.01);
    expectWithin(1 / ec, 16.07, 0.03);
    expect(passes.silica).toBeLessThan(0.04);
  });
  it('N20: at 2 A', () => {
    const { share, passes, out, ec } = run(2);
    expectWithin(share, 0.6409, 0.01);
    expectWithin(1000 * out.carbonMmolL, 0.6914, 0.012);
    expectWithin(passes.silica, 0.1159, 0.01);
    expectWithin(passes.boron, 0.1945, 0.01);
    expectWithin(1 / ec, 6.212, 0.03);
  });
  it('N21: starved of current it passes weak acids whole and a third of the salt', () => {
    const { share, passes, ec } = run(0.3);
    expectWithin(share, 4.273, 0.01);
    expect(passes.carbon).toBe(1);
    expectWithin(passes.strong, 0.3326, 0.01);
    expectWithin(ec, 5.724, 0.03);
    // Without any it is a bed that will be spent: everything passes.
    expect(run(0).passes).toEqual({ strong: 1, carbon: 1, silica: 1, boron: 1 });
  });
  it('N22: slower and colder', () => {
    const { share, units, passes } = run(2, 1500, 10);
    expectWithin(units, 11.98, 0.01);
    expectWithin(share, 0.418, 0.01);
    expectWithin(passes.silica, 0.03059, 0.01);
    expectWithin(passes.boron, 0.07064, 0.01);
  });
  it('N23: volts, cold and aged, and what a cubic metre takes', () => {
    const ohm = ohms(130, 2.5);
    expectWithin(ohm, 50, 0.003);
    expectWithin(voltsFor(3, ohm, 25), 155, 0.003);
    expectWithin(voltsFor(3, ohm, 10), 219.3, 0.003);
    expectWithin(voltsFor(3, ohm, 25, 5), 225.4, 0.003);
    expectWithin(stackW(voltsFor(3, ohm, 25), 3) / 2300, 0.2246, 0.003);
    expectWithin(mostAmps(voltsFor(3, ohm, 10), ohm, 10), 3, 1e-9);
  });
  it('N24: hardness it takes, hydrogen, hours to come back', () => {
    expectWithin(mostHardnessMgL(0.8), 2, 0.003);
    expectWithin(mostHardnessMgL(0.9), 1, 0.003);
    expectWithin(mostHardnessMgL(0.95), 0.5, 0.003);
    expectWithin(hydrogenLPerH(3, 25), 1.369, 0.003);
    expectWithin(regeneratesH(1.8, 3, 24), 2.233, 0.003);
  });
  it('N25: loss', () => expectWithin(stackLossBar({ bar: 2, atLPerH: 2300 }, 1500, 10), 1.904, 0.005));
});
