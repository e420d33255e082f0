import 'fake-indexeddb/auto';
import { currentSample, readDocument, type Reading, type System } from '@yes-clear/core/file';
import { systemFromTemplate } from '@yes-clear/core/train';
import { createPinia, setActivePinia } from 'pinia';
import { readdirSync, readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { database, readFact, writeFact } from './database';
import { useHistory } from './history';
import { changedKeys, restored } from './restore';
import { shiftedRecord } from './shift';
import { addSystem, allRecords, oneRecord, removeSystem, storeRecords, writeSystem } from './systems';
import { fileName } from './transfer';
import { removeDemo } from './demo';

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
  note: '',
});
const withPressure =
  (linePressureBar: number) =>
  (s: System): System => ({ ...s, source: { ...s.source, linePressureBar } });
const withName =
  (name: string) =>
  (s: System): System => ({ ...s, name });

beforeEach(async () => {
  await Promise.all([database.systems.clear(), database.readings.clear(), database.facts.clear()]);
  setActivePinia(createPinia());
});

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
    await Promise.all([writeSystem('a', withPressure(5)), writeSystem('a', withName('Renamed'))]);
    const { system } = (await oneRecord('a'))!;
    expect([system.source.linePressureBar, system.name]).toEqual([5, 'Renamed']);
    expect((await database.systems.get('a'))!.revision).toBe(3);
  });
  it('writing to a system that is gone changes nothing', async () => {
    expect(await writeSystem('gone', withName('x'))).toBeNull();
    expect(await database.systems.count()).toBe(0);
  });
  it('leave with their readings and nobody else’s', async () => {
    await addSystem(make('a'));
    await addSystem(make('b'));
    await database.readings.bulkPut([reading('r1', 'a'), reading('r2', 'b')]);
    await removeSystem('a');
    expect((await allRecords()).map((record) => record.system.id)).toEqual(['b']);
    expect((await database.readings.toArray()).map((r) => r.id)).toEqual(['r2']);
  });
  it('an imported record replaces the one of the same id, readings and all', async () => {
    await addSystem(make('a'));
    await database.readings.put(reading('old', 'a'));
    await storeRecords([{ system: withName('From file')(make('a')), readings: [reading('new', 'a')] }]);
    const record = (await oneRecord('a'))!;
    expect([record.system.name, record.readings.map((r) => r.id)]).toEqual(['From file', ['new']]);
  });
  it('facts of the browser are kept by name', async () => {
    expect(await readFact('lastBackupAt')).toBeNull();
    await writeFact('lastBackupAt', '2026-11-23T10:00:00Z');
    expect(await readFact('lastBackupAt')).toBe('2026-11-23T10:00:00Z');
  });
});

describe('undo and redo', () => {
  /** Makes an edit as the app does: state and record of it. */
  async function edit(id: string, label: string, change: (s: System) => System, at: number): Promise<void> {
    const before = (await oneRecord(id))!.system;
    const after = change(before);
    await writeSystem(id, change);
    useHistory().record({ kind: 'system', systemId: id, label, before, after, at });
  }
  const pressure = async (): Promise<number> => (await oneRecord('a'))!.system.source.linePressureBar;

  it('take an edit back and do it again', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(5), 1000);
    const history = useHistory();
    expect(history.canUndo).toBe(true);
    expect(await history.undo()).toBe('line pressure');
    expect(await pressure()).toBe(4);
    expect(await history.redo()).toBe('line pressure');
    expect(await pressure()).toBe(5);
    expect(await history.redo()).toBeNull();
  });
  it('typing in one field is one edit; a pause makes it two', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(4.5), 1000);
    await edit('a', 'line pressure', withPressure(4.6), 1400);
    await edit('a', 'line pressure', withPressure(4.7), 9000);
    const history = useHistory();
    await history.undo();
    expect(await pressure()).toBe(4.6);
    await history.undo();
    expect(await pressure()).toBe(4);
    expect(history.canUndo).toBe(false);
  });
  it('a new edit forgets what was undone', async () => {
    await addSystem(make('a'));
    await edit('a', 'one', withPressure(5), 1000);
    const history = useHistory();
    await history.undo();
    await edit('a', 'two', withPressure(6), 9000);
    expect(history.canRedo).toBe(false);
  });
  it('leave alone what another tab changed meanwhile', async () => {
    await addSystem(make('a'));
    await edit('a', 'line pressure', withPressure(5), 1000);
    await writeSystem('a', withName('Other tab'));
    await useHistory().undo();
    const { system } = (await oneRecord('a'))!;
    expect([system.source.linePressureBar, system.name]).toEqual([4, 'Other tab']);
  });
  it('bring back a removed reading, and take away a logged one', async () => {
    await addSystem(make('a'));
    const history = useHistory();
    const logged = reading('r1', 'a');
    await database.readings.put(logged);
    history.record({ kind: 'reading', systemId: 'a', label: 'reading logged', before: null, after: logged, at: 1 });
    await history.undo();
    expect(await database.readings.count()).toBe(0);
    await history.redo();
    await database.readings.delete('r1');
    history.record({ kind: 'reading', systemId: 'a', label: 'reading removed', before: logged, after: null, at: 2 });
    await history.undo();
    expect(await database.readings.get('r1')).toEqual(logged);
  });
  it('compare and restore by section', () => {
    const before = make('a');
    const after = withPressure(5)(withName('New')(before));
    expect(changedKeys(before, after).sort()).toEqual(['name', 'source']);
    expect(restored(after, before, ['source'])).toEqual(withName('New')(before));
  });
});

describe('the demonstration', () => {
  const folder = new URL('../../../demo/', import.meta.url);
  const files = readdirSync(folder).filter((name) => name.endsWith('.yesclear.json'));
  it.each(files)('%s is a valid file of demo systems with months of readings', (name) => {
    const outcome = readDocument(readFileSync(new URL(name, folder), 'utf8'));
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
    ['Skerrow Shore Hatchery Coral nursery', 'skerrow-shore-hatchery-coral-nursery.yesclear.json'],
    ['Größe & Übung', 'grosse-ubung.yesclear.json'],
    ['///', 'system.yesclear.json'],
  ])('%s', (title, name) => expect(fileName(title)).toBe(name));
});
