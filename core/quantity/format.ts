import { shownUnit, type UnitPreference } from './preference';
import { fromCanonical, toCanonical, unitBySymbol, dimensionSpec, type Dimension } from './units';

/** Thin space between number and unit; a number is never parted from its unit at the end of a line. */
export const THIN = '\u202f';

/** A count or a figure with its thousands set apart, from five digits on. */
export const grouped = (value: number): string =>
  Math.abs(value) < 10_000 ? String(value) : value.toLocaleString('en-US').replaceAll(',', THIN);

/** A share, 0–1, in whole percent. */
export const percent = (share: number): string => `${Math.round(100 * share)}${THIN}%`;

/**
 * Rounds for reading: three significant digits at most, and zero for what a
 * meter would show as zero.
 *
 * @example roundForReading(0.0877) // '0.088'
 */
export function roundForReading(value: number): string {
  const size = Math.abs(value);
  if (size === 0 || size < 1e-4) return '0';
  // Three digits are what a computed figure has; above a thousand the rest is noughts.
  const rounded = size >= 999.5 ? Number(value.toPrecision(3)) : Math.round(value);
  if (size >= 9999.5) return grouped(rounded);
  if (size >= 99.5) return String(rounded);
  if (size >= 9.95) return trimZeros(value.toFixed(1));
  if (size >= 0.995) return value.toFixed(1);
  return trimZeros(value.toPrecision(2));
}

/** A figure and its doubt in one unit, with the digits the doubt allows: 67 ± 28, 1.3 ± 0.4. */
export function withDoubt(value: number, plusMinus: number): string {
  const doubt = Number(plusMinus.toPrecision(2));
  const decimals = doubt >= 9.5 || doubt <= 0 ? 0 : Math.max(0, -Math.floor(Math.log10(doubt)));
  const digits = (one: number): string => (one >= 99.5 ? String(Number(one.toPrecision(2))) : one.toFixed(decimals));
  return `${digits(value)} ± ${digits(doubt)}`;
}

const trimZeros = (text: string): string => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);

/** Digits after which a dimension reads well whatever its size. */
function roundByUnit(value: number, symbol: string): string {
  switch (symbol) {
    case 'psi':
      // No gauge shows hundredths of a psi beyond the second.
      if (Math.abs(value) < 0.995) return Math.abs(value) < 0.005 ? '0' : trimZeros(value.toFixed(2));
      return Math.abs(value) >= 9.95 ? roundForReading(Math.round(value)) : roundForReading(value);
    case '°F':
    case 'kPa':
    case 'gal/day':
    case 'mL':
    case 'mL/min':
      return Math.abs(value) >= 9.95 ? roundForReading(Math.round(value)) : roundForReading(value);
    case 'ppm':
      // Pens show whole ppm; below ten a decimal carries meaning.
      return Math.abs(value) >= 9.95 ? roundForReading(Math.round(value)) : Math.abs(value) < 0.1 ? '0' : value.toFixed(1);
    case 'bar':
      return Math.abs(value) >= 9.95 ? value.toFixed(1) : value.toFixed(2);
    case '°C':
    case '%':
      return trimZeros(value.toFixed(1));
    default:
      return roundForReading(value);
  }
}

/** A quantity ready to print: the digits, the unit, and both with a thin space between. */
export interface Shown {
  readonly number: string;
  readonly unit: string;
  readonly text: string;
}

/** Formats a canonical value in a named unit of its dimension. */
export function formatIn(value: number, dimension: Dimension, symbol: string, ppmFactor = 0.5): Shown {
  const unit = unitBySymbol(dimension, symbol) ?? dimensionSpec(dimension).units[0];
  if (!Number.isFinite(value)) return { number: '–', unit: unit.symbol, text: '–' };
  const number = roundByUnit(fromCanonical(value, unit, ppmFactor), unit.symbol);
  const text = unit.symbol === '' ? number : `${number}${THIN}${unit.symbol}`;
  return { number, unit: unit.symbol, text };
}

/**
 * Formats a canonical value the way a system shows it.
 *
 * @example formatQuantity(4.2058, 'pressureBar', GALLON_UNITS).text // '61 psi'
 */
export function formatQuantity(value: number, dimension: Dimension, preference: UnitPreference): Shown {
  return formatIn(value, dimension, shownUnit(dimension, preference), preference.ppmFactor);
}

/** A figure with its one standard deviation in the unit it is shown in: 61 ± 1 psi. */
export function formatWithDoubt(value: number, plusMinus: number, dimension: Dimension, symbol: string, ppmFactor = 0.5): string {
  const unit = unitBySymbol(dimension, symbol) ?? dimensionSpec(dimension).units[0];
  const [at, edge] = [value, value + plusMinus].map((one) => fromCanonical(one, unit, ppmFactor)) as [number, number];
  if (!Number.isFinite(at) || !Number.isFinite(edge)) return '–';
  const text = withDoubt(at, Math.abs(edge - at));
  return unit.symbol === '' ? text : `${text}${THIN}${unit.symbol}`;
}

/** The strength of a water in words of its own: what is purer than 1 µS/cm in MΩ·cm, where that was chosen. */
export function formatStrength(ec25UScm: number, preference: UnitPreference): Shown {
  const pure = preference.strength === 'MΩ·cm' && ec25UScm > 0 && ec25UScm < 1;
  return pure ? formatIn(ec25UScm, 'conductivityUScm', 'MΩ·cm') : formatQuantity(ec25UScm, 'conductivityUScm', preference);
}

/** A computed figure that an assumption carries: two digits are all its doubt allows. */
export function formatAbout(value: number, dimension: Dimension, preference: UnitPreference): Shown {
  const symbol = shownUnit(dimension, preference);
  const unit = unitBySymbol(dimension, symbol) ?? dimensionSpec(dimension).units[0];
  const shown = fromCanonical(value, unit, preference.ppmFactor);
  if (!Number.isFinite(shown)) return { number: '–', unit: unit.symbol, text: '–' };
  return formatIn(toCanonical(Number(shown.toPrecision(2)), unit, preference.ppmFactor), dimension, symbol, preference.ppmFactor);
}

/**
 * Digits for an input field: enough that leaving a field untouched cannot move the stored value by
 * more than a rounding step, and none that are noise.
 */
export function formatForEditing(value: number, dimension: Dimension, symbol: string, ppmFactor = 0.5): string {
  const unit = unitBySymbol(dimension, symbol) ?? dimensionSpec(dimension).units[0];
  if (!Number.isFinite(value)) return '';
  const shown = Number(fromCanonical(value, unit, ppmFactor).toPrecision(4));
  // A value of many digits (12345 L) keeps them when rounding would lose whole units.
  const exact = fromCanonical(value, unit, ppmFactor);
  const chosen = Math.abs(exact) >= 10_000 ? Math.round(exact) : shown;
  return String(Object.is(toCanonical(chosen, unit, ppmFactor), -0) ? 0 : chosen);
}
