import { findRoot, findRootNear } from '../numeric';
import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import type { ElementRow } from './classes';
import { permeabilityOf } from './derive';
import { marchSetup, SLICES, type FoulingFactors, type MarchSetup } from './march';
import { massMgL, type OsmoticLaw } from './osmosis';
import { runRanks, type RankState, type UnitRun, type VesselRank } from './ranks';
import { pumpError, pumpOutletBar, type Pump } from './pump';
import { restrictorFlowLPerH, type Restrictor } from './restrictor';
import { valveError, wastePressureBar, type WasteValve } from './valve';
import type { FeedSpecies } from './species';

/** A membrane unit with its waste restrictor. Ranks follow one another on the concentrate; permeates join. */
export interface MembraneUnit {
  readonly row: ElementRow;
  readonly ranks: readonly VesselRank[];
  readonly factors: FoulingFactors;
  readonly restrictor: Restrictor;
  /** Stands in place of the restrictor where there is one. */
  readonly valve?: WasteValve | null;
  /** Concentrate led back before the pump, L/h. */
  readonly recycleLPerH?: number;
}

/** What the unit is given. */
export interface UnitConditions {
  readonly linePressureBar: number;
  /** Pressure the stages before the unit take per L/h of feed; they are laminar, so it is a slope. */
  readonly prefilterBarPerLPerH: number;
  /** Behind the filters, before the membrane. */
  readonly pump?: Pump | null;
  readonly permeatePressureBar: number;
  readonly temperatureC: number;
  readonly law: OsmoticLaw;
}

/** The operating point in flows and amounts. */
export interface UnitFlows {
  /** Raw feed, without what is led back. */
  readonly feedLPerH: number;
  /** Through the pump and into the first elements: raw feed and recycle together. */
  readonly membraneFeedLPerH: number;
  readonly recycleLPerH: number;
  /** The mixture that meets the membrane, mmol/L in the feed's species order. */
  readonly mixedFeedMmolL: readonly number[];
  readonly feedPressureBar: number;
  readonly permeateLPerH: number;
  readonly concentrateLPerH: number;
  readonly concentratePressureBar: number;
  readonly recovery: number;
  readonly wasteToProduct: number | null;
  readonly ranks: readonly RankState[];
  readonly noProduction: boolean;
  /** How the unknown flow was found. */
  readonly iterations: number;
  /** Pressure left unexplained at the drain, bar. */
  readonly residualBar: number;
  /** Slope of the balance at the point: where a similar solve may begin. */
  readonly slope: number;
  /** mmol/L in the feed's species order; permeate null when there is none. */
  readonly permeateMmolL: readonly number[] | null;
  readonly concentrateMmolL: readonly number[];
}

/** Below a millibar no gauge shows anything and nothing flows worth computing. */
const LEAST_PRESSURE_BAR = 1e-3;

function conditionsError(unit: MembraneUnit, at: UnitConditions): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('linePressureBar', 'Line pressure', at.linePressureBar, 0, 100, 'bar'),
    outOfRange('temperatureC', 'Temperature', at.temperatureC, 0.1, 60, '°C'),
    outOfRange('permeatePressureBar', 'Back-pressure on the product', at.permeatePressureBar, 0, 100, 'bar'),
    outOfRange('boreMm', 'Restrictor bore', unit.restrictor.boreMm, 0.2, 3, 'mm'),
    outOfRange('lengthMm', 'Restrictor length', unit.restrictor.lengthMm, 10, 2000, 'mm'),
    unit.valve ? valveError(unit.valve) : null,
    at.pump ? pumpError(at.pump) : null,
    outOfRange('recycleLPerH', 'Recycle', unit.recycleLPerH ?? 0, 0, 100_000, 'L/h'),
    outOfRange('factors.water', 'Membrane output factor', unit.factors.water, 0.05, 5),
    outOfRange('factors.salt', 'Membrane salt factor', unit.factors.salt, 0.05, 100),
    ...unit.ranks.flatMap((rank, i) => [
      outOfRange(`ranks[${i}].vessels`, 'Number of vessels', rank.vessels, 1, 100),
      outOfRange(`ranks[${i}].elementsPerVessel`, 'Elements in a vessel', rank.elementsPerVessel, 1, 10),
    ]),
  );
}

/** One composition of the membrane's feed, ready to be run at any flow and pressure. */
interface Bench {
  readonly unit: MembraneUnit;
  readonly at: UnitConditions;
  readonly setup: MarchSetup;
  readonly recycle: number;
  readonly mass: (mmolL: ArrayLike<number>) => number;
  readonly mixed: readonly number[];
}

/** The balance at the waste end: positive while more pressure is left, or more recovered, than the control asks for. */
function spareOf(bench: Bench, run: UnitRun | null, membraneFeed: number): number {
  const { unit, at, recycle, mass } = bench;
  // Running dry counts as too little flow, or too much pressure.
  if (!run) return 100;
  const { valve } = unit;
  if (valve?.kind === 'recovery') return run.permeateLPerH / Math.max(1e-9, membraneFeed - recycle) - valve.recovery;
  const drain = run.concentrateLPerH - recycle;
  if (drain <= 0) return 100;
  return run.concentratePressureBar - wastePressureBar(valve ?? unit.restrictor, drain, at.temperatureC, mass(run.concentrateMmolL));
}

/** A solved operating point before its recycle has settled. */
interface Point {
  readonly membraneFeed: number;
  readonly feedBar: number;
  readonly run: UnitRun;
  /** The unknown that was found, and how fast the balance changes with it: where the next search begins. */
  readonly at: Start;
  readonly iterations: number;
  readonly residual: number;
}

/** Where a search begins: a value of the unknown, and the slope of the balance there. */
interface Start {
  readonly x: number;
  readonly slope: number;
}

/** The one unknown of a unit: the flow under a given pressure, or the pressure under a given flow. */
interface Unknown {
  readonly flowAt: (x: number) => number;
  readonly barAt: (x: number) => number;
  readonly low: number;
  /** Infinity where the ceiling has to be found by doubling. */
  readonly high: number;
}

const noPoint = (field: string, value: number, message: string): Outcome<never> =>
  fail(field, value, 'a pressure, pump and waste control that fit together', message);

/** What is unknown in a unit: a displacement pump gives the flow, everything else gives a pressure. */
function unknownOf({ at, recycle }: Pick<Bench, 'at' | 'recycle'>, most: number): Unknown {
  const { pump } = at;
  if (pump?.kind === 'displacement')
    return { flowAt: () => pump.flowLPerH, barAt: (x) => x, low: at.permeatePressureBar + 1e-6, high: pump.reliefBar };
  const barAt = (q: number): number => {
    const inlet = at.linePressureBar - at.prefilterBarPerLPerH * Math.max(0, q - recycle);
    return pump ? pumpOutletBar(pump, inlet, q) : inlet;
  };
  return { flowAt: (q) => q, barAt, low: recycle, high: most };
}

/**
 * Solves the balance for its unknown: by secant steps from where a similar point stood, or by a bracket that always
 * exists.
 *
 * @param tolerance relative, on the unknown
 */
function solvePoint(bench: Bench, unknown: Unknown, start: Start | null, tolerance: number): Outcome<Point> {
  const { unit, at, setup, mixed } = bench;
  // The last two evaluations: the answer itself, and the slope from which the next search begins.
  const seen: { x: number; run: UnitRun | null; spare: number }[] = [];
  const evaluate = (x: number): (typeof seen)[number] => {
    const known = seen.find((one) => one.x === x);
    if (known) return known;
    const flow = unknown.flowAt(x);
    const run = runRanks(setup, unit.ranks, flow, unknown.barAt(x), at.permeatePressureBar, mixed);
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
  const other = seen.find((one) => one.x !== found.x);
  const slope = other ? (other.spare - found.spare) / (other.x - found.x) : (start?.slope ?? -1);
  return ok({
    membraneFeed: unknown.flowAt(root.x),
    feedBar: unknown.barAt(root.x),
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

/** Where a restrictor on the line will stand, roughly, and the most that can flow there: saves most of the search. */
function restrictorStart(
  unit: MembraneUnit,
  at: UnitConditions,
  setup: MarchSetup,
  tdsMgL: number,
): Outcome<{ start: Start | null; most: number }> {
  if (unit.valve || at.pump || (unit.recycleLPerH ?? 0) > 0) return ok({ start: null, most: Infinity });
  const drain = restrictorFlowLPerH(unit.restrictor, at.linePressureBar, at.temperatureC, tdsMgL);
  if (!drain.ok) return drain;
  const area = unit.ranks.reduce((sum, rank) => sum + rank.vessels * rank.elementsPerVessel, 0) * unit.row.areaM2;
  const produced = setup.membrane.aLmhPerBar * area * Math.max(0, at.linePressureBar - at.permeatePressureBar);
  // The whole line pressure on the restrictor and on the membrane cannot be exceeded.
  const most = Math.min(drain.value + produced, at.prefilterBarPerLPerH > 0 ? at.linePressureBar / at.prefilterBarPerLPerH : Infinity);
  // Turbulent restrictor: its pressure goes with flow to the power 1.8.
  const start = { x: Math.min(0.95 * (drain.value + 0.95 * produced), 0.95 * most), slope: (-1.8 * at.linePressureBar) / drain.value };
  return ok({ start, most });
}

/** Rounds in which the strength of a recycle settles; four are usual. */
const RECYCLE_ROUNDS = 40;
const RECYCLE_SETTLED = 1e-8;
/** A search without a start is made on so many slices first, which find the place within 1 % at a third of the cost. */
const ROUGH_SLICES = 3;

/** Where a solve may begin: a point solved before with nearly the same unit. */
export type NearPoint = Pick<UnitFlows, 'membraneFeedLPerH' | 'feedPressureBar' | 'mixedFeedMmolL' | 'slope'>;

/**
 * Finds the operating point: the flow at which the pressure left at the waste end is what its restrictor or valve
 * takes, or, behind a displacement pump, the pressure.
 *
 * Either balance is monotonic in its one unknown, so a bracket that always exists finds it; running dry counts as
 * too little flow. A recycle is settled around it on the strength of the mixture, `C_mix = q0·C_raw/(qm − qr·ρ)` with
 * ρ the strength of the concentrate against the mixture, which never overshoots.
 *
 * @param near a point solved before with nearly the same unit and feed; only saves time
 */
export function solveUnitFlows(
  unit: MembraneUnit,
  feed: FeedSpecies,
  at: UnitConditions,
  slices = SLICES,
  near?: NearPoint,
): Outcome<UnitFlows> {
  const invalid = conditionsError(unit, at);
  if (invalid) return { ok: false, error: invalid };
  const permeability = permeabilityOf(unit.row, at.law);
  if (!permeability.ok) return permeability;
  if (at.linePressureBar < LEAST_PRESSURE_BAR && !at.pump) return ok(standstill(feed, 0, at));
  const recycle = unit.recycleLPerH ?? 0;
  const displacement = at.pump?.kind === 'displacement' ? at.pump : null;
  if (displacement && displacement.flowLPerH <= recycle)
    return noPoint(
      'recycleLPerH',
      recycle,
      `The recycle of ${Math.round(recycle)} L/h leaves no room for raw feed: the pump moves ${Math.round(displacement.flowLPerH)} L/h in all.`,
    );
  const mass = massMgL(feed.ids);
  const setupOf = (count: number): MarchSetup =>
    marchSetup(unit.row, permeability.value, unit.factors, feed, at.temperatureC, at.law, count);
  const setup = setupOf(slices);
  const rough = restrictorStart(unit, at, setup, mass(feed.mmolL));
  if (!rough.ok) return rough;
  const bench = { unit, at, recycle, mass };
  const unknown = unknownOf(bench, rough.value.most);
  const usable = near && near.mixedFeedMmolL.length === feed.mmolL.length ? near : null;

  let mixed: readonly number[] = recycle > 0 ? (usable?.mixedFeedMmolL ?? feed.mmolL) : feed.mmolL;
  let start =
    usable && usable.slope !== 0
      ? { x: displacement ? usable.feedPressureBar : usable.membraneFeedLPerH, slope: usable.slope }
      : rough.value.start;
  if (!start && slices > ROUGH_SLICES) {
    const settled = settle({ ...bench, setup: setupOf(ROUGH_SLICES) }, feed, unknown, mixed, null, 1e-3, 1e-3);
    if (settled.ok) {
      start = settled.value.point.at;
      mixed = settled.value.mixed;
    }
  }
  const settled = settle({ ...bench, setup }, feed, unknown, mixed, start, 1e-8, RECYCLE_SETTLED);
  return settled.ok ? ok(flowsOf(feed, at, settled.value.point, recycle, settled.value.mixed)) : settled;
}

/** Solves point and mixture in turn until the mixture no longer moves; once where nothing is led back. */
function settle(
  bench: Omit<Bench, 'mixed'>,
  feed: FeedSpecies,
  unknown: Unknown,
  from: readonly number[],
  start: Start | null,
  tolerance: number,
  settled: number,
): Outcome<{ point: Point; mixed: readonly number[] }> {
  const { recycle } = bench;
  let mixed = from;
  let begin = start;
  for (let round = 0; round < RECYCLE_ROUNDS; round++) {
    const point = solvePoint({ ...bench, mixed }, unknown, begin, tolerance);
    if (!point.ok || recycle === 0) return point.ok ? ok({ point: point.value, mixed }) : point;
    const { membraneFeed, run } = point.value;
    begin = point.value.at;
    const next = feed.mmolL.map((c, i) => {
      const ratio = mixed[i]! > 0 ? run.concentrateMmolL[i]! / mixed[i]! : 1;
      return ((membraneFeed - recycle) * c) / (membraneFeed - recycle * ratio);
    });
    const moved = next.reduce((most, c, i) => Math.max(most, Math.abs(c - mixed[i]!) / Math.max(c, 1e-12)), 0);
    if (moved < settled) return ok({ point: point.value, mixed });
    mixed = next;
  }
  return noPoint('recycleLPerH', recycle, 'The recycle does not settle: it is larger than the concentrate can feed.');
}

function flowsOf(feed: FeedSpecies, at: UnitConditions, point: Point, recycle: number, mixed: ArrayLike<number>): UnitFlows {
  const { run, membraneFeed } = point;
  const feedLPerH = membraneFeed - recycle;
  const drain = run.concentrateLPerH - recycle;
  if (run.permeateLPerH <= 0)
    return { ...standstill(feed, feedLPerH, at), feedPressureBar: point.feedBar, concentratePressureBar: run.concentratePressureBar };
  return {
    feedLPerH,
    membraneFeedLPerH: membraneFeed,
    recycleLPerH: recycle,
    mixedFeedMmolL: Array.from(mixed),
    feedPressureBar: point.feedBar,
    permeateLPerH: run.permeateLPerH,
    concentrateLPerH: drain,
    concentratePressureBar: run.concentratePressureBar,
    recovery: run.permeateLPerH / feedLPerH,
    wasteToProduct: drain / run.permeateLPerH,
    ranks: run.ranks,
    noProduction: false,
    iterations: point.iterations,
    residualBar: point.residual,
    slope: point.at.slope,
    permeateMmolL: Array.from(run.permeateMmolH, (n) => n / run.permeateLPerH),
    concentrateMmolL: Array.from(run.concentrateMmolL),
  };
}

/** Runs a unit at a flow and a pressure that are both given, as on a test bench: no control is solved. */
export function runUnitAt(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, feedLPerH: number): Outcome<UnitFlows> {
  const invalid = conditionsError(unit, at);
  if (invalid) return { ok: false, error: invalid };
  const permeability = permeabilityOf(unit.row, at.law);
  if (!permeability.ok) return permeability;
  const setup = marchSetup(unit.row, permeability.value, unit.factors, feed, at.temperatureC, at.law);
  const run = runRanks(setup, unit.ranks, feedLPerH, at.linePressureBar, at.permeatePressureBar);
  if (!run) return fail('feedLPerH', feedLPerH, 'more feed', 'The membrane takes all the feed: give it more.');
  return ok(
    flowsOf(
      feed,
      at,
      { membraneFeed: feedLPerH, feedBar: at.linePressureBar, run, at: { x: feedLPerH, slope: 0 }, iterations: 0, residual: 0 },
      0,
      feed.mmolL,
    ),
  );
}

/** A unit with water in it and nothing made: not an error, but a state to show. */
function standstill(feed: FeedSpecies, drainLPerH: number, at: UnitConditions): UnitFlows {
  return {
    feedLPerH: drainLPerH,
    membraneFeedLPerH: drainLPerH,
    recycleLPerH: 0,
    mixedFeedMmolL: Array.from(feed.mmolL),
    feedPressureBar: at.linePressureBar - at.prefilterBarPerLPerH * drainLPerH,
    permeateLPerH: 0,
    concentrateLPerH: drainLPerH,
    concentratePressureBar: Math.max(0, at.linePressureBar - at.prefilterBarPerLPerH * drainLPerH),
    recovery: 0,
    wasteToProduct: null,
    ranks: [],
    noProduction: true,
    iterations: 0,
    residualBar: 0,
    slope: 0,
    permeateMmolL: null,
    concentrateMmolL: Array.from(feed.mmolL),
  };
}
