import { leakLPerH, setupAt, type UnitDefects } from './defects';
import { marchElement, type MarchResult, type MarchSetup } from './march';
import { restrictorPressureBar } from './restrictor';

/** One rank of a membrane unit: so many vessels side by side, so many elements end to end in each. */
export interface VesselRank {
  readonly vessels: number;
  readonly elementsPerVessel: number;
}

/** Elements of all ranks together. */
export const elementCount = (ranks: readonly VesselRank[]): number =>
  ranks.reduce((sum, rank) => sum + rank.vessels * rank.elementsPerVessel, 0);

/** One element as it runs; those at the same place of vessels side by side are alike. */
export interface ElementState {
  readonly feedLPerMin: number;
  readonly concentrateLPerMin: number;
  readonly fluxLmh: number;
  /** Share of its own feed it takes. */
  readonly recovery: number;
  readonly pressureDropBar: number;
  /** What it leaves at its product port, L/h and mmol/L in the feed's species order; empty when it makes none. */
  readonly permeateLPerH: number;
  readonly permeateMmolL: readonly number[];
  /** Highest ratio of salt at the wall to salt in the bulk. */
  readonly betaMax: number;
}

/** The elements of a vessel of one rank, in the order the water meets them. */
export interface RankState {
  readonly elements: readonly ElementState[];
  /** What leaves each vessel at its product port, mmol/L in the feed's species order; null when it makes none. */
  readonly permeateMmolL: readonly number[] | null;
}

/** Mean flux of a rank, L/m²h. */
export const rankFluxLmh = ({ elements }: RankState): number =>
  elements.reduce((sum, element) => sum + element.fluxLmh, 0) / Math.max(1, elements.length);

/** Strongest polarization of any element. */
export const betaMaxOf = (ranks: readonly RankState[]): number =>
  ranks.reduce((most, rank) => rank.elements.reduce((max, element) => Math.max(max, element.betaMax), most), 1);

/** What leaves a whole unit at one flow and pressure. */
export interface UnitRun {
  readonly permeateLPerH: number;
  readonly permeateMmolH: Float64Array;
  readonly concentrateLPerH: number;
  readonly concentrateMmolL: ArrayLike<number>;
  readonly concentratePressureBar: number;
  readonly ranks: readonly RankState[];
}

/** Amounts an hour by the litre. */
function perLitre(mmolH: Float64Array, lPerH: number): number[] {
  const mmolL = new Array<number>(mmolH.length);
  for (let i = 0; i < mmolH.length; i++) mmolL[i] = mmolH[i]! / lPerH;
  return mmolL;
}

const SOUND: UnitDefects = {};

/** Runs all ranks at a feed flow and pressure; null when a vessel runs dry. */
export function runRanks(
  setup: MarchSetup,
  ranks: readonly VesselRank[],
  feedLPerH: number,
  feedBar: number,
  permeateBar: number,
  feedMmolL: ArrayLike<number> = setup.feed.mmolL,
  defects: UnitDefects = SOUND,
): UnitRun | null {
  const slipped = feedLPerH * (defects.slip ?? 0);
  const leaked = leakLPerH(defects, feedBar);
  let flow = feedLPerH - slipped - leaked;
  if (flow <= 0) return null;
  let concentration = feedMmolL;
  let pressure = feedBar;
  let permeateLPerH = 0;
  let place = 0;
  const permeateMmolH = new Float64Array(concentration.length);
  const states: RankState[] = [];
  for (const rank of ranks) {
    let perVessel = flow / rank.vessels;
    const elements: ElementState[] = [];
    let vesselLPerH = 0;
    const vesselMmolH = new Float64Array(concentration.length);
    for (let element = 0; element < rank.elementsPerVessel; element++) {
      const run: MarchResult | null = marchElement(setupAt(setup, defects, place), perVessel, concentration, pressure, permeateBar, place);
      if (!run) return null;
      // A leak is at the first element of one vessel of the first rank; where several stand side by side they share it.
      const into = place === 0 ? leaked / rank.vessels : 0;
      const made = run.permeateLPerH + into;
      for (let i = 0; i < vesselMmolH.length; i++) run.permeateMmolH[i]! += into * feedMmolL[i]!;
      elements.push({
        feedLPerMin: perVessel / 60,
        concentrateLPerMin: run.concentrateLPerH / 60,
        fluxLmh: run.permeateLPerH / setup.row.areaM2,
        recovery: run.permeateLPerH / perVessel,
        pressureDropBar: pressure - run.concentratePressureBar,
        permeateLPerH: made,
        permeateMmolL: made > 0 ? perLitre(run.permeateMmolH, made) : [],
        betaMax: run.betaMax,
      });
      perVessel = run.concentrateLPerH;
      concentration = run.concentrateMmolL;
      pressure = run.concentratePressureBar;
      permeateLPerH += made * rank.vessels;
      vesselLPerH += made;
      for (let i = 0; i < vesselMmolH.length; i++) vesselMmolH[i]! += run.permeateMmolH[i]!;
      place += 1;
      if (defects.throttle?.afterElements === place)
        pressure -= restrictorPressureBar(
          defects.throttle.restrictor,
          perVessel * rank.vessels,
          setup.temperatureC,
          setup.mass(concentration),
        );
    }
    for (let i = 0; i < permeateMmolH.length; i++) permeateMmolH[i]! += vesselMmolH[i]! * rank.vessels;
    flow = perVessel * rank.vessels;
    states.push({ elements, permeateMmolL: vesselLPerH > 0 ? perLitre(vesselMmolH, vesselLPerH) : null });
  }
  return {
    permeateLPerH,
    permeateMmolH,
    concentrateLPerH: flow + slipped,
    concentrateMmolL:
      slipped > 0 ? Array.from(concentration, (c, i) => (c * flow + feedMmolL[i]! * slipped) / (flow + slipped)) : concentration,
    concentratePressureBar: pressure,
    ranks: states,
  };
}
