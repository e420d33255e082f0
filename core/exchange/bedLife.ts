import { SOLUTES, type Water } from '../water';
import type { ColumnRun } from './column';
import { amountOf, type IonId } from './ions';
import type { Bed } from './resins';

/** What a row of beds lets out over its life, as the cells of the column found it: the train reads it at its own litres. */
export interface BedLife {
  readonly litres: readonly number[];
  /** What leaves the last bed, meq/L; an ion that is absent was too little to be run. */
  readonly outMeqL: Readonly<Partial<Record<IonId, readonly number[]>>>;
}

/** The part of a run that is kept. */
export const lifeOf = ({ litres, outMeqL }: ColumnRun): BedLife => ({ litres, outMeqL });

const digits = (value: number, count: number): number => Number(value.toPrecision(count));

/**
 * What tells one life from another: beds, flow to two digits, temperature to a degree, every ion to three digits. Runs of
 * one key are one run.
 */
export function lifeKey({
  beds,
  water,
  flowLPerH,
}: {
  readonly beds: readonly Bed[];
  readonly water: Water;
  readonly flowLPerH: number;
}): string {
  return JSON.stringify([
    beds.map(({ resin, volumeL, depthMm, packing }) => [resin, volumeL, depthMm, packing]),
    digits(flowLPerH, 2),
    Math.round(water.temperatureC),
    digits(water.carbonMmolL, 3),
    SOLUTES.map((solute) => digits(water.mgL[solute], 3)),
  ]);
}

/** Amounts that leave at so many litres, by ion in mmol/L or mg/L as `amountOf` has them; null past the end of the run. */
export function outletOf(life: BedLife, litres: number): ReadonlyMap<IonId, number> | null {
  const last = life.litres.length - 1;
  if (last < 1 || litres > life.litres[last]!) return null;
  const at = Math.max(
    1,
    life.litres.findIndex((one) => one >= litres),
  );
  const [from, to] = [life.litres[at - 1]!, life.litres[at]!];
  const share = to > from ? Math.min(1, Math.max(0, (litres - from) / (to - from))) : 0;
  return new Map(
    Object.entries(life.outMeqL).map(([id, meqL]) => {
      const value = meqL[at - 1]! + share * (meqL[at]! - meqL[at - 1]!);
      return [id as IonId, amountOf(id as IonId, Math.max(0, value))];
    }),
  );
}
