import type { Ageing, Asked, MembraneAnswer } from './answers';
import type { Plan } from './plan';
import type { PriceList } from './prices';
import type { RuleId } from './rules';

/** What options are judged by: tap, need, goal, site and prices, and the membrane's answers on them. */

/** The tap as an option meets it. */
export interface ChoiceWater {
  /** What a meter at factor 0.5 shows. */
  readonly ppm: number;
  readonly cationMeqL: number;
  /** With carbon dioxide and silica. */
  readonly anionMeqL: number;
  readonly chlorineMgL: number;
  readonly chloramineMgL: number;
  /** Saturation index of lime as it comes from the tap. */
  readonly limeIndex: number;
  readonly chlorideMgL: number;
  readonly hardnessMgL: number;
  readonly alkalinityMgL: number;
}
/** What is drawn, and when it can be made. */
export interface ChoiceNeed {
  readonly litresPerYear: number;
  /** To be made on a day that something is drawn on. */
  readonly litresPerDay: number;
  readonly largestDrawL: number;
  /** Hours of a day it may run. */
  readonly hoursPerDay: number;
}
export interface ChoiceGoal {
  /** Most a meter may show; null where strength is not what it is about. */
  readonly ppm: number | null;
  /** No membrane alone reaches it. */
  readonly wantsResin: boolean;
  /** What a cartridge or tap led past brings it to; null where neither does. */
  readonly broughtTo: { readonly quantity: 'alkalinityMgL' | 'ppm'; readonly value: number } | null;
}
/** What the site allows; null is no limit. */
export interface ChoiceSite {
  readonly wallMm: number | null;
  readonly capital: number | null;
  readonly power: boolean;
  readonly drain: boolean;
  /** Least waste to product on water that is not softened. */
  readonly leastWaste: number | null;
  readonly visitsPerYear: number | null;
  /** Least pressure without a pump, bar. */
  readonly leastBar: number | null;
  readonly linePressureBar: number;
}
/** Everything options are judged by. */
export interface Judging {
  readonly water: ChoiceWater;
  readonly need: ChoiceNeed;
  readonly goal: ChoiceGoal;
  readonly site: ChoiceSite;
  readonly prices: PriceList;
  readonly ageing: Ageing;
  readonly horizonYears: number;
  readonly rate: number;
  readonly rules: readonly RuleId[];
  /** On which membrane cross-flow is judged, on the coldest day. */
  readonly crossFlowOn: 'old' | 'new';
  /** Changes of resin or cartridge a year that a job puts up with. */
  readonly mostChanges: number;
  readonly asked: Asked;
}

/** Share of the product that is tap led past the membrane, so that the goal's own figure stands; 0 where none is. */
export function blendShare(
  { blends }: Pick<Plan, 'blends'>,
  answer: Pick<MembraneAnswer, 'ppm' | 'alkalinityMgL'>,
  { water, goal }: Judging,
): number {
  if (!blends || !goal.broughtTo) return 0;
  const { quantity, value } = goal.broughtTo;
  const [tap, made] = [water[quantity], answer[quantity]];
  return tap > made ? Math.min(0.95, Math.max(0, (value - made) / (tap - made))) : 0;
}

/** What is made on a day at an output of its membrane, against what a day needs. */
export const marginOf = (productLPerH: number, blend: number, { hoursPerDay, litresPerDay }: ChoiceNeed): number =>
  litresPerDay > 0 ? (hoursPerDay * productLPerH) / (1 - blend) / litresPerDay : Infinity;
