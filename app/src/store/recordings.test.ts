import 'fake-indexeddb/auto';
import type { Reading, Sensor, System } from '@yes-clear/core/file';
import { NOTHING_SAID, writeDocument } from '@yes-clear/core/file';
import { ordered, type Channel, type Samples } from '@yes-clear/core/recording';
import { systemFromTemplate } from '@yes-clear/core/template';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { airId, caught, heardUpToKey, keepCaught, settleAir, watchListeners, type Caught, type Listener } from './air';
import { database, openDatabase, readFact } from './database';
import { redo, undo } from './edits';
import { keepRecording, recordingsOf, removeRecording } from './recordingRows';
import { asFineAsKept, blocksIn, logOf, writeRecording } from './recordings';
import { logReading } from './readings';
import { addSystem, removeSystems } from './systems';
import { wholeRecord } from './beside';
import { carryOutImport, readImport } from './transfer';

const T0 = Date.UTC(2026, 5, 1);
const MINUTE = 60_000;
const DAY = 86_400_000;
const make = (id: string, sensors: readonly Sensor[] = []): System => ({
  ...systemFromTemplate({ id, name: `System ${id}`, site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' }),
  sensors: [...sensors],
});
const samples = (count: number, from = T0, step = MINUTE, value = 300): Samples =>
  ordered(
    Array.from({ length: count }, (_, i) => from + i * step),
    Array.from({ length: count }, (_, i) => value + (i % 5)),
  );
const write = (system: System, id: string, channels: ReadonlyMap<Channel, Samples>, cancelled = () => false) =>
  writeRecording({ id, system, name: 'logger.csv', addedAt: '2026-07-01T00:00:00Z', channels }, () => undefined, cancelled);
const TAP: Channel = 'probe:probe-tap';
const countOf = async (id: string): Promise<number> =>
  (await blocksIn(id, TAP, 0, T0 + 999 * DAY)).reduce((sum, { at }) => sum + at.length, 0);

beforeEach(async () => {
  await openDatabase();
  await Promise.all(database.tables.map((table) => table.clear()));
  setActivePinia(createPinia());
});

describe('a file of a meter', () => {
  it('counts nothing until it is kept, then each day once; it is taken back and done again', async () => {
    const system = make('a');
    await addSystem(system);
    const written = await write(system, 'r1', new Map([[TAP, samples(3 * 1440)]]));
    expect([await countOf('r1'), (await logOf('a')).length]).toEqual([3 * 1440, 0]);
    await keepRecording(written!.row!);
    const log = await logOf('a');
    expect(log.map(({ values }) => values[0]!.shown)).toEqual([302, 302, 302]);
    expect(log[0]!.at.slice(0, 10)).toBe('2026-06-01');
    await undo();
    expect(await logOf('a')).toEqual([]);
    await redo();
    expect(await logOf('a')).toEqual(log);
  });
  it('stands among what was typed, in order of time', async () => {
    const system = make('a');
    await addSystem(system);
    const typed = (id: string, at: string): Reading => ({
      id,
      systemId: 'a',
      at,
      values: [],
      pressureBar: 4,
      temperatureC: null,
      productLPerH: null,
      wasteLPerH: null,
      meterL: null,
      ...NOTHING_SAID,
    });
    await logReading(typed('r', '2026-06-02T23:59:00Z'));
    await keepRecording((await write(system, 'r1', new Map([[TAP, samples(3 * 1440)]])))!.row!);
    expect((await logOf('a')).map(({ pressureBar }) => pressureBar)).toEqual([null, null, 4, null]);
  });
  it('brought in twice counts once, and what is new in it is taken', async () => {
    const system = make('a');
    await addSystem(system);
    await keepRecording((await write(system, 'r1', new Map([[TAP, samples(1440)]])))!.row!);
    const again = await write(system, 'r2', new Map([[TAP, samples(1440)]]));
    expect(again).toEqual({ row: null, twice: 1440 });
    const longer = await write(system, 'r3', new Map([[TAP, samples(1500)]]));
    expect([longer!.twice, longer!.row!.rows]).toEqual([1440, 60]);
  });
  it('cancelled leaves nothing behind', async () => {
    const system = make('a');
    await addSystem(system);
    let asked = 0;
    expect(await write(system, 'r1', new Map([[TAP, samples(2000, T0, 30 * DAY)]]), () => ++asked > 3)).toBeNull();
    expect(await database.blocks.count()).toBe(0);
  });
  it('goes and comes back with its system', async () => {
    const system = make('a');
    await addSystem(system);
    await keepRecording((await write(system, 'r1', new Map([[TAP, samples(1440)]])))!.row!);
    await removeSystems(['a']);
    expect(await database.recordings.count()).toBe(0);
    await undo();
    expect((await logOf('a')).length).toBe(1);
    await removeRecording((await recordingsOf('a'))[0]!);
    expect([await logOf('a'), await countOf('r1')]).toEqual([[], 1440]);
  });
});

/** The gateway it comes from. */
const GATE = 'Pump room';

describe('what comes over the air', () => {
  const sensor = (id: string, name: string, reads: Sensor['reads'], probeId: string | null = null): Sensor => ({
    id,
    sensor: name,
    reads,
    probeId,
  });
  const paired = make('a', [
    sensor('s1', 'rig:tap', 'probe', 'probe-tap'),
    sensor('s2', 'rig:flow', 'product'),
    sensor('s3', 'rig:gone', 'probe', 'gone'),
  ]);
  const tap = (atMs: number, value: number): Caught => ({ systemId: 'a', channel: TAP, atMs, value });

  it('is caught by who listens to its name, as the instrument there would show it', async () => {
    let by: ReadonlyMap<string, readonly Listener[]> = new Map();
    watchListeners((now) => (by = now));
    await addSystem(paired);
    await vi.waitFor(() => expect([...by.keys()].sort()).toEqual(['rig:flow', 'rig:tap']));
    await addSystem(make('b', [sensor('s4', 'rig:tap', 'probe', 'probe-tap')]));
    await vi.waitFor(() => expect(by.get('rig:tap')).toHaveLength(2));
    const heard = (name: string, unit: string, value: number) => ({ name, unit, atMs: T0, value, sum: null });
    const own = caught(
      [heard('rig:tap', 'S/m', 0.06), heard('rig:flow', 'm3/s', 1e-6), heard('rig:flow', 'Cel', 11), heard('other', 'S/m', 1)],
      by,
    );
    expect(own.map(({ systemId, channel }) => `${systemId} ${channel}`)).toEqual([`a ${TAP}`, `b ${TAP}`, 'a productLPerH']);
    expect(own[0]!.value).toBeCloseTo(300, 9);
    expect(own[2]!.value).toBeCloseTo(3.6, 12);
  });
  it('is kept together with how far it was heard, and heard again changes nothing', async () => {
    await addSystem(paired);
    const look = [tap(T0, 300), tap(T0 + 10_000, 301)];
    await keepCaught(look, GATE, T0 + 10_000);
    await keepCaught([...look, tap(T0 + 20_000, 302)], GATE, T0 + 20_000);
    expect([await countOf(airId('a')), await readFact(heardUpToKey(GATE))]).toEqual([3, String(T0 + 20_000)]);
  });
  it('that fails to be kept leaves the mark where it was', async () => {
    await addSystem(paired);
    await keepCaught([tap(T0, 300)], GATE, T0);
    // A figure that cannot be stored stops the whole of it.
    await expect(
      keepCaught([tap(T0 + 10_000, 301), { ...tap(0, 1), channel: null as unknown as Channel }], GATE, T0 + 10_000),
    ).rejects.toThrow();
    expect([await countOf(airId('a')), await readFact(heardUpToKey(GATE))]).toEqual([1, String(T0)]);
  });
  it('counts by the day in the log, today anew each time', async () => {
    await addSystem(paired);
    await keepCaught([tap(T0 + 1000, 300)], GATE, T0);
    await settleAir(T0 + 2000);
    expect((await logOf('a')).map(({ values }) => values[0]!.shown)).toEqual([300]);
    await keepCaught([tap(T0 + 3000, 310), tap(T0 + 4000, 310), tap(T0 + DAY, 320)], GATE, T0);
    await settleAir(T0 + DAY);
    expect((await logOf('a')).map(({ values }) => values[0]!.shown)).toEqual([310, 320]);
    expect((await recordingsOf('a'))[0]!.rows).toBe(4);
  });
  it('that comes late counts on the day it was read', async () => {
    await addSystem(paired);
    await keepCaught([tap(T0, 300), tap(T0 + 3 * DAY, 330)], GATE, T0);
    await settleAir(T0 + 3 * DAY + 1000);
    await keepCaught([tap(T0 + DAY, 310), tap(T0 + 3 * DAY + 2000, 331)], GATE, T0);
    expect((await recordingsOf('a'))[0]!.lateMs).toBe(T0 + DAY);
    await settleAir(T0 + 3 * DAY + 3000);
    expect((await logOf('a')).map(({ values }) => values[0]!.shown)).toEqual([300, 310, 330.5]);
    expect((await recordingsOf('a'))[0]!.lateMs).toBeUndefined();
  });
  it('of another gateway has a mark of its own', async () => {
    await addSystem(paired);
    await keepCaught([tap(T0, 300)], GATE, T0);
    await keepCaught([tap(T0 + 10_000, 300)], 'Boat', 7);
    expect([await readFact(heardUpToKey(GATE)), await readFact(heardUpToKey('Boat'))]).toEqual([String(T0), '7']);
  });
  it('is kept whole for a day, by the minute for a month and by the hour for ever, and its days stay as they were', async () => {
    await addSystem(paired);
    const figures = Array.from({ length: 40 * 24 }, (_, hour) =>
      [0, 20_000, 40_000].map((ms) => tap(T0 + hour * 3_600_000 + ms, 300 + (hour % 7))),
    ).flat();
    await keepCaught(figures, GATE, T0);
    const now = T0 + 40 * DAY;
    await settleAir(now);
    const before = await logOf('a');
    expect(before.length).toBe(40);
    const tiers = new Map<string, number>();
    for (const { tier, at } of await database.blocks.toArray()) tiers.set(tier, (tiers.get(tier) ?? 0) + at.length);
    // Of the last day three an hour, of the month before one, of the rest one.
    expect(tiers.get('every')).toBe(24 * 3);
    expect((tiers.get('minute') ?? 0) + (tiers.get('hour') ?? 0)).toBe(39 * 24);
    expect(tiers.get('hour')).toBe(9 * 24);
    await settleAir(now + MINUTE);
    expect(await logOf('a')).toEqual(before);
    const fine = asFineAsKept(await blocksIn(airId('a'), TAP, T0, now));
    expect(fine.at.length).toBe(39 * 24 + 24 * 3);
    expect([...fine.at].every((at, i) => i === 0 || at > fine.at[i - 1]!)).toBe(true);
  });
});

describe('a file of everything', () => {
  it('carries records of meters and pictures, and brings them back into a browser that has nothing', async () => {
    const system = make('a');
    await addSystem(system);
    await keepRecording(
      (await write(
        system,
        'r1',
        new Map([
          [TAP, samples(3000)],
          ['temperatureC' as Channel, samples(2000, T0, MINUTE, 11)],
        ]),
      ))!.row!,
    );
    await keepCaught([{ systemId: 'a', channel: TAP, atMs: T0 + 9 * DAY, value: 305 }], GATE, T0);
    await settleAir(T0 + 9 * DAY + 1000);
    await database.photos.put({
      id: 'p',
      systemId: 'a',
      readingId: 'r',
      takenAt: '2026-06-01T00:00:00Z',
      picture: new Blob([new Uint8Array([1, 2, 250])], { type: 'image/png' }),
    });
    const before = { log: await logOf('a'), blocks: await database.blocks.toArray(), rows: await database.recordings.toArray() };
    const text = writeDocument([(await wholeRecord('a'))!], '2026-07-01T00:00:00Z');
    await Promise.all(database.tables.map((table) => table.clear()));
    const read = await readImport(new Blob([text]));
    if (!read.ok) throw new Error(read.error.message);
    const done = await carryOutImport(read.plan, () => 'merge', 'keep');
    expect(done.beside).toBe(3);
    expect(await logOf('a')).toEqual(before.log);
    expect(await database.blocks.toArray()).toEqual(before.blocks);
    expect((await database.recordings.toArray()).map(({ id, rows, channels }) => [id, rows, [...channels].sort()])).toEqual(
      before.rows.map(({ id, rows, channels }) => [id, rows, [...channels].sort()]),
    );
    const picture = (await database.photos.get('p'))!.picture;
    expect([picture.type, [...new Uint8Array(await picture.arrayBuffer())]]).toEqual(['image/png', [1, 2, 250]]);
    // Opened again it brings nothing; taken back, the records go with their system.
    const again = await readImport(new Blob([text]));
    expect(again.ok && (await carryOutImport(again.plan, () => 'merge', 'keep'))).toMatchObject({ opened: [], beside: 0 });
    await undo();
    expect(await logOf('a')).toEqual([]);
  });
  it('fills up what is here with what it has more of, and takes nothing away', async () => {
    const system = make('a');
    await addSystem(system);
    await keepCaught(
      [
        { systemId: 'a', channel: TAP, atMs: T0, value: 300 },
        { systemId: 'a', channel: TAP, atMs: T0 + DAY, value: 310 },
      ],
      GATE,
      T0,
    );
    await settleAir(T0 + DAY + 1000);
    const text = writeDocument([(await wholeRecord('a'))!], '2026-07-01T00:00:00Z');
    await database.blocks.filter(({ startMs }) => startMs < T0 + DAY).delete();
    await database.recordings.update(airId('a'), { days: (await database.recordings.get(airId('a')))!.days.slice(1) });
    await keepCaught([{ systemId: 'a', channel: TAP, atMs: T0 + 2 * DAY, value: 320 }], GATE, T0);
    await settleAir(T0 + 2 * DAY + 1000);
    const read = await readImport(new Blob([text]));
    if (!read.ok) throw new Error(read.error.message);
    expect((await carryOutImport(read.plan, () => 'merge', 'keep')).beside).toBe(1);
    expect((await logOf('a')).map(({ values }) => values[0]!.shown)).toEqual([300, 310, 320]);
  });
  it('that is broken in a record is refused, naming it, and nothing comes in', async () => {
    const system = make('a');
    await addSystem(system);
    await keepRecording((await write(system, 'r1', new Map([[TAP, samples(3000)]])))!.row!);
    const data = JSON.parse(writeDocument([(await wholeRecord('a'))!], '2026-07-01T00:00:00Z')) as {
      records: { beside: { recordings: { blocks: { data: string }[] }[] } }[];
    };
    data.records[0]!.beside.recordings[0]!.blocks[0]!.data = 'AAAA';
    await Promise.all(database.tables.map((table) => table.clear()));
    const read = await readImport(new Blob([JSON.stringify(data)]));
    if (!read.ok) throw new Error(read.error.message);
    await expect(carryOutImport(read.plan, () => 'merge', 'keep')).rejects.toThrow(/logger\.csv.*cut short/);
    expect(await database.systems.count()).toBe(0);
  });
});
