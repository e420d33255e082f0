import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading, type Service, type System } from '../file';
import { systemFromTemplate } from '../template';
import { calendarOf, clockAt } from '../testing/utcClock';
import { isOnRecord, withoutFigure, withWorks } from './takenWork';
import { guessColumns, readTable, readingsCsv, takeTable } from './table';
import { readWork, workText } from './workText';

const system = systemFromTemplate({ id: 's', name: 'Pair', site: 'Bench', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
const clock = clockAt('2026-11-28T09:30:00Z');
const read = (text: string): [string | null, string, string, string | null][] =>
  readWork(system, text, clock).map(({ stageId, instrumentId, work, why, at }) => [
    stageId ?? instrumentId,
    work,
    why,
    at?.slice(0, 10) ?? null,
  ]);

describe('work as people write it down', () => {
  it.each<[string, ReturnType<typeof read>]>([
    ['cartridge changed 2026-03-10, product was up', [['resin-1', 'changed', 'spent', '2026-03-10']]],
    ['new filters 3 May', [['sediment', 'changed', 'notSaid', '2026-05-03']]],
    ['Harz gewechselt 10.3.2026, still good', [['resin-1', 'changed', 'early', '2026-03-10']]],
    ['lead discarded, others moved up, new one last, as planned', [['resin-1', 'movedUp', 'due', null]]],
    ['restrictor replaced', [['membrane', 'adjusted', 'notSaid', null]]],
    ['new TDS meter', [[system.train.probes[0]!.instrumentId, 'changed', 'notSaid', null]]],
    ['resin changed, used up; new filters 2026-03-11', [['resin-1', 'changed', 'spent', null], ['sediment', 'changed', 'notSaid', '2026-03-11']]], // prettier-ignore
    ['away 10 days', []],
    ['colour 12 of 90 cm', []],
    ['', []],
  ])('%s', (text, expected) => expect(read(text)).toEqual(expected));
  it('a part is known by its own name before a word for its kind', () => {
    const named: System = {
      ...system,
      train: {
        ...system.train,
        stages: system.train.stages.map((stage) => (stage.id === 'resin-2' ? { ...stage, name: 'Blue bottle' } : stage)),
      },
    };
    expect(readWork(named, 'Blue bottle changed', clock).map(({ stageId }) => stageId)).toEqual(['resin-2']);
  });
});

const at = (day: number, hour = 8): string => new Date(Date.UTC(2026, 2, day, hour)).toISOString();
const reading = (day: number, change: Partial<Reading> = {}): Reading => ({
  id: `r${day}`,
  systemId: 's',
  at: at(day),
  values: [{ probeId: system.train.probes[0]!.id, instrumentId: system.train.probes[0]!.instrumentId, shown: 250 }],
  pressureBar: 4,
  temperatureC: 12,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
  ...change,
});
const service = (day: number, change: Partial<Service>): Service => ({
  id: `w${day}`,
  at: at(day, 12),
  stageId: 'sediment',
  instrumentId: null,
  taskId: null,
  name: 'Sediment',
  work: 'changed',
  why: 'due',
  note: '',
  fittedOn: null,
  passedL: null,
  ...change,
});

describe('a table of this system', () => {
  const done = [
    service(3, {}),
    service(9, { stageId: 'resin-1', name: 'Resin 1', work: 'movedUp', why: 'spent' }),
    service(20, { stageId: 'membrane', name: 'Membrane', work: 'cleaned', why: 'notSaid' }),
  ];
  const kept: System = { ...system, services: done };
  const csv = readingsCsv(kept, [reading(2), reading(10, { counts: false }), reading(15)], calendarOf);
  const table = readTable(csv)!;
  const taken = takeTable(system, table, guessColumns(system, table, clock), clock, () => 'n');
  it('comes back whole: what is excluded stays excluded, and the work with it, also what no reading followed', () => {
    expect(taken.refused).toEqual([]);
    expect(taken.readings.map(({ counts }) => counts)).toEqual([true, false, true]);
    expect(taken.works.map(({ stageId, work, why, doneAt }) => [stageId, work, why, doneAt.slice(0, 10)])).toEqual([
      ['sediment', 'changed', 'due', '2026-03-03'],
      ['resin-1', 'movedUp', 'spent', '2026-03-09'],
      ['membrane', 'cleaned', 'notSaid', '2026-03-20'],
    ]);
  });
  it('is written down once: what is on record already is left', () => {
    expect(taken.works.every((one) => isOnRecord(kept, one))).toBe(true);
    expect(withWorks(kept, taken.works, {}, () => 'new')).toBe(kept);
    const now = withWorks(system, taken.works, {}, (() => { let n = 0; return () => `n${(n += 1)}`; })()); // prettier-ignore
    expect(now.services.map(({ work, at: when }) => [work, when.slice(0, 10)])).toEqual([
      ['changed', '2026-03-03'],
      ['movedUp', '2026-03-09'],
      ['cleaned', '2026-03-20'],
    ]);
    // A row moves up: the last bed is new, the first keeps its own day.
    const resin = (id: string) => now.train.stages.find((stage) => stage.id === id)!;
    expect(resin('resin-2')).toMatchObject({ fittedOn: '2026-03-09' });
    expect(resin('sediment')).toMatchObject({ fittedOn: '2026-03-03' });
  });
  it('work in words no other part answers to', () =>
    expect(done.map((one) => workText(system, one, one.at.slice(0, 10)))).toEqual([
      'Sediment: changed 2026-03-03, due',
      'Resin 1: removed, next moved up 2026-03-09, spent',
      `${system.train.stages.find(({ id }) => id === 'membrane')!.name}: cleaned 2026-03-20`,
    ]));
});

describe('a figure left out', () => {
  it('leaves the rest of its reading', () => {
    const one = reading(2, { meterL: 500 });
    expect(withoutFigure(one, 'meterL')).toEqual({ ...one, meterL: null });
    expect(withoutFigure(one, `probe:${system.train.probes[0]!.id}`)).toEqual({ ...one, values: [] });
    expect(withoutFigure(one, 'at')).toBe(one);
  });
});
