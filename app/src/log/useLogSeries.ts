import { smallestStepUScm } from '@yes-clear/core/water';
import { shortDay } from '../time/dates';
import { inSentence } from '@yes-clear/core/quantity';
import { goalLimits } from '@yes-clear/core/goal';
import { DAY_MS, probeEc25, probeRoles, saltRemoved, type ResinTracking } from '@yes-clear/core/log';
import type { Reading, System } from '@yes-clear/core/file';
import { waterColour } from '../descent/waterColour';
import { houseColours, type ChartSeries } from '../kit/chart/house';

const at = (reading: Reading): number => Date.parse(reading.at);

/** What a meter that shows 0 may be hiding: half of its smallest step, as conductivity. */
function floorOf(system: System, probeId: string): number {
  const probe = system.train.probes.find((candidate) => candidate.id === probeId);
  const instrument = system.instruments.find((candidate) => candidate.id === probe?.instrumentId);
  return instrument ? smallestStepUScm(instrument) / 2 : 0.5;
}

/** A shade darker than the water, so that thin lines read on paper. */
const lineColour = (ec25: number): string => waterColour(Math.max(ec25 * 2.2, 0.6));

/** The least of many; a hundred thousand are too many for arguments of a call. */
const least = (values: readonly number[]): number => values.reduce((low, value) => Math.min(low, value), Infinity);

export interface ProbeChart {
  readonly series: readonly ChartSeries[];
  readonly low: number;
  readonly high: number;
  readonly band: { readonly from: number; readonly to: number } | null;
}

/** Every probe over time on a log axis, with the goal as a band. */
export function probeChart(system: System, readings: readonly Reading[]): ProbeChart {
  const series = system.train.probes
    .map((probe): ChartSeries => {
      const floor = floorOf(system, probe.id);
      const points = readings.flatMap((reading) => {
        const ec25 = probeEc25(reading, probe.id, system.instruments);
        return ec25 === null ? [] : [{ x: at(reading), y: Math.max(ec25, floor) }];
      });
      const middle = points.length > 0 ? points[Math.floor(points.length / 2)]!.y : 1;
      return { label: inSentence(probe.name), colour: lineColour(middle), points };
    })
    .filter((line) => line.points.length > 0);
  const values = series.flatMap((line) => line.points.map((point) => point.y));
  const limit = goalLimits(system.goal, system.units.ppmFactor).find((candidate) => candidate.quantity === 'ec25UScm');
  const low = 10 ** Math.floor(Math.log10(Math.min(least(values), limit?.high ?? 1, 1)) - 0.05);
  const high = 10 ** Math.ceil(Math.log10(Math.max(-least(values.map((value) => -value)), 100)) + 0.05);
  return { series, low, high, band: limit ? { from: limit.low && limit.low > 0 ? limit.low : low, to: limit.high ?? high } : null };
}

/** Salt held back by the membrane, in per cent. */
export function removalChart(system: System, readings: readonly Reading[]): { series: ChartSeries[]; low: number } {
  const roles = probeRoles(system);
  const points = readings.flatMap((reading) => {
    const share = saltRemoved(reading, roles, system.instruments);
    return share === null ? [] : [{ x: at(reading), y: 100 * share }];
  });
  const last = points.at(-1);
  return {
    series:
      points.length === 0
        ? []
        : [{ label: 'Salt removed', colour: houseColours().action, points, dots: true, endText: `${last!.y.toFixed(1)} %` }],
    low: Math.min(90, Math.floor(Math.min(least(points.map((point) => point.y)), 100) / 5) * 5),
  };
}

/** Resin left so far and, beyond today, the fan of its end. */
export function resinChart(tracking: ResinTracking, now: string): { series: ChartSeries[]; from: number; until: number } {
  const today = Date.parse(now);
  const colour = houseColours().resin;
  const past = tracking.points.map((point) => ({ x: Date.parse(point.at), y: 100 * point.remaining }));
  const { remaining, daysLeft } = tracking;
  const series: ChartSeries[] = [
    {
      label: 'Resin left',
      colour,
      points: [{ x: Date.parse(tracking.fittedAt), y: 100 }, ...past, { x: today, y: 100 * remaining.p50 }],
      width: 2.8,
      quiet: true,
    },
  ];
  const from = Date.parse(tracking.fittedAt) - 2 * DAY_MS;
  if (!daysLeft) return { series, from, until: today + 30 * DAY_MS };
  // Both edges of the fan need the same moments for the area between them to be filled.
  const moments = [0, daysLeft.p10, daysLeft.p50, daysLeft.p90];
  const ray = (left: number, days: number): ChartSeries['points'] =>
    moments.map((moment) => ({ x: today + moment * DAY_MS, y: Math.max(0, 100 * left * (1 - moment / days)) }));
  const short = (days: number): string => shortDay(today + days * DAY_MS);
  series.push(
    { label: 'late', colour, points: ray(remaining.p90, daysLeft.p90), width: 0, quiet: true, fillTo: '+1' },
    { label: 'early', colour, points: ray(remaining.p10, daysLeft.p10), width: 0, quiet: true },
    {
      label: 'Expected',
      colour,
      points: [
        { x: today, y: 100 * remaining.p50 },
        { x: today + daysLeft.p50 * DAY_MS, y: 0 },
      ],
      dashed: true,
      endText: `${short(daysLeft.p10)} – ${short(daysLeft.p90)}`,
    },
  );
  return { series, from, until: today + daysLeft.p90 * DAY_MS + 5 * DAY_MS };
}
