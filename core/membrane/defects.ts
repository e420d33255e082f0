import { CLEAN, type FoulingFactors, type MarchSetup } from './march';
import type { Restrictor } from './restrictor';

/** What is wrong with a unit, place by place: what a fault changes of it. Absent, or with nothing in it, the unit is sound. */
export interface UnitDefects {
  /** Water and salt multipliers of each element, in the order the water meets them; those not named are sound. */
  readonly elements?: readonly FoulingFactors[];
  /** Feed that slips past a seal into the product of the first element, L/h at `LEAK_TEST_BAR`; it goes with the root of the pressure. */
  readonly leakLPerH?: number;
  /** Flow of the waste restrictor or valve against that of a sound one at the same drop. */
  readonly restrictorFlow?: number;
  /** A restrictor left in the concentrate line behind the first so many elements. */
  readonly throttle?: { readonly afterElements: number; readonly restrictor: Restrictor } | null;
  /** Share of the feed that slips past the elements, unread by them, into the waste. */
  readonly slip?: number;
}

/** 60 psi: the pressure at which a leak is stated. */
export const LEAK_TEST_BAR = 4.136854;

/** What leaks past a seal at a pressure, L/h: an orifice. */
export const leakLPerH = ({ leakLPerH: stated = 0 }: UnitDefects, feedBar: number): number =>
  stated * Math.sqrt(Math.max(0, feedBar) / LEAK_TEST_BAR);

/** The march through the element at a place of a unit, in the order the water meets them. */
export function setupAt(setup: MarchSetup, { elements }: UnitDefects, place: number): MarchSetup {
  const { water, salt } = elements?.[place] ?? CLEAN;
  if (water === 1 && salt === 1) return setup;
  const { membrane } = setup;
  return {
    ...setup,
    membrane: { ...membrane, aLmhPerBar: membrane.aLmhPerBar * water, bLmh: membrane.bLmh.map((b) => b * salt) },
  };
}
