import { addDays, differenceInCalendarDays, endOfDay, format, parseISO } from 'date-fns';

/**
 * Days and times as people read them, in the time zone of the clock on the wall. A calendar day ("2026-11-23", as on a
 * cartridge) is that day wherever one is; an instant is the day it was here.
 */
const here = (at: string | number | Date): Date => (typeof at === 'string' ? parseISO(at) : new Date(at));

/** 23 Nov */
export const shortDay = (at: string | number): string => format(here(at), 'd MMM');
/** 23 November */
export const longDay = (at: string | number): string => format(here(at), 'd MMMM');
/** 23 Nov 2026 */
export const dayOfYear = (at: string | number): string => format(here(at), 'd MMM yyyy');
/** November 2026 */
export const monthOfYear = (at: string | number): string => format(here(at), 'MMMM yyyy');
/** 23 November 2026 */
export const longDayOfYear = (at: string | number): string => format(here(at), 'd MMMM yyyy');
/** 23 Nov, 08:10 */
export const dayAndTime = (at: string | number): string => format(here(at), 'd MMM, HH:mm');
/** 23 Nov 2026, 08:10 */
export const dayOfYearAndTime = (at: string | number): string => format(here(at), 'd MMM yyyy, HH:mm');
/** 08:10 */
export const timeOfDay = (at: string | number): string => format(here(at), 'HH:mm');
/** Nov, Nov 2026 or 2026: a mark at the foot of a chart that lies so many months from the next. */
export const monthMark = (at: number, monthsApart: number): string =>
  format(here(at), monthsApart >= 12 ? 'yyyy' : monthsApart > 1 ? 'MMM yyyy' : 'MMM');

/** 2026-11-23, as a field for a day holds it, and 2026-11-23T08:10 for a day and time. */
export const dayField = (at: string | number | Date): string => format(here(at), 'yyyy-MM-dd');
export const momentField = (at: string | number | Date): string => format(here(at), "yyyy-MM-dd'T'HH:mm");

/** Calendar days from one moment to another, below 0 when it lies before. */
export const daysBetween = (from: string | number | Date, to: string | number | Date): number =>
  differenceInCalendarDays(here(to), here(from));
/** The last instant of the day so many days on. */
export const endOfDayIn = (days: number, from: Date): string => endOfDay(addDays(from, days)).toISOString();

/** The days of a week, Monday first, and the months of a year. */
export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;
/** Their first three letters. */
export const short = (name: string): string => name.slice(0, 3);
