import { THIN, formatForEditing } from './format';
import { parseQuantity } from './parse';
import { dimensionSpec, type Dimension } from './units';

/** What a field usually holds, in the canonical unit, and whose it is: "Lines have". */
export interface Usual {
  readonly low: number;
  readonly high: number;
  readonly holder: string;
}

/** A question about the unit of a figure, and the answers in which it would be a usual one. */
export interface UnitDoubt {
  readonly says: string;
  /** What to type instead: "60 psi". */
  readonly choices: readonly string[];
}

/** More answers than these are no help. */
const MOST_CHOICES = 2;

/**
 * Which unit was meant, where a figure typed without one lies outside what its field usually holds and would lie inside
 * in another: "60" in a field of bar.
 *
 * @returns null where the figure is usual, was typed with its unit, or would be usual in none
 */
export function unitDoubt(typed: string, dimension: Dimension, unit: string, usual: Usual, ppmFactor?: number): UnitDoubt | null {
  const factor = ppmFactor === undefined ? {} : { ppmFactor };
  const valueIn = (symbol: string): number | null => {
    const parsed = parseQuantity(typed, dimension, { defaultUnit: symbol, ...factor });
    return parsed.ok && parsed.value.unit === symbol ? parsed.value.value : null;
  };
  const isUsual = (value: number | null): boolean => value !== null && value >= usual.low && value <= usual.high;
  const own = parseQuantity(typed, dimension, { defaultUnit: unit, ...factor });
  const withUnit = own.ok && own.value.unit !== unit;
  if (withUnit || isUsual(valueIn(unit))) return null;
  const others = dimensionSpec(dimension)
    .units.map(({ symbol }) => symbol)
    .filter((symbol) => symbol !== unit && isUsual(valueIn(symbol)));
  if (others.length === 0) return null;
  const range = `${formatForEditing(usual.low, dimension, unit, ppmFactor)} to ${formatForEditing(usual.high, dimension, unit, ppmFactor)}${THIN}${unit}`;
  return {
    says: `${typed.trim()} ${unit}? ${usual.holder} ${range}.`,
    choices: others.slice(0, MOST_CHOICES).map((symbol) => `${typed.trim()} ${symbol}`),
  };
}
