import type { Due } from '@yes-clear/core/log';
import type { Finding } from '@yes-clear/core/stage';
import type { DescentInput } from '../descent/drawing';

/** Grows when what is kept of a round is of another shape: what an older app worked out is worked out anew. */
export const ROUND_SHAPE = 5;

export type Urgency = 'now' | 'month' | 'fine';

/** How one system stands, as Rounds shows it. */
export interface Round {
  readonly id: string;
  readonly hasReadings: boolean;
  readonly urgency: Urgency;
  readonly finding: Finding | null;
  readonly resinLeft: number | null;
  readonly saltRemoved: number | null;
  /** The membrane's output against its reference, by the log; null where it does not tell. */
  readonly output: number | null;
  /** The newest reading as it would be typed, and when it was taken. */
  readonly newest: { readonly at: string; readonly line: string } | null;
  readonly picture: { readonly input: DescentInput; readonly sentence: string } | null;
  /** What is to be done, with its date and why then. */
  readonly due: readonly Due[];
  /** Whether it is put away: drawn pale, and nothing of it judged. */
  readonly away: boolean;
}
