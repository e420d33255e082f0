import { describe, expect, it } from 'vitest';
import { systemIssue, type System } from '../file';
import type { Stage } from '../stage';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { dueOf, type Due } from './due';
import { behindInRow, lastDone, serviced, worksOn, type ServiceDone } from './services';
import { standing } from './standing';

const NOW = '2026-09-01T12:00:00Z';
const made = systemFromTemplate({ id: 's', name: 'Try', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const fitted: System = {
  ...made,
  train: { ...made.train, stages: made.train.stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: '2026-05-01' } : stage)) },
};
const due = (system: System, now = NOW): Due[] =>
  dueOf(system, value(standing(system, [], value(tapWater(system.source, system.instruments)).water, now)), now);
const of = (list: readonly Due[], id: string): Due => list.find((one) => one.id === id)!;
const done = (change: Partial<ServiceDone>): ServiceDone => ({
  id: 'x',
  at: '2026-08-20T15:00:00.000Z',
  stageId: null,
  instrumentId: null,
  work: 'changed',
  why: 'due',
  note: '',
  ...change,
});

describe('work on a part', () => {
  it('is written down with what the old one had behind it; the new one counts from that day', () => {
    const after = serviced(fitted, done({ stageId: 'sediment', why: 'spent', note: 'brown' }), { sediment: { passedL: 5200 } });
    expect(after.services).toEqual([
      {
        ...done({ stageId: 'sediment', why: 'spent', note: 'brown' }),
        taskId: null,
        name: 'Sediment',
        fittedOn: '2026-05-01',
        passedL: 5200,
      },
    ]);
    expect(after.train.stages.find(({ id }) => id === 'sediment')).toMatchObject({ fittedOn: '2026-08-20', loading: null });
    expect(after.train.stages.find(({ id }) => id === 'carbon')).toMatchObject({ fittedOn: '2026-05-01' });
    expect(of(due(fitted), 'sediment-changed').at.slice(0, 10)).toBe('2026-10-31');
    // The new one is four fifths full of dirt before its half year is over.
    expect(of(due(after), 'sediment-changed').at.slice(0, 10)).toBe('2027-01-06');
    expect(systemIssue(after)).toBeNull();
  });
  it('written down late it changes nothing of what came after', () => {
    const after = serviced(fitted, done({ stageId: 'sediment', at: '2026-03-01T10:00:00.000Z' }), {});
    expect(after.train).toEqual(fitted.train);
    expect(after.services).toHaveLength(1);
  });
  it('cleaning a membrane leaves it the same membrane', () => {
    const after = serviced(fitted, done({ stageId: 'membrane', work: 'cleaned' }), {});
    expect(after.train).toEqual(fitted.train);
    expect(lastDone(after, { stageId: 'membrane' }, ['cleaned'])).toBe('2026-08-20T15:00:00.000Z');
    expect(lastDone(after, { stageId: 'membrane' }, ['changed'])).toBeNull();
  });
  it('what can be done follows from the part', () => {
    const stage = (id: string) => fitted.train.stages.find((one) => one.id === id)!;
    expect(worksOn(fitted, stage('sediment'))).toEqual(['changed', 'cleaned', 'adjusted']);
    expect(worksOn(fitted, stage('membrane'))).toEqual(['changed', 'cleaned', 'flushed', 'adjusted']);
  });
});

describe('a row of two carbons', () => {
  const row: System = {
    ...fitted,
    train: {
      ...fitted.train,
      stages: fitted.train.stages.flatMap((stage): Stage[] =>
        stage.kind === 'carbon'
          ? [
              { ...stage, id: 'first', name: 'Carbon 1', loading: 0.4, fittedOn: '2026-01-10' },
              { ...stage, id: 'second', name: 'Carbon 2', loading: 0.1, fittedOn: '2026-05-01' },
            ]
          : [stage],
      ),
    },
  };
  it('is changed in turn: the second moves up with its days, a new one stands second', () => {
    const [first, second] = row.train.stages.filter(({ kind }) => kind === 'carbon');
    expect(behindInRow(row, first!)).toEqual([second]);
    expect(behindInRow(row, second!)).toEqual([]);
    expect(worksOn(row, first!)).toContain('movedUp');
    expect(worksOn(row, second!)).not.toContain('movedUp');
    const after = serviced(row, done({ stageId: 'first', work: 'movedUp' }), {});
    expect(after.train.stages.filter(({ kind }) => kind === 'carbon')).toMatchObject([
      { id: 'first', name: 'Carbon 1', loading: 0.1, fittedOn: '2026-05-01' },
      { id: 'second', name: 'Carbon 2', loading: 0, fittedOn: '2026-08-20' },
    ]);
    expect(after.services.at(-1)).toMatchObject({ work: 'movedUp', name: 'Carbon 1', fittedOn: '2026-01-10' });
    expect(systemIssue(after)).toBeNull();
  });
});

describe('work on a meter', () => {
  it('falls due half a year after the system began, and half a year after it was last done', () => {
    expect(of(due(fitted), 'meter-meter').at.slice(0, 10)).toBe('2026-07-02');
    const after = serviced(fitted, done({ instrumentId: 'meter', work: 'cleaned' }), {});
    expect(of(due(after), 'meter-meter').at.slice(0, 10)).toBe('2027-02-18');
    expect(after.instruments[0]!.calibratedOn).toBe('2026-08-20');
    const battery = serviced(fitted, done({ instrumentId: 'meter', work: 'battery' }), {});
    expect(battery.instruments).toEqual(fitted.instruments);
  });
});

describe('a rule of its own', () => {
  const withRule = (days: number | null, litres: number | null): System => ({
    ...fitted,
    upkeep: [{ id: 'r', stageId: 'sediment', says: 'change', days, litres, reason: 'old pipes in this street' }],
  });
  it('stands in place of the kind’s, and says so', () => {
    const found = of(due(withRule(60, null)), 'sediment-changed');
    expect(found.at.slice(0, 10)).toBe('2026-06-30');
    expect(found.because).toBe('60 days after it was fitted, by this system’s own rule: old pipes in this street');
    expect(of(due(fitted), 'sediment-changed').because).toBe('183 days after it was fitted');
  });
  it('by litres counts what has passed', () => {
    const soon = of(due(withRule(null, 5_000)), 'sediment-changed').at;
    const late = of(due(withRule(null, 50_000)), 'sediment-changed').at;
    expect(soon < late).toBe(true);
    expect(of(due(withRule(null, 50_000)), 'sediment-changed').because).toContain('by the litres through it');
  });
  it('without days or litres it is never due', () =>
    expect(due(withRule(null, null)).some(({ id }) => id === 'sediment-changed')).toBe(false));
});

describe('a boat', () => {
  it('is flushed every week, counted from the last flush', () => {
    const boat = systemFromTemplate({ id: 'b', name: 'Yawl', site: 's', template: 'watermaker', at: '2026-08-01T00:00:00Z' });
    const at = {
      ...boat,
      train: {
        ...boat.train,
        stages: boat.train.stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: '2026-08-01' } : stage)),
      },
    };
    expect(of(due(at), 'membrane-flushed').at.slice(0, 10)).toBe('2026-09-05');
    const flushed = serviced(at, done({ stageId: 'membrane', work: 'flushed', at: '2026-08-31T09:00:00.000Z' }), {});
    expect(of(due(flushed), 'membrane-flushed')).toMatchObject({ at: '2026-09-07T09:00:00.000Z', everyDays: 7, because: 'every 7 days' });
  });
});
