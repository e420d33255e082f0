import type { Reading, System } from '../file';
import { lineBetween, robustLine, type Estimate } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, THIN } from '../quantity';
import type { Finding } from '../stage';
import { seasonWords } from './days';
import { inOrder, probeEc25, probeRoles } from './series';
import { lastDone } from './services';

/** How the tap's reading went since a day, in ln. */
export interface TapTrend {
  readonly since: string;
  readonly change: Estimate;
  readonly count: number;
  readonly instrumentId: string;
}

/** Scatter of a supply from week to week, in ln (our judgement). */
const SUPPLY_SD = 0.04;
const LEAST_READINGS = 6;
/** A change of the tap that is told: beyond what seasons usually bring (common practice). */
const TOLD_SHARE = 0.12;
const SURE_SDS = 2.5;

/**
 * The tap's strength over time, from the last time its meter was cleaned or compared on. A meter that drifts shows a tap
 * that drifts: of the two the log alone cannot tell which.
 */
export function tapTrend(system: System, readings: readonly Reading[]): TapTrend | null {
  const { tap } = probeRoles(system);
  if (!tap) return null;
  const checked = lastDone(system, { instrumentId: tap.instrumentId }, ['cleaned', 'compared', 'battery', 'changed', 'adjusted']);
  const points = inOrder(readings).flatMap((reading) => {
    const ec25 = probeEc25(reading, tap.id, system.instruments);
    const value = reading.values.find(({ probeId }) => probeId === tap.id);
    if (ec25 === null || !(ec25 > 0) || value?.instrumentId !== tap.instrumentId || (checked !== null && reading.at < checked)) return [];
    return [{ at: reading.at, x: Date.parse(reading.at) / DAY_MS / DAYS_PER_YEAR, y: Math.log(ec25), sd: SUPPLY_SD }];
  });
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < LEAST_READINGS) return null;
  const line = robustLine(points, { level: 1, slope: 1 });
  return { since: first.at, change: lineBetween(line, first.x, last.x), count: points.length, instrumentId: tap.instrumentId };
}

/** A tap that reads more or less than it did: the supply, or the meter. */
export function tapFinding(system: System, readings: readonly Reading[], saltSteady: boolean): Finding | null {
  const trend = tapTrend(system, readings);
  if (!trend) return null;
  const { value, sd } = trend.change;
  if (Math.abs(Math.exp(value) - 1) < TOLD_SHARE || Math.abs(value) < SURE_SDS * sd) return null;
  const meter = system.instruments.find(({ id }) => id === trend.instrumentId)?.name ?? 'its meter';
  const figure = `${Math.round(Math.abs(100 * (Math.exp(value) - 1)))} ± ${Math.max(1, Math.round(200 * sd))}${THIN}%`;
  return {
    id: 'tapTrend',
    severity: 'mind',
    title: `The tap reads ${figure} ${value > 0 ? 'more' : 'less'} than in ${seasonWords(trend.since)}`,
    why: `${saltSteady ? 'Every probe moved with it, as with a meter that drifts or a supply that changed. ' : ''}Clean the tips of ${meter.toLowerCase()} and read the tap with another meter: if they agree, enter the tap in Water anew.`,
  };
}
