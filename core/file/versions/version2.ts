import { asItWas, isData, without, type Data, type FileVersion } from './raw';

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
function systemFrom1(system: unknown): unknown {
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

/** Version 2: several samples and three ways in, a need by the day of the week, meters that were compared, ranks of vessels. */
export const version2: FileVersion = { version: 2, system: systemFrom1, reading: asItWas };
