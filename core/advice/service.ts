import { highestLimits, UNHELD, type ScaleLimits } from '../dosing';
import type { System } from '../file';
import { productLPerDay } from '../goal';
import { kindOf } from '../stage';
import type { SolvedTrain } from '../train';

/** How a unit is run: what limits it has follows from whether it rests every day. */

/** Hours a day up to which a unit counts as one that rests. */
const RESTS_H = 8;

/** Hours a unit runs for a day's need; 24 where it makes too little or nothing. */
const runHours = (system: System, { productLPerH }: Pick<SolvedTrain, 'productLPerH'>): number =>
  productLPerH > 0 ? Math.min(24, productLPerDay(system.goal) / productLPerH) : 24;

/** Whether it rests most of the day, and is rinsed or drained meanwhile. */
export const rests = (system: System, solved: Pick<SolvedTrain, 'productLPerH'>): boolean => runHours(system, solved) < RESTS_H;

/** Calcite index of the waste that is acted on, by service (common practice). */
const ACTED = { continuous: 0, rests: 0.3 } as const;

/**
 * How far the waste may go past saturation: by how the unit is run and what stands ahead of it to hold scale; calcite as it
 * was set for this job, where it was. A flush at every stop would allow 0.5.
 */
export function scaleLimits(system: System, solved: SolvedTrain): ScaleLimits {
  const { stages, scaleActionIndex: set } = system.train;
  const membrane = stages.findIndex(({ kind }) => kind === 'membrane');
  const held = stages.slice(0, Math.max(0, membrane)).flatMap((stage) => kindOf(stage).holdsScale(stage) ?? []);
  const found = highestLimits([{ ...UNHELD, calciteIndex: rests(system, solved) ? ACTED.rests : ACTED.continuous }, ...held]);
  return set === null ? found : { ...found, calciteIndex: set };
}
