import { fillingOf, allStandings, STRONGEST_MONTH } from '../advice';
import { bedCapacityEq, bedUtilisation, ionicLoad, slowestFlowLPerH } from '../exchange';
import { membraneStage, type System } from '../file';
import { goalLimits, hourlyNeedL, productDemand } from '../goal';
import {
  agedBy,
  isSeawaterElement,
  isSmallElement,
  YEARLY_AGEING,
  yearsUntilSpent,
  type ElementClass,
  type YearlyAgeing,
} from '../membrane';
import { DAY_MS, DAYS_PER_YEAR, fail, ok, PPM_PER_USCM, type Outcome } from '../quantity';
import { kindOf, stageBed, type Stage, type StageOf } from '../stage';
import { COLDEST_MONTH, seasonSpan, solveTrain, type SeasonSpan } from '../train';
import { SMALL_ELEMENT_L } from '../storage';
import { settleWater, strengthened, type Water } from '../water';
import { bringsNew, upkeepOf, type Standing } from '../log';
import type { Season } from './season';
import type { CostLine, DayResponse, YearPart, YearPlant, YearResin } from './simulate';
import { gridTable } from './table';

/** A system as it stands, laid out for the years to come: its train solved over season, age and strength, its parts with what they have behind them. */
export interface Ahead {
  readonly plant: YearPlant;
  /** What each part is called, in the order of the train. */
  readonly names: ReadonlyMap<string, string>;
  /** The day the run begins. */
  readonly startMs: number;
  /** Most the product may show, ppm; null where the goal says nothing of it. */
  readonly goalPpm: number | null;
  /** What the resin's own doubt is: standard deviation of its logarithm, from what is left of it. */
  readonly resinSd: number;
  /** Factors on the tap's strength it was solved for. */
  readonly strengths: readonly [low: number, high: number];
}

/** A figure the sliders move: factors on tap and use, degrees on the water. */
export interface WhatIf {
  readonly strength: number;
  readonly use: number;
  readonly warmerC: number;
  readonly resinPrice: number;
}
export const AS_USUAL: WhatIf = { strength: 1, use: 1, warmerC: 0, resinPrice: 1 };

/** Day of the year a month is half over on. */
const midOfMonth = (month: number): number => Math.floor(((month + 0.5) * DAYS_PER_YEAR) / 12);
/** Half a year after it is coldest. */
const WARMEST_DAY = midOfMonth(COLDEST_MONTH + 6);
const STRONGEST_DAY = midOfMonth(STRONGEST_MONTH);
/** Strengths a train is solved at, against the tap: the sliders go no further. The sea changes little, and much comes of it. */
const STRENGTHS = { tap: [0.5, 1, 1.8], sea: [0.8, 1, 1.25] } as const;
/** Ages it is solved at, years by the calendar: a membrane better than its calendar says stands before its beginning. */
const AGES = [-1.5, 1.5, 5.5] as const;
/** Room the sliders have around the season, °C. */
const ROOM_C = 5;
const LEAST_C = 0.5;
const MOST_C = 45;

const strengthsFor = (stage: StageOf<'membrane'> | undefined): (typeof STRENGTHS)[keyof typeof STRENGTHS] =>
  STRENGTHS[stage && isSeawaterElement(stage.elementClass) ? 'sea' : 'tap'];

const ageingOf = ({ elementClass }: { readonly elementClass: ElementClass }): YearlyAgeing =>
  YEARLY_AGEING[isSmallElement(elementClass) ? 'household' : 'large'];

/** Years the membrane has behind it; one that has outlived its time is due at once. */
const ageOf = (stage: StageOf<'membrane'>, { use }: Standing): number =>
  Math.min(0.999 * yearsUntilSpent(ageingOf(stage)), use[stage.id]?.years ?? 0);

const dayOfYear = (ms: number): number => (ms - Date.UTC(new Date(ms).getUTCFullYear(), 0, 1)) / DAY_MS;

/** Season of the tap from the day the run begins. */
function seasons(span: SeasonSpan, ec25UScm: number, startMs: number): { temperature: Season; strength: Season } {
  const from = dayOfYear(startMs);
  const { lowestTemperatureC: low, highestTemperatureC: high } = span;
  const [weak, strong] = [(span.weakestUScm ?? ec25UScm) / ec25UScm, (span.strongestUScm ?? ec25UScm) / ec25UScm];
  return {
    temperature: { mean: (low + high) / 2, amplitude: (high - low) / 2, highDay: WARMEST_DAY - from },
    strength: { mean: (weak + strong) / 2, amplitude: (strong - weak) / 2, highDay: STRONGEST_DAY - from },
  };
}

/** What the train does over temperature, age of its membrane and strength: solved whole at each node. */
function responseOf(system: System, today: Standing, feed: Water, span: SeasonSpan): Outcome<YearPlant['response']> {
  const stages = today.report.train.stages;
  const stage = membraneStage(stages);
  if (!stage) return ok(() => ({ productionLPerH: system.train.drawLPerH, passage: 1 }));
  const yearly = ageingOf(stage);
  const ageToday = ageOf(stage, today);
  const known = { water: stage.waterFactor ?? 1, salt: stage.saltFactor ?? 1 };
  const calendar = agedBy(yearly, ageToday);
  // What the log knows better than the calendar stays with this membrane; the next one begins new.
  const own = { water: known.water / calendar.water, salt: known.salt / calendar.salt };
  const low = Math.max(LEAST_C, span.lowestTemperatureC - ROOM_C);
  const high = Math.min(MOST_C, span.highestTemperatureC + ROOM_C);
  const temperatures = [low, low + 0.25 * (high - low), (low + high) / 2, low + 0.75 * (high - low), high];
  const found = new Map<string, DayResponse>();
  let failure: Outcome<never> | null = null;
  let near: ReturnType<typeof solveTrain> | null = null;
  const at = (temperatureC: number, age: number, strength: number): DayResponse => {
    const key = `${temperatureC} ${age} ${strength}`;
    const hit = found.get(key);
    if (hit) return hit;
    const factors = agedBy(yearly, age);
    const worn = stages.map((one) => (one.id === stage.id ? { ...stage, waterFactor: factors.water, saltFactor: factors.salt } : one));
    const water = { ...strengthened(feed, strength), temperatureC };
    const solved = solveTrain(
      { ...today.report.train, stages: worn, branches: [], loop: null },
      system.source,
      water,
      {},
      near?.ok ? near.value : undefined,
    );
    if (solved.ok) near = solved;
    else failure ??= solved;
    const station = solved.ok ? solved.value.stations.find(({ after }) => after === stage.id) : undefined;
    const tap = settleWater(water);
    const passage = station && tap.ok ? Math.min(0.999, Math.max(1e-6, station.state.ec25UScm / tap.value.ec25UScm)) : 0.5;
    const response = { productionLPerH: Math.max(1e-3, solved.ok ? solved.value.productLPerH : 1e-3), passage };
    found.set(key, response);
    return response;
  };
  const strengths = strengthsFor(stage);
  const axes = [temperatures, AGES, strengths];
  const production = gridTable(axes, (t, age, strength) => at(t, age, strength).productionLPerH);
  const odds = gridTable(axes, (t, age, strength) => {
    const { passage } = at(t, age, strength);
    return passage / (1 - passage);
  });
  if (failure) return failure;
  return ok((temperatureC, ageYears, strength, isFirst) => {
    // The membrane of today keeps what its log says of it; one fitted later begins new.
    const mine = isFirst ? own : { water: 1, salt: 1 };
    // What its water factor is worth in years: output does not go with it in proportion where a pump or a filter gives way.
    const aYear = agedBy(yearly, 1);
    const years = ageYears + Math.log(mine.water) / Math.log(aYear.water);
    const age = Math.min(AGES[2], Math.max(AGES[0], years));
    const s = Math.min(strengths[2], Math.max(strengths[0], strength));
    const t = Math.min(high, Math.max(low, temperatureC));
    const o = odds(t, age, s) * mine.salt * aYear.salt ** (ageYears - age);
    return { productionLPerH: production(t, age, s), passage: o / (1 + o) };
  });
}

/** Cost line of a stage's parts. */
const lineOf = (stage: Stage): CostLine =>
  stage.kind === 'carbon' ? 'carbon' : kindOf(stage).partGroup === 'filters' ? 'prefilters' : 'resin';

/** Parts with their counters, each where it stands and with what it has behind it. */
function partsOf(system: System, today: Standing, startMs: number): { parts: YearPart[]; names: Map<string, string> } {
  const { report, use } = today;
  const names = new Map<string, string>();
  const parts: YearPart[] = [];
  const membraneAt = system.train.stages.findIndex(({ id }) => id === report.solved.unitStageId);
  for (const standing of allStandings(system, report)) {
    const { stage } = standing;
    const kind = kindOf(stage);
    const at = system.train.stages.findIndex(({ id }) => id === stage.id);
    const resins = report.solved.resins.some(({ stageId }) => stageId === stage.id);
    if (stage.id === report.solved.unitStageId || resins) continue;
    const inBranch = at < 0;
    const share = inBranch && report.demandLPerDay > 0 ? standing.litresPerDay / report.demandLPerDay : 1;
    for (const own of kind.upkeep(stage, standing)) {
      const { upkeep } = upkeepOf(system, stage, own);
      const days = upkeep.everyDays ?? upkeep.afterDays;
      const litres = upkeep.litresNew;
      if (days === undefined && litres === undefined) continue;
      const unit = inBranch || at > membraneAt ? ('productL' as const) : ('feedL' as const);
      const fitted = 'fittedOn' in stage && stage.fittedOn ? (startMs - Date.parse(`${stage.fittedOn}T00:00:00Z`)) / DAY_MS : 0;
      const id = `${stage.id} ${own.work}`;
      const price = bringsNew(own.work) ? (kind.price(stage, system.prices) ?? 0) * (own.takes ?? 1) : 0;
      names.set(id, own.says === 'change' ? stage.name : `${stage.name}, ${own.says}`);
      parts.push({
        id,
        line: lineOf(stage),
        cost: price,
        limits: [
          ...(days === undefined ? [] : [{ unit: 'days' as const, limit: days }]),
          ...(litres === undefined || !(share > 0) ? [] : [{ unit, limit: litres / share }]),
        ],
        agedDays: days === undefined ? 0 : Math.max(0, fitted) % days,
        filled: { [unit]: Math.min((use[stage.id]?.passedL ?? 0) / share, litres === undefined ? Infinity : (litres / share) * 0.999) },
      });
    }
  }
  return { parts, names };
}

/** The polishing resin: all beds in a row as one, with what the log says of the first. */
function resinOf(system: System, today: Standing, goalPpm: number | null): YearResin | null {
  const { report, tracking } = today;
  const beds = system.train.stages.filter((stage): stage is StageOf<'resin'> =>
    report.solved.resins.some(({ stageId }) => stageId === stage.id),
  );
  if (beds.length === 0 || !report.resin || report.resin.throughput.until.kind !== 'litres') return null;
  const side = report.resin.throughput.limiting;
  const capacity = beds.reduce((sum, bed) => sum + bedCapacityEq(stageBed(bed))[`${side}Eq`], 0);
  const flow = Math.max(
    report.resin.flowLPerH,
    ...beds.map((bed) => slowestFlowLPerH(stageBed(bed), report.solved.resins[0]!.feed.temperatureC)),
  );
  const units = beds.reduce((sum, bed) => {
    const state = bedUtilisation(stageBed(bed), flow, report.solved.resins[0]!.feed.temperatureC);
    return sum + (state.ok ? state.value[side].transferUnits : 20);
  }, 0);
  return {
    id: beds[0]!.id,
    capacityMeq: 1000 * capacity,
    plates: Math.max(FEWEST_PLATES, units),
    goalPpm: goalPpm ?? 1,
    // Beds in a row move up: the first is changed, the guard takes its place.
    cost: fillingOf(beds.slice(0, 1), system.prices),
    ...(beds.length > 1 && { leadMeq: 1000 * bedCapacityEq(stageBed(beds[0]!))[`${side}Eq`] }),
    usedMeq: tracking ? Math.min(1000 * capacity, 1000 * tracking[`${side}Eq`]) : 0,
  };
}
const FEWEST_PLATES = 4;

/**
 * Lays a system out for the years to come.
 *
 * @param feed the tap as it is planned with
 * @param nowMs the day the run begins
 */
export function aheadOf(system: System, today: Standing, feed: Water, nowMs: number): Outcome<Ahead> {
  const state = settleWater(feed);
  if (!state.ok) return state;
  const { report } = today;
  const span = seasonSpan(system.source, system.instruments);
  const startMs = Math.floor(nowMs / DAY_MS) * DAY_MS;
  const { temperature, strength } = seasons(span, state.value.ec25UScm, startMs);
  const response = responseOf(system, today, feed, span);
  if (!response.ok) return response;
  const demand = productDemand(system.goal);
  const week = hourlyNeedL(demand);
  if (!(week.reduce((sum, litres) => sum + litres, 0) > 0))
    return fail('demand', 0, 'above 0', 'Nothing is drawn: enter what is needed a day in Goal before a year is run.');
  const weekday = (new Date(startMs).getUTCDay() + 6) % 7;
  const membrane = membraneStage(system.train.stages);
  const limits = goalLimits(system.goal, system.units.ppmFactor);
  const most = limits.find(({ quantity }) => quantity === 'ec25UScm')?.high ?? null;
  const goalPpm = most === null ? (limits.find(({ quantity }) => quantity === 'tdsMgL')?.high ?? null) : PPM_PER_USCM * most;
  const { parts, names } = partsOf(system, today, startMs);
  const resin = resinOf(system, today, goalPpm);
  // What a litre brings the resin beside what a meter shows does not follow the strength.
  const before = report.solved.resins[0] ? ionicLoad(report.solved.resins[0].feed) : null;
  const passageNow = membrane ? response.value(feed.temperatureC, ageOf(membrane, today), 1, true).passage : 1;
  const side = report.resin?.throughput.limiting ?? 'anion';
  const seenMeqL = before ? (side === 'anion' ? before.anionMeqL - before.weakAcidMeqL : before.cationMeqL) : 0;
  if (membrane) {
    const life = yearsUntilSpent(ageingOf(membrane));
    names.set(membrane.id, membrane.name);
    parts.push({
      id: membrane.id,
      line: 'membrane',
      cost: system.prices.membranePerYear * life,
      limits: [{ unit: 'days', limit: DAYS_PER_YEAR * life }],
      agedDays: DAYS_PER_YEAR * ageOf(membrane, today),
    });
  }
  if (resin) names.set(resin.id, resin.leadMeq === undefined ? 'Resin' : 'Resin, first of the row');
  const tank = system.train.stages.findLast((stage): stage is StageOf<'tank'> => stage.kind === 'tank');
  const floats = tank && tank.prechargeBar === null && tank.startShare > 0 && tank.startShare < tank.stopShare;
  return ok({
    startMs,
    names,
    strengths: [
      strengthsFor(membrane)[0] / Math.max(1e-9, strength.mean - strength.amplitude),
      strengthsFor(membrane)[2] / (strength.mean + strength.amplitude),
    ],
    goalPpm,
    resinSd: today.tracking ? today.tracking.capacitySd : 0.25,
    plant: {
      response: response.value,
      recovery:
        report.solved.unit && report.solved.stations[0]!.flowLPerH > 0
          ? Math.min(1, report.solved.productLPerH / report.solved.stations[0]!.flowLPerH)
          : 1,
      temperature,
      strength,
      tapPpm: PPM_PER_USCM * state.value.ec25UScm,
      tapMeqL: passageNow > 0 ? seenMeqL / passageNow : 0,
      gasMeqL: before && side === 'anion' ? before.weakAcidMeqL : 0,
      demand: (day) => {
        const from = 24 * ((weekday + day) % 7);
        return week.slice(from, from + 24);
      },
      tank:
        tank && floats && membrane
          ? { volumeL: tank.volumeL, onFraction: tank.startShare, offFraction: tank.stopShare, startFraction: tank.stopShare }
          : null,
      resin,
      membranePartId: membrane?.id ?? null,
      parts,
      creep: membrane && isSmallElement(membrane.elementClass) ? { ...SMALL_ELEMENT_L, saltLPerH: SMALL_SALT_L_PER_H } : null,
      prices: {
        waterPerM3: system.prices.waterPerM3,
        sewerPerM3: system.prices.sewerPerM3,
        energyPerKWh: system.prices.powerPerKWh,
        visit: system.choice.visitCost,
        penaltyPerDay: 0,
        penaltyPerEvent: 0,
      },
      runningKW: ((report.energyKWhPerM3 ?? 0) * report.solved.productLPerH) / 1000,
    },
  });
}
/** Salt that creeps through a small element as it stands, L/h of permeability (membrane chapter, 13). */
const SMALL_SALT_L_PER_H = 0.2066;

/** The plant with what the sliders move. */
export const withWhatIf = ({ plant }: Pick<Ahead, 'plant'>, { strength, use, warmerC, resinPrice }: WhatIf): YearPlant => ({
  ...plant,
  temperature: { ...plant.temperature, mean: plant.temperature.mean + warmerC },
  strength: { ...plant.strength, mean: plant.strength.mean * strength, amplitude: plant.strength.amplitude * strength },
  demand: use === 1 ? plant.demand : (day) => plant.demand(day).map((litres) => litres * use),
  resin: plant.resin && { ...plant.resin, cost: plant.resin.cost * resinPrice },
});
