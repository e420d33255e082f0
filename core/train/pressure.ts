import type { Source } from '../file';
import { pumpOutletBar } from '../membrane';
import { gasOf, kindOf, type Stage } from '../stage';
import { bladderBar, bladderHeldL, SHUT_OFF_SHARE } from '../storage';

/** Where the water enters: its pressure, and the regulator if there is one. */
export type Inlet = Pick<Source, 'linePressureBar'> & Partial<Pick<Source, 'regulatorBar'>>;

/** Pressure the train is given, bar: the line's, cut by the regulator. */
export const inletBar = ({ linePressureBar, regulatorBar }: Inlet): number => Math.min(linePressureBar, regulatorBar ?? Infinity);

/** Pressure slope of a stage in the path of a flow, bar per L/h. */
export const slopeOf = (stage: Stage, flowLPerH: number, temperatureC: number): number =>
  kindOf(stage).slopeBar(stage, flowLPerH, temperatureC);

/** What a stage takes by lifting the water, bar. */
export const riseBar = (stage: Stage): number => kindOf(stage).riseBar(stage);

/** Pressure behind a stage: less what it takes and what it lifts; none where the water lies open. */
export const pressureAfter = (stage: Stage, pressureBar: number, flowLPerH: number, temperatureC: number): number =>
  kindOf(stage).breaksPressure(stage) ? 0 : Math.max(0, pressureBar - slopeOf(stage, flowLPerH, temperatureC) * flowLPerH - riseBar(stage));

/**
 * What a pump that feeds no membrane adds, bar: one that lifts the feed to its filters, or sends product to its outlets. A
 * pump of a given flow is never one.
 */
export function liftBar(stage: Stage, before: number, flowLPerH: number): number {
  if (stage.kind !== 'pump' || stage.pump.kind === 'displacement') return 0;
  return pumpOutletBar(stage.pump, before, flowLPerH) - before;
}

/** Pressure along stages ahead of a membrane's own pump, as far as lifts and open tanks make it, bar. */
export function liftedBar(stages: readonly Stage[], feedPumpId: string | null, flowLPerH: number, startBar: number): number {
  return stages.reduce(
    (bar, stage) => (kindOf(stage).breaksPressure(stage) ? 0 : stage.id === feedPumpId ? bar : bar + liftBar(stage, bar, flowLPerH)),
    startBar,
  );
}

/** Pressure at which the automatic shut-off before a bladder tank closes, bar. */
export const shutOffBar = (linePressureBar: number): number => SHUT_OFF_SHARE * linePressureBar;

/** What the gas of a closed tank pushes back on the way to its shut-off: its pressure when half of that is in it, bar. */
export function gasBar(stage: Stage, linePressureBar: number): number {
  const gas = stage.kind === 'tank' ? gasOf(stage) : null;
  return gas ? bladderBar(gas, bladderHeldL(gas, shutOffBar(linePressureBar)) / 2) : 0;
}
