import { FLOAT_SHARES, SEDIMENT_HOLDS_G } from '../stage';
import { PLACEHOLDER_PRICES, USUAL_TURBIDITY_NTU } from './defaults';

/**
 * Brings files of older versions up to the present one, step by step. Works on raw data: what is not where it should
 * be is left as it is, for the schema to name.
 */
type Data = Record<string, unknown>;

const isData = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);
const without = (data: Data, ...keys: string[]): Data => Object.fromEntries(Object.entries(data).filter(([key]) => !keys.includes(key)));

/** Id of the one sample a system of version 1 had. */
const FIRST_SAMPLE = 'sample-1';

/** Version 1 knew one sample with the kit's figures beside the reading, and a need of so many litres a day or week. */
function sampleFrom1(sample: Data): Data {
  const { hardnessMgL, alkalinityMgL, pH } = sample;
  const kit = [hardnessMgL, alkalinityMgL, pH].some((value) => value !== null && value !== undefined);
  return {
    ...without(sample, 'hardnessMgL', 'alkalinityMgL', 'pH'),
    id: FIRST_SAMPLE,
    way: kit ? 'kit' : 'meter',
    kit: {
      hardnessMgL,
      alkalinityMgL,
      pH,
      nitrateMgL: null,
      ammoniaMgL: null,
      phosphateMgL: null,
      silicaMgL: null,
      hardnessCount: null,
      alkalinityCount: null,
    },
    report: { title: '', text: '', values: [], closeBalance: false },
  };
}

function sourceFrom1(source: Data): Data {
  const { sample, lowestTemperatureC } = source;
  const warmest = typeof lowestTemperatureC === 'number' && isData(sample) && typeof sample['temperatureC'] === 'number';
  return {
    ...without(source, 'sample', 'lowestTemperatureC'),
    samples: [isData(sample) ? sampleFrom1(sample) : sample],
    sampleId: FIRST_SAMPLE,
    season: {
      lowestTemperatureC,
      // Version 1 did not ask: as far above the sample as the winter lies below it.
      highestTemperatureC: warmest
        ? Math.min(60, Math.max(2 * (sample['temperatureC'] as number) - lowestTemperatureC, lowestTemperatureC))
        : lowestTemperatureC,
      weakestUScm: null,
      strongestUScm: null,
    },
    second: null,
    regulatorBar: null,
  };
}

function goalFrom1(goal: Data): Data {
  const { demandL, demandPer } = goal;
  const perDay = typeof demandL === 'number' ? (demandPer === 'week' ? demandL / 7 : demandL) : demandL;
  return {
    ...without(goal, 'demandL', 'demandPer'),
    school: null,
    ownLimits: [],
    prepare: { how: 'none' },
    demand: { per: demandPer, dayL: new Array(7).fill(perDay), hourShare: new Array(24).fill(1), batches: [] },
  };
}

const instrumentFrom1 = (instrument: unknown): unknown =>
  isData(instrument) ? { ...instrument, gain: 1, offset: 0, compensated: true, alphaPerC: 0.02, calibratedOn: null } : instrument;

/** Membranes of version 1 had a restrictor and nothing else at the waste end. */
const stageFrom1 = (stage: unknown): unknown =>
  isData(stage) && stage['kind'] === 'membrane' ? { ...stage, ranks: [], valve: null, recycleLPerH: 0, bypassShare: 0 } : stage;

function trainFrom1(train: unknown): unknown {
  if (!isData(train) || !Array.isArray(train['stages'])) return train;
  return { ...train, stages: train['stages'].map(stageFrom1) };
}

/** A system of version 1 as one of version 2. */
export function systemFrom1(system: unknown): unknown {
  if (!isData(system)) return system;
  const { source, goal, instruments } = system;
  return {
    ...system,
    instruments: Array.isArray(instruments) ? instruments.map(instrumentFrom1) : instruments,
    comparison: { referenceId: null, glasses: [] },
    source: isData(source) ? sourceFrom1(source) : source,
    goal: isData(goal) ? goalFrom1(goal) : goal,
    train: trainFrom1(system['train']),
  };
}

/** What version 2 did not ask of a stage. */
function stageFrom2(stage: unknown): unknown {
  if (!isData(stage)) return stage;
  // A factor of 1 was what nobody had entered: since then age speaks for it.
  const measured = (factor: unknown): unknown => (factor === 1 ? null : factor);
  switch (stage['kind']) {
    case 'membrane':
      return {
        ...stage,
        waterFactor: measured(stage['waterFactor']),
        saltFactor: measured(stage['saltFactor']),
        recycleKv: null,
        bypassAfter: null,
        wasteToFirstPass: false,
      };
    case 'pump':
      return isData(stage['pump']) && stage['pump']['kind'] === 'displacement'
        ? { ...stage, pump: { ...stage['pump'], energyRecovery: 0 } }
        : stage;
    case 'resin':
      return { ...stage, carriedEq: { cation: 0, anion: 0 } };
    case 'sediment':
      return { ...stage, holdsG: SEDIMENT_HOLDS_G };
    case 'tank':
      return { ...stage, prechargeBar: null, ...FLOAT_SHARES };
    default:
      return stage;
  }
}

/** A system of version 2 as one of version 3. */
export function systemFrom2(system: unknown): unknown {
  if (!isData(system)) return system;
  const { source, train } = system;
  return {
    ...system,
    source: isData(source) ? { ...source, turbidityNTU: USUAL_TURBIDITY_NTU, silt: null } : source,
    train:
      isData(train) && Array.isArray(train['stages'])
        ? { ...train, stages: train['stages'].map(stageFrom2), branches: [], loop: null }
        : train,
    prices: PLACEHOLDER_PRICES,
    cartridges: [],
  };
}

/** Every step, by the version it starts from. */
const STEPS: Readonly<Record<number, (system: unknown) => unknown>> = { 1: systemFrom1, 2: systemFrom2 };

/** A system of any older version as one of the present. */
function systemFrom(version: number, system: unknown): unknown {
  let [at, data] = [version, system];
  for (let step = STEPS[at]; step; step = STEPS[at]) {
    data = step(data);
    at += 1;
  }
  return data;
}

/** A whole file brought up to the present version. */
export function migrated(data: unknown): unknown {
  if (!isData(data)) return data;
  const { records, version } = data;
  if (typeof version !== 'number' || !(version in STEPS)) return data;
  return {
    ...data,
    version: 1 + Math.max(...Object.keys(STEPS).map(Number)),
    records: Array.isArray(records)
      ? records.map((record: unknown) => (isData(record) ? { ...record, system: systemFrom(version, record['system']) } : record))
      : records,
  };
}
