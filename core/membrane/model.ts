import type { ElementRow } from './classes';
import type { UnitDefects } from './defects';
import type { FoulingFactors } from './march';
import type { OsmoticLaw } from './osmosis';
import type { Pump } from './pump';
import type { RankState, VesselRank } from './ranks';
import type { Restrictor } from './restrictor';
import type { WasteValve } from './valve';

/** What a membrane unit is, what it is given, and what it does. */

/** A membrane unit with its waste restrictor. Ranks follow one another on the concentrate; permeates join. */
export interface MembraneUnit {
  readonly row: ElementRow;
  readonly ranks: readonly VesselRank[];
  readonly factors: FoulingFactors;
  readonly restrictor: Restrictor;
  /** Stands in place of the restrictor where there is one. */
  readonly valve?: WasteValve | null;
  /** Concentrate led back before the pump, L/h. */
  readonly recycleLPerH?: number;
  /** Opening of a valve that sets the recycle by pressure, in place of the flow above. */
  readonly recycleKv?: number | null;
  /** What is wrong with it; nothing where absent. */
  readonly defects?: UnitDefects;
}

/** What the unit is given. */
export interface UnitConditions {
  readonly linePressureBar: number;
  /** Pressure the stages before the unit take per L/h of feed; they are laminar, so it is a slope. */
  readonly prefilterBarPerLPerH: number;
  /** Behind the filters, before the membrane. */
  readonly pump?: Pump | null;
  readonly permeatePressureBar: number;
  readonly temperatureC: number;
  readonly law: OsmoticLaw;
}

/** The operating point in flows and amounts. */
export interface UnitFlows {
  /** Raw feed, without what is led back. */
  readonly feedLPerH: number;
  /** Through the pump and into the first elements: raw feed and recycle together. */
  readonly membraneFeedLPerH: number;
  readonly recycleLPerH: number;
  /** The mixture that meets the membrane, mmol/L in the feed's species order. */
  readonly mixedFeedMmolL: readonly number[];
  readonly feedPressureBar: number;
  readonly permeateLPerH: number;
  readonly concentrateLPerH: number;
  readonly concentratePressureBar: number;
  readonly recovery: number;
  readonly wasteToProduct: number | null;
  readonly ranks: readonly RankState[];
  readonly noProduction: boolean;
  /** How the unknown flow was found. */
  readonly iterations: number;
  /** Pressure left unexplained at the drain, bar. */
  readonly residualBar: number;
  /** Slope of the balance at the point: where a similar solve may begin. */
  readonly slope: number;
  /** mmol/L in the feed's species order; permeate null when there is none. */
  readonly permeateMmolL: readonly number[] | null;
  readonly concentrateMmolL: readonly number[];
}
