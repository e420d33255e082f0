import { priceList } from '../ledger';
import { describe, expect, it } from 'vitest';
import type { System } from '../file';
import { type StageOf, type TrainUse, newStage } from '../stage';
import { expectWithin, value } from '../testing/close';
import { dirtLoading, loadingLitres } from '../pretreatment';
import { wornTrain } from './wear';
import { gatherFacts, reportTrain, type TrainReport } from '../advice';
import { systemFromTemplate } from '../template';
import { tapWater } from './feed';

const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const feed = value(tapWater(system.source, system.instruments)).water;
const withTank = (changes: Partial<StageOf<'tank'>>, of: System = system): System => ({
  ...of,
  train: { ...of.train, stages: of.train.stages.map((stage) => (stage.kind === 'tank' ? { ...stage, ...changes } : stage)) },
});
const report = (of: System, use: TrainUse = {}): TrainReport => value(reportTrain(of, feed, use));
const titles = (of: System, use: TrainUse = {}): string =>
  report(of, use)
    .findings.map((finding) => finding.title)
    .join('\n');

describe('a train as its use has left it', () => {
  // Membrane chapter, section 8: residential 12 % of output a year, 20 % more salt.
  it('a household membrane of two years makes 0.88² and passes 1.2²', () => {
    const stage = wornTrain(system.train, 0.5, { membrane: { years: 2 } }).stages.find(
      (one) => one.kind === 'membrane',
    ) as StageOf<'membrane'>;
    expectWithin(stage.waterFactor!, 0.7744, 1e-9);
    expectWithin(stage.saltFactor!, 1.44, 1e-9);
  });
  it('what was measured stands whatever the age', () => {
    const measured = { ...newStage('membrane', 'membrane'), waterFactor: 0.9, saltFactor: 1.1 };
    const [stage] = wornTrain({ ...system.train, stages: [measured] }, 0.5, { membrane: { years: 5 } }).stages;
    expect(stage).toMatchObject({ waterFactor: 0.9, saltFactor: 1.1 });
  });
  // Membrane chapter, section 12: dirt = flow × turbidity × 1 mg/L per NTU.
  it('10,000 L at 0.5 NTU bring 5 g of the 10 a filter holds', () => {
    expectWithin(dirtLoading(10_000, 0.5, 10), 0.5, 1e-12);
    expect(dirtLoading(1e6, 0.5, 10)).toBe(0.95);
  });
  it('age and dirt cost output; salt passage rises', () => {
    const old = report(system, { membrane: { years: 2 }, sediment: { passedL: 19_000 } });
    const now = report(system);
    expect(old.solved.productLPerH).toBeLessThan(0.8 * now.solved.productLPerH);
    expect(old.solved.unit!.rejection!).toBeLessThan(now.solved.unit!.rejection!);
  });
  it('carbon that has had its litres lets chlorine through, and says so before', () => {
    const litres = report(system).solved.carbons[0]!.state.litresLeft!;
    expect(titles(system, { carbon: { passedL: 0.9 * litres } })).toMatch(/Carbon: 90.% of its chlorine capacity is used/);
    const spent = report(system, { carbon: { passedL: 1.2 * litres } });
    expect(spent.findings.filter((finding) => finding.severity === 'bad').map((finding) => finding.id)).toContain('chlorine');
  });
});

describe('tanks in the train', () => {
  it('gas in a closed tank pushes back and costs output; it fills slower than the open one', () => {
    const open = report(withTank({ openToAir: false }));
    const gas = report(withTank({ openToAir: false, prechargeBar: 0.5, volumeL: 15 }));
    expect(gas.solved.productLPerH).toBeLessThan(0.75 * open.solved.productLPerH);
    const { heldL, hours, shutOffBar } = value(gas.bladder!);
    // Membrane chapter, section 5: shut-off at two thirds of line pressure; isothermal gas.
    expectWithin(shutOffBar, (2 / 3) * 4, 1e-9);
    expectWithin(heldL, 15 * (1 - (0.5 + 1.01325) / (shutOffBar + 1.01325)), 1e-9);
    expect(hours).toBeGreaterThan(heldL / open.solved.productLPerH);
    expect(titles(withTank({ openToAir: false, prechargeBar: 0.5, volumeL: 15 }))).toContain('The closed tank gives');
  });
  it('a float that stops a hand above where it starts is named', () => {
    expect(titles(withTank({ volumeL: 20, startShare: 0.8, stopShare: 0.82 }))).toMatch(/The float starts the unit \d\d times a day/);
    expect(titles(withTank({ startShare: 0.8, stopShare: 0.7 }))).toContain('The float cannot switch the unit');
  });
});

describe('what a year of water costs', () => {
  const facts = value(gatherFacts(system, feed));
  const { ledger, year, demandLPerDay, lives } = facts;
  const DAYS = 365.25;
  it('water and sewer by what is drawn and wasted for a litre, at two a cubic metre each', () => {
    const made = demandLPerDay * DAYS;
    expectWithin(ledger.lines.water!, (2 * made * year.feedPerL) / 1000, 1e-9);
    expectWithin(ledger.lines.sewer!, (2 * made * (year.feedPerL - 1)) / 1000, 1e-9);
    expectWithin(ledger.feedL - ledger.wasteL, made, 1e-9);
  });
  it('resin is paid by the litres it lasts over the year', () => {
    const life = lives.find(({ stage }) => stage.kind === 'resin')!;
    const volumeL = (system.train.stages.find((stage) => stage.kind === 'resin') as StageOf<'resin'>).volumeL;
    expectWithin(ledger.lines.resin!, (demandLPerDay * DAYS * volumeL * 6) / life.everyL!, 1e-9);
  });
  it('everything that is changed has its part, and the lines make the sum', () => {
    const { visits = 0, ...running } = ledger.lines;
    expectWithin(
      Object.values(running).reduce((sum, amount) => sum + amount, 0),
      ledger.running,
      1e-12,
    );
    expect(visits).toBe(ledger.visits);
    // A sediment cartridge at 8 as often as it is four fifths full of dirt: sooner than twice a year.
    const drawnL = demandLPerDay * DAYS * year.feedPerL;
    const sediment = system.train.stages.find((stage) => stage.kind === 'sediment') as StageOf<'sediment'>;
    const each = loadingLitres(0.8, system.source.turbidityNTU, sediment.holdsG);
    expectWithin(ledger.lines.prefilters!, (8 * drawnL) / each, 1e-6);
    // Half a litre of carbon at 30 a litre twice a year, long before its chlorine.
    expectWithin(ledger.lines.carbon!, (2 * 15 * DAYS) / 366, 1e-6);
    // The membrane by its life: two thirds of what it costs with its housing, see the price list.
    const membrane = lives.find(({ stage }) => stage.kind === 'membrane')!;
    expectWithin(ledger.lines.membrane!, (priceList(system).piece('household75') * DAYS) / membrane.days!, 1e-9);
  });
  it('an espresso cartridge is in the price of its water', () => {
    const bar = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'espressoBar', at: '2026-11-23T10:00:00Z' });
    const at = (cartridgePerL: number): number =>
      value(gatherFacts({ ...bar, prices: { ...bar.prices, cartridgePerL } }, value(tapWater(bar.source, bar.instruments)).water)).ledger
        .lines.cartridges!;
    const volumeL = (bar.train.stages.find((stage) => stage.kind === 'decarboniser') as StageOf<'decarboniser'>).volumeL;
    // By its litres or by the year, whichever comes first: at least one a year.
    expect(at(50) - at(25)).toBeGreaterThanOrEqual(25 * volumeL - 1e-9);
  });
});

describe('feed the membrane does not stand', () => {
  it('2 mmol/L of lye is a finding with both figures', () => {
    const lye = { ...feed, alkalinityMgL: feed.alkalinityMgL + 100, mgL: { ...feed.mgL, Na: feed.mgL.Na + 45.94 } };
    const findings = value(reportTrain(system, lye)).findings;
    expect(findings.find((finding) => finding.id === 'pH')?.title).toMatch(/Feed at pH 1[012]\.\d, the membrane stands 3 to 10/);
  });
  it('too much pressure offers a regulator', () => {
    const high = { ...system, source: { ...system.source, linePressureBar: 7 } };
    expect(report(high).findings.find((finding) => finding.id === 'pressure')?.action).toMatchObject({ do: 'setRegulator' });
    const mended = { ...high, source: { ...high.source, regulatorBar: 4.1 } };
    expect(report(mended).findings.find((finding) => finding.id === 'pressure')).toBeUndefined();
  });
});
