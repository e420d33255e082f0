import type { Reading, Service, System } from '../../core/file';
import {
  logFindings,
  membraneTrend,
  serviced,
  slipsOf,
  trackResin,
  unitAsRead,
  type Doubt,
  type MembraneTrend,
  type ResinTracking,
} from '../../core/log';
import type { UnitMaps } from '../../core/log';
import type { Finding } from '../../core/stage';
import { solveTrain, tapWater } from '../../core/train';
import { value } from '../../core/testing/close';
import { FOUR_IN_FIVE_SD } from '../../core/numeric';
import { DAY_MS, DAYS_PER_YEAR } from '../../core/quantity';
import { COLUMN, FIELD, readRun, truthOf, type KeptLog, type Row, type Truth } from './keeper';
import { systemOf, told } from './rig';

/** Feeds a training log to the app row by row, as its keeper wrote it, and holds what the app says after each row against the truth. */

export interface BandHit {
  readonly run: number;
  readonly system: string;
  readonly of: 'a' | 'b' | 'resin';
  readonly row: number;
  readonly truth: number;
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** A run in which a seal leaks: its passage is told apart. */
  readonly seal: boolean;
  readonly scaling: boolean;
}
export interface DateHit {
  readonly run: number;
  readonly system: string;
  readonly cut: number;
  readonly days: number;
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
  readonly awayDays: number;
  readonly learnedFrom: number;
}
export interface Alarm {
  readonly run: number;
  readonly system: string;
  readonly row: number;
  readonly id: string;
  readonly title: string;
  readonly explained: boolean;
}
export interface SlipHit {
  readonly run: number;
  readonly system: string;
  readonly row: number;
  readonly kind: string;
  readonly found: boolean;
  readonly mended: boolean;
}
export interface Ask {
  readonly run: number;
  readonly system: string;
  readonly row: number;
  readonly says: string;
}
export interface StepHit {
  readonly run: number;
  readonly system: string;
  readonly kind: Truth['steps'][number]['kind'];
  readonly row: number;
  /** Row it is dated to at the end, and the row at which it was first told; null where it never was. */
  readonly dated: number | null;
  readonly toldAt: number | null;
  readonly named: string | null;
}
export interface Judged {
  readonly bands: BandHit[];
  readonly dates: DateHit[];
  readonly alarms: Alarm[];
  readonly slips: SlipHit[];
  readonly asks: Ask[];
  readonly steps: StepHit[];
  readonly columns: { right: number; of: number; readonly wrong: Set<string> };
  rows: number;
  years: Record<string, number>;
}
export const nothingJudged = (): Judged => ({
  bands: [],
  dates: [],
  alarms: [],
  slips: [],
  asks: [],
  steps: [],
  columns: { right: 0, of: 0, wrong: new Set() },
  rows: 0,
  years: {},
});

const WHY: Readonly<Record<string, Service['why']>> = { spent: 'spent', due: 'due', early: 'early' };

/** When a piece of work counts as done, as the keeper wrote it: on the day given, or just after the reading it is beside. */
const workAt = ({ dated }: Truth['work'][number], rowAt: string): string =>
  dated ? `${dated}T12:00:00.000Z` : new Date(Date.parse(rowAt) + 60_000).toISOString();

/** The keeper writes a piece of work down. */
function written(system: System, work: Truth['work'][number], rowAt: string, run: number): System {
  const done = {
    id: `w${run}-${work.part}-${work.done}`,
    at: workAt(work, rowAt),
    stageId: null,
    instrumentId: null,
    note: '',
    why: WHY[work.why ?? ''] ?? ('notSaid' as const),
  };
  switch (work.part) {
    case 'filter':
      return serviced(system, { ...done, stageId: 'sediment', work: 'changed' }, {});
    case 'meter':
      return serviced(system, { ...done, instrumentId: 'meter', work: 'changed' }, {});
    case 'restrictor':
    case 'valve':
      return serviced(system, { ...done, stageId: 'membrane', work: 'adjusted' }, {});
    default:
      return serviced(system, { ...done, stageId: 'resin-1', work: system.id === 'log-G' ? 'movedUp' : 'changed' }, {});
  }
}

/** A reading without some of its figures. */
function without(reading: Reading, columns: readonly string[]): Reading {
  return columns.reduce<Reading>((one, column) => {
    const field = FIELD[column];
    if (field === undefined) return one;
    if (field === 'at') return { ...one, counts: false };
    if (field.startsWith('probe:')) return { ...one, values: one.values.filter(({ probeId }) => `probe:${probeId}` !== field) };
    return { ...one, [field]: null };
  }, reading);
}

const figure = (reading: Reading, column: string): number | null => {
  const field = FIELD[column]!;
  if (field.startsWith('probe:')) return reading.values.find(({ probeId }) => `probe:${probeId}` === field)?.shown ?? null;
  return field === 'at' ? Date.parse(reading.at) : (reading as unknown as Record<string, number | null>)[field]!;
};

/** Columns a question is about: both of two figures in each other's place. */
const asksAbout = (doubt: Doubt, reading: Reading): string[] => {
  const own = COLUMN[doubt.field] ?? doubt.field;
  const fixed = doubt.probably?.reading;
  if (!fixed) return [own];
  return [
    ...new Set([own, ...Object.values(COLUMN).filter((column) => column !== 'when' && figure(reading, column) !== figure(fixed, column))]),
  ];
};

/** What explains an alarm at a row (README of the logs, 3). */
function isExplained(truth: Truth, k: number, at_: string): boolean {
  const at = (list: string, otherwise: number): number => ((truth.rows[list] as (number | null)[] | undefined)?.[k] ?? otherwise) as number;
  const row = k + 1;
  return (
    truth.steps.some(({ first_row }) => row >= first_row - 1 && row <= first_row + 4) ||
    truth.steps.some(({ kind, first_row }) => (kind === 'seal' || kind === 'oxidation') && row >= first_row) ||
    // A spell until its end, and the step back behind it.
    truth.steps.some(
      ({ until, first_row }) => until && row >= first_row && Date.parse(at_) <= Date.parse(until) + SPELL_ENDS_DAYS * DAY_MS,
    ) ||
    at('a', 1) < 0.85 ||
    at('b', 1) > 1.15 ||
    at('fl', 0) > 0.5 ||
    at('rf', 1) < 0.85 ||
    Math.abs(at('m', 1) - 1) > 0.08 ||
    at('rr', 1) <= 0 ||
    truth.slips.some((slip) => slip.row === row)
  );
}

const SPELL_ENDS_DAYS = 40;

const WARNS = new Set(['mind', 'bad']);
/** The same finding, whatever day or figure it names: told anew it is no second alarm while it stands. */
const kindOfAlarm = ({ id }: Finding): string => id.replace(/-\d{4}-\d\d-\d\d$/, '');

interface Seen {
  readonly tracking: ResinTracking | null;
  readonly membrane: MembraneTrend | null;
  readonly findings: readonly Finding[];
}

/** Judges one run, into what was judged before. */
export function judgeRun(run: number, into: Judged): void {
  const truth = truthOf(run);
  const d = told(truth.system);
  let system = systemOf(d, truth.start.slice(0, 10), truth.meter);
  const log: KeptLog = readRun(run, system);
  into.columns.right += log.guessed.right;
  into.columns.of += log.guessed.of;
  for (const one of log.guessed.wrong) into.columns.wrong.add(one);
  const fresh = value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water));
  const maps: UnitMaps = new Map();
  const kept: Reading[] = [];
  const seenAt = (now: string): Seen => {
    const tracking = trackResin(system, kept, fresh, now);
    const unit = d.elements ? unitAsRead(system, kept, fresh, maps) : null;
    const membrane = unit?.ok ? membraneTrend(system, kept, unit.value, now) : null;
    return { tracking, membrane, findings: logFindings(system, kept, fresh, tracking, now, membrane) };
  };
  const cuts = truth.forecasts.map((cut) => ({ ...cut, now: new Date(Date.parse(`${cut.cut}:00Z`) + 60_000).toISOString(), done: false }));
  const forecast = (cut: (typeof cuts)[number]): void => {
    cut.done = true;
    if (cut.broken || !cut.changes_written || cut.goal_on === null) return;
    const tracking = trackResin(system, kept, fresh, cut.now);
    const { p10, p50, p90 } = tracking?.daysLeft ?? { p10: 0, p50: 0, p90: 0 };
    into.dates.push({
      run,
      system: truth.system,
      cut: cut.before_end,
      days: cut.days,
      p10,
      p50,
      p90,
      awayDays: cut.away_days,
      learnedFrom: tracking?.learnedFrom ?? 0,
    });
  };
  const rowAt = (at: string): number => {
    const ms = Date.parse(at);
    return kept.reduce((best, one, i) => (Math.abs(Date.parse(one.at) - ms) < Math.abs(Date.parse(kept[best]!.at) - ms) ? i : best), 0) + 1;
  };
  const standing = new Set<string>();
  const toldAt = new Map<number, number>();
  let last: Seen = { tracking: null, membrane: null, findings: [] };
  const skipped = new Set<number>();

  log.rows.forEach((row, k) => {
    const number = k + 1;
    const slip = truth.slips.find((one) => one.row === number);
    for (const cut of cuts) if (!cut.done && slip?.kind !== 'date' && Date.parse(cut.now) < Date.parse(row.reading.at)) forecast(cut);
    const reading = taken(run, truth, system, row, k, kept, into, skipped);
    kept.push(reading);
    if (k === 0)
      system = { ...system, build: { ...system.build, commissioned: { at: reading.at, train: system.train, readingId: reading.id } } };
    const works = truth.work.filter((one) => one.row === number);
    const [before, after] = [true, false].map((early) =>
      works.filter((one) => Date.parse(workAt(one, reading.at)) <= Date.parse(reading.at) === early),
    ) as [typeof works, typeof works];
    for (const work of before) system = written(system, work, reading.at, run);
    last = seenAt(reading.at);
    judgeBands(truth, row, k, last, skipped, into);
    judgeAlarms(truth, k, reading.at, last.findings, standing, into);
    truth.steps.forEach((step, i) => {
      if (!toldAt.has(i) && number >= step.first_row && stepNear(last.findings, step, rowAt)) toldAt.set(i, number);
    });
    for (const work of after) system = written(system, work, reading.at, run);
  });
  for (const cut of cuts) if (!cut.done) forecast(cut);
  truth.steps.forEach((step, i) => {
    if (step.told) return;
    // As the whole log has it at its end.
    const end = stepNear(last.findings, step, rowAt) ?? stepNear(pastSteps(system, kept, fresh), step, rowAt);
    into.steps.push({
      run,
      system: truth.system,
      kind: step.kind,
      row: step.first_row,
      dated: end?.row ?? null,
      toldAt: toldAt.get(i) ?? null,
      named: end?.named ?? null,
    });
  });
  into.rows += log.rows.length;
  into.years[truth.system] =
    (into.years[truth.system] ?? 0) +
    (Date.parse(log.rows.at(-1)!.reading.at) - Date.parse(log.rows[0]!.reading.at)) / DAY_MS / DAYS_PER_YEAR;
}

/** Steps of the tap that are over are no longer told; they are dated as they were. */
function pastSteps(system: System, kept: readonly Reading[], fresh: Parameters<typeof logFindings>[2]): readonly Finding[] {
  const steps: Finding[] = [];
  for (const { at } of kept.filter((_, i) => i % 3 === 2))
    steps.push(
      ...logFindings(
        system,
        kept.filter((one) => one.at <= at),
        fresh,
        null,
        at,
        null,
      ).filter(({ id }) => id.startsWith('step-tap')),
    );
  return steps;
}

/** Takes a row as the keeper would: a slip that is found is mended as offered, or left out; one that is not found stands. */
function taken(
  run: number,
  truth: Truth,
  system: System,
  row: Row,
  k: number,
  kept: readonly Reading[],
  into: Judged,
  skipped: Set<number>,
): Reading {
  const slip = truth.slips.find((one) => one.row === k + 1);
  const doubts = slipsOf(system, row.reading, kept);
  const columns = [...row.refused, ...doubts.flatMap((doubt) => asksAbout(doubt, row.reading))];
  const twins = (truth.rows['twin_of_row_before'] ?? []) as readonly number[];
  const counts = !(
    truth.work.some((one) => one.row === k || one.row === k + 1) ||
    truth.steps.some(({ first_row }) => k + 1 >= first_row && k + 1 <= first_row + 1) ||
    twins.includes(k + 1)
  );
  const confirmed = (one: Reading): Reading => ({ ...one, confirmed: doubts.map(({ field }) => field) });
  if (!slip) {
    if (columns.length > 0 && counts)
      into.asks.push({ run, system: truth.system, row: k + 1, says: doubts.map(({ says }) => says).join(' ') });
    return confirmed(row.reading);
  }
  const found = columns.some((column) => slip.cols.includes(column));
  const offered = doubts.find((doubt) => asksAbout(doubt, row.reading).some((column) => slip.cols.includes(column)))?.probably?.reading;
  const mended =
    found &&
    offered !== undefined &&
    slip.cols.every(
      (column, i) => column === 'when' || nearly(figure(offered, column), slip.right[i]!, figure(row.reading, column), slip.wrote[i]!),
    );
  into.slips.push({ run, system: truth.system, row: k + 1, kind: slip.kind, found, mended });
  if (!found) return confirmed(row.reading);
  skipped.add(k);
  return confirmed(mended ? offered : without(row.reading, slip.cols));
}

/** Whether a figure came out as it was meant: in the written unit, by how the slip was taken in. */
function nearly(got: number | null, right: number, was: number | null, wrote: number): boolean {
  if (got === null) return false;
  if (was === null || was === 0 || wrote === 0) return got > 0 === right > 0;
  // The same factor lies between what was written and its unit here as between what is right and this.
  const perUnit = was / wrote;
  return (
    Math.abs(got - right * perUnit) <= 0.06 * Math.max(0.5, Math.abs(got)) ||
    Math.abs(got - right) <= 0.06 * Math.max(0.5, Math.abs(got)) ||
    Math.abs(got * 1.8 + 32 - right) < 1.5
  );
}

function judgeBands(
  truth: Truth,
  row: Row,
  k: number,
  { tracking, membrane }: Seen,
  skipped: ReadonlySet<number>,
  { bands }: Judged,
): void {
  if (k < 3 || skipped.has(k)) return;
  const has = (...columns: string[]): boolean => columns.every((column) => (row.cells[column] ?? '') !== '');
  const base = {
    run: truth.run,
    system: truth.system,
    row: k + 1,
    seal: truth.steps.some(({ kind }) => kind === 'seal'),
    scaling: ((truth.rows['rf'] as number[] | undefined)?.at(-1) ?? 1) < 0.97,
  };
  const factor = (of: 'a' | 'b', course: MembraneTrend['water']): void => {
    const true_ = (truth.rows[of] as (number | null)[] | undefined)?.[k];
    if (true_ === null || true_ === undefined) return;
    const at = (z: number): number => (course ? Math.exp(course.now.value + z * course.now.sd) : NaN);
    bands.push({ ...base, of, truth: true_, low: at(-FOUR_IN_FIVE_SD), middle: at(0), high: at(FOUR_IN_FIVE_SD) });
  };
  const flows = has('tap', 'pressure', 'temperature', 'productFlow', 'wasteFlow');
  if (flows) factor('a', membrane?.water ?? null);
  if (flows && has('membrane')) factor('b', membrane?.salt ?? null);
  const left = (truth.rows['rr'] as (number | null)[] | undefined)?.[k];
  if (left === null || left === undefined || !tracking) return;
  if (!has(truth.system === 'I' ? 'tap' : 'membrane') || (truth.meter.kind !== 'none' && !has('meter'))) return;
  const { p10, p50, p90 } = tracking.remaining;
  bands.push({ ...base, of: 'resin', truth: left, low: p10, middle: p50, high: p90 });
}

function judgeAlarms(truth: Truth, k: number, at: string, findings: readonly Finding[], standing: Set<string>, { alarms }: Judged): void {
  const now = new Set(findings.filter(({ severity }) => WARNS.has(severity)).map(kindOfAlarm));
  for (const finding of findings) {
    const kind = kindOfAlarm(finding);
    if (!WARNS.has(finding.severity) || standing.has(kind)) continue;
    alarms.push({ run: truth.run, system: truth.system, row: k + 1, id: kind, title: finding.title, explained: isExplained(truth, k, at) });
  }
  standing.clear();
  for (const kind of now) standing.add(kind);
}

/** The step the log tells nearest to a true one. */
function stepNear(
  findings: readonly Finding[],
  step: Truth['steps'][number],
  rowAt: (at: string) => number,
): { readonly row: number; readonly named: string } | null {
  const passage = step.kind === 'oxidation' || step.kind === 'seal';
  const own = findings.flatMap(({ id, why }) => {
    const match = /^step-(water|salt|tap)-(\d{4}-\d\d-\d\d)$/.exec(id);
    if (!match || (match[1] === 'salt') !== passage) return [];
    const named = match[1] === 'salt' ? passageName(why) : match[1] === 'tap' ? tapName(why) : 'output';
    return [{ row: rowAt(`${match[2]}T12:00:00Z`), named }];
  });
  const off = (row: number): number => Math.abs(row - step.first_row);
  return own.filter(({ row }) => off(row) <= 8).sort((a, b) => off(a.row) - off(b.row))[0] ?? null;
}
const passageName = (why: string): string =>
  /chlorine damage or/.test(why) ? 'either' : /chlorine damages/.test(why) ? 'oxidation' : 'seal';
const tapName = (why: string): string => (/^Either/.test(why) ? 'either' : /two meter scales/.test(why) ? 'meter' : 'supply');
