import type { Due } from '@yes-clear/core/log';
import ical, { ICalCalendarMethod, ICalEventRepeatingFreq } from 'ical-generator';

/** A system's work as the calendar names it. */
export interface CalendarEntry {
  readonly systemId: string;
  readonly site: string;
  readonly due: Due;
}

/** A piece as a calendar names it: plain text, with its measure where it is not bought by the piece. */
const pieceText = ({ name, count, unit }: Due['bring'][number]): string => `${name}, ${count}${unit === 'piece' ? '' : ` ${unit}`}`;

/** Growing with time: a calendar that holds an older file takes the newer one in its place. */
const sequenceAt = (now: Date): number => Math.floor(now.getTime() / 60_000) % 2 ** 31;

/**
 * What is due as a calendar file (RFC 5545): a day for each piece of work, always under the same id, so that a file saved
 * later moves what an older one put in. What comes round by the calendar repeats.
 */
export function calendarText(entries: readonly CalendarEntry[], now: Date): string {
  const calendar = ical({
    name: 'Yes Clear',
    prodId: { company: 'Yes Clear', product: 'Rounds', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { systemId, site, due } of entries) {
    const event = calendar.createEvent({
      id: `${systemId}.${due.id}@yes-clear`,
      start: new Date(due.at),
      allDay: true,
      summary: due.says,
      description: [`Due ${due.because}.`, ...due.bring.map((piece) => `Bring: ${pieceText(piece)}`)].join('\n'),
      location: site,
      sequence: sequenceAt(now),
      stamp: now,
    });
    if (due.orderBy !== null)
      calendar.createEvent({
        id: `${systemId}.${due.id}-order@yes-clear`,
        start: new Date(due.orderBy),
        allDay: true,
        summary: `Order for ${due.says}`,
        description: due.bring.map(pieceText).join('\n'),
        location: site,
        sequence: sequenceAt(now),
        stamp: now,
      });
    if (due.everyDays !== null && due.everyDays >= 1)
      event.repeating({ freq: ICalEventRepeatingFreq.DAILY, interval: Math.round(due.everyDays) });
  }
  return calendar.toString();
}

/** One visit of the coming years: the day, and what is changed then. */
export interface PlannedVisit {
  readonly at: string;
  readonly says: string;
}

/**
 * The visits of a system's coming years as a calendar file. A visit keeps its id by its place in the row, so that a file
 * saved later moves the first, the second and so on.
 */
export function visitsCalendar(systemId: string, site: string, visits: readonly PlannedVisit[], now: Date): string {
  const calendar = ical({
    name: 'Yes Clear, year ahead',
    prodId: { company: 'Yes Clear', product: 'Year ahead', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  visits.forEach(({ at, says }, place) => {
    calendar.createEvent({
      id: `${systemId}.visit-${place + 1}@yes-clear`,
      start: new Date(at),
      allDay: true,
      summary: says,
      description: 'Planned ahead; the log moves it.',
      location: site,
      sequence: sequenceAt(now),
      stamp: now,
    });
  });
  return calendar.toString();
}
