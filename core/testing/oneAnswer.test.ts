import { describe, expect, it } from 'vitest';
import { loopReport, reportTrain, type TrainReport } from '../advice';
import { benchOf, candidate, judgeOption, lookAt, rowBy, searchOf, titleBy, trainBy } from '../choice';
import { NO_KIT, NOTHING_SAID, TEMPLATE_IDS, withSample, type Reading, type System, type TemplateId } from '../file';
import { evenDemand, GOAL_ROWS, goalLimits, judge, productLPerDay, strengthLimit, type GoalId } from '../goal';
import { dueOf, logFindings, standing, trackResin, type Standing } from '../log';
import { words } from '../quantity';
import { systemFromTemplate } from '../template';
import { tapWater, type SolvedTrain } from '../train';
import { aheadOf, simulateYears } from '../year';
import { DEMO_NOW, readDemo } from './demo';
import { expectWithin, value } from './close';

/** One question has one answer, case by case: what two panels once said differently of one thing. */

const AT = '2026-11-23T10:00:00Z';
const made = (template: TemplateId, change: (s: System) => System = (s) => s): System =>
  change(systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: AT }));
const tapOf = (system: System) => value(tapWater(system.source, system.instruments));
function reportOf(system: System): TrainReport {
  const tap = tapOf(system);
  return value(reportTrain(system, tap.water, {}, undefined, tap));
}
function todayOf(system: System, readings: readonly Reading[] = [], now = AT): Standing {
  const tap = tapOf(system);
  return value(standing(system, readings, tap.water, now, tap));
}
const plain = (text: string): string => text.replaceAll(/[\u202f\u2009]/g, ' ');
const goal = (system: System, id: GoalId, changes: Partial<System['goal']> = {}): System => ({
  ...system,
  goal: { ...system.goal, id, school: null, ...changes },
});
/** A skid round a loop. */
const looped = (ventFilter: boolean): System =>
  made('skid', (s) => ({ ...s, train: { ...s.train, loop: { flowLPerH: 800, boreMm: 20, surfaceM2: 1, ventFilter } } }));
const withoutResin = (system: System): System => ({
  ...system,
  train: { ...system.train, stages: system.train.stages.filter(({ kind }) => kind !== 'resin'), loop: null },
});
const shown = (system: System, ...figures: number[]): Reading => ({
  id: 'r',
  systemId: system.id,
  at: AT,
  values: figures.map((one, i) => {
    const probe = system.train.probes[i]!;
    return { probeId: probe.id, instrumentId: probe.instrumentId, shown: one };
  }),
  pressureBar: null,
  temperatureC: null,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
});

describe('verdicts', () => {
  it.each(TEMPLATE_IDS)('%s without its resin: as many days off its limit in Year ahead as its worst water says', (template) => {
    const system = withoutResin(made(template));
    const tap = tapOf(system);
    const today = todayOf(system);
    const ahead = value(aheadOf(system, today, tap.water, Date.parse(AT), true));
    const { offSpecDays } = value(simulateYears(ahead.plant, 365));
    const missed = today.report.checks.find(({ limit }) => limit.quantity === 'ec25UScm' && limit.high !== null);
    if (!missed) return;
    // Far above its limit today it is above it all year; where it is far below, on no day.
    if (missed.value > 1.5 * missed.limit.high!) expect(offSpecDays).toBeGreaterThan(300);
    if (missed.value < 0.5 * missed.limit.high!) expect(offSpecDays).toBe(0);
  });
  it('a goal with a lower bound alone never asks for at most 0', () => {
    const system = goal(made('counterSoft'), 'ice');
    const limit = strengthLimit(system.goal, 0.5);
    expect(limit?.highUScm ?? 1).toBeGreaterThan(0);
    expect(limit?.lowUScm ?? 1).toBeGreaterThan(0);
    const found = logFindings(system, [shown(system, 480, 60)], todayOf(system).report.solved, null, AT);
    expect(found.map(({ title, why }) => `${title} ${why}`).join()).not.toContain('at most 0');
  });
  it('a boat’s product of 1,500 ppm goes overboard, and is a matter of now', () => {
    const { system } = readDemo('wibberjack-watermaker');
    const product = system.train.probes.at(-1)!;
    const meter = system.instruments.find(({ id }) => id === product.instrumentId)!;
    const ppm = 1500;
    const reading = {
      ...shown(system),
      at: DEMO_NOW,
      values: [{ probeId: product.id, instrumentId: meter.id, shown: meter.scale.kind === 'conductivity' ? 2 * ppm : ppm }],
    };
    const { report } = todayOf(system, [], DEMO_NOW);
    const found = logFindings(system, [reading], report.solved, null, DEMO_NOW).find(({ title }) => /overboard/.test(title));
    expect(found).toMatchObject({ severity: 'bad' });
  });
  it('what only an assumption breaks prunes no option, and is told', () => {
    const bar = made('espressoBar', (s) => ({
      ...s,
      source: {
        ...withSample(s.source, { way: 'kit', reading: null, kit: { ...NO_KIT, hardnessMgL: 150, alkalinityMgL: 110 } }),
        assumed: [],
      },
    }));
    const chloride = reportOf(bar).checks.find(({ limit }) => limit.quantity === 'chlorideMgL')!;
    expect(chloride.assumed).not.toBeNull();
    expect(chloride.verdict).not.toBe('missed');
    const sifted = searchOf(value(benchOf(bar)));
    expect(Object.values(sifted.pruned).every(({ nearest }) => nearest.rejection.field !== 'chlorideMgL')).toBe(true);
    expect(sifted.found.length).toBeGreaterThan(0);
  });
  it('the headline of a loop is its worst hour, and what the goal is judged by', () => {
    const lab = looped(true);
    const report = reportOf(lab);
    const loop = value(loopReport(lab, report.solved as SolvedTrain)!);
    expectWithin(1 / report.judgedUScm, Math.min(...loop.week.map(({ outletMOhmCm }) => outletMOhmCm)), 1e-9);
    expectWithin(report.loop!.worstMOhmCm, 1 / report.judgedUScm, 1e-9);
  });
  it('a limit set by hand is read as it was set', () => {
    const system = goal(made('skid'), 'custom', { ownLimits: [{ quantity: 'ec25UScm', low: null, high: 0.1 }] });
    const [limit] = goalLimits(system.goal, 0.5);
    expect(limit!.high).toBe(0.1);
    const titles = reportOf(system).findings.map(({ title }) => plain(title));
    expect(titles.join()).not.toMatch(/at most 0 ppm|at most 1 MΩ/);
  });
});

describe('money and energy', () => {
  it('a seawater membrane is bought by its life, not with every flush', () => {
    const boat = made('watermaker');
    const { parts } = reportOf(boat).ledger;
    const flush = parts.find(({ life }) => life.says === 'flush');
    const membrane = parts.find(({ life }) => life.stage.kind === 'membrane' && life.brings)!;
    expect(flush?.perYear ?? 0).toBe(0);
    expect(membrane.life.days!).toBeGreaterThan(365);
    expect(membrane.perYear).toBeLessThan(membrane.each);
  });
  it('salt of a softener is booked as salt', () => {
    const { lines, parts } = reportOf(made('counterHard')).ledger;
    expect(parts.filter(({ life }) => life.stage.kind === 'softener').every(({ line }) => line === 'salt')).toBe(true);
    expect(lines.salt).toBeGreaterThan(0);
  });
  it('an amount typed for the job reaches Costs and Options alike', () => {
    const bar = made('espressoBar');
    const dear: System = { ...bar, prices: { ...bar.prices, cartridgePerL: 10 * bar.prices.cartridgePerL } };
    for (const system of [bar, dear]) expectWithin(rowBy('today', 'today', system)!.figures.running, reportOf(system).ledger.running, 1e-6);
    expect(reportOf(dear).ledger.running).toBeGreaterThan(1.5 * reportOf(bar).ledger.running);
  });
});

describe('lives and dates', () => {
  it('a row of carbons has one life', () => {
    const { lives } = reportOf(made('marinePair'));
    const row = lives.filter(({ stage }) => stage.kind === 'carbon');
    expect(row).toHaveLength(2);
    expect(row[0]!.everyL).toBe(row[1]!.everyL);
  });
  it('a bed in a loop lasts by make-up and air, wherever it is told', () => {
    const lab = looped(false);
    const report = reportOf(lab);
    const loop = value(loopReport(lab, report.solved as SolvedTrain)!);
    expect(report.resin!.inLoop).toBe(true);
    const { until } = report.resin!.throughput;
    // Today's water and the mean of the year are not one: within a tenth.
    expectWithin(until.kind === 'litres' ? until.litres / productLPerDay(lab.goal) : 0, loop.polisherDays!, 0.1);
  });
  it('a pair has one date in the due list, and Year ahead begins with it', () => {
    const { system, readings } = readDemo('tressimoor-coral-nursery');
    const today = todayOf(system, readings, DEMO_NOW);
    const first = dueOf(system, today, DEMO_NOW).filter(({ work }) => work === 'movedUp' || work === 'changed');
    const beds = first.filter(({ stageId }) => system.train.stages.some(({ id, kind }) => id === stageId && kind === 'resin'));
    expect(beds).toHaveLength(1);
    const tracking = trackResin(system, readings, today.report.solved, DEMO_NOW)!;
    expect(beds[0]!.stageId).toBe(tracking.stageId);
  });
  it('the ratio moves with the season in Year ahead', () => {
    const system = made('marineHousehold');
    const ahead = value(aheadOf(system, todayOf(system), tapOf(system).water, Date.parse(AT), true));
    const months = [0, 180].map((from) => {
      const [before, until] = [from, from + 30].map((days) => value(simulateYears(ahead.plant, Math.max(1, days))));
      const made = Array.from(until!.madeL.subarray(from)).reduce((sum, litres) => sum + litres, 0);
      return (until!.feedL - (from === 0 ? 0 : before!.feedL)) / made;
    });
    expect(Math.max(...months) / Math.min(...months)).toBeGreaterThan(1.05);
  });
});

describe('options', () => {
  it('never recommend resin alone for what lives, on a tap with chloramine', () => {
    const living = goal(
      made('marineHousehold', (s) => ({
        ...s,
        source: withSample(s.source, { chlorineMgL: 0, chloramineMgL: 2 }),
        choice: {
          ...s.choice,
          kept: [
            { axis: 'element', values: ['household75'] },
            { axis: 'tankL', values: [120] },
          ],
        },
      })),
      'marineMakeUp',
    );
    expect(GOAL_ROWS['marineMakeUp'].living).toBe(true);
    const { found, pruned } = searchOf(value(benchOf(living)));
    expect(found.every(({ route }) => route !== 'resin')).toBe(true);
    expect(Object.keys(pruned)).toContain('quality');
  });
  it('on an estuary of 12 g/kg none is taken whose elements run far beyond their flux', () => {
    const estuary = made('watermaker', (s) => ({ ...s, source: withSample(s.source, { character: 'seawater', reading: 20_000 }) }));
    const bench = value(benchOf(estuary));
    for (const { id } of searchOf(bench).found) {
      const look = lookAt(candidate(bench.spaces, id)!, bench);
      const { ranks } = look.unitOn('warm', 'new')!.unit!;
      expect(Math.max(...ranks.flatMap(({ elements }) => elements.map(({ fluxLmh }) => fluxLmh)))).toBeLessThan(1.5 * 1.05 * 35 + 1e-6);
    }
  });
  it('an ice filter yes or no are two trains, and both have their name', () => {
    const counter = made('counterHard');
    const bench = value(benchOf(counter));
    const places = bench.spaces[0]!.axes.map(({ id, values }) => (id === 'iceFilter' ? values.length - 1 : 0));
    const [yes, no] = [places, places.map(() => 0)].map((at) => `${bench.spaces[0]!.id}:${at.join('.')}`) as [string, string];
    const kinds = (id: string): number => value(trainBy(id, counter)).stages.filter(({ kind }) => kind === 'carbon').length;
    expect(kinds(yes)).toBe(kinds(no) + 1);
    expect(titleBy(yes, bench.spaces)).not.toBeNull();
  });
  it('what tap is led past an option is led past it when it is built', () => {
    const counter = made('counterSoft', (s) => ({ ...s, goal: { ...s.goal, demand: evenDemand(200, 'day') } }));
    const bench = value(benchOf(counter));
    const blended = searchOf(bench).found.find(({ route }) => route === 'membrane')!;
    const judged = judgeOption(lookAt(candidate(bench.spaces, blended.id)!, bench), bench);
    expect(judged.admissible).toBe(true);
    const train = value(trainBy(blended.id, counter));
    const built: System = { ...counter, train };
    const membrane = train.stages.find((one) => one.kind === 'membrane')!;
    expect(membrane.kind === 'membrane' && membrane.bypassShare).toBeGreaterThan(0);
    const tap = tapOf(built);
    const report = reportOf(built);
    const end = report.solved.stations.at(-1)!;
    const again = judge(built.goal, 0.5, { product: end.water, state: end.state, tapWater: tap.water, tap });
    expect(again.checks.filter(({ verdict }) => verdict === 'missed').map(({ limit }) => limit.quantity)).toEqual([]);
  });
});

it('salt is told for the batch that is asked, with the digits it has', () => {
  const reef = goal(made('marineHousehold'), 'reefTank', {
    prepare: { how: 'salt', salinity: 35 },
    demand: { ...evenDemand(20, 'day'), batches: [{ id: 'change', name: 'Water change', weekday: 5, hour: 10, count: 1, litres: 80 }] },
  });
  const found = reportOf(reef).findings.find(({ id }) => id === 'prepare')!;
  expect(plain(found.why)).toMatch(/^About 3\.2 kg for a batch of 80 L/);
  expect(words(reef.units).of(80, 'volumeL').replaceAll('\u202f', ' ')).toBe('80 L');
});
