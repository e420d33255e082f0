/** A moment as a calendar has it, in the zone of whoever reads: months from 1. */
export interface CalendarMoment {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
}

/** The clock and the calendar of the device, handed in: core keeps no clock of its own. */
export interface LocalClock {
  /** The present moment, in the device's zone. */
  readonly now: CalendarMoment;
  /** The instant of a moment of the device's calendar. */
  readonly instantOf: (moment: CalendarMoment) => string;
  /** Whether a month stands before a day where both are figures: 1/15/26. */
  readonly monthFirst: boolean;
}

/** What stood at the head of a line, taken for a day and perhaps a time. */
export interface When {
  /** Length of the text it took. */
  readonly length: number;
  readonly moment: CalendarMoment;
  /** Null where only a day was given: the hour is not known. */
  readonly timed: boolean;
  /** What is wrong with it; null where it can be. */
  readonly problem: string | null;
}

const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
] as const;
const SHORT = MONTHS.map((name) => name.slice(0, 3));
const NAMES = `(?:${MONTHS.map((name) => `${name.slice(0, 3)}(?:${name.slice(3)})?`)
  .join('|')
  .replace('sep(?:tember)?', 'sept?(?:ember)?')})`;
/** A day without its hour is taken at noon: nearest to any. */
const NOON = { hour: 12, minute: 0 } as const;

const TIME = /^\s*(?:,|at)?\s*(\d{1,2}):(\d{2})(?::\d{2})?(?=\s|$|,)|^T(\d{2}):(\d{2})(?::\d{2})?(?=\s|$|,)/i;

type Found = { readonly length: number; readonly year: number | null; readonly month: number; readonly day: number };

/** The forms a day is written in at the head of a line. */
const FORMS: readonly ((text: string, clock: LocalClock) => Found | null)[] = [
  // 2026-01-15
  (text) => {
    const at = /^(\d{4})-(\d{1,2})-(\d{1,2})(?=[\sT,]|$)/.exec(text);
    return at && { length: at[0].length, year: Number(at[1]), month: Number(at[2]), day: Number(at[3]) };
  },
  // 12 Nov, 12. November 2025
  (text) => {
    const at = new RegExp(`^(\\d{1,2})\\.?\\s*(${NAMES})\\.?(?:[\\s,]+((?:19|20)\\d{2}))?(?=[\\s,]|$)`, 'i').exec(text);
    return at && { length: at[0].length, year: at[3] ? Number(at[3]) : null, month: monthOf(at[2]!), day: Number(at[1]) };
  },
  // Nov 12, November 12 2025
  (text) => {
    const at = new RegExp(`^(${NAMES})\\.?\\s+(\\d{1,2})(?:st|nd|rd|th)?(?:[\\s,]+((?:19|20)\\d{2}))?(?=[\\s,]|$)`, 'i').exec(text);
    return at && { length: at[0].length, year: at[3] ? Number(at[3]) : null, month: monthOf(at[1]!), day: Number(at[2]) };
  },
  // 15.1. and 15.1.26
  (text) => {
    const at = /^(\d{1,2})\.(\d{1,2})\.(\d{4}|\d{2})?(?=[\s,]|$)/.exec(text);
    return at && { length: at[0].length, year: at[3] ? fullYear(at[3]) : null, month: Number(at[2]), day: Number(at[1]) };
  },
  // 15/1/26, or 1/15/26 where months come first
  (text, { monthFirst }) => {
    const at = /^(\d{1,2})\/(\d{1,2})\/(\d{4}|\d{2})(?=[\s,]|$)/.exec(text);
    if (!at) return null;
    const [first, second] = [Number(at[1]), Number(at[2])];
    // Above 12 it can only be a day, whatever the custom.
    const monthLeads = second > 12 || (monthFirst && first <= 12);
    return { length: at[0].length, year: fullYear(at[3]!), month: monthLeads ? first : second, day: monthLeads ? second : first };
  },
  (text, { now }) => {
    const at = /^(today|yesterday)(?=[\s,]|$)/i.exec(text);
    if (!at) return null;
    const day = new Date(Date.UTC(now.year, now.month - 1, now.day - (at[1]!.toLowerCase() === 'today' ? 0 : 1)));
    return { length: at[0].length, year: day.getUTCFullYear(), month: day.getUTCMonth() + 1, day: day.getUTCDate() };
  },
];

const monthOf = (name: string): number => SHORT.indexOf(name.slice(0, 3).toLowerCase()) + 1;
const fullYear = (digits: string): number => (digits.length === 4 ? Number(digits) : 2000 + Number(digits));
const daysIn = (year: number, month: number): number => new Date(Date.UTC(year, month, 0)).getUTCDate();
const numbered = ({ year, month, day }: Pick<CalendarMoment, 'year' | 'month' | 'day'>): number => year * 10_000 + month * 100 + day;

/**
 * Reads a day, and perhaps a time, at the head of a line: `12 Nov`, `Nov 12 2025`, `2026-01-15`, `15.1.`, `15/1/26`,
 * `yesterday`, each with `08:10` behind it or not. A day without a year is the last such day that has come.
 *
 * @returns null where the line does not begin with a day
 */
export function readWhen(text: string, clock: LocalClock): When | null {
  const lead = /^\s*/.exec(text)![0].length;
  const rest = text.slice(lead);
  for (const form of FORMS) {
    const found = form(rest, clock);
    if (!found) continue;
    const time = TIME.exec(rest.slice(found.length));
    const written = text.slice(0, lead + found.length + (time?.[0].length ?? 0)).trim();
    const year = found.year ?? lastYear(found, clock.now);
    const hour = time ? Number(time[1] ?? time[3]) : null;
    const minute = time ? Number(time[2] ?? time[4]) : null;
    const today = numbered({ ...found, year }) === numbered(clock.now);
    const clockTime = hour === null || minute === null ? (today ? clock.now : NOON) : { hour, minute };
    const moment: CalendarMoment = { year, month: found.month, day: found.day, hour: clockTime.hour, minute: clockTime.minute };
    return {
      length: lead + found.length + (time?.[0].length ?? 0),
      moment,
      timed: time !== null || today,
      problem: problemOf(written, moment, clock.now),
    };
  }
  return null;
}

/** The year of the last such day that is not ahead. */
const lastYear = ({ month, day }: Pick<CalendarMoment, 'month' | 'day'>, now: CalendarMoment): number =>
  numbered({ year: now.year, month, day }) <= numbered(now) ? now.year : now.year - 1;

function problemOf(written: string, moment: CalendarMoment, now: CalendarMoment): string | null {
  const { year, month, day, hour, minute } = moment;
  if (month < 1 || month > 12 || day < 1 || day > daysIn(year, month)) return `“${written}” is no day of the calendar.`;
  if (hour > 23 || minute > 59) return `“${written}” is no time of the day; accepted is 0:00 to 23:59.`;
  if (numbered(moment) > numbered(now)) return `“${written}” lies ahead; a reading is of today or before.`;
  return null;
}

/** A day in words: 12 Nov, with the year where it is another one than the present. */
export function momentText({ year, month, day, hour, minute }: CalendarMoment, timed: boolean, now: CalendarMoment): string {
  const name = MONTHS[month - 1] ?? '';
  const date = `${day} ${name.charAt(0).toUpperCase()}${name.slice(1, 3)}${year === now.year ? '' : ` ${year}`}`;
  return timed ? `${date}, ${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}` : date;
}
