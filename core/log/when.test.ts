import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { clockAt } from '../testing/utcClock';
import { parseQuickLine } from './quickline';
import { momentText, readWhen } from './when';

const clock = clockAt('2026-11-28T09:30:00Z');
const said = (text: string, at = clock): string | null => {
  const when = readWhen(text, at);
  return when && (when.problem ?? momentText(when.moment, when.timed, at.now));
};

describe('a day at the head of a line', () => {
  it.each([
    ['12 Nov 300 6 0', '12 Nov'],
    ['12 November 2025 300', '12 Nov 2025'],
    ['12. nov. 300', '12 Nov'],
    ['Nov 12 300 6 0', '12 Nov'],
    ['Sept 3rd, 2025 300', '3 Sep 2025'],
    ['2026-01-15 300', '15 Jan'],
    ['2025-01-15T08:10 300', '15 Jan 2025, 08:10'],
    ['2026-1-5 7:05 300', '5 Jan, 07:05'],
    ['15.1. 300', '15 Jan'],
    ['15.1.25 300', '15 Jan 2025'],
    ['15/1/26 300', '15 Jan'],
    ['1/15/26 300', '15 Jan'],
    ['yesterday 300', '27 Nov'],
    ['today 300', '28 Nov, 09:30'],
    // Not come yet this year: the last one that has.
    ['24 Dec 300', '24 Dec 2025'],
    ['28 Nov 300', '28 Nov, 09:30'],
  ])('%s', (text, words) => expect(said(text)).toBe(words));
  it('a month leads where months come first', () => {
    expect(said('2/3/26 300')).toBe('2 Mar');
    expect(said('2/3/26 300', { ...clock, monthFirst: true })).toBe('3 Feb');
  });
  it.each(['300 6 0', '15.1 6 0', '59psi 300', '410/1500ml', '', 'novel reading', '12 November7', '1e5'])(
    '“%s” begins with no day',
    (text) => expect(readWhen(text, clock)).toBeNull(),
  );
  it.each([
    ['31 Feb 300', 'no day of the calendar'],
    ['29.2.25 300', 'no day of the calendar'],
    ['2026-13-01 300', 'no day of the calendar'],
    ['2027-01-01 300', 'lies ahead'],
    ['12 Nov 25:10 300', 'no time of the day'],
  ])('“%s” says what is wrong', (text, part) => expect(said(text)).toContain(part));
});

describe('a dated quick line', () => {
  const system = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
  const parse = (line: string) => parseQuickLine(line, system, clock);
  it('takes the day off and reads the rest as ever', () => {
    const line = parse('12 Nov 300 6 0 4.1bar 11C new filter');
    expect(line).toMatchObject({ problem: null, at: '2026-11-12T12:00:00.000Z' });
    expect(line.reading).toMatchObject({ pressureBar: 4.1, temperatureC: 11, note: 'new filter' });
    expect(line.reading.values.map(({ shown }) => shown)).toEqual([300, 6, 0]);
    expect(line.spelled.startsWith('12 Nov · tap 300')).toBe(true);
  });
  it('a dash is a probe that was not read', () => {
    const line = parse('- 6 - 11C');
    expect(line.problem).toBeNull();
    expect(line.reading.values).toEqual([{ probeId: system.train.probes[1]!.id, instrumentId: 'meter', shown: 6 }]);
    expect(parse('- - - - 11C').problem).toContain('no probe left');
    expect(parse('12 Nov').problem).toContain('at least one number');
  });
  it('a day that cannot be stops it', () => expect(parse('31 Feb 300 6 0').problem).toContain('no day of the calendar'));
  it('without a day it is now', () => expect(parse('300 6 0').at).toBeNull());
});
