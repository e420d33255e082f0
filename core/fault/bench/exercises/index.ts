import { fail, ok, type Outcome } from '../../../quantity';
import { BENCH_SYSTEM_IDS, type BenchSystemId } from '../systems';
import { exercise, type Exercise } from './exercise';
import { HOUSEHOLD } from './household';
import { OTHERS } from './others';
import { PAIR } from './pair';

export type { Exercise } from './exercise';

/** The exercises in the order in which they are meant to be done. */
export const EXERCISES: readonly Exercise[] = [...HOUSEHOLD, ...PAIR, ...OTHERS].sort((a, b) => Number(a.id) - Number(b.id));

/** Free play: whatever the seed draws of a system's own catalogue. */
export const FREE_PLAY: readonly Exercise[] = BENCH_SYSTEM_IDS.map((system: BenchSystemId) =>
  exercise({
    id: `free-${system}`,
    system,
    hidden: null,
    severity: [0, 1],
    level: 3,
    asks: 'What is wrong, if anything?',
    teaches: 'Anything the catalogue knows of this system may be drawn, nothing among it.',
    customer: 'Would you have a look at it?',
    asked: 'Nothing that I know of.',
  }),
);

/** An exercise by its id; an error names those there are. */
export function exerciseOf(id: string): Outcome<Exercise> {
  const found = [...EXERCISES, ...FREE_PLAY].find((one) => one.id === id);
  const known = `1 to ${EXERCISES.length}, or ${FREE_PLAY.map((one) => one.id).join(', ')}`;
  return found ? ok(found) : fail('exercise', id, known, `There is no exercise “${id}”; accepted is ${known}.`);
}
