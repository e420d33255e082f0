import { asItWas, isData, without, type FileVersion } from './raw';

/** Version 4 knew meters that correct and meters that do not. */
const instrumentFrom4 = (instrument: unknown): unknown =>
  isData(instrument)
    ? { ...without(instrument, 'compensated'), compensation: instrument['compensated'] === false ? 'none' : 'linear' }
    : instrument;

/** Nobody had been asked what a resin leaves when it is fresh; the length of a restrictor counts as looked at. */
function stageFrom4(stage: unknown): unknown {
  if (!isData(stage)) return stage;
  const { kind, restrictor } = stage;
  if (kind === 'resin') return { ...stage, floorUScm: null };
  return kind === 'membrane' && isData(restrictor) ? { ...stage, restrictor: { ...restrictor, assumed: false } } : stage;
}
const stagesFrom4 = (of: unknown): unknown =>
  isData(of) && Array.isArray(of['stages']) ? { ...of, stages: of['stages'].map(stageFrom4) } : of;

function trainFrom4(train: unknown): unknown {
  const stages = stagesFrom4(train);
  // Nobody could set it: it stood at 0 for every kind of service.
  const own = isData(stages) && stages['scaleActionIndex'] === 0 ? { ...stages, scaleActionIndex: null } : stages;
  return isData(own) && Array.isArray(own['branches']) ? { ...own, branches: own['branches'].map(stagesFrom4) } : own;
}

/** Version 4 knew two sets of units. */
const SETS: Readonly<Record<string, object>> = {
  trade: { strength: 'ppm', pressure: 'psi', temperature: '°F', volume: 'gal', flow: 'gal/day', length: 'in' },
  metric: { strength: 'µS/cm', pressure: 'bar', temperature: '°C', volume: 'L', flow: 'L/h', length: 'cm' },
};
const unitsFrom4 = (units: unknown): unknown =>
  isData(units) && typeof units['system'] === 'string' && units['system'] in SETS
    ? { ...without(units, 'system'), ...SETS[units['system']] }
    : units;

/** What version 5 started with where version 4 had not asked; a later default changes nothing here. */
const PRICES = { filter: 8, inhibitor: 60, lamp: 70, carbonPerL: 30, cartridgePerL: 25, calcitePerL: 4, saltPerKg: 0.6 };

/** What had been done is the first piece of work; colours and lengths of the tubing were not asked. */
function buildFrom4(build: unknown, createdAt: unknown, updatedAt: unknown): unknown {
  if (!isData(build)) return build;
  const done = Array.isArray(build['done']) ? build['done'] : [];
  const first = { id: 'work-1', kind: 'newBuild', stageId: null, startedAt: createdAt, endedAt: null };
  return {
    ...without(build, 'done'),
    works:
      done.length === 0
        ? []
        : [{ ...first, done: done.map((step: unknown) => ({ step, at: updatedAt })), measured: [], deviations: [], cautions: [] }],
    commissioned: null,
    lines: [],
    colours: { feed: 'red', product: 'blue', waste: 'black' },
    hookUp: null,
    partPrices: [],
    ownParts: [],
    markUp: 0,
    ports: [],
  };
}

/** A system of version 4 as one of version 5. */
function systemFrom4(system: unknown): unknown {
  if (!isData(system)) return system;
  const { instruments, source, train, units, prices, build } = system;
  return {
    ...system,
    units: unitsFrom4(units),
    build: buildFrom4(build, system['createdAt'], system['updatedAt']),
    prices: isData(prices) ? { ...prices, ...PRICES } : prices,
    // What stood in an older file counts as looked at.
    source: isData(source) ? { ...source, assumed: [] } : source,
    instruments: Array.isArray(instruments) ? instruments.map(instrumentFrom4) : instruments,
    train: trainFrom4(train),
  };
}

/** Version 5: units each for itself; marks of what a template filled in; meters of pure water, which take the water's own ions apart from the salt's; what a resin leaves when it is fresh; a price for every part; readings at sample ports; pieces of work with what was measured; scale acted on by service. */
export const version5: FileVersion = { version: 5, system: systemFrom4, reading: asItWas };
