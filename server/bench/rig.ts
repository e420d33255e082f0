import { DAY_MS } from '@yes-clear/core/quantity';
import { loopReport } from '@yes-clear/core/advice';
import type { System } from '@yes-clear/core/file';
import { solvedIn, type TrueState } from '@yes-clear/core/log';
import { systemFromTemplate } from '@yes-clear/core/template';
import { solveTrain, tapWater, temperatureInMonth } from '@yes-clear/core/train';
import { slowScatter } from './chance';
import type { Fault } from './faults';

/** What flows through the rig on a day, by the solver. */
export interface Course {
  readonly temperatureC: number;
  readonly lineBar: number;
  readonly tapUScm: number;
  readonly membraneUScm: number;
  readonly resinUScm: number;
  readonly productLPerH: number;
  readonly wasteLPerH: number;
}

const HOUR_MS = 3_600_000;
/** Ageing of the rig's membrane a year, ln, and days its filters last until they are nearly closed. */
const WATER_PER_YEAR = -0.1;
const SALT_PER_YEAR = 0.12;
const FILTER_DAYS = 150;
/** Days of a quarter after which the resin lets salt through; at its end it is changed. */
const RESIN_DAYS = 84;
/** Hours of the day at which the tank calls for water, and how long it takes to fill. */
const RUNS = [
  { from: 6, hours: 3 },
  { from: 13, hours: 2 },
  { from: 19, hours: 2.5 },
] as const;
const RUN_HOURS = RUNS.reduce((sum, { hours }) => sum + hours, 0);

const yearStart = (ms: number): number => Date.UTC(new Date(ms).getUTCFullYear(), 0, 1);
/** Days since the quarter began: filters and resin are changed on its first day. */
function quarterDay(ms: number): number {
  const at = new Date(ms);
  return (ms - Date.UTC(at.getUTCFullYear(), 3 * Math.floor(at.getUTCMonth() / 3), 1)) / DAY_MS;
}

/** The household rig and the loop the bench is made of; the membrane is renewed at the turn of the year. */
const HOUSE: System = systemFromTemplate({
  id: 'bench',
  name: 'Bench',
  site: 'Bench',
  template: 'marinePair',
  at: '2026-01-01T00:00:00Z',
});
const LAB: System = (() => {
  const skid = systemFromTemplate({ id: 'loop', name: 'Loop', site: 'Bench', template: 'skid', at: '2026-01-01T00:00:00Z' });
  // Without a filter in its vent the tank takes carbon dioxide from the air.
  return { ...skid, train: { ...skid.train, loop: skid.train.loop && { ...skid.train.loop, ventFilter: false } } };
})();

/** What is true on a day, with what is set wrong. */
function stateOn(day: number, faults: ReadonlySet<Fault>): TrueState {
  const ms = day * DAY_MS + DAY_MS / 2;
  const at = new Date(ms);
  const years = (ms - yearStart(ms)) / (365.25 * DAY_MS);
  const month = at.getUTCMonth() + at.getUTCDate() / 30 - 0.5;
  return {
    temperatureC: Math.max(2, temperatureInMonth(HOUSE.source.season, month) + slowScatter('season', ms, 5 * DAY_MS)),
    linePressureBar: HOUSE.source.linePressureBar * (faults.has('lowPressure') ? 0.6 : 1),
    tap: Math.exp(0.05 * slowScatter('tap', ms, 7 * DAY_MS)),
    water: Math.exp(WATER_PER_YEAR * years) * (faults.has('membraneFouled') ? 0.7 : 1),
    salt: Math.exp(SALT_PER_YEAR * years) * (faults.has('membraneHole') ? 3 : 1),
    loading: faults.has('filterClogged') ? 0.9 : Math.min(0.9, 0.9 * (quarterDay(ms) / FILTER_DAYS) ** 1.5),
    slips: faults.has('resinSpent') ? 0.33 : Math.max(0, (quarterDay(ms) - RESIN_DAYS) * 0.02),
  };
}

const courses = new Map<string, Course>();
/** Days kept solved, with each set of faults: each is solved once. */
const MOST_DAYS = 8000;

/** What flows on a day: solved once. */
function courseOn(day: number, faults: ReadonlySet<Fault>): Course {
  const key = `${day} ${[...faults].sort().join(' ')}`;
  const known = courses.get(key);
  if (known) return known;
  const state = stateOn(day, faults);
  const tap = tapWater(HOUSE.source, HOUSE.instruments);
  if (!tap.ok) throw new Error(tap.error.message);
  const solved = solvedIn(HOUSE, tap.value.water, state);
  if (!solved.ok) throw new Error(solved.error.message);
  const ec = (after: string): number => solved.value.stations.find((station) => station.after === after)!.state.ec25UScm;
  const course: Course = {
    temperatureC: state.temperatureC,
    lineBar: state.linePressureBar,
    tapUScm: ec('tap'),
    membraneUScm: ec('membrane'),
    resinUScm: ec('resin-2') + state.slips * ec('membrane'),
    productLPerH: solved.value.productLPerH,
    wasteLPerH: solved.value.waste?.flowLPerH ?? 0,
  };
  if (courses.size >= MOST_DAYS) courses.delete(courses.keys().next().value!);
  courses.set(key, course);
  return course;
}

const mixed = (a: Course, b: Course, share: number): Course =>
  Object.fromEntries((Object.keys(a) as (keyof Course)[]).map((key) => [key, (1 - share) * a[key] + share * b[key]])) as unknown as Course;

/** What flows at an instant while water is made: between noon and noon in a line. */
export function courseAt(ms: number, faults: ReadonlySet<Fault>): Course {
  const at = ms / DAY_MS - 0.5;
  const day = Math.floor(at);
  return mixed(courseOn(day, faults), courseOn(day + 1, faults), at - day);
}

/** Whether the unit makes water at an instant, and for how long it has done so or stood, h. */
export function runningAt(ms: number): { readonly running: boolean; readonly forH: number } {
  const hour = (ms % DAY_MS) / HOUR_MS;
  const now = RUNS.find(({ from, hours }) => hour >= from && hour < from + hours);
  if (now) return { running: true, forH: hour - now.from };
  const last = RUNS.findLast(({ from }) => from <= hour) ?? RUNS.at(-1)!;
  return { running: false, forH: (hour - last.from - last.hours + 24) % 24 };
}

/** Hours of a day in which water was made up to an instant. */
const hoursMade = (ms: number): number => {
  const hour = (ms % DAY_MS) / HOUR_MS;
  return RUNS.reduce((sum, { from, hours }) => sum + Math.min(hours, Math.max(0, hour - from)), 0);
};

const totals = new Map<number, number>();
/** Day on which the bench's meter stood at nought. */
const METER_FROM = Date.UTC(2026, 0, 1) / DAY_MS;
/** Litres the bench has made: whole days once, and today's so far. */
export function litresAt(ms: number): number {
  const today = Math.floor(ms / DAY_MS);
  const none: ReadonlySet<Fault> = new Set();
  let before = totals.get(today);
  if (before === undefined) {
    before = 0;
    for (let day = METER_FROM; day < today; day++) before += courseOn(day, none).productLPerH * RUN_HOURS;
    totals.set(today, before);
  }
  return before + courseOn(today, none).productLPerH * hoursMade(ms);
}

let loopWeekUScm: readonly number[] | null = null;
/** Conductivity at the loop's outlets at an instant: the week of draws as the solver has it, CO2 from the air included. */
export function loopUScmAt(ms: number): number {
  loopWeekUScm ??= solvedLoop();
  const at = (ms / HOUR_MS) % loopWeekUScm.length;
  const before = Math.floor(at);
  const [a, b] = [loopWeekUScm[before]!, loopWeekUScm[(before + 1) % loopWeekUScm.length]!];
  // The polisher loses a tenth of its figure over a quarter.
  return (a + (b - a) * (at - before)) * (1 + (0.1 * quarterDay(ms)) / 91);
}

function solvedLoop(): number[] {
  const tap = tapWater(LAB.source, LAB.instruments);
  const solved = tap.ok ? solveTrain(LAB.train, LAB.source, tap.value.water) : tap;
  const loop = solved.ok ? loopReport(LAB, solved.value) : null;
  if (!loop?.ok) throw new Error('The loop of the bench cannot be solved.');
  return loop.value.week.map(({ outletMOhmCm }) => 1 / outletMOhmCm);
}
