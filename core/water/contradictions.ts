import { fail, ok, type Outcome } from '../quantity';
import { CHARACTER_ROWS } from './characters';
import { lowestEc25, lowestWater, type KnownOfWater, type LowestWater } from './consistency';
import type { PartialAnalysis } from './analysis';
import { HARDNESS_PER_MG, type Solute } from './solutes';
import { MEASURED_SHARE } from './uncertainty';

/** How far an entered hardness may miss the calcium and magnesium beside it: 5 %. */
const TOLERATED = 1.05;

/** Digits of a number in a sentence. */
export const plain = (value: number): string => String(Math.abs(value) >= 100 ? Math.round(value) : Number(value.toPrecision(3)));

/** One set of entered numbers and the least conductivity a water with them can have. */
interface Demand {
  readonly says: string;
  readonly names: string;
  readonly lowest: LowestWater;
  /** By how many standard deviations it misses the conductivity entered. */
  readonly short: number;
}

/** Doubt of a conductivity without a word on its meter, and of the law that gives the lowest one, as shares. */
const METER_DOUBT = 0.03;
const LAW_DOUBT = 0.015;

/** By how many standard deviations the least conductivity of known values lies above the one entered. */
export function shortfall(known: KnownOfWater, least: number, a: PartialAnalysis, entered: number): number {
  const variance = [((a.ec25Doubt ?? METER_DOUBT) * entered) ** 2, (LAW_DOUBT * least) ** 2];
  const vary = (more: KnownOfWater, doubtShare: number): void => {
    // A step of 2 % for the slope.
    variance.push((((lowestEc25(more) - least) / 0.02) * doubtShare) ** 2);
  };
  const share = (value: number, plusMinus: number | undefined): number => (plusMinus === undefined ? MEASURED_SHARE : plusMinus / value);
  const { hardnessMgL, alkalinityMgL, mgL } = known;
  if (hardnessMgL) vary({ ...known, hardnessMgL: 1.02 * hardnessMgL }, share(hardnessMgL, a.plusMinus?.hardnessMgL));
  if (alkalinityMgL) vary({ ...known, alkalinityMgL: 1.02 * alkalinityMgL }, share(alkalinityMgL, a.plusMinus?.alkalinityMgL));
  for (const [solute, value] of Object.entries(mgL ?? {}))
    if (value > 0) vary({ ...known, mgL: { ...mgL, [solute]: 1.02 * value } }, MEASURED_SHARE);
  return (least - entered) / Math.sqrt(variance.reduce((sum, one) => sum + one, 0));
}

/** What each set of entered numbers demands, smallest set first. */
function conductivityDemands(a: PartialAnalysis, entered: number): Demand[] {
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const { hardnessMgL, alkalinityMgL } = a;
  const demands: Demand[] = [];
  const add = (says: string, names: string, values: Omit<KnownOfWater, 'pH'>): void => {
    const known = { ...values, pH };
    const lowest = lowestWater(known);
    if (lowest) demands.push({ says, names, lowest, short: lowest.ec25UScm > entered ? shortfall(known, lowest.ec25UScm, a, entered) : 0 });
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
  /** The water that conducts least with what was entered: where a search for the real one can always begin. */
  readonly lowest: LowestWater | null;
}

/** Standard deviations up to which a miss is the error of meter and kit. */
const WITHIN_ERROR = 2;
/** Ions that carry most of a conductivity, as they are called. */
export const ION_WORDS: Readonly<Partial<Record<Solute | 'alkalinity', string>>> = {
  Ca: 'calcium',
  Mg: 'magnesium',
  Na: 'sodium',
  K: 'potassium',
  SO4: 'sulfate',
  NO3: 'nitrate',
  Cl: 'chloride',
  alkalinity: 'bicarbonate',
};

/** Tests the entered numbers against the conductivity; gives way a little where they miss within the error of meter and kit. */
export function consistentEc(a: PartialAnalysis): Outcome<UsableConductivity> {
  if (a.ec25UScm === undefined) return ok({ ec25UScm: undefined, warning: null, lowest: null });
  const entered = a.ec25UScm;
  const demands = conductivityDemands(a, entered);
  const least = ({ lowest }: Demand): string => `at least ${plain(lowest.ec25UScm)} µS/cm`;
  // The largest set has to be met; the smallest that fails is where to look.
  const failing = demands.findLast(({ short }) => short > WITHIN_ERROR);
  const alone = demands.find((one) => one !== failing && one.short > WITHIN_ERROR);
  if (failing) {
    const fills = failing.lowest.filledWith.flatMap((ion) => ION_WORDS[ion] ?? []);
    const also = alone ? ` (${alone.names} alone ${plain(alone.lowest.ec25UScm)})` : '';
    const even = fills.length === 0 ? '' : ` in any water, even one all ${fills.join(' and ')}`;
    return fail(
      'ec25UScm',
      entered,
      least(failing),
      `${failing.says} ${least(failing)}${also}${even}; ${plain(entered)} was entered. Check ${failing.names}, conductivity (was it ppm?).`,
    );
  }
  // The largest demand is what has to be met.
  const largest = demands.reduce<Demand | null>((most, one) => (most && most.lowest.ec25UScm >= one.lowest.ec25UScm ? most : one), null);
  const lowest = demands.at(-1)?.lowest ?? null;
  if (!largest || largest.lowest.ec25UScm <= entered) return ok({ ec25UScm: entered, warning: null, lowest });
  const used = largest.lowest.ec25UScm * 1.001;
  return ok({
    ec25UScm: used,
    lowest,
    warning: `${largest.says} ${least(largest)}; ${plain(entered)} was entered. That is within the error of meter and kit; worked with ${plain(used)}.`,
  });
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
