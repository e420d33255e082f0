import type { System } from '@yes-clear/core/file';
import type { StageOf } from '@yes-clear/core/stage';

/** A system with what was found of one membrane's restrictor: its length, or the bore that explains the jugs. */
export const withRestrictor = (system: System, stageId: string, found: Partial<StageOf<'membrane'>['restrictor']>): System => ({
  ...system,
  train: {
    ...system.train,
    stages: system.train.stages.map((stage) =>
      stage.id === stageId && stage.kind === 'membrane' ? { ...stage, restrictor: { ...stage.restrictor, ...found } } : stage,
    ),
  },
});
