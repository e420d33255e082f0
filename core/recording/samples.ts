import { median } from '../numeric';

/** What a meter gave over time, in order of time: instants in ms, and a figure for each. */
export interface Samples {
  readonly at: Float64Array;
  readonly value: Float64Array;
}

export const NO_SAMPLES: Samples = { at: new Float64Array(0), value: new Float64Array(0) };

/** Index of the first instant that is not before a moment. */
export function firstFrom(at: ArrayLike<number>, ms: number): number {
  let low = 0;
  let high = at.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (at[middle]! < ms) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Samples from one moment up to another, the end left out; a view, nothing is copied. */
export function between({ at, value }: Samples, fromMs: number, untilMs: number): Samples {
  const from = firstFrom(at, fromMs);
  const until = firstFrom(at, untilMs);
  return { at: at.subarray(from, until), value: value.subarray(from, until) };
}

/** Some of the samples, by their places. */
export const picked = (
  { at, value }: { readonly at: ArrayLike<number>; readonly value: ArrayLike<number> },
  places: readonly number[],
): Samples => ({
  at: Float64Array.from(places, (i) => at[i]!),
  value: Float64Array.from(places, (i) => value[i]!),
});

/** Samples as they came, put in order of time; of the same instant the one that came first stands. */
export function ordered(at: ArrayLike<number>, value: ArrayLike<number>): Samples {
  let inOrder = true;
  for (let i = 1; i < at.length && inOrder; i++) inOrder = at[i]! > at[i - 1]!;
  if (inOrder) return { at: Float64Array.from(at), value: Float64Array.from(value) };
  const order = Array.from({ length: at.length }, (_, i) => i)
    .sort((a, b) => at[a]! - at[b]! || a - b)
    .filter((place, i, all) => i === 0 || at[all[i - 1]!]! !== at[place]!);
  return picked({ at, value }, order);
}

/** Two recordings of one meter as one; where both have an instant, the first stands. */
export function joinedSamples(first: Samples, second: Samples): Samples {
  if (first.at.length === 0) return second;
  if (second.at.length === 0) return first;
  const most = first.at.length + second.at.length;
  const at = new Float64Array(most);
  const value = new Float64Array(most);
  let [i, k, n] = [0, 0, 0];
  while (i < first.at.length || k < second.at.length) {
    const a = first.at[i] ?? Infinity;
    const b = second.at[k] ?? Infinity;
    const takes = a <= b;
    at[n] = takes ? a : b;
    value[n++] = takes ? first.value[i]! : second.value[k]!;
    if (takes) i++;
    if (b <= a) k++;
  }
  return { at: at.slice(0, n), value: value.slice(0, n) };
}

/** What of samples is not there already, by instant. */
export function without(samples: Samples, there: Samples): Samples {
  const kept: number[] = [];
  let k = 0;
  for (let i = 0; i < samples.at.length; i++) {
    while (k < there.at.length && there.at[k]! < samples.at[i]!) k++;
    if (there.at[k] !== samples.at[i]) kept.push(i);
  }
  return kept.length === samples.at.length ? samples : picked(samples, kept);
}

/** The middle value of packed figures; NaN of none. Sorting packed figures is several times faster than a list. */
export function middleOf(values: Float64Array): number {
  if (values.length < 8) return median([...values]);
  const sorted = values.slice().sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
