import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import type { Channel } from '../recording';
import { isMeterFile, takeRecording, type TakenRecording } from './meterFile';
import { senmlTable } from './senmlTable';
import { guessColumns, readTable, takeTable } from './table';
import type { LocalClock } from './when';

const system = systemFromTemplate({ id: 's', name: 'S', site: 'S', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
/** A calendar whose clocks go forward at 01:00 UTC on 29 March 2026 and stand at UTC before. */
const clock: LocalClock = {
  now: { year: 2026, month: 11, day: 28, hour: 12, minute: 0 },
  instantOf: ({ year, month, day, hour, minute }) => {
    const utc = Date.UTC(year, month - 1, day, hour, minute);
    return new Date(utc >= Date.UTC(2026, 2, 29, 2) ? utc - 3_600_000 : utc).toISOString();
  },
  monthFirst: false,
};
function take(text: string): TakenRecording {
  const head = readTable(text)!;
  const steps = takeRecording(system, text, head, guessColumns(system, head, clock), clock);
  let next = steps.next();
  while (!next.done) next = steps.next();
  return next.value;
}
const list = (taken: TakenRecording, channel: Channel): [string, number][] => {
  const { at, value } = taken.channels.get(channel)!;
  return [...at].map((ms, i) => [new Date(ms).toISOString(), value[i]!]);
};

describe('a file of a logger', () => {
  it('is taken column by column, to the second, in canonical units', () => {
    const taken = take(
      'time,tap,after membrane,pressure (psi),product L/h,temperature F,total gal\n2026-01-15 08:10:30,311,6.5,58,12,50,100\n2026-01-15 08:11:30,312,,59,-,51,101\n',
    );
    expect(list(taken, 'probe:probe-tap')).toEqual([
      ['2026-01-15T08:10:30.000Z', 311],
      ['2026-01-15T08:11:30.000Z', 312],
    ]);
    expect(list(taken, 'probe:probe-membrane')).toEqual([['2026-01-15T08:10:30.000Z', 6.5]]);
    expect(list(taken, 'pressureBar')[0]![1]).toBeCloseTo(58 * 0.0689476, 4);
    expect(list(taken, 'temperatureC')[0]![1]).toBeCloseTo(10, 9);
    expect(list(taken, 'meterL')[0]![1]).toBeCloseTo(378.541, 3);
    expect([taken.rows, taken.refusedCount]).toEqual([2, 0]);
  });
  it('says which rows it could not take, by their line, and takes the rest', () => {
    const taken = take(
      'time,tap\n2026-01-15 08:10,311\n2026-13-15 08:10,311\n2026-01-15 08:12,wet\n2026-01-15 08:61,311\n2026-01-15 08:13,\n2026-01-15 08:14,999999\n2026-01-15 08:15,310\n',
    );
    expect(list(taken, 'probe:probe-tap').map(([, value]) => value)).toEqual([311, 310]);
    expect(taken.refused.map(({ row }) => row)).toEqual([3, 4, 5, 6, 7]);
    expect(taken.refused.map(({ why }) => why).join(' ')).toMatch(/month|calendar|day/);
    expect(taken.refused[1]!.why).toContain('wet');
    expect(taken.refused[4]!.why).toContain('cannot be');
  });
  it('keeps to the calendar over a change of clocks, and to a zone that is written', () => {
    const taken = take('time,tap\n2026-03-29 01:59,300\n2026-03-29 03:00,301\n2026-03-29T03:30:00+02:00,302\n');
    expect(list(taken, 'probe:probe-tap')).toEqual([
      ['2026-03-29T01:30:00.000Z', 302],
      ['2026-03-29T01:59:00.000Z', 300],
      ['2026-03-29T02:00:00.000Z', 301],
    ]);
  });
  it('gives row for row what the reading of a table gives', () => {
    const cell = fc.oneof(
      fc.double({ min: 0, max: 900, noNaN: true }).map((n) => n.toFixed(1)),
      fc.constantFrom('', '-', '311 ppm', '1.2 mS', 'wet', '"7"'),
    );
    const row = fc.tuple(fc.integer({ min: 0, max: 500_000 }), cell, cell);
    fc.assert(
      fc.property(fc.array(row, { minLength: 2, maxLength: 40 }), (rows) => {
        const text = [
          'time,tap,after membrane',
          ...rows.map(
            ([minute, a, b]) =>
              `${new Date(Date.UTC(2025, 6, 1) + minute * 60_000).toISOString().slice(0, 16).replace('T', ' ')},${a},${b}`,
          ),
        ].join('\n');
        const head = readTable(text)!;
        const columns = guessColumns(system, head, clock);
        const byTable = takeTable(system, head, columns, clock, () => 'id').readings;
        const bulk = take(text);
        for (const { at, values } of byTable)
          for (const { probeId, shown } of values) {
            const found = list(bulk, `probe:${probeId}`).filter(([when]) => when === at);
            // Of two rows of one instant the first stands.
            expect(found).toHaveLength(1);
            if (byTable.filter((one) => one.at === at).length === 1) expect(found[0]![1]).toBeCloseTo(shown, 9);
          }
      }),
      { numRuns: 300 },
    );
  });
  it('whose cells hold line breaks in quotes is cut between rows only', () => {
    const long = Array.from(
      { length: 9000 },
      (_, i) => `${new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString()},${300 + (i % 5)},"a note\nof two lines, and a comma"`,
    );
    const taken = take(`time,tap,note\n${long.join('\n')}`);
    expect([taken.rows, taken.refusedCount]).toEqual([9000, 0]);
  });
  it('is told from what somebody wrote by hand by its stride', () => {
    const table = (strideMs: number, rows: number) => {
      const text = [
        'time,tap',
        ...Array.from({ length: rows }, (_, i) => `${new Date(Date.UTC(2026, 0, 1) + i * strideMs).toISOString()},300`),
      ].join('\n');
      const head = readTable(text)!;
      return isMeterFile(head, guessColumns(system, head, clock), rows, clock);
    };
    expect(table(60_000, 300)).toBe(true);
    expect(table(86_400_000, 300)).toBe(false);
    expect(table(60_000, 100)).toBe(false);
  });
});

describe('a file of sensor figures as a table', () => {
  it('has a column for each name, and is taken like any other', () => {
    const pack = [
      { bn: 'rig:', bt: 1.7e9, n: 'tap', u: 'S/m', v: 0.0622 },
      { n: 'temperature', u: 'Cel', v: 11 },
      { n: 'lamp', u: 'lx', v: 40 },
      { n: 'tap', u: 'S/m', v: 0.0624, t: 60 },
    ];
    const table = senmlTable(JSON.stringify(pack), Date.UTC(2026, 10, 28));
    if (!table.ok) throw new Error(table.error.message);
    expect(table.value.split('\r\n')).toEqual([
      'time,rig:tap,rig:temperature (°C)',
      '2023-11-14T22:13:20.000Z,622 µS/cm,11',
      '2023-11-14T22:14:20.000Z,624 µS/cm,',
    ]);
    const taken = take(table.value);
    expect(list(taken, 'probe:probe-tap').map(([, value]) => value)).toEqual([311, 312]);
    expect(list(taken, 'temperatureC')).toEqual([['2023-11-14T22:13:20.000Z', 11]]);
  });
  it('says what is wrong with it', () => {
    const says = (text: string): string => {
      const table = senmlTable(text, Date.UTC(2026, 10, 28));
      return table.ok ? 'taken' : table.error.message;
    };
    expect(says('[{"n":')).toContain('no JSON');
    expect(says('[{"n":"a","v":"x"}]')).toContain('record 1');
    expect(says('[{"n":"a","u":"Cel","v":3,"t":1795867200000}]')).toContain('counted in milliseconds');
    expect(says('[{"n":"a","u":"lx","v":3}]')).toContain('no figure in a unit that water has');
  });
});
