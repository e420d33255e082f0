import { findRoot, findRootNear } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import type { MarchSetup } from './march';
import type { MembraneUnit, UnitConditions } from './model';
import { pumpOutletBar } from './pump';
import { runRanks, type UnitRun } from './ranks';
import { flowThroughValveLPerH, wastePressureBar } from './valve';

/** The operating point of a unit with a given recycle and mixture: one balance, one unknown. */

/** One composition of the membrane's feed, ready to be run at any flow and pressure. */
export interface Bench {
  readonly unit: MembraneUnit;
  readonly at: UnitConditions;
  readonly setup: MarchSetup;
  /** Led back, L/h; where a valve sets it, as it was in the round before: what the pressure before the pump follows. */
  readonly recycle: number;
  readonly mass: (mmolL: ArrayLike<number>) => number;
  readonly mixed: readonly number[];
}

/** Balance of a unit that runs dry: a sign, not a figure; no slope is taken from it. */
const DRY = 100;

/** Bar, or share recovered, that no settled balance is left with, however roughly it was asked for. */
const NOT_BALANCED = { bar: 1, share: 0.05 } as const;

/** The balance at the waste end: positive while more pressure is left, or more recovered, than the control asks for. */
function spareOf(bench: Bench, run: UnitRun | null, membraneFeed: number): number {
  const { unit, at, mass } = bench;
  // Running dry counts as too little flow, or too much pressure.
  if (!run) return DRY;
  const { valve } = unit;
  const recycle = ledBack(bench, run, membraneFeed);
  if (valve?.kind === 'recovery') return run.permeateLPerH / Math.max(1e-9, membraneFeed - recycle) - valve.recovery;
  const drain = run.concentrateLPerH - recycle;
  if (drain <= 0) return DRY;
  return (
    run.concentratePressureBar -
    wastePressureBar(valve ?? unit.restrictor, drain / (unit.defects?.restrictorFlow ?? 1), at.temperatureC, mass(run.concentrateMmolL))
  );
}

/**
 * What is led back to the inlet of the pump, L/h: as given, or as much as its valve passes at the pressure it is left,
 * `r = k·√(p_waste − p_line + s·(q − r))`, which the more it passes the less the filters take.
 */
function ledBack({ unit, at, recycle }: Bench, run: UnitRun, membraneFeed: number): number {
  if (!unit.recycleKv) return recycle;
  const { linePressureBar, prefilterBarPerLPerH: slope } = at;
  const driving = run.concentratePressureBar - linePressureBar + slope * membraneFeed;
  if (driving <= 0) return 0;
  const perRootBar = flowThroughValveLPerH(unit.recycleKv, 1);
  const filters = perRootBar ** 2 * slope;
  return (2 * perRootBar ** 2 * driving) / (filters + Math.sqrt(filters ** 2 + 4 * perRootBar ** 2 * driving));
}

/** A solved operating point before its recycle has settled. */
export interface Point {
  readonly membraneFeed: number;
  readonly feedBar: number;
  readonly recycle: number;
  readonly run: UnitRun;
  /** The unknown that was found, and how fast the balance changes with it: where the next search begins. */
  readonly at: Start;
  readonly iterations: number;
  readonly residual: number;
}

/** Where a search begins: a value of the unknown, and the slope of the balance there. */
export interface Start {
  readonly x: number;
  readonly slope: number;
}

/** The one unknown of a unit: the flow under a given pressure, or the pressure under a given flow. */
export interface Unknown {
  readonly flowAt: (x: number) => number;
  readonly barAt: (x: number) => number;
  readonly low: number;
  /** Infinity where the ceiling has to be found by doubling. */
  readonly high: number;
}

export const noPoint = (field: string, value: number, message: string): Outcome<never> =>
  fail(field, value, 'a pressure, pump and waste control that fit together', message);

/** What is unknown in a unit: a displacement pump gives the flow, everything else gives a pressure. */
export function unknownOf({ unit, at, recycle }: Pick<Bench, 'unit' | 'at' | 'recycle'>, most: number): Unknown {
  const { pump } = at;
  if (pump?.kind === 'displacement')
    return { flowAt: () => pump.flowLPerH, barAt: (x) => x, low: at.permeatePressureBar + 1e-6, high: pump.reliefBar };
  const barAt = (q: number): number => {
    const inlet = at.linePressureBar - at.prefilterBarPerLPerH * Math.max(0, q - recycle);
    return pump ? pumpOutletBar(pump, inlet, q) : inlet;
  };
  // What a valve leads back follows from the flow; what is given has to flow at least.
  return { flowAt: (q) => q, barAt, low: unit.recycleKv ? 0 : recycle, high: most };
}

/**
 * Solves the balance for its unknown: by secant steps from where a similar point stood, or by a bracket that always
 * exists.
 *
 * @param tolerance relative, on the unknown
 */
export function solvePoint(bench: Bench, unknown: Unknown, start: Start | null, tolerance: number): Outcome<Point> {
  const { unit, at, setup, mixed } = bench;
  // The last two evaluations: the answer itself, and the slope from which the next search begins.
  const seen: { x: number; run: UnitRun | null; spare: number }[] = [];
  const evaluate = (x: number): (typeof seen)[number] => {
    const known = seen.find((one) => one.x === x);
    if (known) return known;
    const flow = unknown.flowAt(x);
    const run = runRanks(setup, unit.ranks, flow, unknown.barAt(x), at.permeatePressureBar, mixed, unit.defects);
    const one = { x, run, spare: spareOf(bench, run, flow) };
    seen.unshift(one);
    seen.length = Math.min(seen.length, 4);
    return one;
  };
  const spare = (x: number): number => evaluate(x).spare;
  const { low } = unknown;
  let high = unknown.high;
  const span = Number.isFinite(high) ? high : Math.max(10, 2 * low + 10);
  let root = start && findRootNear(spare, start.x, start.slope, low + 1e-6 * span, Number.isFinite(high) ? high : 1e6, tolerance * start.x);
  // A slope from elsewhere can make a step look settled that is not.
  if (root && Math.abs(root.residual) > NOT_BALANCED[unit.valve?.kind === 'recovery' ? 'share' : 'bar']) root = null;
  if (!root) {
    if (!Number.isFinite(high)) {
      // Without a ceiling of its own the flow is doubled until the control takes more than is left.
      high = span;
      for (let i = 0; i < 40 && spare(high) > 0; i++) high *= 2;
    }
    root = findRoot(spare, low + 1e-6 * high, high, tolerance * high);
  }
  const found = root && evaluate(root.x);
  if (!root || !found?.run) return withoutPoint(bench, unknown, evaluate);
  // The balance jumps where the recycle takes the last of the concentrate: no point, but a valve that is too wide.
  if (unit.recycleKv && Math.abs(root.residual) > NOT_BALANCED.bar)
    return noPoint(
      'recycleKv',
      unit.recycleKv,
      `The recycle valve (Kv ${unit.recycleKv}) lets all the concentrate round before the waste valve has its pressure: close it further.`,
    );
  const other = seen.find((one) => one.x !== found.x && one.spare !== DRY);
  const slope = other ? (other.spare - found.spare) / (other.x - found.x) : (start?.slope ?? -1);
  return ok({
    membraneFeed: unknown.flowAt(root.x),
    feedBar: unknown.barAt(root.x),
    recycle: ledBack(bench, found.run, unknown.flowAt(root.x)),
    run: found.run,
    at: { x: root.x, slope },
    iterations: root.iterations,
    residual: root.residual,
  });
}

/** No root: an idle unit, or a contradiction a person can act on. */
function withoutPoint(bench: Bench, unknown: Unknown, evaluate: (x: number) => { run: UnitRun | null; spare: number }): Outcome<Point> {
  const { unit, at } = bench;
  const { pump } = at;
  if (pump?.kind === 'displacement') {
    const idle = evaluate(unknown.low);
    // The control passes the whole flow without holding it back: the unit stands at no pressure.
    if (idle.run && idle.spare > 0)
      return ok({
        membraneFeed: pump.flowLPerH,
        feedBar: unknown.low,
        recycle: ledBack(bench, idle.run, pump.flowLPerH),
        run: idle.run,
        at: { x: unknown.low, slope: 1 },
        iterations: 0,
        residual: 0,
      });
    return noPoint(
      'pump.reliefBar',
      pump.reliefBar,
      `The pump would have to go above its relief valve of ${pump.reliefBar} bar to push ${Math.round(pump.flowLPerH)} L/h through. Open the waste, or fit a smaller pump.`,
    );
  }
  return fail(
    'lengthMm',
    unit.restrictor.lengthMm,
    'a waste control that passes more',
    unit.valve
      ? 'No flow balances this pressure and this valve: open it, or ask for less recovery.'
      : 'The membrane takes all the feed: the restrictor passes too little.',
  );
}
