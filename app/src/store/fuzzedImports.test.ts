import 'fake-indexeddb/auto';
import type { Reading, System } from '@yes-clear/core/file';
import { alreadyHere, guessColumns, readTable, takeLines, takeRecording, takeTable, type LocalClock } from '@yes-clear/core/log';
import { systemFromTemplate } from '@yes-clear/core/template';
import fc from 'fast-check';
import { createPinia, setActivePinia } from 'pinia';
import { beforeAll, describe, expect, it } from 'vitest';
import { database, openDatabase } from './database';
import { keepRecording } from './recordingRows';
import { asFineAsKept, blocksIn, writeRecording } from './recordings';
import { bringInReadings } from './readings';
import { addSystem, oneRecord } from './systems';

/** Imports of anything: what is said to be saved is in the database, figure for figure, and what is refused left it as it was. */
const RUNS = Number(process.env['FUZZ_RUNS'] ?? 300);

const clock: LocalClock = {
  now: { year: 2026, month: 11, day: 28, hour: 9, minute: 30 },
  instantOf: ({ year, month, day, hour, minute }) => new Date(Date.UTC(year, month - 1, day, hour, minute)).toISOString(),
  monthFirst: false,
};
const system: System = systemFromTemplate({ id: 's', name: 'S', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
let count = 0;
const newId = (): string => `f${(count += 1)}`;

beforeAll(async () => {
  setActivePinia(createPinia());
  await openDatabase();
  await Promise.all(database.tables.map((table) => table.clear()));
  await addSystem(system);
});

const day = fc.oneof(
  fc.integer({ min: 0, max: 900 }).map((n) => new Date(Date.UTC(2024, 5, 1) + n * 86_400_000).toISOString().slice(0, 10)),
  fc.constantFrom('12 Nov', '15.1.26', '31.2.', 'yesterday', '', '1e9', '2026-01-15 08:10', '2026-03-29T02:30'),
);
const cell = fc.oneof(
  fc.double({ min: 0, max: 2000, noNaN: true }).map((n) => n.toPrecision(4)),
  fc.constantFrom(
    '',
    '-',
    '6,5',
    '1e999',
    '-3',
    '59psi',
    '11C',
    '0.6 mS',
    '=1+1',
    '<script>',
    '"',
    '\u0000',
    '９',
    'NaN',
    'Infinity',
    '99999999',
  ),
  fc.string({ maxLength: 8 }),
);
const row = fc.tuple(day, fc.array(cell, { minLength: 1, maxLength: 6 }));
const HEADS = 'Date,Tap,After membrane,After resin,Pressure bar,Temp °C,Note';
const table = fc
  .tuple(fc.constantFrom(',', ';', '\t'), fc.boolean(), fc.array(row, { minLength: 2, maxLength: 12 }))
  .map(([mark, headed, rows]) =>
    [...(headed ? [HEADS.replaceAll(',', mark)] : []), ...rows.map(([at, cells]) => [at, ...cells].join(mark))].join('\n'),
  );
const lines = fc
  .array(row, { minLength: 1, maxLength: 12 })
  .map((rows) => rows.map(([at, cells]) => `${at} ${cells.join(' ')}`).join('\r\n'));

const stored = async (): Promise<readonly Reading[]> => (await oneRecord('s'))!.readings;
const byId = (readings: readonly Reading[]): Map<string, Reading> => new Map(readings.map((one) => [one.id, one]));

describe(`${RUNS} fuzzed imports`, () => {
  it('of tables and lines lose nothing that was said to be saved', { timeout: 600_000 }, async () => {
    let here = await stored();
    let saved = 0;
    await fc.assert(
      fc.asyncProperty(fc.oneof(table, lines), async (text) => {
        const found = readTable(text);
        const taken = found
          ? takeTable(system, found, guessColumns(system, found, clock), clock, newId)
          : takeLines(system, text, clock, newId);
        const twice = alreadyHere(taken.readings, here);
        const fresh = taken.readings.filter(({ id }) => !twice.has(id));
        const kept = await bringInReadings(fresh).then(
          () => fresh,
          (error: Error) => {
            // What does not fit is named, and stops all of it.
            expect(error.message).toMatch(/accepted is/);
            return [];
          },
        );
        const now = await stored();
        expect(byId(now)).toEqual(byId([...here, ...kept]));
        saved += kept.length;
        // A full store would only slow the rest down.
        if (now.length > 30) await database.readings.clear();
        here = now.length > 30 ? [] : now;
      }),
      { numRuns: RUNS },
    );
    expect(saved).toBeGreaterThan(RUNS / 8);
  });
  it('of loggers’ files keep every figure that was counted', { timeout: 600_000 }, async () => {
    await fc.assert(
      fc.asyncProperty(table, async (text) => {
        const head = readTable(text);
        if (!head) return;
        const steps = takeRecording(system, text, head, guessColumns(system, head, clock), clock);
        let next = steps.next();
        while (!next.done) next = steps.next();
        const { channels } = next.value;
        if (channels.size === 0) return;
        await database.recordings.clear();
        await database.blocks.clear();
        const written = await writeRecording(
          { id: newId(), system, name: 'fuzzed', addedAt: '2026-11-28T00:00:00Z', channels },
          () => undefined,
          () => false,
        );
        await keepRecording(written!.row!);
        for (const [channel, { at, value }] of channels) {
          const back = asFineAsKept(await blocksIn(written!.row!.id, channel, at[0]!, at.at(-1)!));
          expect([[...back.at], [...back.value]]).toEqual([[...at], [...value]]);
        }
      }),
      { numRuns: Math.ceil(RUNS / 5) },
    );
  });
});
