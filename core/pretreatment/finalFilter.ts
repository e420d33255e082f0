import { feedViscosity } from '../membrane';

/**
 * Filters of a fraction of a micrometre at the end of a train, by the laws of standard blocking and of a cake (Grace 1956;
 * Hermia 1982; recalled): what they take, how long they last, and whether they are whole.
 */

/** A clean loss, bar, at a flow and 25 °C. */
export interface CleanLoss {
  readonly bar: number;
  readonly atLPerH: number;
}

const viscosityShare = (temperatureC: number): number => feedViscosity(temperatureC, 0) / feedViscosity(25, 0);

/** Loss of a cartridge at a flow and temperature, a share of the litres it can pass used, bar. */
export const finalFilterLossBar = (clean: CleanLoss, flowLPerH: number, temperatureC: number, usedShare: number): number =>
  ((clean.bar * flowLPerH) / clean.atLPerH) * (viscosityShare(temperatureC) / (1 - usedShare) ** 2);

/** Litres until a cartridge takes a limit, from what it takes clean at the same flow and temperature; 0 where it does at once. */
export const finalFilterLitres = (mostL: number, cleanBar: number, limitBar: number): number =>
  Math.max(0, mostL * (1 - Math.sqrt(cleanBar / limitBar)));

/** A loss against the clean one, at litres passed, same flow and temperature. */
export interface LossRead {
  readonly litres: number;
  readonly times: number;
}

/** Litres at which a cartridge is blocked, from two readings of its loss; null where they do not rise. */
export function blockedAtLitres(first: LossRead, second: LossRead): number | null {
  const [y1, y2] = [first, second].map(({ times }) => 1 / Math.sqrt(times)) as [number, number];
  return y1 > y2 ? first.litres + (y1 * (second.litres - first.litres)) / (y1 - y2) : null;
}

/** Bubble point of another pore, bar: in proportion to one over the pore. */
export const bubblePointBar = (knownBar: number, knownUm: number, poreUm: number): number => (knownBar * knownUm) / poreUm;

/** Gas that goes through in a pressure hold, mL a minute, from the fall of pressure over so much gas. */
export const holdLeakMlPerMin = (fallMbar: number, minutes: number, gasL: number): number => ((fallMbar / 1013.25) * gasL * 1000) / minutes;

/** Flux of a hollow-fibre ultrafilter run dead-end, L/(m²·h): cake over the fibres adds to the clean resistance. */
export const ultrafilterFluxLmh = (permeabilityAt25: number, bar: number, temperatureC: number, cakeTerm = 0): number =>
  (permeabilityAt25 * bar) / viscosityShare(temperatureC) / (1 + cakeTerm);
