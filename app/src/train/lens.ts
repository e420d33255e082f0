import type { System } from '@yes-clear/core/file';
import type { StageKind } from '@yes-clear/core/stage';
import type { Component } from 'vue';

/** One way to look at a train under its picture. */
export interface Lens {
  /** As the address names it. */
  readonly id: string;
  readonly title: string;
  /** The kind of stage it belongs to; its panel is given such a stage. Null where it looks at the train as a whole. */
  readonly kind: StageKind | null;
  /** Whether this train has anything to look at in it. */
  readonly shown: (system: System) => boolean;
  readonly panel: Component;
}

/** For the lens of a kind: shown where the train itself has such a stage. */
export const hasKind =
  (kind: StageKind) =>
  ({ train }: System): boolean =>
    train.stages.some((stage) => stage.kind === kind);
