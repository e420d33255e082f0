import type { Stage } from '@yes-clear/core/file';
import type { Station } from '@yes-clear/core/train';
import type { Box, PlacedLabel } from './labels';

/** What the picture is made from: the solved train and what was read on it. */
export interface DescentInput {
  readonly stages: readonly Pick<Stage, 'id' | 'kind' | 'name'>[];
  readonly stations: readonly (Pick<Station, 'after' | 'state'> & { readonly pressureBar?: number })[];
  /** What the height stands for; strength where it is not said. */
  readonly height?: 'strength' | 'pressure';
  /** Symbol of the pressure unit on the axis of the pressure view. */
  readonly pressureUnit: 'bar' | 'psi';
  readonly waste: {
    readonly after: string;
    readonly ec25UScm: number;
    readonly pressureBar?: number;
    readonly texts: readonly string[];
  } | null;
  /** Concentrate led back to a stage, and feed led past the membrane, by their conductivity. */
  readonly recycle: { readonly from: string; readonly to: string; readonly ec25UScm: number; readonly texts: readonly string[] } | null;
  readonly bypass: { readonly past: string; readonly ec25UScm: number; readonly texts: readonly string[] } | null;
  readonly secondWaste: {
    readonly after: string;
    readonly ec25UScm: number;
    readonly pressureBar: number;
    readonly texts: readonly string[];
  } | null;
  readonly goal: { readonly low: number | null; readonly high: number | null; readonly texts: readonly string[] } | null;
  readonly probes: readonly {
    readonly id: string;
    readonly after: string;
    readonly texts: readonly string[];
    readonly baseline: number | null;
    readonly latest: number | null;
  }[];
  /** Share of a stage that is spent, loaded or full, by its id. */
  readonly fill: Readonly<Record<string, number>>;
  readonly tapTexts: readonly string[];
}

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
  /** Stands dry: no water reaches it. */
  readonly dry: boolean;
}

export interface ProbeMark {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly baselineY: number | null;
  readonly latestY: number | null;
}

export interface Drawing {
  readonly ticks: readonly { readonly y: number; readonly text: string }[];
  readonly band: Box | null;
  readonly pipes: readonly Pipe[];
  readonly vessels: readonly Vessel[];
  readonly probes: readonly ProbeMark[];
  readonly labels: readonly PlacedLabel[];
  /** Ticks at the true level of lines moved aside. */
  readonly trueLevels: readonly { readonly x: number; readonly y: number }[];
}
