import { describe, expect, it } from 'vitest';
import { reportTrain } from '../advice';
import { systemFromTemplate } from '../template';
import { expectNear, expectWithin, failure, value } from '../testing/close';
import { tapWater } from '../train';
import { placed, kindOf, newStage, type Stage, type StageOf } from '.';

/** The skid of a laboratory, whose permeate carries the carbon dioxide of its tap. */
const base = systemFromTemplate({ id: 's', name: 'Lab', site: 'Bench', template: 'skid', at: '2026-01-01T00:00:00Z' });
const fresh = newStage('degasser', 'gas');
const feed = value(tapWater(base.source, base.instruments)).water;
const report = (changes: Partial<StageOf<'degasser'>> | null) => {
  const stages = changes ? placed(base.train.stages, { ...fresh, ...changes }) : base.train.stages;
  return value(reportTrain({ ...base, train: { ...base.train, stages } }, feed));
};

describe('a degasser', () => {
  const plain = report(null);
  const with_ = report({});
  it('takes free carbon dioxide, leaves alkalinity, and resin behind it lasts longer', () => {
    const at = with_.solved.stations.findIndex(({ after }) => after === 'gas');
    const [before, after] = [with_.solved.stations[at - 1]!, with_.solved.stations[at]!];
    expect(after.state.co2MgL).toBeLessThan(0.5 * before.state.co2MgL);
    expect(after.state.pH).toBeGreaterThan(before.state.pH + 0.2);
    expect(after.water.alkalinityMgL).toBe(before.water.alkalinityMgL);
    expect(after.water.mgL).toEqual(before.water.mgL);
    expect(with_.resin!.change.everyL!).toBeGreaterThan(1.2 * plain.resin!.change.everyL!);
  });
  it('goes by its data sheet where one is typed: 20 to 2 mg/L at its own flow', () => {
    const stage: StageOf<'degasser'> = { ...fresh, sheet: { atLPerH: 1000, co2InMgL: 20, co2OutMgL: 2 }, sweepLPerH: 3000 };
    // A permeate at 25 °C with 20 mg/L of free CO2 beside 0.1 meq/L of bicarbonate.
    const water = { ...feed, temperatureC: 25, mgL: { ...feed.mgL }, alkalinityMgL: 5, carbonMmolL: 0.1 + 20 / 44.01 };
    const out = value(kindOf<Stage>(stage).treat(stage, { water, flowLPerH: 1000, use: {}, inLoop: false })).water;
    expectNear((water.carbonMmolL - out.carbonMmolL) * 44.01, 18, 0.5);
  });
  it('refuses a vacuum in which the water boils, by name and figure', () => {
    const error = failure(
      kindOf<Stage>(fresh).treat(
        { ...fresh, gasBar: 0.02 },
        { water: { ...feed, temperatureC: 25 }, flowLPerH: 100, use: {}, inLoop: false },
      ),
    );
    expect(error.field).toBe('gasPressureBar');
    expect(error.message).toMatch(/water boils in the fibres; accepted is 0\.038 bar or more/);
  });
  it('open to the air leaves no pressure, and says so', () => {
    const tower = report({ device: 'tower' });
    expect(tower.solved.stations.find(({ after }) => after === 'gas')!.pressureBar).toBe(0);
    expect(tower.findings.map(({ id }) => id)).toContain('degas-open-gas');
  });
  it('finds nothing to take in alkaline water', () => {
    const water = { ...feed, carbonMmolL: feed.alkalinityMgL / 50.0435 };
    const out = value(kindOf<Stage>(fresh).treat(fresh, { water, flowLPerH: 100, use: {}, inLoop: false })).water;
    expectWithin(out.carbonMmolL, water.carbonMmolL, 0.02);
  });
});
