import { bedPressureBar, type bedCapacityEq } from '../exchange';
import type { Source, Stage, StageOf } from '../file';
import { restrictorPressureBar } from '../membrane';
import { prefilterBarPerLPerH } from '../pretreatment';
import { bladderBar, bladderHeldL, SHUT_OFF_SHARE, type BladderTank } from '../storage';

/** What a cartridge of resin or calcite takes at 1 gal/min, bar (our estimate). */
const CARTRIDGE_LOSS_BAR = 0.1;
/** bar per metre of water column. */
const BAR_PER_METRE = 0.0980665;

/** Where the water enters: its pressure, and the regulator if there is one. */
export type Inlet = Pick<Source, 'linePressureBar'> & Partial<Pick<Source, 'regulatorBar'>>;

/** Pressure the train is given, bar: the line's, cut by the regulator. */
export const inletBar = ({ linePressureBar, regulatorBar }: Inlet): number => Math.min(linePressureBar, regulatorBar ?? Infinity);

/** The bed of a resin stage as the exchange room takes it. */
export function stageBed(stage: StageOf<'resin'>): Parameters<typeof bedCapacityEq>[0] {
  return { resin: stage.resinClass, volumeL: stage.volumeL, depthMm: stage.depthMm, packing: stage.packing };
}

/** Pressure slope of a stage in the path of a flow, bar per L/h. */
export function slopeOf(stage: Stage, flowLPerH: number, temperatureC: number): number {
  switch (stage.kind) {
    case 'sediment':
    case 'carbon':
      return prefilterBarPerLPerH({ cleanLossBar: stage.cleanLossBar, loading: stage.loading ?? 0 }, temperatureC);
    case 'resin':
      return flowLPerH > 0 ? bedPressureBar(stageBed(stage), flowLPerH, temperatureC) / flowLPerH : 0;
    case 'tubing':
      return flowLPerH > 0
        ? restrictorPressureBar({ boreMm: stage.boreMm, lengthMm: 1000 * stage.lengthM }, flowLPerH, temperatureC) / flowLPerH
        : 0;
    case 'softener':
    case 'decarboniser':
    case 'inhibitor':
    case 'calcite':
      return prefilterBarPerLPerH({ cleanLossBar: CARTRIDGE_LOSS_BAR, loading: 0 }, temperatureC);
    case 'pump':
    case 'membrane':
    case 'uv':
    case 'tank':
      return 0;
  }
}

/** Loss a stage takes from the pressure; a tank lifts the water and lets it go. */
export function pressureAfter(stage: Stage, pressureBar: number, flowLPerH: number, temperatureC: number): number {
  if (stage.kind === 'tank') return stage.openToAir ? 0 : Math.max(0, pressureBar - stage.liftM * BAR_PER_METRE);
  return Math.max(0, pressureBar - slopeOf(stage, flowLPerH, temperatureC) * flowLPerH - riseBar(stage));
}

/** What a stage takes by lifting the water, bar. */
export function riseBar(stage: Stage): number {
  if (stage.kind === 'tank') return stage.liftM * BAR_PER_METRE;
  return stage.kind === 'tubing' ? stage.riseM * BAR_PER_METRE : 0;
}

/** The gas in a closed tank, as the storage room takes it; null where none pushes back. */
export const bladderOf = (stage: Stage): BladderTank | null =>
  stage.kind === 'tank' && !stage.openToAir && stage.prechargeBar !== null
    ? { gasL: stage.volumeL, prechargeBar: stage.prechargeBar }
    : null;

/** Pressure at which the automatic shut-off before a bladder tank closes, bar. */
export const shutOffBar = (linePressureBar: number): number => SHUT_OFF_SHARE * linePressureBar;

/** What the gas of a closed tank pushes back on the way to its shut-off: its pressure when half of that is in it, bar. */
export function gasBar(stage: Stage, linePressureBar: number): number {
  const tank = bladderOf(stage);
  return tank ? bladderBar(tank, bladderHeldL(tank, shutOffBar(linePressureBar)) / 2) : 0;
}
