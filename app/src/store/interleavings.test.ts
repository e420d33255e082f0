import 'fake-indexeddb/auto';
import { mergeRecords, NOTHING_SAID, type Reading, type System, type SystemRecord } from '@yes-clear/core/file';
import { serviced } from '@yes-clear/core/log';
import { systemFromTemplate } from '@yes-clear/core/template';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { database, openDatabase, type EditRow, type SystemRow } from './database';
import { changedPart, commit, redo, undo } from './edits';
import { changeReading, logReading, removeReading } from './readings';
import { oneRecord, storeRecords } from './systems';
import * as tab from './tab';

/**
 * Two devices with three tabs between them, in any order of hands: whatever was said to be kept is there at the end, and
 * both say the same. `npm run fuzz` runs ten thousand orders.
 */
const RUNS = Number(process.env['INTERLEAVINGS'] ?? 40);
const TABS = ['desk-1', 'desk-2', 'phone'] as const;
type Tab = (typeof TABS)[number];
const deviceOf = (one: Tab): Device => (one === 'phone' ? 'phone' : 'desk');
type Device = 'desk' | 'phone';

const base = systemFromTemplate({ id: 's', name: 'n', site: 'x', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const PARTS = base.train.stages.flatMap((stage) => ('fittedOn' in stage ? [stage.id] : []));
const FIELDS = ['pressureBar', 'temperatureC', 'note'] as const;
type Field = (typeof FIELDS)[number];

/** What one hand does. */
type Act =
  | { readonly kind: 'log' | 'remove' | 'undo' | 'redo' | 'look'; readonly tab: Tab }
  | { readonly kind: 'mend'; readonly tab: Tab; readonly field: Field }
  | { readonly kind: 'work'; readonly tab: Tab; readonly part: number }
  | { readonly kind: 'exchange'; readonly tab: Tab };
const someTab = fc.constantFrom(...TABS);
const act: fc.Arbitrary<Act> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ kind: fc.constant('log' as const), tab: someTab }) },
  { weight: 3, arbitrary: fc.record({ kind: fc.constant('mend' as const), tab: someTab, field: fc.constantFrom(...FIELDS) }) },
  { weight: 2, arbitrary: fc.record({ kind: fc.constant('work' as const), tab: someTab, part: fc.nat(PARTS.length - 1) }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constantFrom('remove' as const, 'undo' as const, 'redo' as const, 'look' as const), tab: someTab }) }, // prettier-ignore
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('exchange' as const), tab: someTab }) },
);

/** The stores of a device, while the other's are open. */
interface Stores {
  readonly systems: SystemRow[];
  readonly readings: Reading[];
  readonly edits: EditRow[];
}
const STORES = () => [database.systems, database.readings, database.edits] as const;

class World {
  private readonly away: Record<Device, Stores>;
  private open: Device = 'desk';
  private n = 0;
  /** What each tab saw of the readings when it last looked: it edits what it sees. */
  private readonly seen: Record<Tab, readonly Reading[]> = { 'desk-1': [], 'desk-2': [], phone: [] };
  readonly logged = new Set<string>();
  readonly removed = new Set<string>();
  readonly works = new Map<string, { stageId: string; day: string }>();
  /** The last figure typed into a field of a reading. */
  readonly typed = new Map<string, string | number>();
  /** Whether an edit was taken back or done again: what it touched is then another's word. */
  tookBack = false;

  constructor() {
    const empty: Stores = { systems: [{ id: 's', revision: 1, system: base }], readings: [], edits: [] };
    this.away = { desk: empty, phone: empty };
  }
  async start(): Promise<void> {
    await this.write(this.away.desk);
  }
  private async write({ systems, readings, edits }: Stores): Promise<void> {
    await database.transaction('rw', [...STORES()], async () => {
      await Promise.all(STORES().map((store) => store.clear()));
      await database.systems.bulkPut(systems);
      await database.readings.bulkPut(readings);
      await database.edits.bulkPut(edits as never[]);
    });
  }
  private async on(device: Device): Promise<void> {
    if (device === this.open) return;
    const [systems, readings, edits] = await Promise.all([
      database.systems.toArray(),
      database.readings.toArray(),
      database.edits.toArray(),
    ]);
    this.away[this.open] = { systems, readings, edits };
    await this.write(this.away[device]);
    this.open = device;
  }
  private next(): number {
    return (this.n += 1);
  }
  async do(one: Act): Promise<void> {
    await this.on(deviceOf(one.tab));
    const spy = vi.spyOn(tab, 'tabId').mockReturnValue(one.tab);
    await this.act(one);
    spy.mockRestore();
  }
  private async act(one: Act): Promise<void> {
    const n = this.next();
    const mine = this.seen[one.tab].filter(({ id }) => id.startsWith(deviceOf(one.tab)));
    const reading = mine.at(n % Math.max(1, mine.length));
    if (one.kind === 'look') this.seen[one.tab] = await database.readings.toArray();
    if (one.kind === 'log') {
      const id = `${deviceOf(one.tab)}-${n}`;
      await logReading({ ...blank, id, at: new Date(Date.UTC(2026, 1, n)).toISOString() });
      this.logged.add(id);
      this.seen[one.tab] = await database.readings.toArray();
    }
    if (one.kind === 'mend' && reading && (await database.readings.get(reading.id))) {
      // None a reading ever had: what is typed over itself is no edit.
      const value = one.field === 'note' ? `note ${n}` : n + 0.5;
      await changeReading(reading, { ...reading, [one.field]: value });
      this.typed.set(`${reading.id} ${one.field}`, value);
      this.seen[one.tab] = this.seen[one.tab].map((old) => (old === reading ? { ...old, [one.field]: value } : old));
    }
    if (one.kind === 'remove' && reading && (await database.readings.get(reading.id))) {
      await removeReading(reading);
      this.removed.add(reading.id);
    }
    if (one.kind === 'work') {
      const before = (await oneRecord('s'))!.system;
      const stageId = PARTS[one.part]!;
      // A week apart, so that no two are the same work.
      const day = new Date(Date.UTC(2027, 0, 7 * n)).toISOString();
      const id = `work-${n}`;
      const done = { id, at: day, stageId, instrumentId: null, work: 'changed' as const, why: 'due' as const, note: '' };
      await commit('work', [changedPart(before, serviced(before, done, {}))]);
      this.works.set(id, { stageId, day: day.slice(0, 10) });
    }
    if (one.kind === 'undo' || one.kind === 'redo') {
      this.tookBack = true;
      await (one.kind === 'undo' ? undo() : redo());
    }
    if (one.kind === 'exchange') await this.exchange();
  }
  /** Each device opens what the other has. */
  async exchange(): Promise<void> {
    const records: Record<string, SystemRecord> = {};
    for (const device of ['desk', 'phone'] as const) {
      await this.on(device);
      records[device] = (await oneRecord('s'))!;
    }
    for (const [device, other] of [
      ['phone', 'desk'],
      ['desk', 'phone'],
    ] as const) {
      await this.on(device);
      const merged = mergeRecords((await oneRecord('s'))!, records[other]!).record;
      await storeRecords([merged], 'opened');
      records[device] = (await oneRecord('s'))!;
    }
  }
  async record(device: Device): Promise<SystemRecord> {
    await this.on(device);
    return (await oneRecord('s'))!;
  }
}
const blank: Reading = {
  id: '',
  systemId: 's',
  at: '',
  values: [],
  pressureBar: 4,
  temperatureC: 12,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
};
const fittedOn = ({ train }: System, id: string): string | null => {
  const stage = train.stages.find((one) => one.id === id);
  return stage && 'fittedOn' in stage ? stage.fittedOn : null;
};

beforeEach(() => openDatabase());

describe('two devices and three tabs', () => {
  it('lose no reading, no figure, no work and no date, and come to say the same', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 16 }), async (acts) => {
        const world = new World();
        await world.start();
        for (const one of acts) await world.do(one);
        await world.exchange();
        await world.exchange();
        const [desk, phone] = [await world.record('desk'), await world.record('phone')];
        expect(phone.readings).toEqual(desk.readings);
        expect(phone.system.services).toEqual(desk.system.services);
        expect(phone.system.train).toEqual(desk.system.train);
        const ids = new Set(desk.readings.map(({ id }) => id));
        expect(ids.size).toBe(desk.readings.length);
        for (const id of ids) expect(world.logged.has(id)).toBe(true);
        // With nothing taken back, all is known: what was logged and not removed, each figure as it was typed last, each work.
        if (world.tookBack) return;
        for (const id of world.logged) expect([id, ids.has(id)]).toEqual([id, !world.removed.has(id)]);
        for (const [key, value] of world.typed) {
          const [id, field] = key.split(' ') as [string, Field];
          const reading = desk.readings.find((one) => one.id === id);
          if (reading) expect(reading[field]).toBe(value);
        }
        expect(desk.system.services.map(({ id }) => id).sort()).toEqual([...world.works.keys()].sort());
        for (const part of PARTS) {
          const days = [...world.works.values()].filter(({ stageId }) => stageId === part).map(({ day }) => day);
          expect(fittedOn(desk.system, part)).toBe(days.sort().at(-1) ?? null);
        }
      }),
      { numRuns: RUNS },
    );
  }, 3_600_000);
});
