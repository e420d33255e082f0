import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading } from '../file';
import { GALLON_UNITS, METRIC_UNITS } from '../quantity';
import { systemFromTemplate } from '../template';
import { expectNear } from '../testing/close';
import { calendarOf, clockAt } from '../testing/utcClock';
import { alreadyHere, guessColumns, readTable, readingsCsv, takeLines, takeTable, type Column, type TakenTable } from './table';

const made = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const system = { ...made, units: { ...METRIC_UNITS, strength: 'ppm' as const } };
const [tap, membrane, resin] = system.train.probes.map(({ id }) => id) as [string, string, string];
const clock = clockAt('2026-11-28T09:30:00Z');
const ids = (): (() => string) => {
  let count = 0;
  return () => `n${(count += 1)}`;
};
const take = (text: string, change: (columns: Column[]) => Column[] = (columns) => columns): TakenTable => {
  const table = readTable(text)!;
  return takeTable(system, table, change(guessColumns(system, table, clock)), clock, ids());
};
const shown = ({ values }: Reading): [string, number][] => values.map(({ probeId, shown: at }) => [probeId, at]);

describe('a table from anywhere', () => {
  it('columns by what stands over them, in the units they name', () => {
    const { readings, refused } = take(
      'Date,Time,Tap ppm,After membrane,After resin,Pressure psi,Temp °F,Product flow mL/min,Waste flow mL/min,Meter total L,Note\n' +
        '2026-01-15,08:10,311,6,0,59,52,136,610,1520,first\n2026-01-22,,305,6,0,,,,,,',
    );
    expect(refused).toEqual([]);
    expect(readings.map(({ at }) => at)).toEqual(['2026-01-15T08:10:00.000Z', '2026-01-22T12:00:00.000Z']);
    expect(shown(readings[0]!)).toEqual([
      [tap, 311],
      [membrane, 6],
      [resin, 0],
    ]);
    expectNear(readings[0]!.pressureBar!, 4.068, 0.001);
    expectNear(readings[0]!.temperatureC!, 11.11, 0.01);
    expect(readings[0]).toMatchObject({ productLPerH: 8.16, wasteLPerH: 36.6, meterL: 1520, note: 'first' });
    expect(readings[1]).toMatchObject({ pressureBar: null, temperatureC: null, meterL: null });
  });
  it('semicolons and decimal commas, names in another language, days with points', () => {
    const { readings, refused } = take('Datum;Tap;After membrane;Druck bar;Bemerkung\n15.1.26;311;6,5;4,1;kalt\n22.1.26;;6,4;4,0;');
    expect(refused).toEqual([]);
    expect(readings.map(({ pressureBar }) => pressureBar)).toEqual([4.1, 4]);
    expect(shown(readings[1]!)).toEqual([[membrane, 6.4]]);
    expect(readings[0]).toMatchObject({ at: '2026-01-15T12:00:00.000Z', note: 'kalt' });
  });
  it('without names the first column is the day and plain figures the probes in order', () => {
    const { readings } = take('12 Nov\t300\t6\t0\n19 Nov\t305\t6\t0');
    expect(readings.map(shown)).toEqual(
      [300, 305].map((at) => [
        [tap, at],
        [membrane, 6],
        [resin, 0],
      ]),
    );
  });
  it('an instant with its zone is that instant', () => {
    const { readings } = take('when,tap\n2026-03-29T01:30:00+01:00,300\n2026-03-29 03:30:00+02:00,301\n2026-01-15T08:10:00Z,302');
    expect(readings.map(({ at }) => at)).toEqual(['2026-03-29T00:30:00.000Z', '2026-03-29T01:30:00.000Z', '2026-01-15T08:10:00.000Z']);
  });
  it('a row that is not understood is named by its line and left out, the others stay', () => {
    const { readings, refused } = take(
      'date,tap,after membrane\n2026-01-15,311,6\nlast week,300,6\n2026-01-22,lots,6\n2026-01-29,,\n2027-01-29,300,6',
    );
    expect(readings).toHaveLength(1);
    expect(refused.map(({ row }) => row)).toEqual([3, 4, 5, 6]);
    expect(refused.map(({ why }) => why).join(' | ')).toMatch(/not read as a day.*Tap.*no figure.*lies ahead/);
  });
  it('a mapping of one’s own is followed', () => {
    const { readings } = take('a,b,c\n2026-01-15,6,311', () => [
      { of: 'when', unit: null },
      { of: `probe:${membrane}`, unit: null },
      { of: `probe:${tap}`, unit: null },
    ]);
    expect(shown(readings[0]!)).toEqual([
      [membrane, 6],
      [tap, 311],
    ]);
  });
  it('files of the same make have the same shape', () => {
    expect(readTable('a,b\n1,2')!.shape).toBe(readTable('a,b\n9,9\n8,8')!.shape);
    expect(readTable('a,b\n1,2')!.shape).not.toBe(readTable('a,c\n1,2')!.shape);
    expect(readTable('12 Nov 300 6 0\n19 Nov 305 6 0')).toBeNull();
  });
});

describe('lines from paper', () => {
  it('each is a reading of its day', () => {
    const { readings, refused } = takeLines(
      system,
      '12 Nov 300 6 0 4.1bar\n\n19 Nov 305 6 0 new filter\n300 6 0\n31 Feb 300',
      clock,
      ids(),
    );
    expect(readings.map(({ at, note }) => [at.slice(0, 10), note])).toEqual([
      ['2026-11-12', ''],
      ['2026-11-19', 'new filter'],
    ]);
    expect(refused).toEqual([
      { row: 4, why: 'It does not begin with its day.' },
      { row: 5, why: '“31 Feb” is no day of the calendar.' },
    ]);
  });
});

const reading = (change: Partial<Reading>): Reading => ({
  id: 'r',
  systemId: 's',
  at: '2026-01-15T08:10:00.000Z',
  values: [{ probeId: tap, instrumentId: 'meter', shown: 311 }],
  pressureBar: 4.1,
  temperatureC: 11,
  productLPerH: 8,
  wasteLPerH: 36,
  meterL: 1520,
  ...NOTHING_SAID,
  ...change,
});

describe('what is here already', () => {
  it('is told by minute and figures; twice in a file counts once', () => {
    const here = [reading({ id: 'a' })];
    const coming = [
      reading({ id: 'b' }),
      reading({ id: 'c', pressureBar: 4.2 }),
      reading({ id: 'd', pressureBar: 4.2 }),
      reading({ id: 'e', at: '2026-01-15T08:11:00.000Z' }),
    ];
    expect([...alreadyHere(coming, here)]).toEqual(['b', 'd']);
  });
});

describe('readings as a table', () => {
  it('come back as they went, in any units', () => {
    const maybe = (max: number) => fc.option(fc.double({ min: 0.5, max, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 0, max: 900 }),
            maybe(60),
            maybe(35),
            maybe(900),
            maybe(900),
            maybe(90_000),
            fc.string({ maxLength: 20 }),
          ),
          { minLength: 1, maxLength: 12 },
        ),
        fc.constantFrom(METRIC_UNITS, GALLON_UNITS),
        (rows, units) => {
          const own = { ...system, units };
          const log = rows.map(([at, pressureBar, temperatureC, productLPerH, wasteLPerH, meterL, note], i) =>
            reading({
              id: `r${i}`,
              values: [{ probeId: tap, instrumentId: 'meter', shown: at }],
              pressureBar,
              temperatureC,
              productLPerH,
              wasteLPerH,
              meterL,
              note: note.trim(),
            }),
          );
          const table = readTable(readingsCsv(own, log, calendarOf))!;
          const { readings, refused } = takeTable(own, table, guessColumns(own, table, clock), clock, ids());
          expect(refused).toEqual([]);
          readings.forEach((back, i) => {
            const went = log[i]!;
            expect(back.at).toBe('2026-01-15T08:10:00.000Z');
            expect(back.note).toBe(went.note);
            expect(shown(back)).toEqual(shown(went));
            for (const key of ['pressureBar', 'temperatureC', 'productLPerH', 'wasteLPerH', 'meterL'] as const) {
              if (went[key] === null) expect(back[key]).toBeNull();
              else expectNear(back[key]!, went[key], 1e-4 * Math.max(1, went[key]));
            }
          });
        },
      ),
      { numRuns: 200 },
    );
  });
  it('holds no cell that a spreadsheet would carry out', () => {
    const notes = ['=HYPERLINK("x")', '+1', '-2+3', '@SUM(A1)', '\t=1', 'plain'];
    const csv = readingsCsv(
      system,
      notes.map((note, i) => reading({ id: `r${i}`, note })),
      calendarOf,
    );
    const { data } = Papa.parse<string[]>(csv);
    expect(data.slice(1).map((row) => row[data[0]!.indexOf('Note')])).toEqual([
      '\'=HYPERLINK("x")',
      "'+1",
      "'-2+3",
      "'@SUM(A1)",
      "'\t=1",
      'plain',
    ]);
  });
});

describe('any text', () => {
  it('is taken or refused, row by row, and never throws', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('2026-01-15', '311', '6,5', '=1', '31.2.', '1e999', '')), {
            minLength: 2,
            maxLength: 6,
          }),
          { minLength: 1, maxLength: 8 },
        ),
        (cells) => {
          const table = readTable(Papa.unparse(cells));
          if (!table) return;
          const { readings, refused } = takeTable(system, table, guessColumns(system, table, clock), clock, ids());
          expect(readings.length + refused.length).toBe(table.rows.length);
          for (const one of readings) {
            expect(Number.isNaN(Date.parse(one.at))).toBe(false);
            for (const { shown: at } of one.values) expect(Number.isFinite(at)).toBe(true);
          }
        },
      ),
      { numRuns: 2000 },
    );
  });
});
