import type { Stage } from '../stage';
import type { SolvedTrain } from '../train';

/** What a stage does to the pressure: taken where below 0, added above. */
export interface PressureStep {
  readonly id: string;
  readonly name: string;
  readonly bar: number;
}

/** Less than a gauge shows, bar. */
const UNSEEN_BAR = 0.01;

/**
 * What each stage takes from the pressure or adds to it, in the order of the train. A membrane takes nothing here: what
 * drives the water through it ends in its product and in its waste.
 */
export function pressureSteps(stages: readonly Stage[], { stations }: SolvedTrain): PressureStep[] {
  return stages.flatMap((stage, i) => {
    const [before, after] = [stations[i], stations[i + 1]];
    if (!before || !after || stage.kind === 'membrane') return [];
    const bar = after.pressureBar - before.pressureBar;
    return Math.abs(bar) < UNSEEN_BAR ? [] : [{ id: stage.id, name: stage.name, bar }];
  });
}
