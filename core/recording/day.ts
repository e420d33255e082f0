import { NOTHING_SAID, type Reading, type System } from '../file';
import { DAY_MS } from '../quantity';
import { canBe, probeOf, type Channel, type Figure } from './channel';
import { between, middleOf, NO_SAMPLES, picked, type Samples } from './samples';

/** A day of a recording in one figure a channel: what the log counts with. */
export interface RecordedDay {
  /** Days since 1970 by universal time: the same grid wherever the device is carried. */
  readonly day: number;
  /** The middle instant of what is behind it, ms. */
  readonly at: number;
  /** Figures behind it, of all channels. */
  readonly count: number;
  readonly figures: readonly (readonly [channel: Channel, value: number])[];
}

/** The unit runs while its flow is at least this share of what it usually is. */
const RUNNING_SHARE = 0.3;
/** A flow says whether the unit ran for so long after it was read, and for a look at all meters that came just before, ms. */
const FLOW_HOLDS_MS = 15 * 60_000;
const ONE_LOOK_MS = 30_000;

/** Litres between two totals over time, as a flow: a unit without a flow meter still shows by its total when it ran. */
function flowOfTotal({ at, value }: Samples): Samples {
  const flow = Float64Array.from(at, (ms, i) => {
    const hours = i === 0 ? 0 : (ms - at[i - 1]!) / 3_600_000;
    return hours > 0 ? Math.max(0, value[i]! - value[i - 1]!) / hours : 0;
  });
  // What passed up to a total was flowing since the one before it.
  return { at: Float64Array.from(at, (ms, i) => (i === 0 ? ms : Math.max(at[i - 1]!, ms - FLOW_HOLDS_MS))), value: flow };
}

/** What tells whether water was made: a flow, else the product's total; nothing where neither is recorded. */
function flowIn(channels: ReadonlyMap<Channel, Samples>): Samples {
  for (const channel of ['productLPerH', 'wasteLPerH'] as const) {
    const flow = channels.get(channel);
    if (flow && flow.at.length > 0) return flow;
  }
  const total = channels.get('meterL');
  return total && total.at.length > 1 ? flowOfTotal(total) : NO_SAMPLES;
}

/** Which samples were taken while the unit ran. */
function whileRunning(samples: Samples, flow: Samples, least: number): Samples {
  const kept: number[] = [];
  let k = -1;
  for (let i = 0; i < samples.at.length; i++) {
    while (k + 1 < flow.at.length && flow.at[k + 1]! <= samples.at[i]! + ONE_LOOK_MS) k++;
    if (k >= 0 && samples.at[i]! - flow.at[k]! <= FLOW_HOLDS_MS && flow.value[k]! >= least) kept.push(i);
  }
  return picked(samples, kept);
}

/**
 * A recording day by day: of each channel the middle figure while the unit ran, where a flow tells of that; of a total
 * the last one. A spike and a meter out of its water do not move a middle figure, and what was seen at rest is in none: a
 * day on which nothing flowed has its total alone.
 *
 * @param usualLPerH what flows while it runs, where more is known of that than these channels hold
 */
export function recordedDays(channels: ReadonlyMap<Channel, Samples>, usualLPerH = 0): RecordedDay[] {
  const all = [...channels].filter(([, { at }]) => at.length > 0);
  if (all.length === 0) return [];
  const first = Math.floor(Math.min(...all.map(([, { at }]) => at[0]!)) / DAY_MS);
  const last = Math.floor(Math.max(...all.map(([, { at }]) => at.at(-1)!)) / DAY_MS);
  const days: RecordedDay[] = [];
  const flow = flowIn(channels);
  // Half of a day's best still runs where the water is cold; a trickle of a whole day does not.
  const usual = Math.max(usualLPerH, flow.at.length > 0 ? highOf(flow.value) : 0);
  for (let day = first; day <= last; day++) {
    const own = all.map(([channel, samples]) => [channel, between(samples, day * DAY_MS, (day + 1) * DAY_MS)] as const);
    const count = own.reduce((sum, [, { at }]) => sum + at.length, 0);
    if (count === 0) continue;
    const ofDay = between(flow, day * DAY_MS, (day + 1) * DAY_MS);
    const tells = flow.at.length > 0;
    // A unit that makes less in winter than in summer is held to its own day, where that is a run at all.
    const best = ofDay.at.length > 0 ? highOf(ofDay.value) : 0;
    const least = RUNNING_SHARE * (best >= RUNNING_SHARE * usual ? best : usual);
    const told = own.map(([channel, samples]) => {
      const counted = channel === 'meterL' || !tells ? samples : least > 0 ? whileRunning(samples, ofDay, least) : NO_SAMPLES;
      return [channel, counted] as const;
    });
    const figures = told.flatMap(([channel, { value }]): (readonly [Channel, number])[] => {
      if (value.length === 0) return [];
      const figure = channel === 'meterL' ? value.at(-1)! : middleOf(value);
      return canBe(channel, figure) ? [[channel, Number(figure.toPrecision(7))]] : [];
    });
    if (figures.length === 0) continue;
    const times = told.filter(([channel, { at }]) => channel !== 'meterL' && at.length > 0).map(([, { at }]) => at);
    const counting = times.length > 0 ? times : own.filter(([, { at }]) => at.length > 0).map(([, { at }]) => at);
    const longest = counting.reduce((most, at) => (at.length > most.length ? at : most));
    days.push({ day, at: longest[longest.length >> 1]!, count, figures });
  }
  return days;
}

/** What a flow usually is while it flows: the figure that one in ten is above. */
function highOf(values: Float64Array): number {
  const sorted = values.slice().sort();
  return sorted[Math.floor(0.9 * (sorted.length - 1))]!;
}

/** Days of one recording and those of a later one, of which a day that is in both is taken from the later. */
export function joinedDays(before: readonly RecordedDay[], later: readonly RecordedDay[]): RecordedDay[] {
  const days = new Map(before.map((one) => [one.day, one]));
  for (const one of later) days.set(one.day, one);
  return [...days.values()].sort((a, b) => a.day - b.day);
}

const ID = 'recorded-';
/** Whether a reading stands for a day of a recording: nobody typed it, and nobody edits it. */
export const isRecorded = ({ id }: Pick<Reading, 'id'>): boolean => id.startsWith(ID);

/**
 * A day of a recording as a reading of the log.
 *
 * @param instruments the instrument that stood at each probe when it was recorded, by probe
 */
export function readingOfDay(
  system: Pick<System, 'id'>,
  recordingId: string,
  { day, at, figures }: RecordedDay,
  instruments: Readonly<Record<string, string>>,
): Reading {
  const figure = (of: Figure): number | null => figures.find(([channel]) => channel === of)?.[1] ?? null;
  return {
    id: `${ID}${recordingId}-${day}`,
    systemId: system.id,
    at: new Date(at).toISOString(),
    values: figures.flatMap(([channel, shown]) => {
      const probeId = probeOf(channel);
      const instrumentId = probeId === null ? undefined : instruments[probeId];
      return probeId !== null && instrumentId !== undefined ? [{ probeId, instrumentId, shown }] : [];
    }),
    pressureBar: figure('pressureBar'),
    temperatureC: figure('temperatureC'),
    productLPerH: figure('productLPerH'),
    wasteLPerH: figure('wasteLPerH'),
    meterL: figure('meterL'),
    ...NOTHING_SAID,
  };
}
