import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withSample, type System } from '../file';
import { type Stage, type StageOf, newStage } from '../stage';
import { lengthForRatio, solveMembraneUnit, speciesOfWater } from '../membrane';
import { expectNear, expectWithin, value } from '../testing/close';
import { calciteIndex, type Water } from '../water';
import { membraneOperation, solveTrain } from './solve';
import { systemFromTemplate, TEMPLATE_ROWS } from '../template';
import { polishedStation, type SolvedTrain } from './solved';
import { reportTrain } from '../advice';
import { tapWater } from './feed';
import { METRIC_UNITS, words } from '../quantity';

const base = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-11-23T10:00:00Z' });
const waterOf = (system: System): Water => value(tapWater(system.source, system.instruments)).water;
const solve = (stages: readonly Stage[], linePressureBar = 4, temperatureC = 15): SolvedTrain =>
  value(solveTrain({ ...base.train, stages: [...stages] }, { linePressureBar }, { ...waterOf(base), temperatureC }));
const changed = <K extends Stage['kind']>(kind: K, change: Partial<StageOf<K>>): Stage[] =>
  base.train.stages.map((stage) => (stage.kind === kind ? ({ ...stage, ...change } as Stage) : stage));

// Common practice: what every fitter expects of a train, whatever its size.
describe('laws of a train', () => {
  const pressure = fc.double({ min: 2, max: 6, noNaN: true });
  const temperature = fc.double({ min: 4, max: 30, noNaN: true });
  it('more pressure: more product, and purer behind the membrane', () => {
    fc.assert(
      fc.property(pressure, temperature, (bar, t) => {
        const low = solve(base.train.stages, bar, t);
        const high = solve(base.train.stages, bar * 1.15, t);
        expect(high.productLPerH).toBeGreaterThan(low.productLPerH);
        expect(high.stations[3]!.state.ec25UScm).toBeLessThan(low.stations[3]!.state.ec25UScm);
      }),
      { numRuns: 25 },
    );
  });
  it('warmer water: more product, less pure', () => {
    fc.assert(
      fc.property(pressure, temperature, (bar, t) => {
        const cold = solve(base.train.stages, bar, t);
        const warm = solve(base.train.stages, bar, t + 4);
        expect(warm.productLPerH).toBeGreaterThan(cold.productLPerH);
        expect(warm.stations[3]!.water.mgL.Na).toBeGreaterThan(cold.stations[3]!.water.mgL.Na);
      }),
      { numRuns: 25 },
    );
  });
  it('a clogged filter or a lifted tank costs product, never adds any', () => {
    const clean = solve(base.train.stages).productLPerH;
    fc.assert(
      fc.property(fc.double({ min: 0.25, max: 0.95, noNaN: true }), fc.double({ min: 0.5, max: 20, noNaN: true }), (loading, liftM) => {
        expect(solve(changed('sediment', { loading })).productLPerH).toBeLessThan(clean);
        expect(solve(changed('tank', { liftM })).productLPerH).toBeLessThan(clean);
      }),
      { numRuns: 20 },
    );
  });
  it('an aged membrane makes less and passes more', () => {
    const aged = solve(changed('membrane', { waterFactor: 0.8, saltFactor: 1.5 }));
    const fresh = solve(base.train.stages);
    expectWithin(aged.productLPerH / fresh.productLPerH, 0.8, 0.04);
    expect(aged.stations[3]!.state.ec25UScm).toBeGreaterThan(fresh.stations[3]!.state.ec25UScm * 1.3);
  });
  it('a second element on the same restrictor nearly doubles the product and halves the ratio', () => {
    const one = solve(base.train.stages);
    const two = solve(changed('membrane', { arrangement: 'series' }));
    expectWithin(two.productLPerH / one.productLPerH, 1.98, 0.03);
    expectWithin(two.unit!.wasteToProduct! / one.unit!.wasteToProduct!, 0.5, 0.05);
  });
  it('side by side or in series on the waste come to nearly the same output (section 10)', () => {
    const series = solve(changed('membrane', { arrangement: 'series' }));
    const parallel = solve(changed('membrane', { arrangement: 'parallel' }));
    expectWithin(parallel.productLPerH, series.productLPerH, 0.01);
    expect(series.stations[3]!.state.ec25UScm).toBeLessThan(parallel.stations[3]!.state.ec25UScm);
  });
  it('pressure never rises along the way, nor falls below zero', () => {
    fc.assert(
      fc.property(pressure, (bar) => {
        const { stations } = solve(base.train.stages, bar);
        const before = stations.slice(0, 3).map((station) => station.pressureBar);
        const behind = stations.slice(3).map((station) => station.pressureBar);
        for (const run of [before, behind]) run.slice(1).forEach((p, i) => expect(p).toBeLessThanOrEqual(run[i]! + 1e-12));
        expect(Math.min(...before, ...behind)).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 20 },
    );
  });
  it('an open tank before the membrane takes its pressure away', () => {
    const tank = { ...newStage('tank', 'early'), name: 'Break tank' };
    expect(solve([tank, ...base.train.stages]).unit!.noProduction).toBe(true);
    expect(solve([{ ...tank, openToAir: false }, ...base.train.stages]).productLPerH).toBeGreaterThan(1);
  });
  it('the order of sediment and carbon changes nothing but their own places', () => {
    const [sediment, carbon, ...rest] = base.train.stages as [Stage, Stage, ...Stage[]];
    expectWithin(solve([carbon, sediment, ...rest]).productLPerH, solve(base.train.stages).productLPerH, 1e-5);
  });
  it('resin before a membrane spares it the scale and is spent at the feed’s rate', () => {
    const [sediment, carbon, membrane, resin, tank] = base.train.stages as [Stage, Stage, Stage, Stage, Stage];
    const solved = solve([sediment, carbon, { ...resin, volumeL: 7, depthMm: 400 } as Stage, membrane, tank]);
    expect(solved.stations[3]!.state.hardnessMgL).toBeLessThan(0.01);
    expect(solved.resins[0]!.feed.mgL.Ca).toBeGreaterThan(40);
  });
});

describe('the ratio at which scale begins', () => {
  it.each([165, 180])('found by mass balance at %s ppm, it holds when the whole unit is set to it', (reading) => {
    const system: System = { ...base, source: withSample(base.source, { reading }), train: { ...base.train, scaleActionIndex: 0 } };
    const report = value(reportTrain(system, waterOf(system)));
    const ratio = report.scale!.ratioAtAction!;
    expect(ratio).toBeGreaterThan(3);
    expect(ratio).toBeLessThan(7);
    const at = membraneOperation(system.train, system.source, report.solved)!;
    const conditions = { ...at.conditions, temperatureC: at.feed.temperatureC };
    const lengthMm = value(lengthForRatio(at.unit, value(speciesOfWater(at.feed)), conditions, ratio));
    const set = value(solveMembraneUnit({ ...at.unit, restrictor: { ...at.unit.restrictor, lengthMm } }, at.feed, at.conditions));
    expectNear(value(calciteIndex(set.concentrate, set.concentrate.temperatureC)), 0, 0.01);
  });
  it('is acted on by how the unit is run (common practice): resting, never resting, with an inhibitor', () => {
    const acted = (system: System): number => value(reportTrain(system, waterOf(system))).scale!.actionIndex;
    const busy: System = { ...base, goal: { ...base.goal, demand: { ...base.goal.demand, dayL: new Array<number>(7).fill(150) } } };
    const stages = base.train.stages.toSpliced(0, 0, newStage('inhibitor', 'dose'));
    expect([acted(base), acted(busy), acted({ ...base, train: { ...base.train, stages } })]).toEqual([0.3, 0, 1.8]);
  });
  it('is missing where there is no calcium to settle', () => {
    const soft: System = { ...base, source: withSample(base.source, { character: 'softened', reading: 300 }) };
    const report = value(reportTrain(soft, waterOf(soft)));
    expect(report.scale!.index).toBeLessThan(0);
    expect(report.findings.find((finding) => finding.id === 'scale')!.severity).toBe('good');
  });
});

describe('templates', () => {
  it.each(Object.keys(TEMPLATE_ROWS) as (keyof typeof TEMPLATE_ROWS)[])(
    '%s meets its own need on a middling tap, in winter too',
    (template) => {
      const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
      const report = value(reportTrain(system, waterOf(system)));
      expect(report.solved.productLPerH * 24).toBeGreaterThan(report.demandLPerDay);
      if (report.winter) expect(report.winter.productLPerDay).toBeGreaterThan(report.demandLPerDay);
      expect(report.findings.filter((finding) => finding.severity === 'bad')).toEqual([]);
      // Coffee and fish want minerals and sea water is drunk at some hundred µS/cm; everything else leaves next to nothing.
      const drunk = ['watermaker', 'espressoBar', 'counterSoft', 'counterHard', 'breeder'].includes(template);
      expect(polishedStation(report.solved).state.ec25UScm).toBeLessThan(drunk ? 1000 : 20);
      expect(report.branches.flatMap((branch) => branch.findings).filter((finding) => finding.severity === 'bad')).toEqual([]);
    },
  );
  it('every finding carries a number', () => {
    for (const template of Object.keys(TEMPLATE_ROWS) as (keyof typeof TEMPLATE_ROWS)[]) {
      const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
      for (const finding of value(reportTrain(system, waterOf(system))).findings) expect(finding.title, finding.id).toMatch(/\d/);
    }
  });
});

describe('figures in sentences', () => {
  const say = words({ ...METRIC_UNITS, hardness: '°dH' });
  const plain = (text: string): string => text.replaceAll('\u202f', ' ');
  it.each([
    [plain(say.ratio(4)), '4.0 : 1'],
    [plain(say.ratio(12.4)), '12 : 1'],
    [plain(say.perDay(61)), '61 L/day'],
    [plain(say.of(178.48, 'hardnessMgL')), '10 °dH'],
    [say.index(0.44), '+0.4'],
    [say.index(-1.26), '−1.3'],
    [say.days(3), '3 days'],
    [say.days(21), '3 weeks'],
    [say.days(120), '4 months'],
    [say.days(1100), '3 years'],
  ])('%s', (got, wanted) => expect(got).toBe(wanted));
});
