import type { Reading, System } from '../file';
import { median, normalCumulative, normalSpread } from '../numeric';
import { inletBar } from '../train';
import { ec25FromReading } from '../water';
import { inOrder } from './series';

/** What a figure of a reading is expected to be by the readings around it, for `slips.ts` to hold it against (science of logs, 8). */

/** A figure of a reading, by what it is of. */
export type FigureKey = 'pressureBar' | 'temperatureC' | 'productLPerH' | 'wasteLPerH' | 'meterL';
export type FigureOf = Exclude<FigureKey, 'meterL'> | `probe:${string}`;

/** One way a figure may come about: about a middle (ln, or °C as it is), give or take. */
export interface Component {
  readonly middle: number;
  readonly sd: number;
  readonly weight: number;
}

/** What a figure may be: ways it may come about, and how it was read around then, for words. */
export interface Expected {
  readonly components: readonly Component[];
  /** Step of the meter in the figure's own unit; 0 of what is read finely. */
  readonly step: number;
  readonly low: number;
  readonly high: number;
  readonly count: number;
  readonly planned: boolean;
}

/** Readings before and after that a figure is held against. */
const BEFORE = 8;
const AFTER = 5;
/** Scatter of a figure from one reading to the next, ln; of temperature in °C. */
const SCATTER = { tap: 0.07, probe: 0.1, product: 0.6, pressureBar: 0.07, productLPerH: 0.09, wasteLPerH: 0.08, temperatureC: 2 } as const;
/** How the flows go with pressure and temperature between two readings. */
const FLOW = { productLPerH: { power: 1, perC: 0.028 }, wasteLPerH: { power: 0.55, perC: 0.002 } } as const;
/** Readings of this factor beyond the middle are a level of their own: another town, another well. */
const LEVEL_LN = 0.3;
const WEIGHT = { middle: 0.6, last: 0.2, next: 0.2, levels: 0.25, ratio: 0.4, season: 0.1, firstSeason: 0.6 } as const;

/** The readings nearest in time that count, oldest first, those before and those after. */
export function around(
  reading: Reading,
  others: readonly Reading[],
): { readonly before: readonly Reading[]; readonly after: readonly Reading[] } {
  const at = Date.parse(reading.at);
  const own = inOrder(others).filter(({ id }) => id !== reading.id);
  return {
    before: own.filter((one) => Date.parse(one.at) <= at).slice(-BEFORE),
    after: own.filter((one) => Date.parse(one.at) > at).slice(0, AFTER),
  };
}

/** What a probe showed in a reading, on the meter that is read now; undefined where it was not read. */
export const shownAt = (one: Reading, probeId: string, instrumentId: string): number | undefined =>
  one.values.find((value) => value.probeId === probeId && value.instrumentId === instrumentId)?.shown;

/** What is expected of one figure of a reading; null where nothing tells. */
export function expectedOf(system: System, reading: Reading, near: ReturnType<typeof around>, of: FigureOf): Expected | null {
  if (of.startsWith('probe:')) return probeExpected(system, reading, near, of.slice('probe:'.length));
  const key = of as Exclude<FigureKey, 'meterL'>;
  const values = (list: readonly Reading[]): number[] => list.flatMap((one) => adjusted(one, reading, key) ?? []);
  const [before, after] = [values(near.before), values(near.after)];
  const all = [...before, ...after];
  if (key === 'temperatureC') return temperatureExpected(system, all, before, after);
  const planned = key === 'pressureBar' && system.train.gauge === 'line' ? inletBar(system.source) : null;
  return logExpected(
    all.filter((v) => v > 0),
    before,
    after,
    SCATTER[key],
    0,
    planned,
    [],
  );
}

/** A figure of another reading as it would be in this one's hour: flows go with pressure and temperature. */
function adjusted(one: Reading, here: Reading, key: Exclude<FigureKey, 'meterL'>): number | null {
  const value = one[key];
  if (value === null || (key !== 'productLPerH' && key !== 'wasteLPerH')) return value;
  const { power, perC } = FLOW[key];
  const bar = one.pressureBar && here.pressureBar ? here.pressureBar / one.pressureBar : 1;
  const degrees = one.temperatureC !== null && here.temperatureC !== null ? here.temperatureC - one.temperatureC : 0;
  // What itself looks like a slip moves nothing.
  return value * (bar > 0.6 && bar < 1.6 ? bar ** power : 1) * (Math.abs(degrees) < 12 ? Math.exp(perC * degrees) : 1);
}

function temperatureExpected({ source }: System, all: readonly number[], before: readonly number[], after: readonly number[]): Expected {
  const { lowestTemperatureC: low, highestTemperatureC: high } = source.season;
  const season = { middle: (low + high) / 2, sd: (high - low) / 3 + 2.5, weight: all.length === 0 ? 1 : WEIGHT.season };
  if (all.length === 0) return { components: [season], step: 0, low, high, count: 0, planned: true };
  const last = before.at(-1);
  const next = after[0];
  return {
    components: [
      { middle: median(all), sd: SCATTER.temperatureC * 1.5, weight: WEIGHT.middle },
      ...(last === undefined ? [] : [{ middle: last, sd: SCATTER.temperatureC, weight: WEIGHT.last }]),
      ...(next === undefined ? [] : [{ middle: next, sd: SCATTER.temperatureC, weight: WEIGHT.next }]),
      season,
    ],
    step: 0,
    low: Math.min(...all),
    high: Math.max(...all),
    count: all.length,
    planned: false,
  };
}

function logExpected(
  all: readonly number[],
  before: readonly number[],
  after: readonly number[],
  scatter: number,
  step: number,
  planned: number | null,
  further: readonly Component[],
): Expected | null {
  const least = step > 0 ? 0.3 * step : 1e-9;
  const ln = (value: number): number => Math.log(Math.max(least, value));
  if (all.length === 0) {
    if (planned === null && further.length === 0) return null;
    const plan = planned === null ? [] : [{ middle: Math.log(planned), sd: 0.18, weight: 1 }];
    return { components: [...plan, ...further], step, low: planned ?? 0, high: planned ?? 0, count: 0, planned: true };
  }
  const logs = all.map(ln);
  const middle = median(logs);
  const near = logs.filter((value) => Math.abs(value - middle) <= LEVEL_LN);
  const spread = near.length > 0 ? normalSpread(near.map((value) => Math.abs(value - middle))) : 0;
  // One reading says less of the next than many do.
  const sd = Math.max(scatter, spread) * (all.length < 3 ? 1.5 : 1);
  const levels = logs.filter((value) => Math.abs(value - middle) > LEVEL_LN);
  const [last, next] = [before.at(-1), after[0]];
  return {
    components: [
      { middle, sd, weight: WEIGHT.middle },
      ...(last === undefined ? [] : [{ middle: ln(last), sd, weight: WEIGHT.last }]),
      ...(next === undefined ? [] : [{ middle: ln(next), sd, weight: WEIGHT.next }]),
      // A level that was met before may come again.
      ...levels.map((value) => ({ middle: value, sd: scatter, weight: WEIGHT.levels / levels.length })),
      ...(planned === null ? [] : [{ middle: Math.log(planned), sd: 0.25, weight: 0.05 }]),
      ...further,
    ],
    step,
    low: Math.min(...all),
    high: Math.max(...all),
    count: all.length,
    planned: false,
  };
}

function probeExpected(system: System, reading: Reading, near: ReturnType<typeof around>, probeId: string): Expected | null {
  const value = reading.values.find((one) => one.probeId === probeId);
  const instrument = system.instruments.find(({ id }) => id === value?.instrumentId);
  const at = system.train.probes.findIndex(({ id }) => id === probeId);
  if (!value || !instrument || at < 0) return null;
  const shown = (list: readonly Reading[]): number[] => list.flatMap((one) => shownAt(one, probeId, value.instrumentId) ?? []);
  const [before, after] = [shown(near.before), shown(near.after)];
  if (isProduct(system, probeId)) return productExpected(before, after, instrument.resolution, strongestBefore(near, probeId));
  const tap = system.train.probes[at]!.after === 'tap';
  // Until a few readings are there, what is planned of the supply's year says most.
  const further = tap ? supplyRange(system, instrument, before.length + after.length < 4 ? WEIGHT.firstSeason : WEIGHT.season) : [];
  const together = ratioTo(system, reading, near, probeId);
  return logExpected([...before, ...after], before, after, tap ? SCATTER.tap : SCATTER.probe, instrument.resolution, null, [
    ...further,
    ...(together ? [together] : []),
  ]);
}

/** Whether a probe is behind resin, where a reading may rise at any time. */
export function isProduct({ train }: System, probeId: string): boolean {
  const probe = train.probes.find(({ id }) => id === probeId);
  const first = train.stages.findIndex(({ kind }) => kind === 'resin');
  const at = train.stages.findIndex(({ id }) => id === probe?.after);
  return first >= 0 && at >= first;
}

/** The strongest any other probe usually reads: no resin lets more through. */
const strongestBefore = (near: ReturnType<typeof around>, probeId: string): number =>
  Math.max(
    ...[...near.before, ...near.after].flatMap(({ values }) => values.filter((one) => one.probeId !== probeId).map(({ shown }) => shown)),
    1,
  );

/** How wide a product scatters about its floor, and how widely it may rise. */
const PRODUCT = { sd: 0.5, riseSd: 1.6, rises: 0.12, hasRisen: 0.8 } as const;

/** What is read behind a resin: its floor, or anything on the way up to what comes in. */
function productExpected(before: readonly number[], after: readonly number[], step: number, strongest: number): Expected | null {
  const all = [...before, ...after];
  if (all.length === 0) return null;
  const ln = (value: number): number => Math.log(Math.max(0.3 * step, value));
  const floor = median(all.map(ln));
  const last = before.at(-1);
  const risen = [last, after[0]].some((value) => value !== undefined && ln(value) > floor + LEVEL_LN);
  return {
    components: [
      { middle: floor, sd: PRODUCT.sd, weight: WEIGHT.middle },
      ...(last === undefined ? [] : [{ middle: ln(last), sd: PRODUCT.sd, weight: WEIGHT.last }]),
      ...(after[0] === undefined ? [] : [{ middle: ln(after[0]), sd: PRODUCT.sd, weight: WEIGHT.next }]),
      {
        middle: Math.min(floor + 2.2, (floor + Math.log(strongest)) / 2),
        sd: PRODUCT.riseSd,
        weight: risen ? PRODUCT.hasRisen : PRODUCT.rises,
      },
    ],
    step,
    low: Math.min(...all),
    high: Math.max(...all),
    count: all.length,
    planned: false,
  };
}

/** Strength of the supply over its year, as a meter of this scale shows it. */
function supplyRange({ source }: System, { scale }: System['instruments'][number], weight: number): Component[] {
  const { weakestUScm, strongestUScm } = source.season;
  const per = ec25FromReading(100, scale);
  if (weakestUScm === null || strongestUScm === null || !per.ok || !(per.value > 0)) return [];
  const [low, high] = [weakestUScm, strongestUScm].map((uScm) => Math.log((100 * uScm) / per.value)) as [number, number];
  return [{ middle: (low + high) / 2, sd: Math.max(0.1, (high - low) / 2.5), weight }];
}

/**
 * What a probe would show if it had gone with its neighbour: a supply that changed moves the tap and what comes through
 * the membrane alike, a slip moves one of them.
 */
function ratioTo(system: System, reading: Reading, near: ReturnType<typeof around>, probeId: string): Component | null {
  const probes = system.train.probes;
  const at = probes.findIndex(({ id }) => id === probeId);
  const other = probes[at === 0 ? 1 : at - 1];
  const here = reading.values.find((one) => one.probeId === other?.id);
  const own = reading.values.find((one) => one.probeId === probeId);
  // Behind a resin nothing goes with what comes before.
  const membrane = system.train.stages.some(({ kind }) => kind === 'membrane');
  if (!other || !here || !own || !membrane || at > 1 || here.shown <= 0) return null;
  const ratios = [...near.before, ...near.after].flatMap((one) => {
    const [mine, theirs] = [shownAt(one, probeId, own.instrumentId), shownAt(one, other.id, here.instrumentId)];
    return mine !== undefined && theirs !== undefined && mine > 0 && theirs > 0 ? [Math.log(mine / theirs)] : [];
  });
  if (ratios.length === 0) return null;
  return { middle: median(ratios) + Math.log(here.shown), sd: 0.15, weight: WEIGHT.ratio };
}

/**
 * Chance that a figure shows as it does, up to a constant: of a meter that shows in steps the chance of that step, of what
 * is read finely the density.
 */
export function chanceOf(expected: Expected, value: number, linear = false): number {
  const total = expected.components.reduce((sum, { weight }) => sum + weight, 0);
  return expected.components.reduce(
    (sum, component) => sum + (component.weight / total) * ofOne(component, value, expected.step, linear),
    0,
  );
}

function ofOne({ middle, sd }: Component, value: number, step: number, linear: boolean): number {
  if (linear) return Math.exp(-0.5 * ((value - middle) / sd) ** 2) / sd;
  if (step > 0) {
    const [low, high] = [value - step / 2, value + step / 2];
    const below = low > 0 ? normalCumulative((Math.log(low) - middle) / sd) : 0;
    return Math.max(1e-30, normalCumulative((Math.log(high) - middle) / sd) - below);
  }
  return value > 0 ? Math.exp(-0.5 * ((Math.log(value) - middle) / sd) ** 2) / sd : 0;
}

/** Chance that a figure really changed to this: anything about as likely over a wide range (8). */
export function chanceChanged(expected: Expected, value: number, linear = false): number {
  const middle = expected.components[0]!.middle;
  return ofOne({ middle, sd: linear ? 12 : 1, weight: 1 }, value, expected.step, linear);
}
