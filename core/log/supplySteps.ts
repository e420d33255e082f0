import type { Reading, System } from '../file';
import { mean, normalDensity } from '../numeric';
import { DAY_MS } from '../quantity';
import { inOrder, probeEc25, probeRoles } from './series';

/**
 * Steps of the tap's strength nobody wrote down: a supply that changed, or a meter (science of logs, 7). The level, its
 * season and what two waters on one tap may be are followed; a step is told when the readings stay off them.
 */

export interface SupplyStep {
  /** First reading after it, the one at which it was seen, and the one with which it was over; null while it lasts. */
  readonly since: string;
  readonly seenAt: string;
  readonly until: string | null;
  /** Change in ln. */
  readonly by: number;
  readonly sd: number;
  readonly family: 'meter' | 'supply' | 'either';
}

/** Scatter of a tap from reading to reading, ln. */
const READ_SD = 0.05;
/** Readings a tap is learned from before it is watched. */
const LEARNED_FROM = 3;
/** Two waters on one tap lie this far apart at least, in ln, and each was read twice. */
const WATERS_APART = 0.45;
const EACH_READ = 2;
/** A step back to within this of what was before is the end of a spell. */
const BACK = 0.09;

/** Factors of one meter's scale against another's (0.5, 0.64, 0.7), one within this of them is likely a meter's (7.3). */
const SCALES = [1.28, 1.4, 1.09].flatMap((ratio) => [Math.log(ratio), -Math.log(ratio)]);
const FAMILY = { meter: 0.15, supply: 0.2, meterSd: 0.1, supplySd: 0.25, scaleSd: 0.015, sure: 0.75 } as const;

interface Point {
  readonly ms: number;
  readonly at: string;
  readonly y: number;
}

/** Levels of two waters, where a tap has them: ln of each against their middle; null of one. */
function secondWater(list: readonly number[]): number | null {
  const sorted = [...list].sort((a, b) => a - b);
  let [best, gap] = [-1, 0];
  for (let i = EACH_READ; i <= sorted.length - EACH_READ; i++)
    if (sorted[i]! - sorted[i - 1]! > gap) [best, gap] = [i, sorted[i]! - sorted[i - 1]!];
  if (best < 0) return null;
  const apart = mean(sorted.slice(best)) - mean(sorted.slice(0, best));
  // They come and go: a change for good is a step, not a second water.
  const upper = sorted[best]!;
  const turns = list.slice(1).filter((value, i) => value >= upper !== list[i]! >= upper).length;
  return apart > WATERS_APART && gap > 0.25 && turns >= 3 ? apart : null;
}

/** Steps of a tap, oldest first. */
export function supplySteps(system: System, readings: readonly Reading[]): SupplyStep[] {
  const { tap } = probeRoles(system);
  if (!tap) return [];
  const points = inOrder(readings).flatMap((reading): Point[] => {
    const ec25 = probeEc25(reading, tap.id, system.instruments);
    return ec25 !== null && ec25 > 0 ? [{ ms: Date.parse(reading.at), at: reading.at, y: Math.log(ec25) }] : [];
  });
  const changes = system.services
    .filter(
      ({ instrumentId, work }) => instrumentId === tap.instrumentId && (work === 'changed' || work === 'adjusted' || work === 'cleaned'),
    )
    .map(({ at }) => Date.parse(at));
  const found = jumpsOf(points, changes);
  return joined(found, points);
}

interface Found {
  readonly first: number;
  readonly seenAt: number;
  readonly by: number;
  readonly sd: number;
}

/** Readings before a split and after it that are held against each other, and how far back they may lie. */
const WINDOW = { before: 6, after: 5, leastBefore: 3, leastAfter: 2, days: 90 } as const;
/** What the season may move a tap between the two, ln. */
const DRIFT_SD = 0.03;
/** Standard deviations from which a split is a step. */
const SURE_SDS = 4.3;

/** Doubt of how far two means of readings lie apart. */
const splitSd = (before: readonly number[], after: readonly number[]): number => READ_SD * Math.sqrt(1 / before.length + 1 / after.length);

/** Splits at which the tap's level differs from what it was, each at the first reading of the new level (7.2). */
function jumpsOf(points: readonly Point[], changes: readonly number[]): Found[] {
  const read = points.map(({ y }) => y);
  const apart = secondWater(read);
  // Of two waters each reading is taken as the first would read.
  const level = apart === null ? read : firstWater(read, apart);
  const jumps: Found[] = [];
  const isWritten = (k: number): boolean => changes.some((ms) => ms > points[k - 1]!.ms && ms <= points[k]!.ms);
  let from = 0;
  for (let i = LEARNED_FROM; i < points.length; i++) {
    let best: Found | null = null;
    let most = SURE_SDS;
    for (let k = Math.max(from + WINDOW.leastBefore, i + 1 - WINDOW.after); k <= i + 1 - WINDOW.leastAfter; k++) {
      const earliest = Math.max(from, k - WINDOW.before);
      const before = level.slice(earliest, k).filter((_, n) => points[k]!.ms - points[earliest + n]!.ms < WINDOW.days * DAY_MS);
      const after = level.slice(k, i + 1);
      if (before.length < WINDOW.leastBefore) continue;
      const was = mean(before);
      const by = mean(after) - was;
      // All that came after lies on the same side, or it is one figure's doing.
      if (after.some((value) => Math.sign(value - was) !== Math.sign(by) || Math.abs(value - was) < by / 3)) continue;
      const sd = splitSd(before, after);
      const z = Math.abs(by) / Math.hypot(sd, DRIFT_SD);
      if (z > most && Math.abs(by) > LEAST_STEP) {
        most = z;
        best = { first: k, seenAt: i, by, sd };
      }
    }
    if (!best) continue;
    from = best.first;
    // Of a meter that was changed or cleaned nobody is told: it is on record.
    if (!isWritten(best.first)) jumps.push(best);
  }
  return measured(jumps, level);
}

/** Steps by all the readings up to the next one, as far as a window reaches. */
function measured(jumps: readonly Found[], level: readonly number[]): Found[] {
  return jumps.map((jump, n) => {
    const start = jumps[n - 1]?.first ?? 0;
    const before = level.slice(Math.max(start, jump.first - WINDOW.before), jump.first);
    const after = level.slice(jump.first, Math.min(jumps[n + 1]?.first ?? level.length, jump.first + WINDOW.before));
    return { ...jump, by: mean(after) - mean(before), sd: splitSd(before, after) };
  });
}

/** Readings of two waters as the first would read: each belongs to the one it lies nearer, as the readings before it have them. */
function firstWater(list: readonly number[], apart: number): number[] {
  const low = [...list].sort((a, b) => a - b)[Math.floor(list.length / 4)]!;
  let [first, weight] = [low, 1];
  return list.map((value) => {
    const own = Math.abs(value - first) <= Math.abs(value - apart - first) ? value : value - apart;
    weight = Math.min(5, weight + 1);
    first += (own - first) / weight;
    return own;
  });
}

/** Jumps as steps: one that takes the one before back is the end of a spell, and a spell is the supply's. */
function joined(jumps: readonly Found[], points: readonly Point[]): SupplyStep[] {
  const steps: SupplyStep[] = [];
  for (const { first, seenAt, by, sd } of jumps) {
    const open = steps.at(-1);
    if (open?.until === null && Math.abs(open.by + by) < Math.max(BACK, 0.35 * Math.abs(open.by)) && Math.sign(open.by) !== Math.sign(by)) {
      steps[steps.length - 1] = { ...open, until: points[first]!.at, family: 'supply' };
      continue;
    }
    if (Math.abs(by) < LEAST_STEP) continue;
    steps.push({ since: points[first]!.at, seenAt: points[seenAt]!.at, until: null, by, sd, family: familyOf(by, sd) });
  }
  return steps;
}
/** Less than this is the season's, or the day's. */
const LEAST_STEP = 0.1;

/** Whether a change of all readings alike is the meter's or the supply's: a meter's scale against another's is a known ratio (7.3). */
export function familyOf(by: number, sd: number): SupplyStep['family'] {
  const near = (middle: number, spread: number): number => normalDensity((by - middle) / Math.hypot(spread, sd)) / Math.hypot(spread, sd);
  const scales = SCALES.reduce((sum, middle) => sum + near(middle, FAMILY.scaleSd), 0) / SCALES.length;
  const meter = FAMILY.meter * (0.5 * scales + 0.5 * near(0, FAMILY.meterSd));
  const supply = FAMILY.supply * near(0, FAMILY.supplySd);
  const chance = meter / (meter + supply);
  return chance > FAMILY.sure ? 'meter' : chance < 1 - FAMILY.sure ? 'supply' : 'either';
}
