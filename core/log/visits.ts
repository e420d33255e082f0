import type { Instrument, Reading, System } from '../file';
import { DAY_MS } from '../quantity';
import { smallestStepUScm } from '../water';
import { probeEc25 } from './series';
import { READ_SD } from './unitReading';

/** One visit that two keepers wrote down each (science of logs, 11): near in time, and nothing they both read contradicts. */
const WITHIN_HOURS = 2;
const MOST_SD = 2.5;

/** Two keepers’ jugs differ by their scales too (science of logs, 2.4). */
const JUG_SD = 0.03;

/** How many standard deviations of a difference two figures of one meter are apart, by its scatter and last digit. */
export function metersApart(one: number, other: number, step: number): number {
  const least = Math.min(one, other);
  if (!(least > 0)) return Math.abs(one - other) <= step ? 0 : Infinity;
  // The doubt of the smaller counts for both.
  const sd = Math.hypot(READ_SD.meter, step / Math.sqrt(12) / least);
  return Math.abs(Math.log(other / one)) / (Math.SQRT2 * sd);
}

const sharesApart = (one: number, other: number, sd: number): number =>
  one > 0 && other > 0 ? Math.abs(Math.log(other / one)) / (Math.SQRT2 * sd) : one === other ? 0 : Infinity;

/** How far apart each figure is that two readings share, in standard deviations of the difference. */
function apart(one: Reading, other: Reading, instruments: readonly Instrument[]): number[] {
  const both = (a: number | null, b: number | null, distance: (a: number, b: number) => number): number[] =>
    a === null || b === null ? [] : [distance(a, b)];
  const probes = one.values.flatMap(({ probeId, instrumentId }) => {
    const meter = instruments.find(({ id }) => id === instrumentId);
    if (!meter || !other.values.some((value) => value.probeId === probeId)) return [];
    return both(probeEc25(one, probeId, instruments), probeEc25(other, probeId, instruments), (a, b) =>
      metersApart(a, b, smallestStepUScm(meter)),
    );
  });
  return [
    ...probes,
    ...both(one.pressureBar, other.pressureBar, (a, b) => sharesApart(a, b, READ_SD.gauge)),
    ...both(one.productLPerH, other.productLPerH, (a, b) => sharesApart(a, b, JUG_SD)),
    ...both(one.wasteLPerH, other.wasteLPerH, (a, b) => sharesApart(a, b, JUG_SD)),
    ...both(one.temperatureC, other.temperatureC, (a, b) => Math.abs(a - b) / (Math.SQRT2 * READ_SD.temperatureC)),
  ];
}

/** Whether two readings may be one visit: within two hours, sharing a figure, and none of them far apart. */
export function isSameVisit(one: Reading, other: Reading, instruments: readonly Instrument[]): boolean {
  if (Math.abs(Date.parse(one.at) - Date.parse(other.at)) > (WITHIN_HOURS / 24) * DAY_MS) return false;
  const distances = apart(one, other, instruments);
  return distances.length > 0 && distances.every((distance) => distance <= MOST_SD);
}

/** Of readings that only one of two copies has, pairs that may be one visit: [here, there]. Struck out ones are no question. */
export function sameVisits(
  { instruments }: Pick<System, 'instruments'>,
  here: readonly Reading[],
  there: readonly Reading[],
): (readonly [Reading, Reading])[] {
  const open = there.filter(({ counts }) => counts);
  return here
    .filter(({ counts }) => counts)
    .flatMap((one) => {
      const at = open.findIndex((other) => isSameVisit(one, other, instruments));
      return at < 0 ? [] : [[one, open.splice(at, 1)[0]!] as const];
    });
}
