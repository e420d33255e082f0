import { asItWas, each, isData, type Data, type FileVersion } from './raw';

/** A cartridge had no table, spoke of carbonate hardness, and always had a meter of litres; nobody was asked what salt a tank holds. */
function stageFrom11(stage: Data): unknown {
  if (stage['kind'] === 'decarboniser')
    return { ...stage, table: [], hardnessIs: 'carbonate', withCarbon: null, litresMeter: true, softens: false };
  if (stage['kind'] === 'uv') return { ...stage, organic: null };
  return stage['kind'] === 'softener' ? { ...stage, saltTankKg: null } : stage;
}
/** A need was spoken of by the day or week, and what was taken at once came once. */
const demandFrom11 = (demand: unknown): unknown =>
  isData(demand)
    ? { ...demand, hoursPerDay: 8, cupL: 0.15, batches: each(demand['batches'], (batch) => ({ ...batch, count: 1 })), draws: [] }
    : demand;
const goalFrom11 = (goal: unknown): unknown => (isData(goal) ? { ...goal, demand: demandFrom11(goal['demand']) } : goal);
const trainFrom11 = (train: unknown): unknown =>
  isData(train)
    ? {
        ...train,
        stages: each(train['stages'], stageFrom11),
        branches: each(train['branches'], (branch) => ({ ...branch, stages: each(branch['stages'], stageFrom11) })),
      }
    : train;
/** A kit gave one figure, never a strip's range. */
const sampleFrom11 = (sample: unknown): unknown =>
  isData(sample) && isData(sample['kit']) ? { ...sample, kit: { ...sample['kit'], hardnessToMgL: null, alkalinityToMgL: null } } : sample;
const sourceFrom11 = (source: unknown): unknown => {
  if (!isData(source)) return source;
  const { second } = source;
  return {
    ...source,
    samples: each(source['samples'], sampleFrom11),
    second: isData(second) ? { ...second, sample: sampleFrom11(second['sample']) } : second,
  };
};
const buildFrom11 = (build: unknown): unknown => {
  if (!isData(build) || !isData(build['commissioned'])) return build;
  const { commissioned } = build;
  return { ...build, commissioned: { ...commissioned, train: trainFrom11(commissioned['train']) } };
};

const systemFrom11 = (system: unknown): unknown =>
  isData(system)
    ? {
        ...system,
        source: sourceFrom11(system['source']),
        goal: goalFrom11(system['goal']),
        train: trainFrom11(system['train']),
        build: buildFrom11(system['build']),
        choice: isData(system['choice']) ? { ...system['choice'], wasteBarrelL: null } : system['choice'],
      }
    : system;

/** Version 12: degassers, stacks, pairs of beds and dosing pumps; needs, strips and cartridges as people speak of them. */
export const version12: FileVersion = { version: 12, system: systemFrom11, reading: asItWas };
