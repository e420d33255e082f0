import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { permeabilityOf } from './derive';
import { marchSetup, SLICES, type MarchSetup } from './march';
import type { MembraneUnit, UnitConditions, UnitFlows } from './model';
import { massMgL } from './osmosis';
import { noPoint, type Point, type Start } from './point';
import { pumpError, pumpOutletBar, type Pump } from './pump';
import { elementCount, runRanks } from './ranks';
import { restrictorFlowLPerH } from './restrictor';
import { settle, type Settling } from './settle';
import type { FeedSpecies } from './species';
import { flowThroughValveLPerH, valveError } from './valve';

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
    unit.recycleKv ? outOfRange('recycleKv', 'Recycle valve opening Kv', unit.recycleKv, 1e-4, 100, 'm³/h') : null,
    outOfRange('factors.water', 'Membrane output factor', unit.factors.water, 0.05, 5),
    outOfRange('factors.salt', 'Membrane salt factor', unit.factors.salt, 0.05, 100),
    ...unit.ranks.flatMap((rank, i) => [
      outOfRange(`ranks[${i}].vessels`, 'Number of vessels', rank.vessels, 1, 100),
      outOfRange(`ranks[${i}].elementsPerVessel`, 'Elements in a vessel', rank.elementsPerVessel, 1, 10),
    ]),
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
  const area = elementCount(unit.ranks) * unit.row.areaM2;
  const produced = setup.membrane.aLmhPerBar * area * Math.max(0, at.linePressureBar - at.permeatePressureBar);
  const { restrictorFlow = 1, leakLPerH = 0, elements = [], slip = 0 } = unit.defects ?? {};
  const wetter = Math.max(1, ...elements.map(({ water }) => water));
  const passed = drain.value * restrictorFlow;
  // The whole line pressure on the restrictor and on the membrane cannot be exceeded.
  const most = Math.min(
    (passed + produced * wetter + 5 * leakLPerH) / (1 - slip),
    at.prefilterBarPerLPerH > 0 ? at.linePressureBar / at.prefilterBarPerLPerH : Infinity,
  );
  // Turbulent restrictor: its pressure goes with flow to the power 1.8.
  const start = { x: Math.min(0.95 * (passed + 0.95 * produced), 0.95 * most), slope: (-1.8 * at.linePressureBar) / passed };
  return ok({ start, most });
}

const RECYCLE_SETTLED = 1e-8;
/** A balance so far off has not been met. */
const UNSETTLED = 1e-6;
/** A search without a start is made on so many slices first, which find the place within 1 % at a third of the cost. */
const ROUGH_SLICES = 3;

/** Where a solve may begin: a point solved before with nearly the same unit. */
export type NearPoint = Pick<UnitFlows, 'membraneFeedLPerH' | 'feedPressureBar' | 'mixedFeedMmolL' | 'slope' | 'recycleLPerH'>;

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
  // Without a pump the waste stands below the feed: nothing can be led back through a valve.
  if (unit.recycleKv && !at.pump) return settledUnit({ ...unit, recycleKv: null, recycleLPerH: 0 }, feed, at, slices, near);
  return settledUnit(unit, feed, at, slices, near);
}

/** Recycle a search begins with, as a share of what its valve passes at most. */
const FIRST_RECYCLE = 0.4;

/** Solves a unit from where a similar one stood, or from a rough solution on a few slices. */
function settledUnit(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, slices: number, near?: NearPoint): Outcome<UnitFlows> {
  const permeability = permeabilityOf(unit.row, at.law);
  if (!permeability.ok) return permeability;
  if (at.linePressureBar < LEAST_PRESSURE_BAR && !at.pump) return ok(standstill(feed, 0, at));
  const usable = near && near.mixedFeedMmolL.length === feed.mmolL.length ? near : null;
  const recycle = unit.recycleKv
    ? usable && usable.recycleLPerH > 0
      ? usable.recycleLPerH
      : FIRST_RECYCLE * mostRecycle(unit.recycleKv, at)
    : (unit.recycleLPerH ?? 0);
  const displacement = at.pump?.kind === 'displacement' ? at.pump : null;
  if (displacement && displacement.flowLPerH <= recycle && !unit.recycleKv)
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
  const bench = { unit, at, mass };
  let from: Settling = {
    mixed: recycle > 0 ? (usable?.mixedFeedMmolL ?? feed.mmolL) : feed.mmolL,
    recycle,
    start:
      usable && usable.slope !== 0
        ? { x: displacement ? usable.feedPressureBar : usable.membraneFeedLPerH, slope: usable.slope }
        : rough.value.start,
    // A wide recycle valve turns a hair of pressure into litres.
    tolerance: unit.recycleKv ? 1e-11 : 1e-8,
    settled: RECYCLE_SETTLED,
    most: rough.value.most,
  };
  if (!from.start && slices > ROUGH_SLICES) {
    const found = settle({ ...bench, setup: setupOf(ROUGH_SLICES) }, feed, { ...from, tolerance: 1e-3, settled: 1e-3 });
    // A jump in the balance is one on any number of slices.
    if (!found.ok && found.error.field === 'recycleKv' && unit.valve?.kind === 'pressure') return found;
    if (found.ok) from = { ...from, ...found.value, start: found.value.point.at };
  }
  const settled = settle({ ...bench, setup }, feed, from);
  // Where nothing comes back through the valve the balance has a kink, at which a search may stop: it is a unit without one.
  if (settled.ok && unit.recycleKv && settled.value.recycle <= 0 && Math.abs(settled.value.point.residual) > UNSETTLED)
    return settledUnit({ ...unit, recycleKv: null, recycleLPerH: 0 }, feed, at, slices);
  return settled.ok ? ok(flowsOf(feed, at, settled.value.point, settled.value.recycle, settled.value.mixed)) : settled;
}

/** Pressure no waste of a pumped unit passes, bar. */
const mostPumpedBar = (pump: Pump, at: UnitConditions): number =>
  pump.kind === 'displacement' ? pump.reliefBar : pumpOutletBar(pump, at.linePressureBar, 0);

/** The most a recycle valve can pass, L/h; less than what a piston pump moves. */
function mostRecycle(kv: number, at: UnitConditions): number {
  const { pump } = at;
  if (!pump) return 0;
  const byPressure = flowThroughValveLPerH(kv, mostPumpedBar(pump, at));
  return pump.kind === 'displacement' ? Math.min(byPressure, 0.999 * pump.flowLPerH) : byPressure;
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
  const run = runRanks(setup, unit.ranks, feedLPerH, at.linePressureBar, at.permeatePressureBar, feed.mmolL, unit.defects);
  if (!run) return fail('feedLPerH', feedLPerH, 'more feed', 'The membrane takes all the feed: give it more.');
  return ok(
    flowsOf(
      feed,
      at,
      { membraneFeed: feedLPerH, feedBar: at.linePressureBar, recycle: 0, run, at: { x: feedLPerH, slope: 0 }, iterations: 0, residual: 0 },
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
