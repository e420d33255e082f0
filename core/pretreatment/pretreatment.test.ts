import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { alkalinityByBalance, characterWater, type Water } from '../water';
import { carbonLeak, carbonState, contactTimeS, dechlorinated, type Carbon } from './carbon';
import { prefilterBarPerLPerH } from './sediment';

const GPM = 227.124707;
const block: Carbon = { medium: 'block', volumeL: 0.5, ratedL: 11_356, passedL: 0 };
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

describe('sediment', () => {
  it('costs its clean loss at 1 gal/min and 25 °C', () =>
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 25) * GPM, 0.08, 1e-9));
  it('costs more when clogged and in the cold', () => {
    const clean = prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 25);
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0.75 }, 25) / clean, 4, 1e-9);
    expectWithin(prefilterBarPerLPerH({ cleanLossBar: 0.08, loading: 0 }, 5) / clean, 1.5012 / 0.89044, 1e-3);
  });
});
