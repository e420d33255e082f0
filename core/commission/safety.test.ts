import { describe, expect, it } from 'vitest';
import { awaySince, TEMPLATE_IDS, type System, type WorkKind } from '../file';
import type { Step } from '../stage';
import { systemFromTemplate } from '../template';
import { partsOf } from './parts';
import { runbook, runbookSteps } from './runbook';
import { preservativeFor } from './storing';
import { newWork } from './work';

/** What could hurt somebody or flood a house stands at its step, and only where it belongs (common practice). */
const made = (template: System['template']): System =>
  systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: '2026-11-23T10:00:00Z' });
const steps = (system: System, kind: WorkKind): Step[] => runbookSteps(runbook(system, null, { kind, stageId: null }));
const textOf = ({ title, before, how, measures, cautions }: Step): string =>
  [title, before, how, ...measures.flatMap(({ label, ifLow, ifHigh }) => [label, ifLow, ifHigh]), ...cautions.map(({ text }) => text)].join(
    ' ',
  );
const KINDS = ['newBuild', 'putAway', 'bringBack'] as const;
const place = (list: readonly Step[], act: Step['act']): number => list.findIndex((one) => one.act === act);

describe('high pressure', () => {
  it.each(['watermaker', 'vanCart', 'skid'] as const)(
    '%s: wiped at low pressure, air out, raised, looked at again, in that order',
    (template) => {
      for (const kind of ['newBuild', 'bringBack'] as const) {
        const list = steps(made(template), kind);
        const order = (['prime', 'purge', 'leaks', 'raisePressure', 'lookAgain', 'taste'] as const).map((act) => place(list, act));
        expect(order).toEqual([...order].sort((a, b) => a - b));
        expect(order.every((at) => at >= 0)).toBe(true);
        expect(list.map(({ title }) => title)).not.toContain('Leak check at full pressure');
      }
    },
  );
  it.each(['watermaker', 'vanCart', 'skid'] as const)('%s: the product is never shut in under a running pump', (template) => {
    const list = steps(made(template), 'newBuild');
    for (const act of ['fitFloat', 'tryFloat', 'fill'] as const) {
      const one = list[place(list, act)]!;
      expect(one.cautions.map(({ title }) => title)).toContain('Never shut the product under a running pump');
      expect(textOf(one)).not.toMatch(/flow must stop|flow stops|both must stop/);
    }
    expect(partsOf(made(template), null).map(({ part }) => part)).not.toContain('float-valve');
  });
  it('behind line pressure alone a float shuts the tank, as before', () => {
    const list = steps(made('marineHousehold'), 'newBuild');
    expect(list[place(list, 'tryFloat')]!.how).toContain('the flow must stop');
    expect(partsOf(made('marineHousehold'), null).map(({ part }) => part)).toContain('float-valve');
  });
});

describe('putting away', () => {
  it('a boat: nothing is tasted, product flushes it, sea cock and strainer, the pump powered only while it is needed', () => {
    const list = steps(made('watermaker'), 'putAway');
    for (const one of list) expect(`${one.title} ${one.how}`).not.toMatch(/tastes? of|taste it/);
    const fresh = list[place(list, 'freshFlush')]!;
    expect(fresh.how).toContain('From the product tank');
    expect(fresh.how).toContain('destroys the membrane');
    expect(fresh.measures[0]).toMatchObject({ dimension: 'conductivityUScm', high: 3000 });
    const order = (['freshFlush', 'shutOff', 'strainer', 'emptyHousing', 'plugIn', 'preservativeIn', 'unplug', 'closeUp'] as const).map(
      (act) => place(list, act),
    );
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order[0]).toBeGreaterThanOrEqual(0);
  });
  it('says strength and litres for this unit: ten grams a litre, more for more membrane', () => {
    const [small, large] = [preservativeFor(made('marineHousehold'))!, preservativeFor(made('skid'))!];
    for (const { litres, grams } of [small, large]) expect(grams).toBe(10 * litres);
    expect(large.litres).toBeGreaterThan(3 * small.litres);
    const step = steps(made('skid'), 'putAway').find(({ act }) => act === 'preservativeIn')!;
    expect(step.how).toContain(`${large.grams} g`);
  });
  it('without a pump nothing is plugged in; without resin nobody is told to keep it out', () => {
    const list = steps(made('marineHousehold'), 'putAway');
    expect(place(list, 'plugIn')).toBe(-1);
    const boat = steps(made('watermaker'), 'putAway').find(({ act }) => act === 'preservativeIn')!;
    expect(boat.cautions.map(({ title }) => title)).not.toContain('Keep resin out of this water');
    expect(boat.before).toContain('overboard');
  });
});

describe('steps are of this system', () => {
  it.each(TEMPLATE_IDS)('%s', (template) => {
    const system = made(template);
    const { stages, loop } = system.train;
    const all = KINDS.flatMap((kind) => steps(system, kind));
    const says = (pattern: RegExp): string[] => all.filter((one) => pattern.test(textOf(one))).map(({ id }) => id);
    if (!stages.some(({ kind }) => kind === 'carbon')) expect(says(/carbon dust/)).toEqual([]);
    if (
      !stages.some(({ kind }) => ['pump', 'uv', 'softener', 'dosingPump', 'electrodeionizer', 'degasser'].includes(kind)) &&
      loop === null
    )
      expect(says(/unplug/)).toEqual([]);
    if (template === 'watermaker') expect(says(/studs|licensed trades/)).toEqual([]);
    if (stages.some(({ kind }) => kind === 'membrane')) expect(says(/own ring lies wet in its groove/).length).toBeGreaterThan(0);
  });
});

describe('whether it is put away', () => {
  const at = (work: WorkKind, endedAt: string | null) => ({ ...newWork(work, work, null, '2026-09-01T08:00:00Z'), endedAt });
  const after = (...works: ReturnType<typeof at>[]): string | null => awaySince({ build: { ...made('watermaker').build, works } });
  it('goes by what was ended last; what is only begun changes nothing', () => {
    expect(after()).toBeNull();
    expect(after(at('newBuild', '2026-05-01T00:00:00Z'), at('putAway', '2026-10-03T15:00:00Z'))).toBe('2026-10-03T15:00:00Z');
    expect(after(at('putAway', '2026-10-03T15:00:00Z'), at('bringBack', null))).toBe('2026-10-03T15:00:00Z');
    expect(after(at('putAway', '2026-10-03T15:00:00Z'), at('bringBack', '2027-03-01T15:00:00Z'))).toBeNull();
  });
});
