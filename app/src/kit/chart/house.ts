import { monthMark, shortDay, timeOfDay } from '../../time/dates';
import { DAY_MS, DAYS_PER_MONTH } from '@yes-clear/core/quantity';
import type { Chart, Plugin } from 'chart.js';
import { spread } from './round';

/** One line of a chart. */
export interface ChartSeries {
  readonly label: string;
  readonly colour: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** Text at the end of the line, where it says more than the label. */
  readonly endText?: string;
  readonly dashed?: boolean;
  readonly dots?: boolean;
  /** Points alone, without a line through them. */
  readonly scattered?: boolean;
  /** Rings in place of dots, for what counts little. */
  readonly hollow?: boolean;
  readonly width?: number;
  /** Fill to the series this many places away, for a fan. */
  readonly fillTo?: string;
  /** No label and no tooltip. */
  readonly quiet?: boolean;
}

const token = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Colours and type of the charts, read from the one place they are set. */
export function houseColours() {
  return {
    ink: token('--ink'),
    muted: token('--muted'),
    hair: token('--hair'),
    goal: token('--goal'),
    bad: token('--bad'),
    action: token('--action'),
    resin: token('--resin'),
    font: { family: token('--digits'), size: 13 },
  };
}

/** Months between two marks at the foot, by how many months a chart spans: never more marks than can be read. */
const MONTH_STEPS = [1, 2, 3, 6, 12, 24, 60, 120] as const;
const MOST_MARKS = 14;
const MONTH_MS = DAYS_PER_MONTH * DAY_MS;

/** Months from one mark to the next, so that no more than so many stand at the foot. */
function monthStep(from: number, until: number, most: number): number {
  const months = (until - from) / MONTH_MS;
  return MONTH_STEPS.find((step) => months / step <= most) ?? Math.ceil(months / most / 120) * 120;
}

const HOUR_MS = 3_600_000;
/** Hours and days from one mark to the next, where less than a few months are shown. */
const CLOSE_STEPS = [HOUR_MS, 2 * HOUR_MS, 6 * HOUR_MS, 12 * HOUR_MS, DAY_MS, 2 * DAY_MS, 7 * DAY_MS, 14 * DAY_MS] as const;

interface TimeTick {
  readonly value: number;
  readonly text: string;
}

/** Hours or days of a span, by the calendar on the wall: an hour that a change of clocks leaves out is none. */
function closeTicks(from: number, until: number, step: number): TimeTick[] {
  const ticks: TimeTick[] = [];
  const first = new Date(from);
  const [days, hours] = [Math.max(1, step / DAY_MS), Math.min(24, step / HOUR_MS)];
  for (let day = 0; ; day += days) {
    const at = (hour: number): number => new Date(first.getFullYear(), first.getMonth(), first.getDate() + day, hour).getTime();
    if (at(0) > until) return ticks;
    for (let hour = 0; hour < 24; hour += hours)
      if (at(hour) >= from && at(hour) <= until) ticks.push({ value: at(hour), text: hour === 0 ? shortDay(at(0)) : timeOfDay(at(hour)) });
  }
}

/** First days of the months of a span; of quarters or years where there are many. */
function monthTicks(from: number, until: number, step: number): TimeTick[] {
  const ticks: TimeTick[] = [];
  const first = new Date(from);
  for (let month = Math.ceil((12 * first.getFullYear() + first.getMonth()) / step) * step; ; month += step) {
    const at = new Date(Math.floor(month / 12), month % 12, 1).getTime();
    if (!(at <= until)) return ticks;
    if (at >= from) ticks.push({ value: at, text: monthMark(at, step) });
  }
}

/** Marks of a span by the calendar on the wall: hours, days, months or years, no more than so many. */
export function timeTicks(from: number, until: number, most: number = MOST_MARKS): readonly TimeTick[] {
  const close = (until - from) / MONTH_MS < 2 ? CLOSE_STEPS.find((step) => (until - from) / step <= most) : undefined;
  const ticks = close === undefined ? monthTicks(from, until, monthStep(from, until, most)) : closeTicks(from, until, close);
  return ticks.length > 0 ? ticks : [{ value: from, text: shortDay(from) }];
}

/** Decades within a range, for a log axis. */
export function logTicks(low: number, high: number): { value: number }[] {
  return [0.01, 0.1, 1, 10, 100, 1000, 10_000, 100_000].filter((value) => value >= low && value <= high).map((value) => ({ value }));
}

/** The goal's band and the line of today, in the annotation plugin's terms. */
export function annotationsOf(
  colours: ReturnType<typeof houseColours>,
  low: number,
  high: number,
  band: { readonly from: number; readonly to: number } | null,
  today: number | null,
  todayText = 'today',
): Record<string, object> {
  return {
    ...(band
      ? {
          band: {
            type: 'box',
            yMin: Math.max(low, band.from),
            yMax: Math.min(high, band.to),
            backgroundColor: colours.goal,
            borderWidth: 0,
            drawTime: 'beforeDraw',
          },
        }
      : {}),
    ...(today !== null
      ? {
          today: {
            type: 'line',
            xMin: today,
            xMax: today,
            borderColor: colours.ink,
            borderWidth: 1.2,
            label: {
              display: todayText !== '',
              content: todayText,
              position: 'end',
              backgroundColor: 'transparent',
              color: colours.ink,
              font: colours.font,
              xAdjust: 24,
              padding: 0,
            },
          },
        }
      : {}),
  };
}

/** A moment worth a mark: work that was done, a step of a series. */
export interface ChartMark {
  readonly at: number;
  readonly text: string;
}

/** Half of what a letter of a name takes, px. */
const HALF_LETTER_PX = 3.4;
/** Two named marks lie at least this share of what is shown apart. */
const MARKS_APART = 0.2;

/** Marks with the names that fit beside each other: of those close together the newest keeps its own. */
export function namedApart(marks: readonly ChartMark[], from: number, until: number): ChartMark[] {
  let next = Infinity;
  return [...marks]
    .sort((a, b) => b.at - a.at)
    .map((mark) => {
      const fits = next - mark.at >= MARKS_APART * (until - from);
      if (fits && mark.text !== '') next = mark.at;
      return fits ? mark : { ...mark, text: '' };
    })
    .reverse();
}

/** Marks of moments and levels, in the annotation plugin's terms. */
export function marksOf(
  colours: ReturnType<typeof houseColours>,
  marks: readonly ChartMark[],
  levels: readonly number[],
): Record<string, object> {
  const label = { display: true, backgroundColor: 'transparent', font: colours.font, padding: 0 };
  return Object.fromEntries([
    ...marks.map((mark, i) => [
      `mark${i}`,
      {
        type: 'line',
        xMin: mark.at,
        xMax: mark.at,
        borderColor: colours.muted,
        borderWidth: 1,
        borderDash: [2, 3],
        label: {
          ...label,
          display: mark.text !== '',
          content: mark.text,
          // At the foot, to the left of its line: the upper edge belongs to the tap and to today.
          position: 'start',
          color: colours.muted,
          yAdjust: -2,
          xAdjust: -(HALF_LETTER_PX * mark.text.length + 6),
        },
      },
    ]),
    ...levels.map((level, i) => [
      `level${i}`,
      {
        type: 'line',
        yMin: level,
        yMax: level,
        borderColor: colours.bad,
        borderWidth: 1.2,
        borderDash: [5, 4],
        label: { ...label, display: false },
      },
    ]),
  ]);
}

/** An upright hairline at the moment a pointer rests on in any of the charts shown together. */
export const hoverLine: Plugin<'line', { readonly at: number | null; readonly colour: string }> = {
  id: 'hoverLine',
  afterDraw(chart: Chart, _args, { at, colour }) {
    const x = at === null || at === undefined ? null : chart.scales['x']?.getPixelForValue(at);
    if (x === null || x === undefined || x < chart.chartArea.left || x > chart.chartArea.right) return;
    const { ctx } = chart;
    ctx.save();
    ctx.strokeStyle = colour;
    ctx.lineWidth = 1;
    ctx.beginPath();
    ctx.moveTo(x, chart.chartArea.top);
    ctx.lineTo(x, chart.chartArea.bottom);
    ctx.stroke();
    ctx.restore();
  },
};

/** Two names at the ends of lines need so much, px. */
export const LABELS_APART_PX = 15;

interface EndLabelOptions {
  readonly labels: readonly string[];
  /** Which of them name their line, wherever it is looked at, and do not say something of its end. */
  readonly names?: readonly boolean[];
  readonly colours: readonly string[];
  /** On a phone there is no room behind the lines: the names stand on them, at the right. */
  readonly inside: boolean;
  /** How far beyond the drawing a name may reach, px. */
  readonly room?: number;
}

const LABEL_FONT = (): string => `650 13px ${token('--digits')}`;

/** Writes each line's name at its end, moved apart where two would touch. */
export const endLabels: Plugin<'line', EndLabelOptions> = {
  id: 'endLabels',
  afterDatasetsDraw(chart: Chart, _args, options: EndLabelOptions) {
    chart.ctx.font = LABEL_FONT();
    const wanted = (options.labels ?? []).flatMap((text, i) => {
      const { left, right, top } = chart.chartArea;
      const { data } = chart.getDatasetMeta(i);
      // A name stays with its line where only a part of it is shown; what is said of its end does not.
      const last = options.names?.[i] ? (data.findLast(({ x }) => x <= right + 1) ?? data.at(-1)) : data.at(-1);
      // A line that ends before or beyond what is shown has no end to name.
      if (!last || last.x < left || (options.inside && last.x > right + 1)) return [];
      const room = right + (options.room ?? 0) - chart.ctx.measureText(text).width;
      const at = options.inside ? { x: right - 2, y: Math.max(top + 12, last.y - 10) } : { x: Math.min(last.x + 8, room), y: last.y };
      return text ? [{ text, ...at, colour: options.colours[i] ?? '#000' }] : [];
    });
    const levels = spread(
      wanted.map(({ y }) => y),
      LABELS_APART_PX,
    );
    const { ctx } = chart;
    ctx.save();
    ctx.font = LABEL_FONT();
    ctx.textBaseline = 'middle';
    ctx.textAlign = options.inside ? 'right' : 'left';
    wanted.forEach((label, i) => {
      ctx.fillStyle = label.colour;
      ctx.fillText(label.text, label.x, levels[i]!);
    });
    ctx.restore();
  },
};
