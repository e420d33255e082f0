import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';

/** What a person does in the interface, in the trade's words. */

/** A field by its label. */
export const field = (page: Page, label: string): Locator => page.getByLabel(label, { exact: true }).first();

/** Types into a field and leaves it. */
export async function enter(page: Page, label: string, text: string): Promise<void> {
  await field(page, label).fill(text);
  await field(page, label).blur();
}

/** A browser that has never been here and starts without the demonstration. */
export async function firstVisit(page: Page): Promise<void> {
  await page.addInitScript(() => {
    // Taken before the app reads it: as if the server had not offered the demonstration.
    new MutationObserver(() => document.querySelector('meta[name="yes-clear-demo"]')?.setAttribute('content', 'off')).observe(document, {
      childList: true,
      subtree: true,
    });
  });
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'From the tap to a logged reading.' })).toBeVisible();
}

/** Opens the demonstration's system at a phase. */
export async function openDemo(page: Page, id: string, phase: string): Promise<void> {
  await page.goto(`/system/${id}/${phase}`);
  await expect(page.getByRole('main').first()).toBeVisible();
  if (phase === 'train') await expect(page.getByRole('table', { name: 'Stations' })).toBeVisible();
}

/** Opens a lens of the workbench. */
export const lens = (page: Page, name: string): Promise<void> =>
  page.getByRole('tablist', { name: 'Lenses' }).getByRole('tab', { name }).click();

/** Opens the findings that stand folded. */
export const allFindings = (page: Page): Promise<void> => page.getByRole('button', { name: /^\d+ more remarks?$/ }).click();

/** A row of the ledger as the figures it shows; the ledger is opened where another lens is. */
export async function ledgerRow(page: Page, label: string | RegExp): Promise<string[]> {
  const tab = page.getByRole('tab', { name: 'Ledger' });
  if ((await tab.getAttribute('aria-selected')) !== 'true') await tab.click();
  const row = page.getByRole('row').filter({ has: page.getByRole('rowheader', { name: label }) });
  // The ledger comes with its figures: read before, a row is nothing.
  await expect(row.getByRole('cell').first()).toHaveText(/\d/);
  return row.getByRole('cell').allInnerTexts();
}

export const phase = (page: Page, name: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name }).click();

/** Picks from a list by its label; the field around the combobox is what a finger hits. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.locator('.v-field', { has: page.getByRole('combobox', { name: label }) }).click();
  await page.getByRole('option', { name: option }).click();
}

/** Systems of the demonstration. */
export const DEMO = 6;

/** The page can be used without seeing or a mouse, as far as a machine can tell: WCAG A and AA. */
export async function expectAccessible(page: Page): Promise<void> {
  const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
  const told = found.violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes
        .slice(0, 3)
        .map((node) => node.target.join(' '))
        .join(' | ')}`,
  );
  expect(told).toEqual([]);
}

/** Takes the demonstration away, and says yes when asked. */
export async function removeDemo(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Remove the demo' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
}

/** A row of the database as it stands. */
export const storedSystem = (page: Page, id: string): Promise<StoredSystem | null> =>
  page.evaluate(
    (key) =>
      new Promise<StoredSystem | null>((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onerror = () => failed(new Error('no database'));
        open.onsuccess = () => {
          const get = open.result.transaction('systems').objectStore('systems').get(key);
          get.onsuccess = () => {
            open.result.close();
            done(((get.result as { system: StoredSystem } | undefined) ?? null)?.system ?? null);
          };
        };
      }),
    id,
  );
/** As much of a stored system as the tests look at. */
export interface StoredSystem {
  readonly name: string;
  readonly source: {
    readonly linePressureBar: number;
    readonly samples: readonly { readonly temperatureC: number; readonly kit: { readonly pH: number | null } }[];
  };
  readonly train: { readonly stages: readonly { readonly id: string; readonly name: string }[] };
  readonly services: readonly { readonly stageId: string | null; readonly work: string; readonly why: string; readonly at: string }[];
}

/** Readings stored of a system, by what was noted with them. */
export const storedNotes = (page: Page, systemId: string): Promise<string[]> =>
  page.evaluate(
    (key) =>
      new Promise<string[]>((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onerror = () => failed(new Error('no database'));
        open.onsuccess = () => {
          const all = open.result.transaction('readings').objectStore('readings').index('systemId').getAll(key);
          all.onsuccess = () => {
            open.result.close();
            done((all.result as { note: string }[]).map(({ note }) => note));
          };
        };
      }),
    systemId,
  );

/** The browser's process of a page dies, as when the power goes. */
export async function crash(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const crashed = page.waitForEvent('crash');
  void session.send('Page.crash').catch(() => undefined);
  await crashed;
}

/**
 * From now on the store of this page ends every write as a full disk does: request and transaction end with a
 * QuotaExceededError and nothing of them is stored; or it takes again what it is given.
 */
export async function fillDisk(page: Page, full: boolean): Promise<void> {
  await page.evaluate(refusePuts, full);
}

/** The same for the workers of a page, those that come included. */
export async function fillWorkers(page: Page, full: boolean): Promise<void> {
  page.removeAllListeners('worker');
  if (full) page.on('worker', (worker) => void worker.evaluate(refusePuts, true).catch(() => undefined));
  await Promise.all(page.workers().map((worker) => worker.evaluate(refusePuts, full)));
}

function refusePuts(on: boolean): void {
  const proto = IDBObjectStore.prototype as unknown as { put: IDBObjectStore['put']; whole?: IDBObjectStore['put'] };
  proto.whole ??= proto.put;
  const whole = proto.whole;
  proto.put = on
    ? function (this: IDBObjectStore, ...args: Parameters<IDBObjectStore['put']>): IDBRequest<IDBValidKey> {
        let request: IDBRequest<IDBValidKey>;
        try {
          request = whole.apply(this, args);
        } catch {
          // The one before has ended the transaction.
          throw new DOMException('', 'QuotaExceededError');
        }
        const full = { get: () => new DOMException('', 'QuotaExceededError') };
        Object.defineProperty(request, 'error', full);
        Object.defineProperty(this.transaction, 'error', full);
        this.transaction.abort();
        return request;
      }
    : whole;
}

/** Rounds with every system worked out. */
export async function openRounds(page: Page, systems = DEMO): Promise<void> {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(systems);
  await expect(page.getByText('Being worked out')).toHaveCount(0);
}

/** Many systems like the first of the demonstration, written straight into the database of a page. */
export const storeMany = (page: Page, systems: number, readingsEach: number): Promise<void> =>
  page.evaluate(
    ([count, each]) =>
      new Promise<void>((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onsuccess = () => {
          const change = open.result.transaction(['systems', 'readings'], 'readwrite');
          const [stored, readings] = [change.objectStore('systems'), change.objectStore('readings')];
          stored.get('demo-coral-nursery').onsuccess = (event) => {
            const row = (event.target as IDBRequest).result as { system: object };
            readings.index('systemId').getAll('demo-coral-nursery').onsuccess = (found) => {
              const own = (found.target as IDBRequest).result as { at: string }[];
              const last = Date.parse(own.at(-1)!.at);
              for (let i = 0; i < count; i++) {
                const id = `many-${i}`;
                stored.put({ id, revision: 1, system: { ...row.system, id, name: `Many ${i}`, demo: false } });
                for (let k = 0; k < each; k++)
                  readings.put({
                    ...own[k % own.length],
                    id: `${id}-${k}`,
                    systemId: id,
                    at: new Date(last - (each - k) * 3_600_000).toISOString(),
                  });
              }
            };
          };
          change.oncomplete = () => {
            open.result.close();
            done();
          };
          change.onerror = () => failed(change.error);
        };
      }),
    [systems, readingsEach] as const,
  );

/** A recording of a system as the database holds it: its days, all of its figures, and what the newest day counts. */
export interface StoredRecord {
  readonly name: string;
  readonly days: number;
  readonly figures: number;
  readonly counted: Readonly<Record<string, number>>;
}
export const storedRecords = (page: Page, systemId: string): Promise<StoredRecord[]> =>
  page.evaluate(
    (key) =>
      new Promise<StoredRecord[]>((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onerror = () => failed(new Error('no database'));
        open.onsuccess = () => {
          const read = open.result.transaction(['recordings', 'blocks']);
          const rows = read.objectStore('recordings').index('systemId').getAll(key);
          const blocks = read.objectStore('blocks').getAll();
          read.oncomplete = () => {
            open.result.close();
            done(
              (rows.result as { id: string; name: string; days: { figures: [string, number][] }[] }[]).map(({ id, name, days }) => ({
                name,
                days: days.length,
                figures: (blocks.result as { recordingId: string; at: Uint32Array }[])
                  .filter(({ recordingId }) => recordingId === id)
                  .reduce((sum, { at }) => sum + at.length, 0),
                counted: Object.fromEntries(
                  (days.at(-1)?.figures ?? []).filter(([channel]) => channel === 'productLPerH' || channel.startsWith('probe:')),
                ),
              })),
            );
          };
        };
      }),
    systemId,
  );

/** Every instant at which a channel was heard, as the database holds it, ms, and how many blocks there are in all. */
export const storedInstants = (page: Page, channel: string): Promise<{ readonly at: number[]; readonly blocks: number }> =>
  page.evaluate(
    (key) =>
      new Promise<{ at: number[]; blocks: number }>((done, failed) => {
        const open = indexedDB.open('yes-clear');
        open.onerror = () => failed(new Error('no database'));
        open.onsuccess = () => {
          const all = open.result.transaction('blocks').objectStore('blocks').getAll();
          all.onsuccess = () => {
            open.result.close();
            const own = (all.result as { channel: string; startMs: number; at: Uint32Array }[]).filter((block) => block.channel === key);
            done({
              at: own.flatMap(({ startMs, at }) => [...at].map((ms) => startMs + ms)).sort((a, b) => a - b),
              blocks: all.result.length,
            });
          };
        };
      }),
    channel,
  );

/** A logger's file: so many rows a minute apart from a day on, running two hours in six. */
export function loggerFile(rows: number, from: number): Buffer {
  const lines = ['time,tap,after membrane,after resin,product L/h,temperature C'];
  for (let i = 0; i < rows; i++) {
    const runs = Math.floor(i / 60) % 6 < 2;
    const at = new Date(from + i * 60_000).toISOString().slice(0, 19).replace('T', ' ');
    lines.push(`${at},${306 + (i % 5)},${runs ? 7 : 22},0,${runs ? 14.6 : 0},14`);
  }
  return Buffer.from(lines.join('\n'));
}
