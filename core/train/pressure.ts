import type { Source } from '../file';
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

/** Pressure at which the automatic shut-off before a bladder tank closes, bar. */
export const shutOffBar = (linePressureBar: number): number => SHUT_OFF_SHARE * linePressureBar;

/** What the gas of a closed tank pushes back on the way to its shut-off: its pressure when half of that is in it, bar. */
export function gasBar(stage: Stage, linePressureBar: number): number {
  const gas = stage.kind === 'tank' ? gasOf(stage) : null;
  return gas ? bladderBar(gas, bladderHeldL(gas, shutOffBar(linePressureBar)) / 2) : 0;
}
