import { METRIC_UNITS } from '../quantity';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { demandLPerWeek } from '../goal';
import { NOTHING_BUILT, NOTHING_SAID, OPEN_CHOICE, PLACEHOLDER_PRICES } from './defaults';
import { currentSample } from './select';
import { readDocument, writeDocument, readingIssue, saveDocument, systemIssue, unlikelyDates, type FileOutcome } from './document';
import type { SystemRecord } from './record';
import { FILE_VERSION } from './versions';
import { systemSchema, kitSchema, readingSchema, type Reading, TEMPLATE_IDS } from './schema';
import { boundsOf, longest } from '../quantity';
import { NO_LABEL } from '../stage';

const record: SystemRecord = {
  system: systemFromTemplate({ id: 'sys-1', name: 'Bench unit', site: 'Workshop', template: 'marinePair', at: '2026-11-23T10:00:00Z' }),
  readings: [
    {
      id: 'r1',
      systemId: 'sys-1',
      at: '2026-11-23T10:05:00Z',
      values: [{ probeId: 'probe-tap', instrumentId: 'meter', shown: 311 }],
      pressureBar: 4.1,
      temperatureC: 11.25,
      productLPerH: 24.6,
      wasteLPerH: 90,
      meterL: 5230,
      ...NOTHING_SAID,
      note: 'first',
    } satisfies Reading,
  ],
};
/** What version 11 adds to a system and a reading that say nothing of it. */
type Said = Record<string, unknown>;
const all = (list: unknown, also: object): unknown => (list as Said[]).map((one) => ({ ...one, ...also }));
/** What nobody had been asked of a cartridge before version 12. */
const PLAIN_CARTRIDGE = { table: [], hardnessIs: 'carbonate', withCarbon: null, litresMeter: true, softens: false };
const NO_RANGE = { hardnessToMgL: null, alkalinityToMgL: null };
const withPlaces = (system: Said): Said => {
  const train = system['train'] as Said;
  const source = system['source'] as Said;
  const goal = system['goal'] as Said;
  const demand = goal['demand'] as Said;
  const choice = system['choice'];
  return {
    ...system,
    source: {
      ...source,
      samples: (source['samples'] as Said[]).map((sample) => ({ ...sample, kit: { ...(sample['kit'] as Said), ...NO_RANGE } })),
    },
    goal: {
      ...goal,
      demand: { ...demand, hoursPerDay: 8, cupL: 0.15, draws: [], season: null, batches: all(demand['batches'], { count: 1 }) },
    },
    ...(choice ? { choice: { ...(choice as Said), wasteBarrelL: null } } : {}),
    build: { ...(system['build'] as Said), stands: { how: 'new', since: null }, hangs: null },
    tasks: [],
    away: [],
    orderDays: null,
    removed: [],
    services: all(system['services'] ?? [], { taskId: null }),
    instruments: all(system['instruments'], { carried: false }),
    train: {
      ...train,
      stages: (train['stages'] as Said[]).map((stage) =>
        stage['kind'] === 'membrane'
          ? { ...stage, label: NO_LABEL, restrictor: { ...(stage['restrictor'] as Said), form: 'tube', flushLever: false } }
          : stage['kind'] === 'carbon'
            ? { ...stage, ratedAgainst: 'chlorine' }
            : stage['kind'] === 'decarboniser'
              ? { ...stage, ...PLAIN_CARTRIDGE }
              : stage['kind'] === 'softener'
                ? { ...stage, saltTankKg: null }
                : stage['kind'] === 'uv'
                  ? { ...stage, organic: null }
                  : stage,
      ),
      wasteWhy: 'trade',
      meter: { counts: 'up', setToL: null, rollsOverL: null },
      gauges: [],
      probes: all(train['probes'], { side: 'out', vessel: null }),
    },
  };
};
/** A file is spoiled so many times; `npm run fuzz` does it 10,000 times. */
const RUNS = Number(process.env['FUZZ_RUNS'] ?? 1500);
const saved = writeDocument([record], '2026-11-23T11:00:00Z');
/** Puts a value somewhere inside JSON data; undefined takes the key away. */
function put(data: object, path: readonly (string | number)[], value: unknown): void {
  const holder = path.slice(0, -1).reduce<object>((at, key) => (at as Record<string | number, object>)[key]!, data) as Record<
    string | number,
    unknown
  >;
  const last = path[path.length - 1]!;
  if (value === undefined) delete holder[last];
  else holder[last] = value;
}
/** The saved file with one change somewhere inside. */
function altered(
  change: (data: { records: { system: Record<string, never>; readings: never[] }[] } & Record<string, unknown>) => void,
): FileOutcome {
  const data = JSON.parse(saved);
  change(data);
  return readDocument(JSON.stringify(data));
}
/** The first member of a list, once more. */
const twice = (list: unknown): void => void (list as unknown[]).splice(1, 0, (list as unknown[])[0]);
const message = (outcome: FileOutcome): string => (outcome.ok ? '' : outcome.error.message);

describe('a file of version 1', () => {
  const old = readFileSync(new URL('./fixtures/version-1.yesclear.json', import.meta.url), 'utf8');
  const outcome = readDocument(old);
  const system = outcome.ok ? outcome.records[0]!.system : null;
  it('is read whole and written as the present version', () => {
    expect(message(outcome)).toBe('');
    expect(outcome.ok && outcome.records[0]!.readings).toHaveLength(2);
    const written = JSON.parse(writeDocument(outcome.ok ? outcome.records : [], '2026-11-23T11:00:00Z'));
    expect(written.version).toBe(FILE_VERSION);
    expect(readDocument(JSON.stringify(written)).ok).toBe(true);
  });
  it('keeps the sample, its meter and its season', () => {
    const sample = currentSample(system!.source);
    expect([sample.way, sample.reading, sample.character, sample.temperatureC]).toEqual(['meter', 244, 'chalk', 11]);
    expect(system!.source.season).toMatchObject({ lowestTemperatureC: 5, highestTemperatureC: 17 });
    expect(system!.instruments[0]).toMatchObject({ gain: 1, offset: 0, compensation: 'linear', alphaPerC: 0.02, calibratedOn: null });
  });
  it('keeps the need: 1400 L a week', () => {
    expect(demandLPerWeek(system!.goal.demand)).toBeCloseTo(1400, 9);
    expect(system!.goal.demand.per).toBe('week');
    expect(system!.goal).toMatchObject({ crewLimitPpm: 5, school: null, prepare: { how: 'none' } });
  });
  it('a kit in version 1 stays a kit', () => {
    const data = JSON.parse(old);
    data.records[0].system.source.sample = { ...data.records[0].system.source.sample, hardnessMgL: 300, pH: 7.2 };
    const kit = readDocument(JSON.stringify(data));
    const sample = kit.ok ? currentSample(kit.records[0]!.system.source) : null;
    expect([sample?.way, sample?.kit.hardnessMgL, sample?.kit.alkalinityMgL, sample?.kit.pH]).toEqual(['kit', 300, null, 7.2]);
  });
  it('spoiled, is refused with a path and never an exception', () => {
    const data = JSON.parse(old);
    data.records[0].system.source.sample = 'gone';
    expect(message(readDocument(JSON.stringify(data)))).toContain('records[0].system.source.samples[0] is "gone"');
    expect(message(readDocument(JSON.stringify({ ...data, records: 3 })))).toContain('records is 3');
  });
});

describe('a file of version 2', () => {
  const outcome = readDocument(readFileSync(new URL('./fixtures/version-2.yesclear.json', import.meta.url), 'utf8'));
  const system = outcome.ok ? outcome.records[0]!.system : null;
  it('keeps what was entered of its stages, and asks what version 2 did not', () => {
    expect(message(outcome)).toBe('');
    expect(system!.train.stages.map((stage) => ('loading' in stage ? stage.loading : null))).toEqual([0.3, 0.3, null, null, null]);
    const membrane = system!.train.stages.find((stage) => stage.kind === 'membrane');
    expect(membrane).toMatchObject({
      waterFactor: 0.95,
      saltFactor: 1.08,
      valve: { kind: 'pressure', bar: 55 },
      recycleKv: null,
      bypassAfter: null,
    });
    expect(system!.train.stages.find((stage) => stage.kind === 'pump')!.pump).toMatchObject({ kind: 'displacement', energyRecovery: 0 });
    expect(system!.source.silt).toBeNull();
    expect(system!.train.stages.at(-1)).toMatchObject({ volumeL: 300, prechargeBar: null, startShare: 0.6, stopShare: 0.9 });
    expect([system!.source.turbidityNTU, system!.prices.currency]).toEqual([0.5, 'EUR']);
  });
});

describe('a file of version 3', () => {
  const text = readFileSync(new URL('./fixtures/version-3.yesclear.json', import.meta.url), 'utf8');
  it('holds the same today, but for what was not asked then', () => {
    const outcome = readDocument(text);
    expect(message(outcome)).toBe('');
    type Raw = Record<string, unknown>;
    const { records } = JSON.parse(text) as {
      records: {
        system: {
          createdAt: string;
          updatedAt: string;
          instruments: Raw[];
          source: Raw;
          units: unknown;
          prices: Raw;
          build: Raw;
          train: { stages: Raw[] } & Raw;
        };
        readings: Raw[];
      }[];
    };
    for (const { system } of records) {
      system.instruments = system.instruments.map(({ compensated: _, ...one }) => ({ ...one, compensation: 'linear' }));
      const stages = system.train.stages.map((one) => ({
        ...one,
        ...(one['kind'] === 'resin' && { floorUScm: null }),
        ...(one['kind'] === 'decarboniser' && { settings: [], box: { litres: null, hardnessMgL: null, bypass: null } }),
        ...(one['kind'] === 'membrane' && { restrictor: { ...(one['restrictor'] as Raw), assumed: false } }),
      }));
      const pumped = stages.some((one) => (one as Raw)['kind'] === 'pump');
      system.train = { ...system.train, stages, scaleActionIndex: null, gauge: pumped ? 'membrane' : 'line' };
      Object.assign(system, { services: [], upkeep: [], choice: OPEN_CHOICE, sensors: [] });
      delete system.prices['membranePerYear'];
      system.source = { ...system.source, assumed: [] };
      system.units = { ...METRIC_UNITS, hardness: '°dH' };
      const { done, ...build } = system.build as Raw & { done: string[] };
      const first = {
        id: 'work-1',
        kind: 'newBuild',
        stageId: null,
        startedAt: system.createdAt,
        endedAt: null,
        measured: [],
        cautions: [],
        deviations: [],
      };
      system.build = {
        ...NOTHING_BUILT,
        colours: { feed: 'red', product: 'blue', waste: 'black' },
        ...build,
        works: done.length === 0 ? [] : [{ ...first, done: done.map((step) => ({ step, at: system.updatedAt })) }],
        ports: [],
      };
      const { filter, inhibitor, lamp, carbonPerL, cartridgePerL, calcitePerL, saltPerKg } = PLACEHOLDER_PRICES;
      system.prices = { ...system.prices, filter, inhibitor, lamp, carbonPerL, cartridgePerL, calcitePerL, saltPerKg };
    }
    const said = (one: Raw): Raw => ({ ...one, also: [], counts: true, confirmed: [], photos: [], editedAt: null });
    expect(outcome.ok && outcome.records).toEqual(
      records.map((one) => ({ ...one, system: withPlaces(one.system), readings: one.readings.map(said) })),
    );
  });
  it('did not know of a stage that is newer: what a version 4 file says of it is named, not guessed', () => {
    const data = JSON.parse(text);
    data.records[0].system.train.stages[0].kind = 'later';
    expect(message(readDocument(JSON.stringify(data)))).toContain('records[0].system.train.stages[0].kind');
  });
});

describe('a file of version 4', () => {
  const text = readFileSync(new URL('./fixtures/version-4.yesclear.json', import.meta.url), 'utf8');
  it('says of its meters how they correct', () => {
    const outcome = readDocument(text.replace('"compensated": true', '"compensated": false'));
    expect(message(outcome)).toBe('');
    expect(outcome.ok && outcome.records[0]!.system.instruments.map((one) => one.compensation)[0]).toBe('none');
    expect(outcome.ok && outcome.records[0]!.readings).toHaveLength(3);
  });
});

describe('a file of version 6', () => {
  const text = readFileSync(new URL('./fixtures/version-6.yesclear.json', import.meta.url), 'utf8');
  const outcome = readDocument(text);
  it('is read as it is: nothing was kept beside its readings', () => {
    expect(message(outcome)).toBe('');
    const record = (outcome.ok && outcome.records[0]) as SystemRecord;
    expect(record.beside).toBeUndefined();
    expect(record.readings.length).toBe((JSON.parse(text) as { records: { readings: unknown[] }[] }).records[0]!.readings.length);
    expect(record.system.services.length).toBeGreaterThan(0);
  });
  it('of version 7 says where a record of a meter cannot be used', () => {
    const data = JSON.parse(text);
    data.version = 7;
    for (const record of data.records) for (const reading of record.readings) reading.editedAt = null;
    data.records[0].beside = {
      recordings: [],
      photos: [{ id: 'p', readingId: 'r', takenAt: '2026-11-23T10:00:00Z', type: 'image/jpeg', data: 'not base64!' }],
    };
    expect(message(readDocument(JSON.stringify(data)))).toMatch(/records\[0\]\.beside\.photos\[0\]\.data/);
  });
});

describe('a file of version 7', () => {
  it('is given what options are held against, for nobody had been asked', () => {
    const outcome = readDocument(readFileSync(new URL('./fixtures/version-7.yesclear.json', import.meta.url), 'utf8'));
    expect(message(outcome)).toBe('');
    expect(outcome.ok && outcome.records[0]!.system.choice).toMatchObject({ horizonYears: 6, wallMm: null, bought: [] });
  });
});

describe('a file of version 8', () => {
  it('opens the same, with all of its waste drained: nobody had been asked', () => {
    const text = readFileSync(new URL('./fixtures/version-8.yesclear.json', import.meta.url), 'utf8');
    const outcome = readDocument(text);
    expect(message(outcome)).toBe('');
    const [record] = outcome.ok ? outcome.records : [];
    const { choice, prices, ...rest } = JSON.parse(text).records[0].system;
    const { membranePerYear: _, ...paid } = prices;
    const stages = (all: readonly object[]): object[] =>
      all.map((stage) => ('elementClass' in stage ? { ...stage, elementClass: 'household75' } : stage));
    expect(record!.system).toEqual(
      withPlaces({
        ...rest,
        train: { ...rest.train, stages: stages(rest.train.stages) },
        prices: paid,
        choice: { ...choice, wasteUsedShare: 0 },
      }),
    );
    expect(record!.readings).toHaveLength(2);
  });
  it('reads a meter on mixed salts, whose scale was named by its proportions', () => {
    const data = JSON.parse(readFileSync(new URL('./fixtures/version-8.yesclear.json', import.meta.url), 'utf8'));
    data.records[0].system.instruments[0].scale = { kind: 'curve', salt: '442' };
    const outcome = readDocument(JSON.stringify(data));
    expect(message(outcome)).toBe('');
    expect(outcome.ok && outcome.records[0]!.system.instruments[0]!.scale).toEqual({ kind: 'curve', salt: 'mixedSalts' });
  });
});

describe('a file of version 9', () => {
  const data = () => JSON.parse(readFileSync(new URL('./fixtures/version-9.yesclear.json', import.meta.url), 'utf8'));
  const opened = (of: unknown): SystemRecord['system'] => {
    const outcome = readDocument(JSON.stringify(of));
    expect(message(outcome)).toBe('');
    if (!outcome.ok) throw new Error(message(outcome));
    return outcome.records[0]!.system;
  };
  it('opens the same, with its elements, prices and choices by their words', () => {
    const system = opened(data());
    expect(system.train.stages.find(({ kind }) => kind === 'membrane')).toMatchObject({ elementClass: 'household75', waterFactor: null });
    expect(system.choice.prices).toEqual([
      { part: 'household75', each: 33 },
      { part: 'housing4', each: 150 },
    ]);
    expect(system.choice.kept).toEqual([{ axis: 'element', values: ['household50', 'household75'] }]);
    expect(system.build.partPrices).toEqual([{ part: 'element-household75', each: 41 }]);
  });
  it('keeps what a cartridge held and the list of its own dial, and no placeholder', () => {
    const cartridge = {
      kind: 'decarboniser',
      id: 'box',
      name: 'Cartridge',
      volumeL: 4.3,
      capacityEq: 9.4,
      bypass: 0.3,
      leak: 0.03,
      magnesiumShare: 0,
      settings: [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6].map((bypass, i) => ({ label: String(i), bypass })),
      fittedOn: null,
    };
    const old = data();
    const own = { ...cartridge, id: 'own', settings: [{ label: 'A', bypass: 0.2 }] };
    old.records[0].system.train.stages.splice(1, 0, cartridge, own);
    old.records[0].system.choice.kept = [{ axis: 'size', values: [1, 3] }];
    const system = opened(old);
    const [box, ours] = system.train.stages.filter((stage) => stage.kind === 'decarboniser');
    expect(box).toEqual({ ...cartridge, ...PLAIN_CARTRIDGE, settings: [], box: { litres: null, hardnessMgL: null, bypass: null } });
    expect(ours).toMatchObject({ settings: [{ label: 'A', bypass: 0.2 }], capacityEq: 9.4 });
    expect(system.choice.kept).toEqual([{ axis: 'cartridgeL', values: [1, 4] }]);
  });
  it.each([
    ['laboratory', 'astm-I'],
    ['brewWater', 'american'],
    ['steamOven', 'strict'],
    ['espresso', null],
  ])('is judged by the limits %s had then where nobody had chosen', (id, school) => {
    const old = data();
    old.records[0].system.goal = { ...old.records[0].system.goal, id, school: null };
    expect(opened(old).goal.school).toBe(school);
  });
});

describe('a file of version 10', () => {
  const data = () => JSON.parse(readFileSync(new URL('./fixtures/version-10.yesclear.json', import.meta.url), 'utf8'));
  it('has its probes where they were, one gauge, and pens told from meters in the line', () => {
    const old = data();
    const { probes, gauge } = old.records[0].system.train;
    old.records[0].system.instruments.push({ ...old.records[0].system.instruments[0], id: 'p', name: 'Pen of the van' });
    const outcome = readDocument(JSON.stringify(old));
    expect(message(outcome)).toBe('');
    const { system, readings } = (outcome.ok && outcome.records[0]) as SystemRecord;
    expect(system.train.probes).toEqual(probes.map((probe: object) => ({ ...probe, side: 'out', vessel: null })));
    expect(system.train).toMatchObject({ gauge, gauges: [] });
    expect(system.instruments.map(({ name, carried }) => [name, carried])).toEqual([
      ['In-line meter', false],
      ['Pen of the van', true],
    ]);
    expect(readings).toHaveLength(2);
    expect(readings.map(({ also }) => also)).toEqual([[], []]);
  });
});

describe('a file of version 11', () => {
  const text = readFileSync(new URL('./fixtures/version-11.yesclear.json', import.meta.url), 'utf8');
  it('has its cartridges with a meter of litres, its batches once, and no strip’s range', () => {
    const outcome = readDocument(text);
    expect(message(outcome)).toBe('');
    const { system, readings } = (outcome.ok && outcome.records[0]) as SystemRecord;
    const cartridge = system.train.stages.find(({ kind }) => kind === 'decarboniser');
    expect(cartridge).toMatchObject(PLAIN_CARTRIDGE);
    expect(system.train.stages.find(({ kind }) => kind === 'softener')).toMatchObject({ saltTankKg: null });
    expect(system.goal.demand.batches).toEqual([{ id: 'b', name: 'Fill a drum', weekday: 4, hour: 18, count: 1, litres: 25 }]);
    expect(system.goal.demand).toMatchObject({ draws: [], hoursPerDay: 8, cupL: 0.15 });
    expect(system.source.samples[0]!.kit).toMatchObject(NO_RANGE);
    expect(system.choice.wasteBarrelL).toBeNull();
    expect(readings).toHaveLength(1);
    // Everything else is as it was.
    const [old] = JSON.parse(text).records;
    expect(system.train.stages.map(({ id }) => id)).toEqual(old.system.train.stages.map(({ id }: { id: string }) => id));
    expect(readings).toEqual(old.readings);
  });
});

describe('a file of version 12', () => {
  const text = readFileSync(new URL('./fixtures/version-12.yesclear.json', import.meta.url), 'utf8');
  it('has a use without a season, nobody away, no time to order, and all its readings', () => {
    const outcome = readDocument(text);
    expect(message(outcome)).toBe('');
    const { system, readings } = (outcome.ok && outcome.records[0]) as SystemRecord;
    expect(system).toMatchObject({ away: [], orderDays: null, removed: [] });
    expect(system.goal.demand).toMatchObject({ season: null, draws: [{ id: 'sink', name: 'Sink', lPerH: 40 }] });
    // Everything else is as it was, the answer to "why" too.
    const [old] = JSON.parse(text).records;
    expect(system.services).toEqual(old.system.services);
    expect(system.train).toEqual(old.system.train);
    expect(readings).toEqual(old.readings);
  });
});

describe('a file of version 5', () => {
  const text = readFileSync(new URL('./fixtures/version-5.yesclear.json', import.meta.url), 'utf8');
  const outcome = readDocument(text);
  it('knew nothing of work on parts, and every reading counted', () => {
    expect(message(outcome)).toBe('');
    const { system, readings } = (outcome.ok && outcome.records[0]) as SystemRecord;
    expect(system).toMatchObject({ services: [], upkeep: [], sensors: [] });
    expect(readings.map(({ counts, confirmed, photos }) => [counts, confirmed, photos])).toEqual(readings.map(() => [true, [], []]));
    expect(readings.map(({ note }) => note)).toContain('pre-filter changed');
  });
  it('had its gauge at the inlet, or behind its pump', () => {
    expect(outcome.ok && outcome.records[0]!.system.train.gauge).toBe('line');
    const pumped = JSON.parse(text);
    const pump = systemFromTemplate({ id: 'x', name: 'n', site: 's', template: 'vanCart', at: '2026-11-23T10:00:00Z' }).train.stages.find(
      ({ kind }) => kind === 'pump',
    );
    pumped.records[0].system.train.stages.splice(3, 0, pump);
    const other = readDocument(JSON.stringify(pumped));
    expect(other.ok && other.records[0]!.system.train.gauge).toBe('membrane');
    expect(other.ok && other.records[0]!.system.build.commissioned?.train.gauge).toBe('line');
  });
});

describe('a file', () => {
  it('comes back identical', () => {
    const outcome = readDocument(saved);
    expect(outcome.ok && outcome.records).toEqual([record]);
    expect(outcome.ok && writeDocument(outcome.records, outcome.savedAt)).toBe(saved);
  });
  it.each(TEMPLATE_IDS)('every template is a valid system: %s', (template) => {
    const system = systemFromTemplate({ id: 'x', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
    expect(systemSchema.parse(system)).toEqual(system);
  });
  it('says when it breaks off', () => expect(message(readDocument(saved.slice(0, 200)))).toContain('breaks off or is not JSON'));
  it.each(['[]', '{"a":1}', '"text"', 'null', '{"format":"other"}'])('says when it is another program’s: %s', (text) =>
    expect(message(readDocument(text))).toContain('not a Yes Clear file'),
  );
  it('says when it is newer', () =>
    expect(message(altered((d) => (d['version'] = FILE_VERSION + 1)))).toContain(`newer Yes Clear (version ${FILE_VERSION + 1})`));
  it('names path, value and expectation of a wrong value', () => {
    const outcome = altered((d) => ((d.records[0]!.system as Record<string, Record<string, unknown>>)['source']!['linePressureBar'] = -3));
    expect(outcome.ok ? [] : outcome.error.issues).toEqual([
      { path: 'records[0].system.source.linePressureBar', value: '-3', expected: 'at least 0' },
    ]);
    expect(message(outcome)).toContain('records[0].system.source.linePressureBar is -3; accepted is at least 0');
  });
  it.each<[string, (string | number)[], unknown, string]>([
    ['a missing field', ['goal'], undefined, 'system.goal is missing; accepted is an object'],
    [
      'an unknown element',
      ['train', 'stages', 3, 'elementClass'],
      '9999',
      'system.train.stages[3].elementClass is "9999"; accepted is one of',
    ],
    ['an extra key', ['colour'], 'blue', 'no "colour" here'],
    ['a text for a number', ['source', 'linePressureBar'], '4 bar', 'is "4 bar"; accepted is a number'],
    ['too large a number', ['train', 'stages', 4, 'volumeL'], 5000, 'volumeL is 5000; accepted is at most 1000'],
    [
      'a probe behind no stage',
      ['train', 'probes', 1, 'after'],
      'gone',
      'train.probes[1].after is "gone"; accepted is "tap" or the id of a stage',
    ],
    ['an unknown meter', ['source', 'samples', 0, 'instrumentId'], 'lost', 'instrumentId is "lost"; accepted is the id of an instrument'],
    ['two stages of one id', ['train', 'stages', 1, 'id'], 'sediment', 'is the same id twice; accepted is a different id for every stage'],
    ['a sample that is not there', ['source', 'sampleId'], 'gone', 'source.sampleId is "gone"; accepted is the id of one of its samples'],
    ['a week of six days', ['goal', 'demand', 'dayL'], [1, 2, 3, 4, 5, 6], 'goal.demand.dayL is [1,2,3,4,5,6]; accepted is'],
    [
      'an hour too many',
      ['goal', 'demand', 'batches'],
      [{ id: 'b', name: '', weekday: 0, hour: 24, litres: 5 }],
      'batches[0].hour is 24; accepted is at most 23',
    ],
    ['a bad date', ['source', 'samples', 0, 'takenOn'], 'yesterday', 'accepted is a date such as'],
    ['a bad instant', ['createdAt'], '23.11.2026', 'accepted is a time such as'],
  ])('%s', (_, path, value, part) => expect(message(altered((d) => put(d.records[0]!.system, path, value)))).toContain(part));
  it('never writes a system it would not read', () => {
    const wrong = { ...record, system: { ...record.system, source: { ...record.system.source, linePressureBar: -1 } } };
    expect(() => writeDocument([wrong], '2026-11-23T11:00:00Z')).toThrow();
  });
  it('holds many systems', () => {
    const other = { system: { ...record.system, id: 'sys-2' }, readings: [] };
    const outcome = readDocument(writeDocument([record, other], '2026-11-23T11:00:00Z'));
    expect(outcome.ok && outcome.records.map((r) => r.system.id)).toEqual(['sys-1', 'sys-2']);
  });
  it('a reading of another system', () =>
    expect(message(altered((d) => ((d.records[0]!.readings as unknown as { systemId: string }[])[0]!.systemId = 'zz')))).toContain(
      'readings[0].systemId is "zz"',
    ));
  it.each<[string, (d: { records: { system: Record<string, unknown>; readings: unknown[] }[] }) => void, string]>([
    ['two systems', (d) => d.records.push(d.records[0]!), 'records[1].id is "sys-1"; accepted is an id that no other system has'],
    [
      'two readings',
      (d) => d.records[0]!.readings.push(d.records[0]!.readings[0]),
      'readings[1].id is "r1"; accepted is an id that no other reading',
    ],
    ['two meters', (d) => twice(d.records[0]!.system['instruments']), 'instruments[1].id'],
    ['two probes', (d) => twice((d.records[0]!.system['train'] as { probes: unknown }).probes), 'probes[1].id'],
  ])('%s of one id are refused: one would be lost on storing', (_, spoil, part) =>
    expect(message(altered(spoil as never))).toContain(part),
  );
  it('nested without end is refused in words', () => {
    const deep = `${'['.repeat(20_000)}${']'.repeat(20_000)}`;
    expect(message(readDocument(deep))).toContain('not a Yes Clear file');
    expect(message(readDocument(`{"format":"yes-clear","version":4,"records":${deep}}`))).toContain('nested more than 60 levels');
  });
  it('is written whatever it holds, and what does not fit is named', () => {
    const wrong = { ...record, system: { ...record.system, source: { ...record.system.source, linePressureBar: -1 } } };
    const { text, issues } = saveDocument([wrong], '2026-11-23T11:00:00Z');
    expect(issues).toEqual([{ path: 'records[0].system.source.linePressureBar', value: '-1', expected: 'at least 0' }]);
    expect(JSON.parse(text).records[0].readings).toEqual(record.readings);
    expect(saveDocument([record], '2026-11-23T11:00:00Z')).toEqual({ text: writeDocument([record], '2026-11-23T11:00:00Z'), issues: [] });
  });
  it('dates in which nothing can have happened are found, with where they stand', () => {
    const odd = {
      system: { ...record.system, createdAt: '9999-01-01T00:00:00Z' },
      readings: [{ ...record.readings[0]!, at: '0001-02-03T00:00:00Z' }],
    };
    expect(unlikelyDates(odd).map(({ path, value }) => `${path} ${value}`)).toEqual([
      'system.createdAt "9999-01-01T00:00:00Z"',
      'readings[0].at "0001-02-03T00:00:00Z"',
    ]);
    expect(unlikelyDates(record)).toEqual([]);
  });
  it('the bounds of a field are those of the file', () => {
    expect(boundsOf(kitSchema.shape.nitrateMgL)).toEqual({ low: 0, high: 20_000 });
    expect(boundsOf(systemSchema.shape.name)).toEqual({});
    expect(longest(readingSchema.shape.note)).toBe(2000);
    const over = { ...record.system, source: { ...record.system.source, linePressureBar: 300_000 } };
    expect(systemIssue(over)).toEqual({ path: 'source.linePressureBar', value: '300000', expected: 'at most 100' });
    expect(systemIssue(record.system)).toBeNull();
    expect(readingIssue({ ...record.readings[0]!, note: 'x'.repeat(2001) })!.path).toBe('note');
  });
  it('spoiled anywhere it is refused with a path, or read: never an exception, never a half', () => {
    /** Every path inside the saved data. */
    const paths = (data: unknown, at: (string | number)[] = []): (string | number)[][] =>
      typeof data === 'object' && data !== null
        ? Object.entries(data).flatMap(([key, inner]) => [
            [...at, Array.isArray(data) ? Number(key) : key],
            ...paths(inner, [...at, Array.isArray(data) ? Number(key) : key]),
          ])
        : [];
    const all = paths(JSON.parse(saved));
    fc.assert(
      fc.property(
        fc.constantFrom(...all),
        fc.oneof(fc.constant(undefined), fc.constant(null), fc.double(), fc.string(), fc.boolean(), fc.constant([]), fc.constant({})),
        (path, spoiled) => {
          const data = JSON.parse(saved);
          put(data, path, spoiled);
          const outcome = readDocument(JSON.stringify(data));
          if (outcome.ok) {
            expect(outcome.records).toHaveLength(1);
          } else {
            expect(outcome.error.message.length).toBeGreaterThan(20);
            for (const issue of outcome.error.issues) expect(issue.path).not.toBe('');
          }
        },
      ),
      { numRuns: RUNS },
    );
  });
});
