import { flowThroughValveLPerH, restrictorFlowLPerH, solveMembraneUnit, type MembraneUnit } from '../membrane';
import { ok, type InputError, type Outcome } from '../quantity';
import type { MembraneOperation } from '../train';
import { settleWater, strengthened, type Water } from '../water';

/** A state of a membrane unit that readings are asked about; factors as natural logarithms, 0 as new and as planned. */
export interface UnitState {
  readonly temperatureC: number;
  /** Pressure at the membrane, bar. */
  readonly membraneBar: number;
  /** Factors of the membrane's water and salt permeability. */
  readonly lnWater: number;
  readonly lnSalt: number;
  /** Factor of what the restrictor or the needle valve passes at the same pressure. */
  readonly lnRestrictor: number;
  /** Strength of the tap against the planned one. */
  readonly lnTap: number;
}

/** What a unit shows in a state: logarithms of product and waste in L/h, and of salt passage on conductivity. */
export type UnitShows = readonly [lnProduct: number, lnWaste: number, lnPassage: number];

/** A unit's answers over a range, laid down once so that a year of readings asks no solver. */
export interface UnitMap {
  readonly shows: (state: UnitState) => UnitShows;
  /** Whether waste tells of the restrictor: a valve that holds a pressure or a recovery gives it no factor. */
  readonly hasRestrictor: boolean;
  /** Whether the pressure at the membrane is held by a valve behind a pump of fixed flow. */
  readonly held: boolean;
  /** How strength goes with conductivity about this tap, a power near 1. */
  readonly strengthPower: number;
  readonly range: UnitRange;
}

/** What a map spans. */
export interface UnitRange {
  readonly lowC: number;
  readonly highC: number;
  readonly lowBar: number;
  readonly highBar: number;
}

/** Nodes along temperature, the logarithm of pressure, and the logarithm of the water factor. */
const NODES = { temperature: 3, pressure: 3, water: 3 } as const;
/** From a membrane that makes half of what it did to one a tenth above. */
const LOWEST_WATER = -0.7;
const HIGHEST_WATER = 0.25;
/** Step of the slope of strength against conductivity, in ln. */
const STEP = 0.08;
/** Steps of slopes and bends in ln: what moves little to either side, salt as far up as oxidation and torn seals take it. */
const STEPS = { lnSalt: [0.4, 1.1], lnRestrictor: [STEP, -STEP], lnTap: [STEP, -STEP] } as const;

/** Chebyshev points of a span: a polynomial through them strays least between them. */
const points = (low: number, high: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => (low + high) / 2 - ((high - low) / 2) * Math.cos((Math.PI * (i + 0.5)) / count));

/** Weights of the nodes for a value between them (Lagrange). */
const weights = (nodes: readonly number[], x: number): number[] =>
  nodes.map((node, i) => nodes.reduce((product, other, j) => (j === i ? product : (product * (x - other)) / (node - other)), 1));

const SLOPES = ['lnSalt', 'lnRestrictor', 'lnTap'] as const;

/**
 * Lays down what a membrane unit shows over the pressures and temperatures a log holds: some hundred solves of the unit
 * alone, polynomials between them. Against the solver itself it stays within 0.6 % (see the test).
 *
 * @param operation the unit as new, see `membraneOperation`
 * @returns an error of the solver where the unit makes no water somewhere within the range
 */
export function unitMap(operation: MembraneOperation, range: UnitRange): Outcome<UnitMap> {
  const held = isHeld(operation);
  const exponent = boreExponent(operation);
  const temperatures = points(range.lowC, range.highC, NODES.temperature);
  const pressures = points(Math.log(range.lowBar), Math.log(range.highBar), NODES.pressure);
  const waters = points(LOWEST_WATER, HIGHEST_WATER, NODES.water);
  const solve = (state: UnitState): Outcome<UnitShows> => showsOf(operation, state, held, exponent);

  const values: number[][] = [];
  const slopes: number[][] = [];
  for (const temperatureC of temperatures)
    for (const lnBar of pressures) {
      const plain = { temperatureC, membraneBar: Math.exp(lnBar), lnWater: 0, lnSalt: 0, lnRestrictor: 0, lnTap: 0 };
      const base = solve(plain);
      if (!base.ok) return base;
      for (const lnWater of waters) {
        const at = solve({ ...plain, lnWater });
        if (!at.ok) return at;
        values.push([...at.value]);
      }
      const row: number[] = [];
      for (const along of SLOPES) {
        const [a, b] = STEPS[along];
        const [first, second] = [solve({ ...plain, [along]: a }), solve({ ...plain, [along]: b })];
        if (!first.ok) return first;
        if (!second.ok) return second;
        // The parabola through the base and the two.
        first.value.forEach((value, k) => {
          const [da, db] = [(value - base.value[k]!) / a, (second.value[k]! - base.value[k]!) / b];
          const bend = (db - da) / (b - a);
          row.push(da - bend * a, bend);
        });
      }
      slopes.push(row);
    }
  const shows = (state: UnitState): UnitShows => {
    const t = weights(temperatures, state.temperatureC);
    const p = weights(pressures, Math.log(state.membraneBar));
    const w = weights(waters, state.lnWater);
    const out = [0, 0, 0];
    let at = 0;
    t.forEach((wt) =>
      p.forEach((wp) => {
        const both = wt * wp;
        w.forEach((ww, k) => values[at * w.length + k]!.forEach((value, i) => (out[i]! += both * ww * value)));
        SLOPES.forEach((along, k) => {
          const x = state[along];
          for (let i = 0; i < 3; i++) out[i]! += both * (x * slopes[at]![6 * k + 2 * i]! + x * x * slopes[at]![6 * k + 2 * i + 1]!);
        });
        at += 1;
      }),
    );
    return out as unknown as UnitShows;
  };
  return ok({ shows, hasRestrictor: exponent !== null, held, strengthPower: strengthPower(operation.feed), range });
}

/** Whether a unit's pressure is held by its valve, behind a pump that pushes the same flow through at any. */
export const isHeld = ({ unit, conditions }: MembraneOperation): boolean =>
  unit.valve?.kind === 'pressure' && conditions.pump?.kind === 'displacement';

/** The unit in a state, solved. */
function showsOf(
  { unit, feed, conditions }: MembraneOperation,
  state: UnitState,
  held: boolean,
  exponent: number | null,
): Outcome<UnitShows> {
  const { temperatureC, membraneBar, lnWater, lnSalt, lnRestrictor, lnTap } = state;
  const asIs: MembraneUnit = {
    ...unit,
    factors: { water: Math.exp(lnWater), salt: Math.exp(lnSalt) },
    ...(held ? {} : recycleAt(unit, conditions, membraneBar)),
  };
  const throttled =
    unit.valve?.kind === 'needle'
      ? { ...asIs, valve: { ...unit.valve, kvM3PerH: unit.valve.kvM3PerH * Math.exp(lnRestrictor) } }
      : { ...asIs, restrictor: { ...unit.restrictor, boreMm: unit.restrictor.boreMm * Math.exp(lnRestrictor / (exponent ?? 1)) } };
  const water = { ...strengthened(feed, Math.exp(lnTap)), temperatureC };
  const solved = held
    ? heldAt(asIs, water, conditions, membraneBar)
    : solveMembraneUnit(throttled, water, { ...conditions, linePressureBar: membraneBar, prefilterBarPerLPerH: 0, pump: null });
  if (!solved.ok) return solved;
  const { permeate, permeateLPerH, concentrateLPerH } = solved.value;
  if (!permeate || !(permeateLPerH > 0)) return { ok: false, error: nothingMade(membraneBar) };
  const [before, after] = [settleWater(water), settleWater(permeate)];
  if (!before.ok) return before;
  if (!after.ok) return after;
  return ok([Math.log(permeateLPerH), Math.log(concentrateLPerH), Math.log(after.value.ec25UScm / before.value.ec25UScm)]);
}

/** A unit whose valve holds such a pressure that this much stands at its feed: what the elements take lies between the two. */
function heldAt(
  unit: MembraneUnit,
  water: Water,
  conditions: MembraneOperation['conditions'],
  feedBar: number,
): ReturnType<typeof solveMembraneUnit> {
  const first = solveMembraneUnit({ ...unit, valve: { kind: 'pressure', bar: feedBar } }, water, conditions);
  if (!first.ok) return first;
  const taken = first.value.feedPressureBar - first.value.concentratePressureBar;
  return solveMembraneUnit({ ...unit, valve: { kind: 'pressure', bar: feedBar - taken } }, water, conditions);
}

/** A recycle whose valve is set by its opening, as a flow: through the valve from the membrane's pressure back to the pump's inlet. */
function recycleAt(
  { recycleKv }: MembraneUnit,
  { linePressureBar }: MembraneOperation['conditions'],
  membraneBar: number,
): Partial<MembraneUnit> {
  if (recycleKv === null || recycleKv === undefined) return {};
  return { recycleKv: null, recycleLPerH: flowThroughValveLPerH(recycleKv, Math.max(0, membraneBar - linePressureBar)) };
}

const nothingMade = (bar: number): InputError => ({
  field: 'pressureBar',
  value: bar,
  accepted: 'a pressure at which water is made',
  message: `At ${bar.toPrecision(3)} bar this membrane makes no water: nothing can be held against it.`,
});

/** How strength goes with conductivity, a little below and above a water. */
function strengthPower(feed: Water): number {
  const [up, down] = [STEP, -STEP].map((step) => settleWater(strengthened(feed, Math.exp(step))));
  if (!up?.ok || !down?.ok) return 1;
  return (2 * STEP) / Math.log(up.value.ec25UScm / down.value.ec25UScm);
}

/** How the flow of a restrictor goes with its bore, about the working point; null where a valve sets the waste in another way. */
function boreExponent({ unit, conditions }: MembraneOperation): number | null {
  if (unit.valve) return unit.valve.kind === 'needle' ? 1 : null;
  const flow = (share: number): number => {
    const found = restrictorFlowLPerH({ ...unit.restrictor, boreMm: unit.restrictor.boreMm * share }, conditions.linePressureBar, 15);
    return found.ok ? found.value : Number.NaN;
  };
  const exponent = Math.log(flow(1.05) / flow(1 / 1.05)) / (2 * Math.log(1.05));
  return Number.isFinite(exponent) ? exponent : null;
}
