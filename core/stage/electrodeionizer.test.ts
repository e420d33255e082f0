import { describe, expect, it } from 'vitest';
import { reportTrain } from '../advice';
import { standingAt } from '../life';
import { systemFromTemplate } from '../template';
import { expectNear, expectWithin, value } from '../testing/close';
import { polishedStation, tapWater } from '../train';
import { balanced, settleWater, solutesMgL } from '../water';
import { kindOf, newStage, type Stage, type StageOf } from '.';

const fresh = newStage('electrodeionizer', 'edi');
/** Row N19 of the chapter on kinds: strong 0.07 meq/L, carbon 0.12 mmol/L, silica 0.3, boron 0.05 mg/L. */
const permeate = balanced(solutesMgL({ Na: 0.07 * 22.99, Cl: 0.07 * 35.453, SiO2: 0.3, B: 0.05 }), 0.12, 25);
const stack: StageOf<'electrodeionizer'> = { ...fresh, cells: 24, nominalLPerH: 2300, amp: 3, ratedV: 130, ratedA: 2.5, mostV: 200 };
const out = (changes: Partial<StageOf<'electrodeionizer'>> = {}) =>
  value(kindOf<Stage>(stack).treat({ ...stack, ...changes }, { water: permeate, flowLPerH: 2300, use: {}, inLoop: false })).water;

/** The skid of a laboratory with a stack in place of its mixed bed. */
const base = systemFromTemplate({ id: 's', name: 'Lab', site: 'Bench', template: 'skid', at: '2026-01-01T00:00:00Z' });
const feed = value(tapWater(base.source, base.instruments)).water;
const lab = (changes: Partial<StageOf<'electrodeionizer'>> = {}) => {
  const stages = base.train.stages.map((stage): Stage => (stage.kind === 'resin' ? { ...fresh, ...changes } : stage));
  const probes = base.train.probes.map((probe) =>
    stages.some(({ id }) => id === probe.after) || probe.after === 'tap' ? probe : { ...probe, after: 'edi' },
  );
  return value(reportTrain({ ...base, train: { ...base.train, stages, probes, loop: null } }, feed));
};

describe('an electrodeionizer', () => {
  it('N19 through the stage: 16 MΩ·cm, silica and boron by its current', () => {
    const water = out();
    expectWithin(1000 * water.mgL.SiO2, 10.65, 0.01);
    expectWithin(1000 * water.mgL.B, 3.671, 0.01);
    expectWithin(1 / value(settleWater(water)).ec25UScm, 16.07, 0.03);
    expect(out({ amp: 0 }).mgL.SiO2).toBeGreaterThan(0.29);
  });
  it('a supply too weak for cold water gives what it can', () => {
    const cold = { ...permeate, temperatureC: 5 };
    const at = (mostV: number) =>
      value(kindOf<Stage>(stack).treat({ ...stack, mostV }, { water: cold, flowLPerH: 2300, use: {}, inLoop: false })).water.mgL.SiO2;
    expect(at(90)).toBeGreaterThan(3 * at(400));
  });
  it('sends a share to the drain while it runs: more is drawn, less is made, and power is booked', () => {
    const [most, less] = [lab({ recovery: 0.95 }), lab({ recovery: 0.8 })];
    const { before, after } = standingAt({ ...base, train: less.train }, less, 'edi')!;
    expectWithin(after.flowLPerH / before.flowLPerH, 0.8, 1e-9);
    // Behind the tank as much is drawn as before: what runs into it is more.
    expectWithin(after.flowLPerH, base.train.drawLPerH, 1e-9);
    expectWithin(less.solved.productLPerH / most.solved.productLPerH, 0.8 / 0.95, 0.01);
    expect(less.ledger.feedL).toBeGreaterThan(1.1 * most.ledger.feedL);
    expect(less.energyKWhPerM3!).toBeGreaterThan(lab({ recovery: 0.8, amp: 0 }).energyKWhPerM3!);
    // The product is what leaves at the end.
    expectNear(polishedStation(less.solved).water.mgL.Ca, 0, 0.01);
  });
  it('says what ruins it: hardness by its recovery, chlorine, a feed beyond its sheet', () => {
    const ids = (report: ReturnType<typeof lab>): string[] => report.findings.map(({ id }) => id);
    expect(ids(lab({ recovery: 0.98 }))).toContain('stack-hard-edi');
    expect(ids(lab({ mostFeedUScm: 1 }))).toContain('stack-feed-edi');
    expect(ids(lab({ amp: 0 }))).toContain('stack-off-edi');
  });
});
