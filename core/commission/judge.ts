import { formatIn, formatQuantity, formatWithDoubt, shownUnit, type UnitPreference } from '../quantity';
import { behind, isSamePlace, type Measured, type System } from '../file';
import type { Today } from './expected';
import type { Measure, Step } from '../stage';

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

/** The probe that shows a figure: the one that is named, or the one behind the stage the step is done to. */
export function probeOf(
  { train }: Pick<System, 'train'>,
  step: Pick<Step, 'stageId'>,
  measure: Pick<Measure, 'id' | 'dimension'>,
): string | null {
  if (measure.dimension !== 'conductivityUScm') return null;
  const probe = train.probes.find(
    (one) => measure.id === `probe-${one.id}` || (step.stageId !== null && isSamePlace(one, behind(step.stageId))),
  );
  return probe?.id ?? null;
}

/** Units a figure is typed and told in: what a probe shows is in the scale of its own meter. */
export function unitsOfProbe({ units, train, instruments }: System, probeId: string | null): UnitPreference {
  const probe = train.probes.find(({ id }) => id === probeId);
  const scale = instruments.find(({ id }) => id === probe?.instrumentId)?.scale;
  if (!scale) return units;
  // Resistivity is told as the conductivity it is the inverse of: one scale for what was expected and what was read.
  return scale.kind === 'factor' ? { ...units, strength: 'ppm', ppmFactor: scale.factor } : { ...units, strength: 'µS/cm' };
}

/** A figure as it is kept: with what it is called, what was expected of it, and the pressure and temperature of the hour. */
export function measuredOf(system: System, step: Step, measure: Measure, value: number, at: string, today: Today): Measured {
  const { expected, low, high } = measure;
  return {
    step: step.id,
    title: step.title,
    measure: measure.id,
    label: measure.label,
    dimension: measure.dimension,
    unit: measure.unit ?? null,
    probeId: probeOf(system, step, measure),
    at,
    value,
    plusMinus: doubtOf(measure, value),
    expected,
    low,
    high,
    pressureBar: today.linePressureBar,
    temperatureC: today.temperatureC,
  };
}

/** What was kept of a figure, as the measure it was. */
export const measureOf = ({ measure, label, dimension, unit, expected, low, high, plusMinus }: Measured): Measure => ({
  id: measure,
  label,
  dimension,
  ...(unit !== null && { unit }),
  expected,
  low,
  high,
  doubt: { share: 0, least: plusMinus },
  because: '',
});

const show = (measure: Measure, value: number, units: UnitPreference): string =>
  measure.dimension === 'seen'
    ? value === 1
      ? 'yes'
      : 'no'
    : measure.unit
      ? formatIn(value, measure.dimension, measure.unit, units.ppmFactor).text
      : formatQuantity(value, measure.dimension, units).text;

/** A figure as it was read: with no digit more and no doubt beside it. */
export const readAs = (kept: Measured, units: UnitPreference): string => show(measureOf(kept), kept.value, units);

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
