import 'fake-indexeddb/auto';
import { systemFromTemplate } from '@yes-clear/core/template';
import type { Change, System } from '@yes-clear/core/file';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import { database, openDatabase } from './database';
import * as edits from './edits';
import { useStartUp } from './startUp';
import { addSystem, oneRecord } from './systems';

const system: System = systemFromTemplate({ id: 'a', name: 'A', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const was = system.source.linePressureBar;
/** Tabs that are open, by the locks the browser says they hold. */
let held: string[] = [];
Object.defineProperty(navigator, 'locks', {
  value: {
    request: (name: string, _: object, act: (lock: object) => unknown) => void act({ name }),
    query: () => Promise.resolve({ held: held.map((name) => ({ name })) }),
  },
});
/** What a tab that died had written down: a pressure typed, in which it saw `from` before. */
function typed(from: number, to: number, tab = 'gone', at = Date.now() - 60_000): string {
  const changes: Change[] = [{ at: ['source', 'linePressureBar'], before: from, after: to }];
  const key = `yes-clear:typed:${tab}:${at}-1`;
  localStorage.setItem(key, JSON.stringify({ systemId: 'a', label: 'line pressure', changes, at }));
  return key;
}
const pressure = async (): Promise<number | undefined> => (await oneRecord('a'))?.system.source.linePressureBar;

beforeEach(async () => {
  held = [];
  localStorage.clear();
  setActivePinia(createPinia());
  await openDatabase();
  await Promise.all([database.systems.clear(), database.readings.clear(), database.facts.clear(), database.edits.clear()]);
  database.close({ disableAutoOpen: false });
});
const given = async (): Promise<void> => {
  await database.open();
  await addSystem(system);
  database.close({ disableAutoOpen: false });
};

describe('what a tab that died had written down', () => {
  it('is kept at the next start, can be taken back, and is not kept twice', async () => {
    await given();
    const key = typed(was, 5.5);
    await useStartUp().begin();
    expect(await pressure()).toBe(5.5);
    expect(localStorage.getItem(key)).toBeNull();
    expect((await edits.undo())!.label).toBe('line pressure');
    expect(await pressure()).toBe(was);
  });
  it('leaves a place that has changed since, and is done with', async () => {
    await given();
    const key = typed(7, 5.5);
    await useStartUp().begin();
    expect(await pressure()).toBe(was);
    expect(localStorage.getItem(key)).toBeNull();
    expect((await edits.nextSteps()).undo).not.toBe('line pressure');
  });
  it('is left to the tab while that is open', async () => {
    await given();
    const key = typed(was, 5.5, 'living');
    held = ['yes-clear-tab-living'];
    await useStartUp().begin();
    expect(await pressure()).toBe(was);
    expect(localStorage.getItem(key)).not.toBeNull();
  });
  it('of a system that is gone is done with', async () => {
    const key = typed(was, 5.5);
    await useStartUp().begin();
    expect(await pressure()).toBeUndefined();
    expect(localStorage.getItem(key)).toBeNull();
  });
  it('waits for the next start where the store refuses it', async () => {
    await given();
    const key = typed(was, 5.5);
    const refuse = (): never => {
      throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
    };
    database.edits.hook('creating', refuse);
    await useStartUp().begin();
    database.edits.hook('creating').unsubscribe(refuse);
    expect(await pressure()).toBe(was);
    expect(localStorage.getItem(key)).not.toBeNull();
  });
});
