import { DAY_MS } from '../quantity';
import { between, firstFrom, joinedSamples, middleOf, NO_SAMPLES, type Samples } from './samples';

/**
 * How finely a stretch of a recording is kept: a file whole, and of what comes over the air everything for a day, one
 * figure a minute for a month, one an hour for ever.
 */
export type Tier = 'kept' | 'every' | 'minute' | 'hour';

const MINUTE_MS = 60_000;
const HOUR_MS = 3_600_000;
/** Length of a block, ms: small where it is written to every few seconds. None is longer than 49 days, for 32 bits. */
const BLOCK_MS: Readonly<Record<Tier, number>> = { kept: 30 * DAY_MS, every: HOUR_MS, minute: DAY_MS, hour: 30 * DAY_MS };
const STEP_MS = { minute: MINUTE_MS, hour: HOUR_MS } as const;

/** A stretch of one meter's recording, packed. */
export interface Block {
  readonly tier: Tier;
  /** Where it begins, ms; instants in it count from there. */
  readonly startMs: number;
  readonly at: Uint32Array;
  /** The figure itself, or the middle one of a minute or an hour; of a total the last one. */
  readonly value: Float64Array;
  /** Lowest, highest and number of what stands behind a minute or an hour; null where every figure is here. */
  readonly low: Float64Array | null;
  readonly high: Float64Array | null;
  readonly count: Uint32Array | null;
}

/** Where the block of a tier begins that holds an instant. */
export const blockStart = (tier: Tier, ms: number): number => Math.floor(ms / BLOCK_MS[tier]) * BLOCK_MS[tier];

/** Where a block ends, ms. */
export const blockEnd = ({ tier, startMs }: Pick<Block, 'tier' | 'startMs'>): number => startMs + BLOCK_MS[tier];

/** Samples cut into blocks. */
export function blocksOf(tier: 'kept' | 'every', samples: Samples): Block[] {
  const blocks: Block[] = [];
  for (let i = 0; i < samples.at.length;) {
    const startMs = blockStart(tier, samples.at[i]!);
    const until = firstFrom(samples.at, startMs + BLOCK_MS[tier]);
    blocks.push({
      tier,
      startMs,
      at: Uint32Array.from(samples.at.subarray(i, until), (at) => at - startMs),
      value: samples.value.slice(i, until),
      low: null,
      high: null,
      count: null,
    });
    i = until;
  }
  return blocks;
}

/** What blocks hold, in order of time; where two have an instant, the earlier block's stands. */
export function samplesOf(blocks: readonly Block[]): Samples {
  const own = [...blocks]
    .sort((a, b) => a.startMs - b.startMs)
    .map(({ startMs, at, value }): Samples => ({ at: Float64Array.from(at, (ms) => startMs + ms), value }));
  const apart = own.every(({ at }, i) => i === 0 || at.length === 0 || at[0]! > (own[i - 1]!.at.at(-1) ?? -Infinity));
  if (!apart) return own.reduce(joinedSamples, NO_SAMPLES);
  const size = own.reduce((sum, { at }) => sum + at.length, 0);
  const all = { at: new Float64Array(size), value: new Float64Array(size) };
  own.reduce((n, { at, value }) => {
    all.at.set(at, n);
    all.value.set(value, n);
    return n + at.length;
  }, 0);
  return all;
}

/** A coarser tier of what blocks hold. @param total whether the figure is a total, of which the last one stands */
export function rolledUp(blocks: readonly Block[], tier: 'minute' | 'hour', total: boolean): Block[] {
  const ordered = [...blocks].sort((a, b) => a.startMs - b.startMs);
  const step = STEP_MS[tier];
  const rolled = new Map<number, { at: number[]; value: number[]; low: number[]; high: number[]; count: number[] }>();
  const samples = samplesOf(ordered);
  /** Lows, highs and counts in the order of the samples, where the blocks have them. */
  const behind = ordered.some(({ count }) => count !== null)
    ? ordered.flatMap(({ value, low, high, count }) =>
        [...value].map((one, i) => ({ low: low?.[i] ?? one, high: high?.[i] ?? one, count: count?.[i] ?? 1 })),
      )
    : null;
  for (let i = 0; i < samples.at.length;) {
    const from = Math.floor(samples.at[i]! / step) * step;
    const until = firstFrom(samples.at, from + step);
    const values = samples.value.subarray(i, until);
    const startMs = blockStart(tier, from);
    const into = rolled.get(startMs) ?? { at: [], value: [], low: [], high: [], count: [] };
    rolled.set(startMs, into);
    const own = behind?.slice(i, until);
    into.at.push(from - startMs);
    into.value.push(total ? values.at(-1)! : middleOf(values));
    into.low.push(own ? Math.min(...own.map(({ low }) => low)) : least(values, 1));
    into.high.push(own ? Math.max(...own.map(({ high }) => high)) : -least(values, -1));
    into.count.push(own ? own.reduce((sum, { count }) => sum + count, 0) : values.length);
    i = until;
  }
  return [...rolled].map(([startMs, { at, value, low, high, count }]) => ({
    tier,
    startMs,
    at: Uint32Array.from(at),
    value: Float64Array.from(value),
    low: Float64Array.from(low),
    high: Float64Array.from(high),
    count: Uint32Array.from(count),
  }));
}

/** Two blocks of one tier and stretch as one. Of a minute or an hour in both, the one with more behind it stands. */
export function joinedBlock(first: Block, second: Block): Block {
  if (first.count === null || second.count === null) {
    const { at, value } = joinedSamples(samplesOf([first]), samplesOf([second]));
    return { ...first, at: Uint32Array.from(at, (ms) => ms - first.startMs), value };
  }
  const places = new Map<number, readonly [Block, number]>();
  for (const block of [first, second])
    block.at.forEach((at, i) => {
      const there = places.get(at);
      if (!there || block.count![i]! > there[0].count![there[1]]!) places.set(at, [block, i]);
    });
  const order = [...places.keys()].sort((a, b) => a - b).map((at) => places.get(at)!);
  const packed = (of: (block: Block) => Float64Array): Float64Array => Float64Array.from(order, ([block, i]) => of(block)[i]!);
  return {
    ...first,
    at: Uint32Array.from(order, ([block, i]) => block.at[i]!),
    value: packed(({ value }) => value),
    low: packed(({ low }) => low!),
    high: packed(({ high }) => high!),
    count: Uint32Array.from(order, ([block, i]) => block.count![i]!),
  };
}

/** The least of packed figures times a sign. */
function least(values: Float64Array, sign: 1 | -1): number {
  let low = Infinity;
  for (const value of values) low = Math.min(low, sign * value);
  return low;
}

/**
 * A recording as a line on a screen: of each stretch of time its lowest and its highest figure, so that no spike is lost.
 *
 * @param stretches into how many the time is cut
 */
export function trace(samples: Samples, fromMs: number, untilMs: number, stretches: number): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  const { at, value } = between(samples, fromMs, untilMs);
  if (at.length <= 2 * stretches) {
    at.forEach((x, i) => points.push({ x, y: value[i]! }));
    return points;
  }
  const wide = (untilMs - fromMs) / stretches;
  for (let i = 0; i < at.length;) {
    const until = firstFrom(at, fromMs + (Math.floor((at[i]! - fromMs) / wide) + 1) * wide);
    const end = Math.max(until, i + 1);
    let [low, high] = [i, i];
    for (let k = i; k < end; k++) {
      if (value[k]! < value[low]!) low = k;
      if (value[k]! > value[high]!) high = k;
    }
    for (const k of low === high ? [low] : [Math.min(low, high), Math.max(low, high)]) points.push({ x: at[k]!, y: value[k]! });
    i = end;
  }
  return points;
}
