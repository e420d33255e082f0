import { FIRST_RISE } from './atGoal';
import { utilisationAt, type BedUtilisation } from './film';
import type { IonicLoad } from './load';
import { RESIN_ROWS, type Bed } from './resins';

/** Litres, or the statement that nothing uses the resin up. */
export type Litres = { readonly kind: 'litres'; readonly litres: number } | { readonly kind: 'unlimited' };

export interface BedThroughput {
  readonly until: Litres;
  readonly limiting: 'cation' | 'anion';
  readonly cationL: number | null;
  readonly anionL: number | null;
}

/** Stoichiometric capacity of each side as packed, eq. */
export function bedCapacityEq(bed: Bed): { cationEq: number; anionEq: number } {
  const resin = RESIN_ROWS[bed.resin];
  return { cationEq: bed.volumeL * resin.cationEqPerL * bed.packing, anionEq: bed.volumeL * resin.anionEqPerL * bed.packing };
}

/**
 * Litres a row of beds in series treats until the last one's outlet passes breakthrough.
 *
 * In series the front runs through all beds as through one of their summed capacity and transfer units,
 * which is what makes a second cartridge use the first one up.
 *
 * @param states utilisation of each bed at the flow, in the same order
 * @param used share of a side that is used then, by the transfer units of the row; the first visible rise where it is not said
 */
export function bedThroughput(
  beds: readonly Bed[],
  states: readonly BedUtilisation[],
  load: IonicLoad,
  used: (side: 'cation' | 'anion', transferUnits: number) => number = (_, transferUnits) => utilisationAt(transferUnits, FIRST_RISE),
): BedThroughput {
  const sum = (of: (i: number) => number): number => beds.reduce((total, _, i) => total + of(i), 0);
  // A side none of the beds takes does not end their life.
  const litres = (side: 'cation' | 'anion', meqL: number): number | null => {
    const eq = sum((i) => bedCapacityEq(beds[i]!)[`${side}Eq`]);
    if (!(meqL > 0 && eq > 0)) return null;
    return (
      (1000 *
        eq *
        used(
          side,
          sum((i) => states[i]![side].transferUnits),
        )) /
      meqL
    );
  };
  const cationL = litres('cation', load.cationMeqL);
  const anionL = litres('anion', load.anionMeqL);
  const limiting = anionL !== null && (cationL === null || anionL <= cationL) ? 'anion' : 'cation';
  const least = limiting === 'anion' ? anionL : cationL;
  return { until: least === null ? { kind: 'unlimited' } : { kind: 'litres', litres: least }, limiting, cationL, anionL };
}
