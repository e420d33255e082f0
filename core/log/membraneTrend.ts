import { membraneStage, type Reading, type System } from '../file';
import { lineAt, lineBetween, mean, median, robustLine, slopeOf, type Estimate, type FittedLine, type LinePoint } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, ok, type Outcome } from '../quantity';
import { kindOf, type StageUse } from '../stage';
import { membraneOperation, type SolvedTrain } from '../train';
import { unexplained, type SeriesPoint } from './cusum';
import { factorsOf, restrictorAsRead, type Factors, type FilterPrior, type UnitAsRead } from './factors';
import { baselineOf, inOrder, probeRoles } from './series';
import { isHeld, unitMap, type UnitMap, type UnitState } from './unitMap';

/** One reading on a membrane's course. */
export interface CoursePoint {
  readonly at: string;
  readonly readingId: string;
  readonly factors: Factors;
  /** Whether the course leans on it: one far off counts for little. */
  readonly outlier: { readonly water: boolean; readonly salt: boolean };
}

/** How a factor goes with time. */
export interface Course {
  /** ln of the factor against the reference, now. */
  readonly now: Estimate;
  /** Change of that a year. */
  readonly perYear: Estimate;
  /** The line itself, in years; where it begins, where the reference lies on it, and what neither side can know. */
  readonly line: FittedLine;
  readonly beginsYear: number;
  readonly referenceYear: number;
  readonly hiddenSd: number;
  /** Readings it rests on. */
  readonly count: number;
  /** Days at which it left its line and nothing on record says why. */
  readonly unexplained: readonly {
    readonly since: string;
    readonly seenAt: string;
    readonly direction: 'up' | 'down';
    readonly by: Estimate;
  }[];
}

/** What moved the output between the reference and the newest reading, each as a share in ln. */
export interface MovedBy {
  readonly from: string;
  readonly to: string;
  readonly total: number;
  readonly temperature: number;
  readonly pressure: number;
  readonly filters: number;
  readonly tap: number;
  readonly membrane: Estimate;
}

/** A membrane as its log tells: temperature, pressure, filters and tap taken out. */
export interface MembraneTrend {
  readonly stageId: string;
  readonly points: readonly CoursePoint[];
  /** What it is held against. */
  readonly reference: { readonly at: string; readonly from: 'handOver' | 'first' };
  readonly water: Course | null;
  readonly salt: Course | null;
  /** Share of the line's pressure that filters take beyond clean ones, newest reading that tells; null where waste was not measured. */
  readonly filters: (Estimate & { readonly at: string }) | null;
  readonly movedBy: MovedBy | null;
}

/** What a membrane loses a year by common design practice, and how far one may be from it (membrane chapter, 8). */
export const AGEING = { water: -0.1, waterSd: 0.15, salt: 0.15, saltSd: 0.25 } as const;
/** A new course may begin anywhere: no class of element is made closer. */
const LEVEL_SD = 1;
const STEP_SD = 0.3;
/** What neither the solver nor the readings know of each other, in ln (our judgement). */
const MODEL_SD = 0.01;
/** Share of a rounding that is the same at both ends of a course (our judgement; the seeded logs bear it out). */
const ROUNDING_LEFT = 0.8;
/** Weight below which a point of the course is an outlier (science of faults, 5). */
const OUTLIER = 0.2;
/** A course of more points than this is drawn through means of neighbours. */
const MOST_POINTS = 260;
/** Range of a map beyond what was read. */
const AROUND = { degrees: 2, low: 0.55, high: 1.15 } as const;

/**
 * What a unit's readings are held against: its answers over the range of this log.
 *
 * @param fresh the train as new
 * @param maps laid down before: one of the same unit and range is taken from here, a new one put in
 */
export function unitAsRead(
  system: System,
  readings: readonly Reading[],
  fresh: SolvedTrain,
  maps: UnitMaps = new Map(),
): Outcome<UnitAsRead> | null {
  const operation = membraneOperation(system.train, system.source, fresh);
  const membraneBar = fresh.unit?.feedPressureBar ?? 0;
  if (!operation || !(membraneBar > 0)) return null;
  const { pump } = operation.conditions;
  const held = isHeld(operation);
  const relief = pump?.kind === 'displacement' ? 0.95 * pump.reliefBar : Infinity;
  const { lowestTemperatureC, highestTemperatureC } = system.source.season;
  const warm = spanOf(readings, ({ temperatureC }) => temperatureC, [lowestTemperatureC, highestTemperatureC, operation.feed.temperatureC]);
  const press = spanOf(readings, ({ pressureBar }) => (pressureBar !== null && pressureBar > 0 ? pressureBar : null), [membraneBar]);
  const clean = { ...operation, unit: { ...operation.unit, factors: { water: 1, salt: 1 } } };
  // Rounded, so that a new reading does not ask for a new map.
  const range = {
    lowC: Math.max(1, Math.floor(warm.low - AROUND.degrees)),
    highC: Math.min(44, Math.ceil(warm.high + AROUND.degrees)),
    lowBar: rounded(held ? Math.max(0.8 * membraneBar, 0.97 * press.low) : AROUND.low * Math.max(press.low, 0.6 * membraneBar)),
    highBar: rounded(Math.max(1.02 * membraneBar, Math.min(relief, AROUND.high * Math.min(press.high, 1.6 * membraneBar)))),
  };
  const key = JSON.stringify([clean.unit, clean.feed, clean.conditions, range]);
  const map = maps.get(key) ?? unitMap(clean, range);
  maps.set(key, map);
  if (!map.ok) return map;
  const asRead = { map: map.value, operation, tapUScm: fresh.stations[0]!.state.ec25UScm, membraneBar };
  return ok({
    ...asRead,
    lnRestrictor: restrictorAsRead(system, readings, asRead, cleanSince(system, readings), restrictorChanges(system)),
  });
}

/** Maps of units laid down before, by what they were laid down for. */
export type UnitMaps = Map<string, Outcome<UnitMap>>;

const rounded = (bar: number): number => Number(bar.toPrecision(2));

/** Readings at either end of a span that may be slips: one in fifty. */
const SLIPS = 0.02;
const FEW = 8;

/** Span of what was read, without what lies far out alone, and of what is planned. */
function spanOf(
  readings: readonly Reading[],
  of: (reading: Reading) => number | null,
  planned: readonly number[],
): { readonly low: number; readonly high: number } {
  const read = readings
    .map(of)
    .filter((value): value is number => value !== null)
    .sort((a, b) => a - b);
  const skip = read.length < FEW ? 0 : Math.ceil(SLIPS * read.length);
  const kept = read.slice(skip, read.length - skip);
  return { low: Math.min(...planned, ...kept.slice(0, 1)), high: Math.max(...planned, ...kept.slice(-1)) };
}

/** Instants at which the restrictor may have been cut or a valve turned: ratios that were measured, work on the membrane, the hand-over, ms. */
function restrictorChanges({ build, services, train }: System): number[] {
  const membrane = membraneStage(train.stages)?.id;
  return [
    ...build.ratios.map(({ at }) => Date.parse(at)),
    ...(build.commissioned ? [Date.parse(build.commissioned.at)] : []),
    ...services.flatMap(({ stageId, work, at }) =>
      stageId === membrane && (work === 'adjusted' || work === 'changed') ? [Date.parse(at)] : [],
    ),
  ];
}

/** Days from which filters were clean: fitted, handed over, or changed by the record. */
function cleanSince(system: System, readings: readonly Reading[]): number[] {
  const own = system.train.stages.filter((stage) => kindOf(stage).prefilter);
  const filters = new Set(own.map(({ id }) => id));
  const fitted = own.flatMap((stage) =>
    'fittedOn' in stage && stage.fittedOn !== null ? [Date.parse(`${stage.fittedOn}T00:00:00Z`)] : [],
  );
  const changed = system.services.flatMap(({ stageId, work, at }) =>
    stageId !== null && filters.has(stageId) && work === 'changed' ? [Date.parse(at)] : [],
  );
  const first = baselineOf(system, readings);
  return [...fitted, ...changed, ...(first ? [Date.parse(first.at) - DAY_MS] : [])];
}

/**
 * A membrane's course by its log: the factors of every reading since it was fitted, a robust line through them with what
 * work on it may have changed, against the baseline of the hand-over or the first readings.
 *
 * @returns null where there is no membrane, or no reading tells of it
 */
export function membraneTrend(system: System, readings: readonly Reading[], unit: UnitAsRead, now: string): MembraneTrend | null {
  const stage = membraneStage(system.train.stages);
  if (!stage) return null;
  const fittedMs = stage.fittedOn === null ? -Infinity : Date.parse(`${stage.fittedOn}T00:00:00Z`);
  const since = inOrder(readings).filter(({ at }) => Date.parse(at) >= fittedMs && Date.parse(at) <= Date.parse(now) + DAY_MS);
  const roles = probeRoles(system);
  const factors = (prior?: FilterPrior): Factors[] =>
    since.flatMap((reading) => {
      const found = factorsOf(system, reading, unit, roles, prior);
      return found ? [found] : [];
    });
  // What one reading cannot tell of filter and membrane apart, its neighbours can.
  const alone = factors();
  const told = alone.some(({ filterShare }) => filterShare) ? factors(filtersAround(alone, cleanSince(system, since))) : alone;
  const first = told[0];
  if (!first) return null;
  const baseline = since.find(({ id }) => id === system.build.commissioned?.readingId);
  const reference = { at: baseline?.at ?? first.at, from: baseline ? ('handOver' as const) : ('first' as const) };
  // A task of one's own changes no part: a weekly flush is no step in the course.
  const worked = system.services.flatMap(({ stageId, work, at }) =>
    stageId === stage.id && work !== 'task' && Date.parse(at) > Date.parse(first.at) ? [dayOf(at)] : [],
  );
  const nowDay = dayOf(now);
  const course = (key: 'lnWater' | 'lnSalt', slope: number, slopeSd: number): Fitted | null =>
    fitted(told, key, { slope, slopeSd }, worked, dayOf(reference.at), nowDay);
  const water = course('lnWater', AGEING.water, AGEING.waterSd);
  const salt = course('lnSalt', AGEING.salt, AGEING.saltSd);
  const filters = told.findLast(({ filterShare }) => filterShare !== null);
  return {
    stageId: stage.id,
    reference,
    points: told.map((factors) => ({
      at: factors.at,
      readingId: factors.readingId,
      factors,
      outlier: { water: water?.outliers.has(factors.readingId) ?? false, salt: salt?.outliers.has(factors.readingId) ?? false },
    })),
    water: water?.course ?? null,
    salt: salt?.course ?? null,
    filters: filters?.filterShare ? { ...filters.filterShare, at: filters.at } : null,
    movedBy: movedBy(told, unit),
  };
}

/** Days around a reading in which filters are taken to change little. */
const AROUND_DAYS = 24;
/** How far filters may go on their own between neighbouring readings, and how far they may be from anything read. */
const FILTER_SD = { least: 0.025, most: 0.06 } as const;

/** What filters took about a time, by the readings near it and no change of filters between. */
function filtersAround(told: readonly Factors[], changes: readonly number[]): FilterPrior {
  const seen = told.flatMap(({ at, filterShare }) =>
    filterShare ? [{ ms: Date.parse(at), y: -Math.log(1 - filterShare.value), sd: filterShare.sd }] : [],
  );
  return (at) => {
    const ms = Date.parse(at);
    const from = changes.filter((change) => change <= ms).reduce((last, change) => Math.max(last, change), -Infinity);
    const until = changes.filter((change) => change > ms).reduce((next, change) => Math.min(next, change), Infinity);
    const near = seen.filter((one) => one.ms !== ms && one.ms >= from && one.ms < until && Math.abs(one.ms - ms) <= AROUND_DAYS * DAY_MS);
    if (near.length < 2) return null;
    const weights = near.map((one) => (1 - (Math.abs(one.ms - ms) / DAY_MS / (AROUND_DAYS + 1)) ** 2) / one.sd ** 2);
    const total = weights.reduce((sum, w) => sum + w, 0);
    const value = near.reduce((sum, one, i) => sum + one.y * weights[i]!, 0) / total;
    // A filter never takes less than a clean one does.
    return { value: Math.max(0, value), sd: Math.min(FILTER_SD.most, Math.hypot(FILTER_SD.least, Math.sqrt(1 / total))) };
  };
}

const dayOf = (instant: string): number => Date.parse(instant) / DAY_MS;

interface Fitted {
  readonly course: Course;
  readonly outliers: ReadonlySet<string>;
}

function fitted(
  told: readonly Factors[],
  key: 'lnWater' | 'lnSalt',
  ageing: { readonly slope: number; readonly slopeSd: number },
  worked: readonly number[],
  referenceDay: number,
  nowDay: number,
): Fitted | null {
  const own = told.flatMap((factors) => {
    const seen = factors[key];
    return seen ? [{ day: dayOf(factors.at), y: seen.value, sd: seen.sd, id: factors.readingId, at: factors.at }] : [];
  });
  if (own.length === 0) return null;
  const points = thinned(own);
  const alarms = unexplained(points, worked);
  const steps = [...worked, ...alarms.map(({ since }) => points[since]!.day)].sort((a, b) => a - b);
  const line = robustLine(
    points.map(({ day, y, sd }): LinePoint => ({ x: day / DAYS_PER_YEAR, y, sd })),
    { level: LEVEL_SD, slope: ageing.slopeSd, slopeMiddle: ageing.slope, step: STEP_SD },
    steps.map((day) => day / DAYS_PER_YEAR),
  );
  // A last digit that hardly changes hides the same share in every reading.
  const hidden = key === 'lnSalt' ? ROUNDING_LEFT * median(told.map(({ roundedBy }) => roundedBy)) : 0;
  const beginsYear = points[0]!.day / DAYS_PER_YEAR;
  const placed = {
    line,
    beginsYear,
    referenceYear: Math.max(referenceDay / DAYS_PER_YEAR, beginsYear),
    hiddenSd: Math.hypot(MODEL_SD, hidden),
  };
  return {
    course: {
      ...placed,
      now: courseAt(placed, nowDay * DAY_MS),
      perYear: slopeOf(line),
      count: own.length,
      unexplained: alarms.map(({ since, seenAt, direction }) => ({
        since: new Date(points[since]!.day * DAY_MS).toISOString(),
        seenAt: new Date(points[seenAt]!.day * DAY_MS).toISOString(),
        direction,
        by: stepAt(line, points[since]!.day),
      })),
    },
    outliers: outliersOf(own, line),
  };
}

/** ln of a course against its reference at an instant, ms; before its first reading as it was there. */
export function courseAt(
  { line, beginsYear, referenceYear, hiddenSd }: Pick<Course, 'line' | 'beginsYear' | 'referenceYear' | 'hiddenSd'>,
  ms: number,
): Estimate {
  const { value, sd } = lineBetween(line, referenceYear, Math.max(ms / DAY_MS / DAYS_PER_YEAR, beginsYear));
  return { value, sd: Math.hypot(sd, hiddenSd) };
}

/** Height of a step of the line. */
function stepAt(line: FittedLine, day: number): Estimate {
  const x = day / DAYS_PER_YEAR;
  return lineBetween(line, x - 1e-6, x);
}

/** Readings the line does not lean on. */
function outliersOf(
  own: readonly { readonly day: number; readonly y: number; readonly sd: number; readonly id: string }[],
  line: FittedLine,
): Set<string> {
  return new Set(
    own.flatMap(({ day, y, sd, id }) => {
      const z = (y - lineAt(line, day / DAYS_PER_YEAR).value) / Math.hypot(sd, line.scatter);
      return 5 / (4 + z * z) < OUTLIER ? [id] : [];
    }),
  );
}

/** Means of neighbours where there are many points, weighted by how sure each is. */
function thinned(points: readonly SeriesPoint[]): SeriesPoint[] {
  if (points.length <= MOST_POINTS) return [...points];
  const size = Math.ceil(points.length / MOST_POINTS);
  return Array.from({ length: Math.ceil(points.length / size) }, (_, i) => {
    const group = points.slice(i * size, (i + 1) * size);
    const weights = group.map(({ sd }) => 1 / (sd * sd));
    const total = weights.reduce((sum, w) => sum + w, 0);
    const middle = (of: (point: SeriesPoint) => number): number =>
      group.reduce((sum, point, k) => sum + of(point) * weights[k]!, 0) / total;
    return { day: middle(({ day }) => day), y: middle(({ y }) => y), sd: Math.sqrt(1 / total) };
  });
}

/** Readings at either end whose middle state stands for it. */
const ENDS = 3;

/** What moved the output from the first readings to the newest one that has a product flow. */
function movedBy(told: readonly Factors[], { map }: UnitAsRead): MovedBy | null {
  const flows = told.filter(({ lnWater }) => lnWater !== null);
  const to = flows.at(-1);
  const start = flows.slice(0, ENDS);
  const from = start[0];
  if (!to || !from || from === to || !to.lnWater) return null;
  const middle = (of: (factors: Factors) => number): number => mean(start.map(of));
  const at: UnitState = {
    temperatureC: middle(({ state }) => state.temperatureC),
    membraneBar: middle(({ state }) => state.membraneBar),
    lnWater: middle(({ state }) => state.lnWater),
    lnSalt: 0,
    lnRestrictor: middle(({ state }) => state.lnRestrictor),
    lnTap: middle(({ state }) => state.lnTap),
  };
  const end = { ...to.state, lnSalt: 0 };
  const share = (change: Partial<UnitState>): number =>
    (map.shows({ ...at, ...change })[0] - map.shows(at)[0] + map.shows(end)[0] - map.shows({ ...end, ...back(change, at) })[0]) / 2;
  // What clean filters would have left of the line's pressure, and what these left.
  const taken = to.filterShare?.value ?? 0;
  const before = middle(({ filterShare }) => filterShare?.value ?? 0);
  const cleanBar = (end.membraneBar / (1 - taken)) * (1 - before);
  const pressure = share({ membraneBar: end.membraneBar });
  const line = share({ membraneBar: cleanBar });
  return {
    from: from.at,
    to: to.at,
    total: to.lnProduct! - middle(({ lnProduct }) => lnProduct!),
    temperature: share({ temperatureC: end.temperatureC }),
    pressure: line,
    filters: pressure - line,
    tap: share({ lnTap: end.lnTap }),
    membrane: { value: share({ lnWater: end.lnWater }), sd: to.lnWater.sd },
  };
}

/** The same keys of a change at the values of another state. */
const back = (change: Partial<UnitState>, state: UnitState): Partial<UnitState> =>
  Object.fromEntries(Object.keys(change).map((key) => [key, state[key as keyof UnitState]]));

/** Readings, and how sure in ln, before a log's word counts for more than the calendar's. */
const TOLD = { readings: 4, sd: 0.08 } as const;

/** A membrane's factors now as its log has them, against its class; null where the log does not tell surely. */
export function toldFactors({ water, salt }: MembraneTrend, now: string): NonNullable<StageUse['factors']> {
  const told = (course: Course | null): number | null => {
    if (!course || course.count < TOLD.readings) return null;
    const { value, sd } = lineAt(course.line, Math.max(Date.parse(now) / DAY_MS / DAYS_PER_YEAR, course.beginsYear));
    return sd <= TOLD.sd ? Math.exp(value) : null;
  };
  return { water: told(water), salt: told(salt) };
}
