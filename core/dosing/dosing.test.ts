import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { balanced, CACO3_G_PER_EQ, freeAmmoniaShare, settleWater, solutesMgL, type Water } from '../water';
import { doseForPH, MG_PER_MEQ, sulfiteForChlorine, sulfiteForOxygen, withAgent, type Agent } from './agents';
import { dosesMlPerH, stockGPerL, tankDays } from './pump';
import { highestLimits, limitsAtDose, UNHELD } from './scaleLimits';

/** Check values of the chapter on kinds, §6: by their row. */
const bicarbonate = (meqL: number, carbonMmolL: number, more: Partial<Record<'chlorine' | 'chloramine', number>> = {}): Water =>
  balanced(solutesMgL({ Na: 22.99 * meqL, ...more }), carbonMmolL, 25);
const state = (water: Water) => value(settleWater(water));
/** Change of alkalinity by an agent, mg/L as CaCO3. */
const shift = (water: Water, agent: Agent, mgL: number): number => withAgent(water, agent, mgL).alkalinityMgL - water.alkalinityMgL;

describe('a dosing pump', () => {
  it('N45: what it gives, and how long the tank lasts', () => {
    expectWithin(dosesMlPerH(300, 3, 50), 18, 0.001);
    expectWithin(tankDays(25, 18, 8), 173.6, 0.001);
    // 10 % at 1.05 kg/L.
    expectWithin(stockGPerL(10, 1.05), 105, 1e-9);
  });
});

describe('antiscalant', () => {
  it('N46: limits at half the dose, none and all', () => {
    const half = limitsAtDose(0.5);
    expectWithin(half.calciteIndex, 0.9, 0.005);
    expectWithin(half.percent.gypsum, 135.6, 0.005);
    expectWithin(half.percent.barite, 692.8, 0.005);
    expectWithin(half.percent.silica, 100, 0.005);
    expect(limitsAtDose(0)).toEqual(UNHELD);
    // More than the full dose holds no more.
    expect(limitsAtDose(3)).toEqual(limitsAtDose(1));
    expect(highestLimits([UNHELD, limitsAtDose(1)])).toEqual(limitsAtDose(1));
  });
  it('changes nothing a meter shows', () => expect(withAgent(bicarbonate(4, 4.2), 'antiscalant', 3)).toEqual(bicarbonate(4, 4.2)));
});

describe('acid and caustic', () => {
  it('N47: a water of 4 meq/L brought to pH 7.0', () => {
    const water = bicarbonate(4, 4.45444);
    const hydrochloric = value(doseForPH(water, 'hydrochloricAcid', 7));
    expectWithin(hydrochloric / MG_PER_MEQ.hydrochloricAcid, 0.3176, 0.05);
    expectWithin(hydrochloric, 11.58, 0.05);
    expectWithin(value(doseForPH(water, 'sulfuricAcid', 7)), 15.58, 0.05);
    const after = withAgent(water, 'hydrochloricAcid', hydrochloric);
    expectNear(state(after).pH, 7, 0.01);
    expectWithin(state(after).co2MgL, 34.07, 0.05);
    // Carbon stays; the pH it is at already asks for nothing.
    expect(after.carbonMmolL).toBe(water.carbonMmolL);
    expect(value(doseForPH(water, 'hydrochloricAcid', 8.5))).toBe(0);
  });
  it('N48: caustic ahead of a second pass', () => {
    const water = bicarbonate(0.1, 0.44083);
    const caustic = value(doseForPH(water, 'causticSoda', 8.3));
    expectWithin(caustic / MG_PER_MEQ.causticSoda, 0.3425, 0.02);
    expectWithin(caustic, 13.7, 0.02);
    expectWithin(state(withAgent(water, 'causticSoda', caustic)).co2MgL, 0.209, 0.05);
    expectWithin(freeAmmoniaShare(5.82, 25), 0.0003745, 0.02);
    expectWithin(freeAmmoniaShare(8.3, 25), 0.1016, 0.02);
  });
  it('N50: conductivity by the equivalent, near infinite dilution', () => {
    const per = (agent: 'hydrochloricAcid' | 'sulfuricAcid' | 'causticSoda', water: Water): number => {
      const meqL = 1e-3;
      return (state(withAgent(water, agent, meqL * MG_PER_MEQ[agent])).ec25UScm - state(water).ec25UScm) / meqL;
    };
    // Beside as much CO2, so that its pH is far from where hydrogen or carbonate carry; at 0.3 meq/L ions are slowed by 3 %.
    const water = bicarbonate(0.3, 0.6);
    expectWithin(per('hydrochloricAcid', water), 31.85, 0.05);
    expectWithin(per('sulfuricAcid', water), 35.5, 0.05);
    expectWithin(per('causticSoda', water), 94.6, 0.05);
  });
});

describe('bisulfite', () => {
  it('N49: free chlorine, chloramine, oxygen', () => {
    const chlorinated = bicarbonate(2, 2.1, { chlorine: 1 });
    expectWithin(sulfiteForChlorine(chlorinated.mgL), 1.341, 0.002);
    // The same as NaHSO3.
    expectWithin((sulfiteForChlorine(chlorinated.mgL) / MG_PER_MEQ.bisulfite) * 104.06, 1.468, 0.002);
    expectWithin(shift(chlorinated, 'bisulfite', 1.3406), -1.412, 0.002);
    const chloraminated = bicarbonate(2, 2.1, { chloramine: 2 });
    const dose = sulfiteForChlorine(chloraminated.mgL);
    expectWithin(dose, 2.681, 0.002);
    expectWithin(shift(chloraminated, 'bisulfite', dose), -1.412, 0.002);
    const after = withAgent(chloraminated, 'bisulfite', dose);
    expectWithin(after.mgL.NH4N, 0.3951, 0.002);
    expectNear(after.mgL.chloramine, 0, 1e-9);
    expectWithin(sulfiteForOxygen(8), 47.53, 0.002);
  });
  it('takes free chlorine first, and what is over takes oxygen', () => {
    const both = bicarbonate(2, 2.1, { chlorine: 1, chloramine: 1 });
    const half = withAgent(both, 'bisulfite', sulfiteForChlorine(both.mgL) / 2);
    expectNear(half.mgL.chlorine, 0, 1e-9);
    expectWithin(half.mgL.chloramine, 1, 1e-9);
    const over = withAgent(both, 'bisulfite', 20);
    expect(over.mgL.SO4).toBeGreaterThan(15);
    // Alkalinity goes with the ions, whatever is dosed.
    for (const agent of ['hydrochloricAcid', 'sulfuricAcid', 'causticSoda', 'bisulfite'] as const) {
      const out = withAgent(both, agent, 5);
      expectNear(out.alkalinityMgL, balanced(out.mgL, out.carbonMmolL, 25).alkalinityMgL, 0.01);
    }
    expect(CACO3_G_PER_EQ).toBeCloseTo(50.0435, 3);
  });
});
