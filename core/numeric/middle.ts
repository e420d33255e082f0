/** The middle value of a list; of an even number the mean of the two in the middle. NaN of an empty list. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return sorted.length % 2 === 1 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** The mean of a list; NaN of an empty one. */
export const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Standard deviation of a normal scatter about 0 whose absolute values have such a middle: outliers hardly move it. */
export const normalSpread = (absolute: readonly number[]): number => 1.4826 * median(absolute);

/** Standard deviation of a normal scatter whose middle absolute deviation a list has. */
export function middleSpread(values: readonly number[]): number {
  const middle = median(values);
  return normalSpread(values.map((value) => Math.abs(value - middle)));
}
