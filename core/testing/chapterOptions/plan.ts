import type { ElementClass, VesselRank } from '../../membrane';
import type { ChapterLine } from './lines';
import type { PriceList, Priced } from './prices';

/** What an option comes to as things on a wall: what stands in it, what it costs to buy, what is changed how often. */

/** How a membrane gets its pressure. */
export interface PlannedPump {
  /** Pressure in front of the membrane, bar: of the line, or what the pump holds. */
  readonly bar: number;
  readonly kW: number;
  /** Part it is bought as. */
  readonly part: Priced;
  /** Litres an hour that meet the membrane whatever it makes; null: what it takes at its recovery. */
  readonly heldFeedLPerH: number | null;
}
/** The membrane part of a train: what is solved once, whatever stands before and behind it. */
export interface PlannedMembrane {
  readonly elementClass: ElementClass;
  readonly ranks: readonly VesselRank[];
  readonly pump: PlannedPump | null;
  /** Share of the raw feed that becomes product; null where a held flow and pressure leave it open. */
  readonly recovery: number | null;
  /** Hardness is out of its feed. */
  readonly softened: boolean;
}
export interface PlannedResin {
  readonly beds: number;
  readonly litresEach: number;
  /** Water passes one bed behind the other: the last guards, the first is used up. */
  readonly inSeries: boolean;
  /** Resin's price against the usual one: more for a silica stage. */
  readonly priceFactor: number;
}
/** Something changed or used so often a year, whatever the litres; `whole` is a visit. */
export interface Upkeep {
  readonly line: ChapterLine;
  readonly part: Priced;
  readonly count: number;
  /** At least so often a year. */
  readonly timesAYear: number;
  /** Changed besides once in so many litres of feed, or of product. */
  readonly everyFeedL?: number;
  readonly everyProductL?: number;
}
/** A train as an option stands for it. */
export interface Plan {
  /** Coarse way to the water, among which an answer turns. */
  readonly route: Route;
  readonly membrane: PlannedMembrane | null;
  readonly resin: PlannedResin | null;
  /** Carbon that shields the membrane: blocks in a row. */
  readonly carbon: { readonly blocks: number; readonly litresEach: number; readonly chloramine: boolean } | null;
  /** Cartridge with a bypass. */
  readonly cartridge: { readonly capacityMeq: number; readonly part: Priced; readonly bypass: number } | null;
  readonly scale: 'nothing' | 'inhibitor' | 'softener';
  /** Softener on the membrane's feed. */
  readonly softener: { readonly volumeL: number; readonly saltGPerL: number; readonly reserveShare: number } | null;
  /** Tap is led past the membrane until the goal's own figure stands. */
  readonly blends: boolean;
  /** Carbon dioxide is taken out ahead of the resin. */
  readonly degassed: boolean;
  /** What is bought when the membrane is spent; by its ageing, or every so many years. */
  readonly membraneChange: { readonly part: Priced; readonly count: number; readonly years: number | null } | null;
  readonly tankL: number;
  readonly widthMm: number;
  readonly parts: readonly (readonly [part: Priced, count: number])[];
  readonly upkeep: readonly Upkeep[];
  /** Power it takes to make a cubic metre beside its pump's hours, kWh. */
  readonly kWhPerM3: number;
  /** Share of the waste's pressure that comes back. */
  readonly energyRecovery: number;
  /** It stands there already: nothing is bought. */
  readonly owned: boolean;
}
export const ROUTES = ['resin', 'membrane', 'membraneAndResin', 'cartridge'] as const;
export type Route = (typeof ROUTES)[number];

/** What a plan costs to buy. */
export const capitalOf = ({ parts, tankL, owned }: Pick<Plan, 'parts' | 'tankL' | 'owned'>, prices: PriceList): number =>
  owned ? 0 : prices.tankPerL(tankL) + parts.reduce((sum, [part, count]) => sum + count * prices.part(part), 0);

/** What tells one membrane part from another: plans of one key are solved once. */
export function membraneKey({ elementClass, ranks, pump, recovery, softened }: PlannedMembrane): string {
  let key = `${elementClass} ${recovery ?? 'open'} ${pump ? `${pump.bar}/${pump.heldFeedLPerH ?? ''}` : 'line'}${softened ? ' soft' : ''}`;
  for (const { vessels, elementsPerVessel } of ranks) key += ` ${vessels}x${elementsPerVessel}`;
  return key;
}
