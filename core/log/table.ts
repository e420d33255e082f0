import Papa from 'papaparse';
import { gaugeDimension, gaugeValue, NOTHING_SAID, readsFlow, type Gauge, type Reading, type System } from '../file';
import { dimensionSpec, fromCanonical, parseQuantity, shownUnit, unitBySymbol, type Dimension } from '../quantity';
import { FIGURES, type Channel, type Figure } from '../recording';
import { meterEntry, shownUnitOf } from './meterEntry';
import { parseQuickLine } from './quickline';
import { probeRoles } from './series';
import { readWhen, type CalendarMoment, type LocalClock } from './when';
import { readWork, workText, type WorkRead } from './workText';

/** What a column of a table holds. */
export type ColumnOf = 'ignore' | 'when' | 'date' | 'time' | 'note' | 'work' | 'counts' | Channel | `gauge:${string}`;

/** A column as it is taken: what it holds, and in which unit where it does not say. */
export interface Column {
  readonly of: ColumnOf;
  readonly unit: string | null;
}

/** Readings on paper or from anywhere, before they are taken. */
export interface TextTable {
  /** The names over its columns; numbered where nothing stands over them. */
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** What stands between its cells. */
  readonly delimiter: string;
  /** The same for files of the same make: what a mapping is remembered under. */
  readonly shape: string;
}

/** The further gauge or flow meter of a column. */
const gaugeOf = ({ train }: System, of: ColumnOf): Gauge | undefined => train.gauges.find(({ id }) => of === `gauge:${id}`);

/** What a column of a figure is measured in; undefined of any other. */
export function dimensionOf(system: System, of: ColumnOf): Dimension | undefined {
  const gauge = gaugeOf(system, of);
  if (gauge) return gaugeDimension(gauge);
  return of in FIGURES ? FIGURES[of as Figure].dimension : undefined;
}

/** Units a column may be in, the usual one first. */
export function unitsOf(system: System, of: ColumnOf): readonly string[] {
  const dimension = dimensionOf(system, of);
  if (dimension === 'flowLPerH') return ['mL/min', 'L/h', 'gal/day', 'gal/h', 'gal/min', 'L/min'];
  if (!dimension) return [];
  const usual = shownUnit(dimension, system.units);
  return [
    usual,
    ...dimensionSpec(dimension)
      .units.map(({ symbol }) => symbol)
      .filter((symbol) => symbol !== usual),
  ];
}

/**
 * Cuts a text into columns, whatever stands between them.
 *
 * @returns null where it is no table: a single column, or lines of a log as they are typed
 */
export function readTable(text: string): TextTable | null {
  const { data, meta } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t', '|'] });
  const width = Math.max(0, ...data.slice(0, 50).map((row) => row.length));
  if (width < 2 || data.length === 0) return null;
  const [first = [], ...rest] = data.map((row) => row.map((cell) => cell.trim()));
  // Names have no figures in front; a first row of figures is a reading.
  const named = !first.some((cell) => /^[-+]?\d/.test(cell));
  const heads = named ? first : Array.from({ length: width }, (_, i) => `Column ${i + 1}`);
  return {
    heads,
    rows: named ? rest : [first, ...rest],
    delimiter: meta.delimiter,
    shape: `${width}|${named ? heads.join('|').toLowerCase() : 'bare'}`,
  };
}

/** What is over a column, in the words logs are kept in. */
const WORDS: readonly (readonly [RegExp, ColumnOf])[] = [
  [/\b(work|done|event|service|arbeit(en)?|ereignis|action)\b/i, 'work'],
  [/\b(date\s*(and|&|\/)?\s*time|timestamp|when|zeit(punkt|stempel))\b/i, 'when'],
  [/\b(date|day|datum|tag|fecha)\b/i, 'date'],
  [/\b(time|uhr(zeit)?|hour)\b/i, 'time'],
  [/\b(temp(eratur(e)?)?|deg\s*[cf]|°\s*[cf])\b|°[cf]/i, 'temperatureC'],
  [/\b(psi|bar|press(ure)?|druck|kpa)\b/i, 'pressureBar'],
  [/\b(waste|concentrate|reject|brine|abwasser|konzentrat)\b/i, 'wasteLPerH'],
  [/\b(meter|total|litres?|liters?|counter|volume|zähler)\b/i, 'meterL'],
  [/\b(note|remark|comment|bemerkung(en)?)s?\b/i, 'note'],
  [/\b(counts|counted|excluded|zählt)\b/i, 'counts'],
];

/** A head as words: underscores are spaces, and a unit written with them is one again. */
const headWords = (head: string): string =>
  head
    .replaceAll('_', ' ')
    .replace(/\b(ml|l|gal)\s+(min|h|hr|day|d)\b/gi, '$1/$2')
    .replace(/\/hr\b/gi, '/h');

/** What probes are called where nobody uses this system's own names: the tap, after the membrane, after the resin. */
const PLACES: readonly (readonly [RegExp, 'tap' | 'afterMembrane' | 'afterResin'])[] = [
  [/\b(tap|source|feed|supply|raw|inlet|in|leitung|rohwasser|zulauf|eingang)\b/i, 'tap'],
  [/\b(membrane|permeate?|ro|umkehrosmose)\b/i, 'afterMembrane'],
  [/\b(product|final|di|resin|pure|out|outlet|reinwasser|produkt|harz|mixed bed)\b/i, 'afterResin'],
];

const DAY_AND_TIME = /^\d{4}-\d\d-\d\d[T ]\d/;

/** What the columns of a table most likely hold, by what stands over them; plain columns behind the day are the probes in order. */
export function guessColumns(system: System, { heads, rows }: TextTable, clock: LocalClock): Column[] {
  const taken = new Set<ColumnOf>();
  const take = (of: ColumnOf, head: string): Column => {
    if (of !== 'ignore' && taken.has(of)) return { of: 'ignore', unit: null };
    taken.add(of);
    return { of, unit: unitIn(system, of, head) };
  };
  const probes = system.train.probes.map(({ id, name }) => ({ of: `probe:${id}` as ColumnOf, words: name.toLowerCase().split(/\s+/) }));
  const gauges = system.train.gauges.map(({ id, name }) => ({ of: `gauge:${id}` as ColumnOf, name: name.toLowerCase() }));
  const roles = probeRoles(system);
  const named = heads.map(headWords).map((head): Column | null => {
    const lower = head.toLowerCase();
    const isFlow = /(flow|\bml\b|l\/h|gpd|gpm|\/min|\/day)/i.test(head);
    const probe = probes.find(({ of, words }) => !taken.has(of) && lower.includes(words.join(' ')));
    if (probe && !isFlow) return take(probe.of, head);
    const gauge = gauges.find(({ of, name }) => !taken.has(of) && lower.includes(name));
    if (gauge) return take(gauge.of, head);
    if (/\b(product|permeate?|produkt)\b/i.test(head) && isFlow) return take('productLPerH', head);
    if (/\b(waste|concentrate|reject|brine|abwasser|konzentrat)\b/i.test(head) && isFlow) return take('wasteLPerH', head);
    const strength =
      /\b(tds|ppm|µs|us|ms|conductivity|leitfähigkeit|leitung|source|ro|di|permeate?|reinwasser)\b/i.test(head) || /[µu]s\/cm/i.test(head);
    const place =
      strength && !isFlow
        ? PLACES.find(([pattern, role]) => pattern.test(head) && roles[role] && !taken.has(`probe:${roles[role].id}`))
        : undefined;
    if (place) return take(`probe:${roles[place[1]]!.id}`, head);
    const word = WORDS.find(([pattern]) => pattern.test(head));
    if (word && !(word[1] === 'wasteLPerH' && !isFlow)) return take(word[1], head);
    const last = probes.find(
      ({ of, words }) => !taken.has(of) && words.some((part) => part.length > 2 && part !== 'after' && lower.includes(part)),
    );
    return last ? take(last.of, head) : null;
  });
  const sample = rows.slice(0, 20);
  return named.map((column, i) => {
    const cells = sample.map((row) => row[i] ?? '').filter((cell) => cell !== '');
    // Under “time” loggers write the day as well.
    const wholeMoment = column?.of === 'time' && !taken.has('date') && cells.length > 0 && cells.every((cell) => DAY_AND_TIME.test(cell));
    if (wholeMoment) return take('when', '');
    if (column) return column;
    if (cells.length > 0 && cells.every((cell) => readWhen(cell, clock) !== null || /^\d{4}-\d\d-\d\d[T ]/.test(cell)))
      return take('when', '');
    const bare = /^Column \d+$/.test(heads[i] ?? '');
    const next = bare && cells.every((cell) => /^[\d.,]+$/.test(cell)) ? probes.find(({ of }) => !taken.has(of)) : undefined;
    if (next) return take(next.of, '');
    return bare && cells.length > 0 && cells.every((cell) => /[a-z]/i.test(cell)) ? take('note', '') : { of: 'ignore', unit: null };
  });
}

/** The unit a head names, among those a column may be in. */
function unitIn(system: System, of: ColumnOf, head: string): string | null {
  const units = unitsOf(system, of);
  const lower = head.toLowerCase().replaceAll(' ', '').replace('degf', '°f').replace('degc', '°c');
  // A word of its own first; loggers leave the degree away: “Temperature F”.
  const words = head.toLowerCase().split(/[^a-z/]+/);
  const word = units.find((unit) => words.includes(unit.replace('°', '').toLowerCase()));
  return word ?? units.find((unit) => lower.includes(unit.toLowerCase())) ?? units[0] ?? null;
}

/** A row that could not be taken, and why. */
export interface Refused {
  /** Counted as in the file, the first line 1. */
  readonly row: number;
  readonly why: string;
}
/** Work read out of a row. */
export interface RowWork extends WorkRead {
  readonly row: number;
  /** The reading of the same row, where it has one; and the instant its work counts from. */
  readonly readingId: string | null;
  readonly doneAt: string;
}
export interface TakenTable {
  readonly readings: readonly Reading[];
  readonly refused: readonly Refused[];
  readonly works: readonly RowWork[];
}

/** An instant written with its zone, or a day and time of the device's calendar. */
export function instantOf(text: string, clock: LocalClock): string | string[] {
  const zoned = /^(\d{4}-\d\d-\d\d)[T ](\d\d:\d\d(?::\d\d(?:\.\d+)?)?)\s*(Z|[+-]\d\d:?\d\d)$/.exec(text);
  if (zoned) {
    const ms = Date.parse(`${zoned[1]}T${zoned[2]}${zoned[3]}`);
    return Number.isNaN(ms) ? [`“${text}” is no moment of the calendar.`] : new Date(ms).toISOString();
  }
  const local = /^(\d{4})-(\d\d)-(\d\d)[T ](\d\d):(\d\d)(?::(\d\d))?/.exec(text);
  const when = readWhen(text, clock);
  if (local && !when?.problem) {
    const [year, month, day, hour, minute] = local.slice(1, 6).map(Number) as [number, number, number, number, number];
    return clock.instantOf({ year, month, day, hour, minute });
  }
  if (!when) return [text === '' ? 'It has no day.' : `“${text}” is not read as a day.`];
  return when.problem ? [when.problem] : clock.instantOf(when.moment);
}

/** A text that was kept from being carried out by a spreadsheet, as it was. */
const plainCell = (text: string): string => text.replace(/^'(?=[=+\-@\t\r])/, '');

/** Makes a reading of a row; a cell that is not understood is told and the row left out, never half of it taken. */
function readingOfRow(system: System, row: readonly string[], columns: readonly Column[], clock: LocalClock, id: string): Reading | string {
  const cell = (of: ColumnOf): string => cellOf(row, columns, of);
  const at = instantOf(whenOf(row, columns), clock);
  if (typeof at !== 'string') return at[0]!;
  const values: Reading['values'][number][] = [];
  const also: Reading['also'][number][] = [];
  const figures = { pressureBar: null, temperatureC: null, productLPerH: null, wasteLPerH: null, meterL: null } as Record<
    string,
    number | null
  >;
  for (const [i, { of, unit }] of columns.entries()) {
    const text = row[i]?.trim() ?? '';
    if (text === '' || text === '-' || text === '–') continue;
    if (of.startsWith('probe:')) {
      const probe = system.train.probes.find(({ id: probeId }) => `probe:${probeId}` === of);
      const instrument = system.instruments.find(({ id: meter }) => meter === probe?.instrumentId);
      if (!probe || !instrument) continue;
      const shown = meterEntry(text, instrument, probe.name);
      if (!shown.ok) return shown.error.message;
      values.push({ probeId: probe.id, instrumentId: instrument.id, shown: shown.value });
      continue;
    }
    const dimension = dimensionOf(system, of);
    if (!dimension) continue;
    // A counter that runs down goes on below nought.
    const low = of === 'meterL' && system.train.meter.counts === 'down' ? { low: -1e9 } : {};
    const read = parseQuantity(text, dimension, { ...(unit === null ? {} : { defaultUnit: unit }), ...low });
    if (!read.ok) return read.error.message;
    const gauge = gaugeOf(system, of);
    if (gauge) also.push({ gaugeId: gauge.id, value: read.value.value });
    else figures[of] = read.value.value;
  }
  if (values.length === 0 && also.length === 0 && Object.values(figures).every((one) => one === null)) return 'It has no figure.';
  const { pressureBar, temperatureC, productLPerH, wasteLPerH, meterL } = figures as Pick<
    Reading,
    'pressureBar' | 'temperatureC' | 'productLPerH' | 'wasteLPerH' | 'meterL'
  >;
  return {
    id,
    systemId: system.id,
    at,
    values,
    pressureBar,
    temperatureC,
    productLPerH,
    wasteLPerH,
    meterL,
    ...NOTHING_SAID,
    also,
    note: plainCell(cell('note')).slice(0, 2000),
    counts: !/^(no|nein|excluded|0|false)$/i.test(cell('counts')),
  };
}

/** Readings of a table by its columns. */
export function takeTable(
  system: System,
  table: TextTable,
  columns: readonly Column[],
  clock: LocalClock,
  newId: () => string,
): TakenTable {
  const readings: Reading[] = [];
  const refused: Refused[] = [];
  const offset = table.heads[0] === 'Column 1' ? 1 : 2;
  const works: RowWork[] = [];
  const workAt = columns.findIndex(({ of }) => of === 'work');
  table.rows.forEach((row, i) => {
    const reading = readingOfRow(system, row, columns, clock, newId());
    const done = workAt < 0 ? [] : readWork(system, plainCell(row[workAt]?.trim() ?? ''), clock);
    const at = typeof reading === 'string' ? dayOfRow(row, columns, clock) : reading.at;
    const isReading = typeof reading !== 'string';
    // Work beside a reading was done after it was taken, unless it says its day.
    if (at !== null)
      for (const one of done)
        works.push({
          ...one,
          row: i + offset,
          readingId: isReading ? reading.id : null,
          doneAt: one.at ?? new Date(Date.parse(at) + 60_000).toISOString(),
        });
    if (isReading) readings.push(reading);
    else if (done.length === 0 || at === null) refused.push({ row: i + offset, why: reading });
  });
  return { readings, refused, works };
}

/** The instant of a row; null where its day is not read. */
function dayOfRow(row: readonly string[], columns: readonly Column[], clock: LocalClock): string | null {
  const at = instantOf(whenOf(row, columns), clock);
  return typeof at === 'string' ? at : null;
}
const cellOf = (row: readonly string[], columns: readonly Column[], of: ColumnOf): string =>
  row[columns.findIndex((column) => column.of === of)]?.trim() ?? '';
const whenOf = (row: readonly string[], columns: readonly Column[]): string =>
  cellOf(row, columns, 'when') || [cellOf(row, columns, 'date'), cellOf(row, columns, 'time')].filter((part) => part !== '').join(' ');

/** Readings of lines as they are typed, each with its day at the head. */
export function takeLines(system: System, text: string, clock: LocalClock, newId: () => string): TakenTable {
  const readings: Reading[] = [];
  const refused: Refused[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return;
    const read = parseQuickLine(line, system, clock);
    const why = read.problem ?? (read.at === null ? 'It does not begin with its day.' : null);
    if (why !== null || read.at === null) refused.push({ row: i + 1, why: why ?? '' });
    else readings.push({ ...read.reading, id: newId(), systemId: system.id, at: read.at });
  });
  return { readings, refused, works: [] };
}

/** Readings that are here already: of the same minute, saying the same. */
export function alreadyHere(readings: readonly Reading[], here: readonly Reading[]): Set<string> {
  const key = ({ at, values, pressureBar, temperatureC, productLPerH, wasteLPerH, meterL, also }: Reading): string =>
    JSON.stringify([
      at.slice(0, 16),
      values.map(({ probeId, shown }) => [probeId, Number(shown.toPrecision(6))]),
      [pressureBar, temperatureC, productLPerH, wasteLPerH, meterL].map((one) => (one === null ? null : Number(one.toPrecision(4)))),
      ...also.map(({ gaugeId, value }) => [gaugeId, Number(value.toPrecision(4))]),
    ]);
  const known = new Set(here.map(key));
  const twice = new Set<string>();
  for (const reading of readings) {
    const own = key(reading);
    if (known.has(own)) twice.add(reading.id);
    known.add(own);
  }
  return twice;
}

const two = (value: number): string => String(value).padStart(2, '0');

/**
 * Readings as a table any spreadsheet opens: figures in the system's units, days in the device's calendar, and no cell
 * that a spreadsheet would carry out.
 */
export function readingsCsv(system: System, readings: readonly Reading[], calendarOf: (instant: string) => CalendarMoment): string {
  const { units, train, instruments } = system;
  const probes = train.probes.map((probe) => ({ probe, meter: instruments.find(({ id }) => id === probe.instrumentId) }));
  const figure = (value: number | null, dimension: Dimension, unit: string): string =>
    value === null ? '' : String(Number(fromCanonical(value, unitBySymbol(dimension, unit)!).toPrecision(6)));
  const heads = [
    'Date and time',
    ...probes.map(({ probe, meter }) => `${probe.name} (${meter ? shownUnitOf(meter) : ''})`),
    `Pressure (${units.pressure})`,
    `Temperature (${units.temperature})`,
    'Product flow (mL/min)',
    'Waste flow (mL/min)',
    `Meter total (${units.volume})`,
    ...train.gauges.map((gauge) => `${gauge.name} (${readsFlow(gauge) ? 'mL/min' : units.pressure})`),
    'Work',
    'Note',
    'Counts',
  ];
  const dayOf = (at: string): string => {
    const { year, month, day } = calendarOf(at);
    return `${year}-${two(month)}-${two(day)}`;
  };
  const momentOf = (at: string): string => {
    const { hour, minute } = calendarOf(at);
    return `${dayOf(at)} ${two(hour)}:${two(minute)}`;
  };
  // Work is beside the first reading after it; what none followed has a row of its own.
  const ordered = [...readings].sort((a, b) => a.at.localeCompare(b.at));
  const beside = (at: string): string | undefined => ordered.find((reading) => reading.at >= at)?.id;
  const done = system.services.map((service) => ({
    text: workText(system, service, dayOf(service.at)),
    at: service.at,
    readingId: beside(service.at),
  }));
  const textsAt = (id: string | undefined): string => done.flatMap(({ text, readingId }) => (readingId === id ? [text] : [])).join('; ');
  const rows = readings.map((reading) => {
    return [
      momentOf(reading.at),
      ...probes.map(({ probe }) => {
        const shown = reading.values.find(({ probeId }) => probeId === probe.id)?.shown;
        return shown === undefined ? '' : String(Number(shown.toPrecision(7)));
      }),
      figure(reading.pressureBar, 'pressureBar', units.pressure),
      figure(reading.temperatureC, 'temperatureC', units.temperature),
      figure(reading.productLPerH, 'flowLPerH', 'mL/min'),
      figure(reading.wasteLPerH, 'flowLPerH', 'mL/min'),
      figure(reading.meterL, 'volumeL', units.volume),
      ...train.gauges.map((gauge) => {
        return figure(gaugeValue(reading, gauge.id), gaugeDimension(gauge), readsFlow(gauge) ? 'mL/min' : units.pressure);
      }),
      textsAt(reading.id),
      reading.note,
      reading.counts ? 'yes' : 'no',
    ];
  });
  const alone = done
    .filter(({ readingId }) => readingId === undefined)
    .map(({ text, at }) => heads.map((head) => (head === 'Date and time' ? momentOf(at) : head === 'Work' ? text : '')));
  return Papa.unparse([heads, ...rows, ...alone], { escapeFormulae: true });
}
