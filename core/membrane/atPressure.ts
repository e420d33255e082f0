import { ok, type Outcome } from '../quantity';
import type { ElementRow } from './classes';
import { permeabilityOf } from './derive';
import { marchSetup, SLICES, type FoulingFactors } from './march';
import type { OsmoticLaw } from './osmosis';
import { runRanks, type UnitRun, type VesselRank } from './ranks';
import type { FeedSpecies } from './species';

/** A unit whose pressure is known: what it makes at a recovery, or at a flow that is held past it. Cheap enough to be asked of thousands. */

export interface PressedUnit {
  readonly row: ElementRow;
  readonly ranks: readonly VesselRank[];
  readonly factors: FoulingFactors;
  /** Pressure in front of it at no flow, bar, and what filters take of it for each L/h of raw feed. */
  readonly pressureBar: number;
  readonly filterBarPerLPerH: number;
  readonly temperatureC: number;
  readonly law: OsmoticLaw;
}
/** Share of the raw feed that becomes product; null: all that is held flows straight through. */
export interface Drawn {
  readonly recovery: number | null;
  /** What meets the first vessels, by leading waste back; null: only raw feed does. */
  readonly heldLPerH: number | null;
}
export interface PressedPoint {
  readonly productLPerH: number;
  readonly feedLPerH: number;
  readonly permeateMmolL: readonly number[];
  /** Least that leaves any element, L/h. */
  readonly leastConcentrateLPerH: number;
}

const SETTLED = 1e-6;
const MOST_ROUNDS = 40;

/**
 * Solves a unit at a known pressure.
 *
 * @returns null inside where it makes nothing, or where no flow gives its recovery
 */
export function solveAtPressure(unit: PressedUnit, feed: FeedSpecies, drawn: Drawn, slices = SLICES): Outcome<PressedPoint | null> {
  const permeability = permeabilityOf(unit.row, unit.law);
  if (!permeability.ok) return permeability;
  const setup = marchSetup(unit.row, permeability.value, unit.factors, feed, unit.temperatureC, unit.law, slices);
  const run = (flow: number, raw: number, mixed?: ArrayLike<number>): UnitRun | null => {
    const bar = unit.pressureBar - unit.filterBarPerLPerH * raw;
    return bar > 0 ? runRanks(setup, unit.ranks, flow, bar, 0, mixed) : null;
  };
  if (drawn.recovery === null) return ok(pointOf(run(drawn.heldLPerH ?? 0, drawn.heldLPerH ?? 0), drawn.heldLPerH ?? 0));
  const held = drawn.heldLPerH === null ? null : heldPoint(run, feed, drawn.recovery, drawn.heldLPerH);
  return ok(held ?? atRecovery(run, drawn.recovery, unit));
}

type Run = (flow: number, raw: number, mixed?: ArrayLike<number>) => UnitRun | null;

function pointOf(run: UnitRun | null, feedLPerH: number): PressedPoint | null {
  if (!run || !(run.permeateLPerH > 0)) return null;
  return {
    productLPerH: run.permeateLPerH,
    feedLPerH,
    permeateMmolL: Array.from(run.permeateMmolH, (mmolH) => mmolH / run.permeateLPerH),
    leastConcentrateLPerH:
      60 * Math.min(...run.ranks.flatMap(({ elements }) => elements.map(({ concentrateLPerMin }) => concentrateLPerMin))),
  };
}

/** The flow of which a share becomes product: what is made hardly changes with it, so that a secant finds it in a few marches. */
function atRecovery(run: Run, recovery: number, { row, ranks, pressureBar, factors }: PressedUnit): PressedPoint | null {
  const elements = ranks.reduce((sum, { vessels, elementsPerVessel }) => sum + vessels * elementsPerVessel, 0);
  let flow = (4 * elements * row.areaM2 * pressureBar * Math.max(0.2, factors.water)) / recovery;
  let before: { readonly flow: number; readonly miss: number } | null = null;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = run(flow, flow);
    if (!found) {
      // Run dry, or the filters took it all: the truth lies between.
      flow = before ? (flow + before.flow) / 2 : flow * DRY_STEP;
      continue;
    }
    const wanted = found.permeateLPerH / recovery;
    const miss = wanted - flow;
    if (Math.abs(miss) <= SETTLED * flow) return pointOf(found, flow);
    const slope: number = before && flow !== before.flow ? (miss - before.miss) / (flow - before.flow) : -1;
    const next: number = flow - miss / (slope < -0.05 ? slope : -1);
    before = { flow, miss };
    flow = Math.min(5 * flow, Math.max(flow / 5, next));
  }
  return null;
}
const DRY_STEP = 1.7;

/** A flow held past the membrane by leading waste back; null where the membrane takes more by itself. */
function heldPoint(run: Run, feed: FeedSpecies, recovery: number, held: number): PressedPoint | null {
  let mixed: Float64Array = Float64Array.from(feed.mmolL);
  let raw = held / 2;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = run(held, raw, mixed);
    if (!found) return null;
    const wanted = found.permeateLPerH / recovery;
    if (wanted >= held) return null;
    const back = held - wanted;
    const next = Float64Array.from(mixed, (now, i) => {
      const stronger = now > 0 ? found.concentrateMmolL[i]! / now : 1;
      // Never overshoots: the strength of the waste against the mixture hardly moves (see `operation.ts`).
      return (wanted * feed.mmolL[i]!) / Math.max(1e-9, held - back * stronger);
    });
    const moved = Math.max(
      Math.abs(wanted - raw) / held,
      ...Array.from(next, (value, i) => (mixed[i]! > 0 ? Math.abs(value / mixed[i]! - 1) : 0)),
    );
    if (moved <= HELD_SETTLED) return pointOf(found, wanted);
    raw = wanted;
    mixed = next;
  }
  return null;
}
const HELD_SETTLED = 1e-5;
