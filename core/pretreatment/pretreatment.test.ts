import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { alkalinityByBalance, characterWater, type Water } from '../water';
import {
  ammoniaShare,
  carbonCapacityG,
  carbonLeak,
  carbonRowLitres,
  carbonState,
  contactTimeS,
  dechlorinated,
  leastContactS,
  type Carbon,
} from './carbon';
import { prefilterBarPerLPerH } from './sediment';

const GPM = 227.124707;
const block: Carbon = { medium: 'block', volumeL: 0.5, ratedL: 11_356, ratedAgainst: 'chlorine', passedL: 0 };
const tap = (chlorine: number, chloramine: number): Water => {
  const water = value(characterWater('municipal', 1));
  return { ...water, mgL: { ...water.mgL, chlorine, chloramine } };
};

// Check values of the handbook's membrane chapter, sections 12 and 15.
describe('carbon', () => {
  it('M52: contact time of 0.5 L', () => {
    expectWithin(contactTimeS(0.5, GPM), 7.93, 0.005);
    expectWithin(contactTimeS(0.5, 59), 30.5, 0.005);
  });
  it('M53: chloramine left by one block and by two', () => {
    expectWithin(carbonLeak('block', 'chloramine', contactTimeS(0.5, GPM)), 0.53, 0.02);
    expectWithin(carbonLeak('block', 'chloramine', contactTimeS(0.5, 59)), 0.087, 0.02);
    expectWithin(carbonLeak('block', 'chloramine', contactTimeS(0.5, 59)) ** 2, 0.0076, 0.02);
  });
  it('chloramine needs several times longer than free chlorine, in either medium (common practice)', () => {
    for (const medium of ['block', 'granular'] as const) {
      const time = (kind: 'chlorine' | 'chloramine'): number => Math.log(0.1) / Math.log(carbonLeak(medium, kind, 1));
      expect(time('chloramine') / time('chlorine')).toBeGreaterThan(3);
    }
  });
  it('M54: 3000 gal of feed at 4 : 1 are 600 gal of product', () => {
    const state = carbonState({ ...block, ratedL: 3000 * 3.785411784 }, tap(2, 0), 50);
    expectWithin(state.litresLeft! / 5 / 3.785411784, 600, 1e-9);
  });
  it('chloramine uses it up five times as fast', () => {
    expectWithin(carbonState(block, tap(1, 0), 50).litresLeft! / carbonState(block, tap(0, 1), 50).litresLeft!, 5, 1e-9);
    expect(carbonState(block, tap(0, 0), 50).litresLeft).toBeNull();
  });
  it('a spent bed lets it all through', () => {
    const out = dechlorinated({ ...block, passedL: 1e6 }, tap(1, 0.5), 50);
    expectNear(out.mgL.chlorine, 1, 1e-9);
    expectNear(out.mgL.chloramine, 0.5, 1e-9);
  });
  it('what it breaks stays in the balance: chloride and ammonia appear, charge holds', () => {
    const feed = tap(1, 2);
    const out = dechlorinated(block, feed, 20);
    expectWithin(out.mgL.NH4N, 2 * (14.007 / 70.906), 0.01);
    expectNear(alkalinityByBalance(out.mgL) - out.alkalinityMgL, alkalinityByBalance(feed.mgL) - feed.alkalinityMgL, 1e-9);
  });
});

// Check values of the handbook's chapter on further kinds, section 7.
describe('carbon against chloramine', () => {
  const BED = { medium: 'catalyticGranular', volumeL: 28.3, ratedL: 1, ratedAgainst: 'nothing', passedL: 0 } as const satisfies Carbon;
  const rate = (medium: Carbon['medium'], temperatureC: number, pH: number): number =>
    -Math.log(carbonLeak(medium, 'chloramine', 1, 1, { temperatureC, pH }));
  it('N51: contact time; catalytic granules by temperature and pH', () => {
    expectWithin(contactTimeS(28.3, 300), 339.6, 0.005);
    expectWithin(rate('catalyticGranular', 25, 7.7), 0.02, 0.005);
    expectWithin(rate('catalyticGranular', 10, 7.7), 0.009467, 0.005);
    expectWithin(rate('catalyticGranular', 10, 9), 0.00661, 0.005);
    expectWithin(rate('catalyticGranular', 5, 8), 0.00667, 0.005);
  });
  it('N52: what three minutes leave', () => {
    const left = (medium: Carbon['medium'], temperatureC: number, activity = 1): number =>
      carbonLeak(medium, 'chloramine', 180, activity, { temperatureC, pH: 7.7 });
    expectWithin(left('granular', 25), 0.4066, 0.005);
    expectWithin(left('catalyticGranular', 25), 0.02732, 0.005);
    expectWithin(left('granular', 10), 0.6531, 0.005);
    expectWithin(left('catalyticGranular', 10), 0.182, 0.005);
    expectWithin(left('catalyticGranular', 25, 0.5), 0.1653, 0.005);
  });
  it('N53: least contact for 2 to 0.1 mg/L in the cold', () => {
    expectWithin(leastContactS('catalyticGranular', 2, 0.1, { temperatureC: 5, pH: 8 }), 449.1, 0.005);
    expectWithin(leastContactS('granular', 2, 0.1, { temperatureC: 5, pH: 8 }), 1796, 0.005);
  });
  it('N54: a rating against chloramine; days of a bed, catalytic and standard', () => {
    expectWithin(carbonCapacityG({ ...BED, ratedL: 11_000, ratedAgainst: 'chloramine' }).chloramine, 33, 0.005);
    const at = { temperatureC: 25, pH: 7.7 };
    const days = (medium: Carbon['medium']): number => carbonRowLitres([{ ...BED, medium }], tap(0, 2), 300, 0.1, at)! / 1500;
    // The chapter charges the bed with all that comes; followed step by step it takes a little less.
    expectWithin(days('catalyticGranular'), 527.3, 0.02);
    expect(days('granular')).toBe(0);
  });
  it('N55: ammonia of new carbon and of used', () => {
    expectWithin(2 * (14.007 / 70.906) * ammoniaShare(0), 0.3951, 0.005);
    expectWithin(1.9 * (14.007 / 70.906) * ammoniaShare(10_000), 0.159, 0.005);
  });
  it('N56: a pair, between and behind', () => {
    const at = { temperatureC: 15, pH: 8.5 };
    const through = (used: number): number => carbonLeak('catalyticGranular', 'chloramine', contactTimeS(15, 250), 1 - used, at);
    expectWithin(3 * through(0.7), 1.587, 0.01);
    expectWithin(3 * through(0.7) * through(0.1), 0.2352, 0.01);
  });
});

describe('sediment', () => {
  it('costs its clean loss at 1 gal/min and 25 °C', () =>
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 25) * GPM, 0.08, 1e-9));
  it('costs more when clogged and in the cold', () => {
    const clean = prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 25);
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0.75 }, 25) / clean, 4, 1e-9);
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 5) / clean, 1.5012 / 0.89044, 1e-3);
  });
});
