import { allStages, type System } from '../file';
import { inSentence, words } from '../quantity';
import { kindOf, type Finding, type Stage } from '../stage';
import type { SolvedTrain } from '../train';

/** Pressure a stage stands under while it runs: that of the water that comes to it, bar. */
function seenBar({ train }: System, { stations, branches }: SolvedTrain, { id }: Stage): number | null {
  const at = train.stages.findIndex((stage) => stage.id === id);
  if (at >= 0) return stations[at]?.pressureBar ?? null;
  const branch = branches.find((one) => one.stations.some(({ after }) => after === id));
  const place = branch?.stations.findIndex(({ after }) => after === id) ?? 0;
  return branch?.stations[place - 1]?.pressureBar ?? null;
}

/** Housings that stand under more than they hold, wherever they are: what lets go floods, and can hurt. */
export function housingFindings(system: System, solved: SolvedTrain): Finding[] {
  const say = words(system.units);
  return allStages(system.train).flatMap((stage): Finding[] => {
    const holds = kindOf(stage).holdsBar?.(stage) ?? null;
    const sees = holds === null ? null : seenBar(system, solved, stage);
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
