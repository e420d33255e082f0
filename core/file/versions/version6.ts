import { isData, type FileVersion } from './raw';

/** Behind a pump the gauge that is read stands at the membrane; without one, at the inlet. */
function trainFrom5(train: unknown): unknown {
  if (!isData(train)) return train;
  const { stages } = train;
  const pumped = Array.isArray(stages) && stages.some((stage: unknown) => isData(stage) && stage['kind'] === 'pump');
  return { ...train, gauge: pumped ? 'membrane' : 'line' };
}

function buildFrom5(build: unknown): unknown {
  if (!isData(build) || !isData(build['commissioned'])) return build;
  const { commissioned } = build;
  return { ...build, commissioned: { ...commissioned, train: trainFrom5(commissioned['train']) } };
}

/** A system of version 5 as one of version 6: nothing was written down of work on parts and meters. */
const systemFrom5 = (system: unknown): unknown =>
  isData(system)
    ? {
        ...system,
        train: trainFrom5(system['train']),
        build: buildFrom5(system['build']),
        services: [],
        upkeep: [],
        sensors: [],
      }
    : system;

/** Every reading counted, nothing had been asked about, and none had pictures. */
const readingFrom5 = (reading: unknown): unknown => (isData(reading) ? { ...reading, counts: true, confirmed: [], photos: [] } : reading);

/** Version 6: work done on parts and meters, rules of upkeep, meters on the air, where the gauge stands; readings that do not count, that were confirmed, that have pictures. */
export const version6: FileVersion = { version: 6, system: systemFrom5, reading: readingFrom5 };
