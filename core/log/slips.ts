import type { Reading, System } from '../file';
import { productLPerDay } from '../goal';
import { BAR_PER_PSI, DAY_MS, dayAndYear, formatQuantity, inSentence, L_PER_US_GALLON, THIN } from '../quantity';
import { around, chanceChanged, chanceOf, expectedOf, isProduct, type Expected, type FigureKey, type FigureOf } from './expected';
import { isCountedDown } from './litres';
import { shownUnitOf } from './meterEntry';
import { inOrder } from './series';

/** A figure that is asked about before it counts. */
export interface Doubt {
  /** `probe:` and its id, or the figure's own key; `at` where it is the whole reading. */
  readonly field: string;
  /** What is odd about it. */
  readonly says: string;
  /** What it stands for if it is meant. */
  readonly asTyped: string;
  /** What it probably was; null where nothing is likelier. */
  readonly probably: { readonly text: string; readonly reading: Reading } | null;
}

/** Priors of what may have gone wrong with a figure (science of logs, 8; product assumptions). */
const PRIOR = {
  tenfold: 0.004,
  double: 0.003,
  unit: 0.003,
  digits: 0.002,
  swap: 0.004,
  changed: 0.002,
} as const;
/** A slip kept costs twenty times a question: asked from this chance on; a correction is offered where it has this share of the slips. */
const ASKS = 1 / 21;
const OFFERS = 0.75;
const ALIKE = 0.06;
/** Readings of one hour with the same figures are one reading. */
const SAME_MS = 15 * 60_000;
/** How far a meter may run ahead of what is planned or was used before. */
const METER_AHEAD = 5;

/** Litres that may have run while a counter was set. */
const SINCE_SET_L = 40;

/** A way a figure may have gone wrong: what was meant, and how likely that is. */
interface Slip {
  readonly meant: number;
  readonly reading: Reading;
  readonly text: string;
  readonly chance: number;
}

/**
 * What of a reading looks like a slip: a decimal, two digits in each other's place, one digit twice, another unit, two
 * figures in each other's place, a water meter that runs backwards, a reading of the same hour, another month. Each is
 * weighed against the figure as it stands and against a true change; what somebody has confirmed is not asked again.
 *
 * @param others every other reading of the system
 */
export function slipsOf(system: System, reading: Reading, others: readonly Reading[]): Doubt[] {
  const near = around(reading, others);
  const figures = figuresOf(system, reading, near);
  const swapped = swapSlip(reading, figures);
  return [
    sameHour(system, reading, others),
    dateSlip(system, reading, others),
    swapped?.doubt ?? null,
    ...figures.filter(({ of }) => !swapped?.fields.includes(of)).map((figure) => figureSlip(reading, figure)),
    meterSlip(system, reading, others),
  ].filter((doubt): doubt is Doubt => doubt !== null && !reading.confirmed.includes(doubt.field));
}

/** A figure as it was typed and what is expected of it. */
interface FigureRead {
  readonly of: FigureOf;
  readonly value: number;
  readonly expected: Expected;
  readonly linear: boolean;
  readonly label: string;
  readonly told: (value: number) => string;
  readonly put: (reading: Reading, value: number) => Reading;
  /** Factors of the units it may have been typed in instead. */
  readonly otherUnits: readonly number[];
  /** A figure behind a resin may rise tenfold, and does. */
  readonly rises: boolean;
}

const LABELS: Readonly<Record<Exclude<FigureKey, 'meterL'>, string>> = {
  pressureBar: 'Pressure',
  temperatureC: 'Temperature',
  productLPerH: 'Product',
  wasteLPerH: 'Waste',
};
const ML_PER_MIN = 0.06;
const GAL_PER_DAY = L_PER_US_GALLON / 24;

function figuresOf(system: System, reading: Reading, near: ReturnType<typeof around>): FigureRead[] {
  const plain = (Object.keys(LABELS) as Exclude<FigureKey, 'meterL'>[]).flatMap((key): FigureRead[] => {
    const value = reading[key];
    const expected = value === null ? null : expectedOf(system, reading, near, key);
    if (value === null || !expected) return [];
    return [
      {
        of: key,
        value,
        expected,
        linear: key === 'temperatureC',
        label: LABELS[key],
        told: (v) => formatQuantity(v, key === 'productLPerH' || key === 'wasteLPerH' ? 'flowLPerH' : key, system.units).text,
        put: (one, v) => ({ ...one, [key]: v }),
        otherUnits:
          key === 'pressureBar'
            ? [BAR_PER_PSI, 1 / BAR_PER_PSI]
            : key === 'temperatureC'
              ? []
              : [ML_PER_MIN, 1 / ML_PER_MIN, GAL_PER_DAY / ML_PER_MIN, ML_PER_MIN / GAL_PER_DAY],
        rises: false,
      },
    ];
  });
  const probes = reading.values.flatMap(({ probeId, instrumentId, shown }, i): FigureRead[] => {
    const probe = system.train.probes.find(({ id }) => id === probeId);
    const instrument = system.instruments.find(({ id }) => id === instrumentId);
    const expected = expectedOf(system, reading, near, `probe:${probeId}`);
    if (!probe || !instrument || !expected) return [];
    return [
      {
        of: `probe:${probeId}`,
        value: shown,
        expected,
        linear: false,
        label: probe.name,
        told: (v) => `${Number(v.toPrecision(4))}${THIN}${shownUnitOf(instrument)}`,
        put: (one, v) => ({ ...one, values: one.values.map((value, k) => (k === i ? { ...value, shown: v } : value)) }),
        otherUnits: [],
        rises: isProduct(system, probeId),
      },
    ];
  });
  return [...probes, ...plain];
}

const rangeText = (low: string, high: string): string => (low === high ? low : `${low} to ${high}`);

/** How a figure was read around then, in words. */
const readAround = ({ expected, told }: FigureRead): string =>
  expected.planned
    ? `${rangeText(told(expected.low), told(expected.high))} is planned`
    : `it read ${rangeText(told(expected.low), told(expected.high))} in the ${expected.count === 1 ? 'reading' : `${expected.count} readings`} around it`;

/** A figure alone: its slips against itself as it stands, and against a true change. */
function figureSlip(reading: Reading, figure: FigureRead): Doubt | null {
  const { value, expected, linear, told, label, of } = figure;
  if (value < 0 || (value === 0 && figure.rises)) return null;
  const asTyped = chanceOf(expected, value, linear);
  const changed = PRIOR.changed * chanceChanged(expected, value, linear);
  const slips = candidates(figure).map(({ meant, prior }): Slip => {
    const fixed = figure.put(reading, meant);
    return { meant, reading: fixed, text: told(meant), chance: prior * chanceOf(expected, meant, linear) };
  });
  const wrong = slips.reduce((sum, { chance }) => sum + chance, 0);
  // Zero where something is always read is a figure nobody read.
  const never = value === 0 && !linear ? PRIOR.digits : 0;
  if (!((wrong + never) / (wrong + never + asTyped + changed) > ASKS)) return farOff(figure, asTyped, changed);
  const best = slips.sort((a, b) => b.chance - a.chance)[0];
  // Two ways to much the same figure are one answer.
  const alike = best
    ? slips.filter(({ meant }) => Math.abs(meant / best.meant - 1) < ALIKE).reduce((sum, { chance }) => sum + chance, 0)
    : 0;
  return {
    field: of,
    says: `${label} ${told(value)}; ${readAround(figure)}.`,
    asTyped: `It is ${told(value)}`,
    probably: best && alike > OFFERS * wrong ? { text: best.text, reading: best.reading } : null,
  };
}

/** What fits nothing, and no slip explains: far beyond all that is expected, it is asked about all the same. */
function farOff(figure: FigureRead, asTyped: number, changed: number): Doubt | null {
  if (figure.rises || figure.expected.planned || asTyped * LEAST_FIT > changed) return null;
  return {
    field: figure.of,
    says: `${figure.label} ${figure.told(figure.value)}; ${readAround(figure)}.`,
    asTyped: `It is ${figure.told(figure.value)}`,
    probably: null,
  };
}
/** A figure this much likelier as a true change than as its usual self is asked about. */
const LEAST_FIT = 30_000;

/** What may have been meant, each with its prior. */
function candidates({ value, linear, otherUnits, rises, of }: FigureRead): readonly { readonly meant: number; readonly prior: number }[] {
  const digits = digitSlips(value);
  const units = linear ? [(value - 32) / 1.8, value * 1.8 + 32] : otherUnits.map((factor) => value * factor);
  const all = [
    ...units.map((meant) => ({ meant, prior: PRIOR.unit })),
    // A product behind resin rises tenfold by itself: nobody is asked about it.
    ...(rises ? [] : [value / 10, value * 10].map((meant) => ({ meant, prior: PRIOR.tenfold }))),
    ...(rises || !of.startsWith('probe:') ? [] : [value / 2, value * 2].map((meant) => ({ meant, prior: PRIOR.double }))),
    ...(rises ? [] : digits.map((meant) => ({ meant, prior: PRIOR.digits / Math.max(1, digits.length / 2) }))),
  ];
  return all.filter(({ meant }) => meant > 0 && Number.isFinite(meant));
}

/** The same digits with two that stand together changed, or one that stands twice taken once. */
function digitSlips(value: number): number[] {
  const text = String(Number(value.toPrecision(6)));
  const found = Array.from({ length: text.length - 1 }, (_, i) => {
    const [here, next] = [text[i]!, text[i + 1]!];
    if (here === '.' || next === '.') return [];
    return here === next ? [Number(text.slice(0, i) + text.slice(i + 1))] : [Number(text.slice(0, i) + next + here + text.slice(i + 2))];
  })
    .flat()
    .filter((one) => Number.isFinite(one) && one > 0 && one !== value);
  return [...new Set(found)];
}

/** Two figures in each other's place, judged together: each shows what the other usually does. */
function swapSlip(
  reading: Reading,
  figures: readonly FigureRead[],
): { readonly doubt: Doubt | null; readonly fields: readonly string[] } | null {
  const find = (of: FigureOf): FigureRead | undefined => figures.find((one) => one.of === of);
  const probes = figures.filter(({ of }) => of.startsWith('probe:'));
  const pairs: (readonly [FigureRead, FigureRead])[] = probes.flatMap((a, i) => probes.slice(i + 1).map((b) => [a, b] as const));
  const [product, waste, bar, warm] = [find('productLPerH'), find('wasteLPerH'), find('pressureBar'), find('temperatureC')];
  if (product && waste) pairs.push([product, waste]);
  let best: { a: FigureRead; b: FigureRead; fixed: Reading; chance: number } | null = null;
  const consider = (a: FigureRead, b: FigureRead, meantA: number, meantB: number, prior: number): void => {
    if (!(meantA >= 0) || !(meantB >= 0)) return;
    const swapped = prior * chanceOf(a.expected, meantA, a.linear) * chanceOf(b.expected, meantB, b.linear);
    const self = (one: FigureRead): number =>
      chanceOf(one.expected, one.value, one.linear) + PRIOR.changed * chanceChanged(one.expected, one.value, one.linear);
    const chance = swapped / (swapped + self(a) * self(b));
    if (chance > ASKS && chance > (best?.chance ?? 0)) best = { a, b, fixed: b.put(a.put(reading, meantA), meantB), chance };
  };
  for (const [a, b] of pairs) consider(a, b, b.value, a.value, PRIOR.swap);
  // Pressure and temperature are numbers of different units: each as it may have been typed.
  if (bar && warm)
    for (const perBar of [1, 1 / BAR_PER_PSI])
      for (const fahrenheit of [false, true]) {
        const typedBar = bar.value * perBar;
        const typedWarm = fahrenheit ? warm.value * 1.8 + 32 : warm.value;
        consider(bar, warm, typedWarm / perBar, fahrenheit ? (typedBar - 32) / 1.8 : typedBar, PRIOR.swap / 4);
      }
  if (!best) return null;
  const { a, b, fixed } = best as { a: FigureRead; b: FigureRead; fixed: Reading };
  const words = a.of.startsWith('probe:')
    ? `${a.told(a.value)} ${inSentence(a.label)} and ${b.told(b.value)} ${inSentence(b.label)}: usually it is the other way round.`
    : `${a.label} ${a.told(a.value)} and ${inSentence(b.label)} ${b.told(b.value)}: usually it is the other way round.`;
  const doubt: Doubt = { field: a.of, says: words, asTyped: 'It is as typed', probably: { text: 'Swap the two', reading: fixed } };
  // Confirmed on one of them, it is confirmed for both.
  const isConfirmed = reading.confirmed.includes(a.of) || reading.confirmed.includes(b.of);
  return { doubt: isConfirmed ? null : doubt, fields: [a.of, b.of] };
}

/** A water meter that runs backwards, or far faster than water can have been used. */
function meterSlip(system: System, reading: Reading, others: readonly Reading[]): Doubt | null {
  const value = reading.meterL;
  if (value === null) return null;
  const at = Date.parse(reading.at);
  const metered = inOrder(others).filter(({ id, meterL }) => id !== reading.id && meterL !== null);
  const before = metered.findLast((one) => Date.parse(one.at) <= at);
  const after = metered.find((one) => Date.parse(one.at) > at);
  const told = (litres: number): string => formatQuantity(litres, 'volumeL', system.units).text;
  const doubt = (likely: number | null, because: string): Doubt => ({
    field: 'meterL',
    says: `Product meter ${told(value)}; ${because}.`,
    asTyped: `It is ${told(value)}`,
    probably: likely === null ? null : { text: told(likely), reading: { ...reading, meterL: likely } },
  });
  const { meter } = system.train;
  const days = before ? Math.max(1, (at - Date.parse(before.at)) / DAY_MS) : 0;
  const perDayL = Math.max(productLPerDay(system.goal), usedPerDay(metered, at));
  const mostL = METER_AHEAD * days * Math.max(1, perDayL);
  if (meter.counts === 'down') {
    if (!before) return null;
    const down = before.meterL!;
    const runs = value <= down && down - value <= mostL;
    // Set anew it shows what it is set to, less what can have run since the reading before.
    const sinceL = SINCE_SET_L + (mostL * Math.max(0, at - Date.parse(before.at))) / DAY_MS / days;
    const setAnew = value > down && isCountedDown(value, down, meter) && (meter.setToL ?? value) - value <= sinceL;
    if (runs || setAnew) return null;
    const likely = meterCandidates(value, down).find((one) => one <= down && down - one <= mostL);
    const set = meter.setToL === null ? '' : ` and is set to ${told(meter.setToL)}`;
    return doubt(likely ?? null, `it counts down${set}; before it read ${told(down)}`);
  }
  // Behind its last figure it begins again.
  if (before && rolledOver(value, before.meterL!, meter.rollsOverL)) return null;
  const fits = (litres: number): boolean => (!before || litres >= before.meterL!) && (!after || litres <= after.meterL!);
  const most = before ? before.meterL! + mostL : Infinity;
  if (fits(value) && value <= most) return null;
  const expected = before ? before.meterL! + days * perDayL : value;
  const likely = meterCandidates(value, before?.meterL ?? value)
    .filter((one) => fits(one) && one <= most && one !== value)
    .sort((a, b) => Math.abs(a - expected) - Math.abs(b - expected))[0];
  const [bound, way] =
    before && value < before.meterL! ? [before, 'less'] : after && value > after.meterL! ? [after, 'more'] : [before!, 'far more'];
  return doubt(likely ?? null, `${way} than the ${told(bound.meterL!)} of the reading ${bound === after ? 'after' : 'before'} it`);
}

/** Whether a counter began again behind its last figure: the one known, or a power of ten it was close to. */
function rolledOver(value: number, before: number, rollsOverL: number | null): boolean {
  const full = rollsOverL ?? 10 ** Math.ceil(Math.log10(Math.max(10, before)));
  return value < before && before > 0.8 * full && value < 0.2 * full;
}

/** What a meter may have shown: a decimal, a digit, gallons for litres, leading digits left out. */
const meterCandidates = (value: number, before: number): number[] => [
  value * L_PER_US_GALLON,
  value / L_PER_US_GALLON,
  value * 10,
  value / 10,
  ...Array.from({ length: 10 }, (_, digit) => value * 10 + digit),
  ...digitSlips(Math.abs(value)).map((one) => Math.sign(value || 1) * one),
  ...(value >= 0 ? [leading(before, value)] : []),
];

const LEAST_DAYS = 0.5;
/** Litres a day between the meter readings before an instant. */
function usedPerDay(metered: readonly Reading[], at: number): number {
  const [first, last] = metered
    .filter((one) => Date.parse(one.at) <= at)
    .slice(-5)
    .reduce<[Reading?, Reading?]>(([a], one) => [a ?? one, one], []);
  const days = first && last ? (Date.parse(last.at) - Date.parse(first.at)) / DAY_MS : 0;
  // Of minutes no day's use can be told.
  return days > LEAST_DAYS ? Math.abs(last!.meterL! - first!.meterL!) / days : 0;
}

/** A total whose leading digits were left out: 23 for 5,223. */
function leading(before: number, value: number): number {
  const size = 10 ** Math.ceil(Math.log10(Math.max(1, value) + 1));
  const filled = Math.floor(before / size) * size + value;
  return filled >= before ? filled : filled + size;
}

/** A day of another month: before readings that its meter has passed already. */
function dateSlip(system: System, reading: Reading, others: readonly Reading[]): Doubt | null {
  const ordered = inOrder(others).filter(({ id }) => id !== reading.id);
  const last = ordered.at(-1);
  if (!last || reading.at >= last.at) return null;
  const down = system.train.meter.counts === 'down';
  const later = ordered.filter((one) => one.at > reading.at && one.meterL !== null);
  const newest = later.at(-1);
  if (reading.meterL === null || !newest) return null;
  if (down ? reading.meterL > newest.meterL! : reading.meterL < newest.meterL!) return null;
  // A month on, or the days between: the first that lies after the newest reading.
  const moved = nextMonth(reading.at);
  const fixed = moved > last.at ? { ...reading, at: moved } : null;
  return {
    field: 'at',
    says: `Dated ${dayAndYear(reading.at)}, before readings whose meter it has passed already.`,
    asTyped: `It was ${dayAndYear(reading.at)}`,
    probably: fixed && { text: dayAndYear(fixed.at), reading: fixed },
  };
}

/** The same day a month later. */
function nextMonth(at: string): string {
  const day = new Date(at);
  const there = new Date(day);
  there.setUTCMonth(day.getUTCMonth() + 1);
  return there.toISOString();
}

/** A reading of the same hour that says the same. */
function sameHour(system: System, reading: Reading, others: readonly Reading[]): Doubt | null {
  const at = Date.parse(reading.at);
  const same = others.find(
    (one) =>
      one.id !== reading.id &&
      Math.abs(Date.parse(one.at) - at) < SAME_MS &&
      one.values.length === reading.values.length &&
      one.values.every(({ probeId, shown }, i) => reading.values[i]?.probeId === probeId && reading.values[i]?.shown === shown) &&
      (['pressureBar', 'temperatureC', 'productLPerH', 'wasteLPerH', 'meterL'] as const).every((key) => one[key] === reading[key]),
  );
  if (!same) return null;
  return {
    field: 'at',
    says: `${system.name} has a reading with these figures within a quarter of an hour of this one.`,
    asTyped: 'Log it all the same',
    probably: null,
  };
}
