import { isCountedDown } from './volume';
import type { Reading, System } from '../file';
import { median, middleSpread } from '../numeric';
import { DAY_MS, formatQuantity, inSentence, THIN } from '../quantity';
import { productLPerDay } from '../goal';
import { inletBar } from '../train';
import { shownUnitOf } from './meterEntry';
import { inOrder } from './series';

/** A figure of a reading, by what it is of. */
export type FigureKey = 'pressureBar' | 'temperatureC' | 'productLPerH' | 'wasteLPerH' | 'meterL';

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

/** Readings before and after that a figure is held against. */
const NEIGHBOURS = 8;
const LEAST_NEIGHBOURS = 3;
/** How far a figure may lie from its neighbours unasked: twofold, or five times their own scatter. */
const FREE_LN = Math.log(2);
const FREE_SPREADS = 5;
/** How near what it probably was must come to them. */
const NEAR_LN = 0.3;
/** Readings of one hour with the same figures are one reading. */
const SAME_MS = 15 * 60_000;
/** How far a meter may run ahead of what is planned or was used before. */
const METER_AHEAD = 5;

/**
 * What of a reading looks like a slip: ten times its neighbours, two digits changed, one digit twice, another unit, two
 * figures in each other's place, a water meter that runs backwards, a reading of the same hour. What somebody has
 * confirmed is not asked about again.
 *
 * @param others every other reading of the system
 */
export function slipsOf(system: System, reading: Reading, others: readonly Reading[]): Doubt[] {
  const near = neighbours(reading, others);
  return [
    sameHour(system, reading, others),
    ...probeSlips(system, reading, near),
    quantitySlip(system, reading, near, 'pressureBar', 'Pressure'),
    quantitySlip(system, reading, near, 'temperatureC', 'Temperature'),
    ...flowSlips(system, reading, near),
    meterSlip(system, reading, others),
  ].filter((doubt): doubt is Doubt => doubt !== null && !reading.confirmed.includes(doubt.field));
}

/** The readings nearest in time that count. */
function neighbours(reading: Reading, others: readonly Reading[]): Reading[] {
  const at = Date.parse(reading.at);
  const apart = (one: Reading): number => Math.abs(Date.parse(one.at) - at);
  return inOrder(others)
    .filter(({ id }) => id !== reading.id)
    .sort((a, b) => apart(a) - apart(b))
    .slice(0, NEIGHBOURS);
}

interface Usual {
  readonly middle: number;
  /** How far from it nobody is asked, in ln. */
  readonly free: number;
  readonly low: number;
  readonly high: number;
  readonly count: number;
}

/** What a figure usually is by its neighbours, or as planned where there are too few; null where neither tells. */
function usualOf(values: readonly number[], planned: number | null, plannedFree: number): Usual | null {
  const above = values.filter((value) => value > 0);
  if (above.length >= LEAST_NEIGHBOURS) {
    const logs = above.map(Math.log);
    const free = Math.max(FREE_LN, FREE_SPREADS * middleSpread(logs));
    return { middle: Math.exp(median(logs)), free, low: Math.min(...above), high: Math.max(...above), count: above.length };
  }
  return planned !== null && planned > 0 ? { middle: planned, free: plannedFree, low: planned, high: planned, count: 0 } : null;
}

const off = (value: number, usual: Usual): number => Math.abs(Math.log(value / usual.middle));

/** What a figure may have been: a slipped decimal, a digit twice or changed, another unit. */
function meant(value: number, usual: Usual, also: readonly number[] = []): number | null {
  const near = Math.max(NEAR_LN, usual.free / 2);
  // A unit or a point is likelier than a digit; of one kind the nearest.
  for (const kind of [also, [value / 10, value * 10, value / 100, value * 100, value / 1000, value * 1000], digitSlips(value)]) {
    const best = kind.filter((one) => one > 0).sort((a, b) => off(a, usual) - off(b, usual))[0];
    if (best !== undefined && off(best, usual) <= near) return best;
  }
  return null;
}

/** The same digits with two that stand together changed, or one of them left out. */
function digitSlips(value: number): number[] {
  const text = String(Number(value.toPrecision(6)));
  return Array.from({ length: text.length }, (_, i) => {
    const left = text.slice(0, i) + text.slice(i + 1);
    const changed = i + 1 < text.length ? text.slice(0, i) + text[i + 1]! + text[i]! + text.slice(i + 2) : '';
    return [Number(left), Number(changed)];
  })
    .flat()
    .filter((one) => Number.isFinite(one) && one > 0);
}

const rangeText = (low: string, high: string): string => (low === high ? low : `${low} to ${high}`);

function probeSlips(system: System, reading: Reading, near: readonly Reading[]): (Doubt | null)[] {
  const shownAt = (one: Reading, probeId: string, instrumentId: string): number | undefined =>
    one.values.find((value) => value.probeId === probeId && value.instrumentId === instrumentId)?.shown;
  const usual = reading.values.map(({ probeId, instrumentId }) =>
    usualOf(
      near.flatMap((one) => shownAt(one, probeId, instrumentId) ?? []),
      null,
      FREE_LN,
    ),
  );
  const swapped = swappedPair(reading, usual);
  return reading.values.map(({ probeId, instrumentId, shown }, i) => {
    const probe = system.train.probes.find(({ id }) => id === probeId);
    const instrument = system.instruments.find(({ id }) => id === instrumentId);
    const own = usual[i];
    if (!probe || !instrument || !own || shown <= 0) return null;
    // Near nothing a step of the meter is many times the reading: what rises there is told by the resin, not as a slip.
    if (own.middle < 5 * instrument.resolution && shown < 20 * instrument.resolution) return null;
    if (off(shown, own) <= own.free) return null;
    const figure = (value: number): string => `${Number(value.toPrecision(4))}${THIN}${shownUnitOf(instrument)}`;
    const seen = `${figure(shown)} ${inSentence(probe.name)}; it read ${rangeText(String(own.low), figure(own.high))} in the ${own.count} readings around it`;
    const other = swapped?.includes(i) ? reading.values[swapped.find((k) => k !== i)!] : undefined;
    if (other) {
      const name = system.train.probes.find(({ id }) => id === other.probeId)?.name ?? 'another probe';
      return {
        field: `probe:${probeId}`,
        says: `${seen}. Is this probe’s figure that of “${name}”?`,
        asTyped: `It is ${figure(shown)}`,
        probably: { text: `Change the two`, reading: withSwapped(reading, swapped!) },
      };
    }
    const likely = meant(shown, own);
    return {
      field: `probe:${probeId}`,
      says: `${seen}.`,
      asTyped: `It is ${figure(shown)}`,
      probably: likely === null ? null : { text: figure(likely), reading: withShown(reading, i, likely) },
    };
  });
}

/** Two probes of which each shows what the other usually does; their places in the reading. */
function swappedPair(reading: Reading, usual: readonly (Usual | null)[]): readonly [number, number] | null {
  for (let i = 0; i < usual.length; i++)
    for (let j = i + 1; j < usual.length; j++) {
      const [a, b, mine, others] = [usual[i], usual[j], reading.values[i]!.shown, reading.values[j]!.shown];
      if (!a || !b || mine <= 0 || others <= 0) continue;
      if (off(mine, a) > a.free && off(mine, b) < NEAR_LN && off(others, a) < NEAR_LN) return [i, j];
    }
  return null;
}

const withShown = (reading: Reading, at: number, shown: number): Reading => ({
  ...reading,
  values: reading.values.map((value, i) => (i === at ? { ...value, shown } : value)),
});
const withSwapped = (reading: Reading, [i, j]: readonly [number, number]): Reading => ({
  ...reading,
  values: reading.values.map((value, k) =>
    k === i ? { ...value, shown: reading.values[j]!.shown } : k === j ? { ...value, shown: reading.values[i]!.shown } : value,
  ),
});

/** Temperatures that no cold tap has, °C. */
const WARMEST_C = 40;

function quantitySlip(
  system: System,
  reading: Reading,
  near: readonly Reading[],
  key: 'pressureBar' | 'temperatureC',
  label: string,
): Doubt | null {
  const value = reading[key];
  if (value === null) return null;
  const values = near.flatMap((one) => one[key] ?? []);
  const told = (v: number): string => formatQuantity(v, key, system.units).text;
  const others = otherUnits(key, value);
  if (key === 'temperatureC') {
    const usual = values.length >= LEAST_NEIGHBOURS ? median(values) : null;
    const { lowestTemperatureC, highestTemperatureC } = system.source.season;
    const [low, high] = [Math.min(lowestTemperatureC, ...values) - 6, Math.min(WARMEST_C, Math.max(highestTemperatureC, ...values) + 8)];
    if (value >= low && value <= high) return null;
    const likely = others
      .filter((one) => one >= low && one <= high)
      .sort((a, b) => Math.abs(a - (usual ?? 12)) - Math.abs(b - (usual ?? 12)))[0];
    return doubt(
      reading,
      key,
      label,
      value,
      likely ?? null,
      told,
      `the water here is ${told(lowestTemperatureC)} to ${told(highestTemperatureC)} over the year`,
    );
  }
  const planned = system.train.gauge === 'line' ? inletBar(system.source) : null;
  const usual = usualOf(values, planned, Math.log(2.5));
  if (!usual || value <= 0 || off(value, usual) <= usual.free) return null;
  return doubt(
    reading,
    key,
    label,
    value,
    meant(value, usual, others),
    told,
    usual.count > 0 ? `it read ${rangeText(told(usual.low), told(usual.high))} around then` : `${told(usual.middle)} is planned`,
  );
}

/** A figure that was typed in one unit and meant in another. */
const otherUnits = (key: FigureKey, value: number): readonly number[] => {
  const psi = 0.0689475729;
  return key === 'pressureBar' ? [value * psi, value / psi] : key === 'temperatureC' ? [(value - 32) / 1.8, value * 1.8 + 32] : [];
};

const doubt = (
  reading: Reading,
  key: FigureKey,
  label: string,
  value: number,
  likely: number | null,
  told: (value: number) => string,
  because: string,
): Doubt => ({
  field: key,
  says: `${label} ${told(value)}; ${because}.`,
  asTyped: `It is ${told(value)}`,
  probably: likely === null ? null : { text: told(likely), reading: { ...reading, [key]: likely } },
});

function flowSlips(system: System, reading: Reading, near: readonly Reading[]): (Doubt | null)[] {
  const usual = {
    productLPerH: usualOf(
      near.flatMap(({ productLPerH }) => productLPerH ?? []),
      null,
      FREE_LN,
    ),
    wasteLPerH: usualOf(
      near.flatMap(({ wasteLPerH }) => wasteLPerH ?? []),
      null,
      FREE_LN,
    ),
  };
  const told = (value: number): string => formatQuantity(value, 'flowLPerH', system.units).text;
  const [product, waste] = [reading.productLPerH, reading.wasteLPerH];
  const [a, b] = [usual.productLPerH, usual.wasteLPerH];
  if (product && waste && a && b && off(product, a) > a.free && off(product, b) < NEAR_LN && off(waste, a) < NEAR_LN)
    return [
      {
        field: 'productLPerH',
        says: `Product ${told(product)} and waste ${told(waste)}: around then it was the other way round.`,
        asTyped: 'It is so',
        probably: { text: 'Change the two', reading: { ...reading, productLPerH: waste, wasteLPerH: product } },
      },
    ];
  return (['productLPerH', 'wasteLPerH'] as const).map((key) => {
    const [value, own] = [reading[key], usual[key]];
    if (!value || !own || off(value, own) <= own.free) return null;
    const label = key === 'productLPerH' ? 'Product' : 'Waste';
    return doubt(reading, key, label, value, meant(value, own), told, `it was ${rangeText(told(own.low), told(own.high))} around then`);
  });
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
  const { meter } = system.train;
  if (meter.counts === 'down') {
    if (!before || isCountedDown(value, before.meterL!, meter)) return null;
    const set = meter.setToL === null ? '' : ` and is set to ${told(meter.setToL)}`;
    return doubt(reading, 'meterL', 'Product meter', value, null, told, `it counts down${set}; before it read ${told(before.meterL!)}`);
  }
  // Behind its last figure it begins again.
  if (before && meter.rollsOverL !== null && value < before.meterL! && before.meterL! > 0.8 * meter.rollsOverL) return null;
  const fits = (litres: number): boolean => (!before || litres >= before.meterL!) && (!after || litres <= after.meterL!);
  const days = before ? (at - Date.parse(before.at)) / DAY_MS : 0;
  const most = before
    ? before.meterL! + METER_AHEAD * Math.max(1, days) * Math.max(1, productLPerDay(system.goal), usedPerDay(metered, at))
    : Infinity;
  if (fits(value) && value <= most) return null;
  const likely = [value * 10, value / 10, value * 100, value / 100, ...digitSlips(value), before ? leading(before.meterL!, value) : value]
    .filter((one) => fits(one) && one <= most && one !== value)
    .sort((a, b) => a - b)[0];
  const [bound, way] =
    before && value < before.meterL! ? [before, 'less'] : after && value > after.meterL! ? [after, 'more'] : [before!, 'far more'];
  return doubt(
    reading,
    'meterL',
    'Product meter',
    value,
    likely ?? null,
    told,
    `${way} than the ${told(bound.meterL!)} of the reading ${bound === after ? 'after' : 'before'} it`,
  );
}

/** Litres a day between the two meter readings before an instant. */
function usedPerDay(metered: readonly Reading[], at: number): number {
  const [first, last] = metered
    .filter((one) => Date.parse(one.at) <= at)
    .slice(-5)
    .reduce<[Reading?, Reading?]>(([a], one) => [a ?? one, one], []);
  const days = first && last ? (Date.parse(last.at) - Date.parse(first.at)) / DAY_MS : 0;
  return days > 0 ? (last!.meterL! - first!.meterL!) / days : 0;
}

/** A total whose leading digits were left out: 23 for 5,223. */
function leading(before: number, value: number): number {
  const size = 10 ** Math.ceil(Math.log10(Math.max(1, value) + 1));
  const filled = Math.floor(before / size) * size + value;
  return filled >= before ? filled : filled + size;
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
