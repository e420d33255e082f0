import type { Stage } from '../file';
import { elementCount } from '../membrane';
import { unitRanks } from './membraneUnit';

/** What a train weighs full of water and how much wall it takes. */
export interface Mounting {
  readonly wetKg: number;
  /** Metres of wall or board, side by side; tanks stand on the floor. */
  readonly wallM: number;
}

/** Weight full and width of one element in its housing, by the first digits of its class (our estimates, ±20 %). */
const ELEMENT: readonly (readonly [prefix: string, kg: number, m: number])[] = [
  ['1812', 1.6, 0.1],
  ['2012', 1.8, 0.1],
  ['2540', 9, 0.15],
  ['4040', 26, 0.2],
];

function one(stage: Stage): Mounting {
  switch (stage.kind) {
    case 'sediment':
      return { wetKg: 3.2, wallM: 0.14 };
    case 'carbon':
      // Carbon and the water in it weigh about a kilogram and a half a litre, the housing a kilogram.
      return { wetKg: 1 + 1.5 * stage.volumeL, wallM: stage.volumeL < 3 ? 0.14 : 0.35 };
    case 'tubing':
      // The water in it; it hangs on clips along its way.
      return { wetKg: (Math.PI / 4) * (stage.boreMm / 1000) ** 2 * stage.lengthM * 1000, wallM: 0 };
    case 'pump':
      return stage.pump.kind === 'booster' ? { wetKg: 2.5, wallM: 0.2 } : { wetKg: 28, wallM: 0.45 };
    case 'membrane': {
      const [, kg, m] = ELEMENT.find(([prefix]) => stage.elementClass.startsWith(prefix)) ?? ELEMENT[0]!;
      const elements = elementCount(unitRanks(stage));
      return { wetKg: kg * elements, wallM: m * elements };
    }
    case 'resin':
      return { wetKg: 0.8 + 1.25 * stage.volumeL, wallM: stage.volumeL < 3 ? 0.14 : 0.3 };
    case 'softener':
      // Resin vessel, and as much again for the brine tank.
      return { wetKg: 4 + 3 * stage.volumeL, wallM: 0.5 };
    case 'decarboniser':
    case 'calcite':
      return { wetKg: 0.8 + 1.3 * stage.volumeL, wallM: stage.volumeL < 6 ? 0.16 : 0.3 };
    case 'inhibitor':
      return { wetKg: 2.5, wallM: 0.14 };
    case 'uv':
      return { wetKg: 2 + stage.chamberL, wallM: 0.15 };
    case 'tank':
      // A kilogram a litre, and a twentieth for the tank; it stands on the floor.
      return { wetKg: 1.05 * stage.volumeL, wallM: 0 };
  }
}

/** Weight of a train full of water, tanks apart, and the wall it takes: what studs must hold. */
export function mounting(stages: readonly Stage[]): Mounting & { readonly tankKg: number } {
  const hung = stages.filter((stage) => stage.kind !== 'tank').map(one);
  return {
    wetKg: hung.reduce((sum, m) => sum + m.wetKg, 0),
    wallM: hung.reduce((sum, m) => sum + m.wallM, 0),
    tankKg: stages.filter((stage) => stage.kind === 'tank').reduce((sum, stage) => sum + one(stage).wetKg, 0),
  };
}
