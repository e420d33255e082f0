import { meterEc25, smallestStepUScm } from '@yes-clear/core/water';
import { shortDay } from '../time/dates';
import { DAY_MS, inSentence, L_PER_US_GALLON } from '@yes-clear/core/quantity';
import { FOUR_IN_FIVE_SD } from '@yes-clear/core/numeric';
import type { StrengthLimit } from '@yes-clear/core/goal';
import { courseAt, litresCounted, probeEc25, shareWithDoubt, type MembraneTrend, type ResinTracking } from '@yes-clear/core/log';
import type { Reading, System } from '@yes-clear/core/file';
import { waterColour } from '../descent/waterColour';
import { houseColours, type ChartMark, type ChartSeries } from '../kit/chart/house';
import { roundTop } from '../kit/chart/round';

const at = (reading: Reading): number => Date.parse(reading.at);

/** What a meter that shows 0 may be hiding: half of its smallest step, as conductivity. */
function floorOf(system: System, probeId: string): number {
  const probe = system.train.probes.find((candidate) => candidate.id === probeId);
  const instrument = system.instruments.find((candidate) => candidate.id === probe?.instrumentId);
  return instrument ? smallestStepUScm(instrument) / 2 : 0.5;
}

/** No water conducts less, about: what is shown as less is a meter's nought. */
const PUREST_USCM = 0.05;

/** A shade darker than the water, so that thin lines read on paper. */
const lineColour = (ec25: number): string => waterColour(Math.max(ec25 * 2.2, 0.6));

/** The least of many; a hundred thousand are too many for arguments of a call. */
const least = (values: readonly number[]): number => values.reduce((low, value) => Math.min(low, value), Infinity);

export interface ProbeChart {
  readonly series: readonly ChartSeries[];
  readonly low: number;
  readonly high: number;
  readonly band: { readonly from: number; readonly to: number } | null;
}

/** A probe as it was recorded in a stretch of time that is looked at closely, as the meter showed it. */
export interface Traced {
  readonly instrumentId: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** A recorded stretch in place of the days that stand for it. */
function withTrace(
  points: readonly { readonly x: number; readonly y: number }[],
  trace: Traced | undefined,
  system: System,
  floor: number,
): readonly { readonly x: number; readonly y: number }[] {
  const instrument = system.instruments.find(({ id }) => id === trace?.instrumentId);
  const first = trace?.points[0];
  if (!trace || !instrument || !first) return points;
  const end = trace.points.at(-1)!.x;
  const close = trace.points.flatMap(({ x, y }) => {
    const ec25 = meterEc25(y, instrument, null);
    return ec25.ok ? [{ x, y: ec25.value > PUREST_USCM ? ec25.value : floor }] : [];
  });
  return [...points.filter(({ x }) => x < first.x), ...close, ...points.filter(({ x }) => x > end)];
}

/**
 * Every probe over time on a log axis, with the goal as a band.
 *
 * @param strength what the goal allows the product, see `strengthLimit`
 * @param traces recorded stretches by probe, where the time is looked at closely
 */
export function probeChart(
  system: System,
  readings: readonly Reading[],
  strength: StrengthLimit | null,
  traces: ReadonlyMap<string, Traced> = new Map(),
): ProbeChart {
  const series = system.train.probes
    .map((probe): ChartSeries => {
      const floor = floorOf(system, probe.id);
      const points = readings.flatMap((reading) => {
        const ec25 = probeEc25(reading, probe.id, system.instruments);
        return ec25 === null ? [] : [{ x: at(reading), y: ec25 > PUREST_USCM ? ec25 : floor }];
      });
      const middle = points.length > 0 ? points[Math.floor(points.length / 2)]!.y : 1;
      return {
        label: inSentence(probe.name),
        colour: lineColour(middle),
        points: withTrace(points, traces.get(probe.id), system, floor),
      };
    })
    .filter((line) => line.points.length > 0);
  const values = series.flatMap((line) => line.points.map((point) => point.y));
  const low = 10 ** Math.floor(Math.log10(Math.min(least(values), strength?.highUScm ?? 1, 1)) - 0.05);
  const high = 10 ** Math.ceil(Math.log10(Math.max(-least(values.map((value) => -value)), 100)) + 0.05);
  return { series, low, high, band: strength ? { from: strength.lowUScm || low, to: strength.highUScm ?? high } : null };
}

export interface CourseDrawing {
  readonly series: readonly ChartSeries[];
  readonly low: number;
  readonly high: number;
  /** The newest figure with its doubt, in words. */
  readonly says: string;
}

/** Places along a course at which it is drawn. */
const STEPS = 60;
/** How far a course is drawn beyond today. */
const AHEAD_MS = 60 * DAY_MS;

/** A membrane's output or salt by its log: readings, the course through them with its band, in per cent of the reference. */
export function courseChart(trend: MembraneTrend, of: 'water' | 'salt', now: number): CourseDrawing | null {
  const course = trend[of];
  // One reading alone is what the others will be held against: nothing is said of it yet.
  if (!course || course.count < 2) return null;
  const colour = houseColours().action;
  const reference = course.level.value - course.ahead.last.value;
  const told = trend.points.flatMap((point) => {
    const seen = of === 'water' ? point.factors.lnWater : point.factors.lnSalt;
    return seen ? [{ x: Date.parse(point.at), y: 100 * Math.exp(seen.value - reference), out: point.outlier[of] }] : [];
  });
  const from = told[0]?.x ?? now;
  const at = Array.from({ length: STEPS + 1 }, (_, i) => from + ((now + AHEAD_MS - from) * i) / STEPS);
  const edge = (sign: number): { x: number; y: number }[] =>
    at.map((x) => {
      const { value, sd } = courseAt(course, x);
      return { x, y: 100 * Math.exp(value + sign * FOUR_IN_FIVE_SD * sd) };
    });
  const upper = edge(1);
  const lower = edge(-1);
  const middle = at.filter((x) => x <= now).map((x) => ({ x, y: 100 * Math.exp(courseAt(course, x).value) }));
  const figure = shareWithDoubt(course.now);
  const dots = (out: boolean): ChartSeries => ({
    label: out ? 'counts little' : 'reading',
    colour,
    points: told.filter((point) => point.out === out).map(({ x, y }) => ({ x, y })),
    dots: true,
    scattered: true,
    hollow: out,
    ...(out ? { quiet: true } : {}),
    endText: '',
  });
  const drawn = [...told.filter(({ out }) => !out).map(({ y }) => y), ...lower.map(({ y }) => y), ...upper.map(({ y }) => y)];
  return {
    series: [
      { label: 'upper', colour, points: upper, width: 0, quiet: true, fillTo: '+1' },
      { label: 'lower', colour, points: lower, width: 0, quiet: true },
      { label: of === 'water' ? 'output' : 'salt', colour, points: middle, endText: figure, width: 2.4 },
      dots(false),
      ...(told.some(({ out }) => out) ? [dots(true)] : []),
    ],
    low: Math.floor(Math.min(80, least(drawn)) / 10) * 10,
    high: Math.ceil(Math.max(105, -least(drawn.map((one) => -one))) / 10) * 10,
    says: figure,
  };
}

/** Water used a day between two readings of the product's meter. */
export function usedChart(
  shown: readonly Reading[],
  system: Pick<System, 'units' | 'train' | 'goal' | 'away'>,
): { readonly series: readonly ChartSeries[]; readonly high: number } | null {
  const { units } = system;
  const points = litresCounted(system, shown)
    .spans.filter(({ metered }) => metered)
    .map(({ fromMs, toMs, litres }) => ({
      x: toMs,
      y: litres / ((toMs - fromMs) / DAY_MS) / (units.volume === 'gal' ? L_PER_US_GALLON : 1),
    }));
  if (points.length < 2) return null;
  return {
    series: [
      {
        label: 'used a day',
        colour: houseColours().action,
        points,
        dots: true,
        endText: `${Number(points.at(-1)!.y.toPrecision(2))} ${units.volume}`,
      },
    ],
    high: roundTop(-least(points.map(({ y }) => -y))),
  };
}

/** Work on parts as marks along the time; of those close together the first is named. */
export function workMarks(system: System): readonly ChartMark[] {
  return system.services.map(({ at: when, name, work }) => ({
    at: Date.parse(when),
    text: `${inSentence(name)} ${work === 'movedUp' ? 'moved up' : work}`,
  }));
}

/** Resin left so far and, beyond today, the fan of its end. */
export function resinChart(tracking: ResinTracking, now: string): { series: ChartSeries[]; from: number; until: number } {
  const today = Date.parse(now);
  const colour = houseColours().resin;
  const past = tracking.points.map((point) => ({ x: Date.parse(point.at), y: 100 * point.remaining.p50 }));
  const edge = (key: 'p10' | 'p90'): ChartSeries['points'] => [
    { x: Date.parse(tracking.fittedAt), y: 100 },
    ...tracking.points.map((point) => ({ x: Date.parse(point.at), y: 100 * point.remaining[key] })),
    { x: today, y: 100 * tracking.remaining[key] },
  ];
  const { remaining, daysLeft } = tracking;
  const series: ChartSeries[] = [
    { label: 'at most', colour, points: edge('p90'), width: 0, quiet: true, fillTo: '+1' },
    { label: 'at least', colour, points: edge('p10'), width: 0, quiet: true },
    {
      label: 'Resin left',
      colour,
      points: [{ x: Date.parse(tracking.fittedAt), y: 100 }, ...past, { x: today, y: 100 * remaining.p50 }],
      width: 2.8,
      endText: '',
    },
  ];
  const from = Date.parse(tracking.fittedAt) - 2 * DAY_MS;
  if (!daysLeft) return { series, from, until: today + 30 * DAY_MS };
  // Both edges of the fan need the same moments for the area between them to be filled.
  const moments = [0, daysLeft.p10, daysLeft.p50, daysLeft.p90];
  const ray = (left: number, days: number): ChartSeries['points'] =>
    moments.map((moment) => ({ x: today + moment * DAY_MS, y: Math.max(0, 100 * left * (1 - moment / days)) }));
  const short = (days: number): string => shortDay(today + days * DAY_MS);
  series.push(
    { label: 'late', colour, points: ray(remaining.p90, daysLeft.p90), width: 0, quiet: true, fillTo: '+1' },
    { label: 'early', colour, points: ray(remaining.p10, daysLeft.p10), width: 0, quiet: true },
    {
      label: 'Expected',
      colour,
      points: [
        { x: today, y: 100 * remaining.p50 },
        { x: today + daysLeft.p50 * DAY_MS, y: 0 },
      ],
      dashed: true,
      endText: `${short(daysLeft.p10)} – ${short(daysLeft.p90)}`,
    },
  );
  return { series, from, until: today + daysLeft.p90 * DAY_MS + 5 * DAY_MS };
}
