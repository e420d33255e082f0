import { describe, expect, it } from 'vitest';
import { systemIssue, type System } from '../file';
import { USUAL_RATIO } from '../membrane';
import { GALLON_UNITS, METRIC_UNITS } from '../quantity';
import { seen, type Measure, type Step } from '../stage';
import { systemFromTemplate } from '../template';
import { expectNear, expectWithin, value } from '../testing/close';
import { solveTrain, tapWater } from '../train';
import { asWorkedOn, expectedToday, todayOf } from './expected';
import { baselineReading, cautionsGiven, handedOver, skippingCosts } from './handOver';
import { judge, measuredOf, measureOf } from './judge';
import { jugsBeyond } from './ratio';
import { runbook, runbookSteps } from './runbook';
import { valveTurns } from './valves';
import { lastMeasured, newWork, openWork, stepDone, stepReopened, withDeviation, withLineRead, withMeasured, withWork } from './work';

const AT = '2026-11-23T10:00:00Z';
const made = (template: System['template']): System => systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: AT });
const NOTHING_READ = { linePressureBar: null, temperatureC: null };
const stepsOf = (system: System): Step[] => runbookSteps(runbook(system, value(expectedToday(system, NOTHING_READ))));

describe('a figure against what was expected', () => {
  const pressure: Measure = {
    id: 'p',
    label: 'Line',
    dimension: 'pressureBar',
    expected: 4,
    low: 3.1,
    high: 5.5,
    doubt: { share: 0.02, least: 0.1 },
    because: '',
    ifLow: 'boost',
    ifHigh: 'regulate',
  };
  it.each([
    [4, 'fits', ''],
    [3.05, 'fits', ''],
    [2.9, 'low', 'boost'],
    [5.58, 'fits', ''],
    [5.9, 'high', 'regulate'],
  ])('%s bar: %s, with a gauge of ±0.1', (bar, verdict, advice) =>
    expect(judge(pressure, bar, METRIC_UNITS)).toMatchObject({ verdict, advice }),
  );
  it('tells figure and bounds in the units of the system', () => {
    const told = judge(pressure, 4.2, GALLON_UNITS);
    expect(told.read.replaceAll('\u202f', ' ')).toBe('61 ± 2 psi');
    expect(told.expected.replaceAll('\u202f', ' ')).toBe('58 psi expected, 45 psi to 80 psi');
    const warm: Measure = { ...pressure, dimension: 'temperatureC', expected: 15, low: null, high: 35, doubt: { share: 0, least: 0.5 } };
    expect(judge(warm, 12, GALLON_UNITS).read.replaceAll('\u202f', ' ')).toBe('53.6 ± 0.9 °F');
  });
  it('what nobody expected is kept without a verdict; what is not seen is low', () => {
    expect(judge({ ...pressure, low: null, high: null }, 9, METRIC_UNITS).verdict).toBe('kept');
    expect(judge(seen('dry', 'Dry', 'wipe again'), 0, METRIC_UNITS)).toMatchObject({ verdict: 'low', advice: 'wipe again', read: 'no' });
    expect(judge(seen('dry', 'Dry', 'wipe again'), 1, METRIC_UNITS).verdict).toBe('fits');
  });
  it('what was kept is judged as it was when it was read', () => {
    const system = made('marinePair');
    const line = stepsOf(system).find(({ id }) => id === 'line')!;
    const kept = measuredOf(system, line, line.measures[0]!, 2.5, AT, NOTHING_READ);
    expect(judge(measureOf(kept), kept.value, METRIC_UNITS)).toMatchObject({ verdict: 'low', read: '2.5 ± 0.1\u202fbar' });
  });
});

describe('predictions follow the hour', () => {
  it('pressure and temperature read at the line move every figure after them', () => {
    const system = made('marinePair');
    const at = (linePressureBar: number | null, temperatureC: number | null): number =>
      value(expectedToday(system, { linePressureBar, temperatureC })).solved.unit!.permeateLPerH;
    expect(at(3, null)).toBeLessThan(0.85 * at(4, null));
    // About 3 % a degree (common practice).
    expectWithin(at(4, 5) / at(4, 15), 0.72, 0.06);
    const tap = value(tapWater(system.source, system.instruments)).water;
    const byHand = value(solveTrain(system.train, { ...system.source, linePressureBar: 3.6 }, { ...tap, temperatureC: 8 }));
    expectNear(at(3.6, 8), byHand.unit!.permeateLPerH, 1e-9);
  });
  it('a pressure read on site takes the place of an assumed one, and of no other', () => {
    const read = { step: 'line', measure: 'linePressureBar', value: 3.2 };
    const assumed = made('marinePair');
    expect(withLineRead(assumed, read).source).toMatchObject({ linePressureBar: 3.2 });
    expect(withLineRead(assumed, read).source.assumed).not.toContain('linePressure');
    const planned = { ...assumed, source: { ...assumed.source, assumed: [] } };
    expect(withLineRead(planned, read)).toBe(planned);
    expect(withLineRead(assumed, { ...read, measure: 'temperatureC' })).toBe(assumed);
    expect(stepsOf(assumed).find(({ id }) => id === 'line')!.title).toContain('was assumed');
    expect(stepsOf(planned).find(({ id }) => id === 'line')!.title).toContain('was planned');
  });
  it('the last reading of the line counts', () => {
    const line = (measure: string, figure: number) => ({ step: 'line', measure, value: figure }) as never;
    expect(todayOf([line('linePressureBar', 4), line('temperatureC', 12), line('linePressureBar', 3.4)])).toEqual({
      linePressureBar: 3.4,
      temperatureC: 12,
    });
    expect(todayOf([])).toEqual(NOTHING_READ);
  });
});

describe('a piece that is new among worn ones', () => {
  it('gives what a new one gives; the others keep what they have behind them', () => {
    const base = made('marinePair');
    const worn: System = {
      ...base,
      train: {
        ...base.train,
        stages: base.train.stages.map((stage) => (stage.kind === 'membrane' ? { ...stage, waterFactor: 0.7, saltFactor: 1.5 } : stage)),
      },
    };
    const flow = (system: System): number => value(expectedToday(system, NOTHING_READ)).solved.unit!.permeateLPerH;
    const changed = asWorkedOn(worn, { membrane: { years: 3 }, sediment: { litres: 9 } } as never, ({ id }) => id === 'membrane');
    expectNear(flow(changed.system), flow(base), 1e-9);
    // What asks the membrane alone, such as the ratio, asks the new one too.
    const asked = (system: System): number => value(expectedToday(system, NOTHING_READ)).operation!.unit.factors.water;
    expect([asked(worn), asked(changed.system)]).toEqual([0.7, 1]);
    expect(flow(worn)).toBeLessThan(0.85 * flow(base));
    expect(Object.keys(changed.use)).toEqual(['sediment']);
  });
});

describe('a piece of work', () => {
  const system = made('marineHousehold');
  it('begins with its first step, is ticked, taken up again, left out with a reason', () => {
    const begun = withWork(system, 'w', AT, (work) => stepDone(work, 'fix', AT));
    expect(openWork(begun)).toMatchObject({ kind: 'newBuild', done: [{ step: 'fix' }] });
    const left = withWork(begun, 'x', AT, (work) =>
      withDeviation(work, { step: 'leaks', title: 'Leak check', at: AT, how: 'skipped', reason: 'later', costs: skippingCosts('leaks') }),
    );
    expect(openWork(left)!.deviations[0]!.costs).toContain('floods');
    const again = withWork(left, 'x', AT, (work) => stepReopened(stepDone(work, 'leaks', AT), 'fix'));
    expect(openWork(again)).toMatchObject({ done: [{ step: 'leaks' }], deviations: [] });
    expect(again.build.works).toHaveLength(1);
    expect(systemIssue(again)).toBeNull();
  });
  it('what is read again stays beside what was read before; the newest counts', () => {
    const line = stepsOf(system).find(({ id }) => id === 'line')!;
    const read = (bar: number) => measuredOf(system, line, line.measures[0]!, bar, AT, NOTHING_READ);
    const work = withMeasured(withMeasured(newWork('w', 'newBuild', null, AT), read(4)), read(3.5));
    expect(work.measured).toHaveLength(2);
    expect(lastMeasured(work, 'line', 'linePressureBar')!.value).toBe(3.5);
  });
  it('the hand-over writes the baseline as the meters showed it, dates what was fitted and keeps the train', () => {
    const steps = stepsOf(system);
    const baseline = steps.find(({ id }) => id === 'baseline')!;
    let work = newWork('w', 'newBuild', null, AT);
    for (const [id, figure] of [
      ['probe-probe-tap', 481.3],
      ['probe-probe-membrane', 17.2],
      ['probe-probe-resin', 0.4],
      ['productLPerH', 9.1],
    ] as const)
      work = withMeasured(
        work,
        measuredOf(
          system,
          baseline,
          baseline.measures.find((one) => one.id === id)!,
          figure,
          AT,
          NOTHING_READ,
        ),
      );
    work = stepDone(
      { ...work, measured: [...work.measured, { ...work.measured[0]!, step: 'line', measure: 'temperatureC', value: 11 }] },
      'fix',
      AT,
    );
    const begun = { ...system, build: { ...system.build, works: [work] } };
    const { system: over, reading } = handedOver(begun, work, AT, 'r1');
    // A pen of factor 0.5 shows whole ppm.
    expect(reading!.values.map(({ shown }) => shown)).toEqual([241, 9, 0]);
    expect(reading).toMatchObject({ productLPerH: 9.1, temperatureC: 11, note: 'baseline' });
    expect(over.build.commissioned).toMatchObject({ at: AT, readingId: 'r1' });
    expect(over.build.commissioned!.train).toEqual(over.train);
    expect(over.train.stages.every((stage) => !('fittedOn' in stage) || stage.fittedOn === '2026-11-23')).toBe(true);
    expect(openWork(over)).toBeNull();
    expect(over.build.works[0]!.cautions.map(({ title }) => title)).toEqual(['Wet is heavy']);
    expect(systemIssue(over)).toBeNull();
    expect(baselineReading(system, newWork('w', 'newBuild', null, AT), 'r', AT)).toBeNull();
  });
  it('a change of one part dates that part alone; putting away leaves what was handed over', () => {
    const dated = {
      ...system,
      train: {
        ...system.train,
        stages: system.train.stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: '2026-01-01' } : stage)),
      },
    };
    const part = newWork('w', 'partChange', 'carbon', AT);
    const changed = handedOver({ ...dated, build: { ...dated.build, works: [part] } }, part, AT, 'r').system;
    expect(changed.train.stages.filter((stage) => 'fittedOn' in stage && stage.fittedOn === '2026-11-23').map(({ id }) => id)).toEqual([
      'carbon',
    ]);
    const away = newWork('w', 'putAway', null, AT);
    expect(handedOver({ ...dated, build: { ...dated.build, works: [away] } }, away, AT, 'r').system.build.commissioned).toBeNull();
  });
  it('cautions of the steps that were done stand once each', () => {
    const done = ['feed', 'flush-filters', 'leaks'].reduce((work, id) => stepDone(work, id, AT), newWork('w', 'newBuild', null, AT));
    expect(cautionsGiven(system, done).map(({ title }) => title)).toEqual(['Local codes come first', 'Stay with it']);
  });
});

describe('facts of the trade in the runbook (common practice)', () => {
  const find = (template: System['template'], id: string): Step => stepsOf(made(template)).find((one) => one.id === id)!;
  it('prefilters 10 min, a membrane 30 to 60, an hour to saturate, all waited out by the clock', () => {
    expect(find('marinePair', 'flush-filters')).toMatchObject({ minutes: 10, waits: true });
    const flush = find('marinePair', 'flush-membrane');
    expect(flush.waits && flush.minutes >= 30 && flush.minutes <= 60).toBe(true);
    expect(find('marinePair', 'saturate')).toMatchObject({ minutes: 60, waits: true });
  });
  it('15 cm under a cartridge, a hole of 11 mm, four times the pressure for a hose, 45 to 80 psi at the line', () => {
    expect(find('marinePair', 'fix').how).toContain('15\u202fcm');
    expect(find('marineHousehold', 'tank-tank').how).toContain('11\u202fmm');
    expect(find('watermaker', 'hoses-pump').title).toContain('260');
    const { low, high } = find('marineHousehold', 'line').measures[0]!;
    expectNear(low! / 0.0689476, 45, 0.01);
    expectNear(high! / 0.0689476, 80, 0.01);
  });
  it('a drum of 200 L behind a 100 gal/day element is full overnight', () => {
    const how = find('breeder', 'fill-tank').how;
    const [, hours] = /full in about (\d+) h/.exec(how)!;
    expect(Number(hours)).toBeGreaterThanOrEqual(9);
    expect(Number(hours)).toBeLessThanOrEqual(20);
  });
  it('the ratio: 4 : 1 wanted, 3 : 1 to 6 : 1 the schools between which nobody quarrels', () => {
    expect(made('marineHousehold').train.wasteTarget).toBe(4);
    expect(USUAL_RATIO).toEqual({ least: 3, most: 6 });
    expect(find('marineHousehold', 'trim').title).toContain('4\u202f:\u202f1');
  });
  it('coffee cartridges are flushed with 10 L small, 20 L large; a dial is proved by drops, within one', () => {
    expect(find('espressoBar', 'cartridge-decarboniser').title).toMatch(/, (10|20)\u202fL$/);
    const dial = find('espressoBar', 'dial-decarboniser').measures.find(({ id }) => id === 'hardness')!;
    expect(dial.high! - dial.expected!).toBeGreaterThanOrEqual(17.8);
    // Without a meter of litres they are written on it.
    const written = find('espressoBar', 'preset-decarboniser');
    expect([written.title, written.measures]).toEqual(['Write on cartridge when it is changed', []]);
    expect(written.how).toMatch(/^After [\d\u202f]+ ?\u202fL, or in a year/);
  });
  it('a boat raises its pressure slowly and tastes at the sample outlet until below its limit', () => {
    expect(find('watermaker', 'raise').how).toContain('never faster than 0.70\u202fbar a second');
    const limit = find('watermaker', 'taste').measures[0]!;
    // 300 mg/L of what a seawater membrane lets pass, in µS/cm.
    expect(limit.high!).toBeGreaterThan(500);
    expect(limit.high!).toBeLessThan(2200);
  });
  it('jugs that hold more than the unit draws are no measurement', () => {
    expect(jugsBeyond({ wasteL: 0.89, productL: 0.33 }, 60, 70)).toBe(false);
    expect(jugsBeyond({ wasteL: 50, productL: 12 }, 60, 70)).toBe(true);
  });
});

describe('three valves', () => {
  const unit = value(expectedToday(made('skid'), NOTHING_READ)).solved.unit!;
  const stands = {
    feedPressureBar: unit.feedPressureBar,
    productLPerH: unit.permeateLPerH,
    wasteLPerH: unit.concentrateLPerH,
    recycleLPerH: unit.recycleLPerH,
  };
  it('where all four figures are the solved ones, none is turned', () =>
    expect(valveTurns(unit, stands, 3.5)!.map(({ turn }) => turn)).toEqual(['leave', 'leave', 'leave']));
  it('without one of them, or without product, it says nothing', () => {
    expect(valveTurns(unit, { ...stands, recycleLPerH: null }, 3.5)).toBeNull();
    expect(valveTurns({ ...unit, noProduction: true }, stands, 3.5)).toBeNull();
  });
  it.each([
    ['recycle', { recycleLPerH: unit.recycleLPerH * 0.6 }, 'open'],
    ['recycle', { recycleLPerH: unit.recycleLPerH * 1.5 }, 'close'],
    ['concentrate', { wasteLPerH: unit.concentrateLPerH * 0.6 }, 'open'],
    ['throttle', { feedPressureBar: unit.feedPressureBar * 1.2 }, 'close'],
  ] as const)('%s off alone: %o', (valve, read, turn) =>
    expect(valveTurns(unit, { ...stands, ...read }, 3.5)!.find((one) => one.valve === valve)!.turn).toBe(turn),
  );
  it('followed on a solved skid whose three valves stand anywhere, it arrives', () => {
    const system = made('skid');
    const tap = value(tapWater(system.source, system.instruments)).water;
    const settings = { kv: 0.12, recycle: 0.9, speed: 0.95 };
    const target = { kv: 0.229, recycle: 0.636, speed: 0.83 };
    const pump = system.train.stages.findIndex(({ kind }) => kind === 'pump');
    let turns: ReturnType<typeof valveTurns> = null;
    for (let i = 0; i < 40; i++) {
      const train = {
        ...system.train,
        stages: system.train.stages.map((stage) =>
          stage.kind === 'membrane'
            ? { ...stage, valve: { kind: 'needle' as const, kvM3PerH: settings.kv }, recycleKv: settings.recycle }
            : stage.kind === 'pump' && stage.pump.kind === 'centrifugal'
              ? { ...stage, pump: { ...stage.pump, speed: settings.speed } }
              : stage,
        ),
      };
      const solved = value(solveTrain(train, system.source, tap));
      const now = solved.unit!;
      turns = valveTurns(
        unit,
        {
          feedPressureBar: now.feedPressureBar,
          productLPerH: now.permeateLPerH,
          wasteLPerH: now.concentrateLPerH,
          recycleLPerH: now.recycleLPerH,
        },
        solved.stations[pump]!.pressureBar,
      );
      const next = turns!.find(({ turn }) => turn !== 'leave');
      if (!next) break;
      const by = (next.turn === 'open' ? 1 : -1) * Math.min(next.by, 0.5);
      if (next.valve === 'recycle') settings.recycle *= 1 + by;
      if (next.valve === 'concentrate') settings.kv *= 1 + by;
      if (next.valve === 'throttle') settings.speed *= 1 + by / 2;
    }
    expect(turns!.every(({ turn }) => turn === 'leave')).toBe(true);
    expectWithin(settings.kv, target.kv, 0.15);
    expectWithin(settings.recycle, target.recycle, 0.15);
    expectWithin(settings.speed, target.speed, 0.05);
  });
});
