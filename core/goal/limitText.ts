import { formatIn, formatQuantity, THIN, withDoubt, words, type Dimension, type UnitPreference } from '../quantity';
import type { LimitQuantity } from './schema';

/** A figure a limit is about, with its unit. Conductivity limits stand so near zero that whole ppm would hide them. */
export function limitText(quantity: LimitQuantity, value: number, preference: UnitPreference): string {
  switch (quantity) {
    case 'ec25UScm':
      return formatIn(value, 'conductivityUScm', 'µS/cm').text;
    case 'pH':
      return value.toFixed(1);
    case 'salinity':
      return `${value.toFixed(1)}${THIN}g/kg`;
    case 'hardnessMgL':
    case 'calciumHardnessMgL':
    case 'alkalinityMgL':
      return formatQuantity(Math.max(0, value), 'hardnessMgL', preference).text;
    default:
      return value > 0 && value < 0.0995
        ? formatIn(value, 'concentrationMgL', 'µg/L').text
        : formatQuantity(value, 'concentrationMgL', preference).text;
  }
}

/** A figure that rests on an assumption, with its doubt and no more digits than that: 67 ± 28 mg/L. */
export function assumedText(quantity: LimitQuantity, value: number, plusMinus: number, preference: UnitPreference): string {
  const text = limitText(quantity, value, preference);
  const figure = /^[\d.\u202f]*\d/.exec(text)?.[0] ?? '';
  const shown = Number(figure.replaceAll(THIN, ''));
  if (!(plusMinus > 0)) return text;
  if (!(shown > 0) || !(value > 0)) {
    const doubt = limitText(quantity, plusMinus, preference);
    return doubt === text ? `~${text}` : `${text} ± ${doubt}`;
  }
  // The doubt in the unit of the figure: units of a limit are in proportion.
  return `${withDoubt(shown, (plusMinus * shown) / value)}${text.slice(figure.length)}`;
}

/** That every limit of so many is met. */
export const allMet = (count: number): string =>
  count === 1 ? 'its limit is met' : count === 2 ? 'both limits are met' : `all ${count} limits are met`;

/** A figure beside the limit it misses: with one digit more where rounding would make the two alike. */
export function missText(
  quantity: LimitQuantity,
  value: number,
  bound: number,
  preference: UnitPreference,
): { value: string; bound: string } {
  const [plain, limit] = [limitText(quantity, value, preference), limitText(quantity, bound, preference)];
  if (plain !== limit) return { value: plain, bound: limit };
  if (quantity === 'pH') return { value: value.toFixed(2), bound: bound.toFixed(2) };
  return { value: `${value < bound ? 'just under' : 'just over'} ${limit}`, bound: limit };
}

/** A strength beside its bound as people speak of it; in µS/cm where their unit would make the two alike, or the bound none at all. */
export function strengthTexts(ec25UScm: number, boundUScm: number, preference: UnitPreference): { value: string; bound: string } {
  const say = words(preference);
  const [value, bound] = [say.water(ec25UScm), say.water(boundUScm)];
  return value === bound || /^0(\D|$)/.test(bound) ? missText('ec25UScm', ec25UScm, boundUScm, preference) : { value, bound };
}

/** The dimension in which a limit is typed. */
export function dimensionOf(quantity: LimitQuantity): Dimension {
  switch (quantity) {
    case 'ec25UScm':
      return 'conductivityUScm';
    case 'pH':
      return 'ph';
    case 'salinity':
      return 'salinityGPerKg';
    case 'hardnessMgL':
    case 'calciumHardnessMgL':
    case 'alkalinityMgL':
      return 'hardnessMgL';
    default:
      return 'concentrationMgL';
  }
}
