import type { BedLife } from '../exchange';

/** What the log says a stage has been through since it was fitted; what is absent is not known. */
export interface StageUse {
  /** Equivalents a resin has taken up. */
  readonly cationEq?: number;
  readonly anionEq?: number;
  /** What the cells of the column found for its row, and the litres it stands at; absent where nobody has run it. */
  readonly life?: { readonly of: BedLife; readonly litres: number };
  /** Litres that went through it. */
  readonly passedL?: number;
  readonly years?: number;
  /** Factors of a membrane's water and salt permeability as its log has them: its age by the calendar gives way to them. */
  readonly factors?: { readonly water: number | null; readonly salt: number | null };
  /** Chlorine and chloramine that reached a membrane, mg/L × hours. */
  readonly chlorineMgLHours?: number;
  readonly chloramineMgLHours?: number;
}

/** By stage id. A stage that is absent counts as new. */
export type TrainUse = Readonly<Record<string, StageUse>>;

/** Of a stage that counts as new. */
export const NO_USE: StageUse = {};
