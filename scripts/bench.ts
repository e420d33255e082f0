/**
 * `npm run bench`: speed and memory as medians on this machine in one run, written to docs/benchmarks.md; with the name of a
 * part (`core`, `log`, `choice`) that part alone, each part a run of its own.
 * Node figures time core functions; browser figures time the built app in Debian's Chromium.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { cpus, totalmem } from 'node:os';
import { fileURLToPath } from 'node:url';
import { chromium, type Browser, type Page } from '@playwright/test';
import { CHROMIUM } from '../playwright.config';
import { createServer } from '../server/app';
import { trimAdvice } from '../core/commission';
import { solveMembraneUnit, type MembraneUnit } from '../core/membrane';
import { membraneOperation, solveTrain, tapWater } from '../core/train';
import { moreWater, reportTrain } from '../core/advice';
import { systemFromTemplate } from '../core/template';
import { readReport } from '../core/report';
import { calciteState, characterWater, completeWater, settleWater } from '../core/water';

import { choicePageRows, choiceRows, searchRows } from './benchChoice';
import { columnRows } from './benchColumn';
import { faultRows } from './benchFaults';
import { recordsRows } from './benchRecords';
import { roundsRows } from './benchRounds';
import { median, must, time, type Row } from './benchKit';
import { writePart, type Heading } from './benchPaper';

const DIST = fileURLToPath(new URL('../app/dist', import.meta.url));
const LONG_REPORT = Array.from({ length: 1000 }, (_, i) => `Parameter ${i}\tmg/l\t${i}`).join('\n');

const household = systemFromTemplate({ id: 'h', name: 'Bench', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const tapOf = (system: typeof household): Parameters<typeof moreWater>[1] => must(tapWater(system.source, system.instruments)).water;

function nodeRows(): Row[] {
  const base = systemFromTemplate({ id: 'b', name: 'Bench', site: 'Bench', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
  const pair = base.train;
  const single = {
    ...pair,
    stages: pair.stages.map((stage) =>
      stage.kind === 'membrane'
        ? {
            ...stage,
            arrangement: 'single' as const,
            restrictor: { form: 'tube' as const, lengthMm: 300, boreMm: 1.2, assumed: false, flushLever: false },
          }
        : stage,
    ),
  };
  const water = must(tapWater(base.source, base.instruments)).water;
  const solved = must(solveTrain(pair, base.source, water));
  const operation = membraneOperation(pair, base.source, solved)!;
  const unitOf = (template: 'skid' | 'watermaker', change: Partial<MembraneUnit> = {}): (() => unknown) => {
    const system = systemFromTemplate({ id: template, name: 'Bench', site: 'Bench', template, at: '2026-01-01T00:00:00Z' });
    const tap = must(tapWater(system.source, system.instruments)).water;
    const at = membraneOperation(system.train, system.source, must(solveTrain(system.train, system.source, tap)))!;
    return () => solveMembraneUnit({ ...at.unit, ...change }, at.feed, at.conditions);
  };
  /** What the dearest opening of a recycle valve costs, in solves of the train without it. */
  const widest = (template: 'skid' | 'watermaker'): number => {
    const system = systemFromTemplate({ id: template, name: 'Bench', site: 'Bench', template, at: '2026-01-01T00:00:00Z' });
    const tap = must(tapWater(system.source, system.instruments)).water;
    const solving = (recycleKv: number | null): number => {
      const stages = system.train.stages.map((stage) => (stage.kind === 'membrane' ? { ...stage, recycleKv, recycleLPerH: 0 } : stage));
      return time(() => solveTrain({ ...system.train, stages }, system.source, tap), 8);
    };
    const plain = solving(null);
    return Math.max(...[1e-4, 0.01, 0.1, 0.3, 1, 5, 20, 100].map((kv) => solving(kv) / plain));
  };
  const alkaline = must(characterWater('softSurface', 1, 9));
  // The solver is warm before the first row is taken, as it is in the app after the first page.
  time(() => solveTrain(pair, base.source, water), 600);
  return [
    {
      what: 'Solve a 7-stage train, one membrane',
      median: time(() => solveTrain(single, base.source, water), 600),
      unit: 'ms',
      limit: 1,
      note: 'sediment, two carbons, membrane, two resins, tank',
    },
    {
      what: 'The same on a feed of pH 9, with hydroxide through the membrane',
      median: time(() => solveTrain(single, base.source, alkaline), 600),
      unit: 'ms',
      limit: 1,
      note: 'a soft water; the second march is run once, at the point found',
    },
    {
      what: 'Solve a 7-stage train, two membranes in series',
      median: time(() => solveTrain(pair, base.source, water), 600),
      unit: 'ms',
      limit: null,
      note: 'the same with a second element',
    },
    {
      what: 'Solve a 2:2 array with recycle',
      median: time(unitOf('skid', { recycleKv: null }), 200),
      unit: 'ms',
      limit: 5,
      note: 'four 4 × 40 in elements, centrifugal pump, all ions; 1136 L/h recycled',
    },
    {
      what: 'The same with a valve in the recycle',
      median: time(unitOf('skid'), 200),
      unit: 'ms',
      limit: null,
      note: 'what is led back follows from the pressures',
    },
    {
      what: 'The widest recycle valve against none',
      median: Math.max(widest('skid'), widest('watermaker')),
      unit: 'times',
      limit: 30,
      note: 'whole train, Kv 0.0001 to 100, skid and watermaker, solved or refused: the dearest of them',
    },
    {
      what: 'Solve a seawater vessel',
      median: time(unitOf('watermaker'), 300),
      unit: 'ms',
      limit: 2,
      note: 'one 2.5 × 40 in element, piston pump, pressure valve',
    },
    {
      what: 'More water: seven ways solved',
      median: time(() => moreWater(household, tapOf(household)), 20),
      unit: 'ms',
      limit: null,
      note: 'household unit',
    },
    {
      what: 'Full report of that train',
      median: time(() => reportTrain(base, water), 200),
      unit: 'ms',
      limit: null,
      note: 'with winter, scaling and findings',
    },
    {
      what: 'Speciation with pH and conductivity',
      median: 1000 * time(() => settleWater({ ...water, temperatureC: 25 }), 3000),
      unit: 'µs',
      limit: 50,
      note: 'municipal water at 25 °C',
    },
    {
      what: 'Complete a water from meter, hardness, alkalinity and pH',
      median: time(
        () => completeWater({ character: 'municipal', temperatureC: 25, ec25UScm: 480, hardnessMgL: 150, alkalinityMgL: 110, pH: 7.6 }),
        800,
      ),
      unit: 'ms',
      limit: 2,
      note: 'least squares with bounds, and the uncertainty of every ion',
    },
    {
      what: 'Complete a water from one meter reading',
      median: time(() => completeWater({ character: 'municipal', temperatureC: 25, ec25UScm: 480 }), 800),
      unit: 'ms',
      limit: null,
      note: 'the kind of supply scaled to it',
    },
    {
      what: 'Lime at 125 °C',
      median: 1000 * time(() => calciteState(water, 125), 400),
      unit: 'µs',
      limit: null,
      note: 'index and precipitation potential, closed',
    },
    {
      what: 'Read a report of 1,000 lines',
      median: time(() => readReport(LONG_REPORT), 40),
      unit: 'ms',
      limit: null,
      note: 'units, bases and decimal commas recognised',
    },
    {
      what: 'Trim advice from two jugs',
      median: time(
        () => trimAdvice(operation.unit, operation.feed, operation.conditions, { wasteToProduct: 3, uncertainty: 0.1, recovery: 0.25 }, 4),
        20,
      ),
      unit: 'ms',
      limit: null,
      note: 'calibration, target and span: some 80 unit solves',
    },
  ];
}

/** Runs in the page: types 41 lengths into the restrictor's field and times each to the frame after the picture changed. */
const TYPE_AND_TIME = `(async () => {
  const field = [...document.querySelectorAll('.quantity')].find((q) => q.textContent.includes('Restrictor length')).querySelector('input');
  const picture = document.querySelector('.descent.large svg');
  const times = [];
  for (let i = 0; i < 41; i++) {
    const before = picture.innerHTML;
    const start = performance.now();
    field.value = (15 + (i % 20) * 0.7).toFixed(1);
    field.dispatchEvent(new Event('input', { bubbles: true }));
    do await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
    while (picture.innerHTML === before && performance.now() - start < 2000);
    times.push(performance.now() - start);
    await new Promise((done) => setTimeout(done, 60));
  }
  return times;
})()`;

/** Median time from a key in the restrictor field to the repainted descent, ms. */
async function editToRepaint(page: Page, origin: string): Promise<number> {
  await page.goto(`${origin}/system/demo-coral-nursery/train`);
  await page.getByRole('button', { name: /^Membrane ×2, stage/ }).click();
  await page.getByLabel('Restrictor length').waitFor();
  return median((await page.evaluate(TYPE_AND_TIME)) as number[]);
}

/** The built app in a browser, for whoever times something in it. */
async function inBrowser(rows: (browser: Browser, origin: string) => Promise<Row[]>): Promise<Row[]> {
  const listening = createServer({ dist: DIST, demo: true }).listen(0, '127.0.0.1');
  await new Promise((ready) => listening.once('listening', ready));
  const origin = `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    return await rows(browser, origin);
  } finally {
    await browser.close();
    listening.close();
  }
}

async function pageRows(browser: Browser, origin: string): Promise<Row[]> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  // What other pages load ahead while the browser rests does not hold Rounds up.
  await page.addInitScript(() => (window.requestIdleCallback = () => 0));
  const scripts: string[] = [];
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script') scripts.push(new URL(response.url()).pathname);
  });
  await page.goto(origin);
  await page.getByRole('article').first().waitFor();
  // What index.html itself asks for; the page of Rounds and the demonstration's files come on demand.
  const html = readFileSync(`${DIST}/index.html`, 'utf8');
  const first = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map((match) => match[1]!);
  const gzipped = (paths: readonly string[]): number =>
    paths.reduce((sum, path) => sum + execFileSync('gzip', ['-9', '-c', `${DIST}${path}`]).length, 0) / 1000;
  const own = (): string[] => [...new Set(scripts.splice(0))].filter((path) => path.startsWith('/assets/'));
  const firstVisit = own();
  await page.goto(origin);
  await page.getByRole('article').first().waitFor();
  await page.getByText('Being worked out').first().waitFor({ state: 'detached' });
  const nextVisit = own();
  // What a worker fetches for itself is not the page's: its own file, and all that file stands on, unless the page stands on it too.
  const standsOn = (paths: readonly string[], known = new Set<string>()): Set<string> => {
    for (const path of paths) {
      if (known.has(path)) continue;
      known.add(path);
      const text = readFileSync(`${DIST}${path}`, 'utf8');
      standsOn(
        [...text.matchAll(/(?:from|import)\s*["']\.\/([^"']+\.js)["']/g)].map((match) => `/assets/${match[1]!}`),
        known,
      );
    }
    return known;
  };
  const isWorker = (path: string): boolean => /\/(compute|listening)-/.test(path);
  const workers = standsOn([...new Set([...firstVisit, ...nextVisit])].filter(isWorker));
  const pages = standsOn([...first, ...firstVisit.filter((path) => !workers.has(path))]);
  const isBeside = (path: string): boolean => workers.has(path) && !pages.has(path);
  const onThePage = (paths: readonly string[]): number => gzipped(paths.filter((path) => !isBeside(path)));
  const repaint = await editToRepaint(page, origin);
  const memory = await page.evaluate(() => (performance as unknown as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize ?? 0);
  return [
    {
      what: 'Typed edit to repainted descent',
      median: repaint,
      unit: 'ms',
      limit: 50,
      note: 'restrictor length of the 7-stage demo, 41 edits in Chromium',
    },
    {
      what: 'JavaScript of the first load, gzipped',
      median: gzipped(first),
      unit: 'kB',
      limit: 300,
      note: `${first.length} files named by index.html`,
    },
    {
      what: 'JavaScript until Rounds stands, gzipped',
      median: onThePage(firstVisit),
      unit: 'kB',
      limit: 276,
      note: `first visit, with the demo files; the worker beside it loads ${Math.round(gzipped(firstVisit.filter(isBeside)))} kB more`,
    },
    {
      what: 'The same on a later visit',
      median: onThePage(nextVisit),
      unit: 'kB',
      limit: 250,
      note: 'nothing of it kept by the browser yet',
    },
    { what: 'Memory of the Train page', median: memory / 1e6, unit: 'MB', limit: null, note: 'JavaScript heap after the edits' },
  ];
}

const figure = (value: number): string => (value >= 100 ? value.toFixed(0) : value >= 10 ? value.toFixed(1) : value.toFixed(2));
const PARTS: Readonly<Record<string, { readonly heading: Heading; readonly rows: () => Promise<Row[]> }>> = {
  core: {
    heading: '# Benchmarks',
    rows: async () => [...nodeRows(), ...columnRows(), ...faultRows(), ...(await inBrowser(pageRows))],
  },
  log: {
    heading: '## Rounds and Log',
    rows: () => inBrowser(async (browser, origin) => [...(await roundsRows(browser, origin)), ...(await recordsRows(browser, origin))]),
  },
  choice: {
    heading: '## Choosing, and the years ahead',
    rows: async () => [...(await searchRows()), ...choiceRows(), ...(await inBrowser(choicePageRows))],
  },
};
const asked = process.argv.slice(2);
const unknown = asked.find((name) => !(name in PARTS));
if (unknown !== undefined) {
  console.error(`There is no part “${unknown}”; accepted is ${Object.keys(PARTS).join(', ')}.`);
  process.exit(1);
}
const machine = `${cpus()[0]?.model ?? 'an unnamed processor'} (${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB), Node ${process.version}`;
for (const name of asked.length > 0 ? asked : Object.keys(PARTS)) {
  const { heading, rows: measure } = PARTS[name]!;
  const rows = await measure();
  const table = rows.map(
    (row) => `| ${row.what} | ${figure(row.median)} ${row.unit} | ${row.limit === null ? '' : `${row.limit} ${row.unit}`} | ${row.note} |`,
  );
  const text = `Medians of one run of \`npm run bench\`${asked.length > 0 ? ` (\`${name}\`)` : ''} on ${new Date().toISOString().slice(0, 10)}, on ${machine}.

| What | Median | Limit | How |
|---|---|---|---|
${table.join('\n')}
`;
  writePart(heading, text);
  console.log(text);
  const over = rows.filter((row) => row.limit !== null && !(row.median <= row.limit));
  if (over.length > 0) {
    console.error(`Over the limit: ${over.map((row) => row.what).join('; ')}`);
    process.exitCode = 1;
  }
}
