import { awaySince, membraneStage, PRESERVED_DAYS, type System } from '../file';
import { dayAndYear } from '../quantity';
import type { Finding } from '../stage';

/** What stands of a system that is put away: nothing of it is judged until it is brought back. Null while it is in service. */
export function awayFinding(system: System): Finding | null {
  const since = awaySince(system);
  if (since === null) return null;
  const keeps = membraneStage(system.train.stages) ? ` Its preservative keeps ${PRESERVED_DAYS} days.` : '';
  return {
    id: 'away',
    severity: 'note',
    title: `Put away on ${dayAndYear(since)}`,
    why: `It makes no water and nothing of it wears.${keeps} Build has the steps that bring it back.`,
  };
}
