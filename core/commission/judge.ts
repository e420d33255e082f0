import { formatIn, formatQuantity, formatWithDoubt, shownUnit, type UnitPreference } from '../quantity';
import type { Measure } from '../stage';

/** How a figure stands to what was expected of it. */
export interface Verdict {
  /** 'kept' where nothing was expected. */
  readonly verdict: 'fits' | 'low' | 'high' | 'kept';
  /** What was expected, in a line: "0.1 µS/cm expected, at most 2". */
  readonly expected: string;
  /** The figure with its doubt. */
  readonly read: string;
  /** What to do about it; empty where it fits. */
  readonly advice: string;
}

/** One standard deviation of a figure read by such an instrument. */
export const doubtOf = ({ doubt }: Pick<Measure, 'doubt'>, value: number): number =>
  doubt ? Math.max(doubt.least, doubt.share * Math.abs(value)) : 0;

const show = (measure: Measure, value: number, units: UnitPreference): string =>
  measure.dimension === 'seen'
    ? value === 1
      ? 'yes'
      : 'no'
    : measure.unit
      ? formatIn(value, measure.dimension, measure.unit, units.ppmFactor).text
      : formatQuantity(value, measure.dimension, units).text;

/** What is expected of a measure, in words; empty where nothing is. */
export function expectedText(measure: Measure, units: UnitPreference): string {
  const { expected, low, high, dimension } = measure;
  if (dimension === 'seen') return '';
  const text = (value: number): string => show(measure, value, units);
  const range =
    low !== null && high !== null
      ? `${text(low)} to ${text(high)}`
      : high !== null
        ? `at most ${text(high)}`
        : low !== null
          ? `at least ${text(low)}`
          : '';
  if (expected === null) return range;
  return range === '' ? `${text(expected)} expected` : `${text(expected)} expected, ${range}`;
}

/**
 * Holds what was read against what was expected: outside its bounds by more than one standard deviation of the
 * instrument it is low or high.
 *
 * @param value in the measure's canonical unit; 1 and 0 for what is seen or not
 */
export function judge(measure: Measure, value: number, units: UnitPreference): Verdict {
  const { low, high } = measure;
  const sigma = doubtOf(measure, value);
  const verdict =
    low === null && high === null
      ? 'kept'
      : low !== null && value + sigma < low
        ? 'low'
        : high !== null && value - sigma > high
          ? 'high'
          : 'fits';
  const read =
    sigma > 0 && measure.dimension !== 'seen'
      ? formatWithDoubt(value, sigma, measure.dimension, measure.unit ?? shownUnit(measure.dimension, units), units.ppmFactor)
      : show(measure, value, units);
  return {
    verdict,
    expected: expectedText(measure, units),
    read,
    advice: verdict === 'low' ? (measure.ifLow ?? '') : verdict === 'high' ? (measure.ifHigh ?? '') : '',
  };
}
