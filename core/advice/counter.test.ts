import { describe, expect, it } from 'vitest';
import { TEMPLATE_IDS, type System, type TemplateId } from '../file';
import { priceList } from '../ledger';
import { standingAt } from '../life';
import { cartridgeLife, kindOf, newStage, tableRow, type Stage, type StageOf } from '../stage';
import { expectNear, expectWithin, value } from '../testing/close';
import { missText } from '../goal';
import { METRIC_UNITS } from '../quantity';
import { hardnessOf } from '../water';
import { loopReport } from './loop';
import { systemFromTemplate } from '../template';
import { productStation, tapWater, type Station } from '../train';
import { reportTrain, type TrainReport } from './report';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
const report = (system: System): TrainReport => value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));
const changed = (system: System, id: string, changes: object): System => {
  const list = (stages: readonly Stage[]): Stage[] =>
    stages.map((stage) => (stage.id === id ? ({ ...stage, ...changes } as Stage) : stage));
  return {
    ...system,
    train: {
      ...system.train,
      stages: list(system.train.stages),
      branches: system.train.branches.map((branch) => ({ ...branch, stages: list(branch.stages) })),
    },
  };
};
const ids = (found: readonly { readonly id: string }[]): string[] => found.map(({ id }) => id);

describe('a cartridge as its maker prints it', () => {
  const bar = from('espressoBar');
  const at = (changes: object): { readonly life: NonNullable<ReturnType<typeof cartridgeLife>>; readonly report: TrainReport } => {
    const system = changed(bar, 'decarboniser', changes);
    const solved = report(system);
    const standing = standingAt(system, solved, 'decarboniser')! as Parameters<typeof cartridgeLife>[0];
    return { life: cartridgeLife(standing)!, report: solved };
  };
  const settings = [
    { label: '2', bypass: 0.3 },
    { label: '3', bypass: 0.5 },
  ];
  const before = report(bar).solved.stations[1]!;
  const carbonate = Math.min(before.state.alkalinityMgL, before.state.hardnessMgL);
  it('by the row of its table for this water: at its setting and hardness the litres are those printed', () => {
    const table = [
      { hardnessMgL: 0.6 * carbonate, label: '3', litres: 5000 },
      { hardnessMgL: carbonate, label: '2', litres: 2600 },
      { hardnessMgL: 2 * carbonate, label: '2', litres: 1300 },
    ];
    const { life } = at({ settings, table, bypass: 0.3, leak: 0 });
    expectWithin(life.litres!, 2600, 0.005);
    expect(life.assumed).toBe(false);
    expect(tableRow({ table }, carbonate)).toMatchObject({ litres: 2600 });
    expect(tableRow({ table }, 5 * carbonate)).toMatchObject({ litres: 1300 });
    // A row whose setting nobody typed the share of says nothing of the capacity.
    expect(at({ settings: [], table, bypass: 0.3 }).life.assumed).toBe(true);
  });
  it('by litres at a total hardness, with more doubt: the lower end counts', () => {
    const box = { litres: 3000, hardnessMgL: 200, bypass: 0.3 };
    const [carbonated, total] = [at({ box }).life, at({ box, hardnessIs: 'total' }).life];
    expect(total.litres).toBe(carbonated.litres);
    expect(total.presetL!).toBeLessThan(0.85 * carbonated.presetL!);
  });
  it('carries carbon or not, as somebody says; a meter of litres is a part only where one is wanted', () => {
    const chlorine = (withCarbon: boolean | null): number =>
      at({ withCarbon }).report.solved.stations.find(({ after }) => after === 'decarboniser')!.water.mgL.chlorine;
    expect(chlorine(null)).toBe(chlorine(false));
    expectWithin(chlorine(true), 0.05 * chlorine(false), 1e-9);
    const cartridge = newStage('decarboniser', 'c');
    const parts = (litresMeter: boolean): string[] =>
      kindOf(cartridge)
        .parts({ ...cartridge, litresMeter }, { prices: priceList(bar), units: METRIC_UNITS })
        .map(({ part }) => part);
    expect(parts(false)).not.toContain('litres-meter');
    expect(parts(true)).toContain('litres-meter');
    const system = changed(bar, 'decarboniser', { litresMeter: true });
    const standing = standingAt(system, report(system), 'decarboniser')!;
    const preset = kindOf(standing.stage)
      .steps(standing.stage, { units: METRIC_UNITS, standing } as never)
      .find(({ act }) => act === 'presetMeter')!;
    expect(preset.title).toMatch(/^Set the water meter of/);
    expect(preset.measures![0]!.high! / preset.measures![0]!.expected!).toBeLessThan(1.05);
  });
});

describe('salt of a softener', () => {
  it('is looked at by use: before the tank is down to a quarter, two months at the most', () => {
    const counter = from('counterHard');
    const every = (saltTankKg: number | null): number => {
      const system = changed(counter, 'softener', { saltTankKg });
      const standing = standingAt(system, report(system), 'softener')!;
      return kindOf(standing.stage).upkeep(standing.stage, standing)[0]!.everyDays!;
    };
    const small = every(4);
    expect(small).toBeLessThan(61);
    expectWithin(every(8), Math.min(61, 2 * small), 1e-9);
    expect(every(200)).toBe(61);
    // Nobody has said what it holds: a sack at a time, 25 kg.
    expectWithin(every(null), Math.min(61, (small * 25) / 3), 1e-9);
  });
});

describe('a counter with branches', () => {
  const counter = from('counterHard');
  const solved = report(counter);
  it('each branch starts with the water where it leaves, and has a station a stage', () => {
    for (const { branch, stations } of solved.branches) {
      expect(stations).toHaveLength(branch.stages.length + 1);
      expect(stations[0]).toBe(solved.solved.stations.find((station) => station.after === branch.after));
    }
    expect(solved.branches.map(({ branch }) => branch.name)).toEqual(['Espresso', 'Ice', 'Ovens']);
  });
  it('each is judged by its own goal', () => {
    const findings = Object.fromEntries(solved.branches.map((one) => [one.branch.id, ids(one.findings)]));
    expect(findings['ice']).toEqual(['goal-ice']);
    expect(findings['espresso']).toContain('cartridge-espresso-cartridge');
    const strict = {
      ...counter,
      train: {
        ...counter.train,
        branches: counter.train.branches.map((b) => ({ ...b, goal: { ...b.goal, school: 'strict' } })),
      },
    };
    const ovens = report(strict).branches.find(({ branch }) => branch.id === 'ovens')!;
    expect(ovens.findings[0]).toMatchObject({ id: 'goal-ovens', severity: 'bad' });
  });
  it('the softener trades hardness for sodium in equivalents', () => {
    const at = solved.solved.stations.findIndex((station) => station.after === 'softener');
    const [hard, soft] = [solved.solved.stations[at - 1]!, solved.solved.stations[at]!];
    expect(hardnessOf(soft.water.mgL)).toBeLessThan(3);
    const sodium = (soft.water.mgL.Na - hard.water.mgL.Na) / 22.99;
    expectWithin(sodium, (hardnessOf(hard.water.mgL) - hardnessOf(soft.water.mgL)) / 50.0435, 0.02);
    expect(soft.state.alkalinityMgL).toBe(hard.state.alkalinityMgL);
  });
  it('hardness for the cup comes past the membrane from before the softener, by its share', () => {
    const { stations, unit, productLPerH } = solved.solved;
    const behind = (id: string) => stations.find((station) => station.after === id)!;
    const blend = hardnessOf(behind('membrane').water.mgL);
    expectWithin(blend, 0.84 * hardnessOf(unit!.permeate!.mgL) + 0.16 * hardnessOf(behind('carbon').water.mgL), 0.002);
    // All that is drawn passes the carbon, only the membrane's share the softener.
    expectWithin(behind('softener').flowLPerH, unit!.feedLPerH, 1e-9);
    expectWithin(behind('carbon').flowLPerH, unit!.feedLPerH + 0.16 * productLPerH, 1e-9);
    const soft = report(changed(counter, 'membrane', { bypassAfter: null })).findings[0]!;
    expect(soft.title).toMatch(/^Hardness/);
    expect(soft.action).toMatchObject({ do: 'setBlend', after: 'carbon' });
    const { action } = soft;
    if (action?.do !== 'setBlend') throw new Error('no blend is offered');
    const mended = changed(counter, 'membrane', { bypassShare: action.share, bypassAfter: action.after });
    // Solved with it, nothing the goal asks is missed, and no use of it loses what it had.
    const then = report(mended);
    expect(productStation(then.solved).state.hardnessMgL).toBeGreaterThan(50);
    expect(then.verdict).not.toBe('missed');
    expect(then.branches.filter(({ verdict }) => verdict === 'missed')).toEqual([]);
  });
  it('calcite gives lime back, as much calcium as alkalinity', () => {
    const limed = { ...counter, train: { ...counter.train, stages: [...counter.train.stages, newStage('calcite', 'calcite')] } };
    const [before, after] = report(limed).solved.stations.slice(-2) as [Station, Station];
    expect(after.after).toBe('calcite');
    expectWithin(hardnessOf(after.water.mgL) - hardnessOf(before.water.mgL), after.state.alkalinityMgL - before.state.alkalinityMgL, 1e-6);
  });
  it('a scale inhibitor changes nothing a kit would see (common practice)', () => {
    const soft = report(from('counterSoft')).solved;
    const at = soft.stations.findIndex((station) => station.after === 'inhibitor');
    expect(soft.stations[at]!.state).toEqual(soft.stations[at - 1]!.state);
  });
});

describe('every template on the supply it starts with', () => {
  it.each(TEMPLATE_IDS)('%s: nothing is wrong, and its goals are met', (template) => {
    const { findings, branches } = report(from(template));
    const goals = [...findings, ...branches.flatMap((branch) => branch.findings)].filter(({ id }) => id.startsWith('goal'));
    expect([...findings, ...branches.flatMap((branch) => branch.findings)].filter(({ severity }) => severity === 'bad')).toEqual([]);
    // An oven's limits are on its own sheet: nothing is judged there, and the lime is told.
    expect(goals.filter(({ id }) => id !== 'goal-ovens').every(({ severity }) => severity === 'good')).toBe(true);
    // What it raises is of its water or its need, never of how it was laid out.
    const raised = findings.filter(({ severity }) => severity === 'mind').map(({ id }) => id);
    // A skid is laid out as it is published; a tap that stands at its own lime wants a softener, an inhibitor or less recovery.
    const published = template === 'skid' ? ['scale', 'recovery'] : [];
    expect(raised.filter((id) => id !== 'resin' && !published.includes(id))).toEqual([]);
  });
  it('a figure that rounding would make equal to its limit is told apart', () => {
    expect(missText('pH', 6.49, 6.5, METRIC_UNITS)).toEqual({ value: '6.49', bound: '6.50' });
    expect(missText('alkalinityMgL', 75.04, 75, METRIC_UNITS).value).toContain('just over');
  });
});

describe('a counter with filters and an inhibitor alone', () => {
  it('says on a strong tap what of it is missed', () => {
    const soft = from('counterSoft');
    const strong: System = { ...soft, source: from('counterHard').source };
    expect(ids(report(soft).findings)).not.toContain('inhibitor-inhibitor');
    expect(ids(report(strong).findings)).toEqual(expect.arrayContaining(['goal', 'inhibitor-inhibitor']));
    expect(report(strong).verdict).not.toBe('met');
  });
});

describe('an espresso cartridge', () => {
  const bar = from('espressoBar');
  const life = (system: System) => {
    const { stations } = report(system).solved;
    return cartridgeLife({
      stage: system.train.stages[2] as StageOf<'decarboniser'>,
      before: stations[2]!,
      litresPerDay: 60,
    })!;
  };
  it('litres, the figure for the meter, and which comes first', () => {
    const now = life(bar);
    // Nobody typed its box: the meter is set to the lower end of what such resin holds.
    expect(now.assumed).toBe(true);
    expect(now.presetL).toBe(Math.floor((0.9 * 0.6 * now.litres!) / 10) * 10);
    expect(now.by).toBe('capacity');
    const typed = life(changed(bar, 'decarboniser', { box: { litres: 3750, hardnessMgL: 180, bypass: 0.3 } }));
    expect(typed.assumed).toBe(false);
    expect(typed.presetL).toBe(Math.floor((0.9 * typed.litres!) / 10) * 10);
    // 3750 L at 180 mg/L with 0.3 past it are 9.44 eq, against 8.8 of a usual resin.
    expect(typed.litres! / now.litres!).toBeCloseTo(9.4417 / 8.8, 3);
    expect(life(changed(bar, 'decarboniser', { capacityEq: 100, volumeL: 40 })).by).toBe('time');
  });
  it('a bypass of 100 % treats nothing and says so', () => {
    const open = changed(bar, 'decarboniser', { bypass: 1 });
    expect(life(open).litres).toBeNull();
    expect(ids(report(open).findings)).toContain('bypass-decarboniser');
  });
  it('hardness above what it is made for, an odd rating, acid behind it: findings', () => {
    const { stations } = report(bar).solved;
    const stage = bar.train.stages[2]!;
    const hard = { ...stations[2]!, state: { ...stations[2]!.state, alkalinityMgL: 500, hardnessMgL: 520 } };
    const at = {
      stage,
      before: hard,
      after: stations[3]!,
      litresPerDay: 60,
      goal: { id: 'espresso' as const },
      units: bar.units,
      turbidityNTU: 0.5,
      carbon: null,
    };
    expect(ids(kindOf(stage).findings(at))).toContain('toohard-decarboniser');
    expect(ids(report(changed(bar, 'decarboniser', { capacityEq: 9.4, volumeL: 0.9 })).findings)).toContain('rating-decarboniser');
    expect(ids(report(changed(bar, 'decarboniser', { bypass: 0 })).findings)).toEqual(
      expect.arrayContaining(['acid-decarboniser', 'flat-decarboniser']),
    );
  });
});

describe('a loop', () => {
  const lab = from('skid');
  const loop = (system: System) => loopReport(system, report(system).solved);
  it('stands at some megohm, and its worst hour below that', () => {
    const made = value(loop(lab)!);
    expect(made.restMOhmCm).toBeGreaterThan(3);
    expect(made.restMOhmCm).toBeLessThan(18.2);
    expect(Math.min(...made.week.map((moment) => moment.outletMOhmCm))).toBeLessThanOrEqual(made.restMOhmCm * 1.05);
    expect(made.week).toHaveLength(168);
    expectNear(made.velocityMPerS, 1.59, 0.01);
  });
  it('soda lime in the vent makes it purer', () => {
    const vent = (ventFilter: boolean): number =>
      value(loop({ ...lab, train: { ...lab.train, loop: { ...lab.train.loop!, ventFilter } } })!).restMOhmCm;
    expect(vent(true)).toBeGreaterThan(vent(false));
  });
  it('a pump too small for the largest draw starves the outlets; without a tank there is no loop', () => {
    const slow = loop({ ...lab, train: { ...lab.train, loop: { ...lab.train.loop!, flowLPerH: 100 } } })!;
    expect(slow.ok ? '' : slow.error.field).toBe('drawLPerH');
    const bare = loop({ ...lab, train: { ...lab.train, stages: lab.train.stages.filter((stage) => stage.kind !== 'tank') } })!;
    expect(bare.ok ? '' : bare.error.message).toContain('add a tank before the polisher');
    expect(loop(from('marineHousehold'))).toBeNull();
  });
  it('UV that is too weak for the flow is named with its dose', () => {
    const weak = report(changed(lab, 'uv', { intensityMWPerCm2: 3 }));
    expect(weak.findings.find((finding) => finding.id === 'uv-uv')).toMatchObject({ severity: 'mind' });
  });
});
