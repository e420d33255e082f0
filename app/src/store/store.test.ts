import 'fake-indexeddb/auto';
import { currentSample, FILE_VERSION, NOTHING_SAID, readDocument, writeDocument, type Reading, type System } from '@yes-clear/core/file';
import { systemFromTemplate } from '@yes-clear/core/template';
import { createPinia, setActivePinia } from 'pinia';
import { readdirSync, readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { database, NewerDatabase, openDatabase, readFact, writeFact } from './database';
import { removeDemo } from './demo';
import { changedPart, commit, nextSteps, redo, undo } from './edits';
import { changeReading, logReading, removeReading } from './readings';
import { useSaving } from './saving';
import { shiftedRecord } from './shift';
import { addSystem, allRecords, bringBack, oneRecord, removeSystems, storeRecords } from './systems';
import * as tab from './tab';
import { carryOutImport, fileName, readImport, type ImportPlan } from './transfer';
import { DoesNotFit, SystemGone, whyNotKept } from './whyNotKept';

/** Does something as another tab would. */
async function otherTab(act: () => Promise<void>): Promise<void> {
  const spy = vi.spyOn(tab, 'tabId').mockReturnValue('other');
  await act();
  spy.mockRestore();
}

const make = (id: string, at = '2026-01-01T00:00:00Z'): System =>
  systemFromTemplate({ id, name: `System ${id}`, site: 'Bench', template: 'marineHousehold', at });
const reading = (id: string, systemId: string, at = '2026-02-01T08:00:00Z'): Reading => ({
  id,
  systemId,
  at,
  values: [],
  pressureBar: 4,
  temperatureC: 12,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
});
const withPressure =
  (linePressureBar: number) =>
  (s: System): System => ({ ...s, source: { ...s.source, linePressureBar } });
const withName =
  (name: string) =>
  (s: System): System => ({ ...s, name });

beforeEach(async () => {
  await openDatabase();
  await Promise.all([database.systems.clear(), database.readings.clear(), database.facts.clear(), database.edits.clear()]);
  setActivePinia(createPinia());
});

/** An edit as the open system makes it. */
async function edit(id: string, label: string, change: (s: System) => System, at: number): Promise<void> {
  const before = (await oneRecord(id))!.system;
  await commit(label, [changedPart(before, change(before))], at);
}
const pressure = async (id = 'a'): Promise<number> => (await oneRecord(id))!.system.source.linePressureBar;

describe('systems in the database', () => {
  it('come back oldest first, each with its readings in order of time', async () => {
    await addSystem(make('b', '2026-02-01T00:00:00Z'));
    await addSystem(make('a', '2026-01-01T00:00:00Z'));
    await database.readings.bulkPut([
      reading('r2', 'a', '2026-03-02T08:00:00Z'),
      reading('r1', 'a', '2026-03-01T08:00:00Z'),
      reading('r3', 'b'),
    ]);
    const records = await allRecords();
    expect(records.map((record) => [record.system.id, record.readings.map((r) => r.id)])).toEqual([
      ['a', ['r1', 'r2']],
      ['b', ['r3']],
    ]);
    expect((await oneRecord('a'))!.readings).toHaveLength(2);
    expect(await oneRecord('nobody')).toBeNull();
  });
  it('are written on top of what is stored, so that two writers both count', async () => {
    await addSystem(make('a'));
    const seen = (await oneRecord('a'))!.system;
    const first = (await database.systems.get('a'))!.revision;
    await Promise.all([
      commit('pressure', [changedPart(seen, withPressure(5)(seen))]),
      commit('name', [changedPart(seen, withName('Renamed')(seen))]),
    ]);
    const { system } = (await oneRecord('a'))!;
    expect([system.source.linePressureBar, system.name]).toEqual([5, 'Renamed']);
    expect((await database.systems.get('a'))!.revision).toBe(first + 2);
  });
  it('writing to a system that is gone is refused, and said', async () => {
    const gone = make('gone');
    const write = commit('name', [changedPart(gone, withName('x')(gone))]);
    await expect(write).rejects.toMatchObject({ name: 'SystemGone' });
    await expect(logReading(reading('r1', 'gone'))).rejects.toMatchObject({ name: 'SystemGone' });
    expect(await database.systems.count()).toBe(0);
    expect(await database.readings.count()).toBe(0);
    expect(await database.edits.count()).toBe(0);
  });
  it('leave with their readings and nobody else’s, and come back whole', async () => {
    await addSystem(make('a'));
    await addSystem(make('b'));
    await database.readings.bulkPut([reading('r1', 'a'), reading('r2', 'b')]);
    await removeSystems(['a']);
    expect((await allRecords()).map((record) => record.system.id)).toEqual(['b']);
    expect((await database.readings.toArray()).map((r) => r.id)).toEqual(['r2']);
    expect((await undo())!.label).toBe('System a removed');
    expect((await oneRecord('a'))!.readings.map((r) => r.id)).toEqual(['r1']);
  });
  it('a replaced one can be had back, with the readings that made way', async () => {
    await addSystem(make('a'));
    await database.readings.bulkPut([reading('old', 'a'), reading('both', 'a')]);
    await storeRecords(
      [{ system: withName('From file')(make('a')), readings: [reading('new', 'a'), { ...reading('both', 'a'), note: 'file' }] }],
      'opened',
    );
    const record = (await oneRecord('a'))!;
    expect([record.system.name, record.readings.map((r) => r.id).sort()]).toEqual(['From file', ['both', 'new']]);
    await undo();
    const back = (await oneRecord('a'))!;
    expect([back.system.name, back.readings.map((r) => `${r.id}${r.note}`).sort()]).toEqual(['System a', ['both', 'old']]);
  });
  it('removed in another tab, it is brought back with what was seen last', async () => {
    await addSystem(make('a'));
    await database.readings.put(reading('r1', 'a'));
    const seen = (await oneRecord('a'))!;
    await removeSystems(['a']);
    await bringBack({ ...seen, system: withName('Typed meanwhile')(seen.system) });
    const back = (await oneRecord('a'))!;
    expect([back.system.name, back.readings.length]).toEqual(['Typed meanwhile', 1]);
  });
  it('a reading raises the count of its system, so that Rounds works it out anew', async () => {
    await addSystem(make('a'));
    const before = (await database.systems.get('a'))!.revision;
    await logReading(reading('r1', 'a'));
    expect((await database.systems.get('a'))!.revision).toBe(before + 1);
  });
  it('a reading that could not be opened from a file again is refused with field, value and bound', async () => {
    await addSystem(make('a'));
    await expect(logReading({ ...reading('r1', 'a'), note: 'x'.repeat(2001) })).rejects.toThrow(/note is "x+…; accepted is at most 2000/);
    expect(await database.readings.count()).toBe(0);
  });
  it('facts of the browser are kept by name', async () => {
    expect(await readFact('lastBackupAt')).toBeNull();
    await writeFact('lastBackupAt', '2026-11-23T10:00:00Z');
    expect(await readFact('lastBackupAt')).toBe('2026-11-23T10:00:00Z');
  });
});

describe('a reading in two tabs', () => {
  const noted =
    (note: string) =>
    (one: Reading): Reading => ({ ...one, note });
  const at =
    (pressureBar: number) =>
    (one: Reading): Reading => ({ ...one, pressureBar });
  /** An edit of the reading as a tab saw it when it opened. */
  const edits = (seen: Reading, change: (one: Reading) => Reading): Promise<void> => changeReading(seen, change(seen));
  const stored = async (): Promise<Reading> => (await database.readings.get('r1'))!;
  beforeEach(async () => {
    await addSystem(make('a'));
    await logReading(reading('r1', 'a'));
  });
  it('is edited figure by figure: a note written in one and a pressure mended in the other both stand', async () => {
    const seen = await stored();
    await otherTab(() => edits(seen, noted('filter brown')));
    await edits(seen, at(3.2));
    expect(await stored()).toMatchObject({ note: 'filter brown', pressureBar: 3.2 });
    await undo();
    expect(await stored()).toMatchObject({ note: 'filter brown', pressureBar: 4 });
  });
  it('taking back what came leaves what another tab has changed since, and says so', async () => {
    const seen = await stored();
    await otherTab(() => edits(seen, noted('filter brown')));
    expect(await undo()).toMatchObject({ label: 'reading logged', missed: 1 });
    expect((await stored()).note).toBe('filter brown');
  });
  it('an edit taken back does not bring back what was removed elsewhere', async () => {
    const seen = await stored();
    await edits(seen, at(3.2));
    const edited = await stored();
    await otherTab(() => removeReading(edited));
    expect(await undo()).toMatchObject({ missed: 1 });
    expect(await database.readings.count()).toBe(0);
    expect((await oneRecord('a'))!.system.removed).toMatchObject([{ of: 'readings', id: 'r1', gone: true }]);
  });
  it('removed and brought back, the last word on it is that it is here', async () => {
    await removeReading(await stored());
    await undo();
    expect((await oneRecord('a'))!.system.removed).toMatchObject([{ of: 'readings', id: 'r1', gone: false }]);
    expect(await database.readings.count()).toBe(1);
  });
});

describe('undo and redo', () => {
  it('take an edit back and do it again', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(5), 1000);
    expect(await undo()).toEqual({ label: 'line pressure', missed: 0 });
    expect(await pressure()).toBe(4);
    expect(await redo()).toEqual({ label: 'line pressure', missed: 0 });
    expect(await pressure()).toBe(5);
    expect(await redo()).toBeNull();
  });
  it('typing in one field is one edit; a pause makes it two', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(4.5), 1000);
    await edit('a', 'line pressure', withPressure(4.6), 1400);
    await edit('a', 'line pressure', withPressure(4.7), 9000);
    await undo();
    expect(await pressure()).toBe(4.6);
    await undo();
    expect(await pressure()).toBe(4);
    expect((await undo())!.label).toBe('System a made');
    expect(await undo()).toBeNull();
  });
  it('a new edit forgets what was undone', async () => {
    await addSystem(make('a'));
    await edit('a', 'one', withPressure(5), 1000);
    await undo();
    await edit('a', 'two', withPressure(6), 9000);
    expect(await nextSteps()).toEqual({ undo: 'two', redo: null });
  });
  it('leave alone what another tab changed meanwhile, in the same section too', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(5), 1000);
    await otherTab(() => edit('a', 'name', withName('Other tab'), 2000));
    await otherTab(() => edit('a', 'supply name', (s) => ({ ...s, source: { ...s.source, name: 'Theirs' } }), 3000));
    await undo();
    const { system } = (await oneRecord('a'))!;
    expect([system.source.linePressureBar, system.source.name, system.name]).toEqual([4, 'Theirs', 'Other tab']);
  });
  it('what another tab set since stays, and is told', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(5), 1000);
    await otherTab(() => edit('a', 'line pressure', withPressure(6), 5000));
    expect(await undo()).toEqual({ label: 'line pressure', missed: 1 });
    expect(await pressure()).toBe(6);
  });
  it('bring back a removed reading, and take away a logged one', async () => {
    await addSystem(make('a'));
    const logged = reading('r1', 'a');
    await logReading(logged);
    await undo();
    expect(await database.readings.count()).toBe(0);
    await redo();
    await removeReading(logged);
    await undo();
    expect(await database.readings.get('r1')).toEqual(logged);
  });
  it('undoing a new system leaves it where another tab has logged into it', async () => {
    await addSystem(make('a'));
    await otherTab(() => logReading(reading('r1', 'a')));
    expect(await undo()).toEqual({ label: 'System a made', missed: 1 });
    expect((await oneRecord('a'))!.readings).toHaveLength(1);
  });
  it('a thousand readings opened at once are one thing to take back', async () => {
    const readings = Array.from({ length: 1000 }, (_, i) => reading(`r${i}`, 'a'));
    await storeRecords([{ system: make('a'), readings }], 'opened');
    expect(await database.readings.count()).toBe(1000);
    await undo();
    expect([await database.readings.count(), await database.systems.count()]).toEqual([0, 0]);
  });
  it('keeps no more than it can hold', async () => {
    await addSystem(make('a'));
    for (let i = 0; i < 305; i++) await edit('a', `edit ${i}`, withPressure(1 + i / 100), i * 2000);
    expect(await database.edits.count()).toBe(300);
    expect((await nextSteps()).undo).toBe('edit 304');
  });
});

describe('opening a file', () => {
  const file = (...records: { system: System; readings: Reading[] }[]): Blob => new Blob([writeDocument(records, '2026-11-23T11:00:00Z')]);
  const plan = async (blob: Blob): Promise<ImportPlan> => {
    const read = await readImport(blob);
    if (!read.ok) throw new Error(read.error.message);
    return read.plan;
  };
  const newer = (s: System): System => ({ ...s, updatedAt: '2026-05-01T00:00:00Z' });

  it('a system that is here already is asked about, with what differs; nothing is written before', async () => {
    await storeRecords([{ system: newer(withName('Here')(make('a'))), readings: [reading('r1', 'a'), reading('r2', 'a')] }], 'x');
    const { fresh, clashes } = await plan(file({ system: make('a'), readings: [reading('r1', 'a'), reading('r3', 'a')] }));
    expect(fresh).toEqual([]);
    expect(clashes[0]!.compared.readingsHere.map(({ id }) => id)).toEqual(['r2']);
    expect(clashes[0]!.compared.readingsThere.map(({ id }) => id)).toEqual(['r3']);
    expect([clashes[0]!.compared.parts, clashes[0]!.compared.newer]).toEqual([['name'], 'here']);
    expect((await oneRecord('a'))!.system.name).toBe('Here');
  });
  it.each([
    ['merge', 'Here', ['r1', 'r2', 'r3'], 1],
    ['replace', 'System a', ['r1', 'r3'], 1],
    ['leave', 'Here', ['r1', 'r2'], 1],
    ['both', 'Here', ['r1', 'r2'], 2],
  ] as const)('%s does what it says, and can be undone', async (choice, name, readings, systems) => {
    await storeRecords([{ system: newer(withName('Here')(make('a'))), readings: [reading('r1', 'a'), reading('r2', 'a')] }], 'x');
    const asked = await plan(file({ system: make('a'), readings: [reading('r1', 'a'), reading('r3', 'a')] }));
    const { left } = await carryOutImport(asked, () => choice, 'keep');
    const now = (await oneRecord('a'))!;
    expect([now.system.name, now.readings.map(({ id }) => id).sort()]).toEqual([name, readings]);
    expect(await database.systems.count()).toBe(systems);
    expect(left).toEqual(choice === 'merge' ? [{ name: 'Here', from: 'here', parts: ['name'] }] : []);
    if (choice !== 'leave') await undo();
    const back = (await oneRecord('a'))!;
    expect([back.system.name, back.readings.map(({ id }) => id).sort(), await database.systems.count()]).toEqual(['Here', ['r1', 'r2'], 1]);
  });
  it('readings that bear the ids of another system’s take none of them away', async () => {
    await storeRecords([{ system: make('a'), readings: [reading('r1', 'a'), reading('r2', 'a')] }], 'x');
    await carryOutImport(await plan(file({ system: make('b'), readings: [reading('r1', 'b')] })), () => 'leave', 'keep');
    expect((await oneRecord('a'))!.readings).toHaveLength(2);
    expect((await oneRecord('b'))!.readings).toHaveLength(1);
  });
  it('an id that cannot stand in an address is made anew; the same again is known', async () => {
    const odd = { system: make('a/../b'), readings: [reading('r1', 'a/../b')] };
    await carryOutImport(await plan(file(odd)), () => 'leave', 'keep');
    const [record] = await allRecords();
    expect(record!.system.id).toMatch(/^[\w-]+$/);
    expect(record!.readings).toHaveLength(1);
    const again = await plan(file({ system: record!.system, readings: [...record!.readings] }));
    expect([again.fresh.length, again.clashes.length, again.known.length]).toEqual([0, 0, 1]);
  });
  it('readings of the year 1 are asked about, and left out when told so', async () => {
    const asked = await plan(file({ system: make('a'), readings: [reading('r1', 'a', '0001-01-01T00:00:00Z'), reading('r2', 'a')] }));
    expect(asked.odd.map(({ path }) => path)).toEqual(['readings[0].at']);
    await carryOutImport(asked, () => 'leave', 'leave');
    expect((await oneRecord('a'))!.readings.map(({ id }) => id)).toEqual(['r2']);
  });
});

describe('why a write came to nothing', () => {
  const named = (name: string, inner?: unknown): Error => Object.assign(new Error('x'), { name, inner });
  it.each([
    [named('QuotaExceededError'), /storage is full/, /Free some space/],
    [named('AbortError', named('QuotaExceededError')), /storage is full/, /what you typed stays here/],
    [Object.assign(new Error('Failed: disk is full'), { name: 'UnknownError' }), /storage is full/, /Free some space/],
    [named('DatabaseClosedError'), /newer Yes Clear/, /reload/],
    [new NewerDatabase('x'), /newer Yes Clear/, /nothing was overwritten/],
    [named('MissingAPIError'), /offers no storage/, /ordinary window/],
    [new SystemGone('x'), /removed in another tab/, /Bring it back/],
    [new DoesNotFit('pH is 19; accepted is at most 14'), /pH is 19; accepted is at most 14/, /last good value is kept/],
    ['odd', /no reason given/, /Try again/],
  ])('%s', (error, reason, remedy) => {
    const why = whyNotKept(error);
    expect(why.reason).toMatch(reason);
    expect(why.remedy).toMatch(remedy);
  });
  it('a write that fails is told as not saved, and one that succeeds as saved', async () => {
    const saving = useSaving();
    expect(saving.says).toBeNull();
    vi.spyOn(console, 'error').mockImplementation(() => undefined);
    const failed = await saving.keep('the reading', () => Promise.reject(named('QuotaExceededError')));
    expect(failed.ok).toBe(false);
    expect([saving.says, saving.failed?.what, saving.savedAt]).toEqual(['not saved', 'the reading', null]);
    await saving.keep('the reading', () => Promise.resolve(1));
    expect(saving.says).toMatch(/^saved \d\d:\d\d$/);
    let done = (): void => undefined;
    const under = saving.keep('x', () => new Promise<void>((ready) => (done = ready)));
    expect(saving.says).toBe('saving');
    done();
    await under;
  });
});

describe('the demonstration', () => {
  const folder = new URL('../../../demo/', import.meta.url);
  const files = readdirSync(folder).filter((name) => name.endsWith('.yesclear.json'));
  it.each(files)('%s is a valid file of demo systems with months of readings', (name) => {
    const text = readFileSync(new URL(name, folder), 'utf8');
    // The first visit takes the demo as it stands, without what reads older files.
    expect((JSON.parse(text) as { version: number }).version).toBe(FILE_VERSION);
    const outcome = readDocument(text);
    expect(outcome.ok).toBe(true);
    if (!outcome.ok) return;
    for (const { system, readings } of outcome.records) {
      expect(system.demo).toBe(true);
      expect(readings.length).toBeGreaterThan(20);
    }
  });
  it('is moved by whole days to today, keeping the hour', () => {
    const outcome = readDocument(
      readFileSync(
        new URL(
          files.find((name) => name.includes('coral'))!,
          folder,
        ),
        'utf8',
      ),
    );
    if (!outcome.ok) throw new Error(outcome.error.message);
    const [record] = outcome.records;
    const now = new Date(Date.parse(outcome.savedAt) + 40.3 * 86_400_000);
    const moved = shiftedRecord(record!, outcome.savedAt, now);
    const [was, is] = [record!.readings[3]!.at, moved.readings[3]!.at];
    expect(Date.parse(is) - Date.parse(was)).toBe(40 * 86_400_000);
    expect(is.slice(11)).toBe(was.slice(11).replace(/Z$/, 'Z'));
    const fitted = (s: System): string | null =>
      s.train.stages.flatMap((stage) => ('fittedOn' in stage ? [stage.fittedOn] : []))[0] ?? null;
    expect(Date.parse(fitted(moved.system)!) - Date.parse(fitted(record!.system)!)).toBe(40 * 86_400_000);
    expect(currentSample(moved.system.source).reading).toBe(currentSample(record!.system.source).reading);
  });
  it('leaves without touching other systems', async () => {
    await addSystem(make('mine'));
    await addSystem({ ...make('shown'), demo: true });
    await removeDemo();
    expect((await allRecords()).map((record) => record.system.id)).toEqual(['mine']);
  });
});

describe('file names', () => {
  it.each([
    ['Tressimoor Coral Shed Coral nursery', 'tressimoor-coral-shed-coral-nursery.yesclear.json'],
    ['Größe & Übung', 'grosse-ubung.yesclear.json'],
    ['///', 'system.yesclear.json'],
  ])('%s', (title, name) => expect(fileName(title)).toBe(name));
});
