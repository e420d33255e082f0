import { marchElement, type MarchResult, type MarchSetup } from './march';

/** One rank of a membrane unit: so many vessels side by side, so many elements end to end in each. */
export interface VesselRank {
  readonly vessels: number;
  readonly elementsPerVessel: number;
}

/** State of one rank, per element where it matters. */
export interface RankState {
  readonly fluxLmh: number;
  readonly recoveryPerElement: number;
  readonly concentrateLPerMin: number;
  readonly pressureDropBar: number;
  /** Highest ratio of salt at the wall to salt in the bulk. */
  readonly betaMax: number;
}

/** What leaves a whole unit at one flow and pressure. */
export interface UnitRun {
  readonly permeateLPerH: number;
  readonly permeateMmolH: Float64Array;
  readonly concentrateLPerH: number;
  readonly concentrateMmolL: ArrayLike<number>;
  readonly concentratePressureBar: number;
  readonly ranks: readonly RankState[];
}

/** Runs all ranks at a feed flow and pressure; null when a vessel runs dry. */
export function runRanks(
  setup: MarchSetup,
  ranks: readonly VesselRank[],
  feedLPerH: number,
  feedBar: number,
  permeateBar: number,
  feedMmolL: ArrayLike<number> = setup.feed.mmolL,
): UnitRun | null {
  let flow = feedLPerH;
  let concentration = feedMmolL;
  let pressure = feedBar;
  let permeateLPerH = 0;
  const permeateMmolH = new Float64Array(concentration.length);
  const states: RankState[] = [];
  for (const rank of ranks) {
    let perVessel = flow / rank.vessels;
    const inletBar = pressure;
    const vesselFeed = perVessel;
    let betaMax = 1;
    let made = 0;
    for (let element = 0; element < rank.elementsPerVessel; element++) {
      const run: MarchResult | null = marchElement(setup, perVessel, concentration, pressure, permeateBar);
      if (!run) return null;
      perVessel = run.concentrateLPerH;
      concentration = run.concentrateMmolL;
      pressure = run.concentratePressureBar;
      made += run.permeateLPerH;
      betaMax = Math.max(betaMax, run.betaMax);
      for (let i = 0; i < permeateMmolH.length; i++) permeateMmolH[i]! += run.permeateMmolH[i]! * rank.vessels;
    }
    permeateLPerH += made * rank.vessels;
    flow = perVessel * rank.vessels;
    states.push({
      fluxLmh: made / (rank.elementsPerVessel * setup.row.areaM2),
      recoveryPerElement: 1 - (1 - made / vesselFeed) ** (1 / rank.elementsPerVessel),
      concentrateLPerMin: perVessel / 60,
      pressureDropBar: (inletBar - pressure) / rank.elementsPerVessel,
      betaMax,
    });
  }
  return {
    permeateLPerH,
    permeateMmolH,
    concentrateLPerH: flow,
    concentrateMmolL: concentration,
    concentratePressureBar: pressure,
    ranks: states,
  };
}
