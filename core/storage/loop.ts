import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { AIR_CO2_ATM, balanced, MOLAR_MASS, settleWater, solutesMgL, type Water } from '../water';

/** What circulates, µmol/L: strong salt (as sodium chloride) and total carbon. */
export interface LoopWater {
  readonly saltUmolL: number;
  readonly carbonUmolL: number;
}

/** A recirculated loop: one well-mixed tank, a pump, a polisher, outlets, and back. */
export interface Loop {
  readonly volumeL: number;
  readonly loopLPerH: number;
  readonly makeUp: LoopWater;
  /** Share of each that the polisher lets through, and what it never gets below, µmol/L. */
  readonly leak: LoopWater;
  readonly floor: LoopWater;
  /** Water surface open to air, m²; 0 for a closed tank. */
  readonly surfaceM2: number;
  /** Soda lime in the vent. */
  readonly ventFilter: boolean;
}

/** Gas transfer at a quiet surface, m/s (0.5–2e-5; recalled, unsure). */
const GAS_TRANSFER_M_PER_S = 1e-5;
/** CO2 that water holds at rest with air at 25 °C, µmol/L. */
const AIR_CARBON_UMOL_L = 10 ** -1.468 * AIR_CO2_ATM * 1e6;
/** What a vent filter leaves of it (our default). */
const VENT_FILTER_LEAVES = 0.05;

/** Gas transfer of a tank, L/h. */
export const gasTransferLPerH = (surfaceM2: number): number => GAS_TRANSFER_M_PER_S * surfaceM2 * 3_600_000;

/** Carbon a tank would come to rest at with its air, µmol/L. */
const restUmolL = ({ ventFilter }: Loop): number => AIR_CARBON_UMOL_L * (ventFilter ? VENT_FILTER_LEAVES : 1);

function loopError(loop: Loop, drawLPerH: number): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('volumeL', 'Tank volume', loop.volumeL, 0.1, 1e6, 'L'),
    outOfRange('loopLPerH', 'Loop flow', loop.loopLPerH, 0.1, 1e6, 'L/h'),
    outOfRange('drawLPerH', 'Draw', drawLPerH, 0, loop.loopLPerH, 'L/h'),
  );
}

/** Rate of change and rest of one component. */
interface Course {
  readonly perHour: number;
  readonly restUmolL: number;
}

/** What moves a component of a loop; what does not change from step to step is worked out once. */
interface Moves {
  /** Share of what goes round that the polisher takes, and what it brings back, µmol/L. */
  readonly taken: number;
  readonly floor: number;
  readonly makeUp: number;
  /** Exchange with the air, L/h, and what that brings, µmol/h. */
  readonly gas: number;
  readonly air: number;
}
function movesOf(loop: Loop, key: keyof LoopWater): Moves {
  const gas = key === 'carbonUmolL' ? gasTransferLPerH(loop.surfaceM2) : 0;
  return { taken: 1 - loop.leak[key], floor: loop.floor[key], makeUp: loop.makeUp[key], gas, air: gas * restUmolL(loop) };
}
const perHourOf = ({ taken, gas }: Moves, backLPerH: number, volumeL: number, makeUpLPerH: number): number =>
  (makeUpLPerH + backLPerH * taken + gas) / volumeL;
const restOf = ({ floor, makeUp, air }: Moves, perHour: number, backLPerH: number, volumeL: number, makeUpLPerH: number): number =>
  perHour > 0 ? (makeUpLPerH * makeUp + backLPerH * floor + air) / (perHour * volumeL) : 0;

function courseOf(loop: Loop, key: keyof LoopWater, drawLPerH: number, volumeL: number): Course {
  const [moves, back] = [movesOf(loop, key), loop.loopLPerH - drawLPerH];
  const perHour = perHourOf(moves, back, volumeL, drawLPerH);
  return { perHour, restUmolL: restOf(moves, perHour, back, volumeL, drawLPerH) };
}
const courses = (loop: Loop, drawLPerH: number, volumeL: number): Readonly<Record<keyof LoopWater, Course>> => ({
  saltUmolL: courseOf(loop, 'saltUmolL', drawLPerH, volumeL),
  carbonUmolL: courseOf(loop, 'carbonUmolL', drawLPerH, volumeL),
});
/** Where a component stands a step of the hour on. */
function stepped(moves: Moves, fromUmolL: number, backLPerH: number, volumeL: number, makeUpLPerH: number): number {
  const perHour = perHourOf(moves, backLPerH, volumeL, makeUpLPerH);
  const rest = restOf(moves, perHour, backLPerH, volumeL, makeUpLPerH);
  return rest + (fromUmolL - rest) * Math.exp(-perHour / STEPS);
}

/** Behind the polisher. */
export const polished = (loop: Loop, tank: LoopWater): LoopWater => ({
  saltUmolL: loop.leak.saltUmolL * tank.saltUmolL + loop.floor.saltUmolL,
  carbonUmolL: loop.leak.carbonUmolL * tank.carbonUmolL + loop.floor.carbonUmolL,
});

/** Tank and outlets when everything stands, with a constant draw. */
export function loopAtRest(loop: Loop, drawLPerH: number): Outcome<{ readonly tank: LoopWater; readonly outlet: LoopWater }> {
  const invalid = loopError(loop, drawLPerH);
  if (invalid) return { ok: false, error: invalid };
  const { saltUmolL, carbonUmolL } = courses(loop, drawLPerH, loop.volumeL);
  const tank = { saltUmolL: saltUmolL.restUmolL, carbonUmolL: carbonUmolL.restUmolL };
  return ok({ tank, outlet: polished(loop, tank) });
}

/**
 * Hours until a component of the tank has come from one level to another; null when it never gets there, for it comes
 * to rest before.
 */
export function loopTimeH(loop: Loop, drawLPerH: number, of: keyof LoopWater, fromUmolL: number, toUmolL: number): Outcome<number | null> {
  const invalid = loopError(loop, drawLPerH);
  if (invalid) return { ok: false, error: invalid };
  return ok(timeOn(courses(loop, drawLPerH, loop.volumeL)[of], fromUmolL, toUmolL));
}

/** Hours on an exponential course; null beyond its rest. */
export function timeOn({ perHour, restUmolL: rest }: Course, from: number, to: number): number | null {
  const share = (from - rest) / (to - rest);
  return share > 0 && Number.isFinite(share) ? Math.log(share) / perHour : null;
}

/** The water so much salt and carbon make, at 25 °C: for its conductivity and pH. */
export const loopWater = ({ saltUmolL, carbonUmolL }: LoopWater): Water =>
  balanced(solutesMgL({ Na: (saltUmolL * MOLAR_MASS.Na) / 1000, Cl: (saltUmolL * MOLAR_MASS.Cl) / 1000 }), carbonUmolL / 1000, 25);

/** Resistivity at 25 °C, MΩ·cm. */
export function resistivityMOhmCm(water: LoopWater): Outcome<number> {
  const state = settleWater(loopWater(water));
  return state.ok ? ok(1 / state.value.ec25UScm) : state;
}

/** When the unit fills the tank, as shares of its volume. */
export interface LevelControl {
  readonly startShare: number;
  readonly stopShare: number;
  readonly productionLPerH: number;
}

/** A loop at a moment of the week. */
export interface LoopMoment {
  readonly hour: number;
  readonly volumeL: number;
  readonly tank: LoopWater;
  readonly outlet: LoopWater;
  readonly starts: number;
}

/** Steps an hour is cut into. */
const STEPS = 12;

/**
 * A loop through a week of draws, level and mass together: exact exponential in every step, the unit switched by its
 * float. The week is run twice; the second time is told.
 *
 * @param drawLPerH what is drawn in each hour
 * @returns an error when the outlets starve, or when the unit cannot keep up
 */
export function loopWeek(loop: Loop, control: LevelControl, drawLPerH: readonly number[]): Outcome<readonly LoopMoment[]> {
  const most = Math.max(...drawLPerH);
  const invalid = loopError(loop, most);
  if (invalid) return { ok: false, error: invalid };
  const mean = drawLPerH.reduce((sum, draw) => sum + draw, 0) / drawLPerH.length;
  if (mean > control.productionLPerH)
    return fail(
      'productionLPerH',
      control.productionLPerH,
      `at least ${mean.toFixed(1)} L/h`,
      `${(24 * mean).toFixed(0)} L a day are drawn and ${(24 * control.productionLPerH).toFixed(0)} made: the unit cannot keep up.`,
    );
  const [on, off] = [control.startShare * loop.volumeL, control.stopShare * loop.volumeL];
  const least = 0.02 * loop.volumeL;
  let volumeL = off;
  let filling = false;
  const rest = courses(loop, mean, loop.volumeL);
  const [salt, carbon] = [movesOf(loop, 'saltUmolL'), movesOf(loop, 'carbonUmolL')];
  let tank: LoopWater = { saltUmolL: rest.saltUmolL.restUmolL, carbonUmolL: rest.carbonUmolL.restUmolL };
  const told: LoopMoment[] = [];
  let starts = 0;
  for (let hour = 0; hour < 2 * drawLPerH.length; hour++) {
    const draw = drawLPerH[hour % drawLPerH.length]!;
    const back = loop.loopLPerH - draw;
    if (hour === drawLPerH.length) starts = 0;
    for (let s = 0; s < STEPS; s++) {
      if (filling && volumeL >= off) filling = false;
      else if (!filling && volumeL <= on) {
        filling = true;
        starts += 1;
      }
      const makeUp = filling ? control.productionLPerH : 0;
      tank = {
        saltUmolL: stepped(salt, tank.saltUmolL, back, volumeL, makeUp),
        carbonUmolL: stepped(carbon, tank.carbonUmolL, back, volumeL, makeUp),
      };
      volumeL = Math.max(least, Math.min(loop.volumeL, volumeL + (makeUp - draw) / STEPS));
    }
    if (hour >= drawLPerH.length) told.push({ hour: hour - drawLPerH.length + 1, volumeL, tank, outlet: polished(loop, tank), starts });
  }
  return ok(told);
}

/** Starts a day of a unit behind a float, at an even draw. */
export function startsPerDay(
  litresPerDay: number,
  productionLPerH: number,
  volumeL: number,
  startShare: number,
  stopShare: number,
): Outcome<number> {
  if (litresPerDay > 24 * productionLPerH)
    return fail(
      'litresPerDay',
      litresPerDay,
      `at most ${24 * productionLPerH} L a day`,
      `${litresPerDay} L a day are needed and ${24 * productionLPerH} made: the unit cannot keep up.`,
    );
  return ok((litresPerDay * (1 - litresPerDay / (24 * productionLPerH))) / (volumeL * (stopShare - startShare)));
}

/** Velocity in a pipe, m/s. */
export const velocityMPerS = (flowLPerH: number, boreMm: number): number => flowLPerH / 3.6e6 / ((Math.PI / 4) * (boreMm / 1000) ** 2);

/** UV dose, mJ/cm². */
export const uvDoseMJPerCm2 = (intensityMWPerCm2: number, chamberL: number, flowLPerH: number): number =>
  (intensityMWPerCm2 * chamberL * 3600) / flowLPerH;

/**
 * Organic carbon that a lamp of 185 nm leaves at a flow, as a share, from what its sheet prints at another.
 *
 * @param left at the flow of the sheet, 0–1
 */
export const organicLeft = (left: number, atLPerH: number, flowLPerH: number): number => left ** (atLPerH / flowLPerH);
/** Carbon, g/mol: what it breaks down ends as CO2. */
export const CARBON_G_PER_MOL = 12.011;

/** Dose for disinfection (NSF/ANSI 55 class A, recalled), reached when the lamp is down to 0.7 of new. */
export const UV_GOAL_MJ_PER_CM2 = 40;
export const UV_END_OF_LIFE = 0.7;

/** Days a polisher in the loop lasts, by what the make-up and the air bring it. */
export function polisherDays(loop: Loop, drawLPerH: number, tank: LoopWater, usableAnionEq: number): number | null {
  const fromAir = Math.max(0, gasTransferLPerH(loop.surfaceM2) * (restUmolL(loop) - tank.carbonUmolL));
  const meqPerDay = (24 * (drawLPerH * (loop.makeUp.saltUmolL + loop.makeUp.carbonUmolL) + fromAir)) / 1000;
  return meqPerDay > 0 ? (1000 * usableAnionEq) / meqPerDay : null;
}
