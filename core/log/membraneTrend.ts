import { membraneStage, type Reading, type System } from '../file';
import { combined, mean, median, type Belief, type Estimate } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, ok, type Outcome } from '../quantity';
import { kindOf, type StageUse } from '../stage';
import { inletBar, membraneOperation, type SolvedTrain } from '../train';
import { against, AT, filteredUnit, noiseOf, type Filtered, type FilteredPoint, type UnitPoint, type UnitWork } from './membraneFilter';
import { inOrder, probeRoles } from './series';
import { isHeld, unitMap, type UnitMap, type UnitState } from './unitMap';
import { seenOf, within, type UnitAsRead } from './unitReading';

/** What one reading says of a membrane unit, temperature, pressure and tap taken out; null where it does not tell. */
export interface Factors {
  /** ln of the membrane's water factor, 0 as its class has it. */
  readonly lnWater: Estimate | null;
  /** ln of its salt factor. */
  readonly lnSalt: Estimate | null;
  /** Share of the pressure that filters take beyond what clean ones do, as all readings since they were changed have it. */
  readonly filterShare: Estimate | null;
}

/** One reading on a membrane's course. */
export interface CoursePoint {
  readonly at: string;
  readonly readingId: string;
  readonly factors: Factors;
  /** Whether the course leans on it: one far off counts for little. */
  readonly outlier: { readonly water: boolean; readonly salt: boolean };
}

/** A course at an instant, ms, in ln against its reference. */
export interface CourseAt {
  readonly ms: number;
  readonly value: number;
  readonly sd: number;
}

/** How a factor goes with time, in ln against what new was. */
export interface Course {
  readonly now: Estimate;
  /** What was known of it at each reading that tells of it, without what came later. */
  readonly asKnown: readonly Estimate[];
  /** Change of that a year. */
  readonly perYear: Estimate;
  /** At each reading, in the light of all; from the last of them on it is carried by its slope. */
  readonly samples: readonly CourseAt[];
  /** The belief at the last reading: how level and slope go together, and what is believed to move them, variance a year. */
  readonly ahead: {
    readonly lastMs: number;
    readonly last: Estimate;
    readonly covariance: number;
    readonly noise: readonly [number, number];
  };
  /** What neither the solver nor the readings know of each other. */
  readonly hiddenSd: number;
  /** The factor itself, 0 as its class has it. */
  readonly level: Estimate;
  /** Readings it rests on. */
  readonly count: number;
  /** Instants at which it left its way and nothing on record says why. */
  readonly unexplained: readonly {
    readonly since: string;
    readonly seenAt: string;
    readonly direction: 'up' | 'down';
    readonly by: Estimate;
    /** What the other factor did at the same time. */
    readonly otherBy: Estimate;
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
  /** The restrictor's flow against what it was, in ln, and the chance that it takes on scale; null where no waste tells. */
  readonly restrictor: (Estimate & { readonly scaling: number }) | null;
  readonly movedBy: MovedBy | null;
}

/** What neither the solver nor the readings know of each other, in ln (our judgement; the training logs bear it out). */
const MODEL_SD = { water: 0.003, salt: 0.022 } as const;
/** How a passage goes with the membrane's own factor is known to a share of the change alone: what leaks by is no diffusion. */
const PASSAGE_SHARE_SD = 0.25;
/** Share of a rounding that stays in a course whose strength hardly moves (2.1). */
const ROUNDING_LEFT = 0.25;
/** Standard deviations beyond which a reading is drawn as one the course does not lean on. */
const OUTLIER_Z = 3;
/** A unit of more readings than this is filtered through one reading of each few days. */
const MOST_POINTS = 400;
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
  // A gauge that is read elsewhere says how far the pressure at the membrane goes with it.
  const atMembrane = system.train.gauge === 'membrane' || pump === null;
  const inlet = inletBar(system.source);
  const press = spanOf(
    readings,
    ({ pressureBar }) =>
      pressureBar === null || !(pressureBar > 0) ? null : atMembrane ? pressureBar : Math.max(0.2, membraneBar + pressureBar - inlet),
    [membraneBar],
  );
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
  return ok({ map: map.value, operation, tapUScm: fresh.stations[0]!.state.ec25UScm, membraneBar });
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

/** Work on the unit that its course may jump at, oldest first. */
function worksOf({ build, services, train, instruments }: System): UnitWork[] {
  const membrane = membraneStage(train.stages);
  const filters = new Set(train.stages.filter((stage) => kindOf(stage).prefilter).map(({ id }) => id));
  const onValve = membrane !== undefined && membrane.valve !== null;
  const pens = new Set(instruments.map(({ id }) => id));
  return [
    ...build.ratios.map(({ at }): UnitWork => ({ ms: Date.parse(at), what: 'valve' })),
    ...services.flatMap(({ stageId, instrumentId, work, at }): UnitWork[] => {
      const ms = Date.parse(at);
      if (stageId !== null && filters.has(stageId) && work === 'changed') return [{ ms, what: 'filters' }];
      if (stageId === membrane?.id && work === 'adjusted') return [{ ms, what: onValve ? 'valve' : 'restrictor' }];
      if (stageId === membrane?.id && work === 'cleaned') return [{ ms, what: 'cleaned' }];
      return instrumentId !== null && pens.has(instrumentId) && work === 'changed' ? [{ ms, what: 'meter' }] : [];
    }),
  ].sort((a, b) => a.ms - b.ms);
}

/** Whether the filters were clean at an instant: fitted within three weeks of it. */
function filtersClean({ train, build }: System, ms: number): boolean {
  const own = train.stages.filter((stage) => kindOf(stage).prefilter);
  const fitted = own.flatMap((stage) =>
    'fittedOn' in stage && stage.fittedOn !== null ? [Date.parse(`${stage.fittedOn}T00:00:00Z`)] : [],
  );
  return build.commissioned !== null || fitted.length < own.length || fitted.some((since) => Math.abs(ms - since) < CLEAN_DAYS * DAY_MS);
}
const CLEAN_DAYS = 21;

/**
 * A membrane's course by its log: the state of the unit at every reading since the membrane was fitted, in the light of all
 * of them, against what it was when new.
 *
 * @returns null where there is no membrane, or no reading tells of it
 */
export function membraneTrend(system: System, readings: readonly Reading[], unit: UnitAsRead, now: string): MembraneTrend | null {
  const stage = membraneStage(system.train.stages);
  if (!stage) return null;
  const fittedMs = stage.fittedOn === null ? -Infinity : Date.parse(`${stage.fittedOn}T00:00:00Z`);
  const nowMs = Date.parse(now);
  const since = inOrder(readings).filter(({ at }) => Date.parse(at) >= fittedMs && Date.parse(at) <= nowMs + DAY_MS);
  const baseline = since.find(({ id }) => id === system.build.commissioned?.readingId);
  const roles = probeRoles(system);
  const told = since.flatMap((reading): UnitPoint[] => {
    const seen = seenOf(system, reading, unit, roles);
    if (!seen || !within(unit.map.range, seen.hour, seen.knownAt)) return [];
    return [{ ms: Date.parse(reading.at), at: reading.at, readingId: reading.id, seen }];
  });
  const points = thinned(told, baseline?.id);
  const first = points[0];
  if (!first) return null;
  const works = worksOf(system);
  const filtered = filteredUnit(unit, points, works, filtersClean(system, first.ms));
  // New is what the hand-over shows; what stood before it was another state of the unit.
  const from = baseline ? points.findIndex(({ readingId }) => readingId === baseline.id) : 0;
  const reference = { at: baseline?.at ?? first.at, from: baseline ? ('handOver' as const) : ('first' as const) };
  const last = filtered.points.at(-1)!;
  const shares = points.map((point, i) => shareOf(filtered.points[i]!, point));
  const filters = shares.at(-1)!;
  const seesWaste = points.some(({ seen }) => seen.lnWaste !== null);
  const atLast = points.at(-1)!.at;
  return {
    stageId: stage.id,
    reference,
    points: points.map(({ at, readingId, seen }, i) => {
      const own = filtered.points[i]!;
      return {
        at,
        readingId,
        factors: {
          lnWater: own.lnWater,
          lnSalt: own.lnSalt,
          filterShare: seen.lnWaste && seen.lnProduct ? shares[i]! : null,
        },
        outlier: { water: Math.abs(own.z[0] ?? 0) > OUTLIER_Z, salt: Math.abs(own.z[2] ?? 0) > OUTLIER_Z },
      };
    }),
    water: courseOf('water', filtered, points, from, nowMs),
    salt: courseOf('salt', filtered, points, from, nowMs),
    filters: filters && seesWaste ? { ...filters, at: atLast } : null,
    restrictor: seesWaste ? { ...against(last.after, AT.restrictor, AT.restrictor0), scaling: filtered.scaling } : null,
    movedBy: movedBy(
      points.map(({ at, seen }, i) => ({
        at,
        own: filtered.points[i]!,
        lnProduct: seen.lnProduct?.value ?? null,
        hour: seen.hour,
        share: shares[i]!,
      })),
      unit,
    ),
  };
}

/** One reading of each few days where there are very many; the hand-over stays. */
function thinned(points: readonly UnitPoint[], keep: string | undefined): readonly UnitPoint[] {
  if (points.length <= MOST_POINTS) return points;
  const every = Math.ceil(points.length / MOST_POINTS);
  return points.filter(({ readingId }, i) => i % every === 0 || i === points.length - 1 || readingId === keep);
}

/** Share of the pressure the filters take beyond clean ones, by the state at a reading; null where the gauge is behind them. */
function shareOf({ after, shows, factors }: FilteredPoint, { seen }: UnitPoint): Estimate | null {
  if (seen.knownAt !== 'line') return null;
  const bar = Math.exp(seen.hour.lnBar.value);
  const taken = (bar - shows.filtersBar) / bar;
  const clean = taken * Math.exp(-factors.lnFilter);
  const { sd } = combined(after, new Map([[AT.filter, 1]]));
  return { value: Math.max(0, taken - clean), sd: taken * sd };
}

const OTHER = { water: 'salt', salt: 'water' } as const;
const PLACES = { water: [AT.water, AT.waterSlope, AT.water0], salt: [AT.salt, AT.saltSlope, AT.salt0] } as const;
const SERIES = { water: 'lnProduct', salt: 'lnPassage' } as const;
const JUMP_OF = { water: 'product', salt: 'passage' } as const;

function courseOf(
  key: 'water' | 'salt',
  { points: filtered, jumps }: Filtered,
  points: readonly UnitPoint[],
  from: number,
  nowMs: number,
): Course | null {
  const [level, slope, new0] = PLACES[key];
  const read = points.flatMap(({ seen }, i) => (seen[SERIES[key]] ? [i] : []));
  if (read.length === 0) return null;
  // A last digit that hardly changes hides the same share in every reading.
  const hidden = key === 'salt' ? ROUNDING_LEFT * median(read.map((i) => points[i]!.seen.roundedBy)) : 0;
  const hiddenSd = Math.hypot(MODEL_SD[key], hidden);
  const changeSd = key === 'salt' ? PASSAGE_SHARE_SD : 0;
  const last = filtered.at(-1)!.after;
  const start = from > 0 ? filtered[from]!.smoothed.mean : null;
  const shift = start ? start[level]! - start[new0]! : 0;
  const at = (belief: Belief): Estimate => {
    const { value, sd } = against(belief, level, new0);
    return { value: value - shift, sd: Math.hypot(sd, changeSd * (value - shift)) };
  };
  const now = at(last);
  const lastMs = points.at(-1)!.ms;
  const noise = noiseOf(1);
  const ahead = {
    lastMs,
    last: now,
    covariance: last.covariance[level]![slope]! - last.covariance[new0]![slope]!,
    noise: [noise[level]!, noise[slope]!] as const,
  };
  const placed = {
    samples: read.map((i) => ({ ms: points[i]!.ms, ...at(filtered[i]!.smoothed) })),
    ahead,
    perYear: combined(last, new Map([[slope, 1]])), // prettier-ignore
    hiddenSd,
  };
  const stepAt = (of: 'water' | 'salt', first: number): Estimate => {
    const [place] = PLACES[of];
    const [before, after] = [filtered[first - 1]!.after, filtered[Math.min(filtered.length - 1, first + 1)]!.smoothed];
    return {
      value: after.mean[place]! - before.mean[place]!,
      sd: Math.sqrt(Math.max(1e-6, after.covariance[place]![place]! - 0.5 * before.covariance[place]![place]!)),
    };
  };
  const own = jumps.filter((jump) => jump.of === JUMP_OF[key] && jump.first > 0);
  return {
    ...placed,
    now: courseAt(placed, nowMs),
    asKnown: read.map((i) => {
      const { value, sd } = at(filtered[i]!.after);
      return { value, sd: Math.hypot(sd, hiddenSd) };
    }),
    level: combined(last, new Map([[level, 1]])), // prettier-ignore
    count: read.length,
    unexplained: own.map((jump) => ({
      since: points[jump.first]!.at,
      seenAt: points[jump.seenAt]!.at,
      direction: jump.direction,
      by: stepAt(key, jump.first),
      otherBy: stepAt(OTHER[key], jump.first),
    })),
  };
}

/** ln of a course against its reference at an instant, ms: as the readings have it, in a line between them, carried on after the last. */
export function courseAt(
  { samples, ahead, perYear, hiddenSd }: Pick<Course, 'samples' | 'ahead' | 'perYear' | 'hiddenSd'>,
  ms: number,
): Estimate {
  const { lastMs, last, covariance, noise } = ahead;
  if (ms >= lastMs) {
    const years = (ms - lastMs) / DAY_MS / DAYS_PER_YEAR;
    const variance = last.sd ** 2 + 2 * years * covariance + (years * perYear.sd) ** 2 + years * noise[0] + (years ** 3 * noise[1]) / 3;
    return { value: last.value + years * perYear.value, sd: Math.hypot(Math.sqrt(Math.max(0, variance)), hiddenSd) };
  }
  const next = samples.findIndex((one) => one.ms >= ms);
  const [a, b] = [samples[Math.max(0, next - 1)]!, samples[next < 0 ? samples.length - 1 : next]!];
  const share = b.ms > a.ms ? Math.max(0, Math.min(1, (ms - a.ms) / (b.ms - a.ms))) : 0;
  return { value: a.value + share * (b.value - a.value), sd: Math.hypot(a.sd + share * (b.sd - a.sd), hiddenSd) };
}

/** Readings at either end whose middle state stands for it. */
const ENDS = 3;

/** A reading as what moved the output is told by. */
interface MovedAt {
  readonly at: string;
  readonly own: FilteredPoint;
  readonly lnProduct: number | null;
  readonly hour: UnitPoint['seen']['hour'];
  readonly share: Estimate | null;
}

/** What moved the output from the first readings to the newest one that has a product flow. */
function movedBy(told: readonly MovedAt[], { map }: UnitAsRead): MovedBy | null {
  const flows = told.filter(({ lnProduct }) => lnProduct !== null);
  const to = flows.at(-1);
  const start = flows.slice(0, ENDS);
  const from = start[0];
  if (!to || !from || from === to) return null;
  const middle = (of: (one: MovedAt) => number): number => mean(start.map(of));
  const stateOf = ({ own, hour }: MovedAt): UnitState => ({
    temperatureC: hour.temperatureC.value,
    membraneBar: own.shows.membraneBar,
    lnWater: own.smoothed.mean[AT.water]!,
    lnSalt: 0,
    lnRestrictor: own.smoothed.mean[AT.restrictor]!,
    lnTap: hour.lnTap.value,
  });
  const at: UnitState = {
    temperatureC: middle((one) => stateOf(one).temperatureC),
    membraneBar: middle((one) => stateOf(one).membraneBar),
    lnWater: middle((one) => stateOf(one).lnWater),
    lnSalt: 0,
    lnRestrictor: middle((one) => stateOf(one).lnRestrictor),
    lnTap: middle((one) => stateOf(one).lnTap),
  };
  const end = stateOf(to);
  const moves = (change: Partial<UnitState>): number =>
    (map.shows({ ...at, ...change })[0] - map.shows(at)[0] + map.shows(end)[0] - map.shows({ ...end, ...back(change, at) })[0]) / 2;
  // What clean filters would have left of the line's pressure, and what these left.
  const taken = to.share?.value ?? 0;
  const before = middle(({ share }) => share?.value ?? 0);
  const cleanBar = (end.membraneBar / (1 - taken)) * (1 - before);
  const pressure = moves({ membraneBar: end.membraneBar });
  const line = moves({ membraneBar: cleanBar });
  return {
    from: from.at,
    to: to.at,
    total: to.lnProduct! - middle(({ lnProduct }) => lnProduct!),
    temperature: moves({ temperatureC: end.temperatureC }),
    pressure: line,
    filters: pressure - line,
    tap: moves({ lnTap: end.lnTap }),
    membrane: { value: moves({ lnWater: end.lnWater }), sd: against(to.own.after, AT.water, AT.water0).sd },
  };
}

/** The same keys of a change at the values of another state. */
const back = (change: Partial<UnitState>, state: UnitState): Partial<UnitState> =>
  Object.fromEntries(Object.keys(change).map((key) => [key, state[key as keyof UnitState]]));

/** Readings, and how sure in ln, before a log's word counts for more than the calendar's. */
const TOLD = { readings: 4, sd: 0.08 } as const;

/** A membrane's factors now as its log has them, against its class; null where the log does not tell surely. */
export function toldFactors({ water, salt }: MembraneTrend): NonNullable<StageUse['factors']> {
  const told = (course: Course | null): number | null => {
    if (!course || course.count < TOLD.readings) return null;
    return course.level.sd <= TOLD.sd ? Math.exp(course.level.value) : null;
  };
  return { water: told(water), salt: told(salt) };
}
