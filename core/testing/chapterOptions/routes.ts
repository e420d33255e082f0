import { findRoot } from '../../numeric';
import { RESIN_ROWS } from '../../exchange';

/** What a litre is paid with: water, waste, power, and resin by the litre. */
export interface RoutePrices {
  readonly waterPerM3: number;
  readonly sewerPerM3: number;
  readonly powerPerKWh: number;
  readonly resinPerL: number;
  readonly membranePerYear: number;
}

/** A tap as the resin has to take it, meq/L: what a meter sees, and what it does not. */
export interface RouteWater {
  readonly seenMeqL: number;
  readonly co2MeqL: number;
  readonly silicaMeqL: number;
}

/** What a membrane before the resin does. */
export interface MembraneRoute {
  /** Shares that pass: ions, and silica; carbon dioxide passes whole. */
  readonly passage: number;
  readonly silicaPassage: number;
  readonly recovery: number;
  readonly energyKWhPerM3: number;
}

export const PLACEHOLDER_ROUTE: MembraneRoute = { passage: 0.04, silicaPassage: 0.05, recovery: 0.5, energyKWhPerM3: 1 };

/** Share of a bed used when it is changed, one alone and the lead of two in a row, and packing (our defaults). */
export const BED_USED = { alone: 0.9, lead: 1 } as const;
const PACKING = 0.9;

/**
 * Litres of mixed bed's resin that a litre of water takes.
 *
 * @param load what a litre brings either side of it, meq/L
 * @param used share of the bed used when it is changed
 */
export function mixedBedPerLitre(load: { readonly cationMeqL: number; readonly anionMeqL: number }, used: number): number {
  const { cationEqPerL, anionEqPerL } = RESIN_ROWS.mixedBed;
  return Math.max(load.cationMeqL / cationEqPerL, load.anionMeqL / anionEqPerL) / (used * PACKING) / 1000;
}

/** Litres of resin a litre of water takes. */
export const resinPerLitre = ({ seenMeqL, co2MeqL, silicaMeqL }: RouteWater): number =>
  mixedBedPerLitre({ cationMeqL: seenMeqL, anionMeqL: seenMeqL + co2MeqL + silicaMeqL }, BED_USED.alone);

/** The water behind the membrane. */
export const throughMembrane = (tap: RouteWater, route: MembraneRoute): RouteWater => ({
  seenMeqL: tap.seenMeqL * route.passage,
  co2MeqL: tap.co2MeqL,
  silicaMeqL: tap.silicaMeqL * route.silicaPassage,
});

/** What a litre costs, by what it is paid for. */
export interface RouteCost {
  readonly resin: number;
  readonly water: number;
  readonly sewer: number;
  readonly power: number;
  readonly total: number;
}

const summed = (cost: Omit<RouteCost, 'total'>): RouteCost => ({ ...cost, total: cost.resin + cost.water + cost.sewer + cost.power });

/** A litre by resin alone. */
export const resinAlone = (tap: RouteWater, prices: RoutePrices): RouteCost =>
  summed({ resin: resinPerLitre(tap) * prices.resinPerL, water: prices.waterPerM3 / 1000, sewer: 0, power: 0 });

/** A litre by membrane and resin, without what the membrane costs a year. */
export const membraneFirst = (tap: RouteWater, route: MembraneRoute, prices: RoutePrices): RouteCost =>
  summed({
    resin: resinPerLitre(throughMembrane(tap, route)) * prices.resinPerL,
    water: prices.waterPerM3 / 1000 / route.recovery,
    sewer: (prices.sewerPerM3 / 1000) * (1 / route.recovery - 1),
    power: (prices.powerPerKWh * route.energyKWhPerM3) / 1000,
  });

/** What a membrane costs a week whether it runs or not. */
export const fixedPerWeek = (prices: RoutePrices): number => (prices.membranePerYear * 7) / 365;

/** Litres a week at which both cost the same; null where resin alone is always the cheaper. */
export function breakevenLPerWeek(tap: RouteWater, route: MembraneRoute, prices: RoutePrices): number | null {
  const saved = resinAlone(tap, prices).total - membraneFirst(tap, route, prices).total;
  return saved > 0 ? fixedPerWeek(prices) / saved : null;
}

/** The tap at another strength: ions in proportion, carbon dioxide and silica as they are. */
export const atStrength = (tap: RouteWater, factor: number): RouteWater => ({ ...tap, seenMeqL: tap.seenMeqL * factor });

/** Which way is the cheaper whatever the strength, or the strength from which the membrane is. */
export type Turn = { readonly kind: 'at'; readonly factor: number } | { readonly kind: 'membrane' } | { readonly kind: 'resin' };

/**
 * The strength, as a factor on this tap, at which a weekly volume costs the same either way.
 *
 * @param range factors searched
 */
export function breakevenFactor(
  tap: RouteWater,
  route: MembraneRoute,
  prices: RoutePrices,
  litresPerWeek: number,
  range: readonly [number, number],
): Turn {
  /** What a week with the membrane saves. */
  const saved = (factor: number): number => {
    const water = atStrength(tap, factor);
    return litresPerWeek * (resinAlone(water, prices).total - membraneFirst(water, route, prices).total) - fixedPerWeek(prices);
  };
  if (saved(range[0]) >= 0) return { kind: 'membrane' };
  if (saved(range[1]) <= 0) return { kind: 'resin' };
  return { kind: 'at', factor: findRoot(saved, range[0], range[1], 1e-6)!.x };
}
