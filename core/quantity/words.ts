import { formatAbout, formatIn, formatQuantity, formatStrength, THIN } from './format';
import type { UnitPreference } from './preference';
import { KG_PER_POUND, L_PER_US_GALLON, type Dimension } from './units';

/** Days in a month, for what is spoken of in months. */
export const DAYS_PER_MONTH = 30.4;
/** Days in a year, of all years. */
export const DAYS_PER_YEAR = 365.25;
/** A day in milliseconds, as instants count. */
export const DAY_MS = 86_400_000;

/** Figures in sentences: one place decides how they read. */
export function words(preference: UnitPreference): {
  readonly of: (value: number, dimension: Dimension) => string;
  /** A computed figure that an assumption carries: two digits. */
  readonly about: (value: number, dimension: Dimension) => string;
  readonly water: (ec25UScm: number) => string;
  readonly mgL: (value: number) => string;
  readonly ratio: (value: number) => string;
  readonly perDay: (litresPerDay: number) => string;
  readonly days: (days: number) => string;
  /** Litres or gallons an hour: what a boat's unit is spoken of by. */
  readonly perHour: (litresPerH: number) => string;
  readonly hours: (hours: number) => string;
  readonly index: (value: number) => string;
  /** A weight: pounds where volumes are gallons. */
  readonly kg: (kg: number) => string;
  /** A difference of temperature. */
  readonly degrees: (difference: number) => string;
} {
  const of = (value: number, dimension: Dimension): string => formatQuantity(value, dimension, preference).text;
  const about = (value: number, dimension: Dimension): string => formatAbout(value, dimension, preference).text;
  const days = (count: number): string =>
    count >= 730
      ? `${Math.round(count / 365)} years`
      : count >= 60
        ? `${Math.round(count / DAYS_PER_MONTH)} months`
        : count >= 14
          ? `${Math.round(count / 7)} weeks`
          : `${Math.round(count)} ${Math.round(count) === 1 ? 'day' : 'days'}`;
  return {
    of,
    about,
    water: (ec25) => formatStrength(ec25, preference).text,
    mgL: (value) => of(value, 'concentrationMgL'),
    ratio: (value) => `${value >= 9.95 ? Math.round(value) : value.toFixed(1)}${THIN}:${THIN}1`,
    perDay: (litres) => `${of(litres, 'volumeL')}/day`,
    perHour: (litresPerH) => formatIn(litresPerH, 'flowLPerH', preference.volume === 'gal' ? 'gal/h' : 'L/h').text,
    days,
    hours: (hours) => {
      const minutes = Math.round(hours * 60);
      // Nobody plans ten hours to the minute.
      if (hours >= 48) return days(hours / 24);
      if (minutes >= 600) return `${Math.round(hours)} h`;
      return minutesText(minutes);
    },
    index: (value) => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(1)}`,
    kg: (kg) => {
      const [amount, unit] = preference.volume === 'gal' ? [kg / KG_PER_POUND, 'lb'] : [kg, 'kg'];
      return `${amount >= 10 ? Math.round(amount) : amount.toFixed(1)}${THIN}${unit}`;
    },
    degrees: (difference) =>
      preference.temperature === '°F' ? `${Number((1.8 * difference).toPrecision(2))}${THIN}°F` : `${difference}${THIN}°C`,
  };
}

/** A stage's name inside a sentence: small, but for what is written in capitals. */
export const inSentence = (name: string): string => (/^[A-Z]{2}/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1));

/** A text at the start of a sentence. */
export const atStart = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A place in an order, from 0, as it is said: 1st, 2nd, 3rd, 4th; for short lists. */
export const ordinal = (at: number): string => ['1st', '2nd', '3rd'][at] ?? `${at + 1}th`;

/** Whole minutes as they are spoken of. */
export const minutesText = (minutes: number): string =>
  minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;

/** An amount of money that was worked out: three digits, for it is an estimate. */
export const moneyText = (amount: number, currency: string): string =>
  `${Math.abs(amount) >= 100 ? Math.round(amount) : amount.toFixed(Math.abs(amount) >= 10 ? 1 : 2)}${THIN}${currency}`;

/** What costs are spoken of by: a cubic metre, or a thousand gallons. */
export const costUnit = ({ volume }: UnitPreference): { readonly label: string; readonly litres: number } =>
  volume === 'gal' ? { label: '1000\u202fgal', litres: 1000 * L_PER_US_GALLON } : { label: 'm³', litres: 1000 };

/** Names one after the other as they are spoken: a, b and c. */
export const listed = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}` : (names[0] ?? '');
