import { drawnAtOnceLPerH } from '../goal';
import type { Probe, Sample, Source, System, Train } from './schema';
import type { Stage, StageOf } from '../stage';

/** The sample a system is planned with. */
export function currentSample(source: Source): Sample {
  // A file whose sampleId points nowhere is refused at reading.
  return source.samples.find((sample) => sample.id === source.sampleId) ?? source.samples[0]!;
}

/** A sample with nothing entered but its kind of supply, ready to be filled. */
export function emptySample(id: string, takenOn: string, like: Sample): Sample {
  return {
    id,
    takenOn,
    character: like.character,
    way: like.way,
    temperatureC: like.temperatureC,
    reading: null,
    instrumentId: like.instrumentId,
    kit: NO_KIT,
    report: NO_REPORT,
    chlorineMgL: like.chlorineMgL,
    chloramineMgL: like.chloramineMgL,
  };
}

/** A test kit of which nothing was used yet. */
export const NO_KIT: Sample['kit'] = {
  hardnessMgL: null,
  alkalinityMgL: null,
  pH: null,
  nitrateMgL: null,
  ammoniaMgL: null,
  phosphateMgL: null,
  silicaMgL: null,
  hardnessToMgL: null,
  alkalinityToMgL: null,
  hardnessCount: null,
  alkalinityCount: null,
};
export const NO_REPORT: Sample['report'] = { title: '', text: '', values: [], closeBalance: false };

/** A source whose current sample is changed. */
export function withSample(source: Source, changes: Partial<Sample>): Source {
  const { id } = currentSample(source);
  return { ...source, samples: source.samples.map((sample) => (sample.id === id ? { ...sample, ...changes } : sample)) };
}

/** A system with what may be drawn at once: its train is drawn at all of it together, as before where nothing is listed. */
export const withDraws = (system: System, draws: System['goal']['demand']['draws']): System => {
  const goal = { ...system.goal, demand: { ...system.goal.demand, draws } };
  return { ...system, goal, train: { ...system.train, drawLPerH: drawnAtOnceLPerH(goal.demand) ?? system.train.drawLPerH } };
};

/** The membrane stage of a train; the first pass where there are two. */
export const membraneStage = (stages: readonly Stage[]): StageOf<'membrane'> | undefined =>
  stages.find((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane');

/** The pump that feeds that membrane: the nearest before it. */
export function feedPump(stages: readonly Stage[]): StageOf<'pump'> | undefined {
  const at = stages.findIndex((stage) => stage.kind === 'membrane');
  return stages.slice(0, Math.max(0, at)).findLast((stage): stage is StageOf<'pump'> => stage.kind === 'pump');
}

/** Every stage of a train and of its branches, in that order. */
export const allStages = ({ stages, branches }: Pick<Train, 'stages' | 'branches'>): readonly Stage[] => [
  ...stages,
  ...branches.flatMap((branch) => branch.stages),
];

/** A train with each of its stages changed, those of its branches too. */
export const mapStages = (train: Train, change: (stage: Stage) => Stage): Train => ({
  ...train,
  stages: train.stages.map(change),
  branches: train.branches.map((branch) => ({ ...branch, stages: branch.stages.map(change) })),
});

/** The tank a train fills last. */
export const lastTank = (stages: readonly Stage[]): StageOf<'tank'> | undefined =>
  stages.findLast((stage): stage is StageOf<'tank'> => stage.kind === 'tank');

/** The probes that stand in the line; a pen is carried to the others. */
export const fittedProbes = ({ train, instruments }: Pick<System, 'train' | 'instruments'>): Probe[] =>
  train.probes.filter(({ instrumentId }) => instruments.find(({ id }) => id === instrumentId)?.carried !== true);

/** What all tanks of a train hold, L. */
export const tankVolumeL = (stages: readonly Stage[]): number =>
  stages.reduce((sum, stage) => (stage.kind === 'tank' ? sum + stage.volumeL : sum), 0);
