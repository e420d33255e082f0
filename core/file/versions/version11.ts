import { each, isData, type Data, type FileVersion } from './raw';

/** Nothing was read off an element; every restrictor was a tube. */
function stageFrom10(stage: Data): unknown {
  // Litres were taken for printed against free chlorine.
  if (stage['kind'] === 'carbon') return { ...stage, ratedAgainst: 'chlorine' };
  if (stage['kind'] !== 'membrane') return stage;
  const { restrictor } = stage;
  const printed = { makesLPerH: null, testPressureBar: null, testTemperatureC: null, testSaltMgL: null, rejection: null };
  return {
    ...stage,
    label: { name: '', ...printed },
    restrictor: isData(restrictor) ? { form: 'tube', ...restrictor, flushLever: false } : restrictor,
  };
}
/** Probes stood behind stages alone; a train had one gauge. */
const trainFrom10 = (train: unknown): unknown =>
  isData(train)
    ? {
        ...train,
        stages: each(train['stages'], stageFrom10),
        branches: each(train['branches'], (branch) => ({ ...branch, stages: each(branch['stages'], stageFrom10) })),
        wasteWhy: 'trade',
        meter: { counts: 'up', setToL: null, rollsOverL: null },
        probes: each(train['probes'], (probe) => ({ ...probe, side: 'out', vessel: null })),
        gauges: [],
      }
    : train;

/** A pen was told from a meter in the line by its name alone. */
const instrumentFrom10 = (instrument: Data): unknown => ({
  ...instrument,
  carried: typeof instrument['name'] === 'string' && /\bpen\b/i.test(instrument['name']),
});

const commissionedFrom10 = (commissioned: unknown): unknown =>
  isData(commissioned) ? { ...commissioned, train: trainFrom10(commissioned['train']) } : commissioned;
/** Every system had been planned from nothing. */
const buildFrom10 = (build: unknown): unknown =>
  isData(build)
    ? { ...build, stands: { how: 'new', since: null }, hangs: null, commissioned: commissionedFrom10(build['commissioned']) }
    : build;

const systemFrom10 = (system: unknown): unknown =>
  isData(system)
    ? {
        ...system,
        instruments: each(system['instruments'], instrumentFrom10),
        train: trainFrom10(system['train']),
        build: buildFrom10(system['build']),
        tasks: [],
        services: each(system['services'], (service) => ({ ...service, taskId: null })),
      }
    : system;
const readingFrom10 = (reading: unknown): unknown => (isData(reading) ? { ...reading, also: [] } : reading);

/** Version 11: probes on any side of a stage, further gauges, pens told from meters in the line; what stood already. */
export const version11: FileVersion = { version: 11, system: systemFrom10, reading: readingFrom10 };
