import { firstError, outOfRange, type InputError } from '../quantity';
import { feedDensity } from './channel';
import { restrictorPressureBar, type Restrictor } from './restrictor';

/** What holds the waste back in place of a capillary. */
export type WasteValve =
  /** Needle or ball valve: Q = Kv·√(Δp/(ρ/1000)), Q in m³/h, Δp in bar. */
  | { readonly kind: 'needle'; readonly kvM3PerH: number }
  /** Pressure control valve: the waste side stands at this pressure. */
  | { readonly kind: 'pressure'; readonly bar: number }
  /** A valve turned until this share of the raw feed becomes product. */
  | { readonly kind: 'recovery'; readonly recovery: number };

export function valveError(valve: WasteValve): InputError | null {
  switch (valve.kind) {
    case 'needle':
      return outOfRange('valve.kvM3PerH', 'Valve opening Kv', valve.kvM3PerH, 1e-4, 100, 'm³/h');
    case 'pressure':
      return outOfRange('valve.bar', 'Pressure at the valve', valve.bar, 0.1, 100, 'bar');
    case 'recovery':
      return firstError(outOfRange('valve.recovery', 'Recovery', valve.recovery, 0.01, 0.95));
  }
}

/** Pressure a waste control takes at a drain flow, bar. */
export function wastePressureBar(
  control: Restrictor | Exclude<WasteValve, { kind: 'recovery' }>,
  drainLPerH: number,
  temperatureC: number,
  tdsMgL: number,
): number {
  if (!('kind' in control)) return restrictorPressureBar(control, drainLPerH, temperatureC, tdsMgL);
  if (control.kind === 'pressure') return control.bar;
  return (drainLPerH / 1000 / control.kvM3PerH) ** 2 * (feedDensity(tdsMgL) / 1000);
}

/** Flow through a needle valve at a pressure, L/h. */
export const flowThroughValveLPerH = (kvM3PerH: number, pressureBar: number, tdsMgL = 0): number =>
  1000 * kvM3PerH * Math.sqrt(pressureBar / (feedDensity(tdsMgL) / 1000));

/** Opening of a needle valve that passes a flow at a pressure, Kv in m³/h. */
export const kvForFlow = (drainLPerH: number, pressureBar: number, tdsMgL = 0): number =>
  drainLPerH / 1000 / Math.sqrt(pressureBar / (feedDensity(tdsMgL) / 1000));

/** A running unit as a valve at its waste sees it. */
export interface RunningWaste {
  readonly concentrateLPerH: number;
  readonly concentratePressureBar: number;
  readonly recovery: number;
  /** Strength of the waste, for its density. */
  readonly tdsMgL?: number;
}

/** A waste valve of a kind that holds a unit where it stands. */
export function valveHolding(kind: WasteValve['kind'], waste: RunningWaste): WasteValve {
  const bar = Math.max(0.1, waste.concentratePressureBar);
  switch (kind) {
    case 'needle':
      return { kind, kvM3PerH: Math.max(1e-4, kvForFlow(waste.concentrateLPerH, bar, waste.tdsMgL)) };
    case 'pressure':
      return { kind, bar };
    case 'recovery':
      return { kind, recovery: Math.max(0.01, waste.recovery) };
  }
}
