import { fail, ok, type Outcome } from '../quantity';
import { CHARACTER_ROWS } from './characters';
import { lowestEc25, type KnownOfWater } from './consistency';
import type { PartialAnalysis } from './analysis';
import { HARDNESS_PER_MG } from './solutes';

/** How far two entered numbers may miss each other before they contradict: 5 %. */
const TOLERATED = 1.05;

/** Digits of a number in a sentence. */
export const plain = (value: number): string => String(Math.abs(value) >= 100 ? Math.round(value) : Number(value.toPrecision(3)));

/** One set of entered numbers and the least conductivity a water with them can have. */
interface Demand {
  readonly says: string;
  readonly names: string;
  readonly leastUScm: number;
}

/** What each set of entered numbers demands, smallest set first. */
function conductivityDemands(a: PartialAnalysis): Demand[] {
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const { hardnessMgL, alkalinityMgL } = a;
  const demands: Demand[] = [];
  const add = (says: string, names: string, known: Omit<KnownOfWater, 'pH'>): void => {
    demands.push({ says, names, leastUScm: lowestEc25({ ...known, pH }) });
  };
  if (alkalinityMgL !== undefined) add(`Alkalinity ${plain(alkalinityMgL)} mg/L as CaCO₃ needs`, 'alkalinity', { alkalinityMgL });
  if (hardnessMgL !== undefined) add(`Hardness ${plain(hardnessMgL)} mg/L as CaCO₃ needs`, 'hardness', { hardnessMgL });
  if (hardnessMgL !== undefined && alkalinityMgL !== undefined) {
    const says = `Hardness ${plain(hardnessMgL)} and alkalinity ${plain(alkalinityMgL)} mg/L as CaCO₃ need`;
    add(says, 'hardness, alkalinity', { hardnessMgL, alkalinityMgL });
  }
  if (a.mgL && Object.keys(a.mgL).length > 0) add('The ions entered need', 'the ions', { mgL: a.mgL, hardnessMgL, alkalinityMgL });
  return demands;
}

/** The conductivity to work with, and what to say when it had to give way a little. */
export interface UsableConductivity {
  readonly ec25UScm: number | undefined;
  readonly warning: string | null;
}

/** Tests the entered numbers against the conductivity; nudges it up when they miss by less than 5 %. */
export function consistentEc(a: PartialAnalysis): Outcome<UsableConductivity> {
  if (a.ec25UScm === undefined) return ok({ ec25UScm: undefined, warning: null });
  const entered = a.ec25UScm;
  const demands = conductivityDemands(a);
  // The largest demand is what would have to be met; the smallest set that fails is where to look.
  const largest = demands.reduce<Demand | null>((most, demand) => (most && most.leastUScm >= demand.leastUScm ? most : demand), null);
  if (!largest || largest.leastUScm <= entered) return ok({ ec25UScm: entered, warning: null });
  const least = `at least ${plain(largest.leastUScm)} µS/cm`;
  if (largest.leastUScm > entered * TOLERATED) {
    const alone = demands.find((demand) => demand !== largest && demand.leastUScm > entered * TOLERATED);
    const also = alone ? ` (${alone.names} alone ${plain(alone.leastUScm)})` : '';
    return fail(
      'ec25UScm',
      entered,
      least,
      `${largest.says} ${least}${also}; the conductivity entered is ${plain(entered)}. Check ${largest.names}, conductivity (was it ppm?).`,
    );
  }
  const used = largest.leastUScm * 1.001;
  return ok({ ec25UScm: used, warning: `${largest.says} ${least}; ${plain(entered)} was entered. Worked with ${plain(used)}.` });
}

/**
 * Holds an entered hardness against entered calcium and magnesium.
 *
 * @returns the hardness to work with; undefined when the two ions say it all
 */
export function consistentHardness(
  a: PartialAnalysis,
): Outcome<{ readonly hardnessMgL: number | undefined; readonly warning: string | null }> {
  const { hardnessMgL } = a;
  if (hardnessMgL === undefined) return ok({ hardnessMgL, warning: null });
  const ca = a.mgL?.Ca;
  const mg = a.mgL?.Mg;
  const known = (ca ?? 0) * HARDNESS_PER_MG.Ca + (mg ?? 0) * HARDNESS_PER_MG.Mg;
  const both = ca !== undefined && mg !== undefined;
  const names = both ? 'calcium and magnesium' : ca !== undefined ? 'calcium' : 'magnesium';
  const off = both ? Math.abs(known - hardnessMgL) : known - hardnessMgL;
  if (off > (TOLERATED - 1) * hardnessMgL + 1) {
    return fail(
      'hardnessMgL',
      hardnessMgL,
      both ? `about ${plain(known)} mg/L as CaCO₃` : `at least ${plain(known)} mg/L as CaCO₃`,
      `Hardness ${plain(hardnessMgL)} mg/L as CaCO₃ does not fit ${names}, which make ${plain(known)}. Check hardness, ${names}.`,
    );
  }
  if (both) return ok({ hardnessMgL: undefined, warning: null });
  return ok({ hardnessMgL: Math.max(hardnessMgL, known), warning: null });
}
