import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TEMPLATE_IDS, type System, type Train } from '../file';
import { newStage, STAGE_KINDS, step, type Act, type Stage, type Step } from '../stage';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { expectedToday } from './expected';
import { brokenRules, ORDER_RULES } from './order';
import { runbook, runbookSteps, type WorkAsked } from './runbook';
import { isUpgrade, trainChange } from './trainChange';

const made = (template: System['template']): System =>
  systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: '2026-11-23T10:00:00Z' });
const told = (system: System, work: WorkAsked, from: readonly Stage[] = []): string[] => {
  const steps = runbookSteps(runbook(system, null, work));
  // Of an id in both trains the present place counts.
  const stages = [...from, ...system.train.stages, ...system.train.branches.flatMap((one) => one.stages)];
  return [
    ...brokenRules(steps, stages).map(({ rule, first, then }) => `${first} after ${then}: ${rule.reason}`),
    ...steps.filter(({ id }, i) => steps.findIndex((one) => one.id === id) !== i).map(({ id }) => `${id} stands twice`),
  ];
};
const handedOver = (system: System, train: Train): System => ({
  ...system,
  build: { ...system.build, commissioned: { at: '2026-11-01T00:00:00Z', train, readingId: null } },
});

describe('the order of work', () => {
  it.each(TEMPLATE_IDS)('%s: no step of any work breaks a rule', (template) => {
    const system = made(template);
    for (const kind of ['newBuild', 'putAway', 'bringBack'] as const) expect(told(system, { kind, stageId: null })).toEqual([]);
    for (const { id } of system.train.stages) expect(told(system, { kind: 'partChange', stageId: id })).toEqual([]);
  });
  it('from every template to every other, no step breaks a rule', () => {
    for (const from of TEMPLATE_IDS)
      for (const to of TEMPLATE_IDS) {
        const before = made(from).train;
        expect(told(handedOver(made(to), before), { kind: 'upgrade', stageId: null }, before.stages), `${from} to ${to}`).toEqual([]);
      }
  });

  const stage = fc.constantFrom(...STAGE_KINDS);
  type Drawn = {
    readonly kinds: readonly (typeof STAGE_KINDS)[number][];
    readonly arrangement: 'single' | 'series' | 'parallel' | 'array';
    readonly valve: 'pressure' | 'recovery' | null;
    readonly sea: boolean;
    readonly closed: boolean;
    readonly loop: boolean;
  };
  const train: fc.Arbitrary<Drawn> = fc.record({
    kinds: fc.array(stage, { maxLength: 10 }),
    arrangement: fc.constantFrom('single', 'series', 'parallel', 'array'),
    valve: fc.constantFrom(null, 'pressure', 'recovery'),
    sea: fc.boolean(),
    closed: fc.boolean(),
    loop: fc.boolean(),
  });
  const drawn = ({ kinds, arrangement, valve, sea, closed, loop }: Drawn): System => {
    let membranes = 0;
    const stages = kinds.flatMap((kind, i): Stage[] => {
      const one = newStage(kind, `s${i}`);
      if (one.kind === 'tank') return [closed ? { ...one, openToAir: false, prechargeBar: 0.5 } : one];
      if (one.kind === 'pump' && sea) return [{ ...one, pump: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 } }];
      if (one.kind !== 'membrane') return [one];
      if (++membranes > 2) return [];
      const held = valve === 'pressure' ? { kind: valve, bar: sea ? 55 : 8 } : valve === 'recovery' ? { kind: valve, recovery: 0.5 } : null;
      return [{ ...one, arrangement, ranks: arrangement === 'array' ? [{ vessels: 2, elementsPerVessel: 1 }] : [], valve: held } as Stage];
    });
    const base = made('marineHousehold');
    const tank = stages.some(({ kind }) => kind === 'tank');
    return {
      ...base,
      train: {
        ...base.train,
        stages,
        probes: base.train.probes.filter(({ after }) => after === 'tap'),
        loop: loop && tank ? { flowLPerH: 1800, boreMm: 20, surfaceM2: 0.5, ventFilter: false } : null,
      },
    };
  };
  it('2,000 random trains: no step of any work breaks a rule, and each can be upgraded to the next', () => {
    let before = made('marineHousehold').train;
    fc.assert(
      fc.property(train, (one) => {
        const system = drawn(one);
        for (const kind of ['newBuild', 'putAway', 'bringBack'] as const) expect(told(system, { kind, stageId: null })).toEqual([]);
        const [first] = system.train.stages;
        if (first) expect(told(system, { kind: 'partChange', stageId: first.id })).toEqual([]);
        expect(told(handedOver(system, before), { kind: 'upgrade', stageId: null }, before.stages)).toEqual([]);
        before = system.train;
      }),
      { numRuns: 2000, seed: 13 },
    );
  });

  it('the checker sees what is out of order: every rule fails on a list that breaks it', () => {
    const at = (id: string, act: Act, stageId: string | null): Step =>
      step({ id, act, place: 'resin', title: '', how: '', minutes: 1, stageId });
    for (const rule of ORDER_RULES) {
      if (rule.kind === 'needs') {
        const steps = [at('a', rule.act, 'x'), ...(rule.where ? [at('b', rule.where, 'x')] : []), at('c', rule.needs, 'x')];
        expect(brokenRules(steps, [{ id: 'x' }]).some((one) => one.rule === rule)).toBe(true);
        continue;
      }
      const steps = [at('a', rule.then, rule.kind === 'inTurn' ? 'y' : 'x'), at('b', rule.first, 'x')];
      expect(
        brokenRules(steps, [{ id: 'x' }, { id: 'y' }]).map((one) => one.rule),
        `${rule.first} before ${rule.then}`,
      ).toContain(rule);
    }
  });
  it('a runbook turned round breaks the rules it keeps', () => {
    const steps = runbookSteps(runbook(made('marinePair')));
    expect(brokenRules(steps.toReversed(), made('marinePair').train.stages).length).toBeGreaterThan(15);
  });
});

describe('what an upgrade is', () => {
  const [one, two] = [made('marineHousehold').train, made('marinePair').train];
  it('names what is taken out, put in and built otherwise', () => {
    const change = trainChange(one, two);
    expect(change.added.map(({ id }) => id)).toEqual(['carbon-1', 'carbon-2', 'resin-1', 'resin-2']);
    expect(change.removed.map(({ id }) => id)).toEqual(['carbon', 'resin']);
    expect(change.rebuilt.map(({ after }) => after.id)).toEqual(['membrane', 'tank']);
    expect(isUpgrade(trainChange(one, one))).toBe(false);
  });
  it('a name, a dial or a day does not make a train another', () =>
    expect(
      isUpgrade(
        trainChange(one, {
          ...one,
          stages: one.stages.map((stage) => ({ ...stage, name: 'Other', ...('fittedOn' in stage && { fittedOn: '2026-01-01' }) })),
        }),
      ),
    ).toBe(false));
  it('moves only what left its order', () => {
    const order = [...one.stages.slice(1), one.stages[0]!];
    expect(trainChange(one, { ...one, stages: order }).moved.map(({ id }) => id)).toEqual(['sediment']);
  });
  it('a second membrane on the waste of the first: restrictor out, larger one on the last waste, flush valve, tee, near 60 psi (common practice)', () => {
    const system = handedOver(made('marinePair'), one);
    const steps = runbookSteps(
      runbook(system, value(expectedToday(system, { linePressureBar: null, temperatureC: null })), { kind: 'upgrade', stageId: null }),
    );
    const order = [
      'shut-off',
      'restrictor-out',
      'second-housing',
      'join-products',
      'restrictor-in',
      'flush-valve',
      'series-pressure',
      'seat',
      'flush-membrane',
      'ratio',
    ];
    expect(steps.map(({ id }) => id).filter((id) => order.includes(id))).toEqual(order);
    const pressure = steps.find(({ id }) => id === 'series-pressure')!.measures[0]!;
    expect(pressure.low! / 0.0689476).toBeGreaterThan(45);
    expect(pressure.low! / 0.0689476).toBeLessThan(60);
    // What was not touched is not done again.
    expect(steps.map(({ id }) => id)).not.toContain('fix');
  });
});
