import { describe, expect, it } from 'vitest';
import { expectWithin, value } from '../testing/close';
import { alkalinityByBalance, balanced, solutesMgL } from '../water';
import { kindOf, newStage, type Stage, type StageOf } from '.';

const lamp: StageOf<'uv'> = { ...newStage('uv', 'uv'), organic: { left: 0.5, atLPerH: 600 } };
const water = balanced(solutesMgL({ Na: 0.1, Cl: 0.1, organic: 0.02 }), 0.001, 25);
const through = (stage: Stage, flowLPerH: number) => value(kindOf(stage).treat(stage, { water, flowLPerH, use: {}, inLoop: false })).water;

describe('a lamp of 185 nm', () => {
  it('leaves what its sheet says at its flow, and the rest as carbon dioxide (N44)', () => {
    const out = through(lamp, 600);
    expectWithin(out.mgL.organic, 0.01, 1e-9);
    expectWithin(out.carbonMmolL - water.carbonMmolL, 0.01 / 12.011, 1e-6);
    expectWithin(through(lamp, 300).mgL.organic, 0.25 * 0.02, 1e-9);
    // Charge goes with what it was on.
    expectWithin(out.alkalinityMgL, alkalinityByBalance(out.mgL), 1e-9);
  });
  it('that only disinfects changes nothing', () => expect(through(newStage('uv', 'plain'), 600)).toEqual(water));
});
