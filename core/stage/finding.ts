import type { Character } from '../water';

/** How a finding stands: met, worth minding, wrong, or simply so. */
export type Severity = 'good' | 'mind' | 'bad' | 'note';

/** Order in which findings are told: what is wrong first. */
const URGENCY: Readonly<Record<Severity, number>> = { bad: 0, mind: 1, good: 2, note: 3 };

/** Orders findings: what is wrong first; those of one urgency stay as they came. */
export const byUrgency = (one: { readonly severity: Severity }, other: { readonly severity: Severity }): number =>
  URGENCY[one.severity] - URGENCY[other.severity];

/** A change that mends a finding, as plain data the app can carry out. */
export type FindingAction =
  | { readonly do: 'setWasteRatio'; readonly ratio: number; readonly label: string }
  | { readonly do: 'setBlend'; readonly share: number; readonly after: string | null; readonly label: string }
  | { readonly do: 'setRegulator'; readonly bar: number; readonly label: string }
  | { readonly do: 'order'; readonly ids: readonly string[]; readonly label: string }
  | { readonly do: 'setCharacter'; readonly character: Character; readonly label: string }
  | { readonly do: 'closeBalance'; readonly close: boolean; readonly label: string };

/** A sentence with a number in it, one line of why, and where possible what mends it. */
export interface Finding {
  readonly id: string;
  readonly severity: Severity;
  readonly title: string;
  readonly why: string;
  readonly action?: FindingAction;
}
