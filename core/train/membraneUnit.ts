import type { StageOf } from '../file';
import { ELEMENT_ROWS, type MembraneUnit, type VesselRank } from '../membrane';

/** How the elements of a membrane stage stand to each other. */
export function unitRanks({ arrangement, ranks }: Pick<StageOf<'membrane'>, 'arrangement' | 'ranks'>): readonly VesselRank[] {
  const one = { vessels: 1, elementsPerVessel: 1 };
  switch (arrangement) {
    case 'array':
      return ranks.length > 0 ? ranks : [one];
    case 'single':
      return [one];
    case 'parallel':
      return [{ vessels: 2, elementsPerVessel: 1 }];
    case 'series':
      return [one, one];
  }
}

/** The membrane stage as the membrane room takes it. */
export function membraneUnit(stage: StageOf<'membrane'>): MembraneUnit {
  return {
    row: ELEMENT_ROWS[stage.elementClass],
    ranks: unitRanks(stage),
    factors: { water: stage.waterFactor ?? 1, salt: stage.saltFactor ?? 1 },
    restrictor: stage.restrictor,
    valve: stage.valve,
    recycleLPerH: stage.recycleLPerH,
    recycleKv: stage.recycleKv,
  };
}
