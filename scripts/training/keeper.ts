import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Reading, System } from '../../core/file';
import { guessColumns, readTable, takeTable, type Column, type TextTable } from '../../core/log';
import { clockAt } from '../../core/testing/utcClock';
import { FOLDER, told, type Told } from './rig';

/** A training log as its keeper wrote it, and the truth behind each of its rows. */

export interface Truth {
  readonly run: number;
  readonly system: string;
  readonly start: string;
  readonly cut_at: string;
  readonly goal_us_cm: number;
  readonly files: readonly string[];
  readonly style: number;
  readonly forecasts: readonly {
    readonly cut: string;
    readonly before_end: number;
    readonly changes_written: boolean;
    readonly broken: boolean;
    readonly goal_on: string | null;
    readonly days: number;
    readonly away_days: number;
  }[];
  readonly steps: readonly {
    readonly kind: 'oxidation' | 'seal' | 'meter' | 'supply';
    readonly told: boolean;
    readonly on: string;
    readonly until?: string;
    readonly first_row: number;
  }[];
  readonly slips: readonly {
    readonly row: number;
    readonly kind: string;
    readonly cols: readonly string[];
    readonly right: readonly number[];
    readonly wrote: readonly number[];
  }[];
  readonly work: readonly {
    readonly part: string;
    readonly done: string;
    readonly row: number | null;
    readonly dated: string | null;
    readonly why: string | null;
    readonly was: string | null;
  }[];
  readonly meter: { readonly kind: 'up' | 'down' | 'none'; readonly set_l: number | null };
  readonly resin: {
    readonly services: readonly (readonly [string, readonly number[], number, number, string | null, string | null, number | null])[];
  };
  readonly rows: { readonly [list: string]: readonly (number | null)[] | string | undefined };
}

interface Style {
  readonly day: string;
  readonly columns: readonly (readonly [head: string, of: string, unit: string | null])[];
}
const STYLES = (JSON.parse(readFileSync(join(FOLDER, 'styles.json'), 'utf8')) as { styles: Style[] }).styles;

/** A row: what was read, what stands in its columns, and cells the app refused. */
export interface Row {
  readonly reading: Reading;
  readonly cells: Readonly<Record<string, string>>;
  readonly refused: readonly string[];
}

export interface KeptLog {
  readonly truth: Truth;
  readonly told: Told;
  readonly rows: readonly Row[];
  /** Columns the app guessed as they were meant, of so many. */
  readonly guessed: { readonly right: number; readonly of: number; readonly wrong: readonly string[] };
}

export const COLUMN: Readonly<Record<string, string>> = {
  'probe:probe-tap': 'tap',
  'probe:probe-membrane': 'membrane',
  'probe:probe-product': 'product',
  pressureBar: 'pressure',
  temperatureC: 'temperature',
  productLPerH: 'productFlow',
  wasteLPerH: 'wasteFlow',
  meterL: 'meter',
  at: 'when',
};
export const FIELD: Readonly<Record<string, string>> = Object.fromEntries(Object.entries(COLUMN).map(([field, column]) => [column, field]));

export const truthOf = (run: number): Truth =>
  JSON.parse(readFileSync(join(FOLDER, `${String(run).padStart(3, '0')}.truth.json`), 'utf8')) as Truth;

/** Reads a run as the app takes it. A cell that is refused is named and left out, as somebody would who cannot read it. */
export function readRun(run: number, system: System): KeptLog {
  const truth = truthOf(run);
  const style = STYLES[truth.style]!;
  const d = told(truth.system);
  const clock = clockAt(`${truth.cut_at.slice(0, 10)}T23:59:00Z`, style.day === 'mm/dd/yyyy');
  const tables = truth.files.map((file) => readTable(readFileSync(join(FOLDER, file), 'utf8'))!);
  const order = truth.rows['file'];
  const rest = tables.map(({ rows }) => [...rows]);
  const rows = typeof order === 'string' ? [...order].map((who) => rest[who === 'a' ? 0 : 1]!.shift()!) : tables[0]!.rows;
  const table: TextTable = { ...tables[0]!, rows };
  const meant = style.columns.map(([, of, unit]): Column => {
    const to = ['when', 'date', 'time', 'note'].includes(of) ? of : (FIELD[of] ?? 'ignore');
    const exists = !to.startsWith('probe:') || system.train.probes.some(({ id }) => `probe:${id}` === to);
    return { of: (exists ? to : 'ignore') as Column['of'], unit: unit === 'strength' || !exists ? null : unit };
  });
  const guesses = guessColumns(system, table, clock);
  const wrong = meant.flatMap((want, i) => {
    const [, of] = style.columns[i]!;
    const guess = guesses[i]!;
    const same =
      (guess.of === want.of || (want.of === 'when' && guess.of === 'date')) &&
      (want.unit === null || want.of === 'ignore' || guess.unit === want.unit);
    // What is not read of this system has no right column.
    return same || of === 'work'
      ? []
      : [`“${table.heads[i]}” guessed ${guess.of} ${guess.unit ?? ''}, meant ${want.of} ${want.unit ?? ''}`];
  });
  let id = 0;
  const take = (cells: readonly string[]): Row => {
    const refused: string[] = [];
    let left = [...cells];
    for (;;) {
      const taken = takeTable(system, { ...table, rows: [left] }, meant, clock, () => `r${++id}`);
      const reading = taken.readings[0];
      if (reading) return { reading, refused, cells: Object.fromEntries(style.columns.map(([, of], i) => [of, cells[i] ?? ''])) };
      const at = left.findIndex(
        (cell, i) =>
          cell !== '' &&
          !['when', 'date', 'time'].includes(meant[i]!.of) &&
          takeTable(system, { ...table, rows: [left.map((c, k) => (k === i ? '' : c))] }, meant, clock, () => 'x').readings.length > 0,
      );
      if (at < 0) throw new Error(`Run ${run}: a row is not taken: ${taken.refused[0]?.why}`);
      refused.push(style.columns[at]![1]);
      left = left.map((cell, k) => (k === at ? '' : cell));
    }
  };
  return { truth, told: d, rows: rows.map(take), guessed: { right: meant.length - wrong.length, of: meant.length, wrong } };
}
