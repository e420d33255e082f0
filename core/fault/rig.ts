import type { Outcome } from '../quantity';
import type { UnitDefects } from '../membrane';
import type { KindId } from './kinds';

/** A system as the search for faults asks it: what would be read of it with this or that changed. */

/** What a fault, or the day, changes of a system; as it should be where absent. */
export interface RigChange {
  /** Pressure of the line against what it should be. */
  readonly lineShare?: number;
  /** Degrees the water is off what is expected. */
  readonly warmerC?: number;
  /** Strength of the feed against what is expected. */
  readonly feedShare?: number;
  /** Share of the line's pressure the filters take beyond clean ones, at the flow of a sound unit. */
  readonly filterShare?: number;
  /** Pressure on the product beyond what it should be, bar. */
  readonly backBar?: number;
  /** Water and salt multipliers of all elements together. */
  readonly water?: number;
  readonly salt?: number;
  /** What a pump adds, against what it should add. */
  readonly pumpShare?: number;
  /** What is led back, against what it should be. */
  readonly recycleShare?: number;
  /** What is wrong with the unit itself; water and salt of single elements beside those of all. */
  readonly defects?: UnitDefects;
}

/** What the solver says of a system, as instruments without error would show it. */
export const SOLVED_KINDS = [
  'tap',
  'membrane',
  'line',
  'inlet',
  'temperature',
  'productFlow',
  'wasteFlow',
  'openFlow',
  'ratioStrength',
  'ratioFlow',
] as const satisfies readonly KindId[];
export type SolvedKind = (typeof SOLVED_KINDS)[number];
export type Solved = Readonly<Record<SolvedKind, number>>;

/** Every reading as instruments without error would show it. */
export type Truth = Readonly<Record<KindId, number>>;

export interface Rig {
  /** Number of elements whose ports can be read. */
  readonly elements: number;
  /** Product of the sound unit, L/h: leaks and the like are stated against it. */
  readonly soundProductLPerH: number;
  /** What is read beside what the solver says, where nothing is wrong. */
  readonly beside: (solved: Solved) => Beside;
  /**
   * What each reading would be with the changes; an error names what could not be solved.
   *
   * @param near an answer with nearly the same changes: what the product line taken off makes of it is taken from there
   * @param start an answer not far off; only saves time
   */
  readonly solve: (change: RigChange, near?: Solved, start?: Solved) => Outcome<Solved>;
}

/** Readings the solver does not give. */
export type Beside = Omit<Truth, SolvedKind | 'later' | 'clean' | 'penMembrane' | 'penTap'>;

/** Every reading of a system that nothing is wrong with but what the solver has seen. Written out: it is made some thousand times. */
export function plainTruth(rig: Rig, solved: Solved): Truth {
  const beside = rig.beside(solved);
  return {
    tap: solved.tap,
    membrane: solved.membrane,
    later: solved.membrane,
    clean: solved.membrane,
    product: beside.product,
    midResin: beside.midResin,
    line: solved.line,
    inlet: solved.inlet,
    temperature: solved.temperature,
    productFlow: solved.productFlow,
    wasteFlow: solved.wasteFlow,
    openFlow: solved.openFlow,
    penMembrane: solved.membrane,
    penTap: solved.tap,
    ratioStrength: solved.ratioStrength,
    ratioFlow: solved.ratioFlow,
    pH: beside.pH,
    penProduct: beside.penProduct,
    softHardness: beside.softHardness,
    blendHardness: beside.blendHardness,
    shutHardness: beside.shutHardness,
    nightResistivity: beside.nightResistivity,
    returnFlow: beside.returnFlow,
    pumpFlow: beside.pumpFlow,
    recycleFlow: beside.recycleFlow,
  };
}

/**
 * Beside a unit with polishing resin, with nothing else (common practice). Of what a system does not have the figures
 * stand for nothing: nobody reads them there.
 */
export const PLAIN_BESIDE: Beside = {
  product: 0.1,
  midResin: 1,
  pH: 6.5,
  penProduct: 0.1,
  softHardness: 1,
  blendHardness: 1,
  shutHardness: 1,
  nightResistivity: 1,
  returnFlow: 1,
  pumpFlow: 1,
  recycleFlow: 1,
};
