import type { System } from '../file';
import { ok, type Outcome } from '../quantity';
import {
  beats,
  sampleInputs,
  spreadOf,
  strengthDoubt,
  surelyWord,
  USUAL_DOUBTS,
  USUAL_SAMPLING,
  type Doubts,
  type Sampling,
  type Spread,
  type UncertainInput,
} from '../year';
import type { Answers } from './answers';
import { figuresOf } from './figures';
import type { Judging } from './judging';
import type { Plan } from './plan';

/** How sure a comparison is: the same doubts for every option (science of options, 9). */

/** What is not known of a system's options. */
export const doubtsOf = ({ source }: Pick<System, 'source'>): Doubts => ({ ...USUAL_DOUBTS, strength: strengthDoubt(source) });
const ORDER = ['use', 'strength', 'co2', 'resinCapacity', 'prices', 'prices', 'ageing'] as const;

export interface Compared {
  /** What each costs a year, in the plans' order. */
  readonly spreads: readonly Spread[];
  /** Share of draws in which the first costs less than each. */
  readonly firstBeats: readonly number[];
  readonly word: readonly ReturnType<typeof surelyWord>[];
}

/** The judging as it may truly be: more or less drawn, another tap, other prices. */
function drawn(judging: Judging, factors: Float64Array): Judging {
  const [use, strength, co2, capacity, parts, service, ageing] = factors as unknown as readonly number[];
  const { water, prices, need } = judging;
  const load = (cation: number, anion: number, gas: number): { cationMeqL: number; anionMeqL: number } => ({
    cationMeqL: (cation * strength!) / capacity!,
    anionMeqL: ((anion - gas) * strength! + gas * co2!) / capacity!,
  });
  const gas = Math.max(0, water.anionMeqL - water.cationMeqL);
  const asked = (membrane: Parameters<Judging['asked']>[0]): Answers => {
    const known = judging.asked(membrane);
    return {
      ...known,
      year: () => {
        const year = known.year();
        return year && { ...year, ppm: year.ppm * strength!, ...load(year.cationMeqL, year.anionMeqL, year.gasMeqL) };
      },
    };
  };
  return {
    ...judging,
    asked,
    water: {
      ...water,
      ppm: water.ppm * strength!,
      hardnessMgL: water.hardnessMgL * strength!,
      alkalinityMgL: water.alkalinityMgL * strength!,
      ...load(water.cationMeqL, water.anionMeqL, gas),
    },
    need: { ...need, litresPerYear: need.litresPerYear * use! },
    ageing: { ...judging.ageing, water: Math.min(0.6, judging.ageing.water * ageing!) },
    prices: {
      ...prices,
      waterPerM3: prices.waterPerM3 * service!,
      sewerPerM3: prices.sewerPerM3 * service!,
      energyPerKWh: prices.energyPerKWh * service!,
      resinPerL: prices.resinPerL * parts!,
      part: (part) => prices.part(part) * parts!,
    },
  };
}

/** Compares plans under the same doubts; the first against each. */
export function compareUnderDoubt(
  plans: readonly Plan[],
  judging: Judging,
  doubts: Doubts,
  sampling: Sampling = USUAL_SAMPLING,
): Outcome<Compared> {
  const inputs: UncertainInput[] = ORDER.map((name) => ({ value: 1, sd: doubts[name], shape: 'lognormal' }));
  const draws = sampleInputs(inputs, sampling);
  if (!draws.ok) return draws;
  const costs = plans.map(() => new Float64Array(draws.value.length));
  draws.value.forEach((factors, i) => {
    const at = drawn(judging, factors);
    plans.forEach((plan, k) => (costs[k]![i] = figuresOf(plan, at)?.annualCost ?? Infinity));
  });
  const firstBeats = costs.map((cost) => beats(costs[0]!, cost));
  return ok({ spreads: costs.map((cost) => spreadOf(cost, sampling.replicates)), firstBeats, word: firstBeats.map(surelyWord) });
}
