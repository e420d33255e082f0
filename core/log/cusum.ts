import { median, normalSpread } from '../numeric';
import { DAYS_PER_YEAR } from '../quantity';

/** A value of a series with its own standard deviation, at a time in days. */
export interface SeriesPoint {
  readonly day: number;
  readonly y: number;
  readonly sd: number;
}

/** A series that left its line: the point at which it was seen, and the one from which it had been leaving. */
export interface Alarm {
  readonly seenAt: number;
  readonly since: number;
  readonly direction: 'up' | 'down';
}

/** Reference value of the cumulative sum, and the height of an alarm, in standard deviations (science of faults, 5). */
export const CUSUM_SLACK = 0.5;
export const CUSUM_HEIGHT = 6;
/** One reading alone is a slip before it is a change: no point adds more than this. */
const MOST_Z = 3;
/** Priors of a line that nothing is known of: its level, and its slope a year. */
const LEVEL_SD = 1;
const SLOPE_SD_PER_YEAR = 0.3;
/** Points a line is learned from before it is watched. */
const LEARNED_FROM = 4;
/** Scatter no series is believed to stay below. */
const LEAST_SCATTER = 0.02;

/** The sums upward and downward so far, and the points from which each has been above nothing. */
interface Sums {
  readonly up: number;
  readonly down: number;
  readonly upSince: number;
  readonly downSince: number;
}
const NO_SUMS: Sums = { up: 0, down: 0, upSince: 0, downSince: 0 };

/** The sums after one more value (Page 1954, recalled). */
const summed = ({ up, down, upSince, downSince }: Sums, z: number, at: number, slack: number): Sums => ({
  up: Math.max(0, up + z - slack),
  down: Math.max(0, down - z - slack),
  upSince: up === 0 ? at : upSince,
  downSince: down === 0 ? at : downSince,
});

/** The alarm that sums raise at a point, if any. */
function alarmOf({ up, down, upSince, downSince }: Sums, seenAt: number, height: number): Alarm | null {
  if (up > height) return { seenAt, since: upSince, direction: 'up' };
  return down > height ? { seenAt, since: downSince, direction: 'down' } : null;
}

/**
 * Two-sided cumulative sum of standardised values: alarms where a sum exceeds the height.
 *
 * @returns index of the alarm and of the first point that led up to it, one entry an alarm; the sums start anew after each
 */
export function cusum(z: readonly number[], slack = CUSUM_SLACK, height = CUSUM_HEIGHT): Alarm[] {
  const alarms: Alarm[] = [];
  let sums = NO_SUMS;
  z.forEach((value, i) => {
    sums = summed(sums, value, i, slack);
    const alarm = alarmOf(sums, i, height);
    if (!alarm) return;
    alarms.push(alarm);
    sums = NO_SUMS;
  });
  return alarms;
}

/**
 * Where a series leaves the line it had: each value is held against what the values before it lead to expect, and the
 * misfits are summed. After an alarm the line is learned anew from where it left; a recorded change does so by itself.
 *
 * @param points in order of time
 * @param changes days of recorded changes, at which the line may jump without a word
 * @returns indices into the points
 */
export function unexplained(points: readonly SeriesPoint[], changes: readonly number[] = []): Alarm[] {
  const scatter = Math.max(LEAST_SCATTER, successiveScatter(points));
  const alarms: Alarm[] = [];
  let from = 0;
  while (from < points.length) {
    const alarm = firstAlarm(points, from, changes, scatter);
    if (!alarm) break;
    alarms.push(alarm);
    from = alarm.since;
    // A line that leaves at once would be found again and again.
    if (alarm.since <= (alarms.at(-2)?.since ?? -1)) break;
  }
  return alarms;
}

function firstAlarm(points: readonly SeriesPoint[], from: number, changes: readonly number[], scatter: number): Alarm | null {
  let line = newLine(points[from]!);
  let seen = 0;
  let sums = NO_SUMS;
  for (let i = from; i < points.length; i++) {
    const point = points[i]!;
    const before = points[i - 1];
    if (before && i > from && changes.some((day) => day > before.day && day <= point.day)) {
      line = newLine(point);
      sums = NO_SUMS;
      seen = 0;
    }
    const variance = point.sd ** 2 + scatter ** 2;
    const predicted = predict(line, point.day);
    const z = (point.y - predicted.value) / Math.sqrt(variance + predicted.variance);
    if (seen >= LEARNED_FROM) {
      sums = summed(sums, Math.max(-MOST_Z, Math.min(MOST_Z, z)), i, CUSUM_SLACK);
      const alarm = alarmOf(sums, i, CUSUM_HEIGHT);
      if (alarm) return alarm;
    }
    // What lies far off is watched, not learned from.
    if (Math.abs(z) < MOST_Z || seen < 2) {
      line = learn(line, point, variance);
      seen += 1;
    }
  }
  return null;
}

/** A line by its level and slope a day, with their covariance. */
interface Line {
  readonly day: number;
  readonly level: number;
  readonly slope: number;
  readonly vLevel: number;
  readonly vSlope: number;
  readonly cov: number;
}

const newLine = ({ day, y }: SeriesPoint): Line => ({
  day,
  level: y,
  slope: 0,
  vLevel: LEVEL_SD ** 2,
  vSlope: (SLOPE_SD_PER_YEAR / DAYS_PER_YEAR) ** 2,
  cov: 0,
});

function predict(line: Line, day: number): { value: number; variance: number } {
  const t = day - line.day;
  return { value: line.level + line.slope * t, variance: line.vLevel + 2 * t * line.cov + t * t * line.vSlope };
}

/** The line after one more point (recursive least squares). */
function learn(line: Line, point: SeriesPoint, variance: number): Line {
  const t = point.day - line.day;
  const { value, variance: expected } = predict(line, point.day);
  const gainLevel = (line.vLevel + t * line.cov) / (expected + variance);
  const gainSlope = (line.cov + t * line.vSlope) / (expected + variance);
  const miss = point.y - value;
  return {
    day: line.day,
    level: line.level + gainLevel * miss,
    slope: line.slope + gainSlope * miss,
    vLevel: line.vLevel - gainLevel * (line.vLevel + t * line.cov),
    cov: line.cov - gainLevel * (line.cov + t * line.vSlope),
    vSlope: line.vSlope - gainSlope * (line.cov + t * line.vSlope),
  };
}

/** Scatter of a series by the middle of its steps from point to point: neither a slope nor a jump moves it much. */
function successiveScatter(points: readonly SeriesPoint[]): number {
  if (points.length < 4) return 0;
  const steps = points.slice(1).map(({ y }, i) => Math.abs(y - points[i]!.y));
  const own = median(points.map(({ sd }) => sd));
  const seen = normalSpread(steps) / Math.SQRT2;
  return Math.sqrt(Math.max(0, seen * seen - own * own));
}
