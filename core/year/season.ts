import { DAYS_PER_YEAR } from '../quantity';

/** Something that goes up and down with the year: a cosine about its mean. */
export interface Season {
  readonly mean: number;
  readonly amplitude: number;
  /** Day of the year at which it is highest. */
  readonly highDay: number;
}
/** Its value at a time in days from the start of a year. */
export const seasonAt = ({ mean, amplitude, highDay }: Season, day: number): number =>
  mean + amplitude * Math.cos((2 * Math.PI * (day - highDay)) / DAYS_PER_YEAR);

/** Mean over the year of a function of a seasonal value: twelve even phases are exact to rounding for a smooth one (science of options, 3). */
export function yearMean(season: Pick<Season, 'mean' | 'amplitude'>, of: (value: number) => number): number {
  let sum = 0;
  for (let k = 0; k < 12; k++) sum += of(season.mean + season.amplitude * Math.cos((2 * Math.PI * k) / 12));
  return sum / 12;
}

/**
 * A smooth function over a range, tabulated at Chebyshev and Lobatto's nodes, both ends included, and read off by the
 * barycentric formula (Berrut and Trefethen 2004, recalled).
 *
 * @param count nodes, at least 2
 */
export function chebyshevTable(low: number, high: number, count: number, of: (x: number) => number): (x: number) => number {
  const nodes = Array.from({ length: count }, (_, k) => (low + high) / 2 - ((high - low) / 2) * Math.cos((k * Math.PI) / (count - 1)));
  const values = nodes.map(of);
  const weights = nodes.map((_, k) => (k % 2 === 0 ? 1 : -1) * (k === 0 || k === count - 1 ? 0.5 : 1));
  if (!(high > low)) return () => values[0]!;
  return (x) => {
    let [above, below] = [0, 0];
    for (let k = 0; k < count; k++) {
      const apart = x - nodes[k]!;
      if (apart === 0) return values[k]!;
      const share = weights[k]! / apart;
      above += share * values[k]!;
      below += share;
    }
    return above / below;
  };
}
