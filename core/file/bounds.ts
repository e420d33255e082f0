/** Years in which anything here can have been fitted, measured or logged; a date outside is asked about. */
export const FIRST_YEAR = 1990;
export const LAST_YEAR = 2100;

/** Whether a day or an instant lies in those years. */
export function isLikelyDate(text: string): boolean {
  const year = Number(text.slice(0, 4));
  return Number.isInteger(year) && year >= FIRST_YEAR && year <= LAST_YEAR && !Number.isNaN(Date.parse(text));
}
