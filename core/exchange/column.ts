import { runToEnd } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { balanced, settleWater, type Solute, type Water } from '../water';
import { cellRow, cellSteps, type CellBed, type CellRow, type CellRun } from './cells';
import { frontChain, type Front } from './coherence';
import { bedUtilisation } from './film';
import { amountOf, ANION_IDS, CATION_IDS, ionMeqL, type AnionId, type CationId, type IonId } from './ions';
import { RESIN_ROWS, type Bed } from './resins';
import { anionAlphas, cationAlphas } from './selectivity';
import { bedCapacityEq } from './throughput';

export type Side = 'cation' | 'anion';

/** A front as the exact theory has it: which ion begins, when, and at what strength it stands behind it. */
export interface ColumnFront {
  readonly side: Side;
  readonly ion: IonId;
  readonly litres: number;
  readonly plateauMeqL: number;
}

/** What stands on the last bed at a moment of its life, by ion along its length. */
export interface BedMoment {
  readonly litres: number;
  /** Share of the side's capacity each ion holds, cell by cell from the inlet, ion by ion. */
  readonly cation: Float32Array;
  readonly anion: Float32Array;
}

/** The life of a row of mixed beds on one water. */
export interface ColumnRun {
  readonly cations: readonly CationId[];
  readonly anions: readonly AnionId[];
  readonly feedMeqL: Readonly<Partial<Record<IonId, number>>>;
  /** Litres passed, and what leaves the last bed then. */
  readonly litres: readonly number[];
  readonly outMeqL: Readonly<Partial<Record<IonId, readonly number[]>>>;
  readonly ec25UScm: readonly number[];
  readonly pH: readonly number[];
  readonly feedUScm: number;
  readonly fronts: readonly ColumnFront[];
  /** The side whose first ion comes first. */
  readonly limiting: Side;
  /** Cells along the last bed by side; 0 for a side it does not take. */
  readonly cells: Readonly<Record<Side, number>>;
  readonly moments: readonly BedMoment[];
  /** Worst ion's balance as a share of the capacity. */
  readonly balanceError: number;
}

export interface ColumnOptions {
  /** Litres to pass; the default runs a quarter past the later side's first front. */
  readonly litres?: number;
  /** Litres to pass at least, where the default would end sooner. */
  readonly least?: number;
  /** Cells in each bed; the default follows the transfer units and how near the ions stand to each other. */
  readonly cells?: number;
  /** Transfer units of each bed in place of the film's own; null comes to rest with the beads at every batch. */
  readonly transferUnits?: Readonly<Record<Side, number>> | null;
}

const POINTS = 200;
/** Points about each front, and how far they reach to either side of it. */
const FRONT_POINTS = 15;
const FRONT_REACH = 0.03;
const MOMENTS = 120;
/** Ions below this share of their side are left out: they cannot be seen, and only cost. */
const LEAST_SHARE = 1e-4;

/** One side made ready to run. */
interface SidePlan<Id extends IonId> {
  readonly side: Side;
  readonly ids: readonly Id[];
  readonly alpha: readonly number[];
  readonly meqL: readonly number[];
  readonly totalMeqL: number;
  readonly capacityEq: readonly number[];
  readonly transferUnits: readonly (number | null)[];
  readonly fronts: readonly Front[];
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** The ions of a side that matter, weakest first. */
function present<Id extends IonId>(ids: readonly Id[], water: Water): readonly (readonly [Id, number])[] {
  const all = ids.map((id) => [id, ionMeqL(water, id)] as const);
  const total = sum(all.map(([, meqL]) => meqL));
  return all.filter(([, meqL]) => meqL > LEAST_SHARE * total);
}

/** Cells a bed needs: more for sharp films and for ions that are hard to tell apart (§4.3). */
function cellsFor(transferUnits: number | null, alpha: readonly number[]): number {
  const ascending = [...alpha].sort((a, b) => a - b);
  const close = ascending.some((a, i) => i > 0 && a / ascending[i - 1]! < 1.5);
  return close || (transferUnits !== null && transferUnits > 30) ? 100 : 60;
}

function plan<Id extends IonId>(
  side: Side,
  ions: readonly (readonly [Id, number])[],
  factors: (ids: readonly Id[], fractions: readonly number[], totalEqPerL: number) => Outcome<readonly number[]>,
  capacityEq: readonly number[],
  transferUnits: readonly (number | null)[],
): Outcome<SidePlan<Id>> {
  const ids = ions.map(([id]) => id);
  const meqL = ions.map(([, amount]) => amount);
  const totalMeqL = sum(meqL);
  const fractions = meqL.map((amount) => amount / totalMeqL);
  const alpha = factors(ids, fractions, totalMeqL / 1000);
  if (!alpha.ok) return alpha;
  const fronts = frontChain(alpha.value, fractions);
  if (!fronts.ok) return fronts;
  return ok({ side, ids, alpha: alpha.value, meqL, totalMeqL, capacityEq, transferUnits, fronts: fronts.value });
}

/** Litres at a front of the exact theory. */
const litresOf = (at: SidePlan<IonId>, lambda: number): number => (1000 * lambda * sum(at.capacityEq)) / at.totalMeqL;

/** A side of the row through its life: what leaves it, and the last bed now and then. */
interface SideRun {
  readonly outletAt: (litres: number) => number[];
  readonly moments: readonly { readonly litres: number; readonly share: Float32Array }[];
  /** Cells along the last bed; 0 where it takes nothing of this side. */
  readonly cells: number;
  readonly balanceError: number;
}

/** A side's cells run to the horizon, a batch at a time. Beds of the other resin alone let its ions pass. */
function* sideSteps(at: SidePlan<IonId>, options: ColumnOptions, horizon: number): Generator<number, Outcome<SideRun>> {
  const taking = at.capacityEq.flatMap((capacityEq, b): CellBed[] => {
    if (capacityEq <= 0) return [];
    const transferUnits = options.transferUnits === undefined ? at.transferUnits[b]! : (options.transferUnits?.[at.side] ?? null);
    return [{ capacityEq, transferUnits, cells: options.cells ?? cellsFor(transferUnits, at.alpha) }];
  });
  const cells = at.capacityEq.at(-1)! > 0 ? taking.at(-1)!.cells : 0;
  const even = Array.from({ length: MOMENTS + 1 }, (_, k) => ({ litres: (k * horizon) / MOMENTS, share: new Float32Array(0) }));
  if (taking.length === 0) return ok({ outletAt: () => [...at.meqL], moments: even, cells, balanceError: 0 });
  const row = cellRow(at.alpha, taking);
  if (!row.ok) return row;
  const moments = [{ litres: 0, share: lastBed(row.value, cells) }];
  const steps = cellSteps(row.value, at.meqL, {
    litres: horizon,
    onBatch: (litres) => {
      if (litres >= (moments.length * horizon) / MOMENTS) moments.push({ litres, share: lastBed(row.value, cells) });
    },
  });
  let next = steps.next();
  for (let b = 0; !next.done; b++) {
    if (b % 50 === 0) yield next.value / horizon;
    next = steps.next();
  }
  if (!next.value.ok) return next.value;
  const run = next.value.value;
  return ok({ outletAt: (litres) => outletAt(run, litres), moments, cells, balanceError: run.balanceError });
}

/**
 * Runs a row of beds, mixed or each of one resin, from fresh on a constant water: bands by ion along the last bed, what leaves it, and the
 * fronts of the exact theory beside. A step at a time, so that a caller can show progress and stop.
 *
 * Cations and anions are separate columns of cells, joined at the outlet by electroneutrality: H or OH makes up the
 * difference, and the water room gives pH and conductivity.
 *
 * @param beds in the order the water meets them
 * @param water what enters the first
 * @yields share done, 0–1
 */
export function* columnSteps(
  beds: readonly Bed[],
  water: Water,
  flowLPerH: number,
  options: ColumnOptions = {},
): Generator<number, Outcome<ColumnRun>> {
  if (beds.length === 0) return fail('beds', 0, 'one bed or more', 'There is no resin here to run.');
  const plans = sidePlans(beds, water, flowLPerH);
  if (!plans.ok) return plans;
  const [cation, anion] = plans.value;
  const last = Math.max(...[cation, anion].map((side) => litresOf(side, 1)));
  const horizon = options.litres ?? Math.max(1.25 * last, options.least ?? 0);
  const cationRun = yield* halved(sideSteps(cation, options, horizon), 0);
  if (!cationRun.ok) return cationRun;
  const anionRun = yield* halved(sideSteps(anion, options, horizon), 0.5);
  if (!anionRun.ok) return anionRun;
  return joined(water, cation, anion, cationRun.value, anionRun.value, horizon);
}

/** One of two halves of the work. */
function* halved<T>(steps: Generator<number, T>, from: number): Generator<number, T> {
  let next = steps.next();
  while (!next.done) {
    yield from + next.value / 2;
    next = steps.next();
  }
  return next.value;
}

/** Runs it to its end. */
export const simulateBeds = (beds: readonly Bed[], water: Water, flowLPerH: number, options: ColumnOptions = {}): Outcome<ColumnRun> =>
  runToEnd(columnSteps(beds, water, flowLPerH, options));

/** Both sides of a row of beds on a water, or what is wrong with either. */
function sidePlans(
  beds: readonly Bed[],
  water: Water,
  flowLPerH: number,
): Outcome<readonly [cation: SidePlan<CationId>, anion: SidePlan<AnionId>]> {
  const states = beds.map((bed) => bedUtilisation(bed, flowLPerH, water.temperatureC));
  const failed = states.find((state) => !state.ok);
  if (failed && !failed.ok) return failed;
  const units = (side: Side): (number | null)[] => states.map((state) => (state.ok ? state.value[side].transferUnits : null));
  const cations = present(CATION_IDS, water);
  const anions = present(ANION_IDS, water);
  if (cations.length === 0 || anions.length === 0)
    return fail('water', 0, 'a water with ions in it', 'There is nothing in this water for the resin to take up.');
  // Of resin itself, not of a bed that is partly the other one.
  const taking = beds.map((bed) => RESIN_ROWS[bed.resin]).find((row) => row.cationShare > 0);
  const resinEqPerL = taking ? taking.cationEqPerL / taking.cationShare : 1;
  const cation = plan(
    'cation',
    cations,
    (ids, fractions, total) => cationAlphas(ids, fractions, total, resinEqPerL),
    beds.map((bed) => bedCapacityEq(bed).cationEq),
    units('cation'),
  );
  if (!cation.ok) return cation;
  const anion = plan(
    'anion',
    anions,
    (ids) => ok(anionAlphas(ids)),
    beds.map((bed) => bedCapacityEq(bed).anionEq),
    units('anion'),
  );
  return anion.ok ? ok([cation.value, anion.value]) : anion;
}

/** Shares of the capacity each ion holds along the last bed. */
function lastBed(row: CellRow, cells: number): Float32Array {
  const from = row.cells - cells;
  return Float32Array.from(row.held.subarray(from * row.ions), (eq, k) => eq / row.capacity[from + Math.floor(k / row.ions)]!);
}

/** Outlet of a run at so many litres, between batches. */
function outletAt(run: CellRun, litres: number): number[] {
  const n = run.row.ions;
  const count = run.litres.length;
  const step = count > 1 ? run.litres[1]! - run.litres[0]! : 1;
  const place = Math.max(0, Math.min(count - 1, (litres - run.litres[0]!) / step));
  const [low, share] = [Math.floor(place), place % 1];
  const high = Math.min(count - 1, low + 1);
  return Array.from({ length: n }, (_, i) => (1 - share) * run.outMeqL[low * n + i]! + share * run.outMeqL[high * n + i]!);
}

/** The water that leaves: exchanged ions as they come out, everything else as it went in. */
export function effluent(feed: Water, ions: Readonly<Partial<Record<IonId, number>>>): Water {
  const mgL: Record<Solute, number> = { ...feed.mgL };
  let carbonMmolL = 0;
  for (const id of [...CATION_IDS, ...ANION_IDS]) {
    const amount = amountOf(id, ions[id] ?? 0);
    if (id === 'carbon') carbonMmolL = amount;
    else mgL[id] = amount;
  }
  return balanced(mgL, carbonMmolL, feed.temperatureC);
}

/** Where the outlet is looked at: evenly, and closer about each front, for a band of silica is narrow. */
function pointsOf(horizon: number, fronts: readonly ColumnFront[]): number[] {
  const even = Array.from({ length: POINTS }, (_, k) => ((k + 0.5) * horizon) / POINTS);
  const about = fronts.flatMap((front) =>
    Array.from({ length: FRONT_POINTS }, (_, k) => front.litres * (1 - FRONT_REACH + (2 * FRONT_REACH * k) / (FRONT_POINTS - 1))),
  );
  return [...even, ...about.filter((at) => at < horizon)].sort((a, b) => a - b);
}

function joined(
  water: Water,
  cation: SidePlan<CationId>,
  anion: SidePlan<AnionId>,
  cationRun: SideRun,
  anionRun: SideRun,
  horizon: number,
): Outcome<ColumnRun> {
  const litres = pointsOf(horizon, [...frontsOf(cation), ...frontsOf(anion)]);
  const ids: readonly IonId[] = [...cation.ids, ...anion.ids];
  const outMeqL: Partial<Record<IonId, number[]>> = Object.fromEntries(ids.map((id) => [id, [] as number[]]));
  const ec25UScm: number[] = [];
  const pH: number[] = [];
  for (const at of litres) {
    const out = [...cationRun.outletAt(at), ...anionRun.outletAt(at)];
    const ions = Object.fromEntries(ids.map((id, i) => [id, out[i]!])) as Partial<Record<IonId, number>>;
    const state = settleWater(effluent(water, ions), pH.at(-1));
    if (!state.ok) return state;
    ids.forEach((id, i) => outMeqL[id]!.push(out[i]!));
    ec25UScm.push(state.value.ec25UScm);
    pH.push(state.value.pH);
  }
  const feed = settleWater(water);
  if (!feed.ok) return feed;
  const count = Math.min(cationRun.moments.length, anionRun.moments.length);
  return ok({
    cations: cation.ids,
    anions: anion.ids,
    feedMeqL: Object.fromEntries(ids.map((id, i) => [id, [...cation.meqL, ...anion.meqL][i]!])),
    litres,
    outMeqL,
    ec25UScm,
    pH,
    feedUScm: feed.value.ec25UScm,
    fronts: [...frontsOf(cation), ...frontsOf(anion)].sort((a, b) => a.litres - b.litres),
    limiting: firstOf(cation, anion),
    cells: { cation: cationRun.cells, anion: anionRun.cells },
    moments: Array.from({ length: count }, (_, k) => ({
      litres: cationRun.moments[k]!.litres,
      cation: cationRun.moments[k]!.share,
      anion: anionRun.moments[k]!.share,
    })),
    balanceError: Math.max(cationRun.balanceError, anionRun.balanceError),
  });
}

/** The side whose first ion comes first, of those the beds take. */
function firstOf(cation: SidePlan<CationId>, anion: SidePlan<AnionId>): Side {
  const at = (side: SidePlan<IonId>): number => (sum(side.capacityEq) > 0 ? litresOf(side, 1) : Infinity);
  return at(cation) <= at(anion) ? 'cation' : 'anion';
}

const frontsOf = <Id extends IonId>(side: SidePlan<Id>): ColumnFront[] =>
  (sum(side.capacityEq) > 0 ? side.fronts : []).map((front) => ({
    side: side.side,
    ion: side.ids[front.ion]!,
    litres: litresOf(side, front.lambda),
    plateauMeqL: front.behind[front.ion]! * side.totalMeqL,
  }));

/** Litres at which a series first passes a level, between its points; null when it never does. */
export function firstPast(litres: readonly number[], values: readonly number[], level: number): number | null {
  const at = values.findIndex((value) => value >= level);
  if (at < 0) return null;
  if (at === 0) return litres[0]!;
  const [before, now] = [values[at - 1]!, values[at]!];
  return litres[at - 1]! + ((level - before) / (now - before)) * (litres[at]! - litres[at - 1]!);
}
