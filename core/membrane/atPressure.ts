import { ok, type Outcome } from '../quantity';
import type { ElementRow } from './classes';
import { permeabilityOf } from './derive';
import { SETTLED } from './flux';
import { marchSetup, SLICES, type FoulingFactors } from './march';
import { massMgL, type OsmoticLaw } from './osmosis';
import { runRanks, type UnitRun, type VesselRank } from './ranks';
import { restrictorPressureBar, type Restrictor } from './restrictor';
import type { FeedSpecies } from './species';

/** A unit whose pressure is known: what it makes at a recovery, behind a restrictor, or at a flow that is held past it. Cheap enough to be asked of thousands. */

export interface PressedUnit {
  readonly row: ElementRow;
  readonly ranks: readonly VesselRank[];
  readonly factors: FoulingFactors;
  /** Pressure in front of it at no flow, bar, and what filters take of it for each L/h of raw feed; where a pump moves all, what the waste is held at. */
  readonly pressureBar: number;
  readonly filterBarPerLPerH: number;
  /** What stands behind it takes of its product, bar for each L/h. */
  readonly productBarPerLPerH: number;
  readonly temperatureC: number;
  readonly law: OsmoticLaw;
}
/** What sets the flow: the share of the raw feed that becomes product, a tube in the waste, or all that a pump moves. */
export type Drawn =
  | { readonly by: 'recovery'; readonly recovery: number; /** Waste led back, L/h. */ readonly recycleLPerH: number }
  | { readonly by: 'restrictor'; readonly restrictor: Restrictor }
  | { readonly by: 'pump'; readonly flowLPerH: number };

export interface PressedPoint {
  /** Raw feed, and what meets the first elements with what is led back. */
  readonly feedLPerH: number;
  readonly membraneFeedLPerH: number;
  readonly feedPressureBar: number;
  readonly mixedFeedMmolL: ArrayLike<number>;
  readonly run: UnitRun;
}

/** How closely a unit is worked out: slices of an element, and the relative steps at which a local balance and the feed are found. */
export interface Accuracy {
  readonly slices: number;
  readonly fluxSettled: number;
  readonly flowSettled: number;
}
/** What goes in, and what is made of it. */
export interface Flows {
  readonly feedLPerH: number;
  readonly productLPerH: number;
  /** How much stronger than the raw feed the mixture with recycled waste is, species by species. */
  readonly mixedTimes: ArrayLike<number>;
}
const EXACT: Accuracy = { slices: SLICES, fluxSettled: SETTLED, flowSettled: 3e-6 };
/** How near the waste is to what it is held at, bar. */
const HELD_BAR = 1e-3;
const MOST_ROUNDS = 40;

/**
 * Solves a unit at a known pressure.
 *
 * @param near flows it is near to; only saves time
 * @returns null inside where it makes nothing, or where no flow settles
 */
export function solveAtPressure(
  unit: PressedUnit,
  feed: FeedSpecies,
  drawn: Drawn,
  { slices, fluxSettled, flowSettled }: Accuracy = EXACT,
  near: Flows | null = null,
): Outcome<PressedPoint | null> {
  const permeability = permeabilityOf(unit.row, unit.law);
  if (!permeability.ok) return permeability;
  const setup = marchSetup(unit.row, permeability.value, unit.factors, feed, unit.temperatureC, unit.law, slices, fluxSettled);
  const barAt = (raw: number): number => unit.pressureBar - unit.filterBarPerLPerH * raw;
  // What its product pushes against follows from the run before: both settle together.
  let made = near?.productLPerH ?? 0;
  const runAt = (flow: number, bar: number, mixed?: ArrayLike<number>): UnitRun | null => {
    const found = bar > 0 ? runRanks(setup, unit.ranks, flow, bar, unit.productBarPerLPerH * made, mixed) : null;
    made = found?.permeateLPerH ?? made;
    return found;
  };
  const run: Run = (flow, raw, mixed) => runAt(flow, barAt(raw), mixed);
  const point = (found: UnitRun | null, raw: number, flow: number, mixed: ArrayLike<number>, bar = barAt(raw)): PressedPoint | null =>
    found && found.permeateLPerH > 0
      ? { feedLPerH: raw, membraneFeedLPerH: flow, feedPressureBar: bar, mixedFeedMmolL: mixed, run: found }
      : null;
  if (drawn.by === 'pump') {
    // The valve holds the waste: what the channels take comes on top.
    let bar = unit.pressureBar;
    let found: UnitRun | null = null;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      found = runAt(drawn.flowLPerH, bar);
      const miss = found ? unit.pressureBar - found.concentratePressureBar : 0;
      if (Math.abs(miss) <= HELD_BAR) break;
      bar += miss;
    }
    return ok(point(found, drawn.flowLPerH, drawn.flowLPerH, feed.mmolL, bar));
  }
  if (drawn.by === 'recovery' && drawn.recycleLPerH > 0) {
    const held = recycling(
      run,
      feed,
      drawn.recovery,
      drawn.recycleLPerH,
      near?.feedLPerH ?? roughFeed(unit, drawn.recovery),
      near?.mixedTimes ?? null,
      RECYCLE_TIMES * flowSettled,
    );
    return ok(held && point(held.run, held.raw, held.raw + drawn.recycleLPerH, held.mixed));
  }
  const mass = massMgL(feed.ids);
  const wanted =
    drawn.by === 'recovery'
      ? (found: UnitRun): number => found.permeateLPerH / drawn.recovery
      : (found: UnitRun): number => {
          // Turbulent flow goes with pressure to the power 0.57: one step of it brings the waste to what the tube passes.
          const takes = restrictorPressureBar(
            drawn.restrictor,
            found.concentrateLPerH,
            unit.temperatureC,
            mass(Array.from(found.concentrateMmolL)),
          );
          return found.permeateLPerH + found.concentrateLPerH * (found.concentratePressureBar / Math.max(1e-9, takes)) ** 0.57;
        };
  const start = near?.feedLPerH ?? roughFeed(unit, drawn.by === 'recovery' ? drawn.recovery : 0.25);
  const settled = settle(run, wanted, start, flowSettled);
  return ok(settled && point(settled.run, settled.flow, settled.flow, feed.mmolL));
}

type Run = (flow: number, raw: number, mixed?: ArrayLike<number>) => UnitRun | null;

/** A feed to begin with: some four litres a square metre, hour and bar. */
const roughFeed = ({ ranks, row, pressureBar, factors }: PressedUnit, recovery: number): number =>
  (4 *
    ranks.reduce((sum, rank) => sum + rank.vessels * rank.elementsPerVessel, 0) *
    row.areaM2 *
    pressureBar *
    Math.max(0.2, factors.water)) /
  recovery;

/** The flow that is the one wanted at it: what is made hardly changes with it, so that a secant finds it in a few marches. */
function settle(
  run: Run,
  wanted: (found: UnitRun) => number,
  start: number,
  settled: number,
): { readonly run: UnitRun; readonly flow: number } | null {
  let flow = start;
  let before: { readonly flow: number; readonly miss: number } | null = null;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = run(flow, flow);
    if (!found) {
      // Run dry, or the filters took it all: the truth lies between.
      flow = before ? (flow + before.flow) / 2 : flow * DRY_STEP;
      continue;
    }
    const miss = wanted(found) - flow;
    if (Math.abs(miss) <= settled * flow) return { run: found, flow };
    const slope: number = before && flow !== before.flow ? (miss - before.miss) / (flow - before.flow) : -1;
    const next: number = flow - miss / (slope < -0.05 ? slope : -1);
    before = { flow, miss };
    flow = Math.min(5 * flow, Math.max(flow / 5, next));
  }
  return null;
}
const DRY_STEP = 1.7;
/** What is recycled settles by the strength of each ion: so many times coarser than the flow. */
const RECYCLE_TIMES = 3;

/** A recovery with so much waste led back before the membrane: mixture and raw feed settle together. */
function recycling(
  run: Run,
  feed: FeedSpecies,
  recovery: number,
  back: number,
  start: number,
  times: ArrayLike<number> | null,
  settled: number,
): { readonly run: UnitRun; readonly raw: number; readonly mixed: Float64Array } | null {
  let mixed: Float64Array = Float64Array.from(feed.mmolL, (c, i) => c * (times?.[i] ?? 1));
  let raw = start;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const flow = raw + back;
    const found = run(flow, raw, mixed);
    if (!found) {
      raw *= DRY_STEP;
      continue;
    }
    const wanted = found.permeateLPerH / recovery;
    const next = Float64Array.from(mixed, (now, i) => {
      const stronger = now > 0 ? found.concentrateMmolL[i]! / now : 1;
      // Never overshoots: the strength of the waste against the mixture hardly moves (see `operation.ts`).
      return (wanted * feed.mmolL[i]!) / Math.max(1e-9, wanted + back - back * stronger);
    });
    const moved = Math.max(
      Math.abs(wanted - raw) / wanted,
      ...Array.from(next, (value, i) => (mixed[i]! > 0 ? Math.abs(value / mixed[i]! - 1) : 0)),
    );
    if (moved <= settled) return { run: found, raw, mixed };
    raw = wanted;
    mixed = next;
  }
  return null;
}
