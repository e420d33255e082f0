import { describe, expect, it } from 'vitest';
import { reportTrain } from '../advice';
import { allStages, NOTHING_SAID, type Reading, type System } from '../file';
import { serviced, standing } from '../log';
import { systemFromTemplate } from '../template';
import { expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { settleWater } from '../water';
import { kindOf, newStage, type Stage, type StageOf } from '.';

/** A tap through carbon and a pair of beds, as a workshop without a membrane has it. */
const base = systemFromTemplate({ id: 's', name: 'Workshop', site: 'Bench', template: 'skid', at: '2026-01-01T00:00:00Z' });
const fresh = newStage('twoBed', 'beds');
const system = (changes: Partial<StageOf<'twoBed'>> = {}): System => {
  const carbon = base.train.stages.filter(({ kind }) => kind === 'carbon');
  const stages: Stage[] = [...carbon, { ...fresh, ...changes }];
  const probes = [
    { ...base.train.probes[0]!, after: 'tap' },
    { ...base.train.probes[0]!, id: 'product', name: 'Product', after: 'beds' },
  ];
  return { ...base, train: { ...base.train, stages, probes, branches: [], loop: null, drawLPerH: 200 } };
};
const tap = value(tapWater(base.source, base.instruments)).water;
/** Behind its carbon. */
const feed = { ...tap, mgL: { ...tap.mgL, chlorine: 0, chloramine: 0 } };
const report = (changes: Partial<StageOf<'twoBed'>> = {}) => value(reportTrain(system(changes), feed));
const out = (changes: Partial<StageOf<'twoBed'>> = {}) =>
  value(kindOf<Stage>(fresh).treat({ ...fresh, ...changes }, { water: feed, flowLPerH: 200, use: {}, inLoop: false })).water;

describe('a two-bed deionizer', () => {
  it('leaves sodium as hydroxide: alkaline, 10.7 µS/cm for each mg/L (chapter on kinds, §4)', () => {
    const water = out();
    const state = value(settleWater(water));
    expect(state.pH).toBeGreaterThan(8);
    // Without silica, which takes part of the hydroxide.
    const clear = out({ causticGPerL: 160, causticC: 50 });
    expectWithin(value(settleWater(clear)).ec25UScm, 10.7 * clear.mgL.Na, 0.05);
    expect(water.mgL.Ca).toBe(0);
    // More acid, or acid against the water, leaves less.
    expect(out({ acidGPerL: 160 }).mgL.Na).toBeLessThan(0.4 * water.mgL.Na);
    expect(out({ way: 'counterCurrent' }).mgL.Na).toBeLessThan(0.2 * water.mgL.Na);
    expect(out({ causticC: 50 }).mgL.SiO2).toBeLessThan(water.mgL.SiO2);
  });
  it('weak base lets carbon dioxide and silica through', () => {
    const water = out({ anionType: 'weakBase' });
    expect(water.carbonMmolL).toBe(feed.carbonMmolL);
    expect(water.mgL.SiO2).toBe(feed.mgL.SiO2);
    expect(out({ anionType: 'weakBase', degassedToMgL: 5 }).carbonMmolL).toBeLessThan(0.2);
  });
  it('says how long a cycle is, which bed ends it, and where gypsum would fall out', () => {
    const ids = (changes: Partial<StageOf<'twoBed'>>): string[] => report(changes).findings.map(({ id }) => id);
    expect(ids({ anionL: 10 })).toContain('two-bed-silica-beds');
    expect(ids({ anionL: 10, degassedToMgL: 5 }).length).toBeGreaterThan(0);
    expect(ids({ acid: 'H2SO4', acidPercent: 0.06 })).toContain('two-bed-gypsum-beds');
    expect(ids({ acid: 'H2SO4', acidPercent: 0.01 })).not.toContain('two-bed-gypsum-beds');
    expect(ids({ anionType: 'strongII', causticC: 45 })).toContain('two-bed-hot-beds');
  });
  it('books acid and caustic, and the water of its rinses', () => {
    const { ledger } = report();
    expect(ledger.lines.chemicals!).toBeGreaterThan(1);
    expect(ledger.wasteL).toBeGreaterThan(0);
    // Twice the resin, half as often, each time twice: the same.
    expectWithin(report({ cationL: 40, anionL: 60 }).ledger.lines.chemicals!, ledger.lines.chemicals!, 0.01);
  });
  it('counts its litres from the last regeneration that was written down', () => {
    const readings: Reading[] = ['2026-02-01', '2026-02-21'].map((day, i) => ({
      id: `r${i}`,
      systemId: 's',
      at: `${day}T08:00:00Z`,
      values: [{ probeId: 'product', instrumentId: base.train.probes[0]!.instrumentId, shown: 8 }],
      pressureBar: null,
      temperatureC: null,
      productLPerH: null,
      wasteLPerH: null,
      meterL: 10_000 * i,
      ...NOTHING_SAID,
    }));
    const here = system({ fittedOn: '2026-02-01' });
    const now = '2026-02-21T08:00:00Z';
    const passed = (one: System): number => value(standing(one, readings, feed, now)).use['beds']!.passedL!;
    const done = { id: 'd', stageId: 'beds', instrumentId: null, work: 'regenerated', why: 'due', note: '' } as const;
    const after = serviced(here, { ...done, at: '2026-02-16T08:00:00Z' }, {});
    expect(passed(after)).toBeLessThan(0.35 * passed(here));
    // Its resin is still the one that was fitted then.
    expect(allStages(after.train).find(({ id }) => id === 'beds')).toMatchObject({ fittedOn: '2026-02-01' });
  });
});
