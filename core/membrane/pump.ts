import { firstError, outOfRange, type InputError } from '../quantity';

/** A pump before a membrane. */
export type Pump =
  /** Small diaphragm pump: its rise falls in a straight line with flow (our assumption), and a bypass caps its outlet. */
  | { readonly kind: 'booster'; readonly riseBar: number; readonly openFlowLPerH: number; readonly bypassBar: number }
  /** Multistage centrifugal: H = H0·n² − a·q² through two points of its catalogue curve. */
  | {
      readonly kind: 'centrifugal';
      readonly shutOffBar: number;
      readonly atLPerH: number;
      readonly atBar: number;
      /** Speed against the catalogue's, 1 when uncontrolled. */
      readonly speed: number;
    }
  /** Piston or plunger pump: a flow, whatever the pressure, until its relief valve opens. */
  | {
      readonly kind: 'displacement';
      readonly flowLPerH: number;
      readonly reliefBar: number;
      /** Share of the waste's pressure that comes back; 0 without a recovery device. Costs or spares energy only. */
      readonly energyRecovery?: number;
    };

/** Checks a pump's figures. */
export function pumpError(pump: Pump): InputError | null {
  switch (pump.kind) {
    case 'booster':
      return firstError(
        outOfRange('pump.riseBar', 'Pump rise at no flow', pump.riseBar, 0.1, 100, 'bar'),
        outOfRange('pump.openFlowLPerH', 'Pump flow at no pressure', pump.openFlowLPerH, 1, 100_000, 'L/h'),
        outOfRange('pump.bypassBar', 'Pump bypass', pump.bypassBar, 0.1, 100, 'bar'),
      );
    case 'centrifugal':
      return firstError(
        outOfRange('pump.shutOffBar', 'Pump pressure at no flow', pump.shutOffBar, 0.1, 100, 'bar'),
        outOfRange('pump.atBar', 'Pump pressure at its rated flow', pump.atBar, 0, pump.shutOffBar, 'bar'),
        outOfRange('pump.atLPerH', 'Pump rated flow', pump.atLPerH, 1, 100_000, 'L/h'),
        outOfRange('pump.speed', 'Pump speed', pump.speed, 0.2, 1.3),
      );
    case 'displacement':
      return firstError(
        outOfRange('pump.flowLPerH', 'Pump flow', pump.flowLPerH, 0.1, 100_000, 'L/h'),
        outOfRange('pump.reliefBar', 'Relief valve', pump.reliefBar, 0.1, 100, 'bar'),
      );
  }
}

/**
 * Pressure behind a pump that follows a curve, bar. Never rises with flow, so that an operating point is unique.
 *
 * @param inletBar pressure before it; lost below zero, for a pump that sucks gives nothing
 */
export function pumpOutletBar(pump: Exclude<Pump, { kind: 'displacement' }>, inletBar: number, flowLPerH: number): number {
  if (pump.kind === 'booster')
    return Math.min(inletBar + pump.riseBar * Math.max(0, 1 - flowLPerH / pump.openFlowLPerH), Math.max(pump.bypassBar, inletBar));
  const slope = (pump.shutOffBar - pump.atBar) / pump.atLPerH ** 2;
  return inletBar + Math.max(0, pump.shutOffBar * pump.speed ** 2 - slope * flowLPerH ** 2);
}
