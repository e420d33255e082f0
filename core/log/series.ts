import { isLikelyDate, lastProbeWithin, type Instrument, type Probe, type Reading, type System } from '../file';
import { deionizes, kindOf } from '../stage';
import { meterEc25 } from '../water';

/** Readings of one system in order of time, oldest first; those struck out, and of years in which none can have been taken, do not count. */
export function inOrder(readings: readonly Reading[]): Reading[] {
  return readings.filter(({ at, counts }) => counts && isLikelyDate(at)).sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/** What later readings are held against: the baseline of the last hand-over, or the oldest reading where none was taken. */
export const baselineOf = ({ build }: Pick<System, 'build'>, ordered: readonly Reading[]): Reading | null =>
  ordered.find(({ id }) => id === build.commissioned?.readingId) ?? ordered[0] ?? null;

/** Conductivity at 25 °C behind a probe's reading; null when the reading has none for it. */
export function probeEc25(reading: Reading, probeId: string, instruments: readonly Instrument[]): number | null {
  const value = reading.values.find((candidate) => candidate.probeId === probeId);
  const instrument = value && instruments.find((candidate) => candidate.id === value.instrumentId);
  if (!value || !instrument) return null;
  const ec25 = meterEc25(value.shown, instrument, reading.temperatureC);
  return ec25.ok ? ec25.value : null;
}

/** The probes that tell what the membrane and the resin do; undefined where there is none. */
export interface ProbeRoles {
  readonly tap: Probe | undefined;
  readonly afterMembrane: Probe | undefined;
  readonly beforeResin: Probe | undefined;
  readonly afterResin: Probe | undefined;
  /** Share of the product that is led past the membrane and blended in before the probe behind it. */
  readonly blendShare: number;
}

export function probeRoles(system: System): ProbeRoles {
  const { stages } = system.train;
  const membrane = stages.findIndex((stage) => stage.kind === 'membrane');
  const firstResin = stages.findIndex((stage) => stage.kind === 'resin');
  // Behind what gives or takes minerals a probe no longer speaks of the membrane.
  const changed = stages.findIndex((stage, i) => i > membrane && (deionizes(stage) || kindOf(stage).touches(stage) === 'minerals'));
  const lastResin = stages.findLastIndex((stage) => stage.kind === 'resin');
  const within = (low: number, high: number): Probe | undefined => lastProbeWithin(system.train, low, high);
  const end = stages.length;
  const unit = stages[membrane];
  return {
    blendShare: unit?.kind === 'membrane' ? unit.bypassShare : 0,
    tap: within(-1, 0),
    afterMembrane: membrane < 0 ? undefined : within(membrane, changed < 0 ? end : changed),
    beforeResin: firstResin < 0 ? undefined : within(-1, firstResin),
    afterResin: lastResin < 0 ? undefined : within(lastResin, end),
  };
}

/** Strength goes with about this power of conductivity: natural waters of 10 to 900 µS/cm in our own water model, ±0.03. */
const STRENGTH_POWER = 1.065;

/** Conductivity of the water alone that a share of another was blended into. */
function unblended(other: number, blend: number, share: number): number {
  if (share === 0) return blend;
  const strength = (blend ** STRENGTH_POWER - share * other ** STRENGTH_POWER) / (1 - share);
  return Math.max(0, strength) ** (1 / STRENGTH_POWER);
}

/** No water conducts less (25 °C): a tap that reads below it was not read. */
const PUREST_USCM = 0.055;

/**
 * Share of the salt the membrane held back in a reading: 1 − after/before, on conductivity, what was blended past it
 * taken off. Null without both probes or with a tap purer than water can be.
 */
export function saltRemoved(reading: Reading, roles: ProbeRoles, instruments: readonly Instrument[]): number | null {
  const before = roles.tap && probeEc25(reading, roles.tap.id, instruments);
  const after = roles.afterMembrane && probeEc25(reading, roles.afterMembrane.id, instruments);
  if (before === null || before === undefined || before < PUREST_USCM || after === null || after === undefined) return null;
  return 1 - unblended(before, after, roles.blendShare) / before;
}

/** Waste : product of a reading, where both flows were taken. */
export function readingRatio(reading: Reading): number | null {
  return reading.productLPerH !== null && reading.wasteLPerH !== null && reading.productLPerH > 0
    ? reading.wasteLPerH / reading.productLPerH
    : null;
}
