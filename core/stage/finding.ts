import type { Character } from '../water';

/** How a finding stands: met, worth minding, wrong, or simply so. */
export type Severity = 'good' | 'mind' | 'bad' | 'note';

/** Order in which findings are told: what is wrong first. */
const URGENCY: Readonly<Record<Severity, number>> = { bad: 0, mind: 1, good: 2, note: 3 };

/** What a change would bring up: findings that are wrong or worth minding and were not so before. */
export const raisedBy = (before: readonly Finding[], after: readonly Finding[]): Finding[] =>
  after.filter(
    ({ id, severity }) =>
      (severity === 'bad' || severity === 'mind') && !before.some((one) => one.id === id && URGENCY[one.severity] <= URGENCY[severity]),
  );

/** What an order of findings goes by. */
type Ranked = Pick<Finding, 'severity' | 'hazard' | 'times'>;

/** Orders findings by harm: what can hurt, flood or destroy first, then what is wrong, each by how far it is past its limit. */
export const byUrgency = (one: Ranked, other: Ranked): number =>
  Number(other.hazard ?? false) - Number(one.hazard ?? false) ||
  URGENCY[one.severity] - URGENCY[other.severity] ||
  (other.times ?? 0) - (one.times ?? 0);

/** A change that mends a finding, as plain data the app can carry out. */
export type FindingAction =
  | { readonly do: 'setWasteRatio'; readonly ratio: number; readonly why: 'trade' | 'scale' | 'stands' | 'own'; readonly label: string }
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
  /** It can hurt, flood, or destroy what it is about at once. */
  readonly hazard?: true;
  /** How many times past its limit, where it has one. */
  readonly times?: number;
  readonly action?: FindingAction;
}

/** A list to which findings about one stage are put; the id of each ends in the stage's own. */
export function findingsOn(stageId: string): {
  readonly found: Finding[];
  readonly add: (id: string, severity: Severity, title: string, why: string, times?: number) => void;
} {
  const found: Finding[] = [];
  return {
    found,
    add: (id, severity, title, why, times) =>
      void found.push({ id: `${id}-${stageId}`, severity, title, why, ...(times === undefined ? {} : { times }) }),
  };
}
