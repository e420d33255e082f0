import { describe, expect, it } from 'vitest';
import { reportTrain } from '../advice';
import { systemFromTemplate } from '../template';
import { expectNear, expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { placed, kindOf, newStage, type Stage, type StageOf } from '.';

/** The skid of a laboratory with a pump that doses ahead of its membrane. */
const base = systemFromTemplate({ id: 's', name: 'Lab', site: 'Bench', template: 'skid', at: '2026-01-01T00:00:00Z' });
const fresh = newStage('dosingPump', 'dose');
const withDose = (changes: Partial<StageOf<'dosingPump'>>) => ({
  ...base,
  train: { ...base.train, stages: placed(base.train.stages, { ...fresh, ...changes }) },
});
const report = (changes: Partial<StageOf<'dosingPump'>>) => {
  const system = withDose(changes);
  return value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));
};
const said = (changes: Partial<StageOf<'dosingPump'>>): string[] =>
  report(changes)
    .findings.filter(({ id }) => id.startsWith('dose'))
    .map(({ title }) => title.replaceAll('\u202f', ' '));

describe('a dosing pump', () => {
  it('with antiscalant lets the waste go further past saturation, by its dose', () => {
    expect(kindOf<Stage>(fresh).holdsScale(fresh)!.calciteIndex).toBe(1.8);
    expectWithin(kindOf<Stage>(fresh).holdsScale({ ...fresh, doseMgL: 1.5 })!.percent.gypsum, 135.6, 0.005);
    expect(kindOf<Stage>(fresh).holdsScale({ ...fresh, agent: 'sulfuricAcid' })).toBeNull();
    const [none, full] = [report({ doseMgL: 0 }).scale!, report({}).scale!];
    expect(full.actionIndex - none.actionIndex).toBeGreaterThan(1.4);
    expect(full.safeRecovery!).toBeGreaterThan(none.safeRecovery ?? 0);
    // What it holds, it holds at the same water.
    expectNear(full.index, none.index, 1e-9);
  });
  it('doses acid to a pH, whatever the water; its proof is the pH, not the conductivity', () => {
    const { solved } = report({ agent: 'hydrochloricAcid', targetPH: 6.8 });
    const at = solved.stations.findIndex(({ after }) => after === 'dose');
    expectNear(solved.stations[at]!.state.pH, 6.8, 0.01);
    expect(solved.stations[at]!.state.co2MgL).toBeGreaterThan(solved.stations[at - 1]!.state.co2MgL);
  });
  it('takes chlorine with bisulfite, and says where it is too little', () => {
    const system = withDose({ agent: 'bisulfite', doseMgL: 3 });
    const water = { ...value(tapWater(system.source, system.instruments)).water };
    const chlorinated = { ...water, mgL: { ...water.mgL, chlorine: 1 } };
    const bisulfite: StageOf<'dosingPump'> = { ...fresh, agent: 'bisulfite', doseMgL: 3 };
    const out = value(kindOf<Stage>(bisulfite).treat(bisulfite, { water: chlorinated, flowLPerH: 100, use: {}, inLoop: false })).water;
    expectNear(out.mgL.chlorine, 0, 1e-9);
    const short: StageOf<'dosingPump'> = { ...bisulfite, doseMgL: 0.5 };
    expect(
      value(kindOf<Stage>(short).treat(short, { water: chlorinated, flowLPerH: 100, use: {}, inLoop: false })).water.mgL.chlorine,
    ).toBeGreaterThan(0.5);
  });
  it('says what it gives, and where its pump is too small or too large for that', () => {
    expect(said({ mostLPerH: 1 })[0]).toMatch(/^Dosing pump gives \d+ mL\/h, \d+ % of its most$/);
    expect(said({ mostLPerH: 0.001 })[0]).toMatch(/^Dosing pump cannot give \d+ mL\/h$/);
    expect(said({ doseMgL: 8 }).some((title) => /^8(\.0+)? mg\/L of antiscalant is too much$/.test(title))).toBe(true);
    expect(said({ doseMgL: 0 })).toEqual(['Dosing pump has nothing to do']);
  });
  it('is paid for by the kilogram', () => {
    const { ledger } = report({});
    expect(ledger.lines.chemicals!).toBeGreaterThan(0);
    expectWithin(ledger.lines.chemicals!, report({ doseMgL: 1.5 }).ledger.lines.chemicals! * 2, 0.01);
  });
});
