import { bedCapacityEq, frontLeak, ionMeqL, CATION_IDS, KINETIC } from '../exchange';
import { type StageOf, type ResinState, resinFloor, stageBed } from '../stage';
import type { System } from '../file';
import { hourlyNeedL, productDemand } from '../goal';
import { fail, ok, type Outcome } from '../quantity';
import {
  loopAtRest,
  loopTimeH,
  loopWeek,
  polisherDays,
  resistivityMOhmCm,
  velocityMPerS,
  type Loop,
  type LoopMoment,
  type LoopWater,
} from '../storage';
import type { SolvedTrain } from '../train';

/** A loop as it stands and through a week of draws. */
export interface LoopState {
  readonly tank: StageOf<'tank'>;
  /** Resistivity at the outlets with the mean draw, MΩ·cm at 25 °C. */
  readonly restMOhmCm: number;
  readonly week: readonly (LoopMoment & { readonly outletMOhmCm: number; readonly drawLPerH: number })[];
  readonly startsPerDay: number;
  readonly velocityMPerS: number;
  /** In the return at the largest draw. */
  readonly returnVelocityMPerS: number;
  readonly polisherDays: number | null;
  /** After the worst hour, without a draw, until the tank is nearly at its rest; null where it is there already. */
  readonly recoversH: number | null;
}

/** A loop laid out, and where it comes to rest with the mean draw. */
interface LoopLaid {
  readonly tank: StageOf<'tank'>;
  readonly set: NonNullable<System['train']['loop']>;
  readonly loop: Loop;
  readonly draws: readonly number[];
  readonly mean: number;
  readonly rest: { readonly tank: LoopWater; readonly outlet: LoopWater };
  readonly polisherDays: number | null;
}

/**
 * The loop of a train: its last tank, the resin and the rest behind it, and the line that comes back.
 *
 * @returns null where the train has none; an error where it cannot run
 */
function loopLaid(system: System, solved: SolvedTrain): Outcome<LoopLaid> | null {
  const { stages, loop: set } = system.train;
  if (!set) return null;
  const at = stages.findLastIndex((stage) => stage.kind === 'tank');
  const tank = stages[at];
  const before = solved.stations[at];
  if (tank?.kind !== 'tank' || !before)
    return fail('loop', null, 'a tank in the train', 'A loop runs from a tank and back to it: add a tank before the polisher.');
  const salt = CATION_IDS.reduce((sum, id) => sum + ionMeqL(before.water, id), 0);
  const resins = stages.slice(at + 1).filter((stage): stage is StageOf<'resin'> => stage.kind === 'resin');
  const states = solved.resins.filter((state) => resins.some((stage) => stage.id === state.stageId));
  // Without a polisher everything goes round; with several, what one lets through the next takes.
  const through = (units: (state: ResinState) => number, kinetic: number): number =>
    states.reduce((product, state) => product * frontLeak(units(state), state.usedShare, kinetic), 1);
  const last = resins.at(-1);
  const floor = last ? resinFloor(last, true) : null;
  const loop: Loop = {
    volumeL: tank.volumeL,
    loopLPerH: set.flowLPerH,
    makeUp: { saltUmolL: 1000 * salt, carbonUmolL: 1000 * before.water.carbonMmolL },
    leak: {
      saltUmolL: through(({ utilisation }) => Math.min(utilisation.cation.transferUnits, utilisation.anion.transferUnits), 1),
      carbonUmolL: through(({ utilisation }) => utilisation.anion.transferUnits, KINETIC.carbon ?? 1),
    },
    floor: { saltUmolL: floor?.saltUmolL ?? 0, carbonUmolL: floor?.carbonUmolL ?? 0 },
    surfaceM2: tank.openToAir ? set.surfaceM2 : 0,
    ventFilter: set.ventFilter,
  };
  const draws = hourlyNeedL(productDemand(system.goal));
  const mean = draws.reduce((sum, litres) => sum + litres, 0) / draws.length;
  const rest = loopAtRest(loop, mean);
  if (!rest.ok) return rest;
  const usableEq = resins.reduce((sum, stage) => {
    const state = solved.resins.find((candidate) => candidate.stageId === stage.id);
    return sum + bedCapacityEq(stageBed(stage)).anionEq * (state?.utilisation.anion.utilisation ?? 0.8);
  }, 0);
  return ok({
    tank,
    set,
    loop,
    draws,
    mean,
    rest: rest.value,
    polisherDays: usableEq > 0 ? polisherDays(loop, mean, rest.value.tank, usableEq) : null,
  });
}

/** A loop's tank and outlets hour by hour through a week of its draws. */
const weekOf = ({ tank: { startShare, stopShare }, loop, draws }: LoopLaid, { productLPerH }: SolvedTrain): ReturnType<typeof loopWeek> =>
  loopWeek(loop, { startShare, stopShare, productionLPerH: productLPerH }, draws);

/** The loop of a train as it stands and through its week. */
export function loopState(system: System, solved: SolvedTrain): Outcome<LoopState> | null {
  const laid = loopLaid(system, solved);
  if (!laid?.ok) return laid;
  const { tank, set, loop, draws, rest, polisherDays: days } = laid.value;
  const restR = resistivityMOhmCm(rest.outlet);
  if (!restR.ok) return restR;
  const week = weekOf(laid.value, solved);
  if (!week.ok) return week;
  const moments = week.value.map((moment, hour) => momentAt(moment, draws[hour]!));
  return ok({
    tank,
    restMOhmCm: restR.value,
    week: moments,
    startsPerDay: (moments.at(-1)?.starts ?? 0) / (moments.length / 24),
    velocityMPerS: velocityMPerS(set.flowLPerH, set.boreMm),
    returnVelocityMPerS: velocityMPerS(Math.max(0, set.flowLPerH - Math.max(...draws)), set.boreMm),
    recoversH: recovery(loop, moments),
    polisherDays: days,
  });
}

/** Days the polisher of a train's loop lasts, by what the make-up and the air bring it; null where there is none, or nothing is brought. */
export function loopPolisherDays(system: System, solved: SolvedTrain): number | null {
  const laid = loopLaid(system, solved);
  return laid?.ok ? laid.value.polisherDays : null;
}

/** What the outlets of a train's loop read at the worst hour of its week, MΩ·cm; null without a loop that runs. */
export function worstHourMOhmCm(system: System, solved: SolvedTrain): number | null {
  const laid = loopLaid(system, solved);
  const week = laid?.ok ? weekOf(laid.value, solved) : null;
  return week?.ok ? worstMOhmCm(week.value) : null;
}

/** An hour of the week; its resistivity is settled when it is asked for. */
function momentAt(moment: LoopMoment, drawLPerH: number): LoopState['week'][number] {
  let known: number | null = null;
  return {
    ...moment,
    drawLPerH,
    get outletMOhmCm() {
      return (known ??= outletMOhmCm(moment));
    },
  };
}
function outletMOhmCm({ outlet }: LoopMoment): number {
  const settled = resistivityMOhmCm(outlet);
  return settled.ok ? settled.value : 0;
}

/** The outlets at the worst hour of a week, MΩ·cm: among the hours that no other has more salt and more carbon than. */
export function worstMOhmCm(week: readonly LoopMoment[]): number {
  const more = (a: LoopMoment['outlet'], b: LoopMoment['outlet']): boolean => a.saltUmolL >= b.saltUmolL && a.carbonUmolL >= b.carbonUmolL;
  let worst: LoopMoment[] = [];
  for (const moment of week) {
    if (worst.some(({ outlet }) => more(outlet, moment.outlet))) continue;
    worst = [...worst.filter(({ outlet }) => !more(moment.outlet, outlet)), moment];
  }
  return Math.min(...worst.map(outletMOhmCm));
}

/** How near to its rest a tank counts as recovered. */
const NEARLY = 1.1;

/** Hours the loop needs to polish the saltiest tank of the week, once nobody draws. */
function recovery(loop: Loop, week: readonly LoopMoment[]): number | null {
  const rest = loopAtRest(loop, 0);
  const salt = Math.max(...week.map((moment) => moment.tank.saltUmolL));
  const goal = rest.ok ? NEARLY * rest.value.tank.saltUmolL : salt;
  if (salt <= goal) return null;
  const hours = loopTimeH(loop, 0, 'saltUmolL', salt, goal);
  return hours.ok ? hours.value : null;
}
