import type { LimitQuantity } from '../file';
import { formatIn, formatQuantity, L_PER_US_GALLON, THIN, type Dimension, type UnitPreference } from '../quantity';
import type { SolvedTrain } from './solved';

/** Figures in sentences: one place decides how they read. */
export function words(preference: UnitPreference): {
  readonly of: (value: number, dimension: Dimension) => string;
  readonly water: (ec25UScm: number) => string;
  readonly mgL: (value: number) => string;
  readonly ratio: (value: number) => string;
  readonly perDay: (litresPerDay: number) => string;
  readonly days: (days: number) => string;
  readonly hours: (hours: number) => string;
  readonly index: (value: number) => string;
} {
  const of = (value: number, dimension: Dimension): string => formatQuantity(value, dimension, preference).text;
  return {
    of,
    water: (ec25) => of(ec25, 'conductivityUScm'),
    mgL: (value) => of(value, 'concentrationMgL'),
    ratio: (value) => `${value >= 9.95 ? Math.round(value) : value.toFixed(1)}${THIN}:${THIN}1`,
    perDay: (litres) => `${of(litres, 'volumeL')}/day`,
    days: (days) =>
      days >= 730
        ? `${Math.round(days / 365)} years`
        : days >= 60
          ? `${Math.round(days / 30.4)} months`
          : days >= 14
            ? `${Math.round(days / 7)} weeks`
            : `${Math.round(days)} days`,
    hours: (hours) => {
      const minutes = Math.round(hours * 60);
      return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
    },
    index: (value) => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(1)}`,
  };
}

/** A stage's name inside a sentence: small, but for what is written in capitals. */
export const inSentence = (name: string): string => (/^[A-Z]{2}/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1));

/** An amount of money: two digits where they matter. */
export const moneyText = (amount: number, currency: string): string =>
  `${amount >= 100 ? Math.round(amount) : amount.toFixed(2)}${THIN}${currency}`;

/** What costs are spoken of by: a cubic metre, or a thousand gallons. */
export const costUnit = ({ system }: UnitPreference): { readonly label: string; readonly litres: number } =>
  system === 'trade' ? { label: '1000\u202fgal', litres: 1000 * L_PER_US_GALLON } : { label: 'm³', litres: 1000 };

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

/** The dimension in which a limit is typed. */
export function dimensionOf(quantity: LimitQuantity): Dimension {
  switch (quantity) {
    case 'ec25UScm':
      return 'conductivityUScm';
    case 'pH':
      return 'ph';
    case 'salinity':
      return 'count';
    case 'hardnessMgL':
    case 'calciumHardnessMgL':
    case 'alkalinityMgL':
      return 'hardnessMgL';
    default:
      return 'concentrationMgL';
  }
}

/** The train in one sentence, for those who hear the picture instead of seeing it. */
export function trainSentence(solved: SolvedTrain, preference: UnitPreference): string {
  const say = words(preference);
  const parts = solved.stations.map((station, i) =>
    i === 0 ? `Tap at ${say.water(station.state.ec25UScm)}` : `${station.name} leaves ${say.water(station.state.ec25UScm)}`,
  );
  const waste =
    solved.waste && solved.unit?.wasteToProduct
      ? `; waste at ${say.water(solved.waste.state.ec25UScm)}, ${say.ratio(solved.unit.wasteToProduct)}`
      : '';
  return `${parts.join(', then ')}${waste}.`;
}
