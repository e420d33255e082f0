import Papa from 'papaparse';
import type { System } from '../file';
import { canBe, ordered, type Channel, type Samples } from '../recording';
import { parseQuantity, toCanonical, unitBySymbol } from '../quantity';
import { meterEntry } from './meterEntry';
import { dimensionOf, instantOf, type Column, type ColumnOf, type Refused, type TextTable } from './table';
import type { LocalClock } from './when';

/** A file of a meter as it was taken: what each column gave over time. */
export interface TakenRecording {
  readonly channels: ReadonlyMap<Channel, Samples>;
  /** Rows taken, and those that could not be: the first of them, and how many. */
  readonly rows: number;
  readonly refused: readonly Refused[];
  readonly refusedCount: number;
}

/** Text that is cut into rows at once, characters: a few milliseconds of work. */
const BATCH = 1 << 18;
const REFUSED_NAMED = 20;

/** A text in pieces that end where a row does, whatever stands in quotes. */
function* pieces(text: string): Generator<string> {
  let from = 0;
  while (from < text.length) {
    let until = Math.min(text.length, from + BATCH);
    while (until < text.length) {
      const line = text.indexOf('\n', until);
      until = line < 0 ? text.length : line + 1;
      const quotes = text.slice(from, until).split('"').length - 1;
      if (quotes % 2 === 0) break;
    }
    yield text.slice(from, until);
    from = until;
  }
}

const PLAIN = /^-?\d{1,12}(?:\.\d{1,12})?$/;
const LOCAL = /^(\d{4}-\d\d-\d\d)[T ](\d\d):(\d\d)(?::(\d\d(?:\.\d{1,3})?))?$/;

/** Instants of a column, ms: those of the same hour are looked up in the calendar once, for clocks are set on the hour. */
function instants(clock: LocalClock): (text: string) => number | string {
  let hour = { text: '', ms: 0 };
  return (text) => {
    const local = LOCAL.exec(text);
    const head = local ? `${local[1]} ${local[2]}:00` : text;
    if (!local || head !== hour.text) {
      const at = instantOf(head, clock);
      if (typeof at !== 'string') return at[0]!;
      if (!local) return Date.parse(at);
      hour = { text: head, ms: Date.parse(at) };
    }
    const [minute, second] = [Number(local[3]), Number(local[4] ?? 0)];
    return minute < 60 && second < 60 ? hour.ms + 60_000 * minute + 1000 * second : `“${text}” is no moment of the calendar.`;
  };
}

/** How a cell of a column becomes a figure. */
function figures(system: System, { of, unit }: Column): ((text: string) => number | string) | null {
  if (of.startsWith('probe:')) {
    const probe = system.train.probes.find(({ id }) => `probe:${id}` === of);
    const instrument = system.instruments.find(({ id }) => id === probe?.instrumentId);
    if (!probe || !instrument) return null;
    return (text) => {
      if (PLAIN.test(text)) return Number(text);
      const read = meterEntry(text, instrument, probe.name);
      return read.ok ? read.value : read.error.message;
    };
  }
  // A meter's record is of probes and of the figures every reading has; a further gauge is taken by the table.
  const dimension = of.startsWith('gauge:') ? undefined : dimensionOf(system, of);
  const usual = dimension && unit !== null ? unitBySymbol(dimension, unit) : undefined;
  if (!dimension) return null;
  return (text) => {
    if (usual && PLAIN.test(text)) return toCanonical(Number(text), usual);
    const read = parseQuantity(text, dimension, unit === null ? {} : { defaultUnit: unit });
    return read.ok ? read.value.value : read.error.message;
  };
}

/**
 * Takes a file of a meter, half a million rows and more, as a recording; yields the share that is done.
 *
 * @param head the table at the head of the same text, see `readTable`: how its cells are apart, and whether names stand over them
 */
export function* takeRecording(
  system: System,
  text: string,
  head: Pick<TextTable, 'heads' | 'delimiter'>,
  columns: readonly Column[],
  clock: LocalClock,
): Generator<number, TakenRecording> {
  const place = (of: ColumnOf): number => columns.findIndex((column) => column.of === of);
  const [when, date, time] = [place('when'), place('date'), place('time')];
  const read = columns.flatMap((column, i) => {
    const figure = figures(system, column);
    return figure ? [{ i, channel: column.of as Channel, figure, at: [] as number[], value: [] as number[] }] : [];
  });
  const msOf = instants(clock);
  const refused: Refused[] = [];
  let refusedCount = 0;
  let rows = 0;
  let line = 0;
  let done = 0;
  const refuse = (why: string): void => {
    refusedCount += 1;
    if (refused.length < REFUSED_NAMED) refused.push({ row: line, why });
  };
  for (const piece of pieces(text)) {
    for (const row of Papa.parse<string[]>(piece, { delimiter: head.delimiter, skipEmptyLines: 'greedy' }).data) {
      line += 1;
      if (line === 1 && head.heads[0] !== 'Column 1') continue;
      const at = msOf(when >= 0 ? (row[when]?.trim() ?? '') : `${row[date]?.trim() ?? ''} ${row[time]?.trim() ?? ''}`.trim());
      if (typeof at === 'string') {
        refuse(at);
        continue;
      }
      let taken = false;
      let why = 'It has no figure.';
      for (const one of read) {
        const cell = row[one.i]?.trim() ?? '';
        if (cell === '' || cell === '-' || cell === '–') continue;
        const value = one.figure(cell);
        if (typeof value === 'string') why = value;
        else if (!canBe(one.channel, value)) why = `${cell} cannot be ${head.heads[one.i]}.`;
        else {
          one.at.push(at);
          one.value.push(value);
          taken = true;
        }
      }
      if (taken) rows += 1;
      else refuse(why);
    }
    done += piece.length;
    yield done / text.length;
  }
  return {
    channels: new Map(read.filter(({ at }) => at.length > 0).map(({ channel, at, value }) => [channel, ordered(at, value)])),
    rows,
    refused,
    refusedCount,
  };
}

/** Rows from which a table is looked at as a meter's, and the stride from one to the next below which nobody wrote it by hand, ms. */
const METER_ROWS = 200;
const BY_HAND_MS = 3 * 3_600_000;
/** Rows beyond which any table is kept as a recording. */
const MOST_BY_HAND = 20_000;

/** Whether the head of a table, of so many rows in all, was written by a meter rather than by hand. */
export function isMeterFile(table: TextTable, columns: readonly Column[], rows: number, clock: LocalClock): boolean {
  if (rows > MOST_BY_HAND) return true;
  if (rows < METER_ROWS) return false;
  const place = (of: ColumnOf): number => columns.findIndex((column) => column.of === of);
  const msOf = instants(clock);
  const times = table.rows.slice(0, METER_ROWS).flatMap((row) => {
    const at = msOf(place('when') >= 0 ? (row[place('when')] ?? '') : `${row[place('date')] ?? ''} ${row[place('time')] ?? ''}`.trim());
    return typeof at === 'string' ? [] : [at];
  });
  const strides = times.slice(1).map((at, i) => Math.abs(at - times[i]!));
  const middle = [...strides].sort((a, b) => a - b)[strides.length >> 1];
  return middle !== undefined && middle < BY_HAND_MS;
}
