import { lastTank, membraneStage } from '../file';
import { deionizes, kindOf, type Stage, type StageOf } from '../stage';

/** What a row of stages takes of a site, whatever the water: worked out once for a row, for thousands of options stand on few rows. */
export interface Taken {
  readonly wallM: number;
  readonly drains: boolean;
  readonly powered: boolean;
  readonly pumped: boolean;
  readonly polishes: boolean;
  /** The last tank, L; null without one. */
  readonly tankL: number | null;
  readonly membrane: StageOf<'membrane'> | null;
  /** What meets the membrane had its minerals taken out. */
  readonly softened: boolean;
}

const KNOWN = new WeakMap<readonly Stage[], Taken>();

function takenBy(stages: readonly Stage[]): Taken {
  const known = KNOWN.get(stages);
  if (known) return known;
  const plumbed = stages.map((stage) => kindOf(stage).plumbed(stage));
  const membrane = membraneStage(stages) ?? null;
  const found: Taken = {
    wallM: stages.reduce((sum, one) => sum + (kindOf(one).form === 'tank' ? 0 : kindOf(one).mounting(one).wallM), 0),
    drains: plumbed.some(({ drains }) => drains),
    powered: plumbed.some(({ powered }) => powered),
    pumped: stages.some(({ kind }) => kind === 'pump'),
    polishes: stages.some((one) => one.kind === 'resin' || deionizes(one)),
    tankL: lastTank(stages)?.volumeL ?? null,
    membrane,
    softened: membrane !== null && stages.slice(0, stages.indexOf(membrane)).some((one) => kindOf(one).touches(one) === 'minerals'),
  };
  KNOWN.set(stages, found);
  return found;
}

/** What two rows one behind the other take together; a membrane and what is ahead of it are of one row. */
const together = (a: Taken, b: Taken): Taken => ({
  wallM: a.wallM + b.wallM,
  drains: a.drains || b.drains,
  powered: a.powered || b.powered,
  pumped: a.pumped || b.pumped,
  polishes: a.polishes || b.polishes,
  tankL: b.tankL ?? a.tankL,
  membrane: a.membrane ?? b.membrane,
  softened: a.softened || b.softened,
});

/** What rows one behind the other take together; there is one at least. */
export const takenByAll = (rows: readonly (readonly Stage[])[]): Taken => rows.map(takenBy).reduce(together);
