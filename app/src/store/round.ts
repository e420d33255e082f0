import type { Finding } from '@yes-clear/core/stage';
import type { DescentInput } from '../descent/drawing';

/** Grows when what is kept of a round is of another shape: what an older app worked out is worked out anew. */
export const ROUND_SHAPE = 2;

export type Urgency = 'now' | 'month' | 'fine';

/** How one system stands, as Rounds shows it. */
export interface Round {
  readonly id: string;
  readonly hasReadings: boolean;
  readonly urgency: Urgency;
  readonly finding: Finding | null;
  readonly resinLeft: number | null;
  readonly saltRemoved: number | null;
  readonly picture: { readonly input: DescentInput; readonly sentence: string } | null;
  /** Things with a date, for the month ahead. */
  readonly due: readonly { readonly at: string; readonly says: string }[];
}
