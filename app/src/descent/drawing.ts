import type { Place } from '@yes-clear/core/file';
import { type UnitPreference } from '@yes-clear/core/quantity';
import type { Form, Stage } from '@yes-clear/core/stage';
import type { Station } from '@yes-clear/core/train';
import type { Box, PlacedLabel } from './labels';

/** The elements of a membrane stage: rank after rank, so many vessels side by side, so many elements in each. */
export type Ranks = readonly { readonly vessels: number; readonly elementsPerVessel: number }[];

/** A stage as the picture needs it. */
export type DrawnStage = Pick<Stage, 'id' | 'kind' | 'name'> & {
  readonly form: Form;
  /** Its resin changes colour as it is used. */
  readonly dyed?: boolean;
};

/** What the picture is made from: the solved train and what was read on it. */
export interface DescentInput {
  readonly stages: readonly DrawnStage[];
  readonly stations: readonly (Pick<Station, 'after' | 'state'> & { readonly pressureBar?: number })[];
  /** What the height stands for; strength where it is not said. */
  readonly height?: 'strength' | 'pressure';
  /** Symbol of the pressure unit on the axis of the pressure view. */
  readonly pressureUnit: UnitPreference['pressure'];
  readonly waste: {
    readonly after: string;
    readonly ec25UScm: number;
    readonly pressureBar?: number;
    readonly texts: readonly string[];
  } | null;
  /** Concentrate led back to a stage, and feed led past the membrane, by their conductivity. */
  readonly recycle: { readonly from: string; readonly to: string; readonly ec25UScm: number; readonly texts: readonly string[] } | null;
  readonly bypass: {
    readonly past: string;
    readonly from: string | null;
    readonly ec25UScm: number;
    readonly texts: readonly string[];
  } | null;
  readonly secondWaste: {
    readonly after: string;
    /** Stage before which it is led back; null where it goes to the drain. */
    readonly to: string | null;
    readonly ec25UScm: number;
    readonly pressureBar: number;
    readonly texts: readonly string[];
  } | null;
  readonly goal: { readonly low: number | null; readonly high: number | null; readonly texts: readonly string[] } | null;
  /** Water that flows from the end of the train back to its tank. */
  readonly loop?: { readonly to: string; readonly ec25UScm: number; readonly texts: readonly string[] } | null;
  /** Uses taken off the train, each with stages of its own; drawn in the large picture. */
  readonly branches?: readonly {
    readonly id: string;
    readonly after: string;
    readonly stages: readonly DrawnStage[];
    readonly texts: readonly string[];
  }[];
  readonly probes: readonly (Place & {
    readonly id: string;
    readonly texts: readonly string[];
    /** What the model has there, µS/cm; null where nothing flows. */
    readonly expected: number | null;
    readonly baseline: number | null;
    readonly latest: number | null;
  })[];
  /** Where the product would be read and no probe stands. */
  readonly unread?: Place | null;
  /** Share of a stage that is spent, loaded or full, by its id. */
  readonly fill: Readonly<Record<string, number>>;
  /** How the elements of a membrane stage stand, by its id; one element where it is not said. */
  readonly ranks?: Readonly<Record<string, Ranks>>;
  /** A figure that belongs beside a stage's name: a pump's pressure. */
  readonly notes?: Readonly<Record<string, string>>;
  readonly tapTexts: readonly string[];
  /** Valves that can be turned, where the picture is a rig to work on. */
  readonly valves?: readonly Valve[];
}

/** A valve, the line it stands on, and how it stands. */
export interface Valve {
  readonly id: string;
  readonly on: 'feed' | 'pump' | 'membrane' | 'waste' | 'product' | 'outlet';
  readonly text: string;
  readonly open: boolean;
}
export interface ValveMark extends Valve {
  readonly x: number;
  readonly y: number;
}

/** Columns the branches take in the large picture: one a stage, and one for a use without any. */
export const branchColumns = (input: Pick<DescentInput, 'branches'>): number =>
  (input.branches ?? []).reduce((sum, branch) => sum + Math.max(1, branch.stages.length), 0);

/** Columns of the large picture: the tap's, one a stage, and those of the branches. */
export const columnsOf = (input: Pick<DescentInput, 'stages' | 'branches'>): number => input.stages.length + 1 + branchColumns(input);

export type DescentSize = 'large' | 'strip' | 'thumb';

export interface Frame {
  readonly size: DescentSize;
  readonly width: number;
  readonly height: number;
  /** Room for the axis; 0 where it is drawn elsewhere or not at all. */
  readonly left: number;
  readonly columnWidth: number;
}

export interface Pipe {
  readonly id: string;
  readonly points: readonly (readonly [number, number])[];
  readonly colour: string;
  readonly width: number;
  readonly open: 'left' | 'right' | 'none';
  /** Water that comes round again. */
  readonly dashed?: boolean;
  /** Where along the water it lies: what a probe on it would read. */
  readonly place?: Place;
}

export interface Vessel {
  readonly stageId: string;
  readonly kind: Stage['kind'];
  readonly name: string;
  readonly box: Box;
  /** Colours at its upper and lower end. */
  readonly from: string;
  readonly to: string;
  readonly fill: number;
  /** A bed whose resin shows by its colour how far it is used. */
  readonly dyed: boolean;
  /** Stands dry: no water reaches it. */
  readonly dry: boolean;
  /** The vessels of a membrane stage, where they are drawn one by one. */
  readonly tubes?: readonly Tube[];
}

/** One vessel of a membrane stage. */
export interface Tube {
  readonly box: Box;
  readonly rank: number;
  /** Level of what its rank leaves. */
  readonly leavesY: number;
  /** Heights at which one element ends and the next begins. */
  readonly joints: readonly number[];
}

export interface ProbeMark {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly baselineY: number | null;
  readonly latestY: number | null;
}

/** Where a branch ends: its lane, its true level, and what it is called. */
export interface BranchEnd {
  readonly id: string;
  readonly x: number;
  readonly laneY: number;
  readonly trueY: number;
  readonly texts: readonly string[];
}

export interface Drawing {
  readonly ticks: readonly { readonly y: number; readonly text: string }[];
  readonly band: Box | null;
  readonly pipes: readonly Pipe[];
  readonly vessels: readonly Vessel[];
  readonly probes: readonly ProbeMark[];
  /** Where the product would be read and is not. */
  readonly unread: { readonly x: number; readonly y: number } | null;
  readonly ends: readonly BranchEnd[];
  readonly valves: readonly ValveMark[];
  readonly labels: readonly PlacedLabel[];
}
