import type { System } from '../file';
import { inSentence, words } from '../quantity';
import { kindOf, type Finding, type Stage } from '../stage';
import type { SolvedTrain } from '../train';

/** Every stage with the pressure it stands under while it runs: that of the water that comes to it, bar; null where none does. */
function underPressure({ train }: System, solved: SolvedTrain): { readonly stage: Stage; readonly sees: number | null }[] {
  const lines = [
    { stages: train.stages, stations: solved.stations },
    ...train.branches.map(({ id, stages }) => ({ stages, stations: solved.branches.find((one) => one.id === id)?.stations ?? [] })),
  ];
  return lines.flatMap(({ stages, stations }) => stages.map((stage, i) => ({ stage, sees: stations[i]?.pressureBar ?? null })));
}

/** Housings that stand under more than they hold, wherever they are: what lets go floods, and can hurt. */
export function housingFindings(system: System, solved: SolvedTrain): Finding[] {
  const say = words(system.units);
  return underPressure(system, solved).flatMap(({ stage, sees }): Finding[] => {
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
