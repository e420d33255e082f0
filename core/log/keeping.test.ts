import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading, type System } from '../file';
import { seeded } from '../numeric';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { logFindings } from './findings';
import { litresCounted } from './litres';
import type { ResinTracking } from './resin';
import { serviced } from './services';
import { standing, type Standing } from './standing';
import { supplySteps } from './supplySteps';

/** How a log that people keep is read: check values L45 to L51 of the science of logs, as behaviour (definitions). */
const DAY = 86_400_000;
const START = Date.parse('2026-01-05T08:00:00Z');
const at = (day: number): string => new Date(START + day * DAY).toISOString();
const dayOf = (day: number): string => at(day).slice(0, 10);

const single = systemFromTemplate({ id: 's', name: 'One bed', site: 'Bench', template: 'marineHousehold', at: at(-1) });
const pair = systemFromTemplate({ id: 's', name: 'Two beds', site: 'Bench', template: 'marinePair', at: at(-1) });
const fitted = (system: System, day: number): System => ({
  ...system,
  train: {
    ...system.train,
    stages: system.train.stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: dayOf(day) } : stage)),
  },
});
/** A week's reading: 20 L a day by the meter, the product as given. */
const week = (system: System, day: number, product: number, over: Partial<Reading> = {}): Reading => ({
  id: `r${day}`,
  systemId: 's',
  at: at(day),
  values: system.train.probes.map((probe, i) => ({
    probeId: probe.id,
    instrumentId: probe.instrumentId,
    shown: i === system.train.probes.length - 1 ? product : i === 0 ? 240 : 8,
  })),
  pressureBar: 4,
  temperatureC: 15,
  productLPerH: null,
  wasteLPerH: null,
  meterL: 1000 + 20 * day,
  ...NOTHING_SAID,
  ...over,
});
const weeks = (system: System, from: number, until: number, product: (day: number) => number): Reading[] =>
  Array.from({ length: Math.floor((until - from) / 7) + 1 }, (_, i) => week(system, from + 7 * i, product(from + 7 * i)));
const standingOf = (system: System, readings: readonly Reading[], day: number): Standing =>
  value(standing(system, readings, value(tapWater(system.source, system.instruments)).water, at(day)));
const tracked = (system: System, readings: readonly Reading[], day: number): ResinTracking => standingOf(system, readings, day).tracking!;
const resinOf = (system: System): string => system.train.stages.find(({ kind }) => kind === 'resin')!.id;
/** Work on the first bed, as the dialog writes it. */
const works = (
  system: System,
  day: number,
  {
    work = 'changed',
    why = 'notSaid',
    id = `w${day}`,
  }: { work?: 'changed' | 'movedUp'; why?: 'notSaid' | 'due' | 'spent'; id?: string } = {},
): System => serviced(system, { id, at: at(day), stageId: resinOf(system), instrumentId: null, work, why, note: '' }, {});
const numbers = ({ remaining, daysLeft, capacityEq, anionEq, learnedFrom }: ResinTracking): unknown => ({
  remaining,
  daysLeft,
  capacityEq,
  anionEq,
  learnedFrom,
});
const near = (one: unknown, other: unknown): void => {
  const flat = (data: unknown): number[] =>
    typeof data === 'number' ? [data] : typeof data === 'object' && data ? Object.values(data).flatMap(flat) : [];
  const [a, b] = [flat(one), flat(other)];
  expect(a.length).toBe(b.length);
  a.forEach((figure, i) => expect(Math.abs(figure - b[i]!)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(figure))));
};

describe('a log as it is kept', () => {
  it('says the same in whatever order it was typed in (L45)', () => {
    const system = works(fitted(single, 0), 91);
    const readings = weeks(system, 0, 140, (day) => (day > 80 && day < 91 ? 3 : 0));
    const shuffled = [...readings];
    const chance = seeded(7);
    shuffled.sort(() => chance.normal());
    near(numbers(tracked(system, shuffled, 141)), numbers(tracked(system, readings, 141)));
  });
  it('says the same of work written down late as of work written down in time (L45)', () => {
    const begun = fitted(single, 0);
    const inTime = works(works(begun, 70, { id: 'a' }), 133, { id: 'b' });
    const late = works(works(begun, 133, { id: 'b' }), 70, { id: 'a' });
    const readings = weeks(begun, 0, 140, (day) => ([63, 126].includes(day) ? 3 : 0));
    near(numbers(tracked(late, readings, 141)), numbers(tracked(inTime, readings, 141)));
    expect(late.services.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(late.train.stages.find(({ id }) => id === resinOf(late))).toMatchObject({ fittedOn: dayOf(133) });
  });
  it('has next to nothing left once the product was past the goal twice (L47)', () => {
    const readings = weeks(single, 0, 70, (day) => (day >= 63 ? 4 : 0));
    const { remaining, state, spentBetween } = tracked(fitted(single, 0), readings, 71);
    expect(state).toBe('spent');
    expect([remaining.p10, remaining.p50]).toEqual([0, 0]);
    expect(remaining.p90).toBeLessThanOrEqual(0.05);
    expect([spentBetween!.from.slice(0, 10), spentBetween!.to.slice(0, 10)]).toEqual([dayOf(56), dayOf(63)]);
  });
  it('changed five weeks late and called due, it learns the load at the first reading past the goal (L48)', () => {
    const readings = weeks(single, 0, 126, (day) => (day >= 63 && day < 98 ? 4 : 0));
    const taught = (changed: number): number => {
      const { history } = tracked(works(fitted(single, 0), changed, { why: 'due' }), readings.filter(({ at: when }) => Date.parse(when) < START + 64 * DAY || Date.parse(when) > START + changed * DAY), 127); // prettier-ignore
      return history.spans[0]!.taught!.loadEq;
    };
    const late = tracked(works(fitted(single, 0), 98, { why: 'due' }), readings, 127).history.spans[0]!.taught!;
    expect(late.kind).toBe('breakthrough');
    expect(late.loadEq).toBeCloseTo(taught(64), 9);
  });
  it('of a row at its goal that was moved up, the row still carries what the first bed did not take (L49)', () => {
    const begun = fitted(pair, 0);
    const readings = weeks(pair, 0, 210, (day) => (day >= 182 && day < 196 ? 4 : 0));
    const system = works(begun, 196, { work: 'movedUp' });
    const before = tracked(begun, readings.filter(({ at: when }) => Date.parse(when) < START + 190 * DAY), 190); // prettier-ignore
    const after = tracked(system, readings, 211);
    expect(before.beds.map(({ used }) => used)).toEqual([1, 1]);
    // The bed that moved up is as spent as it was; only the last is new.
    expect(after.beds[0]!.used).toBeGreaterThan(0.95);
    expect(after.beds[1]!.used).toBeLessThan(0.3);
    expect(after.beds[0]!.name).toBe(before.beds[1]!.name);
    // What is still to come is one bed's, not a new row's.
    expect(after.daysLeft!.p50 * after.ratePerDayEq).toBeLessThan(1.1 * (after.capacityEq / 2));
    expect(after.daysLeft!.p50 * after.ratePerDayEq).toBeGreaterThan(0.5 * (after.capacityEq / 2));
  });
  it('one pen that shows 1.28 times from a day on is the meter or the supply within four readings, and no salt finding (L51)', () => {
    const chance = seeded(11);
    const system = fitted(single, 0);
    const readings = weeks(system, 0, 196, () => 0).map((one, i) => ({
      ...one,
      productLPerH: 8 * Math.exp(0.02 * chance.normal()),
      wasteLPerH: 32 * Math.exp(0.02 * chance.normal()),
      values: one.values.map((v, k) => ({
        ...v,
        shown: Math.round([240, 8, 0][k]! * (i >= 20 ? 1.28 : 1) * Math.exp(0.02 * chance.normal())),
      })),
    }));
    const found = supplySteps(system, readings.slice(0, 24)).at(-1)!;
    expect(found.since).toBe(readings[20]!.at);
    expect(['either', 'meter']).toContain(found.family);
    const today = standingOf(system, readings, 197);
    const said = logFindings(system, readings, today.report.solved, today.tracking, at(197), today.membrane, today);
    expect(said.filter(({ severity }) => severity === 'mind' || severity === 'bad').map(({ title }) => title).join(' ')).not.toMatch(/salt/i); // prettier-ignore
  });
  it('takes one total for known water where it goes with the use planned since the parts were put in', () => {
    const total = (meterL: number) => litresCounted(fitted(single, 0), [week(single, 60, 0, { meterL })]);
    expect(total(1150).at(START + 60 * DAY) - total(1150).at(Date.parse(`${dayOf(0)}T00:00:00Z`))).toBeCloseTo(1150, 6);
    expect(total(1150).spans.map(({ metered }) => metered)).toEqual([true]);
    // A meter that counted before says nothing by its total.
    expect(total(48_000).spans).toEqual([]);
  });
  it('asks where a membrane would let nothing through, and where a bed would hold several times what it can', () => {
    const said = (readings: readonly Reading[], day: number): string[] => {
      const today = standingOf(fitted(single, 0), readings, day);
      return logFindings(fitted(single, 0), readings, today.report.solved, today.tracking, at(day), today.membrane, today).map(
        ({ title }) => title,
      );
    };
    const dry = weeks(single, 0, 28, () => 0).map((one) => ({
      ...one,
      values: one.values.map((v, i) => (i === 1 ? { ...v, shown: 0 } : v)),
    }));
    expect(said(dry, 29).join(' ')).toMatch(/After membrane reads 0; about .* is expected/);
    const gallons = weeks(single, 0, 700, () => 0).map((one, i) => ({ ...one, meterL: 1000 + 400 * i }));
    expect(said(gallons, 701).join(' ')).toMatch(/took up .* eq by the log; 0\.6 L of resin hold about/);
    expect(
      said(
        weeks(single, 0, 28, () => 0),
        29,
      ).join(' '),
    ).not.toMatch(/took up|is expected/);
  });
});
