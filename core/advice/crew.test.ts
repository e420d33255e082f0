import { describe, expect, it } from 'vitest';
import type { System, TemplateId } from '../file';
import { evenDemand, productLPerDay } from '../goal';
import { systemFromTemplate } from '../template';
import { expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { crewRows, equalsInPpm } from './crew';
import { footLine, trainTitle, usedSays, wasteSays } from './inShort';
import { reportTrain, type TrainReport } from './report';

const made = (template: TemplateId, change: (s: System) => System = (s) => s): { system: System; report: TrainReport } => {
  const system = change(systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' }));
  const tap = value(tapWater(system.source, system.instruments));
  return { system, report: value(reportTrain(system, tap.water, {}, undefined, tap)) };
};

describe('limits of a crew beside each other', () => {
  it('waiting longer gives more litres and costs less, and leaves more on the glass', () => {
    const { system, report } = made('vanTank');
    const rows = crewRows(system, report)!;
    expect(rows.map(({ ppm }) => ppm)).toEqual([0, 10, 20]);
    const [zero, ten] = rows;
    expect(ten!.litres! / zero!.litres!).toBeGreaterThan(1);
    expect(ten!.resinPerM3).toBeLessThan(zero!.resinPerM3);
    // 10 ppm on a meter of 0.5 are 21 µS/cm at its edge: 10 mg/L as salt, more with the silica that leaves first.
    expect(ten!.filmMgPerM2.mean).toBeGreaterThan(1.2 * zero!.filmMgPerM2.mean);
    expect(ten!.filmMgPerM2.mean).toBeLessThan(0.03 * 20);
    // Silica leaves, and for a while more of it than comes in, before a meter sees anything.
    expect(zero!.filmMgPerM2.worst).toBeGreaterThan(0.03 * report.solved.resins[0]!.feed.mgL.SiO2);
    expectWithin(ten!.resinPerWeek, (ten!.resinPerM3 * 7 * productLPerDay(system.goal)) / 1000, 1e-9);
  });
  it('the first row agrees with the life told of the resin, within what a first estimate may differ', () => {
    const { system, report } = made('resinVessel');
    const until = report.resin!.throughput.until;
    const [zero] = crewRows(system, report)!;
    expectWithin(zero!.litres!, until.kind === 'litres' ? until.litres : Number.NaN, 0.2);
  });
  it('a limit the feed of the resin never reads past is for ever', () => {
    const { system, report } = made('vanTank');
    expect(crewRows(system, report, [90])![0]).toMatchObject({ litres: null, resinPerM3: 0 });
  });
  it('without resin there is nothing to compare', () => {
    const { system, report } = made('breeder');
    expect(crewRows(system, report)).toBeNull();
  });
});

describe('tap blended back', () => {
  const blended = (share: number): ReturnType<typeof made> =>
    made('breeder', (s) => ({ ...s, goal: { ...s.goal, demand: evenDemand(100, 'day'), prepare: { how: 'blend', tapShare: share } } }));
  it('is neither made nor waited for: need and hours go down by its share', () => {
    const [none, third] = [blended(0), blended(0.3)];
    expectWithin(third.report.demandLPerDay, 70, 1e-12);
    expect(third.report.usedLPerDay).toBe(100);
    expectWithin(third.report.runHoursPerDay! / none.report.runHoursPerDay!, 0.7, 1e-9);
    const foot = footLine(third.system, third.report).map(([figure, says]) => `${figure} ${says}`.replaceAll('\u202f', ' '));
    expect(foot).toContain('70 L/day needed');
    expect(foot).toContain('100 L/day used with the tap');
  });
  it('stands in the title and under the ledger with what the blend reads', () => {
    const { system, report } = blended(0.3);
    expect(trainTitle(system, report)).toMatch(/stages?, [\d.]+.µS\/cm with 30.% tap$/);
    expect(usedSays(system, report)).toMatch(/^As used, with 30.% tap: [\d.]+.µS\/cm, hardness/);
    const plain = made('breeder');
    expect(usedSays(plain.system, plain.report)).toBeNull();
  });
});

describe('a crew that changes resin when out equals in', () => {
  it('asks for what comes into the resin, and its resin lasts longer for it', () => {
    const { system, report } = made('resinVessel');
    const equal = equalsInPpm(system, report)!;
    expectWithin(equal, report.solved.resins[0]!.feed ? report.solved.stations[0]!.state.ec25UScm / 2 : 0, 0.02);
    const [ten, out] = crewRows(system, report, [10, equal])!;
    expect(out!.litres!).toBeGreaterThan(1.02 * ten!.litres!);
    expect(out!.resinPerM3).toBeLessThan(ten!.resinPerM3);
    expect(equalsInPpm(system, { solved: { ...report.solved, resins: [] } })).toBeNull();
  });
});

describe('the waste of a day', () => {
  it('by a barrel of one’s own', () => {
    const { system, report } = made('breeder');
    const own = { ...system, choice: { ...system.choice, wasteBarrelL: 120 } };
    expect(wasteSays(own, report)!.replaceAll('\u202f', ' ')).toContain('120 L of it gather in');
  });
  it('by the ratio, with its strength and the hours a drum takes, more of them in the cold', () => {
    const { system, report } = made('breeder');
    const says = wasteSays(system, report)!.replaceAll('\u202f', ' ');
    const [, litres] = /goes ([\d.]+) L\/day/.exec(says)!;
    // What is led past the membrane makes no waste.
    const { bypassShare } = system.train.stages.find((stage) => stage.kind === 'membrane')!;
    expectWithin(Number(litres), report.solved.unit!.wasteToProduct! * (1 - bypassShare) * report.demandLPerDay, 0.01);
    // The drum by the same day: its litres over those of the day.
    const hours = /gather in (\d+) h/.exec(says)!;
    expectWithin(Number(hours[1]), (24 * 200) / Number(litres), 0.1);
    expect(says).toMatch(/gather in [\dhmin ]+, [\dhmin ]+ at 6 °C\.$/);
  });
});
