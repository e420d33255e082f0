import { figuresOf, type Figures } from './figures';
import type { Judging } from './judging';
import type { Plan } from './plan';
import { rejectionOf, rejectionOfYear, type Rejection, type RuleId } from './rules';

/** Whether a train would do, and what it would cost a year to keep. */
export type Judged =
  | { readonly admissible: false; readonly rejection: Rejection }
  | { readonly admissible: true; readonly figures: Figures; readonly advisories: readonly RuleId[] };

/**
 * Judges a plan by the rules in their order, and works out a year of it where none prunes.
 *
 * @param waived rules that are not asked: what a plan would come to if the site or the goal gave way
 */
export function judgePlan(plan: Plan, judging: Judging, waived: readonly RuleId[] = []): Judged {
  const advisories: RuleId[] = [];
  const asked = judging.rules.filter((rule) => !waived.includes(rule));
  for (const rule of asked) {
    const found = rejectionOf(rule, plan, judging);
    if (found === 'advisory') advisories.push(rule);
    else if (found) return { admissible: false, rejection: found };
  }
  const figures = figuresOf(plan, judging);
  if (!figures) return { admissible: false, rejection: NOTHING_MADE };
  for (const rule of asked) {
    const late = rejectionOfYear(rule, figures, judging);
    if (late) return { admissible: false, rejection: late };
  }
  return { admissible: true, figures, advisories };
}
const NOTHING_MADE: Rejection = { rule: 'production', field: 'litresPerDay', value: 1, limit: 0 };
