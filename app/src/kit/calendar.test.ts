import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import type { Due } from '@yes-clear/core/log';
import { calendarText } from './calendar';

const due = (change: Partial<Due>): Due => ({
  id: 'sediment-changed',
  at: '2026-12-05T10:00:00.000Z',
  what: 'change sediment',
  says: 'Van tank: change sediment',
  because: '183 days after it was fitted',
  stageId: 'sediment',
  instrumentId: null,
  work: 'changed',
  everyDays: null,
  orderBy: null,
  bring: [{ part: 'sediment-5', name: 'Sediment cartridge, 5 µm', count: 1, unit: 'piece' }],
  ...change,
});
const NOW = new Date('2026-11-28T09:00:00Z');
const entries = (...list: Due[]) => list.map((one) => ({ systemId: 'demo-van-tank', site: 'Veldrastix Panes, unit 4; yard', due: one }));
/** Read back by another library than the one that writes (RFC 5545). */
const events = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));

describe('the calendar file', () => {
  it('has the day to order what is brought', () => {
    const [work, order] = events(calendarText(entries(due({ orderBy: '2026-11-25T10:00:00.000Z' })), NOW));
    expect([work!.summary, order!.summary]).toEqual(['Van tank: change sediment', 'Order for Van tank: change sediment']);
    expect([order!.startDate.toString(), order!.description]).toEqual(['2026-11-25', 'Sediment cartridge, 5 µm, 1']);
  });
  it('is read by another reader: day, words, place and what to bring', () => {
    const [event] = events(calendarText(entries(due({})), NOW));
    expect(event!.uid).toBe('demo-van-tank.sediment-changed@yes-clear');
    expect(event!.startDate.toString()).toBe('2026-12-05');
    expect(event!.startDate.isDate).toBe(true);
    expect(event!.summary).toBe('Van tank: change sediment');
    expect(event!.location).toBe('Veldrastix Panes, unit 4; yard');
    expect(event!.description).toBe('Due 183 days after it was fitted.\nBring: Sediment cartridge, 5 µm, 1');
    expect(event!.isRecurring()).toBe(false);
  });
  it('a file saved later moves the same event: the same id, a higher sequence', () => {
    const before = events(calendarText(entries(due({})), NOW))[0]!;
    const after = events(calendarText(entries(due({ at: '2026-12-12T10:00:00.000Z' })), new Date('2026-11-29T09:00:00Z')))[0]!;
    expect(after.uid).toBe(before.uid);
    expect(after.sequence).toBeGreaterThan(before.sequence);
    expect(after.startDate.toString()).toBe('2026-12-12');
  });
  it('what comes round repeats', () => {
    const [event] = events(calendarText(entries(due({ id: 'membrane-flushed', everyDays: 7 })), NOW));
    const next = event!.iterator();
    expect([next.next().toString(), next.next().toString(), next.next().toString()]).toEqual(['2026-12-05', '2026-12-12', '2026-12-19']);
  });
  it('names do no more than stand there', () => {
    const nasty = 'X\r\nBEGIN:VALARM\r\n, ; \\ "q" <b>';
    const [event, ...others] = events(calendarText(entries(due({ says: nasty })), NOW));
    expect(others).toEqual([]);
    expect(event!.component.getAllSubcomponents('valarm')).toEqual([]);
    expect(event!.summary.replaceAll('\r', '')).toBe(nasty.replaceAll('\r', ''));
  });
});
