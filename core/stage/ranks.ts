import type { VesselRank } from '../membrane';

/** How the elements of a membrane stage stand to each other. */
export function unitRanks({
  arrangement,
  ranks,
}: {
  readonly arrangement: 'single' | 'parallel' | 'series' | 'array';
  readonly ranks: readonly VesselRank[];
}): readonly VesselRank[] {
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
