import type { System } from '../file';
import { inSentence, words } from '../quantity';
import { kindOf, type Finding } from '../stage';
import { waysOf, type SolvedTrain } from '../train';

/** Housings that stand under more than they hold, wherever they are: what lets go floods, and can hurt. */
export function housingFindings(system: System, solved: SolvedTrain): Finding[] {
  const say = words(system.units);
  // A stage stands under the pressure of the water that comes to it.
  const seen = waysOf(system.train, solved).flatMap(({ stages, stations }) =>
    stages.map((stage, i) => ({ stage, sees: stations[i]?.pressureBar ?? null })),
  );
  return seen.flatMap(({ stage, sees }): Finding[] => {
    const holds = kindOf(stage).holdsBar?.(stage) ?? null;
    if (holds === null || sees === null || sees <= holds) return [];
    return [
      {
        id: `housing-${stage.id}`,
        severity: 'bad',
        hazard: true,
        times: sees / holds,
        title: `${say.of(sees, 'pressureBar')} at ${inSentence(stage.name)}, such housings hold ${say.of(holds, 'pressureBar')}`,
        why: 'A housing that lets go floods the room and can hurt. Put the pump behind it, fit a regulator before it, or a housing made for this pressure.',
      },
    ];
  });
}
