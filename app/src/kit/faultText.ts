import { faultOf, KIND_WORDS, type Band, type KindId } from '@yes-clear/core/fault';
import { formatIn, formatQuantity, formatStrength, THIN, type UnitPreference } from '@yes-clear/core/quantity';

/** Figures of the search for faults in the units of the system. */

/** What a jug and a clock measure; more is read on a meter. */
const MOST_JUGGED_L_PER_H = 180;

/** A reading of a kind, as its meter would show it in these units. */
export function readingText(kind: KindId, value: number, units: UnitPreference): string {
  const { dimension, perUnit } = KIND_WORDS[kind];
  if (dimension === 'conductivityUScm') return formatStrength(value * perUnit, units).text;
  if (dimension === 'ratio' || dimension === 'count') return Number(value.toPrecision(2)).toString();
  if (dimension === 'flowLPerH' && value < MOST_JUGGED_L_PER_H) return formatIn(value, dimension, 'mL/min').text;
  return formatQuantity(value * perUnit, dimension, units).text;
}

/** A band as its middle and half its width, no finer than that. */
export function bandText(kind: KindId, { middle, low, high }: Band, units: UnitPreference): string {
  const half = (high - low) / 2;
  const text = readingText(kind, middle, units);
  const relative = middle > 0 ? half / middle : 0;
  if (!(relative > 0)) return text;
  const [, number, unit] = /^([\d.,\u2009\u202f]+)\s*(.*)$/u.exec(text) ?? [];
  if (number === undefined) return text;
  const plain = Number(number.replace(/[^\d.]/g, ''));
  const spread = plain * relative;
  const digits = spread >= 10 ? 0 : spread >= 1 ? 0 : spread >= 0.1 ? 1 : 2;
  return `${plain.toFixed(digits)} ± ${spread.toFixed(digits)}${unit ? THIN + unit : ''}`;
}

/** A probability: never quite sure of anything. */
export const oddsText = (p: number): string =>
  p > 0.99 ? `over 99${THIN}%` : p < 0.01 ? `under 1${THIN}%` : `${Math.round(100 * p)}${THIN}%`;

export const faultName = (id: string): string => faultOf(id)?.words.name ?? id;
