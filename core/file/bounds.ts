import type { Usual } from '../quantity';

/** Years in which anything here can have been fitted, measured or logged; a date outside is asked about. */
export const FIRST_YEAR = 1990;
export const LAST_YEAR = 2100;

/** Whether a day or an instant lies in those years. */
export function isLikelyDate(text: string): boolean {
  const year = Number(text.slice(0, 4));
  return Number.isInteger(year) && year >= FIRST_YEAR && year <= LAST_YEAR && !Number.isNaN(Date.parse(text));
}

/** What supplies usually have (common practice): a figure far outside was likely typed in another unit. */
export const USUAL_LINE_PRESSURE: Usual = { low: 1.5, high: 8.5, holder: 'Lines have' };
export const USUAL_WATER_TEMPERATURE: Usual = { low: 1, high: 35, holder: 'Cold water is at' };
