/** A calendar day in words, from an instant. */
export const dayWords = (instant: string): string =>
  new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });

/** The same with its year. */
export const dayAndYear = (instant: string): string => `${dayWords(instant)} ${instant.slice(0, 4)}`;

/** A calendar day in words, with its year where that is another than now's. */
export const dayOfNear = (instant: string, now: string): string =>
  instant.slice(0, 4) === now.slice(0, 4) ? dayWords(instant) : dayAndYear(instant);

const SEASONS = [
  'winter',
  'winter',
  'spring',
  'spring',
  'spring',
  'summer',
  'summer',
  'summer',
  'autumn',
  'autumn',
  'autumn',
  'winter',
] as const;

/** A season with its year: what a date a year ahead is sure to; December counts to the winter of the year it ends in. */
export function seasonWords(instant: string): string {
  const day = new Date(instant);
  const month = day.getUTCMonth();
  return `${SEASONS[month]!} ${month === 11 ? day.getUTCFullYear() + 1 : day.getUTCFullYear()}`;
}
