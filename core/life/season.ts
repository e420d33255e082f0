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
