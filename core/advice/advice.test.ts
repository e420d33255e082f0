import { describe, expect, it } from 'vitest';
import type { Source, System, TemplateId } from '../file';
import { type Stage, type StageOf, newStage, type Finding, type FindingAction } from '../stage';
import { ELEMENT_ROWS } from '../membrane';
import { expectWithin, value } from '../testing/close';
import { costUnit, GALLON_UNITS, METRIC_UNITS, words } from '../quantity';
import { meanExposure, solveTrain, tapWater } from '../train';
import { systemFromTemplate } from '../template';
import { reportTrain } from './report';
import { elementLimits } from './elementLimits';

/** What a train is advised: order of stages, silt, what each element is asked, energy, age. */

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
const stagesOf = (system: System, stages: readonly Stage[]): System => ({ ...system, train: { ...system.train, stages: [...stages] } });
const sourceOf = (system: System, source: Partial<Source>): System => ({ ...system, source: { ...system.source, ...source } });
const altered = <K extends Stage['kind']>(system: System, kind: K, changes: Partial<StageOf<K>>): System =>
  stagesOf(
    system,
    system.train.stages.map((stage) => (stage.kind === kind ? ({ ...stage, ...changes } as Stage) : stage)),
  );
const tap = (system: System) => value(tapWater(system.source, system.instruments)).water;
const finding = (system: System, id: string): Finding | undefined =>
  value(reportTrain(system, tap(system))).findings.find((one) => one.id === id);
/** The system with what a finding offers carried out, as the app does. */
const ordered = (system: System, action: FindingAction | undefined): System => {
  if (action?.do !== 'order') throw new Error('no order is offered');
  return stagesOf(
    system,
    action.ids.map((id) => system.train.stages.find((stage) => stage.id === id)!),
  );
};

describe('the order of the stages', () => {
  const house = from('marineHousehold');
  const [sediment, carbon, membrane, resin, tank] = house.train.stages as [Stage, Stage, Stage, Stage, Stage];
  it('says nothing of the usual one', () => {
    expect(finding(house, 'carbonFirst')).toBeUndefined();
    expect(finding(house, 'resinFirst')).toBeUndefined();
  });
  it('carbon first is a matter of taste on clear water, and wrong on dirty water (common practice)', () => {
    const carbonFirst = stagesOf(house, [carbon, sediment, membrane, resin, tank]);
    expect(finding(carbonFirst, 'carbonFirst')!.severity).toBe('note');
    expect(finding(sourceOf(carbonFirst, { turbidityNTU: 3 }), 'carbonFirst')!.severity).toBe('mind');
    const tested = sourceOf(carbonFirst, { silt: { initialSeconds: 30, finalSeconds: 80, minutes: 15 } });
    // 100·(1 − 30/80)/15 = 4.17 %/min.
    expect(finding(tested, 'carbonFirst')!.title).toContain('a silt density of 4.2');
    const mended = ordered(tested, finding(tested, 'carbonFirst')!.action);
    expect(mended.train.stages.map(({ id }) => id)).toEqual(['sediment', 'carbon', 'membrane', 'resin', 'tank']);
    expect(finding(mended, 'carbonFirst')).toBeUndefined();
  });
  it('without any sediment filter it speaks up only when the water is dirty, and has nothing to put first', () => {
    const none = stagesOf(house, [carbon, membrane, resin, tank]);
    expect(finding(none, 'carbonFirst')).toBeUndefined();
    expect(finding(sourceOf(none, { turbidityNTU: 3 }), 'carbonFirst')!.action).toBeUndefined();
  });
  it('resin ahead of the membrane is put behind it', () => {
    const early = stagesOf(house, [sediment, carbon, resin, membrane, tank]);
    const told = finding(early, 'resinFirst')!;
    expect(told.title).toContain('480\u202fµS/cm');
    const mended = ordered(early, told.action);
    expect(mended.train.stages.map(({ id }) => id)).toEqual(['sediment', 'carbon', 'membrane', 'resin', 'tank']);
  });
});

describe('the silt test', () => {
  const skid = from('skid');
  const tested = (finalSeconds: number, minutes = 15): Finding | undefined =>
    finding(sourceOf(skid, { silt: { initialSeconds: 30, finalSeconds, minutes } }), 'silt');
  it('passes below 3, minds from 3, refuses a membrane above 5 (recalled)', () => {
    expect(tested(45)).toBeUndefined();
    expect(tested(70)!.severity).toBe('mind');
    expect(tested(70)!.title).toBe('SDI15 is 3.8: 3 is aimed at');
    // A shorter test was needed because the full one plugged, whatever its own figure.
    expect(tested(33, 5)!).toMatchObject({ severity: 'bad', title: 'SDI5 is 1.8: a membrane stands 5 in 15 min' });
  });
  it('a second filling faster than the first, or a filter more than three quarters blocked, is no test (ASTM D4189, recalled)', () => {
    expect(tested(20)!.title).toBe('The silt test does not hold');
    expect(tested(130)!.title).toBe('The silt test does not hold');
  });
});

describe('what each element is asked', () => {
  const limits = (system: System): Record<string, string> => {
    const solved = value(solveTrain(system.train, system.source, tap(system)));
    return Object.fromEntries(elementLimits(system, solved).map(({ id, title }) => [id, title.replaceAll('\u202f', ' ')]));
  };
  const skid = from('skid');
  const array = (elementsPerVessel: number, changes: Partial<StageOf<'membrane'>> = {}): System =>
    altered(skid, 'membrane', {
      ranks: [
        { vessels: 2, elementsPerVessel },
        { vessels: 1, elementsPerVessel },
      ],
      ...changes,
    });
  it('names rank and element', () => {
    expect(limits(skid)['recovery']).toMatch(/^Rank 2, element 1 takes \d+ % of its feed$/);
    const long = limits(array(3, { recycleKv: null, recycleLPerH: 0, valve: { kind: 'recovery', recovery: 0.75 } }));
    expect(long['crossflow']).toMatch(/^Rank \d, element 3 is rinsed with only/);
  });
  it('one element needs no number, two in a row are counted', () => {
    const cart = from('vanCart');
    const dry = { valve: { kind: 'recovery' as const, recovery: 0.4 }, recycleLPerH: 0 };
    expect(limits(altered(cart, 'membrane', dry))['recovery']).toMatch(/^The element takes/);
    expect(limits(altered(cart, 'membrane', { ...dry, arrangement: 'series' }))['recovery']).toMatch(/^Element [12] takes/);
    expect(limits(altered(cart, 'membrane', { ...dry, arrangement: 'parallel' }))['recovery']).toMatch(/^Each element takes/);
  });
  it('a pressure its housing does not stand is wrong, not merely worth minding', () => {
    const boat = altered(from('watermaker'), 'membrane', { elementClass: 'in25Usual' });
    const told = finding(boat, 'elementPressure')!;
    expect(told.severity).toBe('bad');
    expect(told.title).toContain(`stands ${ELEMENT_ROWS.in25Usual.limits.maxPressureBar}`);
  });
});

describe('energy at sea', () => {
  const boat = from('watermaker');
  it('is told with and without a recovery device, whichever stands', () => {
    const figures = (system: System): number[] => [...finding(system, 'energy')!.title.matchAll(/[\d.]+(?=\u202fkWh| with)/g)].map(Number);
    const [plain, helped] = figures(boat) as [number, number];
    expect(plain / helped).toBeGreaterThan(4);
    const pump = { kind: 'displacement' as const, flowLPerH: 700, reliefBar: 65, energyRecovery: 0.9 };
    const [now, without] = figures(altered(boat, 'pump', { pump })) as [number, number];
    // Told for the mean of the year; how the two stand to each other is as it runs today.
    expectWithin(now, helped, 0.03);
    expectWithin(without, plain, 0.02);
  });
});

describe('an element past its life', () => {
  const house = from('marineHousehold');
  it('by output, by what it holds back, and not while it is well', () => {
    expect(finding(house, 'spent')).toBeUndefined();
    expect(finding(altered(house, 'membrane', { waterFactor: 0.6 }), 'spent')!.title).toContain('60\u202f% of what it did new');
    expect(finding(altered(house, 'membrane', { saltFactor: 4 }), 'spent')!.title).toContain('95.0\u202f% at least');
  });
});

describe('chlorine a membrane has met', () => {
  const house = from('marineHousehold');
  const met = (passedL: number, train = house.train) => meanExposure(train, tap(house), 20, { carbon: { passedL } })!;
  it('is hardly any behind a fresh carbon, nearly half behind one run to twice its life, all without', () => {
    const all = tap(house).mgL.chlorine;
    expect(met(100).chlorineMgL).toBeLessThan(0.05 * all);
    const life = 11_000 * 5;
    expect(met(life).chlorineMgL).toBeGreaterThan(met(100).chlorineMgL);
    const bare = { ...house.train, stages: house.train.stages.filter(({ kind }) => kind !== 'carbon') };
    expectWithin(met(100, bare).chlorineMgL, all, 1e-12);
  });
  it('there is none to ask of without a membrane', () => {
    expect(meanExposure({ ...house.train, stages: [newStage('carbon', 'c')] }, tap(house), 20, {})).toBeNull();
  });
});

describe('words', () => {
  it('cost is told for a cubic metre, or for a thousand gallons', () => {
    expect(costUnit(METRIC_UNITS)).toEqual({ label: 'm³', litres: 1000 });
    expectWithin(costUnit(GALLON_UNITS).litres, 3785.41, 1e-5);
  });
  it('hours never show sixty minutes', () => {
    const { hours } = words(METRIC_UNITS);
    expect([0.72, 1, 1.999, 4.31].map(hours)).toEqual(['43 min', '1 h 00 min', '2 h 00 min', '4 h 19 min']);
  });
});
